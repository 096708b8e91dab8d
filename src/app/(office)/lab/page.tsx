import type { Metadata } from 'next';
import { AudioWaveform, Eye, Footprints, Route } from 'lucide-react';
import { Link } from '@/ui/shared/link';
import { requireUser } from '@/server/floor/auth/session';
import { hangar } from '@/server/hangar/queries/hangar';
import { Empty, Outranked } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Lab' };

const ROOMS = [
  [
    '/lab/sight-picture',
    'Picture over the nose',
    'What is seen at every gate and attitude, the offset that keeps the runway beside the nose, the wedges on the ground; beside the type that is known.',
    Eye,
  ],
  [
    '/lab/circuit',
    'Pace and reach',
    'The circuit to scale in the wind, every task at its second, and which runway is reached when the engine stops.',
    Route,
  ],
  [
    '/lab/ground',
    'Taxi and the tail',
    'A corner with the path of every wheel, by the centreline and by the inside wheel; when the third wheel lets go.',
    Footprints,
  ],
  [
    '/lab/recorder',
    'Simulated recorder',
    'Flies a chosen aeroplane in a chosen wind with chosen errors, through circuits and airwork, and writes the file a recorder would; what the analysis finds in it stands beside what was flown.',
    AudioWaveform,
  ],
] as const;

export default async function LabPage() {
  const user = await requireUser();
  const hasTypes = (await hangar()).length > 0;
  return (
    <>
      <PageStrip name="Lab" line="models" user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Lab" line="Models, each with its assumptions. From a checkout they open with its numbers." />
          {hasTypes ? (
            <div className="grid g-1-1">
              {ROOMS.map(([href, name, text, Icon]) => (
                <Link key={href} href={href} className="panel lab-card">
                  <Icon size={34} aria-hidden />
                  <h2>{name}</h2>
                  <p className="mb-0">{text}</p>
                </Link>
              ))}
            </div>
          ) : (
            <Empty
              title="No type sheets yet"
              text="Every model works from a type sheet. Add one in the hangar, then come back."
              href="/hangar"
              action="Go to Hangar"
            />
          )}
          <div className="mt-3">
            <Outranked extra="Models are for discussion, not for flying." />
          </div>
        </div>
      </main>
    </>
  );
}

import type { Metadata } from 'next';
import {
  ArrowDownToLine,
  AudioWaveform,
  ChevronsDown,
  Eye,
  Footprints,
  PanelLeft,
  PlaneTakeoff,
  Route,
  Snail,
  Spline,
  Wind,
} from 'lucide-react';
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
    'Straight or swerving',
    'A swerve on the runway and the foot that ends it, early or late; tailwheel beside nosewheel, wind, ice on one side, and when the rudder runs out.',
    Spline,
  ],
  [
    '/lab/take-off',
    'Take-off roll',
    'Power at once or over five seconds, the foot that leads or follows, the tail raised early; what propeller and wind ask of it.',
    PlaneTakeoff,
  ],
  [
    '/lab/touch',
    'The touch',
    'Sink to load, the skip and the bounce, what holding, pulling, pushing and weight forward do; spring gear beside oleo.',
    ArrowDownToLine,
  ],
  [
    '/lab/crosswind',
    'Crosswind',
    'Every limit on one drawing, bank and rudder for this wind, what clears the ground, when to straighten; control positions while taxiing.',
    Wind,
  ],
  [
    '/lab/side-picture',
    'Side picture',
    'Where the runway cuts strut, wing or rail on downwind, and how far behind the wing base is turned.',
    PanelLeft,
  ],
  [
    '/lab/slip',
    'Slip',
    'Height lost, the path beside the unslipped one, leaving it; the final turn with the wrong foot.',
    ChevronsDown,
  ],
  [
    '/lab/slow-approach',
    'Slow approach',
    'How slowly an approach can still be flared, from trials at height; what is left when the engine stops.',
    Snail,
  ],
  [
    '/lab/ground?part=corner',
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

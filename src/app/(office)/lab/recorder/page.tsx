import type { Metadata } from 'next';
import { homeAerodrome } from '@/server/rules/content';
import { redirect } from 'next/navigation';
import { requireUser } from '@/server/floor/auth/session';
import { nowIso } from '@/server/floor/clock';
import { hangar } from '@/server/hangar/queries/hangar';
import { Outranked } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { Recorder } from '@/ui/traces/recorder';

export const metadata: Metadata = { title: 'Simulated recorder' };

export default async function RecorderPage() {
  const user = await requireUser();
  const crafts = (await hangar()).flatMap((t) =>
    t.airframes.map((a) => ({
      key: a.registration,
      name: `${a.registration} \u00b7 ${t.sheet.name}`,
      registration: a.registration,
      sheet: a.effective,
    })),
  );
  if (crafts.length === 0) redirect('/lab');
  return (
    <>
      <PageStrip name="Lab" line="simulated recorder" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Simulated recorder"
            line="Flies what you choose, writes the file a recorder would, and reads it back: what was flown beside what was found."
          />
          <Recorder crafts={crafts} aerodrome={await homeAerodrome()} startUtcMs={Date.parse(nowIso())} />
          <p className="soft mt-3 mb-2 small">
            Assumed: a point that rolls at 18{'\u00b0'} a second and turns as its bank and speed say, in steady wind;
            circuits of 1200 m spacing and a 4.5{'\u00b0'} descent; positions that wander by metres over a minute,
            heights off by a constant and drifting, an airspeed that lags. No gusts, no propwash, no compressibility.
          </p>
          <Outranked extra="It is for trying the analysis, never for flying." />
        </div>
      </main>
    </>
  );
}

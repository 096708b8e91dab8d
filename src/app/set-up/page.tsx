import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { homeZone, newestContent } from '@/server/rules/content';
import { setUpSteps } from '@/server/running/queries/set-up';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';
import { VerdictMark } from '@/ui/shared/verdict';
import { PlaceForm } from '@/ui/set-up/place';
import { setUpPlaceAction } from '../actions';

export const metadata: Metadata = { title: 'Set up' };
export const dynamic = 'force-dynamic';

/** What a new school still needs, in order; each is done on its own page and can wait. */
export default async function SetUpPage() {
  const user = await requireUser();
  const placed = (await homeZone()) !== null;
  const chief = may.changeHouse(user);
  const pack = (await newestContent('house', 'house'))?.body.homePack ?? 'us';
  const steps = await setUpSteps();
  const open = steps.filter((s) => !s.done).length;
  const list = (
    <Panel title="Steps">
      <ol className="plain-list mb-0">
        {steps.map((s) => (
          <li key={s.key} className="mb-2">
            <VerdictMark verdict={s.done ? 'within' : 'not-seen'} />{' '}
            {s.href && placed ? <Link href={s.href}>{s.name}</Link> : <strong>{s.name}</strong>}
            {s.done ? <span className="soft">: done</span> : null}
            <div className="soft small">{s.what}</div>
          </li>
        ))}
      </ol>
    </Panel>
  );
  return (
    <div className="shell shell-bare">
      <PageStrip name="Set up" line={open === 0 ? 'done' : `${open} to do`} user={user.name} />
      <main id="main">
        <div className="column set-up">
          <Title
            title={open === 0 ? 'The school is set up' : 'Set up the school'}
            line="In this order, one at a time: what is saved stays, and you can go on tomorrow from another computer."
          >
            {placed ? (
              <Link className="btn btn-primary" href="/board">
                Go to the board
              </Link>
            ) : null}
          </Title>
          {!placed && chief ? (
            <PlaceForm save={setUpPlaceAction} pack={pack} zones={Intl.supportedValuesOf('timeZone')}>
              {list}
            </PlaceForm>
          ) : (
            <div className="grid">
              {placed ? null : (
                <Panel title="School and aerodrome">
                  <p className="mb-0">The chief instructor is setting up the school. Come back when it is done.</p>
                </Panel>
              )}
              {list}
            </div>
          )}
        </div>
      </main>
    </div>
  );
}

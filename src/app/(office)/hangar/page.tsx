import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { list, plural } from '@/core/format';
import { goalsRequired, sheetFacts } from '@/core/plan';
import { sheetWords, unconfirmed, validateSheet } from '@/core/sheet';
import { Verdict } from '@/ui/shared/verdict';
import { say } from '@/domain/words';
import { requireUser } from '@/server/floor/auth/session';
import { hangar } from '@/server/hangar/queries/hangar';
import { SpeedLadder } from '@/ui/hangar/speed-ladder';
import { Empty, Panel } from '@/ui/shared/parts';
import { may } from '@/server/floor/auth/permissions';
import { newTypeDrafts } from '@/server/hangar/queries/drafts';
import { TYPE_NODE } from '@/server/hangar/samples';
import { missingIn } from '@/domain/form-node';
import { Day } from '@/ui/shared/zone';
import { Title } from '@/ui/shared/title';
import { groundings } from '@/server/hangar/queries/groundings';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Hangar' };

export default async function HangarPage() {
  const user = await requireUser();
  const types = await hangar();
  const flags = await groundings({ openOnly: true });
  const edits = may.changeHouse(user);
  const drafts = edits ? await newTypeDrafts() : [];
  return (
    <>
      <PageStrip
        name="Hangar"
        line={`${plural(types.length, 'type')}, ${plural(
          types.reduce((n, t) => n + t.airframes.length, 0),
          'aeroplane',
        )}`}
        user={user.name}
      />
      <main id="main">
        <div className="column">
          <Title
            title="Hangar"
            line={
              <>
                Every number has a source. Differences of a registration are listed beside its type. On each line:{' '}
                <span className="v-outside">stalls</span>, <span style={{ color: 'var(--lagoon)' }}>approach</span>,{' '}
                <span style={{ color: 'var(--ink)' }}>climb and glide</span>, <span className="v-edge">limits</span>,
                from slow to fast.
              </>
            }
          >
            {edits ? (
              <Link className="btn btn-primary" href="/hangar/new">
                New type
              </Link>
            ) : null}
          </Title>
          <div className="grid">
            {types.length === 0 && drafts.length === 0 ? (
              <Empty
                title="No types yet"
                text="A type sheet holds the numbers of a flight manual, each with its source. Nothing can be briefed on a type that is not here."
              />
            ) : null}
            {drafts.map((d) => {
              const missing = missingIn(TYPE_NODE, d.sheet).filter((m) => m.path !== 'code').length;
              const open = unconfirmed(d.sheet).length;
              return (
                <Panel key={d.id}>
                  <div className="d-flex justify-content-between gap-3 flex-wrap">
                    <div>
                      <h2 style={{ fontSize: '1.1rem' }} className="mb-1">
                        {d.name}{' '}
                        <span className="soft" style={{ fontWeight: 400, fontSize: 14 }}>
                          being entered, {d.origin}
                        </span>
                      </h2>
                      <span className="small">
                        {missing} missing, {open === 1 ? '1 sample' : `${open} samples`} not confirmed; {d.by},{' '}
                        <Day at={d.at} />
                      </span>
                    </div>
                    <Link className="btn btn-outline-primary align-self-center" href={`/hangar/${d.id}/edit`}>
                      Go on
                    </Link>
                  </div>
                </Panel>
              );
            })}
            {types.map((t) => {
              const us = goalsRequired(sheetFacts(t.sheet), 'us');
              const eu = goalsRequired(sheetFacts(t.sheet), 'eu');
              const findings = validateSheet(t.sheet);
              return (
                <Panel key={t.code}>
                  <div className="grid g-2-1">
                    <div>
                      <h2 style={{ fontSize: '1.1rem' }} className="mb-1">
                        <Link href={`/hangar/${t.code}`}>{t.sheet.name}</Link>{' '}
                        <span className="soft" style={{ fontWeight: 400, fontSize: 14 }}>
                          {t.sheet.summary}
                        </span>
                      </h2>
                      <SpeedLadder sheet={t.sheet} compact />
                    </div>
                    <div className="small">
                      <p className="mb-1">
                        {t.sheet.engine.count > 1 ? `${t.sheet.engine.count} × ` : ''}
                        {t.sheet.engine.powerHp.value} hp, {t.sheet.masses.maxTakeoffKg.value} kg, {t.sheet.gear.layout}
                        {t.sheet.gear.retractable ? ', retractable' : ''}, dial in {t.sheet.dial.unit}.
                      </p>
                      <p className="mb-1">
                        Requires (US): {us.endorsements.length > 0 ? list(us.endorsements.map(say)) : 'no endorsement'};
                        (Europe): {eu.endorsements.length > 0 ? eu.endorsements.join(', ') : 'no variant training'}.
                      </p>
                      {t.airframes.map((a) => (
                        <p key={a.id} className="mb-0">
                          <span className="code-face">{a.registration}</span>{' '}
                          {flags.some((f) => f.registration === a.registration) ? (
                            <span className="v-outside">
                              <strong>grounded</strong> ·{' '}
                            </span>
                          ) : null}
                          {a.airframe.modifications.length > 0 ? (
                            <span>{list(a.airframe.modifications.map((m) => m.name.toLowerCase()))}</span>
                          ) : (
                            <span className="soft">same as type</span>
                          )}
                          {a.airframe.deferredDefects.length > 0 ? (
                            <span className="v-edge"> · {a.airframe.deferredDefects.length} deferred</span>
                          ) : null}
                        </p>
                      ))}
                      {unconfirmed(t.sheet).length > 0 ? (
                        <p className="mb-0 mt-1">
                          <Verdict verdict="not-seen">sample: {unconfirmed(t.sheet).length} not confirmed</Verdict>
                        </p>
                      ) : null}
                      {findings[0] ? (
                        <p className="mb-0 mt-1">
                          <Verdict verdict="outside">{sheetWords(findings[0])}</Verdict>
                        </p>
                      ) : null}
                    </div>
                  </div>
                </Panel>
              );
            })}
          </div>
        </div>
      </main>
    </>
  );
}

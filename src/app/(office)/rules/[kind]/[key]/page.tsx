import { dayHere } from '@/server/rules/today';
import { Day } from '@/ui/shared/zone';
import { TableHead } from '@/ui/shared/table-head';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { asksWords, itemFades, subjectsOf } from '@/core/assess';
import { fixed, list, plural } from '@/core/format';
import { AIRWORK_KINDS, FORM_NAME, QUANTITY_NAME } from '@/domain/airwork';
import type { House, Programme, ProgrammeItem, RulePack, Standard } from '@/domain/programme';
import { NEED_WORDS, SUBJECTS } from '@/domain/assess-words';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { contentVersions } from '@/server/rules/queries/content';
import { DifferenceList } from '@/ui/hangar/findings';
import { openUnder } from '@/server/checkout/queries/programmes';
import { SchoolItemForm } from '@/ui/sign/school-item-form';
import { AdoptForm } from '@/ui/people/adopt-form';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { addSchoolItemAction, adoptContentAction } from '../../../../actions';

export async function generateMetadata({
  params,
}: {
  params: Promise<{ kind: string; key: string }>;
}): Promise<Metadata> {
  const user = await currentUser();
  const { kind, key } = await params;
  const versions = user && may.seeEverybody(user) ? await contentVersions(kind, key) : [];
  const name = (versions.find((v) => v.origin !== 'proposed')?.body as { name?: string } | undefined)?.name;
  return { title: versions.length > 0 ? `Rules: ${name ?? 'school rules'}` : 'Rules' };
}

export default async function RulePage({ params }: { params: Promise<{ kind: string; key: string }> }) {
  const day = await dayHere();
  const user = await requireUser();
  const { kind, key } = await params;
  const versions = may.seeEverybody(user) ? await contentVersions(kind, key) : [];
  const inForce = versions.find((v) => v.origin !== 'proposed');
  denyUnless(inForce !== undefined);
  const body = inForce.body as { name?: string };
  const proposed = versions.filter((v) => v.origin === 'proposed' && v.version > inForce.version);
  const chief = may.changeHouse(user);
  return (
    <>
      <PageStrip name="Rules" line={body.name ?? 'school rules'} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            long
            title={body.name ?? 'School rules'}
            line={`Version ${inForce.version}, ${inForce.origin === 'house' ? `${inForce.author}, ${day(inForce.createdAt)}: ${inForce.reason}` : 'shipped with the product'}.`}
          >
            <Link className="btn btn-outline-primary" href="/rules">
              All rules
            </Link>
            <a className="btn btn-outline-primary" href={`/api/rules/${kind}/${key}`}>
              Export
            </a>
            {chief ? (
              <Link className="btn btn-primary" href={`/rules/${kind}/${key}/edit`}>
                Edit
              </Link>
            ) : null}
          </Title>
          {proposed.map((v) => (
            <Panel key={v.id} title="The product proposes an update">
              <p>{plural(v.differences.length, 'difference')} from the school’s version. It is not in force.</p>
              <DifferenceList differences={v.differences} />
              {chief ? <AdoptForm id={v.id} action={adoptContentAction} /> : null}
            </Panel>
          ))}
          <div className="grid g-2-1">
            <div className="grid" style={{ alignContent: 'start' }}>
              {kind === 'programme' ? (
                <>
                  <ProgrammeView p={inForce.body as Programme} />
                  {chief ? (
                    <Panel title="Add a school item">
                      <p className="soft mb-0">Asked on top of the law. Saved as a new version of this programme.</p>
                      <SchoolItemForm
                        programme={{
                          key,
                          version: inForce.version,
                          items: (inForce.body as Programme).items.map((i) => ({ id: i.id, title: i.title })),
                        }}
                        open={await openUnder(inForce.id)}
                        action={addSchoolItemAction}
                      />
                    </Panel>
                  ) : null}
                </>
              ) : kind === 'pack' ? (
                <PackView p={inForce.body as RulePack} />
              ) : kind === 'standard' ? (
                <StandardView s={inForce.body as Standard} />
              ) : kind === 'house' ? (
                <HouseView h={inForce.body as House} />
              ) : (
                <Panel title="As data">
                  <pre
                    className="mono small mb-0"
                    style={{ maxHeight: 560, overflow: 'auto' }}
                    tabIndex={0}
                    role="region"
                    aria-label="As data"
                  >
                    {JSON.stringify(inForce.body, null, 1)}
                  </pre>
                </Panel>
              )}
            </div>
            <div>
              <Panel title="Versions">
                {versions.map((v) => (
                  <details key={v.id} className="mb-2">
                    <summary>
                      {v.version},{' '}
                      {v.origin === 'house' ? v.author : v.origin === 'proposed' ? 'proposed' : 'the product'},{' '}
                      <Day at={v.createdAt} />: {v.reason}
                    </summary>
                    {v.differences.length > 0 ? (
                      <DifferenceList differences={v.differences} />
                    ) : (
                      <p className="soft small mb-0">The first, or nothing changed.</p>
                    )}
                  </details>
                ))}
              </Panel>
            </div>
          </div>
        </div>
      </main>
    </>
  );
}

function ProgrammeView({ p }: { p: Programme }) {
  return (
    <Panel title={plural(p.items.length, 'item')}>
      <p className="soft">
        {p.note} What is marked <span className="tag">law</span> cannot be overridden; everything else by school rules,
        and the sign-off shows it.
      </p>
      <div className="scroll-x">
        <table aria-label="Items" className="plain">
          <TableHead columns={['Item', 'Asks', 'Citation']} />
          <tbody>
            {p.items.map((i) => (
              <tr key={i.id}>
                <td>
                  <span className="code-face">{i.id}</span> <strong>{i.title}</strong>
                  <span className="tags">
                    {i.legal ? <span className="tag">law</span> : null}
                    {i.safety ? <span className="tag">safety</span> : null}
                    {i.source === 'house' ? <span className="tag">school</span> : null}
                    {i.confirm ? <span className="tag v-edge">confirm</span> : null}
                  </span>
                  <div className="soft small">
                    {i.text}
                    {i.prerequisites.length > 0 ? ` First ${list(i.prerequisites)}.` : ''}
                    {i.lesson ? ` Taken up in lesson ${i.lesson}.` : ''}
                    {i.needs.length > 0
                      ? ` Asked of an aeroplane with ${list(i.needs.map((n) => NEED_WORDS[n]))}.`
                      : ''}
                  </div>
                </td>
                <td>
                  {asksWords(i.evidence)}
                  {subjectsOf(i).length > 0 ? (
                    <div className="soft small">
                      About {list(subjectsOf(i).map(say))}: what the standard names of it is seen each time.
                    </div>
                  ) : null}
                  <div className="soft small">
                    {judgedBy(i)}{' '}
                    {itemFades(i)
                      ? 'Lapses after the school’s number of days.'
                      : 'withinDays' in i.evidence && i.evidence.withinDays !== null
                        ? `Not older than ${i.evidence.withinDays} days.`
                        : 'Does not lapse.'}
                  </div>
                  {i.waivable ? <div className="soft small">May be waived. {i.waivable}</div> : null}
                  {i.credit ? <div className="soft small">May be credited. {i.credit.text}</div> : null}
                </td>
                <td className="soft small">{i.citation}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Panel>
  );
}

/** Which row of the standard an item is judged by, in words. */
function judgedBy(i: ProgrammeItem): string {
  const kinds = i.forms.filter((f) => (AIRWORK_KINDS as readonly string[]).includes(f));
  if (i.evidence.kind === 'run' || i.evidence.kind === 'count') return 'Judged by the landing rows of the standard.';
  if (kinds.length > 0)
    return `Judged by the rows ${list(kinds.map((f) => FORM_NAME[f].toLowerCase()))} of the standard.`;
  if (i.evidence.kind === 'observed') return 'Judged as the instructor sees it.';
  return 'Counted.';
}

function PackView({ p }: { p: RulePack }) {
  return (
    <>
      <Panel title={p.name}>
        <p className="caution">{p.caution}</p>
        {p.goals.map((g) => (
          <div key={g.goal} className="mb-3">
            <strong>{g.title}</strong> <span className="soft">{g.citation}</span>
            {g.confirm || g.recommendation?.confirm ? <span className="tag v-edge">confirm</span> : null}
            <div>
              {g.essence} {g.decides === 'examiner' ? 'An examiner decides.' : 'The instructor signs.'} {g.written}{' '}
              Lasts: {g.lasts}
            </div>
            <div className="soft small">
              {g.instructorNeeds}
              {g.prerequisites.length > 0 ? ` Before: ${list(g.prerequisites.map((x) => x.text))}.` : ''}
              {g.credit ? ` Credit: ${g.credit.text}` : ''}
              {g.organisation ? ` ${g.organisation}` : ''}
            </div>
          </div>
        ))}
      </Panel>
      {p.acting ? (
        <Panel title="PIC and logging">
          {(['class', 'endorsement', 'held'] as const).map((k) => (
            <p key={k} className="mb-2">
              {p.acting?.[k].pic} <span className="soft">{p.acting?.[k].logs}</span>
            </p>
          ))}
          {p.acting.confirm ? <span className="tag v-edge">confirm</span> : null}
        </Panel>
      ) : null}
      {p.instructors.length > 0 || p.trainingIn24h || p.variantLapse ? (
        <Panel title="Instructors and variants">
          <ul className="mb-0 ps-3">
            {p.instructors.map((r) => (
              <li key={r.id}>
                To teach and sign: {r.text}. <span className="soft">{r.citation}</span>
                {r.confirm ? <span className="tag v-edge">confirm</span> : null}
              </li>
            ))}
            {p.trainingIn24h ? (
              <li>
                At most {p.trainingIn24h.hours} h of flight training in any 24 hours.{' '}
                <span className="soft">{p.trainingIn24h.citation}</span>
              </li>
            ) : null}
            {p.variantLapse ? (
              <li>
                A twin variant lapses when it is not flown for {p.variantLapse.months} months, each alone.{' '}
                <span className="soft">{p.variantLapse.citation}</span>
                {p.variantLapse.confirm ? <span className="tag v-edge">confirm</span> : null}
              </li>
            ) : null}
          </ul>
        </Panel>
      ) : null}
      <Panel title="Recent experience">
        <table aria-label="Recent experience" className="plain">
          <tbody>
            {p.recency.map((r) => (
              <tr key={r.id}>
                <td>
                  {r.title}
                  {r.confirm ? <span className="tag v-edge">confirm</span> : null}
                </td>
                <td className="soft">{r.citation}</td>
              </tr>
            ))}
            {p.dated.map((d) => (
              <tr key={d.id}>
                <td>
                  {d.title}: {d.untilOnly ? 'to its last day' : d.months ? `${d.months} months` : `${d.days ?? 0} days`}
                  {d.monthEnd ? ', to the end of the month' : ''}
                  {d.earlyMonths ? `; in the last ${d.earlyMonths} months from the old end` : ''}
                  {d.acting ? '. Without it not pilot in command' : ''}
                  {d.confirm ? <span className="tag v-edge">confirm</span> : null}
                </td>
                <td className="soft">{d.citation}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Panel>
      {p.notCovered.length > 0 ? (
        <Panel title="Not covered here">
          <ul className="mb-0 ps-3">
            {p.notCovered.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </Panel>
      ) : null}
    </>
  );
}

function StandardView({ s }: { s: Standard }) {
  return (
    <>
      <Panel title="Landings">
        <p className="soft">
          {s.source}. Edge: the last {fixed(s.edgeShare * 100)} % of a tolerance.
          {s.shortBoxM ? ` Short field: touchdown within ${s.shortBoxM.past} m past the point.` : ''}
          {s.tighter
            ? ` Tailwheel and light types: crab ${s.tighter.crabDeg}°, swing ${s.tighter.swingDeg}°, across ${fixed(s.tighter.trackShare * 100)} % of the track of the main wheels.`
            : ''}
        </p>
        <table aria-label="Landings" className="plain">
          <tbody>
            {s.criteria.map((c) => (
              <tr key={c.id}>
                <td>{say(c.id)}</td>
                <td className="mono">
                  {c.measured ? `${fixed(c.measured.low, 1)} to ${fixed(c.measured.high, 1)} ${c.unit}` : 'by eye'}
                </td>
                <td className="soft small">{c.citation}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Panel>
      <Panel title="Required observations">
        <p className="soft">
          In each landing that counts for an item about it; a landing in which it was not is left out.
        </p>
        <table aria-label="Required observations" className="plain">
          <tbody>
            {SUBJECTS.map((x) => (
              <tr key={x}>
                <td>{say(x)}</td>
                <td>{list((s.seen[x] ?? []).map(say))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Panel>
      <Panel title="Airwork">
        <table aria-label="Airwork" className="plain">
          <tbody>
            {s.airwork.flatMap((a) =>
              a.limits.map((l) => (
                <tr key={`${a.kind}-${l.quantity}-${l.of?.join() ?? ''}`}>
                  <td>
                    {say(a.kind)}
                    {l.of ? ` (${list(l.of.map(say))})` : ''}, {QUANTITY_NAME[l.quantity]}
                    {(l.about ?? a.set[l.quantity]) === undefined ? '' : ` about ${l.about ?? a.set[l.quantity] ?? ''}`}
                  </td>
                  <td className="mono">
                    {l.low} to +{l.high} {l.unit}
                  </td>
                  <td className="soft small">{l.citation}</td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      </Panel>
    </>
  );
}

function HouseView({ h }: { h: House }) {
  const s = h.signing;
  return (
    <Panel title="Signing and intervals">
      <p className="soft">{s.source}</p>
      <p>
        At most {fixed(h.evidence.assertedShare * 100)} in 100 of an item’s landings may be based on the clean tap.
        Emergencies and stalls are due again after {h.evidence.fadesDays} days; a brief acknowledged more than{' '}
        {h.evidence.briefDays} days before the flight is not that day’s.{' '}
        <span className="soft">{h.evidence.source}</span>
      </p>
      <p>
        The signer has flown with the pilot within {h.signWithinDays} days. A part sign-off holds {s.partDays} days.
        Chief instructor approves an override:{' '}
        {s.overrideNeedsChief === 'always' ? 'each' : s.overrideNeedsChief === 'safety' ? 'of a safety item' : 'never'}.
      </p>
      <ul>
        {s.teach.map((r) => (
          <li key={r.id}>
            To teach and sign: {r.title.toLowerCase()} <span className="soft">{r.citation}</span>
          </li>
        ))}
      </ul>
      <table aria-label="Signing and intervals" className="plain">
        <TableHead columns={['Check after days without flying', { right: 'Days' }]} />
        <tbody>
          {s.intervals.map((i) => (
            <tr key={i.of}>
              <td>{say(i.of)}</td>
              <td className="r mono">{i.days}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}

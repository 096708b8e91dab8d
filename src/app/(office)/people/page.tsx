import { TableHead } from '@/ui/shared/table-head';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import FormSelect from 'react-bootstrap/FormSelect';
import type { Metadata } from 'next';
import { foundIn } from '@/ui/shared/found-in';
import { FilterForm } from '@/ui/shared/filter-form';
import { DateInput } from '@/ui/shared/when-input';
import { Link } from '@/ui/shared/link';
import { type Lapse, addDays, givenUp } from '@/core/recency';
import { dateText, plural } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { localToday } from '@/server/rules/today';
import { pilotList } from '@/server/checkout/queries/lists';
import { everybodysStanding } from '@/server/people/queries/standings';
import { houseRules } from '@/server/people/queries/house-rules';
import { LAPSE_VERDICT, lapseWords, verdictOf } from '@/ui/people/lapse';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { Verdict, VerdictMark } from '@/ui/shared/verdict';

export const metadata: Metadata = { title: 'People' };
const PAGE = 60;
const DATE = /^\d{4}-\d{2}-\d{2}$/;
const SHOW = {
  all: 'everybody',
  soon: 'expiring in 30 days',
  due: 'school check due',
  ended: 'expired or not on record',
  staff: 'instructors',
} as const;
const STAND = {
  current: 'current',
  expiring: 'expiring',
  expired: 'expired',
  due: 'school check due',
  unknown: 'not on record',
} as const;

const RANK = ['outside', 'edge', 'not-seen', 'within'] as const;
/** The worst of some lines in one mark, with each in its words. */
function Marks({ lapses, kinds, what }: { lapses: readonly Lapse[]; kinds: readonly Lapse['kind'][]; what: string }) {
  const all = lapses.filter((l) => kinds.includes(l.kind) && l.status !== 'never');
  const own = all.filter((l) => !givenUp(l));
  const worst = RANK.flatMap((v) => own.find((l) => verdictOf(l) === v) ?? [])[0];
  if (!worst && all.length > 0) return <span className="soft">types no longer flown</span>;
  if (!worst) return <span className="soft">nothing recorded</span>;
  const bad = own.filter((l) => l.status !== 'current');
  return (
    <span title={all.map((l) => `${l.what}: ${lapseWords(l)}`).join('\n')}>
      <VerdictMark verdict={verdictOf(worst)} label={what} />{' '}
      {bad.length === 0
        ? `to ${dateText([...own].sort((a, b) => (a.through ?? '').localeCompare(b.through ?? ''))[0]?.through ?? '')}`
        : bad
            .slice(0, 2)
            .map((l) => `${l.short ?? l.what} ${lapseWords(l)}`)
            .join('; ')}
    </span>
  );
}

export default async function PeoplePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const user = await requireUser();
  denyUnless(may.seeEverybody(user));
  const q = await searchParams;
  const today = await localToday();
  const on = q.on && DATE.test(q.on) && !Number.isNaN(Date.parse(q.on)) ? q.on : today;
  const show = (Object.keys(SHOW) as (keyof typeof SHOW)[]).find((k) => k === q.show) ?? 'all';
  const rules = await houseRules();
  const [all, pilots] = await Promise.all([everybodysStanding(rules, on), pilotList()]);
  const held = new Map(pilots.map((p) => [p.id, p]));
  const wanted = all.filter(
    (p) =>
      foundIn(p.name, q.name ?? '') &&
      (show === 'all' ||
        (show === 'staff'
          ? p.roles.includes('instructor')
          : show === 'ended'
            ? p.standing === 'expired' || p.standing === 'unknown'
            : show === 'due'
              ? p.standing === 'due'
              : p.lapses.some((l) => l.status === 'expiring' && (l.through ?? '') <= addDays(on, 30)))),
  );
  const page = Math.max(1, Number(q.page ?? '1') || 1);
  const shown = wanted.slice((page - 1) * PAGE, page * PAGE);
  const staff = all.filter((p) => p.roles.includes('instructor'));
  const taught = [
    ...new Set(
      staff.flatMap((p) => p.lapses.flatMap((l) => (l.kind === 'teach' && l.typeCode !== null ? [l.typeCode] : []))),
    ),
  ].sort();
  const link = (n: number) =>
    `/people?${new URLSearchParams({ ...(q.name ? { name: q.name } : {}), on, show, page: String(n) }).toString()}`;
  return (
    <>
      <PageStrip name="People" line={`${all.length} people, ${staff.length} instructors`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={on === today ? 'Who is current' : `Who is current on ${dateText(on)}`}
            line={`Under ${rules.pack.name} and school rules, from flights recorded, logged and imported. ${rules.pack.caution}`}
          >
            {may.keepPeople(user) ? (
              <>
                <Link className="btn btn-primary" href="/people/new">
                  New person
                </Link>
                <Link className="btn btn-outline-primary" href="/people/import">
                  From a file
                </Link>
              </>
            ) : null}
            {may.compareInstructors(user) ? (
              <Link className="btn btn-outline-primary" href="/people/standard">
                Instructor standardisation
              </Link>
            ) : null}
            <Link className="btn btn-outline-primary" href="/rules">
              Rules and programmes
            </Link>
          </Title>
          <div className="grid">
            <Panel title="Recency to teach, school rules">
              <div className="scroll-x">
                <table aria-label="Recency to teach" className="plain">
                  <thead>
                    <tr>
                      <th scope="col">Instructor</th>
                      {taught.map((c) => (
                        <th scope="col" key={c}>
                          {rules.types.get(c)?.name ?? c}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {staff.map((p) => (
                      <tr key={p.pilotId}>
                        <td>
                          <Link href={`/people/${p.pilotId}`}>{p.name}</Link>
                        </td>
                        {taught.map((c) => {
                          const l = p.lapses.find((x) => x.kind === 'teach' && x.typeCode === c);
                          return (
                            <td key={c} title={l?.restore ?? undefined}>
                              {l && l.status !== 'never' ? (
                                <span className="d-inline-flex gap-1 align-items-baseline small text-nowrap">
                                  <VerdictMark verdict={LAPSE_VERDICT[l.status]} label={l.what} />
                                  {l.through
                                    ? `${l.status === 'expired' ? 'ended ' : ''}${dateText(l.through).replace(/ \d{4}$/, '')}`
                                    : ''}
                                </span>
                              ) : (
                                <span className="soft small">not flown</span>
                              )}
                            </td>
                          );
                        })}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            </Panel>
            <div className="panel">
              <FilterForm className="filters mb-2" action="/people" name="People" button="Apply">
                <div>
                  <FormLabel htmlFor="q-name">Name</FormLabel>
                  <FormControl id="q-name" name="name" defaultValue={q.name ?? ''} />
                </div>
                <div>
                  <FormLabel htmlFor="q-on">On the day</FormLabel>
                  <DateInput id="q-on" name="on" defaultValue={on} />
                </div>
                <div>
                  <FormLabel htmlFor="q-show">Show</FormLabel>
                  <FormSelect id="q-show" name="show" defaultValue={show}>
                    {Object.entries(SHOW).map(([k, n]) => (
                      <option key={k} value={k}>
                        {n}
                      </option>
                    ))}
                  </FormSelect>
                </div>
                <span className="soft small ms-auto">{plural(wanted.length, 'person', 'people')}</span>
              </FilterForm>
              <div className="scroll-x">
                <table aria-label="People" className="plain people-table">
                  <TableHead
                    columns={[
                      'Name',
                      'Status',
                      'Expires first',
                      'Medical and reviews',
                      'Passengers',
                      'School recurrent check',
                      'Last flown',
                    ]}
                  />
                  <tbody>
                    {shown.map((p) => (
                      <tr key={p.pilotId}>
                        <td>
                          <Link href={`/people/${p.pilotId}`}>{p.name}</Link>
                          <div className="soft small">
                            {(held.get(p.pilotId)?.holds ?? []).map((h) => say(h.kind)).join(', ')}
                          </div>
                        </td>
                        <td>
                          <Verdict verdict={LAPSE_VERDICT[p.standing]}>{STAND[p.standing]}</Verdict>
                        </td>
                        <td>
                          {p.first ? (
                            <>
                              {p.first.what}
                              <div className="soft small">{lapseWords(p.first)}</div>
                            </>
                          ) : (
                            <span className="soft">nothing valid</span>
                          )}
                        </td>
                        <td className="small">
                          <Marks lapses={p.lapses} kinds={['dated', 'certificate']} what="papers" />
                        </td>
                        <td className="small">
                          <Marks lapses={p.lapses} kinds={['passengers']} what="passengers" />
                        </td>
                        <td className="small">
                          <Marks lapses={p.lapses} kinds={['interval']} what="interval" />
                        </td>
                        <td className="small">{p.lastFlown ? dateText(p.lastFlown) : 'not here'}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              {wanted.length > PAGE ? (
                <nav className="d-flex gap-3 mt-2" aria-label="Pages">
                  {page > 1 ? <Link href={link(page - 1)}>Earlier names</Link> : null}
                  <span className="soft">
                    {(page - 1) * PAGE + 1} to {Math.min(wanted.length, page * PAGE)} of {wanted.length}
                  </span>
                  {page * PAGE < wanted.length ? <Link href={link(page + 1)}>More names</Link> : null}
                </nav>
              ) : null}
            </div>
          </div>
        </div>
      </main>
    </>
  );
}

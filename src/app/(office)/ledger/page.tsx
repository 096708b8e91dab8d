import { TableHead } from '@/ui/shared/table-head';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import FormSelect from 'react-bootstrap/FormSelect';
import { FilterForm } from '@/ui/shared/filter-form';
import { DateInput } from '@/ui/shared/when-input';
import { ledgerProblemWords } from '@/core/ledger';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, list, localText, plural } from '@/core/format';
import { ENTRY_KINDS } from '@/domain/ledger';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { homeAerodrome } from '@/server/rules/content';
import { requireUser } from '@/server/floor/auth/session';
import { checkLedger } from '@/server/ledger/entries';
import { readHead } from '@/server/ledger/keys';
import { limitationText } from '@/server/ledger/papers/entry-pdf';
import { type LedgerFilter, ledgerCount, ledgerLines } from '@/server/ledger/queries/entries';
import { Empty, Panel, Problems } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Ledger' };
const PAGE = 40;
/** Beyond so many entries the whole check is asked for: it reads every one of them. */
const CHECK_AT_ONCE = 200;
type Search = Partial<Record<'q' | 'kind' | 'from' | 'to' | 'page' | 'check', string>>;
const day = (text: string | undefined): string | undefined =>
  text && /^\d{4}-\d{2}-\d{2}$/.test(text) ? text : undefined;

export default async function LedgerPage({ searchParams }: { searchParams: Promise<Search> }) {
  const user = await requireUser();
  const { timeZone } = await homeAerodrome();
  const s = await searchParams;
  const page = Math.max(1, Math.floor(Number(s.page)) || 1);
  const filter: LedgerFilter = {
    ...(s.q?.trim() ? { q: s.q.trim().slice(0, 80) } : {}),
    ...(s.kind && (ENTRY_KINDS as readonly string[]).includes(s.kind) ? { kind: s.kind } : {}),
    ...(day(s.from) ? { from: day(s.from) ?? '' } : {}),
    ...(day(s.to) ? { to: day(s.to) ?? '' } : {}),
  };
  const filtered = Object.keys(filter).length > 0;
  const [count, lines, all] = await Promise.all([
    ledgerCount(user, filter),
    ledgerLines(user, { ...filter, limit: PAGE, offset: (page - 1) * PAGE }),
    ledgerCount(user),
  ]);
  const staff = may.exportBook(user);
  const head = readHead();
  const check = staff && (s.check === '1' || (head?.count ?? 0) <= CHECK_AT_ONCE) ? await checkLedger() : null;
  const at = (n: number) =>
    `?${new URLSearchParams({ ...(filter.q ? { q: filter.q } : {}), ...(filter.kind ? { kind: filter.kind } : {}), ...(filter.from ? { from: filter.from } : {}), ...(filter.to ? { to: filter.to } : {}), page: String(n) }).toString()}`;
  return (
    <>
      <PageStrip name="Ledger" line={plural(all, 'entry', 'entries')} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Sign-off ledger"
            line="Entries are added, never changed. Each one carries the hash of the one before and is signed."
          >
            {staff ? (
              <>
                <a
                  className="btn btn-outline-primary"
                  href={`/api/ledger/export?as=csv${at(1)
                    .replace('?', '&')
                    .replace(/&page=1$/, '')}`}
                >
                  CSV
                </a>
                <a className="btn btn-outline-primary" href="/api/ledger/export?as=json">
                  JSON, whole ledger
                </a>
              </>
            ) : null}
            <Link className="btn btn-primary" href="/verify">
              Verify
            </Link>
          </Title>
          <div className="grid">
            {check === null ? (
              staff ? (
                <p className="mb-0">
                  <Link href="?check=1">Check the whole ledger</Link>: it reads all {head?.count ?? 0} entries.
                </p>
              ) : null
            ) : check.problems.length > 0 ? (
              <Problems
                title="The ledger does not verify"
                problems={check.problems.map((p) => ({
                  message: ledgerProblemWords(p),
                }))}
              />
            ) : (
              <p className="note-good mb-0">
                {check.entries === 0
                  ? 'The ledger is empty.'
                  : `Checked just now: all ${check.entries} entries follow from each other and their signatures fit${head ? `, up to the signed head of ${localText(head.at, timeZone)}` : ''}.`}
              </p>
            )}
            {all === 0 ? (
              <Empty
                title="Nothing signed yet"
                text="When a checkout is signed its entry stands here, with everything it rests on."
              />
            ) : (
              <Panel>
                <FilterForm
                  action="/ledger"
                  className="d-flex gap-2 flex-wrap align-items-end mb-3"
                  name="Ledger"
                  button="Search"
                >
                  <div className="flex-grow-1">
                    <FormLabel htmlFor="q">Pilot, signer, aeroplane, goal, number or hash</FormLabel>
                    <FormControl id="q" name="q" defaultValue={s.q ?? ''} />
                  </div>
                  <div>
                    <FormLabel htmlFor="kind">Kind</FormLabel>
                    <FormSelect id="kind" name="kind" defaultValue={s.kind ?? ''}>
                      <option value="">all</option>
                      {ENTRY_KINDS.map((k) => (
                        <option key={k} value={k}>
                          {say(k)}
                        </option>
                      ))}
                    </FormSelect>
                  </div>
                  <div>
                    <FormLabel htmlFor="from">From</FormLabel>
                    <DateInput id="from" name="from" defaultValue={s.from ?? ''} />
                  </div>
                  <div>
                    <FormLabel htmlFor="to">To</FormLabel>
                    <DateInput id="to" name="to" defaultValue={s.to ?? ''} />
                  </div>
                  {filtered ? (
                    <Link className="btn btn-link" href="/ledger">
                      All
                    </Link>
                  ) : null}
                </FilterForm>
                {lines.length === 0 ? (
                  <p className="mb-0">
                    No result. Search for less, or <Link href="/ledger">see all</Link>.
                  </p>
                ) : (
                  <div className="scroll-x">
                    <table aria-label="Sign-offs" className="plain">
                      <TableHead
                        columns={[
                          { right: 'No.' },
                          'Signed',
                          'Kind',
                          'Pilot',
                          'Goal',
                          'Aeroplane',
                          'By',
                          'Terms',
                          'Hash',
                        ]}
                      />
                      <tbody>
                        {lines.map((l) => (
                          <tr key={l.id} className={l.voidedBy ? 'voided' : undefined}>
                            <td className="r mono">{l.seq}</td>
                            <td className="date">{dateText(l.signedOn)}</td>
                            <td className="date">
                              {say(l.kind)}
                              {l.voidedBy ? <strong> · void</strong> : l.corrections.length > 0 ? ' · corrected' : ''}
                            </td>
                            <td>
                              <Link href={`/ledger/${l.id}`}>{l.pilotName || 'the ledger'}</Link>
                            </td>
                            <td>{list(l.goals.map(say))}</td>
                            <td>
                              <span className="code-face">{l.registration}</span> {l.type}
                            </td>
                            <td>{l.signerName}</td>
                            <td>
                              {l.later
                                ? `entry ${l.later.of.seq}${l.later.result ? `: ${l.later.result}` : ''}`
                                : l.body && (l.kind === 'sign-off' || l.kind === 'recommendation')
                                  ? `${limitationText(l.body.limitations)}${l.body.items.some((i) => i.overridden) ? ' With an override.' : ''}`
                                  : l.body
                                    ? `${plural(l.body.items.length, 'item')}`
                                    : ''}
                            </td>
                            <td className="code-face" title={l.hash}>
                              {l.hash.slice(0, 8)}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  </div>
                )}
                {count > PAGE ? (
                  <nav className="d-flex gap-3 mt-3" aria-label="Pages">
                    {page > 1 ? <Link href={at(page - 1)}>Newer</Link> : null}
                    <span>
                      {(page - 1) * PAGE + 1} to {Math.min(count, page * PAGE)} of {count}
                    </span>
                    {page * PAGE < count ? <Link href={at(page + 1)}>Older</Link> : null}
                  </nav>
                ) : null}
              </Panel>
            )}
            <p className="soft mb-0" style={{ fontSize: 14 }}>
              Away from here: <kbd>npm run verify-ledger -- FILE --key KEY</kbd> with the{' '}
              <a href="/api/ledger/key">published key</a>. A rewrite of everything by whoever holds the key cannot be
              seen from here; copies of the signed head kept elsewhere would show it.
            </p>
          </div>
        </div>
      </main>
    </>
  );
}

import { TableHead } from '@/ui/shared/table-head';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { checkoutList } from '@/server/checkout/queries/lists';
import { Empty } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Checkouts' };

export default async function CheckoutsPage() {
  const user = await requireUser();
  const all = await checkoutList(user);
  const open = all.filter((c) => c.status !== 'signed').length;
  return (
    <>
      <PageStrip name="Checkouts" line={`${open} open, ${all.length - open} signed`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Checkouts" line="Open ones first, the latest flown on top.">
            {may.openCheckouts(user) ? (
              <Link href="/checkouts/new" className="btn btn-primary">
                New checkout
              </Link>
            ) : null}
          </Title>
          {all.length === 0 ? (
            <Empty
              title="No checkouts yet"
              text="A checkout is one pilot, one goal and one aeroplane, from first brief to signature."
            />
          ) : (
            <div className="panel scroll-x">
              <table aria-label="Checkouts" className="plain">
                <TableHead
                  columns={[
                    'Pilot',
                    'Aeroplane',
                    'Goal',
                    'Instructor',
                    { right: 'Lessons' },
                    { right: 'Landings' },
                    'Last flown',
                    'Stage',
                  ]}
                />
                <tbody>
                  {all.map((c) => (
                    <tr key={c.id}>
                      <td>
                        <Link href={`/checkouts/${c.id}`}>{c.pilotName}</Link>
                      </td>
                      <td>
                        <span className="code-face">{c.registration}</span> <span className="soft">{c.typeName}</span>
                      </td>
                      <td>{list(c.goals.map(say))}</td>
                      <td>{c.instructorName}</td>
                      <td className="r mono">{c.lessons}</td>
                      <td className="r mono">{c.landings}</td>
                      <td>{c.lastFlown ? dateText(c.lastFlown) : 'not yet'}</td>
                      <td>
                        {c.status === 'signed'
                          ? 'signed'
                          : c.status === 'recommended'
                            ? 'with the examiner'
                            : c.lessons === 0
                              ? 'brief'
                              : c.briefedNotFlown
                                ? c.acknowledged
                                  ? 'fly'
                                  : 'acknowledge'
                                : 'debrief'}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </div>
      </main>
    </>
  );
}

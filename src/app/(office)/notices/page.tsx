import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { localText } from '@/core/format';
import { requireUser } from '@/server/floor/auth/session';
import { homeAerodrome } from '@/server/rules/content';
import { noticesOf } from '@/server/account/commands/notices';
import { NoticeList } from '@/ui/shared/notices';
import { Empty, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { seeNoticesAction } from '../../actions';

export const metadata: Metadata = { title: 'Notices' };

export default async function NoticesPage() {
  const user = await requireUser();
  const { timeZone } = await homeAerodrome();
  const notices = await noticesOf(user);
  return (
    <>
      <PageStrip name="Notices" line={`${notices.filter((n) => n.seenAt === null).length} new`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Notices"
            line={
              <>
                What others changed that is yours: bookings, slots that came free, notes, roles. What waits for you
                stands on the <Link href="/board">board</Link>; reminders before a flight come with the{' '}
                <Link href="/settings#calendar">calendar</Link>.
              </>
            }
          />
          {notices.length === 0 ? (
            <Empty title="No notices" text="When somebody books, moves or cancels what is yours, it is said here." />
          ) : (
            <Panel>
              <NoticeList
                see={seeNoticesAction}
                notices={notices.map((n) => ({
                  id: n.id,
                  text: n.text,
                  href: n.href,
                  when: localText(n.madeAt, timeZone),
                  seen: n.seenAt !== null,
                }))}
              />
            </Panel>
          )}
        </div>
      </main>
    </>
  );
}

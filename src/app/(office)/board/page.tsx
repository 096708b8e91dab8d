import type { Metadata } from 'next';
import Link from 'next/link';
import { dateText, list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/auth/permissions';
import { requireUser } from '@/server/auth/session';
import { nowIso } from '@/server/clock';
import { checkoutHead, checkoutRecord, nextAction, stageOf } from '@/server/queries/checkout';
import { checkoutList } from '@/server/queries/lists';
import { BoardRow } from '@/ui/board/board-row';
import { Empty, Panel, Title } from '@/ui/shared/parts';
import { limitsPassed } from '@/server/queries/traces';
import { Limits } from '@/ui/traces/limits';
import { releaseExceedanceAction } from '../../actions';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Board' };

export default async function BoardPage() {
  const user = await requireUser();
  const all = await checkoutList(user);
  const mine = all.filter((c) => c.status !== 'signed' && (c.instructorId === user.id || !may.seeEverybody(user)));
  const others = all.filter((c) => c.status !== 'signed' && !mine.includes(c));
  const cards = await Promise.all(mine.map(async (c) => {
    const head = await checkoutHead(c.id);
    if (!head) return null;
    const record = await checkoutRecord(head);
    const met = record.items.filter((i) => i.met).length;
    const runs = may.runCheckout(user, head);
    const waitsForPilot = record.sorties.find((s) => s.brief && !s.brief.acknowledgedAt);
    const action = runs ? nextAction(record)
      : waitsForPilot ? { text: `Read and acknowledge the brief of lesson ${waitsForPilot.lesson}.`, href: `/checkouts/${c.id}/brief` }
      : { text: 'Nothing waits for you. See where it stands.', href: `/checkouts/${c.id}` };
    return { summary: c, met, total: record.items.length, stage: stageOf(record), action };
  }));
  const staff = may.seeEverybody(user);
  const limits = staff ? await limitsPassed(user, 'open') : [];
  return (
    <>
      <PageStrip name="Board" line={dateText(nowIso())} user={user.name} />
      <main id="main"><div className="column">
        <Title title={staff ? 'What waits for you' : 'Your checkouts'} line={`${cards.length === 1 ? '1 checkout' : `${cards.length} checkouts`} open`}>
          {may.openCheckouts(user) ? <Link href="/checkouts/new" className="btn btn-primary">New checkout</Link> : null}
        </Title>
        {cards.length === 0 ? (
          <Empty title="Nothing is open" text={staff ? 'Open a checkout for a pilot and an aeroplane; it will stand here with its next action.' : 'When an instructor opens a checkout for you it stands here.'} {...(may.openCheckouts(user) ? { href: '/checkouts/new', action: 'New checkout' } : {})} />
        ) : (
          <div className="panel">{cards.map((card) => (card ? <BoardRow key={card.summary.id} {...card} /> : null))}</div>
        )}
        {limits.length > 0 ? <div className="mt-3"><Panel title={limits.length === 1 ? 'A limit was passed and is not released' : `${limits.length} limits were passed and are not released`}><Limits limits={limits} release={releaseExceedanceAction} withTrace /></Panel></div> : null}
        {staff && others.length > 0 ? (
          <div className="mt-3"><Panel title="Run by others">
            <div className="scroll-x"><table className="plain">
              <thead><tr><th>Pilot</th><th>Aeroplane</th><th>Goal</th><th>Instructor</th><th className="r">Lessons</th><th className="r">Landings</th><th>Last flown</th></tr></thead>
              <tbody>{others.map((c) => (
                <tr key={c.id}><td><Link href={`/checkouts/${c.id}`}>{c.pilotName}</Link></td><td className="mono">{c.registration}</td><td>{list(c.goals.map(say))}</td><td>{c.instructorName}</td><td className="r mono">{c.lessons}</td><td className="r mono">{c.landings}</td><td>{c.lastFlown ? dateText(c.lastFlown) : 'not yet'}</td></tr>
              ))}</tbody>
            </table></div>
          </Panel></div>
        ) : null}
      </div></main>
    </>
  );
}

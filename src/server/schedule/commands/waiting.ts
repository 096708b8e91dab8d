import { plural } from '@/core/format';
import { localClock, overlaps, type Span } from '@/core/schedule';
import { WaitForm } from '@/domain/schedule';
import { Op, type Transaction } from 'sequelize';
import { notify, userOfPilot } from '../../account/commands/notices';
import { Pilots } from '../../account/tables';
import { Checkouts } from '../../checkout/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { type Problem, problem, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import type { SchoolFacts } from '../queries/day';
import { holdsBetween } from '../queries/holds';
import { told } from '../sentences';
import { Waiting } from '../tables';
import { spanText } from './wanted';

/** A time came free: those whose wish it fits hear of it. */
export async function tellWaiting(
  freed: Span,
  instructorId: string | null,
  airframeId: string | null,
  school: SchoolFacts,
  by: string,
  t: Transaction,
): Promise<void> {
  if (freed.to <= nowIso()) return;
  const date = localClock(freed.from, school.zone).date;
  const wishes = await Waiting.find(
    {
      where: { endedAt: null, fromDate: { [Op.lte]: date }, toDate: { [Op.gte]: date } },
      pick: ['id', 'pilotId', 'minutes'],
      with: { pilot: ['name'], checkout: ['airframeId', 'instructorId'] },
      order: ['askedAt'],
      limit: 20,
    },
    t,
  );
  const long = (Date.parse(freed.to) - Date.parse(freed.from)) / 60_000;
  for (const w of wishes) {
    if (
      w.minutes > long ||
      (w.checkout !== null && w.checkout.airframeId !== airframeId) ||
      (w.checkout !== null && w.checkout.instructorId !== instructorId)
    )
      continue;
    const holds = await holdsBetween(freed.from, freed.to, t);
    if (holds.some((h) => h.holder === `p:${w.pilotId}` && overlaps(freed, h))) continue;
    await notify(
      [w.checkout?.instructorId ?? null, await userOfPilot(w.pilotId, t)],
      {
        kind: 'free',
        text: told('notice-free', {
          slot: spanText(freed, school.zone),
          name: w.pilot.name,
          wait: plural(w.minutes, 'minute'),
        }).message,
        href: `/schedule?day=${date}&wish=${w.id}`,
        about: w.id,
      },
      by,
      t,
    );
  }
}

/** A wish for a slot: heard of when one comes free. */
export async function joinWaiting(
  user: CurrentUser,
  form: unknown,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  const parsed = WaitForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.book(user, d)) return problem('', told('not-found'));
  if (d.toDate < d.fromDate) return problem('toDate', told('end-before-start'));
  return write(async (t) => {
    if (await Waiting.first({ where: { id: d.requestId }, pick: ['id'] }, t)) return { ok: true as const };
    if (
      !(await Pilots.first({ where: { id: d.pilotId }, pick: ['id'] }, t)) ||
      (d.checkoutId !== null &&
        !(await Checkouts.first({ where: { id: d.checkoutId, pilotId: d.pilotId }, pick: ['id'] }, t)))
    )
      return problem('', told('not-found'));
    await Waiting.insert(
      {
        id: d.requestId,
        pilotId: d.pilotId,
        checkoutId: d.checkoutId,
        minutes: d.minutes,
        fromDate: d.fromDate,
        toDate: d.toDate,
        note: d.note,
        askedBy: user.id,
        askedAt: nowIso(),
        endedAt: null,
        endedHow: null,
        bookingId: null,
      },
      t,
    );
    return { ok: true as const };
  });
}
export async function leaveWaiting(
  user: CurrentUser,
  id: string,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  return write(async (t) => {
    const w = await Waiting.first({ where: { id }, pick: ['pilotId', 'endedAt'] }, t);
    if (!w || !may.book(user, { pilotId: w.pilotId })) return problem('', told('not-found'));
    if (w.endedAt === null) await Waiting.update({ endedAt: nowIso(), endedHow: 'withdrawn' }, { id }, t);
    return { ok: true as const };
  });
}

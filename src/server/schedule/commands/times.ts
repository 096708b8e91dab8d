import { dateText, list } from '@/core/format';
import { addDays } from '@/core/recency';
import { minutesText, WEEKDAYS } from '@/core/schedule';
import { AwayForm, EndAwayForm, WindowsForm, windowsStamp } from '@/domain/schedule';
import { randomUUID } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import { notify, userOfPilot } from '../../account/commands/notices';
import { Pilots, Users } from '../../account/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Problem, type Result, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/schedule';
import { write } from '../../floor/write';
import { Airframes } from '../../hangar/tables';
import { schoolFacts } from '../queries/day';
import { weeklyRows } from '../queries/holds';
import { told } from '../sentences';
import { TimesAway, WeeklyWindows } from '../tables';
import { bookingWords } from './bookings';

/** The weekly windows of a person from a day on; earlier ones end the day before. */
export async function saveWindows(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = WindowsForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepWindows(user, d.person)) return problem('', told('own-times'));
  const wrong = d.windows.findIndex((w) => w.toMin <= w.fromMin);
  if (wrong >= 0) return problem(`windows.${wrong}.toMin`, told('end-before-start'));
  const across = d.windows.findIndex((w, i) =>
    d.windows.some((x, j) => j !== i && x.weekday === w.weekday && x.fromMin < w.toMin && w.fromMin < x.toMin),
  );
  if (across >= 0) return problem(`windows.${across}.fromMin`, told('windows-overlap'));
  return write(async (t) => {
    if (!(await personThere(d.person, t))) return problem('', told('not-found'));
    const now = (await weeklyRows(t)).filter((w) => w.person === d.person);
    if (windowsStamp(now) !== d.base)
      return {
        ...problem(
          '',
          told('times-changed', {
            now:
              now.length === 0
                ? 'none'
                : list(
                    now.map(({ weekday, fromMin, toMin, validFrom }) => {
                      const hours = `${minutesText(fromMin)} to ${minutesText(toMin)}`;
                      return `${WEEKDAYS[weekday - 1] ?? ''} ${hours} from ${dateText(validFrom)}`;
                    }),
                  ),
          }),
        ),
        base: windowsStamp(now),
      };
    const theirs = { person: d.person, endedAt: null };
    await WeeklyWindows.update(
      { validUntil: addDays(d.validFrom, -1) },
      {
        ...theirs,
        validFrom: { [Op.lt]: d.validFrom },
        validUntil: { [Op.or]: [null, { [Op.gte]: d.validFrom }] },
      },
      t,
    );
    await WeeklyWindows.update({ endedAt: nowIso() }, { ...theirs, validFrom: { [Op.gte]: d.validFrom } }, t);
    for (const w of d.windows)
      await WeeklyWindows.insert(
        {
          id: randomUUID(),
          person: d.person,
          weekday: w.weekday,
          fromMin: w.fromMin,
          toMin: w.toMin,
          validFrom: d.validFrom,
          validUntil: null,
          enteredBy: user.id,
          enteredAt: nowIso(),
          endedAt: null,
        },
        t,
      );
    return { ok: true as const };
  });
}
const personThere = (key: string, t: Transaction) =>
  key.startsWith('p:')
    ? Pilots.first({ where: { id: key.slice(2) }, pick: ['id'] }, t)
    : Users.first({ where: { id: key.slice(2) }, pick: ['id'] }, t);

export type AwaySaved = { ok: true; hit: string[] } | { ok: false; problems: Problem[] };
/**
 * A person away, or an aeroplane down. Bookings in that time are not touched: they are named, and stand marked in the
 * schedule until somebody moves them.
 */
export async function saveAway(user: CurrentUser, form: unknown): Promise<AwaySaved> {
  const parsed = AwayForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  const frame = d.who.startsWith('a:');
  if (frame ? !may.keepFleetDown(user) : !may.keepWindows(user, d.who))
    return problem('', frame ? told('staff-take-out') : told('own-times'));
  if (d.toAt !== null && Date.parse(d.toAt) <= Date.parse(d.fromAt)) return problem('toAt', told('end-before-start'));
  if (!frame && d.toAt === null) return problem('toAt', told('give-end'));
  return write(async (t): Promise<AwaySaved> => {
    if (
      !(frame ? await Airframes.first({ where: { id: d.who.slice(2) }, pick: ['id'] }, t) : await personThere(d.who, t))
    )
      return problem('who', told('choose-whom'));
    const span = {
      from: new Date(d.fromAt).toISOString(),
      to: d.toAt === null ? '9999-12-31T00:00:00.000Z' : new Date(d.toAt).toISOString(),
    };
    if (!(await TimesAway.first({ where: { id: d.requestId }, pick: ['id'] }, t)))
      await TimesAway.insert(
        {
          id: d.requestId,
          who: d.who,
          kind: frame ? 'maintenance' : 'away',
          fromAt: span.from,
          toAt: d.toAt === null ? null : span.to,
          why: d.why,
          enteredBy: user.id,
          enteredAt: nowIso(),
          endedAt: null,
          endedBy: null,
          endedWhy: null,
        },
        t,
      );
    const school = await schoolFacts(t);
    const hit = await ask.saveAway.all({ who: d.who, ...span, now: nowIso() }, t);
    const words: string[] = [];
    for (const h of hit) {
      const w = await bookingWords(h.bookingId, school, t);
      words.push(w);
      await notify(
        [h.instructorId, await userOfPilot(h.pilotId, t)],
        {
          kind: 'down',
          text: told('notice-must-move', { booking: w, why: d.why }).message,
          href: '/schedule',
          about: h.bookingId,
        },
        user.id,
        t,
      );
    }
    return { ok: true, hit: words };
  });
}
/** Back before the time, or at the end of an open one. */
export async function endAway(
  user: CurrentUser,
  form: unknown,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  const parsed = EndAwayForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  return write(async (t) => {
    const a = await TimesAway.first({ where: { id: parsed.data.id }, pick: ['who', 'endedAt'] }, t);
    if (!a || (a.who.startsWith('a:') ? !may.keepFleetDown(user) : !may.keepWindows(user, a.who)))
      return problem('', told('not-found'));
    if (a.endedAt === null)
      await TimesAway.update(
        { endedAt: nowIso(), endedBy: user.id, endedWhy: parsed.data.why },
        { id: parsed.data.id },
        t,
      );
    return { ok: true as const };
  });
}

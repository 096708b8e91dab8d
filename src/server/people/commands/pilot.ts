import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { row } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';
import { type Result, problem, zodProblems } from '../../floor/result';

export const HoursForm = z.object({
  pilotId: z.string().min(1),
  rows: z
    .array(
      z.object({
        typeCode: z.string().min(1, 'Choose the type.'),
        hours: z.number('Give the hours.').min(0, 'Hours cannot be negative.').max(30000, 'At most 30 000 h.'),
        /** Of them in command; null = nobody told them apart. */
        pic: z
          .number('Give hours, or leave it empty.')
          .min(0, 'Hours cannot be negative.')
          .max(30000, 'At most 30 000 h.')
          .nullable()
          .default(null),
        lastFlown: z.iso.date('Give the day as year-month-day.'),
      }),
    )
    .max(60),
});

const NOT_YOURS = 'There is no such pilot for you to keep the book of.';

/**
 * Enters what a pilot has flown, type by type. An entry that changes nothing adds nothing; 0 hours says: never mind
 * that type.
 */
export async function saveHours(user: CurrentUser, form: unknown): Promise<Result<{ added: number }>> {
  const parsed = HoursForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { pilotId, rows } = parsed.data;
  if (!may.keepPilotRecord(user, { pilotId })) return problem('', NOT_YOURS);
  const today = nowIso().slice(0, 10);
  const late = rows.findIndex((r) => r.lastFlown > today);
  if (late >= 0) return problem(`rows.${late}.lastFlown`, 'This day has not come yet: give the last day flown.');
  const twice = rows.findIndex((r, i) => rows.findIndex((x) => x.typeCode === r.typeCode) < i);
  if (twice >= 0) return problem(`rows.${twice}.typeCode`, 'This type stands above already: add the hours there.');
  const more = rows.findIndex((r) => r.pic !== null && r.pic > r.hours);
  if (more >= 0) return problem(`rows.${more}.pic`, 'More in command than in all: look at both.');
  return write(async (t): Promise<Result<{ added: number }>> => {
    if (!(await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }, t))) return problem('', NOT_YOURS);
    let added = 0;
    for (const [i, r] of rows.entries()) {
      if (!(await row('SELECT id FROM types WHERE code = :code', { code: r.typeCode }, t)))
        return problem(`rows.${i}.typeCode`, 'There is no such type in the hangar.');
      const newest = await row<{ hours: number; pic: number | null; last_flown: string; seq: number }>(
        'SELECT hours, pic, last_flown, seq FROM pilot_hours WHERE pilot_id = :pilotId AND type_code = :code ORDER BY seq DESC LIMIT 1',
        { pilotId, code: r.typeCode },
        t,
      );
      if (newest?.hours === r.hours && newest.pic === r.pic && newest.last_flown === r.lastFlown) continue;
      if (!newest && r.hours === 0) continue;
      await model('pilot_hours').create(
        {
          id: randomUUID(),
          pilot_id: pilotId,
          type_code: r.typeCode,
          hours: r.hours,
          pic: r.pic,
          last_flown: r.lastFlown,
          entered_by: user.id,
          entered_at: nowIso(),
          seq: (newest?.seq ?? 0) + 1,
        },
        { transaction: t },
      );
      added++;
    }
    return { ok: true, added };
  });
}

export const EyeForm = z.object({
  pilotId: z.string().min(1),
  typeCode: z.string().min(1),
  seat: z.enum(['pilot', 'instructor']),
  eyeHeightM: z
    .number('Give the eye height in metres.')
    .min(0.5, 'At least 0.5 m: measure from the ground, three wheels down.')
    .max(5, 'At most 5 m.'),
  how: z.string().trim().min(3, 'Say how, for example tape, thin cushion.').max(120, 'Keep it under 120 characters.'),
});

/** Height of a pilot's eye in one seat of a type: measured, with how it was done. */
export async function saveEye(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = EyeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  if (!may.keepPilotRecord(user, { pilotId: data.pilotId })) return problem('', NOT_YOURS);
  return write(async (t): Promise<Result<object>> => {
    if (!(await known(data.pilotId, data.typeCode, t))) return problem('', NOT_YOURS);
    const newest = await row<{ seq: number }>(
      'SELECT seq FROM pilot_eyes WHERE pilot_id = :pilotId AND type_code = :typeCode AND seat = :seat ORDER BY seq DESC LIMIT 1',
      { pilotId: data.pilotId, typeCode: data.typeCode, seat: data.seat },
      t,
    );
    await model('pilot_eyes').create(
      {
        id: randomUUID(),
        pilot_id: data.pilotId,
        type_code: data.typeCode,
        seat: data.seat,
        eye_height_m: data.eyeHeightM,
        how: data.how,
        entered_by: user.id,
        entered_at: nowIso(),
        seq: (newest?.seq ?? 0) + 1,
      },
      { transaction: t },
    );
    return { ok: true };
  });
}
const known = async (pilotId: string, code: string, t: Transaction): Promise<boolean> =>
  Boolean(await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }, t)) &&
  Boolean(await row('SELECT id FROM types WHERE code = :code', { code }, t));

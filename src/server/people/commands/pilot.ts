import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { kindOf } from '@/domain/kinds';
import { EyeForm, HoursForm } from '@/domain/pilot-forms';
import { Pilots } from '../../account/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { Types } from '../../hangar/tables';
import { told } from '../sentences';
import { PilotEyes, PilotHours } from '../tables';

const NOT_YOURS = told('not-found');

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
  if (late >= 0) return problem(`rows.${late}.lastFlown`, told('day-to-come'));
  const twice = rows.findIndex((r, i) => rows.findIndex((x) => x.typeCode === r.typeCode) < i);
  if (twice >= 0) return problem(`rows.${twice}.typeCode`, told('type-twice'));
  const more = rows.findIndex((r) => r.pic !== null && r.pic > r.hours);
  if (more >= 0) return problem(`rows.${more}.pic`, told('more-command'));
  return write(async (t): Promise<Result<{ added: number }>> => {
    if (!(await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t))) return problem('', NOT_YOURS);
    let added = 0;
    for (const [i, r] of rows.entries()) {
      if (kindOf(r.typeCode) === null && !(await Types.first({ where: { code: r.typeCode }, pick: ['id'] }, t)))
        return problem(`rows.${i}.typeCode`, told('type-unknown'));
      const newest = await PilotHours.first(
        { where: { pilotId, typeCode: r.typeCode }, pick: ['hours', 'pic', 'lastFlown', 'seq'], order: ['-seq'] },
        t,
      );
      if (newest?.hours === r.hours && newest.pic === r.pic && newest.lastFlown === r.lastFlown) continue;
      if (!newest && r.hours === 0) continue;
      await PilotHours.insert(
        {
          id: randomUUID(),
          pilotId: pilotId,
          typeCode: r.typeCode,
          hours: r.hours,
          pic: r.pic,
          lastFlown: r.lastFlown,
          enteredBy: user.id,
          enteredAt: nowIso(),
          seq: (newest?.seq ?? 0) + 1,
        },
        t,
      );
      added++;
    }
    return { ok: true, added };
  });
}

/** Height of a pilot's eye in one seat of a type: measured, with how it was done. */
export async function saveEye(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = EyeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  if (!may.keepPilotRecord(user, { pilotId: data.pilotId })) return problem('', NOT_YOURS);
  return write(async (t): Promise<Result<object>> => {
    if (!(await known(data.pilotId, data.typeCode, t))) return problem('', NOT_YOURS);
    const newest = await PilotEyes.first(
      { where: { pilotId: data.pilotId, typeCode: data.typeCode, seat: data.seat }, pick: ['seq'], order: ['-seq'] },
      t,
    );
    await PilotEyes.insert(
      {
        id: randomUUID(),
        pilotId: data.pilotId,
        typeCode: data.typeCode,
        seat: data.seat,
        eyeHeightM: data.eyeHeightM,
        how: data.how,
        enteredBy: user.id,
        enteredAt: nowIso(),
        seq: (newest?.seq ?? 0) + 1,
      },
      t,
    );
    return { ok: true };
  });
}
const known = async (pilotId: string, code: string, t: Transaction): Promise<boolean> =>
  Boolean(await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t)) &&
  Boolean(await Types.first({ where: { code }, pick: ['id'] }, t));

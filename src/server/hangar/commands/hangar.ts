import { slowResult } from '@/core/lab';
import { AddAeroplaneForm } from '@/domain/draft-forms';
import { PowerForm } from '@/domain/forms';
import { told } from '../sentences';
import type { Told } from '../../floor/sentences';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { Airframe, Sight, Sourced, TypeSheet } from '@/domain/sheet';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { write } from '../../floor/write';
import { powerFindings } from '../queries/findings';
import { type Result, problem, zodProblems } from '../../floor/result';
import { AirframeVersions, Airframes, TypeVersions, Types, PowerDecisions } from '../tables';

const Reason = z
  .string()
  .trim()
  .min(5, 'Say why, in a few words: the next reader needs it.')
  .max(300, 'At most 300 characters.');
export const SheetForm = z.object({
  code: z.string(),
  baseVersion: z.number().int().min(0),
  reason: Reason,
  sheet: z.unknown(),
});
export const AirframeForm = z.object({
  registration: z.string(),
  baseVersion: z.number().int().min(0),
  reason: Reason,
  airframe: z.unknown(),
});
export interface Versioned {
  version: number;
  unchanged: boolean;
}

const CHIEF_ONLY = told('chief-edits');
const conflict = (newest: number): Told => told('saved-meanwhile', { version: newest });

/**
 * Saves a type sheet as a new version. Version 0 as the base adds a new type. Nothing existing is changed; checkouts
 * keep theirs.
 */
export async function saveTypeSheet(user: CurrentUser, form: unknown): Promise<Result<Versioned>> {
  const parsed = SheetForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', CHIEF_ONLY);
  const { code, baseVersion, reason } = parsed.data;
  const sheet = TypeSheet.safeParse(parsed.data.sheet);
  if (!sheet.success)
    return {
      ok: false,
      problems: sheet.error.issues.map((i) => ({ path: `sheet.${i.path.join('.')}`, message: i.message })),
    };
  if (sheet.data.code !== code) return problem('sheet.code', told('type-code', { code }));
  return write((t) => addTypeVersion(user.name, sheet.data, baseVersion, reason, t));
}

export const SightForm = z.object({
  code: z.string(),
  baseVersion: z.number().int().min(1),
  reason: Reason,
  eyeHeightM: Sourced,
  noseToEyeM: Sourced,
  groundPitchDeg: Sourced,
  sight: Sight,
  gatePitch: z.array(z.object({ name: z.string(), pitchDeg: Sourced.nullable() })),
});

/** Puts the measured view from the seat on a type sheet, as a new version. */
export async function saveSight(user: CurrentUser, form: unknown): Promise<Result<Versioned>> {
  const parsed = SightForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', CHIEF_ONLY);
  const { code, baseVersion, reason, eyeHeightM, noseToEyeM, groundPitchDeg, sight, gatePitch } = parsed.data;
  return write((t) =>
    changeNewest(user, code, baseVersion, reason, t, (before) => ({
      ...before,
      sight,
      geometry: { ...before.geometry, eyeHeightM, noseToEyeM, groundPitchDeg },
      approach: before.approach.map((g) => ({
        ...g,
        pitchDeg: gatePitch.find((x) => x.name === g.name)?.pitchDeg ?? g.pitchDeg,
      })),
    })),
  );
}

/** The newest sheet of a type with a change made to it, as a new version; a sentence where it cannot be made. */
async function changeNewest(
  user: CurrentUser,
  code: string,
  baseVersion: number,
  reason: string,
  t: Transaction,
  change: (before: TypeSheet) => TypeSheet | Told,
): Promise<Result<Versioned>> {
  const newest = await TypeVersions.first(
    { pick: ['version', 'sheet'], with: { type: { pick: [], where: { code } } }, order: ['-version'] },
    t,
  );
  if (!newest) return problem('', told('type-unknown'));
  const sheet = change(TypeSheet.parse(JSON.parse(newest.sheet)));
  return 'approach' in sheet ? addTypeVersion(user.name, sheet, baseVersion, reason, t) : problem('', sheet);
}

const TRIALS = 'Slow approach trials';
export const TrialResultForm = z.object({
  code: z.string(),
  baseVersion: z.number().int().min(1),
  reason: Reason,
  trials: z.string().min(1).max(1200),
  flapDeg: z.number().min(0).max(90),
  powerPercent: z.number().min(0).max(100),
});
/**
 * Puts what slow approach trials support beside the speed of the last gate flown with that flap, as measured. It is worked
 * out here again from the trials; the gate keeps the speed that governs.
 */
export async function saveTrialResult(user: CurrentUser, form: unknown): Promise<Result<Versioned>> {
  const parsed = TrialResultForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', CHIEF_ONLY);
  const { code, baseVersion, reason, trials, flapDeg, powerPercent } = parsed.data;
  return write((t) =>
    changeNewest(user, code, baseVersion, reason, t, (before) => {
      const found = slowResult(before, { trials, flap: String(flapDeg), power: powerPercent });
      if (!found) return told('trials-not-enough');
      const at = before.approach.map((g) => g.flapDeg).lastIndexOf(flapDeg);
      if (at < 0) return told('no-gate-with-flap', { flapDeg });
      const power = powerPercent === 0 ? 'idle power' : `${powerPercent} % of power`;
      const claim = {
        value: found.value,
        source: 'measured' as const,
        ref: `${TRIALS}: ${found.trials}, flap ${flapDeg}\u00b0, ${power}, ${nowIso().slice(0, 10)}, ${user.name}`,
      };
      return {
        ...before,
        approach: before.approach.map((g, i) => {
          if (i !== at) return g;
          const others = (g.speed.others ?? []).filter((o) => !o.ref.startsWith(TRIALS));
          return { ...g, speed: { ...g.speed, others: [...others, claim] } };
        }),
      };
    }),
  );
}

export async function addTypeVersion(
  author: string,
  sheet: TypeSheet,
  baseVersion: number,
  reason: string,
  t: Transaction,
): Promise<Result<Versioned>> {
  const type = await Types.first({ where: { code: sheet.code }, pick: ['id'] }, t);
  const newest = type
    ? await TypeVersions.first({ where: { typeId: type.id }, pick: ['version', 'sheet'], order: ['-version'] }, t)
    : null;
  if ((newest?.version ?? 0) !== baseVersion) return problem('', conflict(newest?.version ?? 0));
  const text = JSON.stringify(sheet);
  if (newest?.sheet === text) return { ok: true, version: newest.version, unchanged: true };
  const typeId = type?.id ?? `type-${sheet.code}`;
  const version = baseVersion + 1;
  if (type) await Types.update({ name: sheet.name }, { id: typeId }, t);
  else await Types.insert({ id: typeId, code: sheet.code, name: sheet.name }, t);
  await TypeVersions.insert(
    {
      id: `${typeId}:${version}`,
      typeId: typeId,
      version,
      tailwheel: sheet.gear.layout === 'tailwheel',
      powerHp: sheet.engine.powerHp.value,
      engines: sheet.engine.count,
      surface: sheet.surface,
      sheet: text,
      author,
      reason,
      createdAt: nowIso(),
    },
    t,
  );
  return { ok: true, version, unchanged: false };
}

/** Saves what differs on one registration as a new version. Version 0 as the base adds the aeroplane. */
export async function saveAirframe(user: CurrentUser, form: unknown): Promise<Result<Versioned>> {
  const parsed = AirframeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', CHIEF_ONLY);
  const { registration, baseVersion, reason } = parsed.data;
  const airframe = Airframe.safeParse(parsed.data.airframe);
  if (!airframe.success)
    return {
      ok: false,
      problems: airframe.error.issues.map((i) => ({ path: `sheet.${i.path.join('.')}`, message: i.message })),
    };
  if (airframe.data.registration !== registration)
    return problem('sheet.registration', told('registration-fixed', { registration }));
  return write(async (t): Promise<Result<Versioned>> => {
    const known = await Airframes.first({ where: { registration }, pick: ['id'] }, t);
    const newest = known
      ? await AirframeVersions.first(
          { where: { airframeId: known.id }, pick: ['version', 'sheet'], order: ['-version'] },
          t,
        )
      : null;
    if ((newest?.version ?? 0) !== baseVersion) return problem('', conflict(newest?.version ?? 0));
    const text = JSON.stringify(airframe.data);
    if (newest?.sheet === text) return { ok: true, version: newest.version, unchanged: true };
    const type = await Types.first({ where: { code: airframe.data.typeCode }, pick: ['id'] }, t);
    if (!type) return problem('sheet.typeCode', told('type-unknown'));
    const id = known?.id ?? `air-${randomUUID()}`;
    if (!known) await Airframes.insert({ id, registration, typeId: type.id }, t);
    await AirframeVersions.insert(
      {
        id: `${id}:${baseVersion + 1}`,
        airframeId: id,
        version: baseVersion + 1,
        sheet: text,
        author: user.name,
        reason,
        createdAt: nowIso(),
      },
      t,
    );
    return { ok: true, version: baseVersion + 1, unchanged: false };
  });
}

/** A registration that is not in the hangar yet, as its type with its own weighing. */
export async function addAeroplane(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = AddAeroplaneForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { code, registration, emptyKg, emptyArmM, weighing } = parsed.data;
  const weighed = (value: number | null) => (value === null ? null : { value, source: 'measured', ref: weighing });
  const airframe = {
    ...{ schema: 'airframe/1', registration, typeCode: code },
    ...{ emptyKg: weighed(emptyKg), emptyArmM: weighed(emptyArmM), dialTable: null, crosswindLimitKt: null },
    ...{ flapTable: null, flapTableSource: null, modifications: [], attributes: [], equipment: [] },
    ...{ hoursToInspection: null, deferredDefects: [], insurer: null },
  };
  const known = await Airframes.first({ where: { registration }, pick: ['id'] });
  if (known) return problem('registration', told('registration-taken', { registration }));
  return saveAirframe(user, { registration, baseVersion: 0, reason: 'Added to the hangar', airframe });
}

/**
 * A chief decides of a power setting found in flight: approved, it stands on the type sheet as *measured*, in a new
 * version; declined, it stays in the record of the flight.
 */
export async function decidePower(user: CurrentUser, form: unknown): Promise<Result<{ version: number | null }>> {
  const parsed = PowerForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', CHIEF_ONLY);
  const { findingId, decision, reason } = parsed.data;
  return write(async (t): Promise<Result<{ version: number | null }>> => {
    const found = (await powerFindings(null, t)).find((f) => f.id === findingId);
    if (!found) return problem('', told('setting-gone'));
    if (found.decided)
      return problem('', told('decided-meanwhile', { decision: found.decided.decision, name: found.decided.by }));
    let version: number | null = null;
    if (decision === 'approved') {
      const newest = await TypeVersions.first(
        {
          pick: ['version', 'sheet'],
          with: { type: { pick: [], where: { code: found.typeCode } } },
          order: ['-version'],
        },
        t,
      );
      if (!newest) return problem('', told('type-unknown'));
      const before = TypeSheet.parse(JSON.parse(newest.sheet));
      const old = before.powerTable.find((p) => p.phase === found.data.phase);
      const ias = {
        value: found.data.speed,
        source: 'measured' as const,
        ref: `Flight of ${found.flownOn}, ${found.registration}, ${found.authorName}`,
      };
      const now = {
        phase: found.data.phase,
        setting: found.data.setting,
        ias: old?.ias
          ? {
              ...ias,
              others: [{ value: old.ias.value, source: old.ias.source, ref: old.ias.ref }, ...(old.ias.others ?? [])],
            }
          : ias,
        flowLPerH: old?.setting === found.data.setting ? old.flowLPerH : null,
      };
      const powerTable = old ? before.powerTable.map((p) => (p === old ? now : p)) : [...before.powerTable, now];
      const saved = await addTypeVersion(user.name, { ...before, powerTable }, newest.version, reason, t);
      if (!saved.ok) return saved;
      version = saved.version;
    }
    await PowerDecisions.insert(
      {
        id: randomUUID(),
        findingId: findingId,
        typeCode: found.typeCode,
        decision,
        version,
        decidedBy: user.id,
        decidedAt: nowIso(),
        reason,
      },
      t,
    );
    return { ok: true, version };
  });
}

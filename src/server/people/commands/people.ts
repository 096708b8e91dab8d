import { CertificateForm, PilotCertificateForm, StrikeForm } from '@/domain/forms';
import { randomUUID } from 'node:crypto';
import { LogForm } from '@/domain/log-form';
import { Pilots, Users } from '../../account/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/people';
import { write } from '../../floor/write';
import { localToday } from '../../rules/today';
import { told } from '../sentences';
import { LoggedFlights, StruckFlights } from '../tables';

/** Logs a flight that was not recorded here; counts for recency and hours. The same request twice is one flight. */
export async function logFlight(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = LogForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, pilotId, ...e } = parsed.data;
  if (!may.logFlying(user, { pilotId })) return problem('', told('own-flying'));
  if (e.flownOn > (await localToday())) return problem('flownOn', told('day-ahead'));
  if (e.fullStops > e.landings) return problem('fullStops', told('more-full-stops'));
  if (e.takeoffs + e.landings === 0 && e.hours === 0) return problem('landings', told('nothing-logged'));
  return write(async (t): Promise<Result<object>> => {
    const known = await LoggedFlights.first({ where: { id: requestId }, pick: ['id'] }, t);
    if (known) return { ok: true };
    const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t);
    const type = await ask.logFlight.one({ code: e.typeCode }, t);
    if (!pilot) return problem('pilotId', told('pilot-unknown'));
    if (!type) return problem('typeCode', told('type-unknown'));
    if (e.offSurface === 'water' && type.surface === 'land') return problem('offSurface', told('no-water-takeoff'));
    if (e.surface === 'water' && type.surface === 'land') return problem('surface', told('no-water-landing'));
    await LoggedFlights.insert(
      {
        id: requestId,
        pilotId: pilotId,
        flownOn: e.flownOn,
        typeCode: e.typeCode,
        takeoffs: e.takeoffs,
        landings: e.landings,
        fullStops: e.fullStops,
        night: e.night,
        surface: e.surface,
        offNight: e.offNight === undefined ? null : e.offNight,
        offSurface: e.offSurface ?? null,
        hours: e.hours,
        remark: e.remark,
        enteredBy: user.id,
        enteredAt: nowIso(),
      },
      t,
    );
    return { ok: true };
  });
}

/** Strikes a logged flight that was wrong. It stays, with the reason, and counts no more. */
export async function strikeFlight(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = StrikeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { logId, reason } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const entry = await ask.strikeFlight.one({ logId }, t);
    if (!entry || !may.logFlying(user, { pilotId: entry.pilotId })) return problem('', told('not-found'));
    if (!entry.struck)
      await StruckFlights.insert({ id: randomUUID(), logId: logId, reason, struckBy: user.id, struckAt: nowIso() }, t);
    return { ok: true };
  });
}

/** The certificate an instructor’s entries name, and its last day. Chief only. */
export async function saveCertificate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = CertificateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.keepCertificates(user)) return problem('', told('chief-certificates'));
  const { userId, certificate, until } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const found = await Users.first({ where: { id: userId }, pick: ['id'] }, t);
    if (!found) return problem('', told('person-unknown'));
    await Users.update({ certificate, certificateUntil: until }, { id: userId }, t);
    return { ok: true };
  });
}

/** The licence a pilot’s entries name. */
export async function savePilotCertificate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = PilotCertificateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { pilotId, certificate } = parsed.data;
  if (!may.keepPilotRecord(user, { pilotId })) return problem('', told('staff-licences'));
  return write(async (t): Promise<Result<object>> => {
    const found = await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t);
    if (!found) return problem('', told('pilot-unknown'));
    await Pilots.update({ certificate }, { id: pilotId }, t);
    return { ok: true };
  });
}

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { LogEntry } from '@/domain/recency';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { row } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';
import { localToday } from '../../rules/today';
import { type Result, problem, zodProblems } from '../../floor/result';

export const LogForm = LogEntry.extend({ requestId: z.uuid(), pilotId: z.string().min(1) });

/** Logs a flight that was not recorded here; counts for recency and hours. The same request twice is one flight. */
export async function logFlight(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = LogForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, pilotId, ...e } = parsed.data;
  if (!may.logFlying(user, { pilotId })) return problem('', 'You log your own flying, or the office does it.');
  if (e.flownOn > (await localToday())) return problem('flownOn', 'This day lies ahead. Log it when it is flown.');
  if (e.fullStops > e.landings) return problem('fullStops', 'There cannot be more full stops than landings.');
  if (e.takeoffs + e.landings === 0 && e.hours === 0) return problem('landings', 'Give take-offs, landings or hours.');
  return write(async (t): Promise<Result<object>> => {
    const known = await row('SELECT id FROM flight_log WHERE id = :id', { id: requestId }, t);
    if (known) return { ok: true };
    const pilot = await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }, t);
    const type = await row<{ surface: string }>(
      'SELECT tv.surface FROM types ty JOIN type_versions tv ON tv.type_id = ty.id WHERE ty.code = :code ORDER BY tv.version DESC LIMIT 1',
      { code: e.typeCode },
      t,
    );
    if (!pilot) return problem('pilotId', 'This pilot is not in the book of people.');
    if (!type) return problem('typeCode', 'This type is not in the hangar. Choose another.');
    if (e.offSurface === 'water' && type.surface === 'land')
      return problem('offSurface', 'This type does not take off from water.');
    if (e.surface === 'water' && type.surface === 'land')
      return problem('surface', 'This type does not land on water.');
    await model('flight_log').create(
      {
        id: requestId,
        pilot_id: pilotId,
        flown_on: e.flownOn,
        type_code: e.typeCode,
        takeoffs: e.takeoffs,
        landings: e.landings,
        full_stops: e.fullStops,
        night: e.night ? 1 : 0,
        surface: e.surface,
        off_night: e.offNight === undefined ? null : e.offNight ? 1 : 0,
        off_surface: e.offSurface ?? null,
        hours: e.hours,
        remark: e.remark,
        entered_by: user.id,
        entered_at: nowIso(),
      },
      { transaction: t },
    );
    return { ok: true };
  });
}

export const StrikeForm = z.object({
  logId: z.string().min(1),
  reason: z.string().trim().min(5, 'Say why, in a few words.').max(300, 'Keep it under 300 characters.'),
});
/** Strikes a logged flight that was wrong. It stays, with the reason, and counts no more. */
export async function strikeFlight(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = StrikeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { logId, reason } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const entry = await row<{ pilot_id: string; struck: string | null }>(
      'SELECT f.pilot_id, x.id AS struck FROM flight_log f LEFT JOIN flight_log_struck x ON x.log_id = f.id WHERE f.id = :logId',
      { logId },
      t,
    );
    if (!entry || !may.logFlying(user, { pilotId: entry.pilot_id }))
      return problem('', 'There is no such flight for you to strike.');
    if (!entry.struck)
      await model('flight_log_struck').create(
        { id: randomUUID(), log_id: logId, reason, struck_by: user.id, struck_at: nowIso() },
        { transaction: t },
      );
    return { ok: true };
  });
}

export const CertificateForm = z.object({
  userId: z.string().min(1),
  certificate: z.string().trim().max(80, 'Keep it under 80 characters.'),
  until: z.iso.date('Give the day as year-month-day.').nullable(),
});
/** The certificate an instructor’s entries name, and its last day. Chief only. */
export async function saveCertificate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = CertificateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.keepCertificates(user)) return problem('', 'The chief instructor keeps certificates.');
  const { userId, certificate, until } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const found = await row<{ id: string }>('SELECT id FROM users WHERE id = :userId', { userId }, t);
    if (!found) return problem('', 'This person is not in the book of people.');
    await model('users').update({ certificate, certificate_until: until }, { where: { id: userId }, transaction: t });
    return { ok: true };
  });
}

export const PilotCertificateForm = z.object({
  pilotId: z.string().min(1),
  certificate: z.string().trim().max(80, 'Keep it under 80 characters.'),
});
/** The licence a pilot’s entries name. */
export async function savePilotCertificate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = PilotCertificateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { pilotId, certificate } = parsed.data;
  if (!may.keepPilotRecord(user, { pilotId })) return problem('', 'The staff keep the licences of others.');
  return write(async (t): Promise<Result<object>> => {
    const found = await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }, t);
    if (!found) return problem('', 'This pilot is not in the book of people.');
    await model('pilots').update({ certificate }, { where: { id: pilotId }, transaction: t });
    return { ok: true };
  });
}

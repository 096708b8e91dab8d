import Papa from 'papaparse';
import type { Transaction } from 'sequelize';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { localToday } from '../../rules/today';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { homeAerodrome } from '../../rules/content';
import { row, rows } from '../../floor/connection';
import { type Booklet, drawBooklet } from './booklet-pdf';
import { limitationText, signedEntry } from './entry-pdf';
import { ledgerEntry } from '../book';
import { type BookLine, bookLines } from '../queries/book';
import { type CheckoutRecord, checkoutRecord } from '../../checkout/queries/record';
import { checkoutHead } from '../../checkout/queries/head';
import { linesOf } from '../../checkout/queries/logbook-lines';
import { hoursOf } from '../../people/queries/pilot';

/** A cell that begins like a formula is made text: the file is opened in a spreadsheet. */
const MARK = String.fromCharCode(0xfeff);
const csv = (rows_: object[]): string => `${MARK}${Papa.unparse(rows_, { escapeFormulae: true, newline: '\r\n' })}\r\n`;

export function bookCsv(lines: readonly BookLine[]): string {
  return csv(
    lines.map((l) => ({
      number: l.seq,
      signed_on: l.signedOn,
      kind: say(l.kind),
      void: l.voidedBy ? `by entry ${l.voidedBy.seq}` : '',
      pilot: l.pilotName,
      goals: list(l.goals.map(say)),
      registration: l.registration,
      type: l.type,
      signed_by: l.signerName,
      about_entry: l.later?.of.seq ?? '',
      result: l.later?.result ?? '',
      limitations:
        l.body && (l.kind === 'sign-off' || l.kind === 'recommendation') ? limitationText(l.body.limitations) : '',
      overridden: l.body
        ? l.body.items
            .filter((i) => i.overridden)
            .map((i) => i.id)
            .join(' ')
        : '',
      text: l.later?.text ?? l.body?.text ?? '',
      id: l.id,
      sha256: l.hash,
    })),
  );
}

interface FlightRow {
  flown_on: string;
  registration: string;
  type_name: string;
  instructor: string;
  lesson: number | null;
  land_full: number;
  land_touch: number;
  water: number;
  go_arounds: number;
  night: number;
  own: number;
  minutes: number | null;
  goals: string | null;
  remark: string;
  source: string;
  takeoffs: number;
  hours: number | null;
}
/**
 * Flights of one pilot: recorded here, and logged. Minutes are block to block as tapped, else take-off to landing;
 * empty when the clock was not tapped.
 */
export async function flightsOf(pilotId: string, t?: Transaction): Promise<FlightRow[]> {
  const mark = (which: string, fn: 'MIN' | 'MAX') =>
    `(SELECT ${fn}(json_extract(e.payload, '$.at')) FROM capture_events e WHERE e.sortie_id = COALESCE(s.shared_with, s.id) AND e.type = 'timer-marked' AND json_extract(e.payload, '$.mark') = '${which}' AND NOT EXISTS (SELECT 1 FROM capture_events u WHERE u.type = 'undone' AND u.subject_id = e.subject_id))`;
  const from = `COALESCE(${mark('off-block', 'MIN')}, ${mark('take-off', 'MIN')})`;
  const to = `COALESCE(${mark('on-block', 'MAX')}, ${mark('landed', 'MAX')})`;
  return rows<FlightRow>(
    `SELECT s.flown_on, a.registration, ty.name AS type_name, u.name AS instructor, CASE WHEN c.pilot_id = :pilotId THEN s.lesson END AS lesson, c.goals,
       SUM(l.kind = 'full-stop' AND l.surface = 'land') AS land_full, SUM(l.kind = 'touch-and-go' AND l.surface = 'land') AS land_touch, SUM(l.kind IN ('full-stop', 'touch-and-go') AND l.surface = 'water') AS water, SUM(l.kind = 'go-around') AS go_arounds,
       COALESCE((SELECT json_extract(b.choices, '$.night') FROM briefs b WHERE b.sortie_id = s.id ORDER BY b.version DESC LIMIT 1), 0) AS night, SUM(l.landing_class IN ('own', 'own-off-target')) AS own, SUM(l.kind IN ('full-stop', 'touch-and-go')) AS takeoffs,
       ROUND((julianday(${to}) - julianday(${from})) * 1440) AS minutes, NULL AS hours, '' AS remark, 'recorded here' AS source
     FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id JOIN users u ON u.id = s.instructor_id
     WHERE l.pilot_id = :pilotId AND l.landing_class <> 'demonstration' GROUP BY s.id
     UNION ALL
     SELECT f.flown_on, '', ty.name, '', NULL, NULL, CASE WHEN f.surface = 'land' THEN f.full_stops ELSE 0 END, CASE WHEN f.surface = 'land' THEN f.landings - f.full_stops ELSE 0 END, CASE WHEN f.surface = 'water' THEN f.landings ELSE 0 END, 0, f.night, 0, f.takeoffs, NULL, f.hours, f.remark, 'logged by ' || u.name
     FROM flight_log f JOIN types ty ON ty.code = f.type_code JOIN users u ON u.id = f.entered_by WHERE f.pilot_id = :pilotId AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)
     UNION ALL
     SELECT g.flown_on, g.registration, COALESCE(ty.name, g.type_written), '', NULL, NULL, CASE WHEN g.surface = 'land' THEN g.full_stops_day + g.full_stops_night ELSE 0 END, CASE WHEN g.surface = 'land' THEN g.landings_day + g.landings_night - g.full_stops_day - g.full_stops_night ELSE 0 END, CASE WHEN g.surface = 'water' THEN g.landings_day + g.landings_night ELSE 0 END, 0, g.landings_night > 0, 0, g.takeoffs_day + g.takeoffs_night, NULL, g.hours, g.remark, 'read in from a logbook'
     FROM logbook_flights g JOIN logbook_imports i ON i.id = g.import_id LEFT JOIN types ty ON ty.code = g.type_code WHERE g.pilot_id = :pilotId AND i.taken_back_at IS NULL
     ORDER BY 1, 5`,
    { pilotId },
    t,
  );
}

/** Logbook rows of one pilot as CSV, one flight a row. */
export async function logbookCsv(pilotId: string): Promise<string> {
  const place = (await homeAerodrome()).ident;
  const flights = await flightsOf(pilotId);
  return csv(
    flights.map((f) => ({
      date: f.flown_on,
      aerodrome: f.source === 'recorded here' ? place : '',
      type: f.type_name,
      registration: f.registration,
      minutes: f.minutes ?? (f.hours === null ? '' : Math.round(f.hours * 60)),
      dual: f.instructor ? 'yes' : '',
      instructor: f.instructor,
      takeoffs: f.takeoffs,
      landings_full_stop: f.land_full,
      landings_touch_and_go: f.land_touch,
      landings_water: f.water,
      night: f.night ? 'yes' : '',
      go_arounds: f.go_arounds,
      lesson: f.lesson ?? '',
      goals: f.goals ? list((JSON.parse(f.goals) as string[]).map(say)) : '',
      source: f.source,
      remarks: f.remark,
    })),
  );
}

/** Everything kept about one pilot, as JSON: the documented form is `record/1`. */
export async function recordJson(user: CurrentUser, pilotId: string): Promise<object | null> {
  const pilot = await row<{
    id: string;
    name: string;
    mass_kg: number;
    hours: number;
    experience: string;
    certificate: string;
    crosswind_credit: string | null;
    experience_since: string;
    created_at: string;
    email: string | null;
    user_id: string | null;
  }>(
    'SELECT p.*, u.email, u.id AS user_id FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE p.id = :pilotId',
    { pilotId },
  );
  if (!pilot || !may.exportRecord(user, { pilotId })) return null;
  const heads = await rows<{ id: string }>('SELECT id FROM checkouts WHERE pilot_id = :pilotId ORDER BY created_at', {
    pilotId,
  });
  const checkouts = [];
  for (const { id } of heads) {
    const head = await checkoutHead(id);
    if (head) checkouts.push(await checkoutJson(await checkoutRecord(head)));
  }
  const entries = [];
  for (const line of await bookLines(user, { pilotId, limit: 100_000 })) {
    const entry = await ledgerEntry(line.id);
    if (entry) entries.push(signedEntry(entry));
  }
  return {
    schema: 'record/1',
    madeOn: await localToday(),
    pilot: {
      id: pilot.id,
      name: pilot.name,
      email: pilot.email,
      massKg: pilot.mass_kg,
      hours: pilot.hours,
      experience: pilot.experience,
      certificate: pilot.certificate,
      crosswindCredit: pilot.crosswind_credit === null ? null : (JSON.parse(pilot.crosswind_credit) as unknown),
      experienceSince: JSON.parse(pilot.experience_since) as unknown,
      since: pilot.created_at,
    },
    qualifications: await rows(
      'SELECT kind, gained_on AS gainedOn, note, ledger_id AS ledgerId, ended_at AS endedAt FROM qualifications WHERE pilot_id = :pilotId ORDER BY gained_on',
      { pilotId },
    ),
    hoursByType: await hoursOf(pilotId),
    eyes: await rows(
      'SELECT type_code AS typeCode, seat, eye_height_m AS eyeHeightM, how, entered_at AS enteredAt FROM pilot_eyes WHERE pilot_id = :pilotId ORDER BY seq',
      { pilotId },
    ),
    log: await rows(
      'SELECT f.flown_on AS flownOn, f.type_code AS typeCode, f.takeoffs, f.landings, f.full_stops AS fullStops, f.night, f.surface, f.hours, f.remark, f.entered_at AS enteredAt, x.reason AS struck FROM flight_log f LEFT JOIN flight_log_struck x ON x.log_id = f.id WHERE f.pilot_id = :pilotId ORDER BY f.flown_on',
      { pilotId },
    ),
    dates: await rows(
      'SELECT d.key, d.title, d.done_on AS doneOn, d.until, d.note, u.name AS enteredBy, d.entered_at AS enteredAt FROM person_dates d JOIN users u ON u.id = d.entered_by WHERE d.pilot_id = :pilotId ORDER BY d.key, d.seq',
      { pilotId },
    ),
    // What stands about a pilot is theirs to read when they ask for it; what the chief noted for the chief alone is
    // told as that.
    notes: await rows(
      "SELECT CASE WHEN n.visible = 'chief' THEN NULL ELSE n.text END AS text, n.visible, u.name AS author, n.written_at AS writtenAt, n.withdrawn_at AS withdrawnAt FROM person_notes n JOIN users u ON u.id = n.author WHERE n.pilot_id = :pilotId ORDER BY n.written_at",
      { pilotId },
    ),
    logbooks: await rows(
      'SELECT i.file_name AS fileName, i.imported_at AS importedAt, i.added, i.doubled, i.refused, i.taken_back_at AS takenBackAt FROM logbook_imports i WHERE i.pilot_id = :pilotId ORDER BY i.imported_at',
      { pilotId },
    ),
    logbookFlights: await rows(
      'SELECT f.flown_on AS flownOn, f.type_written AS typeWritten, f.registration, f.type_code AS typeCode, f.hours, f.pic_hours AS picHours, f.dual, f.takeoffs_day AS takeoffsDay, f.takeoffs_night AS takeoffsNight, f.landings_day AS landingsDay, f.landings_night AS landingsNight, f.full_stops_day AS fullStopsDay, f.full_stops_night AS fullStopsNight, f.remark, i.taken_back_at AS takenBackAt FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE f.pilot_id = :pilotId ORDER BY f.flown_on, f.fingerprint',
      { pilotId },
    ),
    bookings: await rows(
      'SELECT b.kind, b.starts_at AS startsAt, b.ends_at AS endsAt, b.state, a.registration, u.name AS instructor, b.passengers, b.note FROM bookings b LEFT JOIN airframes a ON a.id = b.airframe_id LEFT JOIN users u ON u.id = b.instructor_id WHERE b.pilot_id = :pilotId ORDER BY b.starts_at',
      { pilotId },
    ),
    bookingChanges: await rows(
      `SELECT b.starts_at AS startsAt, h.version, h.what, h.reason, u.name AS changedBy, h.changed_at AS changedAt
         FROM booking_changes h JOIN bookings b ON b.id = h.booking_id JOIN users u ON u.id = h.changed_by
         WHERE b.pilot_id = :pilotId ORDER BY h.changed_at`,
      { pilotId },
    ),
    waiting: await rows(
      `SELECT minutes, from_date AS fromDate, to_date AS toDate, note, asked_at AS askedAt, ended_at AS endedAt,
         ended_how AS endedHow FROM waiting_list WHERE pilot_id = :pilotId ORDER BY asked_at`,
      { pilotId },
    ),
    timesAway: await rows(
      `SELECT from_at AS fromAt, to_at AS toAt, why, entered_at AS enteredAt, ended_at AS endedAt,
         ended_why AS endedWhy FROM times_away WHERE who = :who OR who = :asUser ORDER BY from_at`,
      { who: `p:${pilotId}`, asUser: `u:${pilot.user_id ?? ''}` },
    ),
    weeklyTimes: await rows(
      `SELECT weekday, from_min AS fromMin, to_min AS toMin, valid_from AS validFrom, valid_until AS validUntil,
         ended_at AS endedAt FROM weekly_windows WHERE person = :who OR person = :asUser
         ORDER BY valid_from, weekday`,
      { who: `p:${pilotId}`, asUser: `u:${pilot.user_id ?? ''}` },
    ),
    account: await row(
      `SELECT email, roles, authorised, certificate, certificate_until AS certificateUntil,
         created_at AS createdAt, closed_at AS closedAt, password_given_at AS accessGivenAt FROM users
         WHERE pilot_id = :pilotId`,
      { pilotId },
    ),
    notices: await rows(
      `SELECT n.kind, n.text, n.made_at AS madeAt, n.seen_at AS seenAt
         FROM notices n JOIN users u ON u.id = n.user_id WHERE u.pilot_id = :pilotId ORDER BY n.seq`,
      { pilotId },
    ),
    ...(await ofLessons(pilotId)),
    flights: await flightsOf(pilotId),
    checkouts,
    entries,
  };
}

/** What was said, written and recorded of the lessons of a pilot. */
async function ofLessons(pilotId: string): Promise<object> {
  const of =
    'JOIN sorties s ON s.id = x.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = :pilotId';
  const parsed = <T extends object>(found: T[], ...keys: (keyof T)[]) =>
    found.map((f) => ({
      ...f,
      ...Object.fromEntries(keys.map((k) => [k, f[k] === null ? null : (JSON.parse(String(f[k])) as unknown)])),
    }));
  return {
    debriefs: parsed(
      await rows<{ focus: string; snapshot: string }>(
        `SELECT x.sortie_id AS sortieId, s.lesson, x.version, x.focus, x.remark, x.snapshot, u.name AS by,
           x.created_at AS createdAt, x.acknowledged_at AS acknowledgedAt
           FROM debriefs x JOIN users u ON u.id = x.created_by ${of} ORDER BY x.created_at`,
        { pilotId },
      ),
      'focus',
      'snapshot',
    ),
    selfAssessments: parsed(
      await rows<{ said: string }>(
        `SELECT x.sortie_id AS sortieId, s.lesson, x.said, x.told_at AS saidAt FROM self_assessments x ${of} ORDER BY x.told_at`,
        { pilotId },
      ),
      'said',
    ),
    lessonPlans: parsed(
      await rows<{ plan: string }>(
        `SELECT p.lesson, p.version, p.plan, u.name AS by, p.created_at AS createdAt
           FROM lesson_plans p JOIN users u ON u.id = p.created_by JOIN checkouts c ON c.id = p.checkout_id
           WHERE c.pilot_id = :pilotId ORDER BY p.created_at`,
        { pilotId },
      ),
      'plan',
    ),
    findings: parsed(
      await rows<{ own: string | null }>(
        `SELECT d.finding_id AS findingId, d.decision, d.reason, d.lesson, d.own, u.name AS by,
           d.decided_at AS decidedAt
           FROM finding_decisions d JOIN users u ON u.id = d.decided_by JOIN checkouts c ON c.id = d.checkout_id
           WHERE c.pilot_id = :pilotId ORDER BY d.decided_at`,
        { pilotId },
      ),
      'own',
    ),
    recordings: parsed(
      await rows<{ context: string; analysis: string }>(
        `SELECT x.id, x.sortie_id AS sortieId, s.lesson, x.name, x.bytes, x.hash AS sha256, x.start_utc AS startUtc,
           x.uploaded_at AS uploadedAt, x.context, x.analysis FROM traces x ${of} ORDER BY x.uploaded_at`,
        { pilotId },
      ),
      'context',
      'analysis',
    ),
    exceedances: await rows(
      `SELECT x.channel, x.limit_value AS limitValue, x.unit, x.peak, x.duration_s AS durationS,
         x.must_do AS mustDo, x.found_at AS foundAt, r.released_at AS releasedAt, r.done FROM exceedances x
         LEFT JOIN exceedance_releases r ON r.exceedance_id = x.id ${of} ORDER BY x.found_at`,
      { pilotId },
    ),
    reasons: await rows(
      `SELECT x.type, json_extract(x.payload, '$.reason') AS reason, x.device_time AS at, u.name AS by
         FROM capture_events x JOIN users u ON u.id = x.author ${of} AND x.type IN ('overruled', 'item-waived',
         'stop-explained', 'limit-overridden') ORDER BY x.device_time`,
      { pilotId },
    ),
  };
}

async function checkoutJson(record: CheckoutRecord): Promise<object> {
  const { head } = record;
  const lines = await linesOf(record);
  return {
    id: head.id,
    registration: head.registration,
    type: head.typeName,
    goals: head.goals,
    pack: head.pack,
    status: head.status,
    openedAt: head.createdAt,
    standard: record.standard.name,
    programmes: head.programmeIds,
    note: head.note,
    lessons: record.sorties.map((s) => ({
      lesson: s.lesson,
      flownOn: s.flownOn,
      briefAcknowledgedAt: s.brief?.acknowledgedAt ?? null,
      brief: s.brief ? { choices: s.brief.choices } : null,
      logbook: lines.find((l) => l.lesson === s.lesson) ?? null,
    })),
    landings: record.landings.map((l) => ({
      id: l.id,
      lesson: l.lesson,
      number: l.number,
      date: l.date,
      kind: l.kind,
      intended: l.intended,
      class: l.judged.landingClass,
      reason: l.judged.reason,
      crosswindKt: l.crosswindKt,
      surface: l.surface ?? 'land',
      captured: l.captured,
      measured: l.measured,
    })),
    items: record.items.map((i) => ({
      id: i.item.id,
      title: i.item.title,
      citation: i.item.citation,
      state: i.state,
      asks: i.asks,
      have: i.have,
      missing: i.missing,
      evidence: i.evidence,
    })),
    observations: record.evidence.observations,
  };
}

/** The whole checkout as a booklet: what is asked of the database first, then drawn. */
export async function bookletOf(user: CurrentUser, record: CheckoutRecord): Promise<Booklet> {
  const { head, items, landings, sorties, evidence } = record;
  return {
    head,
    items,
    landings,
    sorties: sorties.map((s) => ({ ...s, brief: s.brief && { acknowledgedAt: s.brief.acknowledgedAt } })),
    evidence: { observations: evidence.observations, flights: evidence.flights },
    names: { pack: record.pack.name, standard: record.standard.name },
    today: await localToday(),
    entries: await bookLines(user, { checkoutId: head.id }),
    lines: await linesOf(record),
  };
}
export const bookletPdf = async (user: CurrentUser, record: CheckoutRecord): Promise<Uint8Array> =>
  drawBooklet(await bookletOf(user, record));

import Papa from 'papaparse';
import { itemEvidenceWords, landingWords } from '@/core/assess';
import { list, localDate } from '@/core/format';
import { say } from '@/domain/words';
import { localToday } from '../../rules/today';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { homeAerodrome } from '../../rules/content';
import { snake } from '../../floor/columns';
import * as ask from '../../floor/statements/record';
import { Checkouts } from '../../checkout/tables';
import { type Booklet, drawBooklet } from './booklet-pdf';
import { limitationText, signedEntry } from './entry-pdf';
import { ledgerEntry } from '../entries';
import { type LedgerLine, ledgerLines } from '../queries/entries';
import { type CheckoutRecord, checkoutRecord } from '../../checkout/queries/record';
import { checkoutHead } from '../../checkout/queries/head';
import { linesOf } from '../../checkout/queries/logbook-lines';
import { hoursOf } from '../../people/queries/pilot';

/** A cell that begins like a formula is made text: the file is opened in a spreadsheet. */
const MARK = String.fromCharCode(0xfeff);
const csv = (rows_: object[]): string => `${MARK}${Papa.unparse(rows_, { escapeFormulae: true, newline: '\r\n' })}\r\n`;

export function ledgerCsv(lines: readonly LedgerLine[]): string {
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

/**
 * Flights of one pilot: recorded here, and logged. Minutes are block to block as tapped, else take-off to landing;
 * empty when the clock was not tapped.
 */
const flightsOf = (pilotId: string) => ask.flights.all({ pilotId });

/** `record/1` names the columns of a flight as the CSV and the database do. */
const snakes = (flight: object) => Object.fromEntries(Object.entries(flight).map(([k, v]) => [snake(k), v as unknown]));

/** Logbook rows of one pilot as CSV, one flight a row. */
export async function logbookCsv(pilotId: string): Promise<string> {
  const place = (await homeAerodrome()).ident;
  const flights = await flightsOf(pilotId);
  return csv(
    flights.map((f) => ({
      date: f.flownOn,
      aerodrome: f.source === 'recorded here' ? (f.aerodrome ?? place) : '',
      type: f.typeName,
      registration: f.registration,
      minutes: f.minutes ?? (f.hours === null ? '' : Math.round(f.hours * 60)),
      dual: f.instructor ? 'yes' : '',
      instructor: f.instructor,
      takeoffs: f.takeoffs,
      landings_full_stop: f.landFull,
      landings_touch_and_go: f.landTouch,
      landings_water: f.water,
      night: f.night ? 'yes' : '',
      go_arounds: f.goArounds,
      lesson: f.lesson ?? '',
      goals: f.goals ? list((JSON.parse(f.goals) as string[]).map(say)) : '',
      source: f.source,
      remarks: f.remark,
    })),
  );
}

/** Everything kept about one pilot, as JSON: the documented form is `record/1`. */
export async function recordJson(user: CurrentUser, pilotId: string): Promise<object | null> {
  const pilot = await ask.ofPilot.one({ pilotId });
  if (!pilot || !may.exportRecord(user, { pilotId })) return null;
  const heads = await Checkouts.find({ where: { pilotId }, pick: ['id'], order: ['createdAt'] });
  const checkouts = [];
  for (const { id } of heads) {
    const head = await checkoutHead(id);
    if (head) checkouts.push(await checkoutJson(await checkoutRecord(head)));
  }
  const entries = [];
  for (const line of await ledgerLines(user, { pilotId, limit: 100_000 })) {
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
      massKg: pilot.massKg,
      hours: pilot.hours,
      experience: pilot.experience,
      certificate: pilot.certificate,
      crosswindCredit: pilot.crosswindCredit,
      experienceSince: pilot.experienceSince,
      since: pilot.createdAt,
    },
    qualifications: await ask.qualifications.all({ pilotId }),
    hoursByType: await hoursOf(pilotId),
    eyes: await ask.eyes.all({ pilotId }),
    log: await ask.log.all({ pilotId }),
    dates: await ask.dates.all({ pilotId }),
    // What stands about a pilot is theirs to read when they ask for it; what the chief noted for the chief alone is
    // told as that.
    notes: await ask.notes.all({ pilotId }),
    logbooks: await ask.logbooks.all({ pilotId }),
    logbookFlights: await ask.logbookFlights.all({ pilotId }),
    bookings: await ask.bookings.all({ pilotId }),
    bookingChanges: await ask.bookingChanges.all({ pilotId }),
    waiting: await ask.waiting.all({ pilotId }),
    timesAway: await ask.timesAway.all({ who: `p:${pilotId}`, asUser: `u:${pilot.userId ?? ''}` }),
    weeklyTimes: await ask.weeklyTimes.all({ who: `p:${pilotId}`, asUser: `u:${pilot.userId ?? ''}` }),
    account: await ask.account.one({ pilotId }),
    notices: await ask.notices.all({ pilotId }),
    ...(await ofLessons(pilotId)),
    flights: (await flightsOf(pilotId)).map(snakes),
    checkouts,
    entries,
  };
}

/** What was said, written and recorded of the lessons of a pilot. */
async function ofLessons(pilotId: string): Promise<object> {
  return {
    debriefs: await ask.debriefs.all({ pilotId }),
    selfAssessments: await ask.selfAssessments.all({ pilotId }),
    lessonPlans: await ask.lessonPlans.all({ pilotId }),
    findings: await ask.findings.all({ pilotId }),
    recordings: await ask.recordings.all({ pilotId }),
    exceedances: await ask.exceedances.all({ pilotId }),
    reasons: await ask.reasons.all({ pilotId }),
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
      reason: landingWords(l.judged.reason),
      crosswindKt: l.crosswindKt,
      surface: l.surface ?? 'land',
      captured: l.captured,
      measured: l.measured,
    })),
    items: record.items.map((i) => {
      const { asks, have, missing } = itemEvidenceWords(i);
      return {
        id: i.item.id,
        title: i.item.title,
        citation: i.item.citation,
        state: i.state,
        asks,
        have,
        missing,
        evidence: i.evidence,
      };
    }),
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
    openedOn: localDate(head.createdAt, (await homeAerodrome()).timeZone),
    entries: await ledgerLines(user, { checkoutId: head.id }),
    lines: await linesOf(record),
  };
}
export const bookletPdf = async (user: CurrentUser, record: CheckoutRecord): Promise<Uint8Array> =>
  drawBooklet(await bookletOf(user, record));

import { z } from 'zod';
import { instant, real, text, whole } from '../columns';
import { statement } from '../statement';
import { LedgerEntries, SignOverrides, OverrideAnswers } from '../../ledger/tables';
import { Checkouts, Sorties } from '../../checkout/tables';
import { Users } from '../../account/tables';
import { Exceedances } from '../../traces/tables';
import { CaptureEvents, Landings } from '../../fly/tables';
import { ENTRY_KINDS } from '@/domain/ledger';

export const madeBefore = statement('ledger.madeBefore', {
  params: ['id'],
  sql: `SELECT checkout_id, kind, signer_id, json_extract(canonical, '$.body.of.id') AS "of" FROM ledger WHERE id = :id`,
  row: {
    checkoutId: LedgerEntries.columns.checkoutId,
    kind: LedgerEntries.columns.kind,
    signerId: LedgerEntries.columns.signerId,
    of: text.nullable(),
  },
});

export const appendEntry = statement('ledger.appendEntry', {
  params: [],
  sql: `SELECT MAX(signed_at) AS at FROM ledger`,
  row: { at: text.nullable() },
});

export const settleKey = statement('ledger.settleKey', {
  params: [],
  sql: `SELECT json_extract(canonical, '$.body.newKeyId') AS id FROM ledger WHERE kind = 'key-rotated' ORDER BY seq DESC LIMIT 1`,
  row: { id: text.nullable() },
});

export const targetOf = statement('ledger.targetOf', {
  params: ['id'],
  sql: `SELECT l.id, l.seq, l.hash, l.kind, l.checkout_id, l.signer_id, l.signed_at, l.canonical, c.pilot_id, (SELECT v.id FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id) AS voided FROM ledger l LEFT JOIN checkouts c ON c.id = l.checkout_id WHERE l.id = :id`,
  row: {
    id: LedgerEntries.columns.id,
    seq: LedgerEntries.columns.seq,
    hash: LedgerEntries.columns.hash,
    kind: LedgerEntries.columns.kind,
    checkoutId: LedgerEntries.columns.checkoutId,
    signerId: LedgerEntries.columns.signerId,
    signedAt: LedgerEntries.columns.signedAt,
    canonical: LedgerEntries.columns.canonical,
    pilotId: Checkouts.columns.pilotId.nullable(),
    voided: text.nullable(),
  },
});

export const voidEntry = statement('ledger.voidEntry', {
  params: ['id'],
  sql: `SELECT r.id FROM ledger r WHERE r.kind = 'test-result' AND json_extract(r.canonical, '$.body.of.id') = :id AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = r.id)`,
  row: { id: LedgerEntries.columns.id },
});

export const overridesOf = statement('ledger.overridesOf', {
  params: ['id'],
  sql: `SELECT o.*, u.name AS asked_name, u.roles AS asked_roles, a.answer, a.reason AS answer_reason, v.name AS answered_name FROM sign_overrides o JOIN users u ON u.id = o.asked_by LEFT JOIN override_answers a ON a.override_id = o.id LEFT JOIN users v ON v.id = a.answered_by
     WHERE o.checkout_id = :id ORDER BY o.seq`,
  row: {
    id: SignOverrides.columns.id,
    itemId: SignOverrides.columns.itemId,
    reason: SignOverrides.columns.reason,
    askedBy: SignOverrides.columns.askedBy,
    askedAt: SignOverrides.columns.askedAt,
    seq: SignOverrides.columns.seq,
    afterEntry: SignOverrides.columns.afterEntry,
    askedName: Users.columns.name,
    askedRoles: Users.columns.roles,
    answer: OverrideAnswers.columns.answer.nullable(),
    answerReason: OverrideAnswers.columns.reason.nullable(),
    answeredName: Users.columns.name.nullable(),
  },
});

export const overridesOfLedgerEntries = statement('ledger.overridesOfLedgerEntries', {
  params: ['id'],
  sql: `SELECT MAX(seq) AS seq FROM ledger WHERE checkout_id = :id AND kind IN ('sign-off', 'recommendation', 'void')`,
  row: { seq: real.nullable() },
});

export const askOverride = statement('ledger.askOverride', {
  params: ['id'],
  sql: `SELECT MAX(seq) AS n FROM sign_overrides WHERE checkout_id = :id`,
  row: { n: real.nullable() },
});

export const askOverrideLedgerEntries = statement('ledger.askOverrideLedgerEntries', {
  params: [],
  sql: `SELECT MAX(seq) AS seq FROM ledger`,
  row: { seq: real.nullable() },
});

export const answerOverride = statement('ledger.answerOverride', {
  params: ['id'],
  sql: `SELECT o.checkout_id, o.asked_by, c.pilot_id, c.status, a.id AS answered FROM sign_overrides o JOIN checkouts c ON c.id = o.checkout_id LEFT JOIN override_answers a ON a.override_id = o.id WHERE o.id = :id`,
  row: {
    checkoutId: SignOverrides.columns.checkoutId,
    askedBy: SignOverrides.columns.askedBy,
    pilotId: Checkouts.columns.pilotId,
    status: Checkouts.columns.status,
    answered: OverrideAnswers.columns.id.nullable(),
  },
});

export const signingState = statement('ledger.signingState', {
  params: ['pilotId', 'userId', 'id'],
  sql: `SELECT MAX(l.flown_on) AS last FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = l.checkout_id JOIN airframes a ON a.id = c.airframe_id
     WHERE l.pilot_id = :pilotId AND s.instructor_id = :userId AND a.type_id = (SELECT a2.type_id FROM airframes a2 JOIN checkouts c2 ON c2.airframe_id = a2.id WHERE c2.id = :id)`,
  row: { last: text.nullable() },
});

export const signingStateExceedances = statement('ledger.signingStateExceedances', {
  params: ['pilotId'],
  sql: `SELECT e.trace_id, e.channel, e.limit_value, e.peak, e.unit, json_extract(tv.sheet, '$.dial.unit') AS dial, s.flown_on FROM exceedances e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id LEFT JOIN exceedance_releases r ON r.exceedance_id = e.id WHERE r.id IS NULL AND c.pilot_id = :pilotId`,
  row: {
    traceId: Exceedances.columns.traceId,
    channel: Exceedances.columns.channel,
    limitValue: Exceedances.columns.limitValue,
    peak: Exceedances.columns.peak,
    unit: Exceedances.columns.unit,
    dial: z.enum(['kt', 'mph']),
    flownOn: Sorties.columns.flownOn,
  },
});

export const renewDates = statement('ledger.renewDates', {
  params: ['p', 'key'],
  sql: `SELECT MAX(seq) AS seq FROM person_dates WHERE pilot_id = :p AND key = :key`,
  row: { seq: real.nullable() },
});

export const ledgerLines = statement('ledger.ledgerLines', {
  params: ['ids'],
  sql: `SELECT id, seq, kind, canonical, json_extract(canonical, '$.body.of.id') AS "of" FROM ledger WHERE kind IN ('void', 'correction', 'test-result') AND json_extract(canonical, '$.body.of.id') IN (:ids) ORDER BY seq`,
  row: {
    id: LedgerEntries.columns.id,
    seq: LedgerEntries.columns.seq,
    kind: LedgerEntries.columns.kind,
    canonical: LedgerEntries.columns.canonical,
    of: text,
  },
});

export const lateOf = statement('ledger.lateOf', {
  params: ['checkoutId'],
  sql: `SELECT e.subject_id AS id, n.number, json_extract(e.payload, '$.itemId') AS item, s.lesson, e.device_time, e.received_at
       FROM checkouts c JOIN ledger l ON l.id = c.signed_ledger_id JOIN sorties s ON s.checkout_id = c.id
         JOIN capture_events e ON e.sortie_id = COALESCE(s.shared_with, s.id) LEFT JOIN landings n ON n.id = e.subject_id
       WHERE c.id = :checkoutId AND c.status <> 'open' AND e.type IN ('landing-saved', 'item-observed') AND e.received_at > l.signed_at
         AND COALESCE(n.checkout_id, json_extract(e.payload, '$.pilotId'), c.id) IN (c.id, c.pilot_id)
         AND NOT EXISTS (SELECT 1 FROM ledger x WHERE x.checkout_id = c.id AND x.kind IN ('sign-off', 'recommendation', 'part-sign-off', 'correction') AND instr(x.canonical, '"' || e.subject_id || '"') > 0)
       ORDER BY e.received_at, e.subject_id`,
  row: {
    id: CaptureEvents.columns.subjectId,
    number: Landings.columns.number.nullable(),
    item: text.nullable(),
    lesson: Sorties.columns.lesson,
    deviceTime: CaptureEvents.columns.deviceTime,
    receivedAt: CaptureEvents.columns.receivedAt,
  },
});

export const verifyCode = statement('ledger.verifyCode', {
  params: ['id'],
  sql: `SELECT seq, kind, canonical FROM ledger WHERE kind IN ('void', 'correction', 'test-result') AND json_extract(canonical, '$.body.of.id') = :id ORDER BY seq`,
  row: { seq: LedgerEntries.columns.seq, kind: LedgerEntries.columns.kind, canonical: LedgerEntries.columns.canonical },
});

export const verifyFile = statement('ledger.verifyFile', {
  params: [],
  sql: `SELECT COUNT(*) AS n FROM ledger`,
  row: { n: real },
});

/** Entries as a page of the ledger filters them; a filter that is not set is null. */
const page = (
  select: string,
  rest = '',
) => `SELECT ${select} FROM signed_entries l LEFT JOIN checkouts c ON c.id = l.checkout_id LEFT JOIN airframes a ON a.id = c.airframe_id LEFT JOIN types ty ON ty.id = a.type_id LEFT JOIN users u ON u.id = l.signer_id
     WHERE (:own IS NULL OR c.pilot_id = :own) AND (:id IS NULL OR l.id = :id) AND (:kind IS NULL OR l.kind = :kind) AND (:checkoutId IS NULL OR l.checkout_id = :checkoutId) AND (:pilotId IS NULL OR c.pilot_id = :pilotId)
       AND (:from IS NULL OR l.signed_on >= :from) AND (:to IS NULL OR l.signed_on <= :to)
       AND (:q IS NULL OR json_extract(l.canonical, '$.body.pilot.name') LIKE :like ESCAPE '!' OR json_extract(l.canonical, '$.body.signer.name') LIKE :like ESCAPE '!' OR json_extract(l.canonical, '$.body.goals') LIKE :like ESCAPE '!' OR a.registration LIKE :like ESCAPE '!' OR ty.name LIKE :like ESCAPE '!' OR l.hash LIKE :start ESCAPE '!' OR CAST(l.seq AS TEXT) = :q) ${rest}`;
const FILTERS = ['own', 'id', 'kind', 'checkoutId', 'pilotId', 'from', 'to', 'q', 'like', 'start'] as const;
export const ledgerCount = statement('ledger.ledgerCount', {
  params: FILTERS,
  sql: page('COUNT(*) AS n'),
  row: { n: whole },
});
export const ledgerPage = statement('ledger.ledgerPage', {
  params: [...FILTERS, 'limit', 'offset'],
  sql: page(
    'l.seq, l.id, l.kind, l.checkout_id, c.pilot_id, l.signer_id, l.signed_at, l.hash, l.canonical, a.registration, ty.name AS type_name, u.name AS signer_name',
    'ORDER BY l.seq DESC LIMIT :limit OFFSET :offset',
  ),
  row: {
    seq: whole,
    id: text,
    kind: z.enum(ENTRY_KINDS),
    checkoutId: text,
    pilotId: text.nullable(),
    signerId: text,
    signedAt: instant,
    hash: text,
    canonical: text,
    registration: text.nullable(),
    typeName: text.nullable(),
    signerName: text.nullable(),
  },
});

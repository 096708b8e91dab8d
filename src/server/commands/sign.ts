import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { type SigningFacts, type SigningProblem, signingProblems } from '@/core/assess';
import type { LedgerRow } from '@/core/ledger';
import { passwordFits } from '../auth/password';
import { failedTry, forgetTries, waitSeconds } from '../auth/limiter';
import { type CurrentUser, may } from '../auth/permissions';
import { nowIso } from '../clock';
import { row, rows } from '../db/connection';
import { model } from '../db/models';
import { write } from '../db/write';
import { appendEntry, publishHead } from '../ledger/book';
import { type Result, problem, zodProblems } from '../result';
import { type CheckoutRecord, checkoutHead, checkoutRecord } from '../queries/checkout';

export const SignForm = z.object({
  checkoutId: z.string().min(1),
  password: z.string().min(1, 'Type your password to sign.'),
  limitations: z.object({
    alone: z.boolean(),
    noPassengers: z.boolean(),
    crosswindKt: z.number('Give whole knots, or leave it empty.').min(0).max(60, 'At most 60 kt.').nullable(),
    attitude: z.enum(['any', 'three-point', 'mains-first']),
    surface: z.enum(['any', 'asphalt', 'grass']),
    untilHours: z.number('Give hours, or leave it empty.').min(0).max(500, 'At most 500 h.').nullable(),
  }),
  remark: z.string().max(1000, 'Keep the remark under 1000 characters.'),
});
export type SignForm = z.infer<typeof SignForm>;

/** What stands between this user and the signature, now. */
export async function signingState(user: CurrentUser, record: CheckoutRecord, t?: Transaction): Promise<SigningProblem[]> {
  const { head } = record;
  const flown = await row<{ last: string | null }>(
    `SELECT MAX(l.flown_on) AS last FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = l.checkout_id JOIN airframes a ON a.id = c.airframe_id
     WHERE l.pilot_id = :pilotId AND s.instructor_id = :userId AND a.type_id = (SELECT a2.type_id FROM airframes a2 JOIN checkouts c2 ON c2.airframe_id = a2.id WHERE c2.id = :id)`,
    { pilotId: head.pilotId, userId: user.id, id: head.id }, t,
  );
  const withLandings = new Set(record.landings.map((l) => l.sortieId));
  const examiner = head.goals.some((g) => record.pack.goals.find((x) => x.goal === g)?.decides === 'examiner');
  const facts: SigningFacts = {
    authorised: head.goals.every((g) => user.authorised.includes(g)),
    ownCheckout: user.pilotId === head.pilotId,
    goalDecidedBy: examiner ? 'examiner' : 'instructor',
    lastFlownTogether: flown?.last ?? null,
    onDate: nowIso(),
    withinDays: record.house.signWithinDays,
    // A lesson flown in another pilot's flight has no brief of its own to acknowledge.
    unacknowledgedLessons: record.sorties.filter((s) => withLandings.has(s.id) && (s.brief ? !s.brief.acknowledgedAt : s.sharedWith === null)).map((s) => s.lesson),
    unsentOrOpen: 0,
  };
  return signingProblems(record.items, record.evidence, facts);
}

/**
 * Signs a checkout: the password again, every item met, one entry in the book. A second tab or a double tap gets the same entry.
 */
export async function signCheckout(user: CurrentUser, form: unknown): Promise<Result<{ entryId: string; already: boolean }>> {
  const parsed = SignForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  const first = await checkoutHead(data.checkoutId);
  if (!first || !may.signCheckout(user, first)) return problem('', 'There is no such checkout for you to sign.');
  const key = `sign:${user.id}`;
  const wait = await waitSeconds(key);
  if (wait > 0) return problem('password', `Too many tries. Wait ${wait} s, then type it again.`);
  const stored = await row<{ password_hash: string }>('SELECT password_hash FROM users WHERE id = :id', { id: user.id });
  if (!(await passwordFits(data.password, stored?.password_hash ?? null))) {
    await failedTry(key);
    return problem('password', 'This is not your password. Type it again; nothing was signed.');
  }
  await forgetTries(key);
  const outcome = await write(async (t): Promise<Result<{ entryId: string; already: boolean }>> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head) return problem('', 'There is no such checkout for you to sign.');
    if (head.status === 'signed' && head.signedLedgerId) return { ok: true, entryId: head.signedLedgerId, already: true };
    const record = await checkoutRecord(head, t);
    const open = await signingState(user, record, t);
    if (open.length > 0) return { ok: false, problems: open.map((p) => ({ path: '', message: p.message })) };
    const entry = await appendEntry({ id: randomUUID(), kind: 'sign-off', checkoutId: head.id, signedAt: nowIso(), signerId: user.id, body: snapshot(user, record, data) }, t);
    await model('checkouts').update({ status: 'signed', signed_ledger_id: entry.id }, { where: { id: head.id }, transaction: t });
    await grantQualifications(record, entry, t);
    return { ok: true, entryId: entry.id, already: false };
  });
  if (outcome.ok) await publishHead(nowIso());
  return outcome;
}

/** The full snapshot: who, which aeroplane and versions, every item with its evidence, the landings that support it. */
function snapshot(user: CurrentUser, record: CheckoutRecord, data: SignForm) {
  const { head, standard, pack } = record;
  const used = new Set(record.items.flatMap((i) => i.evidence));
  return {
    pilot: { id: head.pilotId, name: head.pilotName },
    signer: { id: user.id, name: user.name },
    airframe: { registration: head.registration, type: head.typeName, typeVersion: head.typeVersion, airframeVersion: head.airframeVersion },
    goals: head.goals,
    rules: { pack: pack.key, name: pack.name, citations: pack.goals.filter((g) => head.goals.includes(g.goal)).map((g) => ({ goal: g.goal, citation: g.citation, written: g.written, decides: g.decides })) },
    programmes: head.programmeIds,
    standard: { id: head.standardId, name: standard.name },
    schools: head.schools,
    items: record.items.map((i) => ({ id: i.item.id, title: i.item.title, citation: i.item.citation, have: i.have, waived: i.waived, evidence: i.evidence })),
    landings: record.landings.filter((l) => used.has(l.id)).map((l) => ({ id: l.id, lesson: l.lesson, number: l.number, date: l.date, kind: l.kind, intended: l.intended, class: l.judged.landingClass, ...(l.judged.overruled || l.judged.criteria.some((c) => c.overruled) ? { overruled: true } : {}), crosswindKt: l.crosswindKt === null ? null : Math.round(l.crosswindKt * 10) / 10 })),
    observations: record.evidence.observations.filter((o) => used.has(o.id)).map((o) => ({ id: o.id, lesson: o.lesson, itemId: o.data.itemId, verdict: o.data.verdict, intervention: o.data.intervention, note: o.data.note })),
    counts: { lessons: record.sorties.length, landings: record.landings.length, own: record.landings.filter((l) => l.judged.landingClass === 'own').length },
    limitations: data.limitations,
    remark: data.remark,
  };
}
export type SignOffBody = ReturnType<typeof snapshot>;

async function grantQualifications(record: CheckoutRecord, entry: LedgerRow, t: Transaction): Promise<void> {
  const { head, pack } = record;
  const kinds = Object.entries(pack.endorsementGoals).filter(([kind, goal]) => head.goals.includes(goal as never) && head.opening.missing.includes(kind)).map(([kind]) => kind);
  const held = await rows<{ kind: string }>('SELECT kind FROM qualifications WHERE pilot_id = :p', { p: head.pilotId }, t);
  for (const kind of kinds.filter((k) => !held.some((h) => h.kind === k))) {
    await model('qualifications').create({ id: randomUUID(), pilot_id: head.pilotId, kind, gained_on: entry.signedAt.slice(0, 10), note: 'signed in this book', ledger_id: entry.id }, { transaction: t });
  }
}


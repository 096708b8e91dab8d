import {
  asFlown,
  assertedIn,
  countFlown,
  fillTemplate,
  type ItemEvidence,
  itemEvidenceWords,
  openWords,
  type OverrideWish,
  signerProblems,
  SIGNING_WORDS,
  type SigningFacts,
  type SigningProblem,
  signingProblems,
} from '@/core/assess';
import { dateText, list } from '@/core/format';
import { canonicalText, type LedgerRow } from '@/core/ledger';
import { demandsOf, FACT_WORDS, goalFor, sheetFacts, variantKind } from '@/core/plan';
import { validThrough } from '@/core/recency';
import { OverrideAnswerForm, OverrideForm } from '@/domain/forms';
import type { Limitations } from '@/domain/ledger';
import { type SignOffBody } from '@/domain/ledger';
import type { PackGoal } from '@/domain/programme';
import { type Goal, LIMIT_NAME, type LimitChannel, say } from '@/domain/words';
import { createHash, randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { NotYetForm, PartForm, SignForm } from '@/domain/sign-forms';
import { checkoutHead } from '../../checkout/queries/head';
import { type CheckoutRecord, readCheckoutRecord } from '../../checkout/queries/record';
import { stopsShown } from '../../checkout/queries/stop-shown';
import { Checkouts } from '../../checkout/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, problemAt, type Result, zodProblems } from '../../floor/result';
import { asTold } from '../../floor/sentences';
import * as ask from '../../floor/statements/ledger';
import { write } from '../../floor/write';
import { classNamesFlown, courseStart } from '../../people/queries/held';
import { prerequisitesOf, teachState } from '../../people/queries/recency';
import { PersonDates, Qualifications } from '../../people/tables';
import { homeAerodrome } from '../../rules/content';
import { localToday } from '../../rules/today';
import { inDial } from '../../traces/queries/traces';
import { type Added, addEntry, madeBefore } from '../add';
import { appendEntry } from '../entries';
import { told } from '../sentences';
import { OverrideAnswers, SignOverrides } from '../tables';

export interface Override extends OverrideWish {
  id: string;
  askedBy: string;
  askedById: string;
  askedAt: string;
  answer: 'approved' | 'declined' | 'withdrawn' | null;
  answeredBy: string | null;
  answerReason: string | null;
  needsChief: boolean;
}

/**
 * Overrides asked for on a checkout, the newest wish of an item; those withdrawn or declined are left out unless `all`.
 */
export async function overridesOf(
  record: Pick<CheckoutRecord, 'head' | 'house' | 'items'>,
  t?: Transaction,
  all = false,
): Promise<Override[]> {
  const found = await ask.overridesOf.all({ id: record.head.id }, t);
  const closed = await ask.overridesOfLedgerEntries.one({ id: record.head.id }, t);
  const newest = new Map<string, (typeof found)[number]>();
  // What was asked for one entry does not carry over to the next, after a void or a test that was not passed.
  for (const o of found) if (all || o.afterEntry >= (closed?.seq ?? 0)) newest.set(o.itemId, o);
  const rule = record.house.signing.overrideNeedsChief;
  return [...newest.values()]
    .map((o): Override => {
      const item = record.items.find((i) => i.item.id === o.itemId)?.item;
      const legal = item?.legal === true;
      const needsChief = rule === 'always' || (rule === 'safety' && item?.safety !== false);
      return {
        id: o.id,
        itemId: o.itemId,
        reason: o.reason,
        askedBy: o.askedName,
        askedById: o.askedBy,
        askedAt: o.askedAt,
        answer: o.answer,
        answeredBy: o.answeredName,
        answerReason: o.answerReason,
        needsChief,
        approved: !legal && (o.answer === 'approved' || (o.answer === null && !needsChief)),
      };
    })
    .filter((o) => all || (o.answer !== 'declined' && o.answer !== 'withdrawn'));
}

/** Asks to sign an item without its evidence. The reason is printed on the sign-off. */
export async function askOverride(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = OverrideForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { checkoutId, itemId, reason } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const head = await checkoutHead(checkoutId, t);
    if (!head || !may.askOverride(user, head) || head.status !== 'open') return problem('', told('not-found'));
    const record = await readCheckoutRecord(head, t);
    const entry = record.items.find((i) => i.item.id === itemId);
    if (!entry || entry.met) return problem('itemId', told('nothing-to-override'));
    if (entry.refused) return problem('itemId', told('refused-not-overridden'));
    if (entry.item.legal) return problem('itemId', told('legal-not-overridden', { citation: entry.item.citation }));
    if (entry.item.safety && !entry.seen) return problem('itemId', told('unseen-not-overridden'));
    const standing = (await overridesOf(record, t)).find((o) => o.itemId === itemId);
    if (standing) return problem('itemId', told('overridden-already'));
    const last = await ask.askOverride.one({ id: checkoutId }, t);
    const newest = await ask.askOverrideLedgerEntries.one({}, t);
    const id = randomUUID();
    await SignOverrides.insert(
      {
        afterEntry: newest?.seq ?? 0,
        id,
        checkoutId: checkoutId,
        itemId: itemId,
        reason,
        askedBy: user.id,
        askedAt: nowIso(),
        seq: (last?.n ?? 0) + 1,
      },
      t,
    );
    // A chief who asks has said yes.
    if (may.answerOverride(user, head))
      await OverrideAnswers.insert(
        {
          id: randomUUID(),
          overrideId: id,
          answer: 'approved',
          reason: 'asked by the chief instructor',
          answeredBy: user.id,
          answeredAt: nowIso(),
        },
        t,
      );
    return { ok: true };
  });
}

/** A chief's yes or no to an override; who asked may withdraw it. */
export async function answerOverride(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = OverrideAnswerForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { overrideId, answer, reason } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const wish = await ask.answerOverride.one({ id: overrideId }, t);
    const allowed =
      wish &&
      (answer === 'withdrawn'
        ? wish.askedBy === user.id && may.askOverride(user, { pilotId: wish.pilotId })
        : may.answerOverride(user, { pilotId: wish.pilotId }));
    if (!wish || !allowed || wish.status !== 'open') return problem('', told('not-found'));
    if (answer === 'declined' && reason.length < 5) return problem('reason', told('why-not'));
    if (wish.answered) return problem('', told('answered-already'));
    await OverrideAnswers.insert(
      { id: randomUUID(), overrideId: overrideId, answer, reason, answeredBy: user.id, answeredAt: nowIso() },
      t,
    );
    return { ok: true };
  });
}

export interface SigningView {
  problems: SigningProblem[];
  overrides: Override[];
  prerequisites: { text: string; met: boolean | null; confirm: boolean }[];
  stamp: string;
  text: string;
  recommends: Goal[];
  /** Last day of the recommendation, and of the test where the law counts from the start of the course. */
  validThrough: string | null;
  courseUntil: string | null;
  /** Last training of this checkout, from which a recommendation may be counted. */
  trainedOn: string | null;
  today: string;
  partDays: number;
  facts: SigningFacts;
}
const goalsOf = (record: CheckoutRecord): PackGoal[] =>
  record.head.goals.flatMap((g) => record.pack.goals.find((x) => x.goal === g) ?? []);

/** What stands between this user and the signature, now, and what would be signed. */
export async function signingState(user: CurrentUser, record: CheckoutRecord, t?: Transaction): Promise<SigningView> {
  const { head, house } = record;
  const today = await localToday(t);
  const flown = await ask.signingState.one({ pilotId: head.pilotId, userId: user.id, id: head.id }, t);
  const limits = await ask.signingStateExceedances.all({ pilotId: head.pilotId }, t);
  const teach = await teachState(user, { sheet: head.sheet, pack: record.pack, house, goals: head.goals }, today, t);
  const goals = goalsOf(record);
  const overrides = await overridesOf(record, t);
  const prerequisites = await prerequisitesOf(head.pilotId, goals, t);
  const facts: SigningFacts = {
    authorised: head.goals.every((g) => user.authorised.includes(g)),
    ownCheckout: user.pilotId === head.pilotId,
    lastFlownTogether: flown?.last ?? null,
    onDate: today,
    withinDays: house.signWithinDays,
    certificateUntil: teach.certificateUntil,
    signerLacks: teach.lacks,
    ratings: teach.ratings,
    modelHours: teach.modelHours,
    notRecent: teach.notRecent,
    openLimits: limits.map((l) => ({ traceId: l.traceId, what: limitWords(l), flownOn: l.flownOn })),
    overrides,
    stops: stopsShown(record).map((s) => ({ name: s.name, words: s.words, explained: s.reason !== null })),
    prerequisites,
    reviewWithout: head.goals.includes('flight-review')
      ? head.opening.missing.filter((k) => head.opening.demands.classRatings?.includes(k))
      : [],
    // A checkout opened on a sheet that left something open may have been moved to one that says it.
    sheetOpen:
      head.opening.demands.unknown.length === 0
        ? []
        : demandsOf(sheetFacts(head.sheet), record.pack.key, head.typeCode).unknown.map((k) => FACT_WORDS[k] ?? k),
  };
  const trained = lastTraining(record);
  const started = await courseStart(head.id, t);
  const recommends = goals.filter((g) => g.decides === 'examiner').map((g) => g.goal);
  const recommendation = goals.find((g) => g.recommendation)?.recommendation ?? null;
  return {
    problems: signingProblems(record.items, record.evidence, facts),
    overrides,
    prerequisites,
    stamp: stampOf(record, overrides, facts),
    text: signText(user, record, goals, today),
    recommends,
    // Counted from the last training there is nothing to count while nothing was flown.
    validThrough:
      recommendation && (recommendation.from === 'signature' || trained !== null)
        ? validThrough(recommendation.from === 'last-training' ? (trained ?? today) : today, {
            days: null,
            months: recommendation.validMonths,
            monthEnd: recommendation.monthEnd,
          })
        : null,
    courseUntil:
      recommendation?.courseMonths && started
        ? validThrough(started, { days: null, months: recommendation.courseMonths, monthEnd: false })
        : null,
    trainedOn: trained,
    today,
    partDays: house.signing.partDays,
    facts,
  };
}

/** A limit passed, in the unit of the dial. */
function limitWords(l: {
  channel: LimitChannel;
  limitValue: number | null;
  peak: number | null;
  unit: string;
  dial: 'kt' | 'mph';
}): string {
  if (l.limitValue === null || l.peak === null) return `${LIMIT_NAME[l.channel]}, seen by eye`;
  const { limit, peak, unit } = inDial(l.limitValue, l.peak, l.unit, l.dial);
  return `${LIMIT_NAME[l.channel]} ${limit} ${unit}, ${Math.round(peak * 10) / 10} ${unit} reached`;
}

/** Everything a signer has before their eyes, as one hash: what changes it makes the page stale. */
function stampOf(record: CheckoutRecord, overrides: readonly Override[], facts: SigningFacts): string {
  const { head } = record;
  const seen = {
    checkout: head.id,
    status: head.status,
    airframe: head.airframeVersionId,
    type: head.typeVersionId,
    programmes: head.programmeIds,
    standard: head.standardId,
    pack: head.packId,
    house: head.houseId,
    schools: head.schools,
    goals: head.goals,
    items: record.items.map((i) => [i.item.id, i.state, i.have, i.evidence, i.missing]),
    landings: record.landings.map((l) => [l.id, l.judged.landingClass, l.date]),
    observations: record.evidence.observations.map((o) => [o.id, o.data.verdict, o.data.intervention]),
    overrides: overrides.map((o) => [o.id, o.approved]),
    day: facts.onDate,
    limits: facts.openLimits.map((l) => l.traceId ?? l.what),
    stops: facts.stops,
  };
  return createHash('sha256').update(canonicalText(seen)).digest('hex');
}

/** The entry as the pack words it, filled in. */
function signText(user: CurrentUser, record: CheckoutRecord, goals: readonly PackGoal[], today: string): string {
  const { head } = record;
  const certificate = record.pilotCertificate;
  const trained = lastTraining(record);
  const wheel = record.items.find((i) => i.item.id === 'F5');
  const filled = (g: PackGoal) =>
    fillTemplate(
      g.template === '' ? `${g.title}: {pilot} in {type} {registration}. {date}. {instructor}.` : g.template,
      {
        pilot: head.pilotName,
        pilotCertificate: certificate === '' ? null : certificate,
        type: head.typeName,
        registration: head.registration,
        goal: g.title,
        exactClass:
          // The class this goal gives, and no other that is missing too.
          list(
            head.opening.missing
              .filter(
                (k) => head.opening.demands.classRatings?.includes(k) && record.pack.endorsementGoals[k] === g.goal,
              )
              .map(say),
          ) || g.title,
        date: dateText(today),
        trainedOn: trained === null ? null : dateText(trained),
        instructor: user.name,
        instructorCertificate: user.certificate === '' ? null : user.certificate,
        recentUntil: user.certificateUntil === null ? null : dateText(user.certificateUntil),
        wheelLandings: wheel?.waived ? `wheel landings excepted (${wheel.waived})` : 'wheel landings',
        variants:
          list(
            record.head.opening.missing
              .filter((k) => goalFor(k, record.head.opening.missing, record.pack) === g.goal)
              .map(say),
          ) || g.title,
      },
    ).text;
  // What was not shown is said: a signed text certifies nothing else.
  const over = record.items.filter((i) => !i.met);
  const waived = record.items.filter((i) => i.waived !== null && i.item.id !== 'F5');
  return [
    ...goals.map(filled),
    ...(over.length > 0
      ? [`Signed without the school’s evidence of ${list(over.map((i) => i.item.title.toLowerCase()))}.`]
      : []),
    ...waived.map((i) => `${i.item.title} waived: ${i.waived ?? ''}`),
  ].join('\n');
}

/** The last day on which something was flown or shown in a checkout; null = nothing was. */
const lastTraining = (record: Pick<CheckoutRecord, 'landings' | 'evidence'>): string | null =>
  [...record.landings.map((l) => l.date), ...record.evidence.observations.map((o) => o.date)].sort().at(-1) ?? null;

const stale = () => problem('', told('changed-since'));

/**
 * Signs a checkout: the password again, every item met, waived, credited or overridden, one entry in the ledger. A second
 * tab or a double tap gets the same entry. Where an examiner decides, the entry is a recommendation and the checkout
 * waits for the result.
 */
export async function signCheckout(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = SignForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  const first = await checkoutHead(data.checkoutId);
  if (!first || !may.signCheckout(user, first)) return problem('', told('not-found'));
  const open = openWords(data.text);
  if (open.length > 0) return problem('text', told('fill-in', { words: list(open.map((w) => `{${w}}`)) }));
  return addEntry(user, data.password, async (t): Promise<Added> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head || !may.signCheckout(user, head)) return problem('', told('not-found'));
    if (head.status !== 'open' && head.signedLedgerId) return { ok: true, entryId: head.signedLedgerId, already: true };
    const record = await readCheckoutRecord(head, t);
    const state = await signingState(user, record, t);
    if (state.problems.length > 0)
      return { ok: false, problems: state.problems.map((p) => problemAt('', asTold(SIGNING_WORDS, p))) };
    if (state.stamp !== data.shown) return stale();
    const waits = state.recommends.length > 0;
    const kind = waits && state.recommends.length === head.goals.length ? 'recommendation' : 'sign-off';
    const body: SignOffBody = {
      ...(await snapshot(user, record, record.items, state, t)),
      limitations: data.limitations,
      remark: data.remark,
      text: data.text,
      signature: data.signature,
      validThrough: waits ? state.validThrough : null,
      ...(waits ? { courseUntil: state.courseUntil, trainedOn: state.trainedOn } : {}),
      recommends: state.recommends,
    };
    const entry = await appendEntry(
      { id: randomUUID(), kind, checkoutId: head.id, signedAt: nowIso(), signerId: user.id, body },
      t,
    );
    await Checkouts.update({ status: waits ? 'recommended' : 'signed', signedLedgerId: entry.id }, { id: head.id }, t);
    await grantQualifications(
      record,
      head.goals.filter((g) => !state.recommends.includes(g)),
      entry,
      state.today,
      t,
    );
    await renewDates(
      record,
      head.goals.filter((g) => !state.recommends.includes(g)),
      entry,
      user,
      state.today,
      t,
    );
    return { ok: true, entryId: entry.id, already: false };
  });
}

/**
 * Signs some items before the rest, so that different instructors can complete one checkout. Holds for the house's
 * days.
 */
export async function signPart(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = PartForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  return addSigned(user, data, 'part-sign-off', async (record, state) => {
    const chosen = record.items.filter((i) => data.items.includes(i.item.id));
    if (chosen.length !== new Set(data.items).size) return problem('items', told('item-unknown'));
    const missing = chosen.filter((i) => i.state !== 'met' || i.part !== null);
    if (missing.length > 0)
      return problem('items', told('only-met-in-part', { ids: list(missing.map((i) => i.item.id)) }));
    const lacking = signerProblems(state.facts);
    return lacking.length > 0
      ? { ok: false, problems: lacking.map((p) => problemAt('', asTold(SIGNING_WORDS, p))) }
      : { ok: true, items: chosen, text: data.text };
  });
}

/** Records that the pilot is not there yet and what is to be trained. The checkout stays open. */
export async function signNotYet(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = NotYetForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  return addSigned(user, data, 'not-yet', async (record, state) => {
    if (!state.facts.authorised) return problem('', told('not-authorised'));
    const named = data.items
      ? record.items.filter((i) => data.items?.includes(i.item.id))
      : record.items.filter((i) => !i.met);
    if (data.items && named.length !== new Set(data.items).size) return problem('items', told('item-unknown'));
    return { ok: true, items: named, text: data.text };
  });
}

const NO_LIMITS: Limitations = {
  alone: false,
  noPassengers: false,
  crosswindKt: null,
  attitude: 'any',
  surface: 'any',
  untilHours: null,
};
type Chosen = Result<{ items: readonly ItemEvidence[]; text: string }>;
/** An entry that leaves the checkout open. The same request twice gives the same entry. */
async function addSigned(
  user: CurrentUser,
  data: { requestId: string; checkoutId: string; shown: string; password: string; remark?: string },
  kind: 'part-sign-off' | 'not-yet',
  choose: (record: CheckoutRecord, state: SigningView) => Promise<Chosen>,
): Promise<Added> {
  const first = await checkoutHead(data.checkoutId);
  if (!first || !may.signCheckout(user, first)) return problem('', told('not-found'));
  return addEntry(user, data.password, async (t): Promise<Added> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head || !may.signCheckout(user, head)) return problem('', told('not-found'));
    const before = await madeBefore(user, data.requestId, { kind, checkoutId: head.id }, t);
    if (before) return before;
    if (head.status !== 'open') return problem('', told('signed-already'));
    const record = await readCheckoutRecord(head, t);
    const state = await signingState(user, record, t);
    if (state.stamp !== data.shown) return stale();
    const chosen = await choose(record, state);
    if (!chosen.ok) return chosen;
    const body: SignOffBody = {
      ...(await snapshot(user, record, chosen.items, state, t)),
      limitations: NO_LIMITS,
      remark: data.remark ?? '',
      text: chosen.text,
      signature: null,
    };
    const entry = await appendEntry(
      { id: data.requestId, kind, checkoutId: head.id, signedAt: nowIso(), signerId: user.id, body },
      t,
    );
    return { ok: true, entryId: entry.id, already: false };
  });
}

/** The full snapshot: who, which aeroplane and versions, every item with its evidence, the landings that support it. */
async function snapshot(
  user: CurrentUser,
  record: CheckoutRecord,
  items: readonly ItemEvidence[],
  state: SigningView,
  t: Transaction,
): Promise<Omit<SignOffBody, 'limitations' | 'remark' | 'text' | 'signature'>> {
  const { head, standard, pack } = record;
  const used = new Set(items.flatMap((i) => i.evidence));
  return {
    pilot: { id: head.pilotId, name: head.pilotName, certificate: record.pilotCertificate },
    signer: { id: user.id, name: user.name, certificate: user.certificate, certificateUntil: user.certificateUntil },
    airframe: {
      registration: head.registration,
      type: head.typeName,
      typeVersion: head.typeVersion,
      airframeVersion: head.airframeVersion,
    },
    goals: head.goals,
    rules: {
      pack: pack.key,
      name: pack.name,
      caution: pack.caution,
      citations: pack.goals
        .filter((g) => head.goals.includes(g.goal))
        .map((g) => ({
          goal: g.goal,
          title: g.title,
          citation: g.citation,
          written: g.written,
          decides: g.decides,
          confirm: g.confirm,
        })),
    },
    ...(record.stops.length > 0
      ? { stops: stopsShown(record).map(({ name, code, words, reason }) => ({ name, code, words, reason })) }
      : {}),
    programmes: head.programmeIds,
    standard: { id: head.standardId, name: standard.name },
    schools: head.schools,
    items: items.map((i) => {
      const o = state.overrides.find((x) => x.itemId === i.item.id && x.approved);
      return {
        id: i.item.id,
        title: i.item.title,
        citation: i.item.citation,
        safety: i.item.safety,
        state: i.met ? i.state : o ? 'overridden' : i.state,
        ...itemEvidenceWords(i),
        waived: i.waived,
        overridden: o && !i.met ? { reason: o.reason, askedBy: o.askedBy, approvedBy: o.answeredBy } : null,
        evidence: i.evidence,
      };
    }),
    landings: record.landings
      .filter((l) => used.has(l.id))
      .map((l) => ({
        id: l.id,
        lesson: l.lesson,
        number: l.number,
        date: l.date,
        kind: l.kind,
        intended: l.intended,
        class: l.judged.landingClass,
        surface: l.surface ?? 'land',
        ...(l.judged.overruled || l.judged.criteria.some((c) => c.overruled) ? { overruled: true } : {}),
        ...(assertedIn(l.judged).length > 0 ? { asserted: assertedIn(l.judged) } : {}),
        // A wind older than ten minutes is none of this landing.
        crosswindKt: countedWind(record, l.id),
      })),
    observations: record.evidence.observations
      .filter((o) => used.has(o.id))
      .map((o) => ({
        id: o.id,
        lesson: o.lesson,
        itemId: o.data.itemId,
        verdict: o.data.verdict,
        intervention: o.data.intervention,
        note: o.data.note,
      })),
    counts: {
      lessons: record.sorties.length,
      ...countFlown(record.landings.map(asFlown)),
      own: record.landings.filter((l) => l.judged.landingClass === 'own').length,
    },
    signedOn: state.today,
    timeZone: (await homeAerodrome(t)).timeZone,
  };
}

const countedWind = (record: CheckoutRecord, id: string): number | null => {
  const kt = record.evidence.landings.find((l) => l.id === id)?.crosswindKt ?? null;
  return kt === null ? null : Math.round(kt * 10) / 10;
};

/**
 * Dated rules that a passed result or a signature renews, as entered on the person by this entry: they end with it. The
 * pilot's own newer word stands where it is newer.
 */
export async function renewDates(
  record: Pick<CheckoutRecord, 'head' | 'pack'>,
  goals: readonly Goal[],
  entry: Pick<LedgerRow, 'id'>,
  by: CurrentUser,
  on: string,
  t: Transaction,
): Promise<void> {
  const { head, pack } = record;
  const ids = new Set(pack.goals.filter((g) => goals.includes(g.goal)).flatMap((g) => g.renews));
  const classes = classNamesFlown(head.sheet, 'any');
  for (const rule of pack.dated.filter((d) => ids.has(d.id) && (d.of === null || classes.includes(d.of)))) {
    const newest = await ask.renewDates.one({ p: head.pilotId, key: rule.id }, t);
    await PersonDates.insert(
      {
        id: randomUUID(),
        pilotId: head.pilotId,
        key: rule.id,
        title: rule.title,
        doneOn: on,
        until: null,
        note: 'by a sign-off of this ledger',
        enteredBy: by.id,
        enteredAt: nowIso(),
        seq: (newest?.seq ?? 0) + 1,
        ledgerId: entry.id,
      },
      t,
    );
  }
}

/** What the signed goals give the pilot: the kinds missing when the checkout was opened. */
export async function grantQualifications(
  record: Pick<CheckoutRecord, 'head' | 'pack'>,
  goals: readonly Goal[],
  entry: Pick<LedgerRow, 'id'>,
  on: string,
  t: Transaction,
): Promise<void> {
  const { head, pack } = record;
  const kinds = head.opening.missing
    .filter((kind) => goals.includes(goalFor(kind, head.opening.missing, pack) as Goal))
    .map((kind) => variantKind(kind, head.typeCode));
  const held = await Qualifications.find({ where: { pilotId: head.pilotId, endedAt: null }, pick: ['kind'] }, t);
  for (const kind of kinds.filter((k) => !held.some((h) => h.kind === k))) {
    await Qualifications.insert(
      {
        id: randomUUID(),
        pilotId: head.pilotId,
        kind,
        gainedOn: on,
        note: 'signed in this ledger',
        ledgerId: entry.id,
        endedAt: null,
      },
      t,
    );
  }
}

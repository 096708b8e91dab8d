import { dateText } from '@/core/format';
import { type LaterBody, VOIDABLE } from '@/domain/ledger';
import type { Transaction } from 'sequelize';
import { CorrectionForm, ResultForm, VoidForm } from '@/domain/ledger-forms';
import { checkoutHead } from '../../checkout/queries/head';
import { readCheckoutRecord } from '../../checkout/queries/record';
import { Checkouts } from '../../checkout/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { NOT_FOUND, problem, type Result, zodProblems } from '../../floor/result';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/ledger';
import { Qualifications } from '../../people/tables';
import { homeAerodrome } from '../../rules/content';
import { localToday } from '../../rules/today';
import { type Added, addEntry, madeBefore } from '../add';
import { bodyOf } from '../body';
import { appendEntry } from '../entries';
import { lateOf } from '../queries/late';
import { told } from '../sentences';
import { grantQualifications, renewDates } from './sign';

type Target = RowOf<typeof ask.targetOf>;
const targetOf = (id: string, t?: Transaction): Promise<Target | null> => ask.targetOf.one({ id }, t);

/** A later entry about an earlier one. The same request twice gives the same entry. */
async function addLater(
  user: CurrentUser,
  kind: 'void' | 'correction',
  data: { requestId: string; entryId: string; password: string; text: string },
  allowed: (target: Target) => boolean,
  act: (target: Target, t: Transaction) => Promise<Result<object>>,
): Promise<Added> {
  const nothing = problem('', NOT_FOUND);
  const first = await targetOf(data.entryId);
  if (!first || first.pilotId === null || !allowed(first)) return nothing;
  return addEntry(user, data.password, async (t): Promise<Added> => {
    const target = await targetOf(data.entryId, t);
    if (!target || !allowed(target)) return nothing;
    const before = await madeBefore(user, data.requestId, { kind, checkoutId: target.checkoutId, of: target.id }, t);
    if (before) return before;
    const { pilot, goals } = bodyOf(target);
    const done = await act(target, t);
    if (!done.ok) return done;
    const late = kind === 'correction' ? await lateOf(target.checkoutId, t) : [];
    const body: LaterBody = {
      pilot: { id: pilot.id, name: pilot.name },
      signer: { id: user.id, name: user.name },
      of: { id: target.id, seq: target.seq, hash: target.hash, kind: target.kind },
      goals,
      signedOn: await localToday(t),
      timeZone: (await homeAerodrome(t)).timeZone,
      text: data.text,
      ...(late.length > 0 ? { late: late.map(({ receivedAt: _received, ...l }) => l) } : {}),
    };
    await appendEntry(
      { id: data.requestId, kind, checkoutId: target.checkoutId, signedAt: nowIso(), signerId: user.id, body },
      t,
    );
    return { ok: true, entryId: data.requestId, already: false };
  });
}

/**
 * Voids an entry by a further one. What it gave the pilot ends; the checkout is open again, or waits again for its
 * result. The entry itself stays.
 */
export async function voidEntry(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = VoidForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  return addLater(
    user,
    'void',
    parsed.data,
    (x) => may.voidEntry(user, { pilotId: x.pilotId ?? '' }),
    async (target, t) => {
      if (!VOIDABLE.includes(target.kind)) return problem('', told('not-voided'));
      if (target.voided) return problem('', told('void-already'));
      const head = await Checkouts.first({ where: { id: target.checkoutId }, pick: ['signedLedgerId', 'status'] }, t);
      const result = await ask.voidEntry.one({ id: target.id }, t);
      if (result) return problem('', told('result-rests'));
      const at = nowIso();
      await Qualifications.update({ endedAt: at }, { ledgerId: target.id, endedAt: null }, t);
      if (target.kind === 'test-result') {
        const of = bodyOf(target).of;
        const waits = await targetOf(of.id, t);
        // Only where the checkout still stands as this result left it.
        if (head?.signedLedgerId === of.id || (head?.status === 'open' && head.signedLedgerId === null))
          await Checkouts.update(
            {
              status: waits && !waits.voided ? 'recommended' : 'open',
              signedLedgerId: waits && !waits.voided ? of.id : null,
            },
            { id: target.checkoutId },
            t,
          );
      } else if (head?.signedLedgerId === target.id)
        await Checkouts.update({ status: 'open', signedLedgerId: null }, { id: target.checkoutId }, t);
      return { ok: true };
    },
  );
}

/** Puts a slip right by a further entry: what was signed stays as it was, the correction stands beside it. */
export async function correctEntry(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = CorrectionForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  return addLater(
    user,
    'correction',
    parsed.data,
    (x) => may.correctEntry(user, { pilotId: x.pilotId ?? '', signerId: x.signerId }),
    async (target) =>
      !VOIDABLE.includes(target.kind)
        ? problem('', told('correct-the-entry'))
        : target.voided
          ? problem('', told('void-nothing-to-correct'))
          : { ok: true },
  );
}

/** Enters what the examiner decided. Passed: the goals are the pilot's. Failed: the checkout is open again. */
export async function enterResult(user: CurrentUser, form: unknown): Promise<Added> {
  const parsed = ResultForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  const first = await checkoutHead(data.checkoutId);
  if (!first || !may.enterResult(user, first)) return problem('', told('not-found'));
  return addEntry(user, data.password, async (t): Promise<Added> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head || !may.enterResult(user, head)) return problem('', told('not-found'));
    const before = await madeBefore(user, data.requestId, { kind: 'test-result', checkoutId: head.id }, t);
    if (before) return before;
    const recommended = head.signedLedgerId === null ? null : await targetOf(head.signedLedgerId, t);
    if (head.status !== 'recommended' || !recommended) return problem('', told('no-examiner'));
    const today = await localToday(t);
    const body = bodyOf(recommended);
    if (data.testOn > today) return problem('testOn', told('test-ahead'));
    if (data.testOn < (body.signedOn ?? recommended.signedAt.slice(0, 10)))
      return problem('testOn', told('test-before'));
    if (body.validThrough && data.testOn > body.validThrough)
      return problem('testOn', told('recommendation-ended', { on: dateText(body.validThrough) }));
    if (body.courseUntil && data.testOn > body.courseUntil)
      return problem('testOn', told('course-ended', { on: dateText(body.courseUntil) }));
    const goals = body.recommends ?? [];
    const later: LaterBody = {
      pilot: { id: head.pilotId, name: head.pilotName },
      signer: { id: user.id, name: user.name },
      of: { id: recommended.id, seq: recommended.seq, hash: recommended.hash, kind: recommended.kind },
      goals,
      signedOn: today,
      timeZone: (await homeAerodrome(t)).timeZone,
      text: data.text,
      result: data.result,
      examiner: data.examiner,
      testOn: data.testOn,
      reference: data.reference,
    };
    const entry = await appendEntry(
      {
        id: data.requestId,
        kind: 'test-result',
        checkoutId: head.id,
        signedAt: nowIso(),
        signerId: user.id,
        body: later,
      },
      t,
    );
    if (data.result === 'passed') {
      await Checkouts.update({ status: 'signed', signedLedgerId: recommended.id }, { id: head.id }, t);
      const record = await readCheckoutRecord(head, t);
      await grantQualifications(record, goals, entry, data.testOn, t);
      await renewDates(record, goals, entry, user, data.testOn, t);
    } else await Checkouts.update({ status: 'open', signedLedgerId: null }, { id: head.id }, t);
    return { ok: true, entryId: entry.id, already: false };
  });
}

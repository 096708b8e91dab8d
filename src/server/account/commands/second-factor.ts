import type { Transaction } from 'sequelize';
import { ConfirmFactorForm, EndFactorForm, FactorRolesForm } from '@/domain/account-forms';
import { confirmPassword } from '../../floor/auth/confirm-password';
import { forgetTries, takeTry } from '../../floor/auth/limiter';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { codeFits, factorRoles, hasFactor, newRecoveryCodes, newSecret } from '../../floor/auth/second-factor';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { told } from '../sentences';
import { RecoveryCodes, SecondFactorRoles, SecondFactors } from '../tables';
import { notify } from './notices';

/** A secret to be put into an authenticator; nothing is asked of the sign-in until a code of it was typed. */
export async function beginSecondFactor(user: CurrentUser): Promise<Result<{ secret: string; uri: string }>> {
  const { secret, seal, uri } = await newSecret(user.email);
  return write(async (t): Promise<Result<{ secret: string; uri: string }>> => {
    if (await hasFactor(user.id, t)) return problem('', told('not-found'));
    await SecondFactors.put({ userId: user.id, secret: seal, madeAt: nowIso(), confirmedAt: null, lastStep: 0 }, t);
    return { ok: true, secret, uri };
  });
}

/** The authenticator works: from the next sign-in its code is asked for. Recovery codes are shown this once. */
export async function confirmSecondFactor(user: CurrentUser, form: unknown): Promise<Result<{ codes: string[] }>> {
  const parsed = ConfirmFactorForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const wait = await takeTry('again', user.id);
  if (wait > 0) return problem('code', told('too-many-tries', { seconds: wait }));
  const { codes, hashes } = newRecoveryCodes(user.id);
  const made = await write(async (t): Promise<Result<{ codes: string[] }>> => {
    const factor = await SecondFactors.first({ where: { userId: user.id }, pick: ['confirmedAt'] }, t);
    if (!factor || factor.confirmedAt) return problem('', told('factor-begun'));
    if (!/^\d{6}$/.test(parsed.data.code) || !(await codeFits(user.id, parsed.data.code, t)))
      return problem('code', told('code-wrong'));
    await SecondFactors.update({ confirmedAt: nowIso() }, { userId: user.id }, t);
    await RecoveryCodes.delete({ userId: user.id }, t);
    for (const hash of hashes) await RecoveryCodes.insert({ userId: user.id, hash, usedAt: null }, t);
    return { ok: true, codes };
  });
  if (made.ok) await forgetTries([['again', user.id]]);
  return made;
}

/** One's own, with the password once more; not while a role of one's own requires it. */
export async function endSecondFactor(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = EndFactorForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const asked = await factorRoles();
  if (user.roles.some((r) => asked.includes(r))) return problem('', told('factor-required'));
  const again = await confirmPassword(user, parsed.data.password, 'changed');
  if (!again.ok) return again;
  await write((t) => dropFactor(user.id, t));
  return { ok: true };
}

export const dropFactor = async (userId: string, t: Transaction): Promise<void> => {
  await SecondFactors.delete({ userId }, t);
  await RecoveryCodes.delete({ userId }, t);
};

/** Of somebody whose authenticator and codes are lost; its owner hears of it. */
export async function takeSecondFactor(user: CurrentUser, userId: string): Promise<Result<object>> {
  if (!may.keepPeople(user) || userId === user.id) return problem('', told('chief-factors'));
  return write(async (t): Promise<Result<object>> => {
    if (!(await hasFactor(userId, t))) return problem('', told('not-found'));
    await dropFactor(userId, t);
    const text = told('notice-factor-gone', { name: user.name }).message;
    await notify([userId], { kind: 'password', text, href: '/account', about: userId }, user.id, t);
    return { ok: true };
  });
}

/** Which roles nobody has without a second factor. */
export async function saveFactorRoles(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = FactorRolesForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-factors'));
  await write(async (t) => {
    const there = (await SecondFactorRoles.find({ pick: ['role'] }, t)).map((r) => r.role);
    const gone = there.filter((r) => !parsed.data.roles.includes(r));
    if (gone.length > 0) await SecondFactorRoles.delete({ role: gone }, t);
    for (const role of new Set(parsed.data.roles))
      if (!there.includes(role)) await SecondFactorRoles.insert({ role, setBy: user.id, setAt: nowIso() }, t);
  });
  return { ok: true };
}

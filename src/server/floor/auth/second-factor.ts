import { createHash, randomBytes } from 'node:crypto';
import { sealData, unsealData } from 'iron-session';
import { generateSecret, generateURI, verify } from 'otplib';
import type { Transaction } from 'sequelize';
import type { Role } from '@/domain/words';
import { RecoveryCodes, SecondFactorRoles, SecondFactors } from '../../account/tables';
import { nowIso } from '../clock';
import { installationSecret } from './keyed';

/** A phone's clock may be so far off. */
const TOLERANCE_S = 30;
const RECOVERY_CODES = 8;
const LETTERS = 'abcdefghijklmnopqrstuvwxyz234567';

const sealed = (secret: string) => sealData(secret, { password: installationSecret(), ttl: 0 });
const opened = (seal: string) => unsealData<string>(seal, { password: installationSecret(), ttl: 0 });
const hashOf = (userId: string, code: string): string => createHash('sha256').update(`${userId} ${code}`).digest('hex');

/** A new secret of an authenticator and what its picture says. */
export async function newSecret(email: string): Promise<{ secret: string; seal: string; uri: string }> {
  const secret = generateSecret();
  return { secret, seal: await sealed(secret), uri: generateURI({ issuer: 'Jeito', label: email, secret }) };
}

/** Codes for the day the authenticator is lost: shown once, each good for one sign-in. */
export function newRecoveryCodes(userId: string): { codes: string[]; hashes: string[] } {
  const code = () => [...randomBytes(10)].map((b) => LETTERS[b % LETTERS.length] ?? 'a').join('');
  const codes = Array.from({ length: RECOVERY_CODES }, code);
  return { codes: codes.map((c) => `${c.slice(0, 5)}-${c.slice(5)}`), hashes: codes.map((c) => hashOf(userId, c)) };
}

/**
 * Whether a code fits now and was not used before; a code that fits is used up with it. A secret that this installation
 * cannot open (a folder brought from elsewhere without its keys) fits nothing: a recovery code does.
 * @param code digits of the authenticator, or a recovery code, without spaces and hyphens
 */
export async function codeFits(userId: string, code: string, t: Transaction): Promise<boolean> {
  if (!/^\d{6}$/.test(code))
    return (
      (await RecoveryCodes.update(
        { usedAt: nowIso() },
        { userId, hash: hashOf(userId, code.toLowerCase()), usedAt: null },
        t,
      )) === 1
    );
  const factor = await SecondFactors.first({ where: { userId }, pick: ['secret', 'lastStep'] }, t);
  const secret = factor ? await opened(factor.secret).catch(() => null) : null;
  if (!factor || typeof secret !== 'string' || secret === '') return false;
  const found = await verify({
    ...{ secret, token: code, epoch: Math.floor(Date.parse(nowIso()) / 1000) },
    ...{ epochTolerance: TOLERANCE_S, ...(factor.lastStep > 0 ? { afterTimeStep: factor.lastStep } : {}) },
  }).catch(() => null);
  if (!found?.valid || !('timeStep' in found)) return false;
  await SecondFactors.update({ lastStep: found.timeStep }, { userId }, t);
  return true;
}

/** Whether this account signs in with a second factor. */
export const hasFactor = async (userId: string, t?: Transaction): Promise<boolean> =>
  ((await SecondFactors.first({ where: { userId }, pick: ['confirmedAt'] }, t))?.confirmedAt ?? null) !== null;

/** Roles that the school gives nobody without a second factor. */
export const factorRoles = async (): Promise<Role[]> =>
  (await SecondFactorRoles.find({ pick: ['role'] })).map((r) => r.role);

/** Whether somebody with these roles still has to set one up. */
export async function lacksFactor(user: { id: string; roles: readonly Role[] }): Promise<boolean> {
  const asked = await factorRoles();
  return user.roles.some((r) => asked.includes(r)) && !(await hasFactor(user.id));
}

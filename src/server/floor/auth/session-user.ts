import type { Transaction } from 'sequelize';
import type { Row } from '../table';
import { Users } from '../../account/tables';
import type { CurrentUser } from './permissions';

/** What is asked of an account to know who its owner is here. */
export const USER = [
  'id',
  'name',
  'email',
  'roles',
  'pilotId',
  'authorised',
  'massKg',
  'ownCrosswindKt',
  'certificate',
  'certificateUntil',
] as const;
export type UserRow = Pick<Row<typeof Users>, (typeof USER)[number]>;

export const toUser = (r: UserRow): CurrentUser => ({
  id: r.id,
  name: r.name,
  email: r.email,
  roles: r.roles,
  pilotId: r.pilotId,
  authorised: r.authorised,
  massKg: r.massKg,
  ownCrosswindKt: r.ownCrosswindKt,
  certificate: r.certificate,
  certificateUntil: r.certificateUntil,
});

/** Somebody with an open account, with the roles of this moment; null = there is none. */
export async function userById(id: string, t?: Transaction): Promise<CurrentUser | null> {
  const found = await Users.first({ where: { id, closedAt: null }, pick: USER }, t);
  return found && toUser(found);
}

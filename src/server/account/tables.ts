import { z } from 'zod';
import { SCOPES } from '@/domain/scopes';
import { ROLES } from '@/domain/words';
import { day, instant, json, real, text, whole } from '../floor/columns';
import { crosswindCredit, goals, roles } from '../floor/stored';
import { table } from '../floor/table';

export const Pilots = table(
  'pilots',
  {
    id: text,
    name: text,
    massKg: real,
    experience: text,
    hours: real,
    crosswindCredit: crosswindCredit.nullable(),
    experienceSince: json(z.record(z.string(), z.string())),
    createdAt: instant,
    certificate: text,
  },
  {
    defaults: ['experience', 'hours', 'experienceSince', 'certificate'],
  },
);

export const Users = table(
  'users',
  {
    id: text,
    email: text,
    name: text,
    passwordHash: text,
    roles: roles,
    sessionVersion: whole,
    pilotId: text.nullable(),
    massKg: real,
    authorised: goals,
    ownCrosswindKt: real.nullable(),
    createdAt: instant,
    certificate: text,
    certificateUntil: day.nullable(),
    closedAt: instant.nullable(),
    passwordGivenBy: text.nullable(),
    passwordGivenAt: instant.nullable(),
    passwordOwnAt: instant.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'] },
    defaults: ['sessionVersion', 'massKg', 'authorised', 'certificate'],
  },
);

export const Sessions = table(
  'sessions',
  {
    id: text,
    userId: text,
    madeAt: instant,
    endedAt: instant.nullable(),
    device: text,
  },
  {
    links: { user: [Users, 'userId'] },
    defaults: ['device'],
  },
);

export const AccountLinks = table(
  'account_links',
  {
    id: text,
    userId: text,
    hash: text,
    madeBy: text,
    madeAt: instant,
    expiresAt: instant,
    usedAt: instant.nullable(),
    endedAt: instant.nullable(),
  },
  {
    links: { user: [Users, 'userId'], maker: [Users, 'madeBy'] },
  },
);

export const SecondFactors = table(
  'second_factors',
  {
    userId: text,
    secret: text,
    madeAt: instant,
    confirmedAt: instant.nullable(),
    lastStep: whole,
  },
  {
    key: ['userId'],
    links: { user: [Users, 'userId'] },
  },
);

export const RecoveryCodes = table(
  'recovery_codes',
  {
    userId: text,
    hash: text,
    usedAt: instant.nullable(),
  },
  {
    key: ['userId', 'hash'],
    links: { user: [Users, 'userId'] },
  },
);

export const SecondFactorRoles = table(
  'second_factor_roles',
  {
    role: z.enum(ROLES),
    setBy: text,
    setAt: instant,
  },
  {
    key: ['role'],
    links: { setter: [Users, 'setBy'] },
  },
);

export const SignInAddresses = table(
  'sign_in_addresses',
  {
    userId: text,
    addressHash: text,
    lastAt: instant,
  },
  {
    key: ['userId', 'addressHash'],
    links: { user: [Users, 'userId'] },
  },
);

export const PasswordResets = table(
  'password_resets',
  {
    id: text,
    userId: text,
    givenBy: text,
    givenAt: instant,
  },
  {
    links: { user: [Users, 'userId'], giver: [Users, 'givenBy'] },
  },
);

export const PersonalTokens = table(
  'personal_tokens',
  {
    id: text,
    userId: text,
    name: text,
    hash: text,
    scopes: json(z.array(z.enum(SCOPES))),
    createdAt: instant,
    lastUsedAt: day.nullable(),
    endedAt: instant.nullable(),
    expiresAt: instant.nullable(),
  },
  {
    links: { user: [Users, 'userId'] },
    defaults: ['scopes'],
  },
);

export const Notices = table(
  'notices',
  {
    id: text,
    userId: text,
    kind: text,
    text: text,
    href: text,
    about: text,
    madeAt: instant,
    seq: whole,
    seenAt: instant.nullable(),
  },
  {
    links: { user: [Users, 'userId'] },
  },
);

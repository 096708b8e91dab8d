import { z } from 'zod';
import { instant, text, whole } from '../floor/columns';
import { table } from '../floor/table';
import { Checkouts } from '../checkout/tables';
import { Users } from '../account/tables';

export const LedgerEntries = table(
  'ledger',
  {
    seq: whole,
    id: text,
    kind: text,
    checkoutId: text,
    signedAt: instant,
    signerId: text,
    canonical: text,
    prevHash: text,
    hash: text,
    signature: text,
    keyId: text,
  },
  {
    key: ['seq'],
  },
);

export const SignOverrides = table(
  'sign_overrides',
  {
    id: text,
    checkoutId: text,
    itemId: text,
    reason: text,
    askedBy: text,
    askedAt: instant,
    seq: whole,
    afterEntry: whole,
  },
  {
    links: { checkout: [Checkouts, 'checkoutId'], asker: [Users, 'askedBy'] },
  },
);

export const OverrideAnswers = table(
  'override_answers',
  {
    id: text,
    overrideId: text,
    answer: z.enum(['approved', 'declined', 'withdrawn']),
    reason: text,
    answeredBy: text,
    answeredAt: instant,
  },
  {
    links: { override: [SignOverrides, 'overrideId'], answerer: [Users, 'answeredBy'] },
  },
);

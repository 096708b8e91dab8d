import { z } from 'zod';
import type { ChangeKind, Scope } from '@/domain/scopes';
import { CHECKOUT_STATUS } from '@/domain/words';
import * as shape from './shapes';

const count = (most: number, given: number) =>
  z.coerce
    .number('Send a whole number.')
    .int('Send a whole number.')
    .min(1, 'Send 1 or more.')
    .max(most, `Send at most ${most}.`)
    .default(given);
const page = {
  limit: count(500, 100).describe('So many at once'),
  offset: z.coerce
    .number('Send a whole number.')
    .int('Send a whole number.')
    .min(0, 'Send 0 or more.')
    .max(10_000_000, 'Send less.')
    .default(0)
    .describe('Leave out so many of the first'),
};
const day = z.iso.date('Send a day as YYYY-MM-DD.').optional();

/** A name that is none is said: what was meant to be left out would be in the answer. */
const strict = <S extends z.ZodRawShape>(shape: S) =>
  z.strictObject(shape, {
    error: (i) => (i.code === 'unrecognized_keys' ? `There is no parameter ${i.keys.join(', ')}.` : undefined),
  });
export const PageQuery = strict(page);
export type PageQuery = z.output<typeof PageQuery>;
export const CheckoutsQuery = strict({
  ...page,
  status: z.enum(CHECKOUT_STATUS, 'Send open, recommended or signed, or leave it out.').optional(),
});
const MOST_DAYS = 92;
export const SpanQuery = strict({
  from: day.describe('First day, today if absent'),
  to: day.describe('Last day, two weeks if absent'),
}).superRefine(({ from, to }, on) => {
  if (to === undefined) return;
  if (from === undefined) return on.addIssue({ code: 'custom', path: ['from'], message: 'Send from as well as to.' });
  const days = (Date.parse(to) - Date.parse(from)) / 86_400_000;
  if (days < 0) on.addIssue({ code: 'custom', path: ['to'], message: 'Send a day after from.' });
  if (days > MOST_DAYS) on.addIssue({ code: 'custom', path: ['to'], message: `Ask for at most ${MOST_DAYS} days.` });
});
export type SpanQuery = z.output<typeof SpanQuery>;
export const ChangesQuery = strict({
  since: z
    .string()
    .max(40, 'Send the version as it was told.')
    .optional()
    .describe('The version told last; absent = all there is'),
  limit: count(1000, 500).describe('So many at once'),
});
export type ChangesQuery = z.output<typeof ChangesQuery>;

/** One address of the interface. */
export interface Address {
  method: 'get' | 'put' | 'post';
  path: string;
  /** What a token must have been given; 'any' = each kind by its own. */
  scope: Scope | 'any';
  summary: string;
  /** The kind of thing it is of, by the one name in braces. */
  of?: ChangeKind;
  query?: z.ZodType;
  body?: z.ZodType;
  answer: z.ZodType;
  /** What else it answers beside 200 and 404. */
  refuses?: Readonly<Record<number, string>>;
}

const FIELDS = 'What does not fit, field by field';
/** Every address, in the order it is read of. */
export const ADDRESSES: readonly Address[] = [
  {
    method: 'get',
    path: '/api/v1/changes',
    scope: 'any',
    summary: 'What has changed since a version: each thing once, of the kinds the token was given',
    query: ChangesQuery,
    answer: shape.ChangesAnswer,
    refuses: { 400: FIELDS, 410: 'The data was brought back from a backup: read everything again, without since' },
  },
  {
    method: 'get',
    path: '/api/v1/people',
    scope: 'people',
    summary: 'People, with how their recency stands today',
    query: PageQuery,
    answer: shape.PersonList,
    refuses: { 400: FIELDS },
  },
  {
    method: 'get',
    path: '/api/v1/people/{id}',
    of: 'person',
    scope: 'people',
    summary: 'One person: what they hold, their dates, hours, and everything that runs out',
    answer: shape.PersonAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/people/{id}/record',
    of: 'person',
    scope: 'record',
    summary: 'Everything kept about a pilot, as record/1',
    answer: shape.RecordAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/bookings',
    scope: 'bookings',
    summary: 'Bookings of some days',
    query: SpanQuery,
    answer: shape.BookingList,
    refuses: { 400: FIELDS },
  },
  {
    method: 'get',
    path: '/api/v1/bookings/{id}',
    of: 'booking',
    scope: 'bookings',
    summary: 'One booking, cancelled ones too',
    answer: shape.BookingAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/checkouts',
    scope: 'checkouts',
    summary: 'Checkouts',
    query: CheckoutsQuery,
    answer: shape.CheckoutList,
    refuses: { 400: FIELDS },
  },
  {
    method: 'get',
    path: '/api/v1/checkouts/{id}',
    of: 'checkout',
    scope: 'checkouts',
    summary: 'One checkout: its lessons, its items with their evidence, its findings',
    answer: shape.CheckoutAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/briefs/{id}',
    of: 'brief',
    scope: 'checkouts',
    summary: 'A stored brief: what was chosen, and the card as it prints',
    answer: shape.BriefAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/debriefs/{id}',
    of: 'debrief',
    scope: 'debriefs',
    summary: 'A lesson by its id: landings with their verdicts, the self-assessment, the debrief',
    answer: shape.DebriefAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/ledger',
    scope: 'ledger',
    summary: 'Entries of the ledger',
    query: PageQuery,
    answer: shape.EntryList,
    refuses: { 400: FIELDS },
  },
  {
    method: 'get',
    path: '/api/v1/ledger/{id}',
    of: 'ledger',
    scope: 'ledger',
    summary: 'One entry, with what is signed',
    answer: shape.EntryAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/types',
    scope: 'hangar',
    summary: 'Type sheets, newest version of each',
    answer: shape.TypeList,
  },
  {
    method: 'get',
    path: '/api/v1/types/{code}',
    of: 'type',
    scope: 'hangar',
    summary: 'One type sheet, newest version',
    answer: shape.TypeAnswer,
  },
  {
    method: 'put',
    path: '/api/v1/types/{code}',
    of: 'type',
    scope: 'hangar-write',
    summary: 'Import a type sheet as a new version (chief)',
    body: shape.TypeImport,
    answer: shape.TypeImported,
    refuses: { 400: FIELDS },
  },
  {
    method: 'get',
    path: '/api/v1/airframes',
    scope: 'hangar',
    summary: 'Every registration',
    answer: z.array(shape.AirframeAnswer),
  },
  {
    method: 'get',
    path: '/api/v1/airframes/{registration}',
    of: 'airframe',
    scope: 'hangar',
    summary: 'What differs on one registration',
    answer: shape.AirframeAnswer,
  },
  {
    method: 'get',
    path: '/api/v1/traces/{id}',
    of: 'trace',
    scope: 'traces',
    summary: 'A kept recording: its context and analysis',
    answer: shape.TraceAnswer,
  },
  {
    method: 'post',
    path: '/api/v1/traces/analyse',
    scope: 'traces',
    summary:
      'Analyse a recording without keeping it: JSON, or a form with file (CSV, GPX, IGC, KML or NMEA, zipped or gzipped too), context and mapping',
    body: shape.TraceQuestion,
    answer: shape.TraceAnswer.shape.analysis,
    refuses: {
      400: 'The context or the mapping does not fit',
      413: 'Too long',
      422: 'The file cannot be read, and why',
    },
  },
];
/** Names in braces of an address. */
export const namesIn = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1] ?? '');

/** Where a thing of a kind is read; what has no address of its own, where its effect is. */
export function hrefOf(kind: ChangeKind, id: string): string {
  const at = ADDRESSES.find((a) => a.of === kind && a.method === 'get');
  return at ? at.path.replace(/\{\w+\}/, encodeURIComponent(id)) : '/api/v1/people';
}

/** What a token may be used for. It never gives more than its owner may see; it may be given less. */
export const SCOPES = [
  'people',
  'bookings',
  'checkouts',
  'debriefs',
  'ledger',
  'record',
  'hangar',
  'hangar-write',
  'traces',
] as const;
export type Scope = (typeof SCOPES)[number];

export const SCOPE_NAME: Record<Scope, string> = {
  people: 'People, what they hold, and recency',
  bookings: 'Bookings',
  checkouts: 'Checkouts and briefs',
  debriefs: 'Lessons flown and debriefs',
  ledger: 'Ledger entries',
  record: 'Whole record of a pilot',
  hangar: 'Type sheets and airframes',
  'hangar-write': 'Import type sheets (chief)',
  traces: 'Recordings; analyse one',
};

/** Kinds of things whose changes are told, and the scope each is read with. */
export const CHANGE_KINDS = {
  person: 'people',
  rules: 'people',
  booking: 'bookings',
  checkout: 'checkouts',
  brief: 'checkouts',
  debrief: 'debriefs',
  ledger: 'ledger',
  type: 'hangar',
  airframe: 'hangar',
  trace: 'traces',
} as const satisfies Record<string, Scope>;
export type ChangeKind = keyof typeof CHANGE_KINDS;
export const CHANGE_KIND_LIST = Object.keys(CHANGE_KINDS) as [ChangeKind, ...ChangeKind[]];

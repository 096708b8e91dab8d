import { z } from 'zod';
import { GOALS, ROLES } from './words';

/** What a person shows with a date on it. `done` lasts as the pack’s rule says, `until` to a day. */
export const DateForm = z.object({
  pilotId: z.string().min(1),
  key: z.string().trim().min(2, 'Choose what it is.').max(40),
  title: z.string().trim().min(2, 'Say what it is.').max(60, 'At most 60 characters.'),
  doneOn: z.iso.date('Enter the date as 24 Nov 2026.').nullable(),
  until: z.iso.date('Enter the date as 24 Nov 2026.').nullable(),
  note: z.string().trim().max(200, 'At most 200 characters.'),
});
export const NoteForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string().min(1),
  text: z.string().trim().min(3, 'Write the note.').max(2000, 'At most 2000 characters.'),
  visible: z.enum(['pilot', 'staff', 'chief']),
});
export const PersonForm = z.object({
  requestId: z.uuid(),
  name: z.string().trim().min(3, 'Give the name.').max(80, 'At most 80 characters.'),
  email: z.union([
    z.literal(''),
    z.email(
      'This is no e-mail address. Type it like name@school.example, or leave it empty: then there is no account.',
    ),
  ]),
  massKg: z.number('Give the mass in kilograms.').min(30, 'At least 30 kg.').max(200, 'At most 200 kg.'),
  hours: z.number('Give the hours.').min(0).max(60000, 'At most 60 000 h.'),
  certificate: z.string().trim().max(80, 'At most 80 characters.'),
  roles: z.array(z.enum(ROLES)).min(1, 'Choose at least one role.'),
  authorised: z.array(z.enum(GOALS)),
});
/** People of a file. */
export const PeopleForm = z.object({
  people: z.array(PersonForm).min(1, 'There is nobody in this file.').max(200, 'At most 200 people at once.'),
});
export const RolesForm = z.object({
  userId: z.string().min(1),
  roles: z.array(z.enum(ROLES)).min(1, 'Choose at least one role.'),
  authorised: z.array(z.enum(GOALS)),
  ownCrosswindKt: z.number('Give whole knots, or leave it empty.').min(0).max(40, 'At most 40 kt.').nullable(),
  /** What stood when the form was opened: {@link rolesStamp}. */
  base: z.string().max(2000),
});
/** What two people editing the same roles are held against. */
export const rolesStamp = (of: {
  roles: readonly string[];
  authorised: readonly string[];
  ownCrosswindKt: number | null;
}): string => JSON.stringify([[...of.roles].sort(), [...of.authorised].sort(), of.ownCrosswindKt]);
export const PasswordForm = z.object({
  password: z.string().min(1, 'Type the password you have now.'),
  next: z
    .string()
    .min(12, 'At least twelve characters: a few words are easy to keep.')
    .max(200, 'At most 200 characters.'),
});
export const HeldForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string().min(1),
  kind: z.string().trim().min(1, 'Choose what is held.').max(60),
  gainedOn: z.iso.date('Enter the date as 24 Nov 2026.'),
  note: z.string().trim().max(200, 'At most 200 characters.'),
});
export const EraseForm = z.object({
  pilotId: z.string().min(1),
  reason: z.string().trim().min(10, 'Say who asked and why, in a sentence.').max(500, 'At most 500 characters.'),
  name: z.string(),
});

/** Columns of a logbook as they can be read. */
export const LOGBOOK_FIELDS = [
  'date',
  'type',
  'registration',
  'total',
  'pic',
  'dual',
  'takeoffsDay',
  'takeoffsNight',
  'takeoffs',
  'landingsDay',
  'landingsNight',
  'landings',
  'fullStops',
  'night',
  'remark',
] as const;
export type LogbookField = (typeof LOGBOOK_FIELDS)[number];
export const LOGBOOK_FIELD_NAME: Record<LogbookField, string> = {
  date: 'date',
  type: 'type of aeroplane',
  registration: 'registration',
  total: 'total time',
  pic: 'pilot in command',
  dual: 'dual received',
  takeoffsDay: 'take-offs by day',
  takeoffsNight: 'take-offs by night',
  takeoffs: 'take-offs',
  landingsDay: 'landings by day',
  landingsNight: 'landings by night',
  landings: 'landings',
  fullStops: 'of them full stops',
  night: 'night time',
  remark: 'remarks',
};
/** What a type written in the file is: one of the hangar, or another aeroplane of a kind. */
export const WrittenType = z.object({
  typeCode: z.string().nullable(),
  engines: z.number().int().min(1).max(4),
  tailwheel: z.boolean(),
  surface: z.enum(['land', 'water']),
});
export type WrittenType = z.infer<typeof WrittenType>;
export const LogbookMapping = z.object({
  /** Field to column of the file, by its header. */
  columns: z.partialRecord(z.enum(LOGBOOK_FIELDS), z.string()),
  /** How dates are written where the file leaves it open. */
  dates: z.enum(['ymd', 'dmy', 'mdy']),
  /** 1:30 is always read; a bare number is hours or minutes. */
  time: z.enum(['hours', 'minutes']),
  /** What earlier versions made of every row at once; it makes nothing now. */
  stops: z.enum(['none', 'tailwheel', 'all']).optional(),
  /** Where no column tells full stops: the lines of this file whose landings the pilot says were all full stops. */
  stopLines: z.array(z.number().int().min(1)).max(20_000).default([]),
  types: z.record(z.string(), WrittenType),
});
export type LogbookMapping = z.infer<typeof LogbookMapping>;

import { z } from 'zod';
import { day, flag, instant, json, real, text, whole } from '../floor/columns';
import { table } from '../floor/table';
import { Pilots, Users } from '../account/tables';
import { Types } from '../hangar/tables';

export const Qualifications = table(
  'qualifications',
  {
    id: text,
    pilotId: text,
    kind: text,
    gainedOn: day.nullable(),
    note: text,
    ledgerId: text.nullable(),
    endedAt: instant.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'] },
    defaults: ['note'],
  },
);

export const PilotHours = table(
  'pilot_hours',
  {
    id: text,
    pilotId: text,
    /** A type of the hangar, or a kind of aeroplane. */
    typeCode: text,
    hours: real,
    lastFlown: day,
    enteredBy: text,
    enteredAt: instant,
    seq: whole,
    pic: real.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'], enterer: [Users, 'enteredBy'] },
  },
);

export const PilotEyes = table(
  'pilot_eyes',
  {
    id: text,
    pilotId: text,
    typeCode: text,
    seat: z.enum(['pilot', 'instructor']),
    eyeHeightM: real,
    how: text,
    enteredBy: text,
    enteredAt: instant,
    seq: whole,
  },
  {
    links: { pilot: [Pilots, 'pilotId'], type: [Types, 'typeCode', 'code'], enterer: [Users, 'enteredBy'] },
  },
);

export const LoggedFlights = table(
  'flight_log',
  {
    id: text,
    pilotId: text,
    flownOn: day,
    typeCode: text,
    takeoffs: whole,
    landings: whole,
    fullStops: whole,
    night: flag,
    surface: z.enum(['land', 'water']),
    hours: real,
    remark: text,
    enteredBy: text,
    enteredAt: instant,
    offSurface: z.enum(['land', 'water']).nullable(),
    offNight: flag.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'], type: [Types, 'typeCode', 'code'], enterer: [Users, 'enteredBy'] },
  },
);

export const StruckFlights = table(
  'flight_log_struck',
  {
    id: text,
    logId: text,
    reason: text,
    struckBy: text,
    struckAt: instant,
  },
  {
    links: { log: [LoggedFlights, 'logId'], striker: [Users, 'struckBy'] },
  },
);

export const PersonDates = table(
  'person_dates',
  {
    id: text,
    pilotId: text,
    key: text,
    title: text,
    doneOn: day.nullable(),
    until: day.nullable(),
    note: text,
    enteredBy: text,
    enteredAt: instant,
    seq: whole,
    ledgerId: text.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'], enterer: [Users, 'enteredBy'] },
  },
);

export const PersonNotes = table(
  'person_notes',
  {
    id: text,
    pilotId: text,
    text: text,
    visible: z.enum(['pilot', 'staff', 'chief']),
    author: text,
    writtenAt: instant,
    withdrawnAt: instant.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'], writer: [Users, 'author'] },
  },
);

export const Erasures = table(
  'erasures',
  {
    id: text,
    pilotId: text,
    reason: text,
    kept: text,
    erasedBy: text,
    erasedAt: instant,
  },
  {
    links: { pilot: [Pilots, 'pilotId'], eraser: [Users, 'erasedBy'] },
  },
);

export const LogbookImports = table(
  'logbook_imports',
  {
    id: text,
    pilotId: text,
    fileName: text,
    header: text,
    mapping: json(z.unknown()),
    readRows: whole,
    added: whole,
    doubled: whole,
    refused: whole,
    importedBy: text,
    importedAt: instant,
    takenBackAt: instant.nullable(),
    takenBackBy: text.nullable(),
  },
  {
    links: { pilot: [Pilots, 'pilotId'], importer: [Users, 'importedBy'], taker: [Users, 'takenBackBy'] },
  },
);

export const LogbookFlights = table(
  'logbook_flights',
  {
    id: text,
    importId: text,
    pilotId: text,
    flownOn: day,
    typeWritten: text,
    registration: text,
    typeCode: text.nullable(),
    engines: whole,
    tailwheel: flag,
    surface: z.enum(['land', 'water']),
    takeoffsDay: whole,
    takeoffsNight: whole,
    landingsDay: whole,
    landingsNight: whole,
    fullStopsDay: whole,
    fullStopsNight: whole,
    hours: real,
    picHours: real.nullable(),
    dual: flag,
    remark: text,
    fingerprint: text,
  },
  {
    links: { import: [LogbookImports, 'importId'], pilot: [Pilots, 'pilotId'], type: [Types, 'typeCode', 'code'] },
  },
);

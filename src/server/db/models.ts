import { DataTypes, type Model, type ModelStatic, type ModelAttributes } from 'sequelize';
import { database } from './connection';

/**
 * Models over the tables of the migrations. Used for writing, inside `write()`; heavy reads are raw queries.
 * JSON columns are text here: a command validates with Zod before it writes, a query after it reads.
 */
type Value = string | number | null;
type Row = Record<string, Value>;
export type RowModel = ModelStatic<Model<Row, Row>>;

const text = DataTypes.TEXT;
const real = DataTypes.REAL;
const whole = DataTypes.INTEGER;

const TABLES = {
  pilots: { id: text, name: text, mass_kg: real, experience: text, hours: real, crosswind_credit: text, experience_since: text, created_at: text, certificate: text },
  users: { id: text, email: text, name: text, password_hash: text, roles: text, session_version: whole, pilot_id: text, mass_kg: real, authorised: text, own_crosswind_kt: real, created_at: text, certificate: text, certificate_until: text, closed_at: text },
  qualifications: { id: text, pilot_id: text, kind: text, gained_on: text, note: text, ledger_id: text, ended_at: text },
  content_versions: { id: text, kind: text, key: text, version: whole, hash: text, origin: text, body: text, author: text, reason: text, created_at: text },
  types: { id: text, code: text, name: text },
  type_versions: { id: text, type_id: text, version: whole, tailwheel: whole, power_hp: real, engines: whole, surface: text, sheet: text, author: text, reason: text, created_at: text },
  airframes: { id: text, registration: text, type_id: text },
  airframe_versions: { id: text, airframe_id: text, version: whole, sheet: text, author: text, reason: text, created_at: text },
  checkouts: {
    id: text, pilot_id: text, instructor_id: text, airframe_id: text, airframe_version_id: text, type_version_id: text, pack: text, goals: text, programme_ids: text,
    standard_id: text, pack_id: text, house_id: text, schools: text, opening: text, note: text, status: text, signed_ledger_id: text, request_id: text, created_by: text, created_at: text,
  },
  sorties: { id: text, checkout_id: text, lesson: whole, flown_on: text, instructor_id: text, created_at: text, second_pilot_id: text, second_checkout_id: text, shared_with: text },
  briefs: { id: text, checkout_id: text, sortie_id: text, version: whole, choices: text, snapshot: text, created_by: text, created_at: text, acknowledged_by: text, acknowledged_at: text, request_id: text, sheets: text },
  capture_events: { event_id: text, device_id: text, device_seq: whole, sortie_id: text, subject_id: text, author: text, type: text, v: whole, device_time: text, payload: text, received_at: text, skew_ms: whole },
  landings: { id: text, sortie_id: text, checkout_id: text, pilot_id: text, number: whole, kind: text, landing_class: text, intended: text, gear_group: text, crosswind_kt: real, wind_age_min: real, flown_on: text, saved_at: text, author: text, captured: text, judged: text, surface: text, tailwheel: whole, measured: text, level: whole, shown: whole, ended_at: text },
  traces: { id: text, sortie_id: text, airframe_id: text, hash: text, name: text, bytes: whole, mapping: text, context: text, analysis: text, start_utc: text, uploaded_by: text, uploaded_at: text },
  exceedances: { id: text, trace_id: text, airframe_id: text, sortie_id: text, channel: text, limit_value: real, unit: text, peak: real, start_s: real, duration_s: real, must_do: text, must_do_source: text, found_at: text },
  exceedance_releases: { id: text, exceedance_id: text, released_by: text, released_at: text, done: text },
  power_decisions: { id: text, finding_id: text, type_code: text, decision: text, version: whole, decided_by: text, decided_at: text, reason: text },
  checkout_moves: { id: text, checkout_id: text, type_from: whole, type_to: whole, airframe_from: whole, airframe_to: whole, moved_by: text, moved_at: text, reason: text },
  brief_templates: { goal: text, layout: text, author: text, created_at: text },
  personal_tokens: { id: text, user_id: text, name: text, hash: text, created_at: text, last_used_at: text, ended_at: text },
  pilot_hours: { id: text, pilot_id: text, type_code: text, hours: real, last_flown: text, entered_by: text, entered_at: text, seq: whole },
  pilot_eyes: { id: text, pilot_id: text, type_code: text, seat: text, eye_height_m: real, how: text, entered_by: text, entered_at: text, seq: whole },
  finding_decisions: { id: text, checkout_id: text, finding_id: text, decision: text, reason: text, lesson: whole, own: text, decided_by: text, decided_at: text, seq: whole },
  self_assessments: { id: text, sortie_id: text, said: text, told_by: text, told_at: text, seq: whole },
  debriefs: { id: text, sortie_id: text, version: whole, focus: text, remark: text, snapshot: text, request_id: text, created_by: text, created_at: text, acknowledged_by: text, acknowledged_at: text },
  lesson_plans: { id: text, checkout_id: text, lesson: whole, version: whole, plan: text, request_id: text, created_by: text, created_at: text },
  flight_log: { id: text, pilot_id: text, flown_on: text, type_code: text, takeoffs: whole, landings: whole, full_stops: whole, night: whole, surface: text, hours: real, remark: text, entered_by: text, entered_at: text },
  flight_log_struck: { id: text, log_id: text, reason: text, struck_by: text, struck_at: text },
  sign_overrides: { id: text, checkout_id: text, item_id: text, reason: text, asked_by: text, asked_at: text, seq: whole, after_entry: whole },
  override_answers: { id: text, override_id: text, answer: text, reason: text, answered_by: text, answered_at: text },
  person_dates: { id: text, pilot_id: text, key: text, title: text, done_on: text, until: text, note: text, entered_by: text, entered_at: text, seq: whole },
  person_notes: { id: text, pilot_id: text, text, visible: text, author: text, written_at: text, withdrawn_at: text },
  erasures: { id: text, pilot_id: text, reason: text, kept: text, erased_by: text, erased_at: text },
  logbook_imports: { id: text, pilot_id: text, file_name: text, header: text, mapping: text, read_rows: whole, added: whole, doubled: whole, refused: whole, imported_by: text, imported_at: text, taken_back_at: text, taken_back_by: text },
  logbook_flights: {
    id: text, import_id: text, pilot_id: text, flown_on: text, type_written: text, registration: text, type_code: text, engines: whole, tailwheel: whole, surface: text, takeoffs_day: whole, takeoffs_night: whole,
    landings_day: whole, landings_night: whole, full_stops_day: whole, full_stops_night: whole, hours: real, pic_hours: real, dual: whole, remark: text, fingerprint: text,
  },
  bookings: { id: text, kind: text, pilot_id: text, instructor_id: text, airframe_id: text, checkout_id: text, starts_at: text, ends_at: text, split: text, passengers: whole, surface: text, note: text, state: text, version: whole, booked_by: text, booked_at: text, request_id: text },
  booking_changes: { id: text, booking_id: text, version: whole, what: text, body: text, reason: text, changed_by: text, changed_at: text },
  weekly_windows: { id: text, person: text, weekday: whole, from_min: whole, to_min: whole, valid_from: text, valid_until: text, entered_by: text, entered_at: text, ended_at: text },
  times_away: { id: text, who: text, kind: text, from_at: text, to_at: text, why: text, entered_by: text, entered_at: text, ended_at: text, ended_by: text, ended_why: text },
  waiting_list: { id: text, pilot_id: text, checkout_id: text, minutes: whole, from_date: text, to_date: text, note: text, asked_by: text, asked_at: text, ended_at: text, ended_how: text, booking_id: text },
  calendar_feeds: { id: text, user_id: text, hash: text, alarm_min: whole, created_at: text, ended_at: text },
  notices: { id: text, user_id: text, kind: text, text, href: text, about: text, made_at: text, seq: whole, seen_at: text },
  ledger: { seq: whole, id: text, kind: text, checkout_id: text, signed_at: text, signer_id: text, canonical: text, prev_hash: text, hash: text, signature: text, key_id: text },
} as const;
export type TableName = keyof typeof TABLES;
const KEYS: Partial<Record<TableName, string>> = { capture_events: 'event_id', ledger: 'seq', brief_templates: 'goal' };

/** The model of a table, defined once per connection. */
export function model(table: TableName): RowModel {
  const { sequelize } = database();
  if (sequelize.isDefined(table)) return sequelize.model(table) as RowModel;
  const key = KEYS[table] ?? 'id';
  const attributes = Object.fromEntries(Object.entries(TABLES[table]).map(([name, type]) => [name, { type, primaryKey: name === key }])) as ModelAttributes<Model<Row, Row>, Row>;
  return sequelize.define(table, attributes, { tableName: table, timestamps: false, freezeTableName: true }) as RowModel;
}

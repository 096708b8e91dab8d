import { describe, expect, it } from 'vitest';
import { migrate } from '@/server/floor/migrate';
import { freshFolder, shell, shellScript } from './folder';

describe('an upgrade from the first release', () => {
  it('keeps every row, trigger and index, and adds its own', async () => {
    const upgraded = await freshFolder({ migrated: false });
    await migrate('001_foundation.sql');
    const names = async () =>
      (
        await shell("SELECT type || ' ' || name AS n FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' ORDER BY n")
      ).rows.map((r) => String(r.n));
    const before = await names();
    await shellScript(`
      INSERT INTO pilots (id, name, mass_kg, created_at, crosswind_credit) VALUES ('p', 'Ada', 70, '2026-01-01', '{"group":"light-tailwheel","kt":9,"date":"2025-12-01"}');
      INSERT INTO users (id, email, name, password_hash, roles, created_at) VALUES ('u', 'u@x.example', 'U', 'x', '["instructor"]', '2026-01-01');
      INSERT INTO types VALUES ('t', 't', 'T'); INSERT INTO type_versions VALUES ('t:1', 't', 1, 1, 205, 1, 'land', '{"masses":{"maxTakeoffKg":{"value":740}},"gear":{"layout":"tailwheel"},"engine":{"powerHp":{"value":205}},"attributes":[{"key":"over-nose","value":"blind"}]}', 'U', 'r', '2026-01-01');
      INSERT INTO airframes VALUES ('a', 'ZP-X', 't'); INSERT INTO airframe_versions VALUES ('a:1', 'a', 1, '{}', 'U', 'r', '2026-01-01');
      INSERT INTO content_versions VALUES ('c', 'house', 'house', 1, 'h', 'o', '{}', 'U', 'r', '2026-01-01');
      INSERT INTO checkouts (id, pilot_id, instructor_id, airframe_id, airframe_version_id, type_version_id, pack, goals, programme_ids, standard_id, pack_id, house_id, schools, opening, request_id, created_by, created_at)
        VALUES ('k', 'p', 'u', 'a', 'a:1', 't:1', 'us', '[]', '[]', 'c', 'c', 'c', '{}', '{}', 'r', 'u', '2026-01-01');
      INSERT INTO sorties VALUES ('s', 'k', 1, '2026-01-02', 'u', '2026-01-02');
      INSERT INTO capture_events VALUES ('e', 'd', 1, 's', 'l', 'u', 'landing-saved', 1, '2026-01-02', '{}', '2026-01-02');
      INSERT INTO landings VALUES ('l', 's', 'k', 'p', 1, 'full-stop', 'own', 'three-point', 'light-tailwheel', 3.5, 2, '2026-01-02', '2026-01-02', 'u', '{}', '{}');
      INSERT INTO briefs VALUES ('b', 'k', 's', 1, '{}', '{}', 'u', '2026-01-02', NULL, NULL, 'rb');`);
    const first = await migrate('016_running.sql');
    await shellScript(`INSERT INTO personal_tokens (id, user_id, name, hash, created_at)
      VALUES ('tok', 'u', 'sheet', 'h', '2026-01-03')`);
    expect([...first, ...(await migrate())]).toEqual([
      '002_hangar_and_brief.sql',
      '003_pictures_and_habits.sql',
      '004_fly.sql',
      '005_traces.sql',
      '006_debrief.sql',
      '007_book.sql',
      '008_people_and_schedule.sql',
      '009_groups.sql',
      '010_stops.sql',
      '011_evidence.sql',
      '012_law.sql',
      '013_doors.sql',
      '014_floor.sql',
      '015_school.sql',
      '016_running.sql',
      '017_interface.sql',
      '018_week.sql',
      '019_kinds.sql',
    ]);
    // A blind type of more than 200 hp: its landings and the wind credited for them are a group of their own now.
    const group = 'light-tailwheel-blind-powerful';
    expect((await shell('SELECT gear_group FROM landings')).rows).toEqual([{ gear_group: group }]);
    expect(
      (
        await shell(
          "SELECT json_extract(crosswind_credit, '$.group') AS g, json_extract(crosswind_credit, '$.kt') AS kt FROM pilots",
        )
      ).rows,
    ).toEqual([{ g: group, kt: 9 }]);
    const after = await names();
    expect(before.filter((n) => !after.includes(n))).toEqual([]);
    expect(after.filter((n) => !before.includes(n) && !n.includes('_told_'))).toEqual([
      'index account_links_user',
      'index booking_holds_booking',
      'index bookings_checkout',
      'index bookings_instructor',
      'index bookings_pilot',
      'index bookings_time',
      'index calendar_feeds_user',
      'index capture_events_device',
      'index capture_events_subject',
      'index changes_thing',
      'index checkout_moves_checkout',
      'index exceedances_airframe',
      'index exceedances_sortie',
      'index finding_decisions_checkout',
      'index flight_log_day',
      'index flight_log_pilot',
      'index groundings_airframe',
      'index landings_day',
      'index landings_measured',
      'index landings_shown',
      'index ledger_checkout',
      'index ledger_of',
      'index logbook_flights_fingerprint',
      'index logbook_flights_import',
      'index logbook_flights_pilot',
      'index logbook_imports_header',
      'index logbook_imports_pilot',
      'index notices_unseen',
      'index notices_user',
      'index person_dates_pilot',
      'index person_notes_pilot',
      'index personal_tokens_user',
      'index pilot_eyes_pilot',
      'index pilot_hours_pilot',
      'index qualifications_ledger',
      'index sessions_user',
      'index side_tallies_airframe',
      'index side_tallies_author',
      'index sign_overrides_checkout',
      'index sorties_shared',
      'index stage_tallies_type',
      'index stops_checkout',
      'index stops_sortie',
      'index times_away_who',
      'index traces_once',
      'index type_drafts_open',
      'index waiting_list_open',
      'index weekly_windows_person',
      'table account_links',
      'table booking_changes',
      'table booking_holds',
      'table bookings',
      'table brief_templates',
      'table calendar_feeds',
      'table change_book',
      'table changes',
      'table checkout_moves',
      'table debriefs',
      'table erasures',
      'table exceedance_releases',
      'table exceedances',
      'table finding_decisions',
      'table flight_log',
      'table flight_log_struck',
      'table grounding_ends',
      'table groundings',
      'table lesson_plans',
      'table logbook_flights',
      'table logbook_imports',
      'table notices',
      'table override_answers',
      'table password_resets',
      'table person_dates',
      'table person_notes',
      'table personal_tokens',
      'table pilot_eyes',
      'table pilot_hours',
      'table power_decisions',
      'table recovery_codes',
      'table second_factor_roles',
      'table second_factors',
      'table self_assessments',
      'table sessions',
      'table side_tallies',
      'table sign_in_addresses',
      'table sign_overrides',
      'table stage_medians',
      'table stage_tallies',
      'table stops',
      'table table_versions',
      'table times_away',
      'table traces',
      'table type_draft_changes',
      'table type_drafts',
      'table waiting_list',
      'table weekly_windows',
      'trigger booking_changes_fixed',
      'trigger booking_changes_kept',
      'trigger booking_holds_apart',
      'trigger booking_holds_fixed',
      'trigger bookings_kept',
      'trigger checkout_moves_fixed',
      'trigger checkout_moves_kept',
      'trigger debriefs_fixed',
      'trigger debriefs_kept',
      'trigger erasures_fixed',
      'trigger erasures_kept',
      'trigger exceedance_releases_fixed',
      'trigger exceedance_releases_kept',
      'trigger exceedances_fixed',
      'trigger exceedances_kept',
      'trigger finding_decisions_fixed',
      'trigger finding_decisions_kept',
      'trigger flight_log_fixed',
      'trigger flight_log_kept',
      'trigger flight_log_struck_fixed',
      'trigger flight_log_struck_kept',
      'trigger grounding_ends_fixed',
      'trigger grounding_ends_kept',
      'trigger groundings_fixed',
      'trigger groundings_kept',
      'trigger lesson_plans_fixed',
      'trigger lesson_plans_kept',
      'trigger logbook_flights_fixed',
      'trigger logbook_flights_kept',
      'trigger override_answers_fixed',
      'trigger override_answers_kept',
      'trigger password_resets_fixed',
      'trigger password_resets_kept',
      'trigger person_dates_fixed',
      'trigger person_dates_kept',
      'trigger person_notes_fixed',
      'trigger person_notes_kept',
      'trigger pilot_eyes_fixed',
      'trigger pilot_eyes_kept',
      'trigger pilot_hours_fixed',
      'trigger pilot_hours_kept',
      'trigger power_decisions_fixed',
      'trigger power_decisions_kept',
      'trigger self_assessments_fixed',
      'trigger self_assessments_kept',
      'trigger sign_overrides_fixed',
      'trigger sign_overrides_kept',
      'trigger traces_fixed',
      'trigger traces_kept',
      'view checkout_types',
      'view newest_types',
      'view signed_checkouts',
      'view signed_entries',
      'view standing_entries',
      'view standing_logbook',
      'view standing_logged',
    ]);
    // What tells programs of changes: triggers alone.
    const telling = after.filter((n) => n.includes('_told_'));
    expect([telling.length, telling.filter((n) => !n.startsWith('trigger '))]).toEqual([44, []]);
    expect((await shell('SELECT id, sheets FROM briefs')).rows).toEqual([{ id: 'b', sheets: null }]);
    expect((await shell('SELECT id, checkout_id, crosswind_kt, surface, tailwheel FROM landings')).rows).toEqual([
      { id: 'l', checkout_id: 'k', crosswind_kt: 3.5, surface: 'land', tailwheel: null },
    ]);
    expect((await shell('SELECT event_id, skew_ms FROM capture_events')).rows).toEqual([
      { event_id: 'e', skew_ms: null },
    ]);
    // A token goes on with what it could do, and what was there is told to who asks for all.
    const scopes = ['checkouts', 'hangar', 'hangar-write', 'traces'];
    expect((await shell('SELECT scopes FROM personal_tokens')).rows).toEqual([{ scopes: JSON.stringify(scopes) }]);
    expect(
      (await shell("SELECT kind || ' ' || thing AS c FROM changes ORDER BY version")).rows.map((r) => r.c),
    ).toEqual(['type t', 'airframe ZP-X', 'rules house/house', 'person p', 'brief b', 'debrief s', 'checkout k']);
    expect((await shell('PRAGMA foreign_key_check')).rows).toEqual([]);
    await upgraded.close();
  });
});

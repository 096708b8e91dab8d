-- What a token may be used for. Those of before keep what they could do: read the hangar, briefs and recordings, import.
ALTER TABLE personal_tokens ADD COLUMN scopes TEXT NOT NULL DEFAULT '[]';
UPDATE personal_tokens SET scopes = '["checkouts","hangar","hangar-write","traces"]';

-- What has changed since a version: of each thing its newest, whoever wrote it. A row is renewed, so that the table is as
-- long as there are things. Versions rise with every write and are never given twice.
CREATE TABLE changes (
  version INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL,
  thing TEXT NOT NULL,
  pilot_id TEXT
);
CREATE UNIQUE INDEX changes_thing ON changes(kind, thing);
-- Of which book the versions are: another one after a backup was brought back, whose versions were given before.
CREATE TABLE change_book (id TEXT PRIMARY KEY);
INSERT INTO change_book (id) VALUES (lower(hex(randomblob(6))));

-- What tells of a change must never fail the write it tells of: a landing of a pilot without a checkout here has none.
CREATE TRIGGER bookings_told_insert AFTER INSERT ON bookings BEGIN
  DELETE FROM changes WHERE kind = 'booking' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'booking', NEW.id, NEW.pilot_id WHERE NEW.id IS NOT NULL;
END;
CREATE TRIGGER bookings_told_update AFTER UPDATE ON bookings BEGIN
  DELETE FROM changes WHERE kind = 'booking' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'booking', NEW.id, NEW.pilot_id WHERE NEW.id IS NOT NULL;
END;
CREATE TRIGGER checkouts_told_insert AFTER INSERT ON checkouts BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', NEW.id, NEW.pilot_id WHERE NEW.id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER checkouts_told_update AFTER UPDATE ON checkouts BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', NEW.id, NEW.pilot_id WHERE NEW.id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER checkout_moves_told_insert AFTER INSERT ON checkout_moves BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER finding_decisions_told_insert AFTER INSERT ON finding_decisions BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER sign_overrides_told_insert AFTER INSERT ON sign_overrides BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER briefs_told_insert AFTER INSERT ON briefs BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
  DELETE FROM changes WHERE kind = 'brief' AND thing IN
    (SELECT NEW.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'brief', NEW.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER briefs_told_update AFTER UPDATE ON briefs BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
  DELETE FROM changes WHERE kind = 'brief' AND thing IN
    (SELECT NEW.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'brief', NEW.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER lesson_plans_told_insert AFTER INSERT ON lesson_plans BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER override_answers_told_insert AFTER INSERT ON override_answers BEGIN
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sign_overrides o JOIN checkouts c ON c.id = o.checkout_id WHERE o.id = NEW.override_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sign_overrides o JOIN checkouts c ON c.id = o.checkout_id WHERE o.id = NEW.override_id;
END;
CREATE TRIGGER sorties_told_insert AFTER INSERT ON sorties BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT NEW.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', NEW.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER sorties_told_update AFTER UPDATE ON sorties BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT NEW.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', NEW.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER debriefs_told_insert AFTER INSERT ON debriefs BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER debriefs_told_update AFTER UPDATE ON debriefs BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER self_assessments_told_insert AFTER INSERT ON self_assessments BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER capture_events_told_insert AFTER INSERT ON capture_events BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER traces_told_insert AFTER INSERT ON traces BEGIN
  DELETE FROM changes WHERE kind = 'trace' AND thing IN
    (SELECT NEW.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'trace', NEW.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER traces_told_update AFTER UPDATE ON traces BEGIN
  DELETE FROM changes WHERE kind = 'trace' AND thing IN
    (SELECT NEW.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'trace', NEW.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
END;
CREATE TRIGGER landings_told_insert AFTER INSERT ON landings BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing = NEW.checkout_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', NEW.checkout_id, NEW.pilot_id WHERE NEW.checkout_id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER landings_told_update AFTER UPDATE ON landings BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = NEW.sortie_id OR s.shared_with = NEW.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing = NEW.checkout_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', NEW.checkout_id, NEW.pilot_id WHERE NEW.checkout_id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER landings_told_delete AFTER DELETE ON landings BEGIN
  DELETE FROM changes WHERE kind = 'debrief' AND thing IN
    (SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = OLD.sortie_id OR s.shared_with = OLD.sortie_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
      WHERE s.id = OLD.sortie_id OR s.shared_with = OLD.sortie_id;
  DELETE FROM changes WHERE kind = 'checkout' AND thing = OLD.checkout_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', OLD.checkout_id, OLD.pilot_id WHERE OLD.checkout_id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'person' AND thing = OLD.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', OLD.pilot_id, OLD.pilot_id WHERE OLD.pilot_id IS NOT NULL;
END;
CREATE TRIGGER ledger_told_insert AFTER INSERT ON ledger BEGIN
  DELETE FROM changes WHERE kind = 'ledger' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'ledger', NEW.id, (SELECT pilot_id FROM checkouts WHERE id = NEW.checkout_id) WHERE NEW.id IS NOT NULL;
  DELETE FROM changes WHERE kind = 'checkout' AND thing IN
    (SELECT c.id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'checkout', c.id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
  DELETE FROM changes WHERE kind = 'person' AND thing IN
    (SELECT c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', c.pilot_id, c.pilot_id FROM checkouts c WHERE c.id = NEW.checkout_id;
END;
CREATE TRIGGER pilots_told_insert AFTER INSERT ON pilots BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.id, NEW.id WHERE NEW.id IS NOT NULL;
END;
CREATE TRIGGER pilots_told_update AFTER UPDATE ON pilots BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.id, NEW.id WHERE NEW.id IS NOT NULL;
END;
CREATE TRIGGER users_told_insert AFTER INSERT ON users BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing IN
    (SELECT NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER users_told_update AFTER UPDATE ON users BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing IN
    (SELECT NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER qualifications_told_insert AFTER INSERT ON qualifications BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER qualifications_told_update AFTER UPDATE ON qualifications BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER qualifications_told_delete AFTER DELETE ON qualifications BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = OLD.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', OLD.pilot_id, OLD.pilot_id WHERE OLD.pilot_id IS NOT NULL;
END;
CREATE TRIGGER person_dates_told_insert AFTER INSERT ON person_dates BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER person_dates_told_update AFTER UPDATE ON person_dates BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER pilot_hours_told_insert AFTER INSERT ON pilot_hours BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER pilot_hours_told_update AFTER UPDATE ON pilot_hours BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER pilot_hours_told_delete AFTER DELETE ON pilot_hours BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = OLD.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', OLD.pilot_id, OLD.pilot_id WHERE OLD.pilot_id IS NOT NULL;
END;
CREATE TRIGGER flight_log_told_insert AFTER INSERT ON flight_log BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER flight_log_told_delete AFTER DELETE ON flight_log BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = OLD.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', OLD.pilot_id, OLD.pilot_id WHERE OLD.pilot_id IS NOT NULL;
END;
CREATE TRIGGER logbook_flights_told_insert AFTER INSERT ON logbook_flights BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER logbook_flights_told_delete AFTER DELETE ON logbook_flights BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = OLD.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', OLD.pilot_id, OLD.pilot_id WHERE OLD.pilot_id IS NOT NULL;
END;
CREATE TRIGGER logbook_imports_told_update AFTER UPDATE ON logbook_imports BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing = NEW.pilot_id;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', NEW.pilot_id, NEW.pilot_id WHERE NEW.pilot_id IS NOT NULL;
END;
CREATE TRIGGER flight_log_struck_told_insert AFTER INSERT ON flight_log_struck BEGIN
  DELETE FROM changes WHERE kind = 'person' AND thing IN
    (SELECT f.pilot_id FROM flight_log f WHERE f.id = NEW.log_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'person', f.pilot_id, f.pilot_id FROM flight_log f WHERE f.id = NEW.log_id;
END;
CREATE TRIGGER type_versions_told_insert AFTER INSERT ON type_versions BEGIN
  DELETE FROM changes WHERE kind = 'type' AND thing IN
    (SELECT t.code FROM types t WHERE t.id = NEW.type_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'type', t.code, NULL FROM types t WHERE t.id = NEW.type_id;
END;
CREATE TRIGGER airframe_versions_told_insert AFTER INSERT ON airframe_versions BEGIN
  DELETE FROM changes WHERE kind = 'airframe' AND thing IN
    (SELECT a.registration FROM airframes a WHERE a.id = NEW.airframe_id);
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'airframe', a.registration, NULL FROM airframes a WHERE a.id = NEW.airframe_id;
END;
CREATE TRIGGER content_versions_told_insert AFTER INSERT ON content_versions BEGIN
  DELETE FROM changes WHERE kind = 'rules' AND thing = NEW.kind || '/' || NEW.key;
  INSERT OR REPLACE INTO changes (kind, thing, pilot_id)
    SELECT 'rules', NEW.kind || '/' || NEW.key, NULL WHERE NEW.kind || '/' || NEW.key IS NOT NULL;
END;

-- What was there before.
INSERT INTO changes (kind, thing, pilot_id) SELECT 'type', code, NULL FROM types ORDER BY code;
INSERT INTO changes (kind, thing, pilot_id) SELECT 'airframe', registration, NULL FROM airframes ORDER BY registration;
INSERT INTO changes (kind, thing, pilot_id) SELECT DISTINCT 'rules', kind || '/' || key, NULL FROM content_versions;
INSERT INTO changes (kind, thing, pilot_id) SELECT 'person', id, id FROM pilots ORDER BY id;
INSERT INTO changes (kind, thing, pilot_id) SELECT 'checkout', id, pilot_id FROM checkouts ORDER BY created_at, id;
INSERT INTO changes (kind, thing, pilot_id)
  SELECT 'brief', b.id, c.pilot_id FROM briefs b JOIN checkouts c ON c.id = b.checkout_id ORDER BY b.created_at, b.id;
INSERT INTO changes (kind, thing, pilot_id)
  SELECT 'debrief', s.id, c.pilot_id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id ORDER BY s.created_at, s.id;
INSERT INTO changes (kind, thing, pilot_id)
  SELECT 'trace', t.id, c.pilot_id FROM traces t JOIN sorties s ON s.id = t.sortie_id JOIN checkouts c ON c.id = s.checkout_id
  ORDER BY t.uploaded_at, t.id;
INSERT INTO changes (kind, thing, pilot_id) SELECT 'booking', id, pilot_id FROM bookings ORDER BY booked_at, id;
INSERT INTO changes (kind, thing, pilot_id)
  SELECT 'ledger', l.id, c.pilot_id FROM ledger l LEFT JOIN checkouts c ON c.id = l.checkout_id ORDER BY l.seq;

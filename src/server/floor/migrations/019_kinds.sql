-- Hours in other schools' types are entered by kind: what they are of is no longer a type of the hangar alone
CREATE TABLE pilot_hours_new (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), type_code TEXT NOT NULL, hours REAL NOT NULL CHECK (hours >= 0), last_flown TEXT NOT NULL,
  entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, seq INTEGER NOT NULL, pic REAL CHECK (pic IS NULL OR pic >= 0)
);
INSERT INTO pilot_hours_new (id, pilot_id, type_code, hours, last_flown, entered_by, entered_at, seq, pic)
  SELECT id, pilot_id, type_code, hours, last_flown, entered_by, entered_at, seq, pic FROM pilot_hours;
DROP TRIGGER pilot_hours_kept;
DROP TRIGGER pilot_hours_told_delete;
DROP TABLE pilot_hours;
ALTER TABLE pilot_hours_new RENAME TO pilot_hours;
CREATE UNIQUE INDEX pilot_hours_pilot ON pilot_hours(pilot_id, type_code, seq);
CREATE TRIGGER pilot_hours_fixed BEFORE UPDATE ON pilot_hours BEGIN SELECT RAISE(ABORT, 'an entry of hours is never changed: enter a new one'); END;
CREATE TRIGGER pilot_hours_kept BEFORE DELETE ON pilot_hours WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'an entry of hours is never removed'); END;
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

-- What an open checkout of the same pilot had already shown when this one was opened: item, checkout and day
ALTER TABLE checkouts ADD COLUMN carried TEXT NOT NULL DEFAULT '[]';

-- What a pilot has flown, by type, as entered; the newest entry of a type governs, earlier ones stay
CREATE TABLE pilot_hours (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), type_code TEXT NOT NULL REFERENCES types(code), hours REAL NOT NULL CHECK (hours >= 0), last_flown TEXT NOT NULL,
  entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, seq INTEGER NOT NULL
);
CREATE UNIQUE INDEX pilot_hours_pilot ON pilot_hours(pilot_id, type_code, seq);
CREATE TRIGGER pilot_hours_fixed BEFORE UPDATE ON pilot_hours BEGIN SELECT RAISE(ABORT, 'an entry of hours is never changed: enter a new one'); END;
CREATE TRIGGER pilot_hours_kept BEFORE DELETE ON pilot_hours BEGIN SELECT RAISE(ABORT, 'an entry of hours is never removed'); END;

-- Height of a pilot's eye in a seat of a type, three wheels down; the newest governs
CREATE TABLE pilot_eyes (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), type_code TEXT NOT NULL REFERENCES types(code), seat TEXT NOT NULL, eye_height_m REAL NOT NULL, how TEXT NOT NULL,
  entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, seq INTEGER NOT NULL
);
CREATE UNIQUE INDEX pilot_eyes_pilot ON pilot_eyes(pilot_id, type_code, seat, seq);
CREATE TRIGGER pilot_eyes_fixed BEFORE UPDATE ON pilot_eyes BEGIN SELECT RAISE(ABORT, 'a measurement is never changed: enter a new one'); END;
CREATE TRIGGER pilot_eyes_kept BEFORE DELETE ON pilot_eyes BEGIN SELECT RAISE(ABORT, 'a measurement is never removed'); END;

-- What a person shows with a date on it: medical, flight review, class rating. The newest of a key governs, earlier ones stay.
CREATE TABLE person_dates (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), key TEXT NOT NULL, title TEXT NOT NULL, done_on TEXT, until TEXT, note TEXT NOT NULL,
  entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, seq INTEGER NOT NULL, CHECK (done_on IS NOT NULL OR until IS NOT NULL)
);
CREATE UNIQUE INDEX person_dates_pilot ON person_dates(pilot_id, key, seq);
CREATE TRIGGER person_dates_fixed BEFORE UPDATE ON person_dates BEGIN SELECT RAISE(ABORT, 'a date is never changed: enter a new one'); END;

-- Notes about a person: for the pilot too, for the staff, for the chief alone
CREATE TABLE person_notes (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), text TEXT NOT NULL, visible TEXT NOT NULL CHECK (visible IN ('pilot', 'staff', 'chief')),
  author TEXT NOT NULL REFERENCES users(id), written_at TEXT NOT NULL, withdrawn_at TEXT
);
CREATE INDEX person_notes_pilot ON person_notes(pilot_id);

-- A person asked to be forgotten: what may go is gone from then on, and only then may it be deleted
CREATE TABLE erasures (id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL UNIQUE REFERENCES pilots(id), reason TEXT NOT NULL, kept TEXT NOT NULL, erased_by TEXT NOT NULL REFERENCES users(id), erased_at TEXT NOT NULL);
CREATE TRIGGER erasures_fixed BEFORE UPDATE ON erasures BEGIN SELECT RAISE(ABORT, 'an erasure is never changed'); END;
CREATE TRIGGER erasures_kept BEFORE DELETE ON erasures BEGIN SELECT RAISE(ABORT, 'an erasure is never removed'); END;
CREATE TRIGGER person_dates_kept BEFORE DELETE ON person_dates WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'a date is never removed'); END;
CREATE TRIGGER person_notes_fixed BEFORE UPDATE ON person_notes WHEN NEW.text <> OLD.text OR NEW.visible <> OLD.visible OR NEW.author <> OLD.author OR OLD.withdrawn_at IS NOT NULL BEGIN SELECT RAISE(ABORT, 'a note is withdrawn, never changed'); END;
CREATE TRIGGER person_notes_kept BEFORE DELETE ON person_notes WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'a note is withdrawn, never removed'); END;
DROP TRIGGER pilot_eyes_kept;
CREATE TRIGGER pilot_eyes_kept BEFORE DELETE ON pilot_eyes WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'a measurement is never removed'); END;
DROP TRIGGER pilot_hours_kept;
CREATE TRIGGER pilot_hours_kept BEFORE DELETE ON pilot_hours WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'an entry of hours is never removed'); END;
DROP TRIGGER flight_log_kept;
CREATE TRIGGER flight_log_kept BEFORE DELETE ON flight_log WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'a logged flight is never removed'); END;
DROP TRIGGER flight_log_struck_kept;
CREATE TRIGGER flight_log_struck_kept BEFORE DELETE ON flight_log_struck WHEN NOT EXISTS (SELECT 1 FROM erasures e JOIN flight_log f ON f.pilot_id = e.pilot_id WHERE f.id = OLD.log_id) BEGIN SELECT RAISE(ABORT, 'what was struck stays struck'); END;

-- A logbook read in: how its columns were read, so that the next file of the same form needs no asking; each flight once, by what it is
CREATE TABLE logbook_imports (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), file_name TEXT NOT NULL, header TEXT NOT NULL, mapping TEXT NOT NULL, read_rows INTEGER NOT NULL, added INTEGER NOT NULL, doubled INTEGER NOT NULL, refused INTEGER NOT NULL,
  imported_by TEXT NOT NULL REFERENCES users(id), imported_at TEXT NOT NULL, taken_back_at TEXT, taken_back_by TEXT REFERENCES users(id)
);
CREATE INDEX logbook_imports_pilot ON logbook_imports(pilot_id);
CREATE INDEX logbook_imports_header ON logbook_imports(header, imported_at);
CREATE TABLE logbook_flights (
  id TEXT PRIMARY KEY, import_id TEXT NOT NULL REFERENCES logbook_imports(id), pilot_id TEXT NOT NULL REFERENCES pilots(id), flown_on TEXT NOT NULL, type_written TEXT NOT NULL, registration TEXT NOT NULL,
  type_code TEXT REFERENCES types(code), engines INTEGER NOT NULL, tailwheel INTEGER NOT NULL, surface TEXT NOT NULL CHECK (surface IN ('land', 'water')),
  takeoffs_day INTEGER NOT NULL, takeoffs_night INTEGER NOT NULL, landings_day INTEGER NOT NULL, landings_night INTEGER NOT NULL, full_stops_day INTEGER NOT NULL, full_stops_night INTEGER NOT NULL,
  hours REAL NOT NULL CHECK (hours >= 0), pic_hours REAL, dual INTEGER NOT NULL, remark TEXT NOT NULL, fingerprint TEXT NOT NULL
);
CREATE INDEX logbook_flights_pilot ON logbook_flights(pilot_id, flown_on);
CREATE INDEX logbook_flights_import ON logbook_flights(import_id);
CREATE INDEX logbook_flights_fingerprint ON logbook_flights(pilot_id, fingerprint);
CREATE TRIGGER logbook_flights_fixed BEFORE UPDATE ON logbook_flights BEGIN SELECT RAISE(ABORT, 'an imported flight is never changed: take the import back'); END;
CREATE TRIGGER logbook_flights_kept BEFORE DELETE ON logbook_flights WHEN NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = OLD.pilot_id) BEGIN SELECT RAISE(ABORT, 'an imported flight is never removed: take the import back'); END;

-- The schedule. What a booking takes stands in holds, one row a person or aeroplane: the database itself refuses two at once.
CREATE TABLE bookings (
  id TEXT PRIMARY KEY, kind TEXT NOT NULL CHECK (kind IN ('lesson', 'hire', 'currency', 'other')), pilot_id TEXT REFERENCES pilots(id), instructor_id TEXT REFERENCES users(id), airframe_id TEXT REFERENCES airframes(id), checkout_id TEXT REFERENCES checkouts(id),
  starts_at TEXT NOT NULL, ends_at TEXT NOT NULL CHECK (ends_at > starts_at), split TEXT, passengers INTEGER NOT NULL DEFAULT 0, surface TEXT NOT NULL DEFAULT 'any', note TEXT NOT NULL, state TEXT NOT NULL CHECK (state IN ('booked', 'cancelled')), version INTEGER NOT NULL,
  booked_by TEXT NOT NULL REFERENCES users(id), booked_at TEXT NOT NULL, request_id TEXT NOT NULL UNIQUE
);
CREATE INDEX bookings_time ON bookings(starts_at, state);
CREATE INDEX bookings_checkout ON bookings(checkout_id) WHERE checkout_id IS NOT NULL;
CREATE INDEX bookings_instructor ON bookings(instructor_id, starts_at);
CREATE INDEX bookings_pilot ON bookings(pilot_id, starts_at);
CREATE TRIGGER bookings_kept BEFORE DELETE ON bookings BEGIN SELECT RAISE(ABORT, 'a booking is cancelled, never removed'); END;
CREATE TABLE booking_holds (booking_id TEXT NOT NULL REFERENCES bookings(id), holder TEXT NOT NULL, starts_at TEXT NOT NULL, ends_at TEXT NOT NULL, PRIMARY KEY (holder, starts_at)) WITHOUT ROWID;
CREATE INDEX booking_holds_booking ON booking_holds(booking_id);
CREATE TRIGGER booking_holds_apart BEFORE INSERT ON booking_holds
WHEN EXISTS (SELECT 1 FROM booking_holds h WHERE h.holder = NEW.holder AND h.starts_at < NEW.ends_at AND h.ends_at > NEW.starts_at)
BEGIN SELECT RAISE(ABORT, 'taken already at that time'); END;
CREATE TRIGGER booking_holds_fixed BEFORE UPDATE ON booking_holds BEGIN SELECT RAISE(ABORT, 'a hold is put down and taken up, never changed'); END;
-- Everything that happened to a booking
CREATE TABLE booking_changes (id TEXT PRIMARY KEY, booking_id TEXT NOT NULL REFERENCES bookings(id), version INTEGER NOT NULL, what TEXT NOT NULL, body TEXT NOT NULL, reason TEXT NOT NULL, changed_by TEXT NOT NULL REFERENCES users(id), changed_at TEXT NOT NULL, UNIQUE (booking_id, version));
CREATE TRIGGER booking_changes_fixed BEFORE UPDATE ON booking_changes BEGIN SELECT RAISE(ABORT, 'what happened is never changed'); END;
CREATE TRIGGER booking_changes_kept BEFORE DELETE ON booking_changes BEGIN SELECT RAISE(ABORT, 'what happened is never removed'); END;

-- When a person can be booked each week, and when they are away or an aeroplane is down
CREATE TABLE weekly_windows (id TEXT PRIMARY KEY, person TEXT NOT NULL, weekday INTEGER NOT NULL CHECK (weekday BETWEEN 1 AND 7), from_min INTEGER NOT NULL, to_min INTEGER NOT NULL, valid_from TEXT NOT NULL, valid_until TEXT, entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, ended_at TEXT, CHECK (to_min > from_min AND from_min >= 0 AND to_min <= 1440));
CREATE INDEX weekly_windows_person ON weekly_windows(person) WHERE ended_at IS NULL;
CREATE TABLE times_away (id TEXT PRIMARY KEY, who TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('away', 'maintenance')), from_at TEXT NOT NULL, to_at TEXT, why TEXT NOT NULL, entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL, ended_at TEXT, ended_by TEXT REFERENCES users(id), ended_why TEXT);
CREATE INDEX times_away_who ON times_away(who) WHERE ended_at IS NULL;

-- Who waits for a slot
CREATE TABLE waiting_list (id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), checkout_id TEXT REFERENCES checkouts(id), minutes INTEGER NOT NULL, from_date TEXT NOT NULL, to_date TEXT NOT NULL, note TEXT NOT NULL, asked_by TEXT NOT NULL REFERENCES users(id), asked_at TEXT NOT NULL, ended_at TEXT, ended_how TEXT, booking_id TEXT REFERENCES bookings(id));
CREATE INDEX waiting_list_open ON waiting_list(pilot_id) WHERE ended_at IS NULL;

-- A calendar that can be subscribed to: only the hash of its address is kept
CREATE TABLE calendar_feeds (id TEXT PRIMARY KEY, user_id TEXT NOT NULL REFERENCES users(id), hash TEXT NOT NULL UNIQUE, alarm_min INTEGER NOT NULL, created_at TEXT NOT NULL, ended_at TEXT);
CREATE INDEX calendar_feeds_user ON calendar_feeds(user_id);

-- What somebody should hear of
CREATE TABLE notices (id TEXT PRIMARY KEY, user_id TEXT NOT NULL REFERENCES users(id), kind TEXT NOT NULL, text TEXT NOT NULL, href TEXT NOT NULL, about TEXT NOT NULL, made_at TEXT NOT NULL, seq INTEGER NOT NULL, seen_at TEXT);
CREATE UNIQUE INDEX notices_user ON notices(user_id, seq);
CREATE INDEX notices_unseen ON notices(user_id) WHERE seen_at IS NULL;

-- Recent experience of everybody reads a window of days out of one index: what it asks of a landing stands beside what was captured
ALTER TABLE landings ADD COLUMN level INTEGER;
ALTER TABLE landings ADD COLUMN shown INTEGER NOT NULL DEFAULT 0;
ALTER TABLE landings ADD COLUMN ended_at TEXT;
UPDATE landings SET level = json_extract(captured, '$.intervention'), shown = COALESCE(json_extract(captured, '$.demonstration'), 0), ended_at = COALESCE(json_extract(captured, '$.endedAt'), saved_at);
CREATE INDEX landings_day ON landings(flown_on, pilot_id, checkout_id, kind, surface, level, shown, ended_at);
CREATE INDEX landings_shown ON landings(author, flown_on) WHERE landing_class = 'demonstration';
CREATE INDEX flight_log_day ON flight_log(flown_on);
-- An account that is closed does not sign in
ALTER TABLE users ADD COLUMN closed_at TEXT;

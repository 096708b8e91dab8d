-- A cookie names its session, so that signing out ends it
CREATE TABLE sessions (
  id TEXT PRIMARY KEY, user_id TEXT NOT NULL REFERENCES users(id), made_at TEXT NOT NULL, ended_at TEXT
);
CREATE INDEX sessions_user ON sessions(user_id);

-- Where an account was signed in from before: a lock never locks that address. Kept as a keyed hash
CREATE TABLE sign_in_addresses (
  user_id TEXT NOT NULL REFERENCES users(id), address_hash TEXT NOT NULL, last_at TEXT NOT NULL, PRIMARY KEY (user_id, address_hash)
);

-- A password given by somebody else: its owner changes it before anything is signed, and what is signed after says so
ALTER TABLE users ADD COLUMN password_given_by TEXT REFERENCES users(id);
ALTER TABLE users ADD COLUMN password_given_at TEXT;
ALTER TABLE users ADD COLUMN password_own_at TEXT;
CREATE TABLE password_resets (
  id TEXT PRIMARY KEY, user_id TEXT NOT NULL REFERENCES users(id), given_by TEXT NOT NULL REFERENCES users(id), given_at TEXT NOT NULL
);
CREATE TRIGGER password_resets_fixed BEFORE UPDATE ON password_resets BEGIN SELECT RAISE(ABORT, 'what was done to a password is never changed'); END;
CREATE TRIGGER password_resets_kept BEFORE DELETE ON password_resets BEGIN SELECT RAISE(ABORT, 'what was done to a password is never removed'); END;

ALTER TABLE personal_tokens ADD COLUMN expires_at TEXT;
UPDATE personal_tokens SET expires_at = strftime('%Y-%m-%dT%H:%M:%fZ', created_at, '+1 year');
ALTER TABLE calendar_feeds ADD COLUMN expires_at TEXT;
ALTER TABLE calendar_feeds ADD COLUMN last_used_at TEXT;
UPDATE calendar_feeds SET expires_at = strftime('%Y-%m-%dT%H:%M:%fZ', created_at, '+1 year');

-- Counters are each author's own: nobody uses up another's
CREATE TABLE capture_events_new (
  event_id TEXT PRIMARY KEY, device_id TEXT NOT NULL, device_seq INTEGER NOT NULL, sortie_id TEXT NOT NULL REFERENCES sorties(id), subject_id TEXT NOT NULL,
  author TEXT NOT NULL REFERENCES users(id), type TEXT NOT NULL, v INTEGER NOT NULL, device_time TEXT NOT NULL, payload TEXT NOT NULL, received_at TEXT NOT NULL, skew_ms INTEGER,
  UNIQUE (author, device_id, device_seq)
);
INSERT INTO capture_events_new (event_id, device_id, device_seq, sortie_id, subject_id, author, type, v, device_time, payload, received_at, skew_ms)
  SELECT event_id, device_id, device_seq, sortie_id, subject_id, author, type, v, device_time, payload, received_at, skew_ms FROM capture_events ORDER BY rowid;
DROP TABLE capture_events;
ALTER TABLE capture_events_new RENAME TO capture_events;
CREATE INDEX capture_events_sortie ON capture_events(sortie_id);
CREATE INDEX capture_events_subject ON capture_events(subject_id);
CREATE INDEX capture_events_device ON capture_events(device_id, device_seq);
CREATE TRIGGER capture_events_fixed BEFORE UPDATE ON capture_events BEGIN SELECT RAISE(ABORT, 'capture events are append-only'); END;
CREATE TRIGGER capture_events_kept BEFORE DELETE ON capture_events BEGIN SELECT RAISE(ABORT, 'capture events are append-only'); END;
CREATE TRIGGER capture_events_once BEFORE INSERT ON capture_events
WHEN EXISTS (SELECT 1 FROM capture_events WHERE event_id = NEW.event_id OR (author = NEW.author AND device_id = NEW.device_id AND device_seq = NEW.device_seq))
BEGIN SELECT RAISE(ABORT, 'this capture event is recorded already'); END;

-- What a person who asked to be forgotten wrote, or others of them, may be taken out of what stays; nothing else of it changes
DROP TRIGGER booking_changes_fixed;
CREATE TRIGGER booking_changes_fixed BEFORE UPDATE ON booking_changes
WHEN NEW.id <> OLD.id OR NEW.booking_id <> OLD.booking_id OR NEW.version <> OLD.version OR NEW.what <> OLD.what OR NEW.changed_by <> OLD.changed_by OR NEW.changed_at <> OLD.changed_at
  OR NOT EXISTS (SELECT 1 FROM erasures e JOIN bookings b ON b.pilot_id = e.pilot_id WHERE b.id = OLD.booking_id)
BEGIN SELECT RAISE(ABORT, 'what happened is never changed'); END;
DROP TRIGGER traces_fixed;
CREATE TRIGGER traces_fixed BEFORE UPDATE ON traces
WHEN NEW.id <> OLD.id OR NEW.sortie_id <> OLD.sortie_id OR NEW.airframe_id <> OLD.airframe_id OR NEW.hash <> OLD.hash OR NEW.bytes <> OLD.bytes OR NEW.mapping IS NOT OLD.mapping OR NEW.context <> OLD.context
  OR NEW.analysis <> OLD.analysis OR NEW.start_utc IS NOT OLD.start_utc OR NEW.uploaded_by <> OLD.uploaded_by OR NEW.uploaded_at <> OLD.uploaded_at
  OR NOT EXISTS (SELECT 1 FROM erasures e JOIN checkouts c ON c.pilot_id = e.pilot_id JOIN sorties s ON s.checkout_id = c.id WHERE s.id = OLD.sortie_id)
BEGIN SELECT RAISE(ABORT, 'a trace is never changed'); END;

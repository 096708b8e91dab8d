-- People
CREATE TABLE pilots (
  id TEXT PRIMARY KEY, name TEXT NOT NULL, mass_kg REAL NOT NULL, experience TEXT NOT NULL DEFAULT '', hours REAL NOT NULL DEFAULT 0,
  crosswind_credit TEXT, experience_since TEXT NOT NULL DEFAULT '{}', created_at TEXT NOT NULL
);
CREATE TABLE users (
  id TEXT PRIMARY KEY, email TEXT NOT NULL UNIQUE COLLATE NOCASE, name TEXT NOT NULL, password_hash TEXT NOT NULL,
  roles TEXT NOT NULL, session_version INTEGER NOT NULL DEFAULT 1, pilot_id TEXT REFERENCES pilots(id),
  mass_kg REAL NOT NULL DEFAULT 80, authorised TEXT NOT NULL DEFAULT '[]', own_crosswind_kt REAL, created_at TEXT NOT NULL
);
CREATE UNIQUE INDEX users_pilot ON users(pilot_id) WHERE pilot_id IS NOT NULL;
CREATE TABLE qualifications (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), kind TEXT NOT NULL, gained_on TEXT, note TEXT NOT NULL DEFAULT '', ledger_id TEXT
);
CREATE INDEX qualifications_pilot ON qualifications(pilot_id);

-- Versioned content: standards, programmes, packs, house rules, schools, aerodromes
CREATE TABLE content_versions (
  id TEXT PRIMARY KEY, kind TEXT NOT NULL, key TEXT NOT NULL, version INTEGER NOT NULL, hash TEXT NOT NULL, origin TEXT NOT NULL,
  body TEXT NOT NULL, author TEXT NOT NULL, reason TEXT NOT NULL, created_at TEXT NOT NULL, UNIQUE (kind, key, version)
);
CREATE TRIGGER content_versions_fixed BEFORE UPDATE ON content_versions BEGIN SELECT RAISE(ABORT, 'a version never changes: add a new one'); END;
CREATE TRIGGER content_versions_kept BEFORE DELETE ON content_versions BEGIN SELECT RAISE(ABORT, 'a version is never removed'); END;

-- Hangar: a type and a registration, each with immutable versions
CREATE TABLE types (id TEXT PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL);
CREATE TABLE type_versions (
  id TEXT PRIMARY KEY, type_id TEXT NOT NULL REFERENCES types(id), version INTEGER NOT NULL, tailwheel INTEGER NOT NULL, power_hp REAL NOT NULL,
  engines INTEGER NOT NULL, surface TEXT NOT NULL, sheet TEXT NOT NULL, author TEXT NOT NULL, reason TEXT NOT NULL, created_at TEXT NOT NULL, UNIQUE (type_id, version)
);
CREATE TRIGGER type_versions_fixed BEFORE UPDATE ON type_versions BEGIN SELECT RAISE(ABORT, 'a version never changes: add a new one'); END;
CREATE TRIGGER type_versions_kept BEFORE DELETE ON type_versions BEGIN SELECT RAISE(ABORT, 'a version is never removed'); END;
CREATE TABLE airframes (id TEXT PRIMARY KEY, registration TEXT NOT NULL UNIQUE, type_id TEXT NOT NULL REFERENCES types(id));
CREATE TABLE airframe_versions (
  id TEXT PRIMARY KEY, airframe_id TEXT NOT NULL REFERENCES airframes(id), version INTEGER NOT NULL, sheet TEXT NOT NULL,
  author TEXT NOT NULL, reason TEXT NOT NULL, created_at TEXT NOT NULL, UNIQUE (airframe_id, version)
);
CREATE TRIGGER airframe_versions_fixed BEFORE UPDATE ON airframe_versions BEGIN SELECT RAISE(ABORT, 'a version never changes: add a new one'); END;
CREATE TRIGGER airframe_versions_kept BEFORE DELETE ON airframe_versions BEGIN SELECT RAISE(ABORT, 'a version is never removed'); END;

-- Work
CREATE TABLE checkouts (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), instructor_id TEXT NOT NULL REFERENCES users(id),
  airframe_id TEXT NOT NULL REFERENCES airframes(id), airframe_version_id TEXT NOT NULL REFERENCES airframe_versions(id),
  type_version_id TEXT NOT NULL REFERENCES type_versions(id), pack TEXT NOT NULL, goals TEXT NOT NULL, programme_ids TEXT NOT NULL,
  standard_id TEXT NOT NULL REFERENCES content_versions(id), pack_id TEXT NOT NULL REFERENCES content_versions(id), house_id TEXT NOT NULL REFERENCES content_versions(id),
  schools TEXT NOT NULL, opening TEXT NOT NULL, note TEXT NOT NULL DEFAULT '', status TEXT NOT NULL DEFAULT 'open', signed_ledger_id TEXT,
  request_id TEXT NOT NULL UNIQUE, created_by TEXT NOT NULL REFERENCES users(id), created_at TEXT NOT NULL
);
CREATE INDEX checkouts_pilot ON checkouts(pilot_id);
CREATE INDEX checkouts_instructor ON checkouts(instructor_id, status);
CREATE TABLE sorties (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), lesson INTEGER NOT NULL, flown_on TEXT NOT NULL,
  instructor_id TEXT NOT NULL REFERENCES users(id), created_at TEXT NOT NULL, UNIQUE (checkout_id, lesson)
);
CREATE TABLE briefs (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), sortie_id TEXT NOT NULL REFERENCES sorties(id), version INTEGER NOT NULL,
  choices TEXT NOT NULL, snapshot TEXT NOT NULL, created_by TEXT NOT NULL REFERENCES users(id), created_at TEXT NOT NULL,
  acknowledged_by TEXT REFERENCES users(id), acknowledged_at TEXT, request_id TEXT NOT NULL UNIQUE, UNIQUE (sortie_id, version)
);
CREATE TRIGGER briefs_fixed BEFORE UPDATE ON briefs
WHEN NEW.snapshot <> OLD.snapshot OR NEW.choices <> OLD.choices OR NEW.sortie_id <> OLD.sortie_id OR OLD.acknowledged_at IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'a brief never changes: save a new one'); END;
CREATE TRIGGER briefs_kept BEFORE DELETE ON briefs BEGIN SELECT RAISE(ABORT, 'a brief is never removed'); END;

-- Capture: append-only events, and the landings projected from them
CREATE TABLE capture_events (
  event_id TEXT PRIMARY KEY, device_id TEXT NOT NULL, device_seq INTEGER NOT NULL, sortie_id TEXT NOT NULL REFERENCES sorties(id), subject_id TEXT NOT NULL,
  author TEXT NOT NULL REFERENCES users(id), type TEXT NOT NULL, v INTEGER NOT NULL, device_time TEXT NOT NULL, payload TEXT NOT NULL, received_at TEXT NOT NULL,
  UNIQUE (device_id, device_seq)
);
CREATE INDEX capture_events_sortie ON capture_events(sortie_id);
CREATE TRIGGER capture_events_fixed BEFORE UPDATE ON capture_events BEGIN SELECT RAISE(ABORT, 'capture events are append-only'); END;
CREATE TRIGGER capture_events_kept BEFORE DELETE ON capture_events BEGIN SELECT RAISE(ABORT, 'capture events are append-only'); END;
CREATE TRIGGER capture_events_once BEFORE INSERT ON capture_events
WHEN EXISTS (SELECT 1 FROM capture_events WHERE event_id = NEW.event_id OR (device_id = NEW.device_id AND device_seq = NEW.device_seq))
BEGIN SELECT RAISE(ABORT, 'this capture event is recorded already'); END;
CREATE TABLE landings (
  id TEXT PRIMARY KEY, sortie_id TEXT NOT NULL REFERENCES sorties(id), checkout_id TEXT NOT NULL REFERENCES checkouts(id), pilot_id TEXT NOT NULL REFERENCES pilots(id),
  number INTEGER NOT NULL, kind TEXT NOT NULL, landing_class TEXT NOT NULL, intended TEXT, gear_group TEXT NOT NULL, crosswind_kt REAL, wind_age_min REAL,
  flown_on TEXT NOT NULL, saved_at TEXT NOT NULL, author TEXT NOT NULL, captured TEXT NOT NULL, judged TEXT NOT NULL
);
CREATE INDEX landings_checkout ON landings(checkout_id, flown_on, number);
CREATE INDEX landings_sortie ON landings(sortie_id, number);
CREATE INDEX briefs_checkout ON briefs(checkout_id);
CREATE INDEX landings_pilot ON landings(pilot_id, gear_group, flown_on);

-- The book
CREATE TABLE ledger (
  seq INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE, kind TEXT NOT NULL, checkout_id TEXT NOT NULL, signed_at TEXT NOT NULL, signer_id TEXT NOT NULL,
  canonical TEXT NOT NULL, prev_hash TEXT NOT NULL, hash TEXT NOT NULL, signature TEXT NOT NULL, key_id TEXT NOT NULL
);
CREATE TRIGGER ledger_fixed BEFORE UPDATE ON ledger BEGIN SELECT RAISE(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER ledger_kept BEFORE DELETE ON ledger BEGIN SELECT RAISE(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER ledger_in_order BEFORE INSERT ON ledger
WHEN NEW.seq IS NOT (SELECT COALESCE(MAX(seq), 0) + 1 FROM ledger) OR EXISTS (SELECT 1 FROM ledger WHERE id = NEW.id)
  OR NEW.prev_hash IS NOT COALESCE((SELECT hash FROM ledger ORDER BY seq DESC LIMIT 1), '0000000000000000000000000000000000000000000000000000000000000000')
BEGIN SELECT RAISE(ABORT, 'the ledger is append-only: an entry follows the last one'); END;

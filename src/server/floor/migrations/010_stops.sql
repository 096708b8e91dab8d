-- Stops stand beside what was recorded. They are made from the events again at any time, like the landings.
CREATE TABLE stops (
  id TEXT PRIMARY KEY, subject_id TEXT NOT NULL, sortie_id TEXT NOT NULL REFERENCES sorties(id), checkout_id TEXT REFERENCES checkouts(id),
  subject TEXT NOT NULL, position INTEGER NOT NULL, code TEXT NOT NULL, facts TEXT NOT NULL
);
CREATE INDEX stops_checkout ON stops(checkout_id);
CREATE INDEX stops_sortie ON stops(sortie_id);
-- An aeroplane out of service, and what ended that. Neither is ever changed.
CREATE TABLE groundings (
  id TEXT PRIMARY KEY, request_id TEXT NOT NULL UNIQUE, airframe_id TEXT NOT NULL REFERENCES airframes(id), kind TEXT NOT NULL CHECK (kind IN ('airworthiness', 'school')),
  why TEXT NOT NULL, placed_by TEXT NOT NULL REFERENCES users(id), placed_at TEXT NOT NULL
);
CREATE INDEX groundings_airframe ON groundings(airframe_id);
CREATE TABLE grounding_ends (
  id TEXT PRIMARY KEY, grounding_id TEXT NOT NULL UNIQUE REFERENCES groundings(id), ended_by TEXT NOT NULL REFERENCES users(id), ended_at TEXT NOT NULL,
  done TEXT NOT NULL, certifier TEXT, certificate TEXT
);
CREATE TRIGGER groundings_fixed BEFORE UPDATE ON groundings BEGIN SELECT RAISE(ABORT, 'a grounding is never changed'); END;
CREATE TRIGGER groundings_kept BEFORE DELETE ON groundings BEGIN SELECT RAISE(ABORT, 'a grounding is never removed'); END;
CREATE TRIGGER grounding_ends_fixed BEFORE UPDATE ON grounding_ends BEGIN SELECT RAISE(ABORT, 'a release is never changed'); END;
CREATE TRIGGER grounding_ends_kept BEFORE DELETE ON grounding_ends BEGIN SELECT RAISE(ABORT, 'a release is never removed'); END;
-- Who certified it and under which certificate; releases of before had only words.
ALTER TABLE exceedance_releases ADD COLUMN certifier TEXT;
ALTER TABLE exceedance_releases ADD COLUMN certificate TEXT;

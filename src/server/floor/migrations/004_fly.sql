-- How far a device's clock stood behind the field's when the event came in; null for events before this column
ALTER TABLE capture_events ADD COLUMN skew_ms INTEGER;

-- A second pilot who swaps seats in one flight, and the checkout of that pilot the landings go to (null = they count for recency only)
ALTER TABLE sorties ADD COLUMN second_pilot_id TEXT REFERENCES pilots(id);
ALTER TABLE sorties ADD COLUMN second_checkout_id TEXT REFERENCES checkouts(id);
-- The second pilot's own lesson of a shared flight, made when something of theirs comes in; it points to the flight whose events it is projected from
ALTER TABLE sorties ADD COLUMN shared_with TEXT REFERENCES sorties(id);
CREATE UNIQUE INDEX sorties_shared ON sorties(shared_with) WHERE shared_with IS NOT NULL;

-- Landings are projected from the events: those of a second pilot without a checkout belong to none
CREATE TABLE landings_new (
  id TEXT PRIMARY KEY, sortie_id TEXT NOT NULL REFERENCES sorties(id), checkout_id TEXT REFERENCES checkouts(id), pilot_id TEXT NOT NULL REFERENCES pilots(id),
  number INTEGER NOT NULL, kind TEXT NOT NULL, landing_class TEXT NOT NULL, intended TEXT, gear_group TEXT NOT NULL, crosswind_kt REAL, wind_age_min REAL,
  flown_on TEXT NOT NULL, saved_at TEXT NOT NULL, author TEXT NOT NULL, captured TEXT NOT NULL, judged TEXT NOT NULL, surface TEXT NOT NULL DEFAULT 'land', tailwheel INTEGER
);
INSERT INTO landings_new (id, sortie_id, checkout_id, pilot_id, number, kind, landing_class, intended, gear_group, crosswind_kt, wind_age_min, flown_on, saved_at, author, captured, judged)
  SELECT id, sortie_id, checkout_id, pilot_id, number, kind, landing_class, intended, gear_group, crosswind_kt, wind_age_min, flown_on, saved_at, author, captured, judged FROM landings;
DROP TABLE landings;
ALTER TABLE landings_new RENAME TO landings;
CREATE INDEX landings_checkout ON landings(checkout_id, flown_on, number);
CREATE INDEX landings_sortie ON landings(sortie_id, number);
CREATE INDEX landings_pilot ON landings(pilot_id, gear_group, flown_on);

-- What a chief decided of a power setting found in flight; the finding itself is a capture event
CREATE TABLE power_decisions (
  id TEXT PRIMARY KEY, finding_id TEXT NOT NULL UNIQUE, type_code TEXT NOT NULL REFERENCES types(code), decision TEXT NOT NULL CHECK (decision IN ('approved', 'declined')), version INTEGER,
  decided_by TEXT NOT NULL REFERENCES users(id), decided_at TEXT NOT NULL, reason TEXT NOT NULL
);
CREATE TRIGGER power_decisions_fixed BEFORE UPDATE ON power_decisions BEGIN SELECT RAISE(ABORT, 'a decision is never changed'); END;
CREATE TRIGGER power_decisions_kept BEFORE DELETE ON power_decisions BEGIN SELECT RAISE(ABORT, 'a decision is never removed'); END;

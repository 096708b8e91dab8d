-- What an instructor's entries name: certificate, and the end of it or of recent experience
ALTER TABLE users ADD COLUMN certificate TEXT NOT NULL DEFAULT '';
ALTER TABLE users ADD COLUMN certificate_until TEXT;
ALTER TABLE pilots ADD COLUMN certificate TEXT NOT NULL DEFAULT '';
-- A qualification given by an entry of the book that was voided ends; it is not taken away
ALTER TABLE qualifications ADD COLUMN ended_at TEXT;
CREATE INDEX qualifications_ledger ON qualifications(ledger_id) WHERE ledger_id IS NOT NULL;

-- Flying that was not recorded here, as its pilot or the office wrote it
CREATE TABLE flight_log (
  id TEXT PRIMARY KEY, pilot_id TEXT NOT NULL REFERENCES pilots(id), flown_on TEXT NOT NULL, type_code TEXT NOT NULL REFERENCES types(code), takeoffs INTEGER NOT NULL CHECK (takeoffs >= 0), landings INTEGER NOT NULL CHECK (landings >= 0),
  full_stops INTEGER NOT NULL CHECK (full_stops BETWEEN 0 AND landings), night INTEGER NOT NULL, surface TEXT NOT NULL CHECK (surface IN ('land', 'water')), hours REAL NOT NULL CHECK (hours >= 0), remark TEXT NOT NULL,
  entered_by TEXT NOT NULL REFERENCES users(id), entered_at TEXT NOT NULL
);
CREATE INDEX flight_log_pilot ON flight_log(pilot_id, flown_on);
CREATE TRIGGER flight_log_fixed BEFORE UPDATE ON flight_log BEGIN SELECT RAISE(ABORT, 'a logged flight is never changed: strike it and enter it anew'); END;
CREATE TRIGGER flight_log_kept BEFORE DELETE ON flight_log BEGIN SELECT RAISE(ABORT, 'a logged flight is never removed'); END;
CREATE TABLE flight_log_struck (id TEXT PRIMARY KEY, log_id TEXT NOT NULL UNIQUE REFERENCES flight_log(id), reason TEXT NOT NULL, struck_by TEXT NOT NULL REFERENCES users(id), struck_at TEXT NOT NULL);
CREATE TRIGGER flight_log_struck_fixed BEFORE UPDATE ON flight_log_struck BEGIN SELECT RAISE(ABORT, 'what was struck stays struck'); END;
CREATE TRIGGER flight_log_struck_kept BEFORE DELETE ON flight_log_struck BEGIN SELECT RAISE(ABORT, 'what was struck stays struck'); END;

-- An item to be signed without its evidence: asked with a reason, answered by a chief where the house says so
CREATE TABLE sign_overrides (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), item_id TEXT NOT NULL, reason TEXT NOT NULL, asked_by TEXT NOT NULL REFERENCES users(id), asked_at TEXT NOT NULL, seq INTEGER NOT NULL,
  after_entry INTEGER NOT NULL -- the newest entry of the book then: what closes the checkout later ends the wish
);
CREATE UNIQUE INDEX sign_overrides_checkout ON sign_overrides(checkout_id, seq);
CREATE TRIGGER sign_overrides_fixed BEFORE UPDATE ON sign_overrides BEGIN SELECT RAISE(ABORT, 'a wish is never changed'); END;
CREATE TRIGGER sign_overrides_kept BEFORE DELETE ON sign_overrides BEGIN SELECT RAISE(ABORT, 'a wish is never removed'); END;
CREATE TABLE override_answers (
  id TEXT PRIMARY KEY, override_id TEXT NOT NULL UNIQUE REFERENCES sign_overrides(id), answer TEXT NOT NULL CHECK (answer IN ('approved', 'declined', 'withdrawn')), reason TEXT NOT NULL, answered_by TEXT NOT NULL REFERENCES users(id), answered_at TEXT NOT NULL
);
CREATE TRIGGER override_answers_fixed BEFORE UPDATE ON override_answers BEGIN SELECT RAISE(ABORT, 'an answer is never changed'); END;
CREATE TRIGGER override_answers_kept BEFORE DELETE ON override_answers BEGIN SELECT RAISE(ABORT, 'an answer is never removed'); END;

-- The book by checkout, and what a later entry says of an earlier one
CREATE INDEX ledger_checkout ON ledger(checkout_id);
CREATE INDEX ledger_of ON ledger(json_extract(canonical, '$.body.of.id')) WHERE kind IN ('void', 'correction', 'test-result');

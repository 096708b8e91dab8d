-- A limit exceeded that was seen by eye: no recording, no amount; who saw it
CREATE TABLE exceedances_new (
  id TEXT PRIMARY KEY, trace_id TEXT REFERENCES traces(id), airframe_id TEXT NOT NULL REFERENCES airframes(id), sortie_id TEXT NOT NULL REFERENCES sorties(id), channel TEXT NOT NULL, limit_value REAL, unit TEXT NOT NULL,
  peak REAL, start_s REAL, duration_s REAL, must_do TEXT NOT NULL, must_do_source TEXT, found_at TEXT NOT NULL,
  seen_by TEXT REFERENCES users(id),
  CHECK ((trace_id IS NULL) = (seen_by IS NOT NULL)),
  CHECK (trace_id IS NULL OR (limit_value IS NOT NULL AND peak IS NOT NULL AND start_s IS NOT NULL AND duration_s IS NOT NULL))
);
INSERT INTO exceedances_new (id, trace_id, airframe_id, sortie_id, channel, limit_value, unit, peak, start_s, duration_s, must_do, must_do_source, found_at)
  SELECT id, trace_id, airframe_id, sortie_id, channel, limit_value, unit, peak, start_s, duration_s, must_do, must_do_source, found_at FROM exceedances;
DROP TABLE exceedances;
ALTER TABLE exceedances_new RENAME TO exceedances;
CREATE INDEX exceedances_airframe ON exceedances(airframe_id);
CREATE INDEX exceedances_sortie ON exceedances(sortie_id);
CREATE TRIGGER exceedances_fixed BEFORE UPDATE ON exceedances BEGIN SELECT RAISE(ABORT, 'an exceedance is never changed'); END;
CREATE TRIGGER exceedances_kept BEFORE DELETE ON exceedances BEGIN SELECT RAISE(ABORT, 'an exceedance is never removed'); END;

-- What a lesson is for, said when it is booked
ALTER TABLE bookings ADD COLUMN aim TEXT NOT NULL DEFAULT '';

-- Which aeroplane each lesson was flown in: a checkout may go on in another registration of the type
ALTER TABLE sorties ADD COLUMN airframe_id TEXT REFERENCES airframes(id);
UPDATE sorties SET airframe_id = (SELECT c.airframe_id FROM checkouts c WHERE c.id = sorties.checkout_id);
ALTER TABLE checkout_moves ADD COLUMN from_airframe_id TEXT REFERENCES airframes(id);
ALTER TABLE checkout_moves ADD COLUMN to_airframe_id TEXT REFERENCES airframes(id);

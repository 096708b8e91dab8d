-- Numbers and the first touch of a flight do not move when another landing is taken back; a take-off has a place and an instant of its own.
ALTER TABLE landings ADD COLUMN first INTEGER NOT NULL DEFAULT 0;
ALTER TABLE landings ADD COLUMN off_surface TEXT;
ALTER TABLE landings ADD COLUMN off_at TEXT;
UPDATE landings SET first = (number = 1), off_surface = surface, off_at = ended_at;
DROP INDEX landings_day;
CREATE INDEX landings_day ON landings(flown_on, pilot_id, checkout_id, kind, surface, level, shown, ended_at, off_surface, off_at);
-- Logged flights: where and when it left, where that differs from the landing; null = as it landed.
ALTER TABLE flight_log ADD COLUMN off_surface TEXT CHECK (off_surface IN ('land', 'water'));
ALTER TABLE flight_log ADD COLUMN off_night INTEGER;

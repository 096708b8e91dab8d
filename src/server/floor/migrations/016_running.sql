-- Where a lesson is flown, where a booking goes, where a landing was made: an aerodrome of the school; null = home
ALTER TABLE sorties ADD COLUMN aerodrome TEXT;
ALTER TABLE bookings ADD COLUMN aerodrome TEXT;
ALTER TABLE landings ADD COLUMN aerodrome TEXT;
DROP INDEX landings_day;
CREATE INDEX landings_day ON landings(flown_on, pilot_id, checkout_id, kind, surface, level, shown, ended_at, off_surface, off_at, aerodrome);

-- A recorded track of one flight: its file lies under the data folder by the hash of what it holds, gzipped; the analysis stands here
CREATE TABLE traces (
  id TEXT PRIMARY KEY, sortie_id TEXT NOT NULL REFERENCES sorties(id), airframe_id TEXT NOT NULL REFERENCES airframes(id), hash TEXT NOT NULL, name TEXT NOT NULL, bytes INTEGER NOT NULL,
  mapping TEXT, context TEXT NOT NULL, analysis TEXT NOT NULL, start_utc TEXT, uploaded_by TEXT NOT NULL REFERENCES users(id), uploaded_at TEXT NOT NULL
);
CREATE UNIQUE INDEX traces_once ON traces(sortie_id, hash);
CREATE TRIGGER traces_fixed BEFORE UPDATE ON traces BEGIN SELECT RAISE(ABORT, 'a trace is never changed'); END;
CREATE TRIGGER traces_kept BEFORE DELETE ON traces BEGIN SELECT RAISE(ABORT, 'a trace is never removed'); END;

-- A limit passed in a trace, with what the sheet says must be done; released by a chief, by a row of its own
CREATE TABLE exceedances (
  id TEXT PRIMARY KEY, trace_id TEXT NOT NULL REFERENCES traces(id), airframe_id TEXT NOT NULL REFERENCES airframes(id), sortie_id TEXT NOT NULL REFERENCES sorties(id), channel TEXT NOT NULL, limit_value REAL NOT NULL, unit TEXT NOT NULL,
  peak REAL NOT NULL, start_s REAL NOT NULL, duration_s REAL NOT NULL, must_do TEXT NOT NULL, must_do_source TEXT, found_at TEXT NOT NULL
);
CREATE INDEX exceedances_airframe ON exceedances(airframe_id);
CREATE TRIGGER exceedances_fixed BEFORE UPDATE ON exceedances BEGIN SELECT RAISE(ABORT, 'an exceedance is never changed'); END;
CREATE TRIGGER exceedances_kept BEFORE DELETE ON exceedances BEGIN SELECT RAISE(ABORT, 'an exceedance is never removed'); END;
CREATE TABLE exceedance_releases (
  id TEXT PRIMARY KEY, exceedance_id TEXT NOT NULL UNIQUE REFERENCES exceedances(id), released_by TEXT NOT NULL REFERENCES users(id), released_at TEXT NOT NULL, done TEXT NOT NULL
);
CREATE TRIGGER exceedance_releases_fixed BEFORE UPDATE ON exceedance_releases BEGIN SELECT RAISE(ABORT, 'a release is never changed'); END;
CREATE TRIGGER exceedance_releases_kept BEFORE DELETE ON exceedance_releases BEGIN SELECT RAISE(ABORT, 'a release is never removed'); END;

-- What was accepted from a trace for a landing, beside what the eye saw
ALTER TABLE landings ADD COLUMN measured TEXT;

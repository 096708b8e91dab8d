-- How often each table was written: what is kept in memory of a table holds while its number stands
CREATE TABLE table_versions (name TEXT PRIMARY KEY, version INTEGER NOT NULL) WITHOUT ROWID;

-- Joins that many questions have in common, each said once
CREATE VIEW newest_types AS
  SELECT v.*, t.code, t.name FROM type_versions v JOIN types t ON t.id = v.type_id
  WHERE v.version = (SELECT MAX(x.version) FROM type_versions x WHERE x.type_id = v.type_id);
CREATE VIEW checkout_types AS
  SELECT c.id AS checkout_id, v.id AS type_version_id, v.type_id, t.code, t.name, v.engines, v.tailwheel, v.surface, v.sheet
  FROM checkouts c JOIN type_versions v ON v.id = c.type_version_id JOIN types t ON t.id = v.type_id;
CREATE VIEW standing_logged AS
  SELECT f.* FROM flight_log f WHERE NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id);
CREATE VIEW standing_logbook AS
  SELECT f.* FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE i.taken_back_at IS NULL;
-- The day an entry says it was signed on; entries of before said only the instant
CREATE VIEW signed_entries AS
  SELECT l.*, COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) AS signed_on FROM ledger l;
CREATE VIEW standing_entries AS
  SELECT l.* FROM signed_entries l WHERE NOT EXISTS (
    SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id);
CREATE VIEW signed_checkouts AS
  SELECT c.id, c.pilot_id, c.status, l.id AS entry_id, l.signed_at, l.signed_on FROM checkouts c JOIN signed_entries l ON l.id = c.signed_ledger_id;

-- A type sheet while it is entered: kept field by field, so that two machines work on it and a closed lid loses nothing
CREATE TABLE type_drafts (
  id TEXT PRIMARY KEY,
  -- of the type that is edited; null while it has none
  code TEXT,
  base_version INTEGER NOT NULL,
  -- of a new type: what it begins with; of one that is edited the sheet of its base
  start TEXT,
  origin TEXT NOT NULL,
  made_by TEXT NOT NULL REFERENCES users(id),
  made_at TEXT NOT NULL,
  ended_at TEXT,
  ended_version INTEGER
);
CREATE UNIQUE INDEX type_drafts_open ON type_drafts(code) WHERE ended_at IS NULL AND code IS NOT NULL;
CREATE TABLE type_draft_changes (
  draft_id TEXT NOT NULL REFERENCES type_drafts(id),
  seq INTEGER NOT NULL,
  path TEXT NOT NULL,
  value TEXT NOT NULL,
  page TEXT NOT NULL,
  made_by TEXT NOT NULL REFERENCES users(id),
  made_at TEXT NOT NULL,
  PRIMARY KEY (draft_id, seq)
) WITHOUT ROWID;

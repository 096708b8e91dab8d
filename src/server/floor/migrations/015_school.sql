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

-- One-time links by which somebody chooses a password of their own: only their hashes are kept
CREATE TABLE account_links (
  id TEXT PRIMARY KEY,
  user_id TEXT NOT NULL REFERENCES users(id),
  hash TEXT NOT NULL UNIQUE,
  made_by TEXT NOT NULL REFERENCES users(id),
  made_at TEXT NOT NULL,
  expires_at TEXT NOT NULL,
  used_at TEXT,
  ended_at TEXT
);
CREATE INDEX account_links_user ON account_links(user_id);

-- A second factor: the secret of an authenticator, sealed; codes for the day it is lost
CREATE TABLE second_factors (
  user_id TEXT PRIMARY KEY REFERENCES users(id),
  secret TEXT NOT NULL,
  made_at TEXT NOT NULL,
  confirmed_at TEXT,
  last_step INTEGER NOT NULL
) WITHOUT ROWID;
CREATE TABLE recovery_codes (
  user_id TEXT NOT NULL REFERENCES users(id),
  hash TEXT NOT NULL,
  used_at TEXT,
  PRIMARY KEY (user_id, hash)
) WITHOUT ROWID;
-- Roles that nobody has without one
CREATE TABLE second_factor_roles (
  role TEXT PRIMARY KEY,
  set_by TEXT NOT NULL REFERENCES users(id),
  set_at TEXT NOT NULL
) WITHOUT ROWID;
ALTER TABLE sessions ADD COLUMN device TEXT NOT NULL DEFAULT '';

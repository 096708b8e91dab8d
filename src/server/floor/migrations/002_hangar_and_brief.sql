-- A checkout moved on purpose to newer versions of its sheets
CREATE TABLE checkout_moves (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), type_from INTEGER NOT NULL, type_to INTEGER NOT NULL, airframe_from INTEGER NOT NULL, airframe_to INTEGER NOT NULL,
  moved_by TEXT NOT NULL REFERENCES users(id), moved_at TEXT NOT NULL, reason TEXT NOT NULL
);
CREATE INDEX checkout_moves_checkout ON checkout_moves(checkout_id);
CREATE TRIGGER checkout_moves_fixed BEFORE UPDATE ON checkout_moves BEGIN SELECT RAISE(ABORT, 'a move is never changed'); END;
CREATE TRIGGER checkout_moves_kept BEFORE DELETE ON checkout_moves BEGIN SELECT RAISE(ABORT, 'a move is never removed'); END;

-- The order a house starts a brief from, per goal
CREATE TABLE brief_templates (goal TEXT PRIMARY KEY, layout TEXT NOT NULL, author TEXT NOT NULL, created_at TEXT NOT NULL);

-- Personal tokens of the HTTP interface: only their hash is kept
CREATE TABLE personal_tokens (
  id TEXT PRIMARY KEY, user_id TEXT NOT NULL REFERENCES users(id), name TEXT NOT NULL, hash TEXT NOT NULL UNIQUE, created_at TEXT NOT NULL, last_used_at TEXT, ended_at TEXT
);
CREATE INDEX personal_tokens_user ON personal_tokens(user_id);

-- The sheet versions a brief was computed from (null for briefs older than this column)
ALTER TABLE briefs ADD COLUMN sheets TEXT;

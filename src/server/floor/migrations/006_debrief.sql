-- What an instructor decided of a finding, or a finding of their own; the newest of a finding stands
CREATE TABLE finding_decisions (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), finding_id TEXT NOT NULL, decision TEXT NOT NULL CHECK (decision IN ('confirmed', 'dismissed', 'own', 'withdrawn')), reason TEXT NOT NULL,
  lesson INTEGER NOT NULL, own TEXT, decided_by TEXT NOT NULL REFERENCES users(id), decided_at TEXT NOT NULL, seq INTEGER NOT NULL
);
CREATE UNIQUE INDEX finding_decisions_checkout ON finding_decisions(checkout_id, seq);
CREATE TRIGGER finding_decisions_fixed BEFORE UPDATE ON finding_decisions BEGIN SELECT RAISE(ABORT, 'a decision is never changed: add a new one'); END;
CREATE TRIGGER finding_decisions_kept BEFORE DELETE ON finding_decisions BEGIN SELECT RAISE(ABORT, 'a decision is never removed'); END;

-- What the pilot said of a lesson before seeing what was recorded
CREATE TABLE self_assessments (
  id TEXT PRIMARY KEY, sortie_id TEXT NOT NULL REFERENCES sorties(id), said TEXT NOT NULL, told_by TEXT NOT NULL REFERENCES users(id), told_at TEXT NOT NULL, seq INTEGER NOT NULL, UNIQUE (sortie_id, seq)
);
CREATE TRIGGER self_assessments_fixed BEFORE UPDATE ON self_assessments BEGIN SELECT RAISE(ABORT, 'what was said is never changed'); END;
CREATE TRIGGER self_assessments_kept BEFORE DELETE ON self_assessments BEGIN SELECT RAISE(ABORT, 'what was said is never removed'); END;

-- A debrief as held: its snapshot never changes, the pilot acknowledges it once
CREATE TABLE debriefs (
  id TEXT PRIMARY KEY, sortie_id TEXT NOT NULL REFERENCES sorties(id), version INTEGER NOT NULL, focus TEXT NOT NULL, remark TEXT NOT NULL, snapshot TEXT NOT NULL, request_id TEXT NOT NULL UNIQUE,
  created_by TEXT NOT NULL REFERENCES users(id), created_at TEXT NOT NULL, acknowledged_by TEXT REFERENCES users(id), acknowledged_at TEXT, UNIQUE (sortie_id, version)
);
CREATE TRIGGER debriefs_fixed BEFORE UPDATE ON debriefs
WHEN NEW.snapshot <> OLD.snapshot OR NEW.focus <> OLD.focus OR NEW.remark <> OLD.remark OR NEW.sortie_id <> OLD.sortie_id OR OLD.acknowledged_at IS NOT NULL
BEGIN SELECT RAISE(ABORT, 'a debrief never changes: save a new one'); END;
CREATE TRIGGER debriefs_kept BEFORE DELETE ON debriefs BEGIN SELECT RAISE(ABORT, 'a debrief is never removed'); END;

-- The plan of the next lesson; the newest of a lesson stands and goes into its brief
CREATE TABLE lesson_plans (
  id TEXT PRIMARY KEY, checkout_id TEXT NOT NULL REFERENCES checkouts(id), lesson INTEGER NOT NULL, version INTEGER NOT NULL, plan TEXT NOT NULL, request_id TEXT NOT NULL UNIQUE,
  created_by TEXT NOT NULL REFERENCES users(id), created_at TEXT NOT NULL, UNIQUE (checkout_id, lesson, version)
);
CREATE TRIGGER lesson_plans_fixed BEFORE UPDATE ON lesson_plans BEGIN SELECT RAISE(ABORT, 'a plan never changes: save a new one'); END;
CREATE TRIGGER lesson_plans_kept BEFORE DELETE ON lesson_plans BEGIN SELECT RAISE(ABORT, 'a plan is never removed'); END;

-- Aggregates, rebuilt from the landings of a checkout after each commit that touched it; never read for judging
CREATE TABLE stage_tallies (checkout_id TEXT NOT NULL REFERENCES checkouts(id), pilot_id TEXT NOT NULL, type_code TEXT NOT NULL, stage INTEGER NOT NULL, landings INTEGER NOT NULL, own INTEGER NOT NULL, in_standard INTEGER NOT NULL, part_sum REAL NOT NULL, part_count INTEGER NOT NULL, PRIMARY KEY (checkout_id, stage)) WITHOUT ROWID;
CREATE INDEX stage_tallies_type ON stage_tallies(type_code, stage);
CREATE TABLE stage_medians (type_code TEXT NOT NULL, stage INTEGER NOT NULL, pilots INTEGER NOT NULL, own REAL NOT NULL, in_standard REAL NOT NULL, part REAL, refreshed_at TEXT NOT NULL, PRIMARY KEY (type_code, stage)) WITHOUT ROWID;
CREATE TABLE side_tallies (checkout_id TEXT NOT NULL REFERENCES checkouts(id), author TEXT NOT NULL, pilot_id TEXT NOT NULL, airframe_id TEXT NOT NULL, newest TEXT NOT NULL, left_n INTEGER NOT NULL, line_n INTEGER NOT NULL, right_n INTEGER NOT NULL, PRIMARY KEY (checkout_id, author)) WITHOUT ROWID;
CREATE INDEX side_tallies_author ON side_tallies(author, newest);
CREATE INDEX side_tallies_airframe ON side_tallies(airframe_id, newest);
CREATE INDEX landings_measured ON landings(flown_on) WHERE measured IS NOT NULL;
CREATE INDEX exceedances_sortie ON exceedances(sortie_id);

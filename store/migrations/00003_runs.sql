-- +goose Up
-- What is done at the bench belongs to a run of a card, not to its document: undo
-- never unticks.
CREATE TABLE runs (
  id     INTEGER PRIMARY KEY,
  card   TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  copies INTEGER NOT NULL DEFAULT 1,
  begun  TEXT NOT NULL,
  ended  TEXT NOT NULL DEFAULT ''         -- empty while it is under way
);
CREATE INDEX runs_card ON runs (card);
CREATE TABLE done (
  run  INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  step TEXT NOT NULL,                     -- JSON of the step
  at   TEXT NOT NULL,
  PRIMARY KEY (run, step)
);
CREATE TABLE used (
  run  INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  step TEXT NOT NULL,
  ink  TEXT NOT NULL,                     -- really used, where it was not what was planned
  PRIMARY KEY (run, step)
);
-- One press held down is one change; and which revision was shown at which version.
ALTER TABLE revisions ADD COLUMN gesture TEXT NOT NULL DEFAULT '';
CREATE TABLE shown (
  card    TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  version INTEGER NOT NULL,
  number  INTEGER NOT NULL,
  PRIMARY KEY (card, version)
);
INSERT INTO shown (card, version, number) SELECT id, version, head FROM cards;

-- +goose Down
DROP TABLE shown;
ALTER TABLE revisions DROP COLUMN gesture;
DROP TABLE used;
DROP TABLE done;
DROP TABLE runs;

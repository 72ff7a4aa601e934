-- +goose Up
-- What became of a run: how many cards came out well, and what is to be remembered.
ALTER TABLE runs ADD COLUMN well INTEGER NOT NULL DEFAULT -1; -- -1: nobody said
ALTER TABLE runs ADD COLUMN note TEXT NOT NULL DEFAULT '';
ALTER TABLE runs ADD COLUMN levels TEXT NOT NULL DEFAULT ''; -- when what it used was taken out of the stores, RFC 3339
-- Photographs of finished cards, shrunk.
CREATE TABLE photographs (
  id    INTEGER PRIMARY KEY,
  run   INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  at    TEXT NOT NULL,                    -- RFC 3339
  words TEXT NOT NULL,                    -- what is seen on it
  w     INTEGER NOT NULL,                 -- pixels
  h     INTEGER NOT NULL,
  large BLOB NOT NULL,                    -- JPEG
  small BLOB NOT NULL                     -- JPEG
);
CREATE INDEX photographs_run ON photographs (run);
-- How cards lie on the bench: put away, and by what words they are kept together.
ALTER TABLE cards ADD COLUMN away TEXT NOT NULL DEFAULT ''; -- when, RFC 3339; empty: on the bench
ALTER TABLE cards ADD COLUMN model INTEGER NOT NULL DEFAULT 0; -- 1: others are begun from it
CREATE TABLE tags (
  card TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  tag  TEXT NOT NULL,
  PRIMARY KEY (card, tag)
);

-- +goose Down
DROP TABLE tags;
ALTER TABLE cards DROP COLUMN model;
ALTER TABLE cards DROP COLUMN away;
DROP TABLE photographs;
ALTER TABLE runs DROP COLUMN levels;
ALTER TABLE runs DROP COLUMN note;
ALTER TABLE runs DROP COLUMN well;

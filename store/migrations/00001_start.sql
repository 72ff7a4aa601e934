-- +goose Up
CREATE TABLE cards (
  id       TEXT PRIMARY KEY,
  title    TEXT NOT NULL,
  head     INTEGER NOT NULL,           -- the revision that is shown
  version  INTEGER NOT NULL,           -- counts every change, undo and redo included
  position INTEGER NOT NULL
);
CREATE TABLE revisions (
  card   TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  number INTEGER NOT NULL,
  parent INTEGER NOT NULL,             -- 0 for the first
  doc    BLOB NOT NULL,
  at     TEXT NOT NULL,
  PRIMARY KEY (card, number)
);
CREATE TABLE items (
  kind     TEXT NOT NULL,
  id       TEXT NOT NULL,
  doc      BLOB NOT NULL,
  position INTEGER NOT NULL,
  PRIMARY KEY (kind, id)
);
CREATE TABLE settings (
  name  TEXT PRIMARY KEY,
  value TEXT NOT NULL
);

-- +goose Down
DROP TABLE settings;
DROP TABLE items;
DROP TABLE revisions;
DROP TABLE cards;

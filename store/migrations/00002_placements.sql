-- +goose Up
CREATE TABLE placements (
  id         INTEGER PRIMARY KEY,
  batch      TEXT NOT NULL,               -- what was logged together: one scan, one practice
  at         TEXT NOT NULL,
  card       TEXT NOT NULL,               -- the card may be gone by now
  motif      TEXT NOT NULL,
  layer      TEXT NOT NULL,
  label      TEXT NOT NULL,               -- as it was called then
  way        TEXT NOT NULL,               -- way of placing
  source     TEXT NOT NULL,               -- print, points or practice
  x          REAL NOT NULL,               -- off to the right, mm
  y          REAL NOT NULL,               -- down, mm
  turn       REAL NOT NULL,               -- clockwise, degrees
  sure_shift REAL NOT NULL,               -- standard error, mm
  sure_turn  REAL NOT NULL,               -- degrees
  good       INTEGER NOT NULL             -- it lay inside its play
);
CREATE INDEX placements_way ON placements (way, source);

-- +goose Down
DROP TABLE placements;

-- +goose Up
-- Of a run of several cards: how many of them a step is done on; and waits that run on
-- though nobody looks.
CREATE TABLE counted (
  run  INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  step TEXT NOT NULL,                     -- JSON of the step
  n    INTEGER NOT NULL,
  PRIMARY KEY (run, step)
);
CREATE TABLE timers (
  run   INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  step  TEXT NOT NULL,
  until TEXT NOT NULL,                    -- RFC 3339
  PRIMARY KEY (run, step)
);
-- How a step is done: empty as planned, or left out.
ALTER TABLE done ADD COLUMN how TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE done DROP COLUMN how;
DROP TABLE timers;
DROP TABLE counted;

-- +goose Up
-- Which revisions of which cards a run makes: it keeps to them while the cards are changed.
CREATE TABLE made (
  run      INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  card     TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  position INTEGER NOT NULL,
  PRIMARY KEY (run, card)
);
-- Cards that are made in one sitting with another.
CREATE TABLE company (
  card     TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  other    TEXT NOT NULL REFERENCES cards (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  PRIMARY KEY (card, other)
);
-- Cardstock that was cut for a run and taken out of the stores, as it was laid out.
CREATE TABLE taken (
  run   INTEGER NOT NULL REFERENCES runs (id) ON DELETE CASCADE,
  stock TEXT NOT NULL,
  doc   BLOB NOT NULL,
  at    TEXT NOT NULL,                    -- RFC 3339
  PRIMARY KEY (run, stock)
);
-- What sort of step it was, and on how many cards it was done, so that the person's own
-- times can be learned.
ALTER TABLE done ADD COLUMN kind TEXT NOT NULL DEFAULT '';
ALTER TABLE done ADD COLUMN cards INTEGER NOT NULL DEFAULT 1;

-- +goose Down
ALTER TABLE done DROP COLUMN cards;
ALTER TABLE done DROP COLUMN kind;
DROP TABLE taken;
DROP TABLE company;
DROP TABLE made;

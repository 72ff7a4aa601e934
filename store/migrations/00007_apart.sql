-- +goose Up
-- What could not be read, taken out of its table so that the rest works: looked at, taken out
-- and removed by the person.
CREATE TABLE apart (
  id   INTEGER PRIMARY KEY,
  tab  TEXT NOT NULL,                     -- the table it stood in
  name TEXT NOT NULL,                     -- what it is, as far as it can be told
  why  TEXT NOT NULL,
  doc  TEXT NOT NULL,                     -- JSON of the row
  at   TEXT NOT NULL                      -- when it was set apart, RFC 3339
);
-- The stores are read in their order, and the next place in it is asked for with each thing.
CREATE INDEX items_position ON items (position, id);

-- +goose Down
DROP INDEX items_position;
DROP TABLE apart;

-- Visits that come again every so many weeks, and the orders that were made of them.
-- +goose Up
CREATE TABLE standing_visit (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    crew_id INTEGER NOT NULL REFERENCES crew (id),
    body TEXT NOT NULL,
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE INDEX standing_visit_at ON standing_visit (property_id);

-- The days on which one belongs that were made an order, or fall; an order that is dropped by hand is not made again.
CREATE TABLE standing_day (
    standing_id INTEGER NOT NULL REFERENCES standing_visit (id),
    day TEXT NOT NULL,
    order_id INTEGER REFERENCES job_order (id), -- null: it falls, nobody can come near that day
    PRIMARY KEY (standing_id, day)
) STRICT;

-- A job that no day or no crew holds is done in parts: each is a job of its own that knows the first.
ALTER TABLE job_order ADD COLUMN part_of INTEGER NOT NULL DEFAULT 0;
CREATE INDEX order_part_of ON job_order (part_of) WHERE part_of > 0;

-- What the firm does not want used of what was learnt from its record, by name.
CREATE TABLE learnt_off (
    what TEXT NOT NULL PRIMARY KEY
) STRICT;

-- +goose Down
DROP TABLE learnt_off;
DROP INDEX order_part_of;
ALTER TABLE job_order DROP COLUMN part_of;
DROP TABLE standing_day;
DROP TABLE standing_visit;

-- +goose Up
-- people who go together in one vehicle
CREATE TABLE crew (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL CHECK (name <> ''),
    people TEXT NOT NULL DEFAULT '[]', -- ids of persons
    body TEXT NOT NULL, -- hours by weekday, days off, start, load
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;

-- when one may be at a property, and what arriving takes
CREATE TABLE access (
    property_id INTEGER PRIMARY KEY REFERENCES property (id),
    body TEXT NOT NULL
) STRICT;

ALTER TABLE job_order ADD COLUMN pinned INTEGER NOT NULL DEFAULT 0; -- its day and crew stay when rounds are proposed
ALTER TABLE job_order ADD COLUMN told TEXT NOT NULL DEFAULT ''; -- the day that the client was told

-- +goose Down
ALTER TABLE job_order DROP COLUMN told;
ALTER TABLE job_order DROP COLUMN pinned;
DROP TABLE access;
DROP TABLE crew;

-- +goose Up
ALTER TABLE property ADD COLUMN exposure TEXT NOT NULL DEFAULT '{}';
ALTER TABLE plant ADD COLUMN facing TEXT NOT NULL DEFAULT '';
ALTER TABLE plant ADD COLUMN wall INTEGER NOT NULL DEFAULT 0;    -- within a metre of a sun-warmed wall
ALTER TABLE plant ADD COLUMN slope TEXT NOT NULL DEFAULT '';
ALTER TABLE plant ADD COLUMN soil TEXT NOT NULL DEFAULT '';
ALTER TABLE plant ADD COLUMN wet INTEGER NOT NULL DEFAULT 0;     -- water stands there after rain

ALTER TABLE plant_check ADD COLUMN amount REAL NOT NULL DEFAULT 0; -- share of girth, length or distance, by kind
ALTER TABLE plant_check ADD COLUMN seen TEXT NOT NULL DEFAULT '';

-- what was found at one plant on one walk: its note, and a count of the writes that two phones are told apart by
CREATE TABLE plant_look (
    walk_id INTEGER NOT NULL REFERENCES walk (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    rev INTEGER NOT NULL,
    note TEXT NOT NULL DEFAULT '',
    PRIMARY KEY (walk_id, plant_id)
) STRICT, WITHOUT ROWID;

-- the picture itself lies in the data folder under its hash
CREATE TABLE photo (
    id INTEGER PRIMARY KEY,
    walk_id INTEGER NOT NULL REFERENCES walk (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    hash TEXT NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    taken TEXT NOT NULL DEFAULT '', -- time and place only where the user wanted them kept
    latitude REAL,
    longitude REAL,
    removed_at TEXT
) STRICT;
CREATE INDEX photo_plant ON photo (plant_id, id) WHERE removed_at IS NULL;

-- how a plant turned out, against the prognosis of a verdict
CREATE TABLE outcome (
    id INTEGER PRIMARY KEY,
    verdict_id INTEGER NOT NULL REFERENCES verdict (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    day TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('right', 'alive', 'dead')),
    height_m REAL NOT NULL DEFAULT 0,
    note TEXT NOT NULL DEFAULT '',
    undone INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX outcome_plant ON outcome (plant_id, id) WHERE undone = 0;

-- +goose Down
DROP TABLE outcome;
DROP TABLE photo;
DROP TABLE plant_look;
ALTER TABLE plant_check DROP COLUMN seen;
ALTER TABLE plant_check DROP COLUMN amount;
ALTER TABLE plant DROP COLUMN wet;
ALTER TABLE plant DROP COLUMN soil;
ALTER TABLE plant DROP COLUMN slope;
ALTER TABLE plant DROP COLUMN wall;
ALTER TABLE plant DROP COLUMN facing;
ALTER TABLE property DROP COLUMN exposure;

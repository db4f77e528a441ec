-- +goose Up
CREATE TABLE firm (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    name TEXT NOT NULL,
    sample INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE property (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    client TEXT NOT NULL DEFAULT '',
    address TEXT NOT NULL DEFAULT '',
    note TEXT NOT NULL DEFAULT '',
    zone TEXT NOT NULL,
    climate_type TEXT NOT NULL DEFAULT '',
    climate TEXT NOT NULL,
    weather_source TEXT NOT NULL DEFAULT '',
    weather_rev INTEGER NOT NULL DEFAULT 0,
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;

CREATE TABLE plant (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    species TEXT NOT NULL,
    label TEXT NOT NULL DEFAULT '',
    height_m REAL NOT NULL CHECK (height_m > 0),
    spread_m REAL NOT NULL CHECK (spread_m > 0),
    count INTEGER NOT NULL DEFAULT 1 CHECK (count > 0),
    note TEXT NOT NULL DEFAULT '',
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE INDEX plant_property ON plant (property_id, id) WHERE removed_at IS NULL;

CREATE TABLE walk (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    day TEXT NOT NULL,
    UNIQUE (property_id, day)
) STRICT;

CREATE TABLE plant_check (
    walk_id INTEGER NOT NULL REFERENCES walk (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    seq INTEGER NOT NULL,
    kind TEXT NOT NULL,
    height_m REAL NOT NULL,
    held INTEGER NOT NULL,
    broke INTEGER NOT NULL,
    result TEXT NOT NULL,
    PRIMARY KEY (walk_id, plant_id, seq)
) STRICT, WITHOUT ROWID;

CREATE TABLE verdict (
    id INTEGER PRIMARY KEY,
    walk_id INTEGER NOT NULL REFERENCES walk (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    day TEXT NOT NULL,
    decision TEXT NOT NULL CHECK (decision IN ('accepted', 'overruled', 'not now')),
    kind TEXT NOT NULL,
    sentence TEXT NOT NULL,
    note TEXT NOT NULL DEFAULT '',
    answer TEXT NOT NULL,
    undone INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX verdict_plant ON verdict (plant_id, id);

CREATE TABLE job (
    id INTEGER PRIMARY KEY,
    verdict_id INTEGER NOT NULL REFERENCES verdict (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    property_id INTEGER NOT NULL REFERENCES property (id),
    kind TEXT NOT NULL,
    title TEXT NOT NULL,
    minutes INTEGER NOT NULL,
    body TEXT NOT NULL, -- the whole job as the core gave it
    day TEXT,           -- the day it is put on
    dropped_by INTEGER REFERENCES verdict (id), -- the later verdict that took its place, or its own when undone
    version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX job_property ON job (property_id) WHERE dropped_by IS NULL;
CREATE INDEX job_verdict ON job (verdict_id);
CREATE INDEX job_day ON job (day) WHERE dropped_by IS NULL;

CREATE TABLE weather_hour (
    property_id INTEGER NOT NULL REFERENCES property (id),
    at INTEGER NOT NULL, -- start of the hour, Unix seconds
    temp_c REAL NOT NULL,
    wind_ms REAL,
    rain_mm REAL,
    rh_pct REAL,
    sun REAL,
    PRIMARY KEY (property_id, at)
) STRICT, WITHOUT ROWID;

-- answers to writes that carried an idempotency key, kept with what they wrote
CREATE TABLE once (
    key TEXT PRIMARY KEY,
    answer TEXT NOT NULL,
    at TEXT NOT NULL DEFAULT (datetime('now'))
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE once;
DROP TABLE weather_hour;
DROP TABLE job;
DROP TABLE verdict;
DROP TABLE plant_check;
DROP TABLE walk;
DROP TABLE plant;
DROP TABLE property;
DROP TABLE firm;

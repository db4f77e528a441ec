-- +goose Up
-- where hours of weather came from: what was measured in the garden itself goes before the firm's station
CREATE TABLE weather_source (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    name TEXT NOT NULL,
    file INTEGER NOT NULL DEFAULT 0 CHECK (file IN (0, 1)), -- taken over once, from a file
    rank INTEGER NOT NULL CHECK (rank IN (1, 2)),           -- 1 of the region, 2 of the garden itself
    taken TEXT NOT NULL DEFAULT '',                         -- when a file was taken over
    removed INTEGER NOT NULL DEFAULT 0 CHECK (removed IN (0, 1))
) STRICT;
CREATE INDEX weather_source_property ON weather_source (property_id);

INSERT INTO weather_source (property_id, name, file, rank)
SELECT p.id, CASE WHEN p.weather_source = '' THEN 'station' ELSE p.weather_source END, p.weather_source = 'CSV file', 1
FROM property p WHERE EXISTS (SELECT 1 FROM weather_hour w WHERE w.property_id = p.id AND w.here = 0);
INSERT INTO weather_source (property_id, name, file, rank)
SELECT p.id, 'measured in the garden', 1, 2
FROM property p WHERE EXISTS (SELECT 1 FROM weather_hour w WHERE w.property_id = p.id AND w.here = 1);

CREATE TABLE weather_hour_of (
    property_id INTEGER NOT NULL REFERENCES property (id),
    at INTEGER NOT NULL, -- start of the hour, Unix seconds
    source_id INTEGER NOT NULL REFERENCES weather_source (id),
    temp_c REAL NOT NULL,
    wind_ms REAL,
    rain_mm REAL,
    rh_pct REAL,
    sun REAL,
    PRIMARY KEY (property_id, at, source_id)
) STRICT, WITHOUT ROWID;
INSERT INTO weather_hour_of (property_id, at, source_id, temp_c, wind_ms, rain_mm, rh_pct, sun)
SELECT w.property_id, w.at, s.id, w.temp_c, w.wind_ms, w.rain_mm, w.rh_pct, w.sun
FROM weather_hour w JOIN weather_source s ON s.property_id = w.property_id AND s.rank = 1 + w.here;
DROP TABLE weather_hour;
ALTER TABLE weather_hour_of RENAME TO weather_hour;

-- +goose Down
CREATE TABLE weather_hour_of (
    property_id INTEGER NOT NULL REFERENCES property (id),
    at INTEGER NOT NULL,
    temp_c REAL NOT NULL,
    wind_ms REAL,
    rain_mm REAL,
    rh_pct REAL,
    sun REAL,
    here INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (property_id, at)
) STRICT, WITHOUT ROWID;
INSERT OR REPLACE INTO weather_hour_of
SELECT w.property_id, w.at, w.temp_c, w.wind_ms, w.rain_mm, w.rh_pct, w.sun, s.rank - 1
FROM weather_hour w JOIN weather_source s ON s.id = w.source_id WHERE s.removed = 0 ORDER BY s.rank, s.id;
DROP TABLE weather_hour;
ALTER TABLE weather_hour_of RENAME TO weather_hour;
DROP TABLE weather_source;

-- +goose Up
-- the weather ahead of a property, as a station told it last
CREATE TABLE outlook (
    property_id INTEGER NOT NULL REFERENCES property (id),
    day TEXT NOT NULL,
    told_on TEXT NOT NULL, -- the day on which it was told
    rain_mm REAL NOT NULL,
    wind_ms REAL NOT NULL,
    min_c REAL NOT NULL,
    max_c REAL NOT NULL,
    source TEXT NOT NULL,
    PRIMARY KEY (property_id, day)
) STRICT, WITHOUT ROWID;

-- what was given to the post for a client
CREATE TABLE letter (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    addressee TEXT NOT NULL,
    day TEXT NOT NULL, -- the day it tells of
    body TEXT NOT NULL,
    sent INTEGER NOT NULL, -- seconds since 1970, UTC
    receipt TEXT NOT NULL -- the post's
) STRICT;
CREATE INDEX letter_sent ON letter (sent);

-- +goose Down
DROP INDEX letter_sent;
DROP TABLE letter;
DROP TABLE outlook;

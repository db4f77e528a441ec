-- A crown counted by points on a picture.
-- +goose Up
CREATE TABLE crown_count (
    id INTEGER PRIMARY KEY,
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    day TEXT NOT NULL,
    side TEXT NOT NULL DEFAULT '', -- it was looked at from; empty where nobody said
    points TEXT NOT NULL, -- what was read: colours, the slider, what was said of points
    green INTEGER NOT NULL,
    brown INTEGER NOT NULL,
    bare INTEGER NOT NULL,
    sky INTEGER NOT NULL,
    share REAL NOT NULL, -- brown or bare, with its interval and how often that holds
    low REAL NOT NULL,
    high REAL NOT NULL,
    sure REAL NOT NULL,
    removed_at TEXT
) STRICT;
CREATE INDEX crown_count_plant ON crown_count (plant_id, day) WHERE removed_at IS NULL;

-- +goose Down
DROP TABLE crown_count;

-- The lowest temperatures that were told ahead, as they were told each day: held against what came.
-- +goose Up
CREATE TABLE night_told (
    property_id INTEGER NOT NULL REFERENCES property (id),
    told_on TEXT NOT NULL,
    day TEXT NOT NULL,
    min_c REAL NOT NULL,
    PRIMARY KEY (property_id, day, told_on)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE night_told;

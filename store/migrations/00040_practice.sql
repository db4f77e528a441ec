-- How people did in made-up gardens: never mixed with the record.
-- +goose Up
CREATE TABLE practice (
    id INTEGER PRIMARY KEY,
    by_name TEXT NOT NULL,
    day TEXT NOT NULL,
    climate TEXT NOT NULL,
    plants INTEGER NOT NULL,
    right INTEGER NOT NULL,
    score REAL NOT NULL,
    checks INTEGER NOT NULL
) STRICT;

-- +goose Down
DROP TABLE practice;

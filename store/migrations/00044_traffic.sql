-- When ways take longer.
-- +goose Up
CREATE TABLE traffic (
    id INTEGER PRIMARY KEY,
    from_min INTEGER NOT NULL,
    to_min INTEGER NOT NULL,
    times REAL NOT NULL,
    days TEXT NOT NULL DEFAULT '[]' -- weekdays, 0 Sunday; none: Monday to Friday
) STRICT;

-- +goose Down
DROP TABLE traffic;

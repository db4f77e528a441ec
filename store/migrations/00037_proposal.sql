-- Rounds as they were proposed, so that they outlive the program: the last few.
-- +goose Up
CREATE TABLE proposal (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    body TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE proposal;

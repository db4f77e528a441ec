-- How long the row or hedge is that a group of plants stands in.
-- +goose Up
ALTER TABLE plant ADD COLUMN row_m REAL NOT NULL DEFAULT 0 CHECK (row_m >= 0); -- m; 0: not measured

-- +goose Down
ALTER TABLE plant DROP COLUMN row_m;

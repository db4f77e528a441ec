-- How large the bed is that a group of plants fills.
-- +goose Up
ALTER TABLE plant ADD COLUMN bed_m2 REAL NOT NULL DEFAULT 0 CHECK (bed_m2 >= 0); -- m²; 0: not measured

-- +goose Down
ALTER TABLE plant DROP COLUMN bed_m2;

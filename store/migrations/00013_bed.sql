-- +goose Up
ALTER TABLE find ADD COLUMN bed_m2 REAL NOT NULL DEFAULT 0 CHECK (bed_m2 >= 0); -- of the bed it is in, 0 where nobody measured

-- +goose Down
ALTER TABLE find DROP COLUMN bed_m2;

-- +goose Up
ALTER TABLE plant ADD COLUMN graft_m REAL NOT NULL DEFAULT 0;    -- height of the graft; 0: none, or not known
ALTER TABLE plant ADD COLUMN planted INTEGER NOT NULL DEFAULT 0; -- year; 0: not known
ALTER TABLE plant_check ADD COLUMN leaf TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE plant_check DROP COLUMN leaf;
ALTER TABLE plant DROP COLUMN planted;
ALTER TABLE plant DROP COLUMN graft_m;

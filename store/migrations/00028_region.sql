-- The country and state of a property, where it was entered: what holds there.
-- +goose Up
ALTER TABLE property ADD COLUMN region TEXT NOT NULL DEFAULT ''; -- ISO 3166, as AU-VIC; empty: the country of its time zone

-- +goose Down
ALTER TABLE property DROP COLUMN region;

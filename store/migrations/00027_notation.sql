-- How a firm writes days and hours, and on what it prints: empty is as the reader's region has it.
-- +goose Up
ALTER TABLE firm ADD COLUMN day_order TEXT NOT NULL DEFAULT ''; -- day or month: which stands first
ALTER TABLE firm ADD COLUMN clock TEXT NOT NULL DEFAULT '';     -- 24 or 12 hours
ALTER TABLE firm ADD COLUMN paper TEXT NOT NULL DEFAULT '';     -- A4 or letter

-- +goose Down
ALTER TABLE firm DROP COLUMN paper;
ALTER TABLE firm DROP COLUMN clock;
ALTER TABLE firm DROP COLUMN day_order;

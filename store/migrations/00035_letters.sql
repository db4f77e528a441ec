-- What a letter is about, when one comes, and which letters tell of one visit.
-- +goose Up
ALTER TABLE letter ADD COLUMN about TEXT NOT NULL DEFAULT ''; -- visit, off, reminder, thanks, notice; empty: of before
ALTER TABLE letter ADD COLUMN visit INTEGER NOT NULL DEFAULT 0; -- the first letter that told of the visit; 0: this one
ALTER TABLE letter ADD COLUMN from_minute INTEGER NOT NULL DEFAULT 0; -- one comes from then on, minutes after midnight; 0: not told
ALTER TABLE letter ADD COLUMN to_minute INTEGER NOT NULL DEFAULT 0;
CREATE INDEX letter_about ON letter (property_id, about, day);

-- +goose Down
DROP INDEX letter_about;
ALTER TABLE letter DROP COLUMN to_minute;
ALTER TABLE letter DROP COLUMN from_minute;
ALTER TABLE letter DROP COLUMN visit;
ALTER TABLE letter DROP COLUMN about;

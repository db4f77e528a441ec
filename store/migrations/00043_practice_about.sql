-- What was practised on: a freeze, or what ails plants.
-- +goose Up
ALTER TABLE practice ADD COLUMN about TEXT NOT NULL DEFAULT 'freeze' CHECK (about IN ('freeze', 'causes'));

-- +goose Down
ALTER TABLE practice DROP COLUMN about;

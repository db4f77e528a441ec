-- What a look after a treatment found: whether it helped.
-- +goose Up
ALTER TABLE find ADD COLUMN helped TEXT NOT NULL DEFAULT '' CHECK (helped IN ('', 'gone', 'less', 'same'));
ALTER TABLE find ADD COLUMN helped_day TEXT NOT NULL DEFAULT ''; -- the day of that look
ALTER TABLE find ADD COLUMN helped_by INTEGER NOT NULL DEFAULT 0; -- the job of that look, 0 where it was entered by itself

-- +goose Down
ALTER TABLE find DROP COLUMN helped_by;
ALTER TABLE find DROP COLUMN helped_day;
ALTER TABLE find DROP COLUMN helped;

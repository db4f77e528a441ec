-- +goose Up
ALTER TABLE find ADD COLUMN prevent INTEGER NOT NULL DEFAULT 0; -- a wish: it is not there and is to be kept off
ALTER TABLE find ADD COLUMN affected INTEGER NOT NULL DEFAULT 0 CHECK (affected >= 0); -- of a group, 0 where nobody said
ALTER TABLE find ADD COLUMN harvest TEXT NOT NULL DEFAULT ''; -- the day it is eaten from next
ALTER TABLE find ADD COLUMN along_of INTEGER REFERENCES find (id); -- treated along with that one, not found by itself

ALTER TABLE product ADD COLUMN label_hash TEXT NOT NULL DEFAULT ''; -- the label's picture or PDF in the data folder
ALTER TABLE product ADD COLUMN label_type TEXT NOT NULL DEFAULT '' CHECK (label_type IN ('', 'jpg', 'pdf'));

-- who works for the firm, and what each may do
CREATE TABLE person (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL CHECK (name <> ''),
    skills TEXT NOT NULL DEFAULT '[]',
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;

-- +goose Down
DROP TABLE person;
ALTER TABLE product DROP COLUMN label_type;
ALTER TABLE product DROP COLUMN label_hash;
ALTER TABLE find DROP COLUMN along_of;
ALTER TABLE find DROP COLUMN harvest;
ALTER TABLE find DROP COLUMN affected;
ALTER TABLE find DROP COLUMN prevent;

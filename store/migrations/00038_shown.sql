-- What a look after a freeze tells of how mild its garden and its kind are, kept with the verdict it was made for.
-- +goose Up
CREATE TABLE freeze_shown (
    verdict_id INTEGER PRIMARY KEY REFERENCES verdict (id),
    event_day TEXT NOT NULL,
    spot TEXT NOT NULL,
    here INTEGER NOT NULL, -- 1: measured in the garden itself
    low REAL NOT NULL, -- where the forecast had life end, four times in five, as shares of the height
    high REAL NOT NULL,
    ends REAL NOT NULL, -- where it was found to end
    logs TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE freeze_shown;

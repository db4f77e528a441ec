-- What the columns of weather files hold, as it was told by hand once for files with such a header.
-- +goose Up
CREATE TABLE weather_matching (
    header TEXT PRIMARY KEY, -- names of its columns, in small letters
    matching TEXT NOT NULL   -- exchange.Matching
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE weather_matching;

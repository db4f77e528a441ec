-- What the firm's own lists call kinds by, as it was told once.
-- +goose Up
CREATE TABLE own_name (
    name TEXT PRIMARY KEY, -- as it was written
    species TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE own_name;

-- +goose Up
-- what the firm says of kinds: its price for one, and whether it must not be planted in its region
CREATE TABLE kind_word (
    species TEXT PRIMARY KEY,
    price REAL NOT NULL DEFAULT 0 CHECK (price >= 0),
    banned INTEGER NOT NULL DEFAULT 0 CHECK (banned IN (0, 1))
) STRICT, WITHOUT ROWID;

-- the jobs of a winter are known by their key, no more by their title
UPDATE job_order SET key = 'winter' WHERE key = 'hand' AND title LIKE 'For the winter: %';

-- +goose Down
UPDATE job_order SET key = 'hand' WHERE key = 'winter';
DROP TABLE kind_word;

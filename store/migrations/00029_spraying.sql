-- What an inspector asks of a use, and the number of a person's licence; a shelf that was counted may hold less than the
-- record has.
-- +goose Up
ALTER TABLE product_use ADD COLUMN details TEXT NOT NULL DEFAULT '{}'; -- hours, area, numbers and waits as they were that day
ALTER TABLE person ADD COLUMN licence TEXT NOT NULL DEFAULT ''; -- its number, as on the card
CREATE TABLE stock_counted (
    id INTEGER PRIMARY KEY,
    product_id INTEGER NOT NULL REFERENCES product (id),
    day TEXT NOT NULL,
    amount REAL NOT NULL, -- bought; or what the shelf held more or less than the record when it was counted
    lot TEXT NOT NULL DEFAULT '',
    expires TEXT NOT NULL DEFAULT '',
    removed_at TEXT
) STRICT;
INSERT INTO stock_counted (id, product_id, day, amount, lot, expires, removed_at)
    SELECT id, product_id, day, amount, lot, expires, removed_at FROM stock;
DROP TABLE stock;
ALTER TABLE stock_counted RENAME TO stock;
CREATE INDEX stock_product ON stock (product_id) WHERE removed_at IS NULL;

-- +goose Down
ALTER TABLE product_use DROP COLUMN details;
ALTER TABLE person DROP COLUMN licence;

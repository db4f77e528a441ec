-- +goose Up
-- a picture taken at a job; it lies in the data folder under its hash
CREATE TABLE order_photo (
    id INTEGER PRIMARY KEY,
    order_id INTEGER NOT NULL REFERENCES job_order (id),
    hash TEXT NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    removed_at TEXT
) STRICT;
CREATE INDEX order_photo_order ON order_photo (order_id, id) WHERE removed_at IS NULL;

-- +goose Down
DROP TABLE order_photo;

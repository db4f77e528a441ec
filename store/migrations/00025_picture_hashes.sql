-- A picture is given only while a row in sight tells of it: which is asked at each picture.
-- +goose Up
CREATE INDEX photo_hash ON photo (hash);
CREATE INDEX order_photo_hash ON order_photo (hash);

-- +goose Down
DROP INDEX order_photo_hash;
DROP INDEX photo_hash;

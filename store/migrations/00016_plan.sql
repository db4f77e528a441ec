-- +goose Up
-- a property seen from above, in metres: what stands where
CREATE TABLE site_plan (
    property_id INTEGER PRIMARY KEY REFERENCES property (id),
    body TEXT NOT NULL,
    version INTEGER NOT NULL
) STRICT;

-- +goose Down
DROP TABLE site_plan;

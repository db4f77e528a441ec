-- +goose Up
-- ways that somebody has timed, either way: between two properties, or from a crew's start to a property
CREATE TABLE way (
    from_crew INTEGER NOT NULL DEFAULT 0, -- 0: from a property
    from_property INTEGER NOT NULL DEFAULT 0,
    to_property INTEGER NOT NULL REFERENCES property (id),
    minutes REAL NOT NULL CHECK (minutes >= 0),
    PRIMARY KEY (from_crew, from_property, to_property)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE way;

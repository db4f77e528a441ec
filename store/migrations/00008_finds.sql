-- +goose Up
-- what was found wrong with a plant, or somewhere on a property
CREATE TABLE find (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    plant_id INTEGER REFERENCES plant (id),
    species TEXT NOT NULL DEFAULT '',
    day TEXT NOT NULL,
    cause TEXT NOT NULL,
    certainty REAL NOT NULL CHECK (certainty >= 0 AND certainty <= 1),
    share REAL NOT NULL DEFAULT 0 CHECK (share >= 0 AND share <= 1),
    seen TEXT NOT NULL DEFAULT '[]',
    not_seen TEXT NOT NULL DEFAULT '[]',
    how TEXT NOT NULL CHECK (how IN ('look', 'walk', 'call')),
    note TEXT NOT NULL DEFAULT '',
    state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'closed')),
    closed TEXT NOT NULL DEFAULT '', -- the day
    ending TEXT NOT NULL DEFAULT '', -- how it ended
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE INDEX find_property ON find (property_id, id) WHERE removed_at IS NULL;
CREATE INDEX find_plant ON find (plant_id, id) WHERE removed_at IS NULL;

-- a client's call: what was asked and said, and what came of it
CREATE TABLE call (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    plant_id INTEGER REFERENCES plant (id),
    species TEXT NOT NULL DEFAULT '',
    day TEXT NOT NULL,
    caller TEXT NOT NULL DEFAULT '',
    answers TEXT NOT NULL DEFAULT '{}',
    seen TEXT NOT NULL DEFAULT '[]',
    not_seen TEXT NOT NULL DEFAULT '[]',
    share REAL NOT NULL DEFAULT 0,
    ending TEXT NOT NULL CHECK (ending IN ('open', 'advice', 'visit', 'picture')),
    said TEXT NOT NULL DEFAULT '', -- to the caller
    order_id INTEGER REFERENCES job_order (id),
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE INDEX call_property ON call (property_id, id) WHERE removed_at IS NULL;

-- +goose Down
DROP TABLE call;
DROP TABLE find;

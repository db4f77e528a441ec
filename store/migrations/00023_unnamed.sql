-- +goose Up
-- what was found and nobody could name yet: words, signs and pictures, what was sent where, and the answer awaited
CREATE TABLE unnamed (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    plant_id INTEGER REFERENCES plant (id),
    species TEXT NOT NULL DEFAULT '',
    day TEXT NOT NULL,
    words TEXT NOT NULL,
    seen TEXT NOT NULL DEFAULT '[]',
    not_seen TEXT NOT NULL DEFAULT '[]',
    share REAL NOT NULL DEFAULT 0 CHECK (share >= 0 AND share <= 1),
    pictures TEXT NOT NULL DEFAULT '[]', -- their hashes
    sent TEXT NOT NULL DEFAULT '',       -- what: leaves, a picture, soil
    sent_to TEXT NOT NULL DEFAULT '',
    sent_on TEXT NOT NULL DEFAULT '',
    answer_by TEXT NOT NULL DEFAULT '',
    answer TEXT NOT NULL DEFAULT '',     -- what came back, or why nothing more is awaited
    state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'named', 'closed')),
    find_id INTEGER REFERENCES find (id), -- once it is named
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE INDEX unnamed_property ON unnamed (property_id, id) WHERE removed_at IS NULL;
CREATE INDEX unnamed_plant ON unnamed (plant_id, id) WHERE removed_at IS NULL;

-- +goose Down
DROP TABLE unnamed;

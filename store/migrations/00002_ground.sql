-- +goose Up
ALTER TABLE property ADD COLUMN site TEXT NOT NULL DEFAULT '{}'; -- how it differs from the open country
ALTER TABLE property ADD COLUMN value REAL NOT NULL DEFAULT 1;   -- the client's weight

ALTER TABLE plant ADD COLUMN base_mm REAL NOT NULL DEFAULT 0;    -- stem at the base; 0: usual for form and height
ALTER TABLE plant ADD COLUMN pot_l REAL NOT NULL DEFAULT 0;      -- 0: in the ground
ALTER TABLE plant ADD COLUMN shelter REAL NOT NULL DEFAULT 0.5;
ALTER TABLE plant ADD COLUMN sun REAL NOT NULL DEFAULT 0.6;
ALTER TABLE plant ADD COLUMN mulched INTEGER NOT NULL DEFAULT 0;
ALTER TABLE plant ADD COLUMN value REAL NOT NULL DEFAULT 1;
ALTER TABLE plant ADD COLUMN stop INTEGER NOT NULL DEFAULT 0;    -- place on the way round the property; 0: after the others

ALTER TABLE weather_hour ADD COLUMN here INTEGER NOT NULL DEFAULT 0; -- measured in the garden itself

ALTER TABLE firm ADD COLUMN today TEXT NOT NULL DEFAULT '';      -- the day the sample stands at; empty: the clock's

-- the firm's own and corrected species entries
CREATE TABLE species (
    id TEXT PRIMARY KEY,
    entry TEXT NOT NULL,
    version INTEGER NOT NULL DEFAULT 1
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE species;
ALTER TABLE firm DROP COLUMN today;
ALTER TABLE weather_hour DROP COLUMN here;
ALTER TABLE plant DROP COLUMN stop;
ALTER TABLE plant DROP COLUMN value;
ALTER TABLE plant DROP COLUMN mulched;
ALTER TABLE plant DROP COLUMN sun;
ALTER TABLE plant DROP COLUMN shelter;
ALTER TABLE plant DROP COLUMN pot_l;
ALTER TABLE plant DROP COLUMN base_mm;
ALTER TABLE property DROP COLUMN value;
ALTER TABLE property DROP COLUMN site;

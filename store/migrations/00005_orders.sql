-- +goose Up
-- a piece of work: what is asked for, by whom, where it stands. Its curve is never kept: the columns from win_from on are
-- what lists show of it, worked out anew when its place's year moves.
CREATE TABLE job_order (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    plant_id INTEGER REFERENCES plant (id), -- the one plant; null for several (order_plant) or for the property itself
    origin TEXT NOT NULL CHECK (origin IN ('verdict', 'after-care', 'taking in', 'plan', 'programme', 'planting', 'hand')),
    origin_id INTEGER NOT NULL DEFAULT 0,   -- of the verdict, plan, programme or planting
    trouble TEXT NOT NULL DEFAULT '',       -- what a verdict was given on
    key TEXT NOT NULL DEFAULT '',           -- names it among those made together
    kind TEXT NOT NULL,
    title TEXT NOT NULL,
    for_day TEXT NOT NULL,                  -- from whose garden year its time is reckoned
    params TEXT NOT NULL DEFAULT '{}',
    minutes INTEGER NOT NULL CHECK (minutes > 0),
    crew_size INTEGER NOT NULL DEFAULT 1,
    body TEXT NOT NULL DEFAULT '{}',        -- skills, kit, reasons, cautions
    state TEXT NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'on a day', 'done', 'skipped', 'dropped')),
    day TEXT,                               -- it is on
    crew TEXT NOT NULL DEFAULT '',
    place INTEGER NOT NULL DEFAULT 0,       -- among the day's work
    ended TEXT,                             -- the day it was done or skipped on
    took_minutes INTEGER NOT NULL DEFAULT 0,
    note TEXT NOT NULL DEFAULT '',          -- why it was skipped, or what was seen
    dropped_by INTEGER REFERENCES verdict (id),
    follows INTEGER REFERENCES job_order (id), -- the time before, of a repeat
    in_sight INTEGER NOT NULL DEFAULT 1,    -- its property and plant are not removed
    version INTEGER NOT NULL DEFAULT 1,
    win_from TEXT,
    win_to TEXT,
    best_day TEXT,
    best_cost INTEGER NOT NULL DEFAULT 101,
    day_cost INTEGER NOT NULL DEFAULT 101,  -- of the day it is on
    passed INTEGER NOT NULL DEFAULT 0,
    listed TEXT NOT NULL DEFAULT '9999-12-31' -- its place in lists: best_day, those past their time last
) STRICT;
CREATE INDEX order_listed ON job_order (listed, id) WHERE in_sight = 1 AND state IN ('waiting', 'on a day');
CREATE INDEX order_listed_at ON job_order (property_id, listed, id) WHERE in_sight = 1 AND state IN ('waiting', 'on a day');
CREATE INDEX order_waiting ON job_order (listed, id) WHERE in_sight = 1 AND state = 'waiting';
CREATE INDEX order_closing ON job_order (win_to, win_from) WHERE in_sight = 1 AND state = 'waiting';
CREATE INDEX order_day ON job_order (day, place, id) WHERE in_sight = 1 AND state = 'on a day';
CREATE INDEX order_ended ON job_order (ended, id) WHERE in_sight = 1 AND state IN ('done', 'skipped');
CREATE INDEX order_look ON job_order (listed, id) WHERE in_sight = 1 AND kind = 'look' AND state IN ('waiting', 'on a day');
CREATE INDEX order_plant_id ON job_order (plant_id);
CREATE INDEX order_origin ON job_order (origin_id, origin);
CREATE INDEX order_follows ON job_order (follows) WHERE follows IS NOT NULL;

CREATE TABLE order_plant (
    order_id INTEGER NOT NULL REFERENCES job_order (id),
    plant_id INTEGER NOT NULL REFERENCES plant (id),
    PRIMARY KEY (order_id, plant_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX order_plant_plant ON order_plant (plant_id);

CREATE TABLE order_gap (
    order_id INTEGER NOT NULL REFERENCES job_order (id),
    of_id INTEGER NOT NULL REFERENCES job_order (id), -- comes first
    min_days INTEGER NOT NULL DEFAULT 0,
    max_days INTEGER NOT NULL DEFAULT 0,              -- 0: no limit
    why TEXT NOT NULL DEFAULT '',
    PRIMARY KEY (order_id, of_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX order_gap_of ON order_gap (of_id);

ALTER TABLE property ADD COLUMN windowed TEXT NOT NULL DEFAULT ''; -- the year its orders' windows were last worked out for
ALTER TABLE firm ADD COLUMN units TEXT NOT NULL DEFAULT 'metric';
ALTER TABLE firm ADD COLUMN week_start INTEGER NOT NULL DEFAULT 1; -- 1 Monday, 0 Sunday, 6 Saturday
ALTER TABLE firm ADD COLUMN rules TEXT NOT NULL DEFAULT '{}';
ALTER TABLE firm ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE once ADD COLUMN hash TEXT NOT NULL DEFAULT '';         -- of what was sent under the key
CREATE INDEX once_at ON once (at);

-- +goose Down
DROP INDEX once_at;
ALTER TABLE once DROP COLUMN hash;
ALTER TABLE firm DROP COLUMN version;
ALTER TABLE firm DROP COLUMN rules;
ALTER TABLE firm DROP COLUMN week_start;
ALTER TABLE firm DROP COLUMN units;
ALTER TABLE property DROP COLUMN windowed;
DROP TABLE order_gap;
DROP TABLE order_plant;
DROP TABLE job_order;

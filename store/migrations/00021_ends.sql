-- +goose Up
-- of a verdict to wait: the day
ALTER TABLE verdict ADD COLUMN until TEXT NOT NULL DEFAULT '';
UPDATE verdict SET until = coalesce(json_extract(answer, '$.verdict.until'), '') WHERE kind = 'wait until';

-- why a job is done although what was found on its plant says to wait
ALTER TABLE job_order ADD COLUMN anyway TEXT NOT NULL DEFAULT '';

-- what was done of a job, or that it was gone to and not done; with where it stood before, so that it can be taken back
CREATE TABLE order_stint (
    id INTEGER PRIMARY KEY,
    order_id INTEGER NOT NULL REFERENCES job_order (id),
    kind TEXT NOT NULL CHECK (kind IN ('partly done', 'not today')),
    day TEXT NOT NULL,
    reason TEXT NOT NULL DEFAULT '',
    note TEXT NOT NULL DEFAULT '',
    took_minutes INTEGER NOT NULL DEFAULT 0,
    by_name TEXT NOT NULL DEFAULT '',
    was_day TEXT,
    was_crew TEXT NOT NULL DEFAULT '',
    was_crew_id INTEGER,
    was_place INTEGER NOT NULL DEFAULT 0,
    was_minutes INTEGER NOT NULL,
    undone INTEGER NOT NULL DEFAULT 0 CHECK (undone IN (0, 1))
) STRICT;
CREATE INDEX stint_order ON order_stint (order_id) WHERE undone = 0;
CREATE INDEX stint_day ON order_stint (day) WHERE undone = 0;

-- +goose Down
DROP TABLE order_stint;
ALTER TABLE job_order DROP COLUMN anyway;
ALTER TABLE verdict DROP COLUMN until;

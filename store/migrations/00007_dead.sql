-- +goose Up
ALTER TABLE job_order ADD COLUMN ended_with INTEGER REFERENCES outcome (id); -- the finding that its plant is dead
CREATE INDEX order_ended_with ON job_order (ended_with) WHERE ended_with IS NOT NULL;

-- +goose Down
DROP INDEX order_ended_with;
ALTER TABLE job_order DROP COLUMN ended_with;

-- +goose Up
-- crews by id: one that gets another name keeps its days; what stands under a name that no crew has keeps the name
ALTER TABLE job_order ADD COLUMN crew_id INTEGER REFERENCES crew (id);
UPDATE job_order SET crew_id = (SELECT max(c.id) FROM crew c WHERE c.name = job_order.crew AND c.removed_at IS NULL)
WHERE crew <> '';
UPDATE job_order SET crew_id = (SELECT max(c.id) FROM crew c WHERE c.name = job_order.crew)
WHERE crew <> '' AND crew_id IS NULL;

-- letters wait here until the post has taken them and they have a receipt
CREATE INDEX letter_waiting ON letter (id) WHERE receipt = '';

-- +goose Down
DROP INDEX letter_waiting;
ALTER TABLE job_order DROP COLUMN crew_id;

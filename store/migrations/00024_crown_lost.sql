-- How much of its crown a plant had lost by the verdict that stands is asked of a whole property at each look: it
-- stands beside the answer, so that no answer is read for it.
-- +goose Up
ALTER TABLE verdict ADD COLUMN crown_lost REAL;
UPDATE verdict SET crown_lost = json_extract(answer, '$.boundary.crown_lost');

-- +goose Down
ALTER TABLE verdict DROP COLUMN crown_lost;

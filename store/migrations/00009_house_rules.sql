-- +goose Up
UPDATE firm SET rules = CASE WHEN json_extract(rules, '$.cut_perennials_at_frost') = 1 THEN '{"perennials":"at frost"}' ELSE '{}' END;
ALTER TABLE property ADD COLUMN rules TEXT NOT NULL DEFAULT '{}'; -- house rules that are others here
CREATE INDEX order_cuts ON job_order (property_id) WHERE kind = 'prune' AND in_sight = 1;
CREATE INDEX order_by_plant ON job_order (property_id, plant_id, listed, id) WHERE in_sight = 1 AND state IN ('waiting', 'on a day');
CREATE INDEX order_by_kind ON job_order (kind, listed, id) WHERE in_sight = 1 AND state IN ('waiting', 'on a day');

-- +goose Down
DROP INDEX order_by_kind;
DROP INDEX order_by_plant;
DROP INDEX order_cuts;
ALTER TABLE property DROP COLUMN rules;
UPDATE firm SET rules = CASE WHEN json_extract(rules, '$.perennials') = 'at frost' THEN '{"cut_perennials_at_frost":true}' ELSE '{"cut_perennials_at_frost":false}' END;

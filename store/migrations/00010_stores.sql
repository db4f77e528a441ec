-- +goose Up
-- a product as its label says
CREATE TABLE product (
    id INTEGER PRIMARY KEY,
    card TEXT NOT NULL, -- treatment.Card
    supplier TEXT NOT NULL DEFAULT '',
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;

-- what was bought or counted in, by lot
CREATE TABLE stock (
    id INTEGER PRIMARY KEY,
    product_id INTEGER NOT NULL REFERENCES product (id),
    day TEXT NOT NULL,
    amount REAL NOT NULL CHECK (amount > 0),
    lot TEXT NOT NULL DEFAULT '',
    expires TEXT NOT NULL DEFAULT '',
    removed_at TEXT
) STRICT;
CREATE INDEX stock_product ON stock (product_id) WHERE removed_at IS NULL;

-- what was used or done against a cause: the record that most places require
CREATE TABLE product_use (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    plant_id INTEGER REFERENCES plant (id),
    find_id INTEGER REFERENCES find (id),
    order_id INTEGER REFERENCES job_order (id),
    product_id INTEGER REFERENCES product (id),
    product TEXT NOT NULL DEFAULT '', -- its name as it was then
    active TEXT NOT NULL DEFAULT '',
    cause TEXT NOT NULL DEFAULT '',
    rung TEXT NOT NULL DEFAULT '',
    step INTEGER NOT NULL DEFAULT 0,
    day TEXT NOT NULL,
    who TEXT NOT NULL DEFAULT '',
    amount REAL NOT NULL DEFAULT 0 CHECK (amount >= 0),
    unit TEXT NOT NULL DEFAULT '',
    spray_l REAL NOT NULL DEFAULT 0 CHECK (spray_l >= 0),
    plants INTEGER NOT NULL DEFAULT 1,
    temp_c REAL,
    wind_ms REAL,
    note TEXT NOT NULL DEFAULT '',
    removed_at TEXT
) STRICT;
CREATE INDEX use_plant ON product_use (plant_id, day) WHERE removed_at IS NULL;
CREATE INDEX use_day ON product_use (day, id) WHERE removed_at IS NULL;
CREATE INDEX use_product ON product_use (product_id) WHERE removed_at IS NULL;
CREATE INDEX use_order ON product_use (order_id) WHERE order_id IS NOT NULL;

-- +goose Down
DROP TABLE product_use;
DROP TABLE stock;
DROP TABLE product;

-- +goose Up
-- who may sign in, and as what
CREATE TABLE account (
    id INTEGER PRIMARY KEY,
    login TEXT NOT NULL,                    -- by which one signs in, small letters
    name TEXT NOT NULL,
    role TEXT NOT NULL CHECK (role IN ('owner', 'planner', 'crew')),
    hash TEXT NOT NULL DEFAULT '',          -- argon2id of the password; empty until the invitation is taken
    epoch INTEGER NOT NULL DEFAULT 1,       -- sessions of an earlier one are over
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;
CREATE UNIQUE INDEX account_login ON account (login) WHERE removed_at IS NULL;

-- one-time links by which a password is set; kept as a hash
CREATE TABLE invitation (
    hash TEXT PRIMARY KEY,
    account_id INTEGER NOT NULL REFERENCES account (id),
    until TEXT NOT NULL,
    used INTEGER NOT NULL DEFAULT 0
) STRICT, WITHOUT ROWID;

CREATE TABLE session (
    token TEXT PRIMARY KEY,                 -- as a hash
    data BLOB NOT NULL,
    expiry REAL NOT NULL                    -- seconds since 1970
) STRICT, WITHOUT ROWID;

-- who did what: one row a write that somebody signed in for
CREATE TABLE deed (
    id INTEGER PRIMARY KEY,
    at TEXT NOT NULL,
    account_id INTEGER NOT NULL REFERENCES account (id),
    name TEXT NOT NULL,
    did TEXT NOT NULL,                      -- the operation
    path TEXT NOT NULL,
    plant_id INTEGER,
    order_id INTEGER
) STRICT;
CREATE INDEX deed_plant ON deed (plant_id, id) WHERE plant_id IS NOT NULL;
CREATE INDEX deed_order ON deed (order_id, id) WHERE order_id IS NOT NULL;

ALTER TABLE verdict ADD COLUMN by_name TEXT NOT NULL DEFAULT '';
ALTER TABLE job_order ADD COLUMN by_name TEXT NOT NULL DEFAULT ''; -- who put it where it stands
ALTER TABLE product_use ADD COLUMN by_name TEXT NOT NULL DEFAULT '';

-- a client's link to what was found and what is planned at a property; kept as a hash
CREATE TABLE client_link (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id),
    hash TEXT NOT NULL UNIQUE,
    made TEXT NOT NULL,
    until TEXT NOT NULL,
    revoked_at TEXT
) STRICT;

-- backups that were written whole
CREATE TABLE backup_done (
    at TEXT NOT NULL,
    file TEXT NOT NULL,
    plants INTEGER NOT NULL
) STRICT;

-- +goose Down
DROP TABLE backup_done;
DROP TABLE client_link;
ALTER TABLE product_use DROP COLUMN by_name;
ALTER TABLE job_order DROP COLUMN by_name;
ALTER TABLE verdict DROP COLUMN by_name;
DROP TABLE deed;
DROP TABLE session;
DROP TABLE invitation;
DROP TABLE account;

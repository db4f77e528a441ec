-- Keys that devices hold for signing in without a password; the private half never leaves the device.
-- +goose Up
CREATE TABLE passkey (
    id INTEGER PRIMARY KEY,
    account_id INTEGER NOT NULL REFERENCES account (id),
    key_id BLOB NOT NULL UNIQUE,            -- by which the device names it
    data TEXT NOT NULL,                     -- JSON: the public key, how often it was used
    name TEXT NOT NULL,                     -- of the device, as its owner calls it
    made TEXT NOT NULL,
    used TEXT NOT NULL DEFAULT ''
);
CREATE INDEX passkey_account ON passkey (account_id);

-- +goose Down
DROP TABLE passkey;

-- The ledger: what the firm asks for its work, its clients, what they were offered, and what they said to it.
-- +goose Up
CREATE TABLE rates (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    body TEXT NOT NULL, -- estimate.Rates
    version INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE TABLE client (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    phone TEXT NOT NULL DEFAULT '',
    email TEXT NOT NULL DEFAULT '',
    address TEXT NOT NULL DEFAULT '',
    units TEXT NOT NULL DEFAULT '', -- metric, imperial; empty: the firm's
    note TEXT NOT NULL DEFAULT '',
    version INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT
) STRICT;

CREATE TABLE client_of (
    property_id INTEGER NOT NULL REFERENCES property (id) ON DELETE CASCADE,
    client_id INTEGER NOT NULL REFERENCES client (id) ON DELETE CASCADE,
    role TEXT NOT NULL, -- owner, tenant, agency, housekeeper, other
    gets TEXT NOT NULL, -- JSON list: days, reports, estimates
    PRIMARY KEY (property_id, client_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE estimate (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id) ON DELETE CASCADE,
    client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
    number INTEGER NOT NULL UNIQUE,
    edition INTEGER NOT NULL DEFAULT 1,
    made TEXT NOT NULL,
    until TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('draft', 'sent', 'withdrawn')),
    body TEXT NOT NULL, -- ledger: lines, visits, rates, words
    version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX estimate_property ON estimate (property_id, id);

-- Each edition as it was sent: it is not changed any more.
CREATE TABLE estimate_sent (
    estimate_id INTEGER NOT NULL REFERENCES estimate (id) ON DELETE CASCADE,
    edition INTEGER NOT NULL,
    day TEXT NOT NULL,
    body TEXT NOT NULL,
    PRIMARY KEY (estimate_id, edition)
) STRICT, WITHOUT ROWID;

-- What clients said, each answer for good: the last one to a line counts.
CREATE TABLE client_answer (
    id INTEGER PRIMARY KEY,
    estimate_id INTEGER NOT NULL REFERENCES estimate (id) ON DELETE CASCADE,
    edition INTEGER NOT NULL,
    line INTEGER NOT NULL,
    order_id INTEGER REFERENCES job_order (id) ON DELETE SET NULL,
    body TEXT NOT NULL, -- estimate.Answer
    at INTEGER NOT NULL -- seconds since 1970
) STRICT;
CREATE INDEX client_answer_estimate ON client_answer (estimate_id, id);

-- What clients read of what happened: as it was written, edited and sent.
CREATE TABLE report (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN ('event', 'walk', 'season', 'insurer')),
    day TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('draft', 'sent')),
    body TEXT NOT NULL, -- report.Report
    version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX report_property ON report (property_id, id);

-- How mail goes out. The password stays with the machine: it is in no backup that others read, and no answer tells it.
CREATE TABLE mail (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    body TEXT NOT NULL,
    version INTEGER NOT NULL DEFAULT 1
) STRICT;
ALTER TABLE letter ADD COLUMN subject TEXT NOT NULL DEFAULT '';
ALTER TABLE letter ADD COLUMN mail_to TEXT NOT NULL DEFAULT '[]'; -- JSON list of addresses; none: simulated
ALTER TABLE letter ADD COLUMN trouble TEXT NOT NULL DEFAULT ''; -- why the post did not take it the last time
ALTER TABLE letter ADD COLUMN tried INTEGER NOT NULL DEFAULT 0;

-- What was charged: drafts of invoices, under numbers without a gap. None is changed or taken out any more.
CREATE TABLE charge (
    id INTEGER PRIMARY KEY,
    property_id INTEGER NOT NULL REFERENCES property (id) ON DELETE CASCADE,
    client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
    number INTEGER NOT NULL UNIQUE,
    day TEXT NOT NULL,
    body TEXT NOT NULL -- ledger: lines, visits, rates, words
) STRICT;
CREATE INDEX charge_property ON charge (property_id, id);
ALTER TABLE job_order ADD COLUMN charge_id INTEGER REFERENCES charge (id) ON DELETE SET NULL;

-- How far a job is agreed with its client.
ALTER TABLE job_order ADD COLUMN agreed TEXT NOT NULL DEFAULT '' CHECK (agreed IN ('', 'asked', 'agreed', 'declined'));

-- +goose Down
ALTER TABLE letter DROP COLUMN tried;
ALTER TABLE letter DROP COLUMN trouble;
ALTER TABLE letter DROP COLUMN mail_to;
ALTER TABLE letter DROP COLUMN subject;
DROP TABLE mail;
DROP TABLE report;
ALTER TABLE job_order DROP COLUMN agreed;
ALTER TABLE job_order DROP COLUMN charge_id;
DROP TABLE charge;
DROP TABLE client_answer;
DROP TABLE estimate_sent;
DROP TABLE estimate;
DROP TABLE client_of;
DROP TABLE client;
DROP TABLE rates;

CREATE TABLE events (
    seq INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    kind TEXT NOT NULL,
    platform TEXT,
    message TEXT,
    person TEXT,
    body TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX events_message ON events (platform, message) WHERE kind = 'message';
CREATE INDEX events_person ON events (person, seq) WHERE person IS NOT NULL;

CREATE TABLE effects (
    seq INTEGER PRIMARY KEY,
    event INTEGER REFERENCES events (seq),
    at INTEGER NOT NULL,
    effect TEXT NOT NULL,
    platform TEXT,
    message TEXT,
    body TEXT NOT NULL
) STRICT;
CREATE INDEX effects_message ON effects (platform, message) WHERE message IS NOT NULL;
CREATE INDEX effects_event ON effects (event);

CREATE TABLE outbox (
    effect INTEGER PRIMARY KEY REFERENCES effects (seq),
    platform TEXT NOT NULL,
    status TEXT NOT NULL CHECK (status IN ('waiting', 'sending', 'sent', 'failed', 'dropped', 'impossible')),
    tries INTEGER NOT NULL DEFAULT 0,
    note TEXT,
    changed INTEGER NOT NULL
) STRICT;
CREATE INDEX outbox_open ON outbox (platform, effect) WHERE status IN ('waiting', 'sending');

CREATE TABLE state (
    name TEXT NOT NULL,
    key TEXT NOT NULL,
    body TEXT NOT NULL,
    PRIMARY KEY (name, key)
) STRICT, WITHOUT ROWID;

CREATE TABLE settings (
    revision INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    document TEXT NOT NULL
) STRICT;

CREATE TABLE ledger (
    seq INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    place TEXT NOT NULL,
    what TEXT NOT NULL,
    about TEXT,
    before TEXT,
    after TEXT
) STRICT;
CREATE TRIGGER ledger_keeps_what_was BEFORE UPDATE ON ledger BEGIN SELECT RAISE(ABORT, 'the ledger only grows'); END;
CREATE TRIGGER ledger_keeps_all BEFORE DELETE ON ledger BEGIN SELECT RAISE(ABORT, 'the ledger only grows'); END;

CREATE TABLE accounts (
    id INTEGER PRIMARY KEY,
    login TEXT NOT NULL UNIQUE COLLATE NOCASE,
    name TEXT NOT NULL,
    level TEXT NOT NULL CHECK (level IN ('viewer', 'moderator', 'lead', 'broadcaster')),
    password TEXT NOT NULL,
    person TEXT
) STRICT;

CREATE TABLE sessions (
    token TEXT PRIMARY KEY,
    account INTEGER NOT NULL REFERENCES accounts (id) ON DELETE CASCADE,
    began INTEGER NOT NULL,
    ends INTEGER NOT NULL,
    from_where TEXT NOT NULL
) STRICT;

CREATE TABLE welcome_keys (key TEXT PRIMARY KEY, made INTEGER NOT NULL) STRICT;

CREATE TABLE connections (
    platform TEXT PRIMARY KEY,
    address TEXT NOT NULL,
    token TEXT NOT NULL
) STRICT;

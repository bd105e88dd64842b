-- Somebody who has left keeps a row, so that what they did still has a name.
ALTER TABLE accounts ADD COLUMN gone INTEGER;

CREATE TABLE invitations (
    id INTEGER PRIMARY KEY,
    key TEXT NOT NULL UNIQUE,
    level TEXT NOT NULL CHECK (level IN ('viewer', 'moderator', 'lead')),
    note TEXT NOT NULL,
    made INTEGER NOT NULL,
    ends INTEGER NOT NULL,
    made_by INTEGER NOT NULL REFERENCES accounts (id),
    used_by INTEGER REFERENCES accounts (id)
) STRICT;

CREATE TABLE moved_permissions (
    act TEXT PRIMARY KEY,
    level TEXT NOT NULL CHECK (level IN ('moderator', 'lead'))
) STRICT;

-- What moderators note for each other: about a person, or (without one) for whoever comes next.
CREATE TABLE notes (
    id INTEGER PRIMARY KEY,
    person TEXT,
    text TEXT NOT NULL,
    at INTEGER NOT NULL,
    by TEXT NOT NULL,
    by_name TEXT NOT NULL,
    gone INTEGER
) STRICT;
CREATE INDEX notes_person ON notes (person);

-- When an account last had a screen open, for what it missed meanwhile.
ALTER TABLE accounts ADD COLUMN left_at INTEGER;

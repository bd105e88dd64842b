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

-- When an account last had a screen open, and since when it was away, until what it missed was looked at.
ALTER TABLE accounts ADD COLUMN here_at INTEGER;
ALTER TABLE accounts ADD COLUMN away_from INTEGER;

-- When a session was last used, to the hour; one that lies unused ends.
ALTER TABLE sessions ADD COLUMN used INTEGER;

-- For what was done since a moment: stops by the judge, and the ledger's entries.
CREATE INDEX effects_verdict_at ON effects (at) WHERE effect = 'verdict';
CREATE INDEX ledger_at ON ledger (at);

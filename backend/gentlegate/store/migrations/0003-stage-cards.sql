CREATE TABLE stage_cards (
    card TEXT PRIMARY KEY,
    key TEXT NOT NULL UNIQUE,
    style TEXT NOT NULL
) STRICT;

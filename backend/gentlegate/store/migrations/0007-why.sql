-- Why a change was made, where it is part of something larger: a kit taken in, a section put back, an entry taken back.
ALTER TABLE ledger ADD COLUMN why TEXT;

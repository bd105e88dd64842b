-- `second` is the shared secret (base 32); `second_used` the last time step whose code was taken, so that none counts twice.
ALTER TABLE accounts ADD COLUMN second TEXT;
ALTER TABLE accounts ADD COLUMN second_used INTEGER NOT NULL DEFAULT 0;

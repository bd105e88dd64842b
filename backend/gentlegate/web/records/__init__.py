"""The Records room: the ledger and what is taken back from it."""

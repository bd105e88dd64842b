CREATE INDEX ledger_about ON ledger (what, about COLLATE NOCASE);

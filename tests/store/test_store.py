from __future__ import annotations

import sqlite3
import tempfile
import unittest
from pathlib import Path

from gentlegate.core.engine import Engine
from gentlegate.core.journal import Entry, LedgerEntry
from gentlegate.store.accounts import Accounts, Connections
from gentlegate.store.database import Database, StoreError, statements
from gentlegate.store.journal import Journal
from tests.support.logs import desk, live, of, says, whys


class OnAFile(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "gate.db"
        self.database = Database(self.path)
        self.addCleanup(lambda: self.database.close())

    def reopen(self) -> None:
        self.database.close()
        self.database = Database(self.path)


class Migrations(OnAFile):
    def test_from_empty_and_again(self) -> None:
        version = self.database.connection.execute("PRAGMA user_version").fetchone()[0]
        self.assertGreater(version, 0)
        self.reopen()
        self.assertEqual(self.database.connection.execute("PRAGMA user_version").fetchone()[0], version)
        self.assertEqual(self.database.connection.execute("PRAGMA journal_mode").fetchone()[0], "wal")

    def test_a_newer_database_and_a_foreign_file_are_refused(self) -> None:
        self.database.connection.execute("PRAGMA user_version = 999")
        with self.assertRaisesRegex(StoreError, "version 999"):
            Database(self.path)
        foreign = self.path.with_name("foreign.db")
        foreign.write_bytes(b"this is no database at all, but long enough" * 40)
        with self.assertRaisesRegex(StoreError, "not a Gentle Gate database"):
            Database(foreign)

    def test_only_its_owner_reads_it(self) -> None:
        Connections(self.database).put("brook", "http://brook.test", "secret")
        made = sorted(self.path.parent.iterdir())
        self.assertEqual([one.name for one in made], ["gate.db", "gate.db-shm", "gate.db-wal"])
        self.assertEqual([one.stat().st_mode & 0o077 for one in made], [0, 0, 0])

    def test_statements_with_triggers_stay_whole(self) -> None:
        script = "CREATE TABLE a (b);\nCREATE TRIGGER t BEFORE UPDATE ON a BEGIN SELECT 1; SELECT 2; END;\n"
        self.assertEqual(len(list(statements(script))), 2)


class Transactions(OnAFile):
    def count(self) -> int:
        return int(self.database.connection.execute("SELECT count(*) FROM connections").fetchone()[0])

    def test_all_or_nothing_nested(self) -> None:
        connections = Connections(self.database)
        with self.assertRaises(ZeroDivisionError), self.database.transaction():
            connections.put("brook", "a", "t")
            raise ZeroDivisionError
        self.assertEqual(self.count(), 0)
        with self.database.transaction():
            connections.put("brook", "a", "t")
            with self.assertRaises(ZeroDivisionError), self.database.transaction():
                connections.put("lantern", "b", "t")
                raise ZeroDivisionError
        self.assertEqual(list(connections.all()), ["brook"])


class Journaling(OnAFile):
    KIT = {"commands": [{"name": "kiln", "reply": "hot"}], "counters": [{"name": "lost"}]}

    def store(self, engine: Engine, *events: object) -> list[Entry]:
        entries = [Entry(event.at, event, engine.handle(event)) for event in events]  # type: ignore[attr-defined, arg-type]
        Journal(self.database).write(entries, engine.state.take_changes(), None)
        return entries

    def test_the_state_comes_back_as_it_was(self) -> None:
        engine = Engine(self.KIT)
        events = (live(), says(1, "!kiln"), says(2, "bad.test", "a"), says(3, "!count lost +2", "m", "moderator"))
        self.store(engine, *events)
        self.reopen()
        again = Engine(self.KIT, state=Journal(self.database).load_state())
        self.assertEqual(whys(again.handle(says(4, "!kiln"))), ["cooldown"])
        self.assertEqual(of(again.handle(says(8, "bad.test", "a")), "verdict")[0].outcome, "timeout")
        self.assertEqual(of(again.handle(desk(9, "count", name="lost", step="undo")), "counter")[0].after, 0)
        self.assertTrue(again.parts.streams.live)

    def test_a_message_is_stored_once(self) -> None:
        engine = Engine(self.KIT)
        self.store(engine, says(1, "a", id="x"))
        with self.assertRaises(sqlite3.IntegrityError):
            self.store(engine, says(2, "b", id="x"))
        self.assertEqual([m.text for _, m, _ in Journal(self.database).recent_messages(9)], ["a"])

    def test_what_is_to_be_sent_waits_until_it_is_marked(self) -> None:
        journal = Journal(self.database)
        (entry,) = self.store(Engine(self.KIT), says(1, "!kiln"))
        (waiting,) = journal.waiting("brook")
        self.assertEqual(
            (waiting.number, waiting.body["text"], waiting.in_flight), (entry.numbers[0], "hot", False)
        )
        journal.mark(waiting.number, "sending", 2)
        self.assertTrue(journal.waiting("brook")[0].in_flight)
        journal.mark(waiting.number, "sent", 3)
        self.assertEqual((journal.waiting("brook"), journal.waiting("lantern")), ([], []))

    def test_settings_keep_their_history(self) -> None:
        journal = Journal(self.database)
        journal.write([], [], (1, "gate", {"a": 1}))
        journal.write([], [], (2, "brook:1", {"a": 2}))
        self.assertEqual(journal.load_settings(), (2, {"a": 2}))

    def test_the_ledger_only_grows(self) -> None:
        entry = Entry(1, None, [], [LedgerEntry(1, "brook:1", "desk", "count", "lost", 0, 1)])
        Journal(self.database).write([entry], [], None)
        for sql in ("UPDATE ledger SET who = 'x'", "DELETE FROM ledger"):
            with self.assertRaisesRegex(sqlite3.IntegrityError, "only grows"):
                self.database.connection.execute(sql)


class People(OnAFile):
    def test_log_ins_are_unique_without_regard_to_case(self) -> None:
        accounts = Accounts(self.database)
        account = accounts.add("Bram", "Bram", "moderator", "hash", "brook:2")
        with self.assertRaises(StoreError):
            accounts.add("bram", "Other", "moderator", "hash")
        self.assertEqual(accounts.password_of("BRAM"), (account, "hash"))

    def test_sessions_end(self) -> None:
        accounts = Accounts(self.database)
        account = accounts.add("bram", "Bram", "moderator", "hash")
        accounts.begin_session("t", account, now=0, ends=10, from_where="here")
        self.assertEqual(accounts.of_session("t", 9), account)
        self.assertIsNone(accounts.of_session("t", 10))
        accounts.end_session("t")
        self.assertIsNone(accounts.of_session("t", 1))

    def test_a_welcome_key_counts_once_and_only_the_newest(self) -> None:
        accounts = Accounts(self.database)
        accounts.put_welcome_key("old", 1)
        accounts.put_welcome_key("new", 2)
        self.assertEqual([accounts.take_welcome_key(key) for key in ("old", "new", "new")], [False, True, False])

"""Copies of the database: whole while it is written to, put back only where they are good."""

from __future__ import annotations

import os
import sqlite3
import subprocess
import sys
import tempfile
import threading
import unittest
from datetime import date, timedelta
from pathlib import Path

from gentlegate.demo.prepare import prepare
from gentlegate.store.backup import KEPT_DAYS, back_up, daily, problem_of, restore
from gentlegate.store.database import StoreError
from tests.support.world import World, eventually

CLI = [sys.executable, "-c", "from gentlegate.cli import main; main()"]


class WithFolder(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def rows(self, file: Path, sql: str) -> list[tuple[object, ...]]:
        connection = sqlite3.connect(file)
        try:
            return connection.execute(sql).fetchall()
        finally:
            connection.close()


class Files(WithFolder):
    def test_what_is_not_ours_or_damaged_is_refused_and_nothing_touched(self) -> None:
        prepare(self.folder / "data", "http://playhouse.test")
        database = self.folder / "data" / "gentlegate.db"
        good = self.folder / "good.db"
        back_up(database, good)
        self.assertIsNone(problem_of(good))
        other = self.folder / "other.db"
        sqlite3.connect(other).execute("CREATE TABLE recipes (name TEXT)").connection.close()
        newer = self.folder / "newer.db"
        back_up(database, newer)
        connection = sqlite3.connect(newer)
        connection.execute("PRAGMA user_version = 999")
        connection.close()
        torn = self.folder / "torn.db"
        whole = bytearray(good.read_bytes())
        whole[8192:] = os.urandom(len(whole) - 8192)
        torn.write_bytes(whole)
        text = self.folder / "text.db"
        text.write_text("this is no database", encoding="utf-8")
        before = database.read_bytes()
        for bad in (other, newer, torn, text, self.folder / "nowhere.db"):
            with self.subTest(bad.name), self.assertRaises(StoreError) as caught:
                restore(bad, database, self.folder / "aside.db")
            self.assertIn("Nothing was touched.", str(caught.exception))
        self.assertEqual(database.read_bytes(), before)
        self.assertFalse((self.folder / "aside.db").exists())

    def test_put_back_with_what_stood_there_beside_it(self) -> None:
        prepare(self.folder / "data", "http://playhouse.test")
        database, copy, aside = (self.folder / name for name in ("data/gentlegate.db", "copy.db", "aside.db"))
        back_up(database, copy)
        self.assertEqual(copy.stat().st_mode & 0o077, 0)
        connection = sqlite3.connect(database)
        connection.execute("UPDATE accounts SET name = 'Somebody' WHERE login = 'bram'")
        connection.commit()
        connection.close()
        restore(copy, database, aside)
        name = "SELECT name FROM accounts WHERE login = 'bram'"
        self.assertEqual((self.rows(database, name), self.rows(aside, name)), ([("Bram",)], [("Somebody",)]))

    def test_nothing_is_written_over(self) -> None:
        prepare(self.folder / "data", "http://playhouse.test")
        target = self.folder / "mine.db"
        target.write_text("precious", encoding="utf-8")
        with self.assertRaises(StoreError):
            back_up(self.folder / "data" / "gentlegate.db", target)
        self.assertEqual(target.read_text(encoding="utf-8"), "precious")

    def test_a_copy_a_day_for_a_week(self) -> None:
        prepare(self.folder / "data", "http://playhouse.test")
        database, copies = self.folder / "data" / "gentlegate.db", self.folder / "copies"
        first = date(2026, 3, 1)
        made = [daily(database, copies, first + timedelta(days=n // 2)) for n in range(20)]
        self.assertEqual(sum(one is not None for one in made), 10)
        kept = sorted(one.name for one in copies.iterdir())
        self.assertEqual(
            (len(kept), kept[0], kept[-1]), (KEPT_DAYS, "gentlegate-2026-03-04.db", "gentlegate-2026-03-10.db")
        )


class UnderLoad(WithFolder):
    def test_a_copy_under_load_loses_nothing_that_was_acknowledged(self) -> None:
        world = World().start()
        self.addCleanup(world.stop)
        acknowledged: list[str] = []
        stop = threading.Event()

        def write() -> None:
            with world.client("odalys") as client:
                number = 0
                while not stop.is_set():
                    number += 1
                    text = f"Quote number {number} of many."
                    client.post("/api/quotes", json={"text": text}).raise_for_status()
                    acknowledged.append(text)

        writer = threading.Thread(target=write)
        writer.start()
        try:
            eventually(lambda: len(acknowledged) > 20)
            before = list(acknowledged)
            copy = self.folder / "copy.db"
            environment = {**os.environ, "GENTLEGATE_DATA": str(world.data), "GENTLEGATE_PORT": str(world.port)}
            done = subprocess.run([*CLI, "backup", str(copy)], env=environment, capture_output=True, text=True)
            self.assertEqual((done.returncode, done.stderr), (0, ""))
            eventually(lambda: len(acknowledged) > len(before))
            running = subprocess.run([*CLI, "restore", str(copy)], env=environment, capture_output=True, text=True)
            self.assertEqual(running.returncode, 2)
            self.assertIn("Stop the gate first", running.stderr)
        finally:
            stop.set()
            writer.join()
        self.assertIsNone(problem_of(copy))
        world.kill_gate()
        done = subprocess.run([*CLI, "restore", str(copy)], env=environment, capture_output=True, text=True)
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        world.start_gate()
        with world.client("bram") as client:
            kept = {quote["text"] for quote in client.get("/api/quotes").json()}
        self.assertLessEqual(set(before), kept)

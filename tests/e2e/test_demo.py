"""`gentlegate demo` as a newcomer starts it: alive at the first look, there again after a kill, gone after Ctrl-C."""

from __future__ import annotations

import os
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

import httpx

from tests.support.world import eventually, free_port


class Demo(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name)
        self.ports = {"GENTLEGATE_PORT": str(free_port()), "PLAYHOUSE_PORT": str(free_port())}
        self.address = f"http://127.0.0.1:{self.ports['GENTLEGATE_PORT']}"

    def start(self) -> subprocess.Popen[str]:
        command = [sys.executable, "-u", "-c", "from gentlegate.cli import main; main()", "demo"]
        environment = {**os.environ, **self.ports, "GENTLEGATE_DATA": str(self.data)}
        process = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE, text=True)
        self.addCleanup(lambda: (process.terminate(), process.wait(15), process.stdout.close()))  # type: ignore[union-attr]
        return process

    def printed(self, process: subprocess.Popen[str], until: str) -> str:
        text = ""
        while until not in text:
            line = process.stdout.readline()  # type: ignore[union-attr]
            self.assertTrue(line, f"it ended with: {text}")
            text += line
        return text

    def count(self, sql: str) -> int:
        connection = sqlite3.connect(self.data / "gentlegate.db", timeout=10)
        try:
            return int(connection.execute(f"SELECT count(*) FROM {sql}").fetchone()[0])
        finally:
            connection.close()

    def children(self, process: subprocess.Popen[str]) -> dict[str, int]:
        """The demo's two processes by what they are."""
        found = {}
        for pid in Path(f"/proc/{process.pid}/task/{process.pid}/children").read_text().split():
            command = Path(f"/proc/{pid}/cmdline").read_text()
            found["playhouse" if "playhouse" in command else "gate"] = int(pid)
        return found

    def health(self) -> dict[str, Any]:
        return dict(httpx.get(f"{self.address}/api/health").raise_for_status().json())

    def test_the_first_look_a_kill_and_the_end(self) -> None:
        process = self.start()
        greeting = self.printed(process, "Ctrl-C")
        for words in (self.address, self.ports["PLAYHOUSE_PORT"], "marlo", "odalys", "bram", "wren", "password"):
            self.assertIn(words, greeting)
        for sql in (
            "events WHERE kind = 'message' AND platform = 'brook'",
            "events WHERE kind = 'message' AND platform = 'lantern'",
            "effects WHERE effect = 'remove'",
            "effects WHERE effect = 'counter'",
            "effects WHERE effect = 'say' AND body LIKE '%\"kind\":\"command\"%'",
            "effects WHERE effect = 'say' AND body LIKE '%\"kind\":\"notice\"%'",
        ):
            with self.subTest(sql):
                eventually(lambda sql=sql: self.count(sql), 30)  # type: ignore[misc]
        before = self.children(process)
        os.kill(before["gate"], signal.SIGKILL)
        self.printed(process, "starting it again")
        eventually(lambda: self.health()["live"], 30)
        self.assertNotEqual(self.children(process)["gate"], before["gate"])
        process.send_signal(signal.SIGINT)
        process.wait(15)
        for port in self.ports.values():
            with socket.socket() as probe:
                probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
                probe.bind(("127.0.0.1", int(port)))

    def test_again_starts_clean(self) -> None:
        for _ in range(2):
            process = self.start()
            self.printed(process, "Ctrl-C")
            with httpx.Client(base_url=self.address) as client:
                body = {"login": "odalys", "password": "tea-before-kiln"}
                client.post("/api/session", json=body).raise_for_status()
                rules = client.put("/api/rules/mood", json={"mood": "party"}).json()
                self.assertEqual(rules["mood"], "party")
                self.assertEqual(self.count("settings"), 2)
            process.send_signal(signal.SIGINT)
            process.wait(15)

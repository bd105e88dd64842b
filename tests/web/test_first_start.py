"""The first start of a channel's own gate, and what stands in its way."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
import unittest

import httpx

from tests.support.world import eventually, free_port

COMMAND = [sys.executable, "-u", "-c", "from gentlegate.cli import main; main()"]


class FirstStart(unittest.TestCase):
    def start(self, command: str, **variables: str) -> subprocess.Popen[str]:
        environment = {**os.environ, **variables}
        process = subprocess.Popen(
            [*COMMAND, command], env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
        )
        self.addCleanup(lambda: (process.kill(), process.communicate()))
        return process

    def test_the_link_makes_the_broadcasters_account_once(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            port = free_port()
            process = self.start("serve", GENTLEGATE_DATA=folder, GENTLEGATE_PORT=str(port))
            printed = ""
            while "Gentle Gate:" not in printed:
                printed += process.stdout.readline()  # type: ignore[union-attr]
            key = re.search(r"welcome\?key=(\S+)", printed)
            self.assertIsNotNone(key, printed)
            address = f"http://127.0.0.1:{port}"
            eventually(lambda: httpx.get(f"{address}/api/health").is_success)
            body = {"key": key[1], "login": "marlo", "name": "Marlo", "password": "ten letters"}  # type: ignore[index]
            short = httpx.post(f"{address}/api/welcome", json=body | {"password": "short"})
            made, again = (httpx.post(f"{address}/api/welcome", json=body) for _ in range(2))
            self.assertEqual((short.status_code, made.status_code, again.status_code), (422, 200, 403))
            self.assertEqual(made.json()["level"], "broadcaster")
            process.kill()
            process.wait()

    def test_a_taken_port_is_said_plainly(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            port = free_port()
            self.start("serve", GENTLEGATE_DATA=folder, GENTLEGATE_PORT=str(port))
            eventually(lambda: httpx.get(f"http://127.0.0.1:{port}/api/health").is_success)
            second = self.start("serve", GENTLEGATE_DATA=folder, GENTLEGATE_PORT=str(port))
            said, _ = second.communicate(timeout=20)
            self.assertEqual(second.returncode, 2)
            self.assertIn(f"Port {port} is taken", said)
            self.assertIn("GENTLEGATE_PORT", said)

    def test_a_port_that_is_none(self) -> None:
        process = self.start("serve", GENTLEGATE_PORT="many")
        said, _ = process.communicate(timeout=20)
        self.assertIn('GENTLEGATE_PORT is "many"', said)

    def test_the_demo_leaves_a_channels_own_data_alone(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = os.path.join(folder, "gentlegate.db")
            with open(path, "w", encoding="utf-8") as mine:
                mine.write("precious")
            variables = {"GENTLEGATE_PORT": str(free_port()), "PLAYHOUSE_PORT": str(free_port())}
            process = self.start("demo", GENTLEGATE_DATA=folder, **variables)
            said, _ = process.communicate(timeout=20)
            self.assertIn("a channel of your own", said)
            with open(path, encoding="utf-8") as mine:
                self.assertEqual(mine.read(), "precious")

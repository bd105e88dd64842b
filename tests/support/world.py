"""The whole thing as processes of its own: a gate, a Playhouse, their ports and a data folder."""

from __future__ import annotations

import os
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

import httpx

from gentlegate.demo.prepare import PASSWORD, TOKEN, prepare

T = TypeVar("T")


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def eventually(look: Callable[[], T], seconds: float = 15) -> T:
    """What `look` gives once it is neither empty nor an error; AssertionError after a while."""
    until = time.monotonic() + seconds
    problem: Any = None
    while time.monotonic() < until:
        try:
            if found := look():
                return found
            problem = f"still {found!r}"
        except (httpx.HTTPError, sqlite3.Error, AssertionError, LookupError) as error:
            problem = error
        time.sleep(0.02)
    raise AssertionError(f"it did not come to pass in {seconds} s: {problem}")


class World:
    """`start` and `stop` it; `kill_gate` is `kill -9`."""

    def __init__(self) -> None:
        self._folder = tempfile.TemporaryDirectory()
        self.data = Path(self._folder.name)
        self.port, self.playhouse_port = free_port(), free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.playhouse_address = f"http://127.0.0.1:{self.playhouse_port}"
        self.playhouse = httpx.Client(base_url=self.playhouse_address, timeout=10, trust_env=False)
        self._processes: dict[str, subprocess.Popen[bytes]] = {}
        self.log = Path(self._folder.name + ".log")
        """What the gate and the Playhouse print."""

    def start(self, live: bool = True, platforms: tuple[str, ...] = ("brook", "lantern")) -> World:
        prepare(self.data, self.playhouse_address)
        self.start_playhouse()
        self.start_gate()
        if live:
            for platform in platforms:
                self.go(platform, True, title="Twelve bowls", category="Wheel throwing")
            eventually(lambda: self.health()["live"])
        return self

    def start_playhouse(self) -> None:
        command = ["-m", "playhouse", "--port", str(self.playhouse_port), "--token", TOKEN]
        self._run("playhouse", command, f"{self.playhouse_address}/state")

    def start_gate(self) -> None:
        command = ["-c", "from gentlegate.cli import main; main()", "serve"]
        self._run("gate", command, f"{self.address}/api/health")

    def _run(self, name: str, command: list[str], ready: str) -> None:
        variables = {**os.environ, "GENTLEGATE_DATA": str(self.data), "GENTLEGATE_PORT": str(self.port)}
        with self.log.open("ab") as log:
            self._processes[name] = subprocess.Popen([sys.executable, *command], env=variables, stdout=log)
        eventually(lambda: httpx.get(ready, trust_env=False).is_success, 30)

    def kill_gate(self) -> None:
        self._processes["gate"].send_signal(signal.SIGKILL)
        self._processes["gate"].wait()

    def pid(self, name: str) -> int:
        return self._processes[name].pid

    def stop(self) -> None:
        self.playhouse.close()
        for process in self._processes.values():
            process.terminate()
        for process in self._processes.values():
            try:
                process.wait(10)
            except subprocess.TimeoutExpired:
                process.kill()
                process.wait()
        self._folder.cleanup()
        self.log.unlink(missing_ok=True)

    def health(self) -> dict[str, Any]:
        return dict(httpx.get(f"{self.address}/api/health", trust_env=False).raise_for_status().json())

    def go(self, platform: str, live: bool, **values: Any) -> None:
        self.playhouse.post("/live", json={"platform": platform, "live": live, **values}).raise_for_status()

    def type(
        self, text: str, login: str = "thimblewick", *badges: str, platform: str = "brook", **more: Any
    ) -> str:
        """A line typed in the Playhouse; returns its id."""
        body = {"platform": platform, "login": login, "text": text, "badges": list(badges), **more}
        return str(self.playhouse.post("/type", json=body).raise_for_status().json()["id"])

    def trouble(self, platform: str, **values: bool) -> None:
        self.playhouse.post("/trouble", json={"platform": platform, **values}).raise_for_status()

    def lines(self, platform: str = "brook") -> list[dict[str, Any]]:
        return list(self.playhouse.get(f"/lines/{platform}").raise_for_status().json())

    def texts(self, platform: str = "brook", by: str = "Gatekeeper") -> list[str]:
        return [line["text"] for line in self.lines(platform) if line["name"] == by]

    def removed(self, id: str, platform: str = "brook") -> bool:
        return any(line["removed"] for line in self.lines(platform) if line["id"] == id)

    def rows(self, sql: str, *values: Any) -> list[tuple[Any, ...]]:
        """Look into the database from outside."""
        connection = sqlite3.connect(self.data / "gentlegate.db", timeout=10)
        try:
            return connection.execute(sql, values).fetchall()
        finally:
            connection.close()

    def change(self, sql: str, *values: Any) -> None:
        """Change the database from outside, as time or an operator would."""
        connection = sqlite3.connect(self.data / "gentlegate.db", timeout=10)
        try:
            with connection:
                connection.execute(sql, values)
        finally:
            connection.close()

    def client(self, login: str | None = "odalys") -> httpx.Client:
        """Somebody's own connection to the gate."""
        cookies = None
        if login:
            body = {"login": login, "password": PASSWORD}
            answer = httpx.post(f"{self.address}/api/session", json=body, trust_env=False)
            cookies = answer.raise_for_status().cookies
        return httpx.Client(base_url=self.address, timeout=10, trust_env=False, cookies=cookies)

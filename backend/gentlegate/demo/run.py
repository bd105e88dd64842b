"""Running the demo: the gate and the Playhouse as two processes of their own; Ctrl-C ends both."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from types import FrameType
from typing import Any

from gentlegate.core.errors import GateError
from gentlegate.demo.prepare import PASSWORD, TEAM, TOKEN, prepare
from gentlegate.settings import Environment

READY_WITHIN = 20.0
RESTARTS = 5
EVENING, QUICK_START = "calm", 75


def run(environment: Environment, say: Callable[[str], object]) -> None:
    """Until Ctrl-C. A gate that was killed is started again, as a careful owner would."""
    playhouse_at = f"http://{environment.host}:{environment.playhouse_port}"
    gate_at = f"http://{environment.host}:{environment.port}"
    prepare(environment.data, playhouse_at)
    for ending in (signal.SIGTERM, signal.SIGINT):  # also where the shell that started it lets Ctrl-C be ignored
        signal.signal(ending, _stop)
    processes: list[subprocess.Popen[bytes]] = []
    try:
        processes += [_start_gate(environment), _start_playhouse(environment)]
        _wait_for(f"{playhouse_at}/state", lambda _: True)
        _wait_for(f"{gate_at}/api/health", _joined)
        _play(playhouse_at)
        say(_greeting(gate_at, playhouse_at))
        _watch(environment, processes, say)
    except KeyboardInterrupt:
        say("\nStopping.")
    finally:
        for process in processes:  # the gate first, so that the Playhouse has nobody left to wait for
            process.terminate()
            try:
                process.wait(5)
            except subprocess.TimeoutExpired:
                process.kill()


def _stop(_: int, __: FrameType | None) -> None:
    raise KeyboardInterrupt


def _variables(environment: Environment) -> dict[str, str]:
    return {
        **os.environ,
        "GENTLEGATE_DATA": str(environment.data),
        "GENTLEGATE_PORT": str(environment.port),
        "GENTLEGATE_HOST": environment.host,
        "PLAYHOUSE_TOKEN": TOKEN,
    }


def _start_gate(environment: Environment) -> subprocess.Popen[bytes]:
    command = [sys.executable, "-c", "from gentlegate.cli import main; main()", "serve"]
    return subprocess.Popen(command, env=_variables(environment), stdout=subprocess.DEVNULL, start_new_session=True)


def _start_playhouse(environment: Environment) -> subprocess.Popen[bytes]:
    command = [
        sys.executable,
        "-m",
        "playhouse",
        "--host",
        environment.host,
        "--port",
        str(environment.playhouse_port),
    ]
    return subprocess.Popen(command, env=_variables(environment), start_new_session=True)


def _joined(health: dict[str, Any]) -> bool:
    lamps = list(health["platforms"].values())
    return bool(lamps) and all(lamp == "joined" for lamp in lamps)


def _wait_for(address: str, ready: Callable[[dict[str, Any]], bool]) -> None:
    until = time.monotonic() + READY_WITHIN
    while time.monotonic() < until:
        try:
            with urllib.request.urlopen(address, timeout=1) as answer:
                if ready(json.load(answer)):
                    return
        except (urllib.error.URLError, OSError):
            pass
        time.sleep(0.03)
    raise GateError(f"{address} did not answer within {READY_WITHIN:.0f} s")


def _play(playhouse_at: str) -> None:
    """Let the evening begin; its first minute passes quickly, so that there is something to see."""
    body = json.dumps({"name": EVENING, "quick_start": QUICK_START}).encode()
    request = urllib.request.Request(
        f"{playhouse_at}/evening", data=body, headers={"Content-Type": "application/json"}, method="POST"
    )
    urllib.request.urlopen(request, timeout=5).close()


def _watch(
    environment: Environment, processes: list[subprocess.Popen[bytes]], say: Callable[[str], object]
) -> None:
    restarts = 0
    while True:
        time.sleep(0.2)
        if processes[0].poll() is not None and restarts < RESTARTS:
            restarts += 1
            say("The gate was stopped from outside; starting it again.")
            processes[0] = _start_gate(environment)
        elif any(process.poll() is not None for process in processes):
            raise GateError("A part of the demo ended; see above.")


def _greeting(gate_at: str, playhouse_at: str) -> str:
    people = "\n".join(f"  {login:<8} {level:<12} {name}" for login, name, level, _ in TEAM)
    return (
        f"\nGentle Gate:   {gate_at}\nThe Playhouse: {playhouse_at}\n\n"
        f"Log in as (the password is {PASSWORD} for each):\n{people}\n\nCtrl-C ends it.\n"
    )

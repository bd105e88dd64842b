"""Measures the gate and writes docs/bench.md: `make bench`. Times are this machine's; compare ratios."""

from __future__ import annotations

import asyncio
import json
import os
import platform
import random
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

import httpx  # noqa: E402
from commands import commanding  # noqa: E402
from rotas import rotas  # noqa: E402
from tests.support.world import World  # noqa: E402
from together import together  # noqa: E402
from websockets.asyncio.client import connect  # noqa: E402

REPLAYED, ROUNDS = 100_000, 4
RATE, SECONDS, SCREENS = 200, int(os.environ.get("BENCH_SECONDS", "30")), 5
GENTLEGATE = [sys.executable, "-c", "from gentlegate.cli import main; main()"]
WORDS = [
    "the",
    "rim",
    "is",
    "so",
    "even",
    "how",
    "many",
    "pulls",
    "was",
    "it",
    "for",
    "a",
    "bowl",
    "like",
    "that",
    "tea",
    "kettle",
    "glaze",
    "kiln",
    "slip",
    "score",
    "wheel",
]
Rows = list[tuple[str, str]]


def main() -> None:
    rows: Rows = []
    rows += replaying()
    rows += commanding()
    rows += rotas()
    rows += starting()
    rows += asyncio.run(living())
    rows += together()
    text = report(rows)
    (ROOT / "docs" / "bench.md").write_text(text, encoding="utf-8")
    print(text)


def report(rows: Rows) -> str:
    width = max(len(name) for name, _ in rows)
    table = "\n".join(f"| {name:<{width}} | {value:>14} |" for name, value in rows)
    head = f"| {'measured':<{width}} | {'value':>14} |\n| {'-' * width} | {'-' * 13}: |"
    return (
        "# What it takes\n\n"
        f"Written by `make bench` on {time.strftime('%Y-%m-%d')}: {machine()}. The machine is shared and noisy, so single "
        "numbers wander; the ratio to the floor (the same lines parsed and written by a script that does nothing "
        "else, in the same run) wanders less.\n\n"
        f"{head}\n{table}\n\n"
        f"*Replay* is {REPLAYED:,} lines of twelve words by 500 people, the best of {ROUNDS} rounds.\n\n"
        f"*Live* is {RATE} messages a second over both platforms for {SECONDS} s with {SCREENS} screens attached, one "
        "message in 200 with a link. Times begin when the stand-in platform has the line. Lantern takes one act a "
        "second and is polled ten times a second; both stand in the figures.\n\n"
        "*To another's page* is from the moment somebody acts until it stands on the page of another who has it open in a "
        "browser, two browsers attached.\n"
    )


def machine() -> str:
    model = next(
        (
            line.split(":")[1].strip()
            for line in Path("/proc/cpuinfo").read_text().splitlines()
            if "model name" in line
        ),
        platform.machine(),
    )
    return f"{os.cpu_count()} cores, {model}, Python {platform.python_version()}, SQLite {sqlite3.sqlite_version}"


def log_lines(count: int) -> Iterator[str]:
    chance = random.Random(1)
    for number in range(count):
        text = " ".join(chance.choices(WORDS, k=12))
        if number % 200 == 0:
            text += " other.test"
        who = f"viewer_{chance.randrange(500)}"
        at = time.strftime("%Y-%m-%dT%H:%M:%S", time.gmtime(1_772_906_400 + number // 10))
        message = {"kind": "message", "id": f"b{number}", "at": f"{at}Z", "platform": "brook"}
        yield json.dumps(message | {"person": {"id": who, "login": who}, "text": text})


def big_kit(phrases: int, patterns: int) -> dict[str, Any]:
    """Mood Library, in which every filter is on, with long lists; words that chat does not have."""
    chance = random.Random(3)

    def word() -> str:
        made = ""
        while not made or made in WORDS:
            syllables = range(chance.randint(2, 4))
            made = "".join(chance.choice("bcdfghjklmnprstvw") + chance.choice("aeiou") for _ in syllables)
        return made

    entries: list[Any] = [word() if chance.random() < 0.5 else f"{word()} {word()}" for _ in range(phrases)]
    entries += [{"text": rf"{word()}\s+\d+\w*{word()}", "mode": "pattern"} for _ in range(patterns)]
    return {"channel": {"mood": "library"}, "filters": {"phrases": {"entries": entries}}}


def replaying() -> Rows:
    """Messages a second through the whole `replay` process, start-up included, beside a floor."""
    with tempfile.TemporaryDirectory() as folder:
        log = Path(folder) / "log.jsonl"
        log.write_text("\n".join(log_lines(REPLAYED)) + "\n", encoding="utf-8")
        kits = {}
        for phrases, patterns in ((100, 5), (1_000, 50), (10_000, 500)):
            kits[phrases] = Path(folder) / f"kit{phrases}.json"
            kits[phrases].write_text(json.dumps(big_kit(phrases, patterns)), encoding="utf-8")
        ten = Path(folder) / "ten.jsonl"
        ten.write_text("\n".join(log_lines(10)) + "\n", encoding="utf-8")
        floors: list[float] = []
        runs: dict[int, list[float]] = {n: [] for n in kits}
        starts: dict[int, list[float]] = {n: [] for n in kits}
        for _ in range(ROUNDS):  # in turn, so that a slow moment of the machine falls on all alike
            floors.append(timed([sys.executable, str(ROOT / "bench" / "floor.py"), str(log), str(kits[1_000])]))
            for n, kit in kits.items():
                runs[n].append(timed([*GENTLEGATE, "replay", "--kit", str(kit), str(log)]))
                starts[n].append(timed([*GENTLEGATE, "replay", "--kit", str(kit), str(ten)]))
    floor = min(floors)
    taken, begun = {n: min(runs[n]) for n in kits}, {n: min(starts[n]) for n in kits}
    each = {n: (taken[n] - begun[n]) / REPLAYED * 1e6 for n in kits}
    return [
        ("replay, one core, all filters, 1,000 phrases, 50 patterns", f"{REPLAYED / taken[1_000]:,.0f} a second"),
        ("the same without its start-up", f"{1e6 / each[1_000]:,.0f} a second"),
        ("floor: parse, fold, automaton, RE2 set, write", f"{REPLAYED / floor:,.0f} a second"),
        ("replay beside the floor", f"{taken[1_000] / floor:.1f} times"),
        ("a message: 100 phrases, 5 patterns", f"{each[100]:.0f} µs"),
        ("a message: 10,000 phrases, 500 patterns", f"{each[10_000]:.0f} µs"),
        ("ten thousand beside a hundred", f"{each[10_000] / each[100]:.2f} times"),
        ("start-up with 10,000 phrases, 500 patterns", f"{begun[10_000]:.1f} s"),
    ]


def timed(command: list[str]) -> float:
    begun = time.perf_counter()
    subprocess.run(command, stdout=subprocess.DEVNULL, check=True)
    return time.perf_counter() - begun


def starting() -> Rows:
    with tempfile.TemporaryDirectory() as folder:
        log = Path(folder) / "log.jsonl"
        log.write_text("\n".join(log_lines(10)) + "\n", encoding="utf-8")
        replay = statistics.median(timed([*GENTLEGATE, "replay", str(log)]) for _ in range(5))
    return [("start-up: replay of ten lines", f"{replay * 1000:,.0f} ms")]


async def living() -> Rows:
    world = World()
    world.start()
    try:
        world.kill_gate()
        begun = time.perf_counter()
        world.start_gate()
        started = time.perf_counter() - begun
        return [("start-up: the server", f"{started * 1000:,.0f} ms"), *await measured(world)]
    finally:
        world.stop()


async def measured(world: World) -> Rows:
    said: dict[str, float] = {}
    shown: dict[str, float] = {}
    stored: dict[str, float] = {}
    stop = asyncio.Event()
    watching = [asyncio.create_task(screen(world, shown if n == 0 else {}, stop)) for n in range(SCREENS)]
    watching.append(asyncio.create_task(asyncio.to_thread(watch_store, world, stored, stop)))
    try:
        await asyncio.sleep(1)
        await type_lines(world, said)
        await asyncio.sleep(3)
    finally:
        stop.set()
        await asyncio.gather(*watching, return_exceptions=True)
    removed = {
        line["id"]: line["removed_at"]
        for p in ("brook", "lantern")
        for line in world.lines(p)
        if line["removed_at"]
    }
    rows: Rows = [("live: messages typed / stored", f"{len(said)} / {len(stored.keys() & said.keys())}")]
    for name, seen in (
        ("verdict stored", stored),
        ("removal received by the platform", removed),
        ("screen", shown),
    ):
        rows += spread(f"live: to the {name}", said, seen)
    return [*rows, ("memory of the gate at the end", f"{memory(world):,.0f} MB")]


def spread(name: str, begun: dict[str, float], seen: dict[str, float]) -> Rows:
    taken = sorted((seen[id] - begun[id]) * 1000 for id in begun.keys() & seen.keys())
    if len(taken) < 2:
        return [(name, "not seen")]
    return [
        (
            f"{name}, p50 / p99 of {len(taken)}",
            f"{taken[len(taken) // 2]:.0f} / {taken[int(len(taken) * 0.99)]:.0f} ms",
        )
    ]


async def type_lines(world: World, said: dict[str, float]) -> None:
    chance = random.Random(2)
    async with httpx.AsyncClient(base_url=world.playhouse_address, trust_env=False, timeout=10) as client:

        async def type_one(number: int) -> None:
            pitch = number % 200 == 0
            text = " ".join(chance.choices(WORDS, k=10)) + (" other.test" if pitch else "")
            body = {
                "platform": "lantern" if number % 3 == 0 else "brook",
                "login": f"pitch{number}" if pitch else f"v{number % 700}",
                "text": text,
            }
            answer = (await client.post("/type", json=body)).raise_for_status().json()
            said[answer["id"]] = answer["at"]

        begun, tasks = time.perf_counter(), []
        for number in range(RATE * SECONDS):
            await asyncio.sleep(max(0.0, begun + number / RATE - time.perf_counter()))
            tasks.append(asyncio.create_task(type_one(number)))
        await asyncio.gather(*tasks)


async def screen(world: World, shown: dict[str, float], stop: asyncio.Event) -> None:
    with world.client("bram") as client:
        cookie = f"gentlegate_session={client.cookies['gentlegate_session']}"
    address = world.address.replace("http", "ws", 1) + "/api/live"
    async with connect(address, additional_headers={"Cookie": cookie}, proxy=None, max_size=None) as socket:
        while not stop.is_set():
            try:
                frame: Any = json.loads(await asyncio.wait_for(socket.recv(), 0.5))
            except TimeoutError:
                continue
            now = time.time()
            for change in frame.get("changes", ()):
                if "line" in change:
                    shown.setdefault(change["line"]["id"], now)


def watch_store(world: World, stored: dict[str, float], stop: asyncio.Event) -> None:
    connection = sqlite3.connect(world.data / "gentlegate.db", timeout=10)
    newest = 0
    while not stop.is_set():
        rows = connection.execute(
            "SELECT seq, message FROM events WHERE seq > ? AND kind = 'message'", (newest,)
        ).fetchall()
        now = time.time()
        for seq, message in rows:
            newest = max(newest, seq)
            stored.setdefault(message, now)
        time.sleep(0.002)
    connection.close()


def memory(world: World) -> float:
    status = Path(f"/proc/{world.pid('gate')}/status").read_text()
    return next(int(line.split()[1]) / 1024 for line in status.splitlines() if line.startswith("VmRSS"))


if __name__ == "__main__":
    main()

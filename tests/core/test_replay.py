from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[2]
PERSON = {"id": "17", "login": "mossandloam"}


def line(kind: str, at: str, **fields: Any) -> str:
    return json.dumps({"kind": kind, "at": f"2026-03-07T18:{at}Z", **fields})


def message(at: str, text: str, **fields: Any) -> str:
    return line("message", at, **{"id": at, "platform": "brook", "person": PERSON, "text": text} | fields)


def gentlegate(*arguments: str, given: str = "", **kit: Any) -> subprocess.CompletedProcess[str]:
    with tempfile.TemporaryDirectory() as folder:
        extra: list[str] = []
        if kit:
            path = Path(folder) / "kit.json"
            path.write_text(json.dumps(kit), encoding="utf-8")
            extra = ["--kit", str(path)]
        command = [sys.executable, "-c", "from gentlegate.cli import main; main()", *arguments, *extra]
        return subprocess.run(command, input=given, capture_output=True, text=True, env={**os.environ}, check=False)


class Replay(unittest.TestCase):
    def test_effects_in_order_with_the_logs_time(self) -> None:
        log = "\n".join(
            [
                line("stream", "00:00", platform="brook", live=True, title="Bowls"),
                message("00:04.250", "!kiln"),
                message("00:10", "see bad.test"),
                line("desk", "00:20", by="brook:2", do="undo", platform="brook", message="00:10"),
            ]
        )
        done = gentlegate("replay", "--until", "2026-03-07T18:10:00Z", given=log, **KIT)
        effects = [json.loads(text) for text in done.stdout.splitlines()]
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        self.assertEqual(
            [(e["effect"], e["at"][14:-1]) for e in effects],
            [("say", "00:04.250"), ("verdict", "00:10"), ("remove", "00:10"), ("say", "00:10"), ("undone", "00:20"), ("restore", "00:20"), ("say", "05:00"), ("say", "10:00")],
        )  # fmt: skip
        self.assertEqual(effects[0]["cause"], {"kind": "command", "name": "kiln", "message": "00:04.250"})

    def test_the_same_bytes_every_time(self) -> None:
        evening = ROOT / "backend" / "playhouse" / "evenings" / "calm.jsonl"
        kit = json.loads((ROOT / "backend" / "gentlegate" / "demo" / "kit.json").read_text(encoding="utf-8"))
        first, second = (gentlegate("replay", "--seed", "7", str(evening), **kit).stdout for _ in range(2))
        self.assertEqual(first, second)
        self.assertGreater(len(first.splitlines()), 100)

    def test_bad_lines_are_named_and_skipped(self) -> None:
        bad = {
            "{": "not JSON",
            '{"kind":"mesage"}': "kind: unknown",
            message("00:01", "x", person={"id": "1"}): "person.login: this field is missing",
            message("00:01", "x", emotes=[[0, 9]]): "emotes.0",
            message("00:01", "x", emotes=[[1, 0]]): "emotes.0",
            message("00:01", 7): "text",  # type: ignore[arg-type]
            '{"kind":"message","text":"\\ud800"}': "not JSON",
            line("happening", "00:01", platform="b", what="tip", person=PERSON, amount=1).replace(
                "1}", "1e999}"
            ): "amount",
            line("tick", "00:01").replace("Z", ""): "RFC 3339",
            line("desk", "00:01", by="x", do="dance"): "no act",
            line("desk", "00:01", by="x", do="setting", path="filters.x", value={}): "filters.x",
        }
        for text, words in bad.items():
            with self.subTest(text):
                done = gentlegate("replay", given=f"{line('tick', '00:00')}\n{text}\n")
                self.assertEqual((done.returncode, done.stdout), (1, ""))
                self.assertIn("line 2: ", done.stderr)
                self.assertIn(words, done.stderr)

    def test_time_running_backwards_is_a_bad_line(self) -> None:
        done = gentlegate(
            "replay", given=f"{line('tick', '00:05')}\n{line('tick', '00:04')}\n{message('00:06', 'bad.test')}"
        )
        self.assertEqual(done.returncode, 1)
        self.assertIn("line 2: at: time runs backwards", done.stderr)
        self.assertIn('"verdict"', done.stdout)

    def test_an_empty_text_and_missing_badges_are_fine(self) -> None:
        done = gentlegate("replay", "--only", "verdict", "--all", given=message("00:00", ""))
        self.assertEqual(json.loads(done.stdout)["outcome"], "allow")

    def test_a_bad_kit_is_refused_before_anything_runs(self) -> None:
        done = gentlegate("replay", given=message("00:00", "bad.test"), commands=[{"name": "a b", "reply": "x"}])
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        self.assertIn("commands.0.name: ", done.stderr)

    def test_only_some_effects(self) -> None:
        done = gentlegate("replay", "--only", "remove", given=message("00:00", "bad.test"))
        self.assertEqual([json.loads(text)["effect"] for text in done.stdout.splitlines()], ["remove"])
        self.assertEqual(gentlegate("replay", "--only", "dance").returncode, 2)

    def test_settings_changed_at_the_desk_hold_from_then_on(self) -> None:
        log = "\n".join(
            [
                line(
                    "desk",
                    "00:00",
                    by="brook:2",
                    do="setting",
                    path="commands.tea",
                    value={"name": "tea", "reply": "poured"},
                ),
                message("00:01", "!tea"),
            ]
        )
        effects = [json.loads(text) for text in gentlegate("replay", given=log).stdout.splitlines()]
        self.assertEqual([e["effect"] for e in effects], ["setting", "say"])
        self.assertEqual((effects[0]["path"], effects[0]["before"]), ("commands.tea", None))

    def test_schemas(self) -> None:
        for what in ("log", "kit", "effect"):
            self.assertIn("$schema", json.loads(gentlegate("schema", what).stdout))
        self.assertEqual(gentlegate("schema", "soup").returncode, 2)


KIT: dict[str, Any] = {
    "commands": [{"name": "kiln", "reply": "640 °C"}],
    "rotas": [{"name": "r", "every": "5m", "chat_lines": 0, "notices": [{"text": "shelf"}]}],
}

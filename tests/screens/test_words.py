"""The catalogue of words: everything that a screen says stands in it, and nothing that no screen says."""

from __future__ import annotations

import json
import re
import unittest
from pathlib import Path
from typing import Any

from gentlegate.core.filters import KEYS
from gentlegate.core.team import NEEDED

SOURCE = Path(__file__).resolve().parents[2] / "frontend" / "src"
LITERAL = re.compile(r"""\bt\(\s*(?:[^()"'`]*\?\s*)?"([\w.-]+)"(?:\s*:\s*"([\w.-]+)")?""")
CHOSEN = re.compile(r""""((?:[a-z]\w*\.)+\w+)\"""")
MADE = re.compile(r"`((?:[a-zA-Z]\w*\.)+)\$\{")


def flat(words: dict[str, Any], above: str = "") -> dict[str, str]:
    found: dict[str, str] = {}
    for key, value in words.items():
        found |= flat(value, f"{above}{key}.") if isinstance(value, dict) else {f"{above}{key}": str(value)}
    return found


class Words(unittest.TestCase):
    def setUp(self) -> None:
        self.words = flat(json.loads((SOURCE / "words" / "en.json").read_text(encoding="utf-8")))
        self.keys = {re.sub(r"_(zero|one|other)$", "", key) for key in self.words}
        paths = [path for path in SOURCE.rglob("*.ts*") if ".test." not in path.name and path.name != "schema.d.ts"]
        self.sources = {path.relative_to(SOURCE): path.read_text(encoding="utf-8") for path in paths}

    def test_every_word_that_is_asked_for_is_there(self) -> None:
        for path, text in self.sources.items():
            for match in LITERAL.finditer(text):
                for key in filter(None, match.groups()):
                    if "." in key:
                        self.assertIn(key, self.keys, path)

    def test_every_family_of_words_that_is_asked_for_is_there(self) -> None:
        for path, text in self.sources.items():
            for match in MADE.finditer(text):
                family = match[1]
                if family.split(".")[0] in {key.split(".")[0] for key in self.keys}:
                    self.assertTrue(any(key.startswith(family) for key in self.keys), f"{path}: {family}")

    def test_no_word_is_left_that_nobody_says(self) -> None:
        text = "\n".join(self.sources.values())
        said = set(CHOSEN.findall(text))
        families = tuple({match[1] for match in MADE.finditer(text)})
        unsaid = [key for key in sorted(self.keys) if key not in said and not key.startswith(families) and f'"{key}"' not in text]  # fmt: skip
        self.assertEqual(unsaid, [])

    def test_plurals_come_in_twos_with_the_same_values(self) -> None:
        for key, words in self.words.items():
            if key.endswith("_one"):
                other = self.words.get(key.removesuffix("_one") + "_other")
                self.assertIsNotNone(other, key)
                named = set(re.findall(r"{{(\w+)", words)) | {"count"}
                self.assertEqual(named, set(re.findall(r"{{(\w+)", str(other))) | {"count"}, key)

    def test_they_are_short_and_do_not_shout(self) -> None:
        for key, words in self.words.items():
            self.assertFalse(re.search(r"[a-z]!(\s|$)", words), f"{key}: {words}")
            self.assertNotRegex(words, r"\b(please wait|oops|sorry)\b", key)
            self.assertLessEqual(len(words), 330, key)
            self.assertEqual(words.count("{{"), words.count("}}"), key)
            self.assertEqual(words, words.rstrip(), key)


class Kinds(unittest.TestCase):
    """What the server names by a key has its words."""

    def test_every_permission_filter_and_kind_of_entry(self) -> None:
        words = flat(json.loads((SOURCE / "words" / "en.json").read_text(encoding="utf-8")))
        backend = SOURCE.parents[1] / "backend" / "gentlegate"
        text = "\n".join(path.read_text(encoding="utf-8") for path in backend.rglob("*.py"))
        told = re.findall(r"""(?:_told\(request, account|gate\.note\(account), "(\w+)\"""", text)
        lines = (backend / "runtime" / "ledger_lines.py").read_text(encoding="utf-8")
        kept = re.findall(r"""LedgerEntry\(\w+(?:\.at)?, \w+, (?:\w+|"\w+"), "(\w+)\"""", lines)
        self.assertGreater(len(told), 10)
        self.assertGreater(len(kept), 10)
        for family, keys in (
            ("team.acts", NEEDED),
            ("filters", KEYS),
            ("ledger.kinds", {*told, *kept, "setting", "tonight", "raid", "shoutout", "remove", "timeout", "ban"}),
        ):
            missing = [key for key in keys if f"{family}.{key}" not in words]
            self.assertEqual(missing, [], family)

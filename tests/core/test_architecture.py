from __future__ import annotations

import ast
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
PACKAGE = ROOT / "backend" / "gentlegate"
ALLOWED = {
    "core": {"core"},
    "formats": {"formats", "core"},
    "store": {"store", "formats", "core"},
    "connectors": {"connectors", "core"},
    "runtime": {"runtime", "formats", "core"},
    "web": {"web", "runtime", "formats", "core"},
}
NOT_IN_CORE = {
    "asyncio",
    "sqlite3",
    "fastapi",
    "socket",
    "logging",
    "structlog",
    "time",
    "httpx",
    "websockets",
    "orjson",
}
LONGEST = 400


def imports(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
    return found


class Architecture(unittest.TestCase):
    def test_imports_point_inwards(self) -> None:
        for layer, allowed in ALLOWED.items():
            for path in (PACKAGE / layer).rglob("*.py"):
                for name in imports(path):
                    if name.startswith("gentlegate."):
                        self.assertIn(name.split(".")[1], allowed, f"{path.relative_to(ROOT)} imports {name}")

    def test_no_module_imports_itself_by_others(self) -> None:
        names = {
            ".".join(path.relative_to(PACKAGE.parent).with_suffix("").parts): imports(path)
            for path in PACKAGE.rglob("*.py")
        }
        done: set[str] = set()

        def follow(name: str, way: tuple[str, ...]) -> None:
            self.assertNotIn(name, way, " → ".join((*way[way.index(name) :], name)) if name in way else "")
            if name not in done:
                for other in sorted(names[name] & names.keys()):
                    follow(other, (*way, name))
                done.add(name)

        for name in names:
            follow(name, ())

    def test_the_core_knows_no_outside(self) -> None:
        for path in (PACKAGE / "core").rglob("*.py"):
            outside = {name.split(".")[0] for name in imports(path)} & NOT_IN_CORE
            self.assertEqual(outside, set(), path.name)

    def test_pydantic_only_in_the_kit(self) -> None:
        for path in (PACKAGE / "core").rglob("*.py"):
            if path.parent.name != "kit":
                self.assertNotIn("pydantic", {name.split(".")[0] for name in imports(path)}, path.name)

    def test_sql_only_in_the_store(self) -> None:
        for path in PACKAGE.rglob("*.py"):
            if "sqlite3" in imports(path):
                self.assertEqual(path.parent.name, "store")

    def test_the_playhouse_shares_nothing_with_the_gate(self) -> None:
        for path in (ROOT / "backend" / "playhouse").rglob("*.py"):
            self.assertFalse(any(name.startswith("gentlegate") for name in imports(path)), path.name)

    def test_a_feature_of_the_screens_never_imports_another(self) -> None:
        features = ROOT / "frontend" / "src" / "features"
        for path in features.rglob("*.ts*"):
            for other in features.iterdir():
                if other.name != path.parent.name:
                    self.assertNotIn(f'"../{other.name}/', path.read_text(encoding="utf-8"), path.name)

    def test_files_stay_small(self) -> None:
        for folder in ("backend", "tests"):
            for path in (ROOT / folder).rglob("*.py"):
                self.assertLessEqual(len(path.read_text(encoding="utf-8").splitlines()), LONGEST, path.name)

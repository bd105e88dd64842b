"""Commands as a CSV table (RFC 4180): one row a command, further replies on further lines of the reply's cell."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator
from typing import Any

from gentlegate.core.errors import KitError
from gentlegate.core.kit import edit

COLUMNS = ("name", "reply", "level", "cooldown_everyone", "cooldown_person", "aliases")
_FORMULA = ("=", "+", "-", "@", "\t")
MOST_ROWS = 10_000


def write_table(columns: Iterable[str], rows: Iterable[Iterable[Any]]) -> str:
    """A table as CSV, its first line the names of the columns; no cell is one that a spreadsheet reckons with."""
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(columns)
    for row in rows:
        table.writerow([guarded(str(cell)) for cell in row])
    return out.getvalue()


def write_commands(commands: list[dict[str, Any]]) -> str:
    """The table of these commands. A cell that a spreadsheet would reckon with begins with an apostrophe."""
    return write_table(COLUMNS, map(_row, commands))


def _row(command: dict[str, Any]) -> list[str]:
    reply, cooldown = command["reply"], command.get("cooldown", "default")
    replies = [reply] if isinstance(reply, str) else reply
    waits = cooldown if isinstance(cooldown, dict) else {"everyone": cooldown}
    return [
        command["name"],
        "\n".join(" ".join(text.split()) for text in replies),
        (command.get("needs") or {}).get("level", "everyone"),
        str(waits.get("everyone", "")),
        str(waits.get("person", "")),
        " ".join(command.get("aliases", [])),
    ]


def guarded(cell: str) -> str:
    """The cell so that no spreadsheet reckons with it."""
    return f"'{cell}" if cell.lstrip("'").startswith(_FORMULA) else cell


QUOTES = ("number", "text", "said_by", "category", "date", "by")


def write_quotes(rows: list[dict[str, Any]]) -> str:
    """The table of quotes, from what a template may ask of each."""
    return write_table(QUOTES, ([row[column] for column in QUOTES] for row in rows))


def read_quotes(text: str) -> list[dict[str, str]]:
    """The quotes of a table; only the column `text` is needed. KitError names the line."""
    rows = []
    for line, row in _rows(text, QUOTES, "text"):
        if not row["text"]:
            raise KitError(f"line {line}", "the text is missing")
        rows.append(row)
    return rows


def read_commands(text: str, document: edit.Document) -> edit.Document:
    """A kit of the commands in a table; what a table does not tell stays as it is here.

    Commas or semicolons part the cells; only the column `name` is needed. KitError names line and column.
    """
    here = edit.Opened(document)
    return {"gentlegate": 1, "commands": [_command(row, here, line) for line, row in _rows(text, COLUMNS, "name")]}


def _rows(text: str, known: tuple[str, ...], needed: str) -> Iterator[tuple[int, dict[str, str]]]:
    """The rows of a table with the numbers of their lines."""
    text = text.removeprefix("\ufeff")
    first = text.partition("\n")[0]
    delimiter = ";" if first.count(";") > first.count(",") else ","
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    count = 0
    try:
        columns = _columns(next(reader, []), known, needed)
        for cells in reader:
            if not any(cell.strip() for cell in cells):
                continue
            if len(cells) > len(columns):
                problem = f"{len(cells)} cells, but the table has {len(columns)} columns"
                raise KitError(f"line {reader.line_num}", problem)
            count += 1
            if count > MOST_ROWS:
                raise KitError(f"line {reader.line_num}", f"a table has at most {MOST_ROWS} rows")
            padded = [*cells, *[""] * (len(columns) - len(cells))]
            yield reader.line_num, {column: _plain(cell) for column, cell in zip(columns, padded, strict=True)}
    except csv.Error as error:
        raise KitError(f"line {reader.line_num}", f"this is no CSV: {error}") from None


def _columns(header: list[str], known: tuple[str, ...], needed: str) -> list[str]:
    columns = [cell.strip().lower().replace(" ", "_") for cell in header]
    for column in columns:
        if column not in known:
            raise KitError("line 1", f'there is no column "{column}"; there are: {", ".join(known)}')
    if needed not in columns:
        raise KitError("line 1", f"the first line names the columns, and one of them is {needed}")
    return columns


def _plain(cell: str) -> str:
    cell = cell.strip()
    return cell[1:] if cell[:1] == "'" and cell.lstrip("'").startswith(_FORMULA) else cell


def _command(row: dict[str, str], here: edit.Opened, line: int) -> dict[str, Any]:
    name = row["name"]
    if not name:
        raise KitError(f"line {line}", "the name is missing")
    known = here.read(f"commands.{name}")
    command = dict(known or {"name": name})
    replies = [text for text in row.get("reply", "").splitlines() if text.strip()]
    if replies:
        command["reply"] = replies[0] if len(replies) == 1 else replies
    elif not known:
        raise KitError(f"line {line}", f'"{name}" has no reply')
    if level := row.get("level"):
        _set(command, "needs", {**command.get("needs", {}), "level": level.lower()}, {"level": "everyone"})
    if "aliases" in row:
        _set(command, "aliases", row["aliases"].replace(",", " ").split(), [])
    if "cooldown_everyone" in row or "cooldown_person" in row:
        _set(command, "cooldown", _cooldown(row, command.get("cooldown")), "default")
    return command


def _cooldown(row: dict[str, str], known: Any) -> Any:
    everyone, person = row.get("cooldown_everyone", ""), row.get("cooldown_person", "")
    if not person and everyone in ("", "default", "none"):
        return everyone or "default"
    skip = {"skip_from": known["skip_from"]} if isinstance(known, dict) and "skip_from" in known else {}
    waits = {"everyone": everyone, "person": person}
    return {key: wait for key, wait in waits.items() if wait} | skip


def _set(command: dict[str, Any], key: str, value: Any, usual: Any) -> None:
    if value == usual:
        command.pop(key, None)
    else:
        command[key] = value

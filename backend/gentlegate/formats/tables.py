"""Commands as a CSV table (RFC 4180): one row a command, further replies on further lines of the reply's cell."""

from __future__ import annotations

import csv
import io
from typing import Any

from gentlegate.core.errors import KitError
from gentlegate.core.kit import edit

COLUMNS = ("name", "reply", "level", "cooldown_everyone", "cooldown_person", "aliases")
_FORMULA = ("=", "+", "-", "@", "\t")
MOST_ROWS = 10_000


def write_commands(commands: list[dict[str, Any]]) -> str:
    """The table of these commands. A cell that a spreadsheet would reckon with begins with an apostrophe."""
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(COLUMNS)
    for command in commands:
        table.writerow([_guarded(cell) for cell in _row(command)])
    return out.getvalue()


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


def _guarded(cell: str) -> str:
    return f"'{cell}" if cell.lstrip("'").startswith(_FORMULA) else cell


def read_commands(text: str, document: edit.Document) -> edit.Document:
    """A kit of the commands in a table; what a table does not tell stays as it is here.

    Commas or semicolons part the cells; only the column `name` is needed. KitError names line and column.
    """
    text = text.removeprefix("\ufeff")
    first = text.partition("\n")[0]
    reader = csv.reader(
        io.StringIO(text, newline=""), delimiter=";" if first.count(";") > first.count(",") else ",", strict=True
    )
    here = edit.Opened(document)
    commands = []
    try:
        columns = _columns(next(reader, []))
        for cells in reader:
            if not any(cell.strip() for cell in cells):
                continue
            if len(cells) > len(columns):
                raise KitError(
                    f"line {reader.line_num}", f"{len(cells)} cells, but the table has {len(columns)} columns"
                )
            row = {column: _plain(cell) for column, cell in zip(columns, cells, strict=False)}
            commands.append(_command(row, here, reader.line_num))
            if len(commands) > MOST_ROWS:
                raise KitError(f"line {reader.line_num}", f"a table has at most {MOST_ROWS} commands")
    except csv.Error as error:
        raise KitError(f"line {reader.line_num}", f"this is no CSV: {error}") from None
    return {"gentlegate": 1, "commands": commands}


def _columns(header: list[str]) -> list[str]:
    columns = [cell.strip().lower().replace(" ", "_") for cell in header]
    for column in columns:
        if column not in COLUMNS:
            raise KitError("line 1", f'there is no column "{column}"; there are: {", ".join(COLUMNS)}')
    if "name" not in columns:
        raise KitError("line 1", "the first line names the columns, and one of them is name")
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

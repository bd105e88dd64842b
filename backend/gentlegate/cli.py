"""The command line: each command imports only what it needs, so that it starts quickly."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Annotated, Any

import typer

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, rich_markup_mode=None)


def _stop(problem: str, code: int = 2) -> typer.Exit:
    typer.echo(problem, err=True)
    return typer.Exit(code)


def _document(path: Path | None) -> dict[str, Any]:
    if path is None:
        return {}
    import orjson

    try:
        document = orjson.loads(path.read_bytes())
    except OSError as error:
        raise _stop(f"{path}: {error.strerror}") from None
    except orjson.JSONDecodeError as error:
        raise _stop(f"{path}: not JSON: {error}") from None
    if not isinstance(document, dict):
        raise _stop(f"{path}: a kit is one JSON object")
    return document


@app.command()
def replay(
    log: Annotated[Path | None, typer.Argument(help="Chat log; standard input if left out.")] = None,
    kit: Annotated[Path | None, typer.Option(help="Settings to run with.")] = None,
    seed: Annotated[int, typer.Option(help="For everything that goes by chance.")] = 0,
    until: Annotated[str | None, typer.Option(help="Let time run on to this RFC 3339 time.")] = None,
    only: Annotated[str, typer.Option(help="Write only these effects: verdict,say,…")] = "",
    every: Annotated[bool, typer.Option("--all", help="A verdict for every message.")] = False,
) -> None:
    """Run a log through the engine and write its effects as JSON Lines."""
    from gentlegate.core.effects import EFFECTS
    from gentlegate.core.errors import KitError
    from gentlegate.core.moments import parse_moment
    from gentlegate.replay import Wanted
    from gentlegate.replay import replay as run

    names = frozenset(name for name in only.split(",") if name)
    if unknown := names - {kind.effect for kind in EFFECTS}:
        raise _stop(f"--only: no such effect: {', '.join(sorted(unknown))}")
    try:
        end = parse_moment(until) if until else None
        source = log.open("rb") if log else sys.stdin.buffer
    except ValueError as error:
        raise _stop(f"--until: {error}") from None
    except OSError as error:
        raise _stop(f"{log}: {error.strerror}") from None
    try:
        bad = run(
            source, _document(kit), sys.stdout.buffer, sys.stderr, seed=seed, until=end, wanted=Wanted(names, every)
        )
    except KitError as error:
        raise _stop(str(error)) from None
    finally:
        sys.stdout.flush()
    if bad:
        raise typer.Exit(1)


@app.command()
def schema(what: Annotated[str, typer.Argument(help="log, kit or effect")]) -> None:
    """Print a format's JSON Schema."""
    import orjson

    from gentlegate.formats.schemas import schema as make

    if what not in ("log", "kit", "effect"):
        raise _stop(f'"{what}" has no schema; there are: log, kit, effect')
    typer.echo(orjson.dumps(make(what), option=orjson.OPT_INDENT_2).decode())


def main() -> None:
    app()

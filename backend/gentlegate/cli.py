"""The command line: each command imports only what it needs, so that it starts quickly."""

from __future__ import annotations

import gc
import os
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
            source,
            _document(kit),
            sys.stdout.buffer,
            sys.stderr,
            seed=seed,
            until=end,
            wanted=Wanted(names, every),
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


kits = typer.Typer(no_args_is_help=True, help="Kits: files of settings.")
app.add_typer(kits, name="kit")


@kits.command()
def check(path: Annotated[Path, typer.Argument(help="The kit to check.")]) -> None:
    """Say whether a kit can be used, and what is odd about it. Exit code 2 where it cannot."""
    from gentlegate.core.errors import KitError
    from gentlegate.core.kit.load import load_kit
    from gentlegate.core.kit.warnings import warnings_of

    try:
        kit = load_kit(_document(path))
    except KitError as error:
        raise _stop(f"{path}: {error}") from None
    for warning in warnings_of(kit):
        typer.echo(f"{path}: {warning}")
    counted = (
        f"{len(kit.commands)} commands, {len(kit.cues)} cues, {len(kit.counters)} counters, {len(kit.rotas)} rotas"
    )
    typer.echo(f"{path}: it can be used. {counted}.")


def _port_free(host: str, port: int, name: str, remedy: str = "") -> None:
    import socket

    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            remedy = remedy or f"Set {name} to a free one and start again."
            raise _stop(f"Port {port} is taken by another program. {remedy}") from None


@app.command()
def serve() -> None:
    """Start the application with its own data folder."""
    from gentlegate.core.errors import GateError
    from gentlegate.main import serve as run
    from gentlegate.main import welcome_link
    from gentlegate.settings import read_environment

    try:
        environment = read_environment()
        _port_free(environment.host, environment.port, "GENTLEGATE_PORT")
        if link := welcome_link(environment):
            typer.echo(f"No account yet. Make the broadcaster's with this one-time link:\n  {link}")
        typer.echo(f"Gentle Gate: http://{environment.host}:{environment.port}")
        run(environment)
    except GateError as error:
        raise _stop(str(error), 1) from None


@app.command()
def demo() -> None:
    """Start the application and the Playhouse with the demo's world, clean."""
    from gentlegate.core.errors import GateError
    from gentlegate.demo.run import run
    from gentlegate.settings import read_environment

    try:
        environment = read_environment("data/demo")
        _port_free(environment.host, environment.port, "GENTLEGATE_PORT")
        _port_free(environment.host, environment.playhouse_port, "PLAYHOUSE_PORT")
        run(environment, typer.echo)
    except GateError as error:
        raise _stop(str(error), 1) from None


@app.command()
def playhouse() -> None:
    """Start the Playhouse alone."""
    from gentlegate.settings import read_environment

    environment = read_environment()
    _port_free(environment.host, environment.playhouse_port, "PLAYHOUSE_PORT")
    token = os.environ.get("PLAYHOUSE_TOKEN", "let-the-gatekeeper-in")
    typer.echo(f"The Playhouse: http://{environment.host}:{environment.playhouse_port}")
    typer.echo(f"It lets the Gatekeeper in with the token {token}")
    command = ["-m", "playhouse", "--host", environment.host, "--token", token]
    os.execv(sys.executable, [sys.executable, *command])


@app.command()
def connect(
    platform: Annotated[str, typer.Argument(help="brook, lantern or plaza")],
    address: Annotated[str, typer.Argument(help="Where the platform is.")],
    token: Annotated[str, typer.Option(help="What lets the Gatekeeper in.", prompt=True, hide_input=True)],
) -> None:
    """Let the gate know a platform; it takes effect at the next start."""
    from gentlegate.connectors import KNOWN
    from gentlegate.settings import read_environment
    from gentlegate.store.accounts import Connections
    from gentlegate.store.database import Database

    if platform not in KNOWN:
        raise _stop(f'"{platform}" is no known platform; there are: {", ".join(KNOWN)}')
    if not address.startswith(("http://", "https://")):
        raise _stop(f'"{address}" is no address such as http://127.0.0.1:8771')
    environment = read_environment()
    environment.data.mkdir(parents=True, exist_ok=True)
    database = Database(environment.database)
    Connections(database).put(platform, address.rstrip("/"), token)
    database.close()
    typer.echo(f"{platform.capitalize()} is known now. Start the gate again to join it.")


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="Where the copy is to be; it must not exist yet.")]) -> None:
    """Copy the database, also while the gate runs."""
    from gentlegate.settings import read_environment
    from gentlegate.store.backup import back_up
    from gentlegate.store.database import StoreError

    try:
        back_up(read_environment().database, file)
    except StoreError as error:
        raise _stop(str(error), 1) from None
    typer.echo(
        f"{file}: {file.stat().st_size // 1024:,} kB. It holds accounts and tokens; keep it as you keep those."
    )


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="A copy made by backup.")]) -> None:
    """Put a copy back in the place of the database; what stood there is kept beside it."""
    import time

    from gentlegate.settings import read_environment
    from gentlegate.store.backup import restore as put_back
    from gentlegate.store.database import StoreError

    environment = read_environment()
    _port_free(environment.host, environment.port, "GENTLEGATE_PORT", "Stop the gate first; nothing was touched.")
    aside = environment.data / f"before-restore-{time.strftime('%Y-%m-%d-%H%M%S')}.db"
    try:
        put_back(file, environment.database, aside)
    except StoreError as error:
        raise _stop(str(error), 1) from None
    typer.echo(f"{file} is put back." + (f" What stood there before is in {aside}." if aside.exists() else ""))


@app.command()
def openapi() -> None:
    """Print the OpenAPI document that the screens' types are made from."""
    import orjson

    from gentlegate.web.app import build

    typer.echo(orjson.dumps(build().openapi(), option=orjson.OPT_INDENT_2 | orjson.OPT_SORT_KEYS).decode())


def main() -> None:
    """Start quickly: no look-out for plug-ins, and few rounds of the garbage collector while things are imported."""
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
    gc.set_threshold(50_000, 20, 20)
    app()

"""What the environment says, read once into one frozen object."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

from gentlegate.core.errors import GateError


@dataclass(frozen=True, slots=True)
class Environment:
    """`data` is the folder of the database; the ports are where the two programs listen, on `host`."""

    data: Path
    port: int
    playhouse_port: int
    host: str

    @property
    def database(self) -> Path:
        return self.data / "gentlegate.db"


def _port(name: str, default: int) -> int:
    text = os.environ.get(name, str(default))
    if not text.isdigit() or not 0 < int(text) < 65536:
        raise GateError(f'{name} is "{text}"; it takes a port from 1 to 65535')
    return int(text)


def read_environment(default_data: str = "data") -> Environment:
    return Environment(
        data=Path(os.environ.get("GENTLEGATE_DATA", default_data)),
        port=_port("GENTLEGATE_PORT", 8770),
        playhouse_port=_port("PLAYHOUSE_PORT", 8771),
        host=os.environ.get("GENTLEGATE_HOST", "127.0.0.1"),
    )

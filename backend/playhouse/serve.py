"""Serving the Playhouse on its port, if wanted with an evening already playing."""

from __future__ import annotations

import argparse
import asyncio
import logging
import os

import uvicorn

from playhouse.app import build


def main() -> None:
    options = argparse.ArgumentParser(prog="playhouse", description="Stand-in platforms for Gentle Gate.")
    options.add_argument("--host", default="127.0.0.1")
    options.add_argument("--port", type=int, default=int(os.environ.get("PLAYHOUSE_PORT", "8771")))
    options.add_argument("--evening", help="play this evening at once")
    options.add_argument("--speed", type=float, default=1.0, help="1 to 60 times")
    options.add_argument("--quick-start", type=float, default=0.0, help="its first seconds pass at 60 times")
    options.add_argument("--token", default=os.environ.get("PLAYHOUSE_TOKEN", "let-the-gatekeeper-in"))
    asyncio.run(_serve(options.parse_args()))


async def _serve(given: argparse.Namespace) -> None:
    app = build(dict.fromkeys(("brook", "lantern", "plaza"), given.token))
    config = uvicorn.Config(
        app, given.host, given.port, log_level="warning", ws_max_size=1 << 20, timeout_graceful_shutdown=1
    )
    logging.getLogger("uvicorn.error").addFilter(lambda record: "graceful shutdown" not in record.getMessage())
    server = uvicorn.Server(config)
    if given.evening:
        app.state.player.play(given.evening, given.speed, given.quick_start)
    await server.serve()

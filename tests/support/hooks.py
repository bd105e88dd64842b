"""A door for webhooks in front of connectors that run on their own, the same as the gate's."""

from __future__ import annotations

import asyncio
import contextlib
from collections.abc import AsyncIterator

import uvicorn
from fastapi import FastAPI

from gentlegate.connectors.plaza import Plaza
from gentlegate.web import hooks
from gentlegate.web.problems import install


@contextlib.asynccontextmanager
async def hook_door(port: int, connector: object) -> AsyncIterator[None]:
    """Open while the connector runs; nothing is opened for one that hears otherwise."""
    if not isinstance(connector, Plaza):
        yield
        return
    app = FastAPI()
    install(app)
    app.include_router(hooks.routes)
    app.state.hooks = {connector.name: connector}
    server = uvicorn.Server(uvicorn.Config(app, "127.0.0.1", port, log_level="critical", lifespan="off"))
    serving = asyncio.create_task(server.serve())
    while not server.started:
        await asyncio.sleep(0.005)
    try:
        yield
    finally:
        server.should_exit = True
        await serving

"""Where platforms that tell by webhooks reach us; each connector proves for itself that a hook is its platform's."""

from __future__ import annotations

import structlog
from fastapi import APIRouter, Request, Response

from gentlegate.core.errors import GateError
from gentlegate.web.problems import ANSWERS, Refused

routes = APIRouter(prefix="/hooks", tags=["hooks"], responses=ANSWERS)
LARGEST = 262_144
STATUS = {"forged": 401, "late": 401, "repeated": 409, "early": 503}
log = structlog.get_logger()


@routes.post("/{platform}", summary="A platform's signed webhook", status_code=204)
async def take(platform: str, request: Request) -> Response:
    hook = getattr(request.app.state.hooks.get(platform), "hook", None)
    if hook is None:
        raise Refused(404, "not-found", "No platform tells us anything here.")
    body = b""
    async for piece in request.stream():
        body += piece
        if len(body) > LARGEST:
            raise Refused(413, "too-large", f"A webhook has at most {LARGEST} bytes.")
    try:
        hook(request.headers, body)
    except GateError as error:
        kind = str(getattr(error, "kind", "broken"))
        log.warning("hooks.refused", platform=platform, kind=kind)
        raise Refused(STATUS.get(kind, 422), f"hook-{kind}", f"This webhook is not taken: {error}.") from None
    return Response(status_code=204)

"""Joining the platforms: how far each has come, what to do next, and what each can do."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.team import Account
from gentlegate.runtime.gate import Gate
from gentlegate.runtime.joining import STEPS, Joining, Standing, Step
from gentlegate.web.door.access import needs
from gentlegate.web.entries import change_all
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import Wire

routes = APIRouter(prefix="/api/platforms", tags=["platforms"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Testing = Annotated[Account, Depends(needs("say"))]
Owning = Annotated[Account, Depends(needs("platforms"))]


class PlatformView(Wire):
    platform: str
    done: list[Step]
    next: Step | None = Field(description="The first step that is not done.")
    lamp: str
    note: str
    rights_words: str = Field(description="What the broadcaster types there to make the Gatekeeper a moderator.")
    abilities: dict[str, Any]


class Platforms(Wire):
    steps: list[Step]
    platforms: list[PlatformView]
    known: list[str] = Field(description="Every platform that this gate has a connector for.")


class Tested(Wire):
    back: bool
    seconds: float = 0
    person: str = ""
    name: str = ""
    known: bool = Field(False, description="Whether whoever said it is listed as the Gatekeeper.")


class Connect(Wire):
    address: str = Field(pattern=r"^https?://", max_length=300)
    token: str = Field(min_length=1, max_length=500)


class ShownName(Wire):
    name: str = Field(min_length=1, max_length=60)


class TakeGatekeeper(Wire):
    person: str = Field(max_length=200, pattern=r"^[a-z-]+:@?[^\s]+$")


def _view(request: Request, standing: Standing) -> PlatformView:
    gate: Gate = request.app.state.gate
    return PlatformView(
        platform=standing.platform,
        done=[step for step in STEPS if step in standing.done],
        next=next((step for step in STEPS if step not in standing.done), None),
        lamp=standing.lamp,
        note=standing.note,
        rights_words=standing.rights_words,
        abilities=asdict(gate.engine.parts.abilities(standing.platform)),
    )


@routes.get("", summary="How far the Gatekeeper has come on each platform")
async def every(request: Request, _: Looking) -> Platforms:
    joining: Joining = request.app.state.joining
    return Platforms(
        steps=list(STEPS),
        platforms=[_view(request, standing) for standing in joining.all()],
        known=request.app.state.known_platforms,
    )


@routes.post("/{platform}/check", summary="Ask a platform at once how things stand")
async def check(platform: str, request: Request, _: Testing) -> PlatformView:
    return _view(request, await request.app.state.joining.check(platform))


@routes.post("/{platform}/test", summary="Say something there and see whether it comes back")
async def test(platform: str, request: Request, account: Testing) -> Tested:
    came = await request.app.state.joining.test(account, platform)
    return Tested(back=came is not None, **(asdict(came) if came else {}))


@routes.put("/{platform}", summary="Connect a platform, or connect it anew", status_code=204)
async def connect(platform: str, body: Connect, request: Request, account: Owning) -> None:
    if platform not in request.app.state.known_platforms:
        known = ", ".join(request.app.state.known_platforms)
        raise Refused(404, "not-found", f'There is no connector for "{platform}"; there are: {known}.')
    await request.app.state.connect(platform, body.address.rstrip("/"), body.token)
    gate: Gate = request.app.state.gate
    await gate.note(account, "platform", platform, None, body.address)


@routes.get("/{platform}/name", summary="What the Gatekeeper is called there")
async def called(platform: str, request: Request, _: Testing) -> ShownName:
    connector = request.app.state.joining.connector(platform)
    return ShownName(name=await connector.called())


@routes.put("/{platform}/name", summary="Call the Gatekeeper something else there")
async def call(platform: str, body: ShownName, request: Request, account: Owning) -> ShownName:
    connector = request.app.state.joining.connector(platform)
    before = await connector.called()
    name = await connector.call(body.name.strip())
    gate: Gate = request.app.state.gate
    await gate.note(account, "shown_name", platform, before, name)
    return ShownName(name=name)


@routes.post("/{platform}/gatekeeper", summary="Take somebody as the Gatekeeper there", status_code=204)
async def take_gatekeeper(platform: str, body: TakeGatekeeper, request: Request, account: Owning) -> None:
    if not body.person.startswith(f"{platform}:"):
        raise ActError(f"{body.person} is nobody on {platform}", "person")
    gate: Gate = request.app.state.gate
    listed = edit.read(gate.engine.document, "channel.gatekeeper") or []
    if body.person not in listed:
        await change_all(gate, account, [("channel.gatekeeper", [*listed, body.person])])

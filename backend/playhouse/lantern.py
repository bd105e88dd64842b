"""Lantern: to be polled with a cursor; its page of chat exists only while it is live."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Header
from pydantic import BaseModel

from playhouse.house import GATEKEEPER, Line, Platform, Refusal

LINE_LIMIT, TITLE_LIMIT, NAME_LIMIT = 200, 96, 30
HUSHES = (15, 60, 360, 1800, 72000)
PAGE = 200


class Act(BaseModel):
    key: str
    words: str = ""
    entry: str = ""
    who: str = ""
    seconds: int = 0


def wire_line(line: Line) -> dict[str, Any]:
    """A line as Lantern lists it."""
    return {
        "ref": line.id,
        "when": line.at,
        "by": {"number": line.uid, "nick": line.login, "display": line.name, "roles": line.badges},
        "words": line.text,
        "images": [{"from": start, "to": end} for start, end in line.emotes],
        "me": line.action,
    }


def router(lantern: Platform) -> APIRouter:
    def allowed(x_lantern_key: Annotated[str, Header()] = "") -> None:
        if x_lantern_key != lantern.token:
            raise Refusal(401, "this key does not let you in")
        if lantern.broken:
            raise Refusal(503, "the platform has trouble")

    routes = APIRouter(prefix="/lantern", dependencies=[Depends(allowed)])

    @routes.get("/status")
    async def status() -> dict[str, Any]:
        return {
            "lit": lantern.live,
            "headline": lantern.title,
            "shelf": lantern.category,
            "keeper": lantern.rights,
            "cursor": lantern.n,
            "watchers": lantern.viewers,
            "display": lantern.shown,
            "nick": GATEKEEPER,
        }

    @routes.get("/shelves")
    async def shelves() -> dict[str, Any]:
        return {"shelves": lantern.categories}

    @routes.get("/rooms/{nick}")
    async def room(nick: str) -> dict[str, Any]:
        entry = lantern.channel(nick)
        return {"nick": entry["login"], "display": entry["name"], "url": entry["link"], "shelf": entry["category"]}

    @routes.get("/people/{nick}")
    async def person(nick: str) -> dict[str, Any]:
        who = lantern.person(nick)
        return {"number": who["uid"], "nick": who["login"], "display": who["name"]}

    @routes.post("/display")
    async def display(act: Act) -> dict[str, Any]:
        return {"display": lantern.call(act.words, NAME_LIMIT)}

    @routes.post("/shelf")
    async def shelf(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.set_category(act.words))

    @routes.post("/bookmark")
    async def bookmark(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.mark(act.words))

    @routes.get("/page")
    async def page(cursor: int | None = None) -> dict[str, Any]:
        if not lantern.live:
            raise Refusal(404, "dark")
        if cursor is None:
            return {"cursor": lantern.n, "entries": []}
        entries: list[dict[str, Any]] = []
        last = cursor
        for happening in list(lantern.happenings):
            if happening["n"] <= cursor or len(entries) == PAGE:
                continue
            last = happening["n"]
            if happening["what"] == "line":
                entries.append(wire_line(happening["line"]))
            elif happening["what"] == "gone" and "by" in happening:
                entries.append({"gone": happening["line"].id, "by": happening["by"]})
            elif happening["what"] == "happening":
                by = {"number": happening["uid"], "nick": happening["login"], "display": happening["name"]}
                told = {"told": happening["of"], "by": by}
                entries.append(told | {"sum": happening["amount"], "words": happening["text"]})
        return {"cursor": last, "entries": entries}

    @routes.post("/post")
    async def post(act: Act) -> dict[str, Any]:
        if not lantern.live:
            raise Refusal(404, "dark")
        return lantern.once(act.key, lambda: lantern.speak(act.words, LINE_LIMIT))

    @routes.post("/hide")
    async def hide(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.remove(act.entry))

    @routes.post("/show")
    async def show(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.remove(act.entry, removed=False))

    @routes.post("/hush")
    async def hush(act: Act) -> dict[str, Any]:
        if act.seconds and act.seconds not in HUSHES:
            raise Refusal(422, f"one of {HUSHES}")
        return lantern.once(act.key, lambda: lantern.shut(act.who, act.seconds or None))

    @routes.post("/unhush")
    async def unhush(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.free(act.who))

    @routes.post("/headline")
    async def headline(act: Act) -> dict[str, Any]:
        return lantern.once(act.key, lambda: lantern.set_title(act.words, TITLE_LIMIT))

    @routes.get("/acts/{key}")
    async def act_done(key: str) -> dict[str, Any]:
        return {"done": key in lantern.acts}

    return routes

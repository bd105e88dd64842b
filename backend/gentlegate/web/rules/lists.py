"""The filters' lists: read by page and search, changed by entries, imported from files and addresses."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core import tonight
from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.kit.filters import LISTS
from gentlegate.core.records import TonightRecord
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.core.text.link_entries import read_hosts
from gentlegate.core.text.words import lines
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.rules.filters import known_filter, may_change, rules_of
from gentlegate.web.rules.schemas import ChangeList, Imported, ImportFeed, ListPage, Rules

routes = APIRouter(prefix="/api/rules", tags=["rules"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Changing = Annotated[Account, Depends(needs("filters"))]
PAGE = 200


def _path(key: str, name: str) -> str:
    known_filter(key)
    if name not in LISTS.get(key, ()):
        raise ActError(f'{key} has no list "{name}"', "name")
    return f"filters.{key}.{name}"


def _entries(gate: Gate, key: str, name: str) -> list[Any]:
    found = edit.read(gate.engine.effective, _path(key, name))
    if found is None and (key, name) == ("newcomers", "phrases"):
        return list(lines("newcomer-pitches"))
    return list(found or [])


def _text(entry: Any) -> str:
    return str(entry.get("text", entry.get("name", ""))) if isinstance(entry, dict) else str(entry)


@routes.get("/lists/{key}/{name}", summary="A page of a filter's list")
async def read(key: str, name: str, request: Request, _: Looking, search: str = "", start: int = 0) -> ListPage:
    gate: Gate = request.app.state.gate
    entries = _entries(gate, key, name)
    wanted = fold_name(search.strip())
    found = [entry for entry in entries if wanted in fold_name(_text(entry))] if wanted else entries
    path = _path(key, name)
    added = [e for c in tonight.changes(gate.engine.state) if c.path == path for e in c.add or ()]
    return ListPage(count=len(found), all=len(entries), entries=found[start : start + PAGE], tonight=added)


@routes.post("/lists/{key}/{name}", summary="Add entries to a list, take some from it")
async def change(
    key: str, name: str, body: ChangeList, request: Request, account: Annotated[Account, Depends(needs("tonight"))]
) -> Rules:
    path = _path(key, name)
    may_change(request, account, "filters", body.tonight)
    gate: Gate = request.app.state.gate
    if (key, name) == ("newcomers", "phrases") and edit.read(gate.engine.effective, path) is None:
        await gate.act(account, "setting", path=path, value=_entries(gate, key, name))
    _together(gate, path, body)
    for how in ("take", "add"):
        if entries := getattr(body, how):
            values: dict[str, Any] = {how: entries, "tonight": body.tonight or None}
            await gate.act(account, "setting", path=path, **values)
    return rules_of(gate)


def _together(gate: Gate, path: str, body: ChangeList) -> None:
    """Both changes at once are checked before either is made."""
    from gentlegate.core.kit.load import load_kit

    document = gate.engine.effective
    if body.take:
        document = tonight.one_laid_over(document, TonightRecord(0, path, "", 0, take=body.take))
    if body.add:
        document = tonight.one_laid_over(document, TonightRecord(0, path, "", 0, add=body.add))
    load_kit(document)


@routes.post("/feeds", summary="Import a list of forbidden hosts, from an address or as text")
async def import_feed(body: ImportFeed, request: Request, account: Changing) -> Imported:
    gate: Gate = request.app.state.gate
    if (body.address is None) == (body.text is None):
        raise Refused(422, "one-of", "Give either an address or the list itself.", "address")
    text = body.text if body.text is not None else await _fetched(request, body.address or "")
    return await _take_in(gate, account, body.name.strip(), body.address, text)


@routes.post("/feeds/{name}/again", summary="Import a list again from its address")
async def import_again(name: str, request: Request, account: Changing) -> Imported:
    gate: Gate = request.app.state.gate
    feed = _feed(gate, name)
    if feed.address is None:
        raise Refused(422, "no-address", f"{feed.name} was pasted; paste the newer list to replace it.", "name")
    return await _take_in(gate, account, feed.name, feed.address, await _fetched(request, feed.address))


@routes.delete("/feeds/{name}", summary="Drop an imported list")
async def drop_feed(name: str, request: Request, account: Changing) -> Rules:
    gate: Gate = request.app.state.gate
    values: dict[str, Any] = {"take": [{"name": _feed(gate, name).name}]}
    await gate.act(account, "setting", path="filters.links.feeds", **values)
    return rules_of(gate)


def _feed(gate: Gate, name: str) -> Any:
    for feed in gate.engine.parts.kit.filters.links.feeds:
        if fold_name(feed.name) == fold_name(name):
            return feed
    raise Refused(404, "no-such-list", f'No imported list is named "{name}".', "name")


async def _fetched(request: Request, address: str) -> str:
    if not address.startswith(("http://", "https://")):
        raise Refused(
            422, "no-address", f'"{address}" is no address such as https://lists.example/hosts.txt.', "address"
        )
    text: str = await request.app.state.fetch_list(address)
    return text


async def _take_in(gate: Gate, account: Account, name: str, address: str | None, text: str) -> Imported:
    try:
        hosts, odd = read_hosts(text)
    except ValueError as error:
        raise Refused(422, "too-long", f"{error}. Nothing was changed.", "text") from None
    if not hosts:
        raise Refused(422, "no-hosts", "There is no host in this list. Nothing was changed.", "text")
    feeds = list(edit.read(gate.engine.document, "filters.links.feeds") or [])
    entry = {"name": name} | ({"address": address} if address else {})
    kept = [feed for feed in feeds if fold_name(feed["name"]) != fold_name(name)]
    await gate.act(account, "setting", path="filters.links.feeds", value=[*kept, entry])
    await gate.act(account, "feed", name=name, hosts=hosts)
    return Imported(hosts=len(hosts), odd=odd[:20], rules=rules_of(gate))

"""The ledger's routes: who changed or did what, when and from where; and single changes taken back."""

from __future__ import annotations

import re
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from gentlegate.core.errors import ActError
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.kit import edit
from gentlegate.core.stream import quotes
from gentlegate.core.team import Account, Permissions
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.entries import BROADCASTERS, change_all
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import Wire

routes = APIRouter(prefix="/api/ledger", tags=["ledger"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("ledger"))]
PAGE = 60
_QUOTE = re.compile(r"quotes\.(\d+)")


class EntryView(Wire):
    number: int
    at: int
    who: str = Field(description="The name of who did it; `gate` where nobody did.")
    key: str = Field(description="Who did it as it is stored, for the filter.")
    place: str = Field(description="`desk`, `chat` or `gate`.")
    what: str
    about: str | None
    before: Any = None
    after: Any = None
    undoable: bool = Field(description="Whether this single change can be taken back now.")


class LedgerPage(Wire):
    entries: list[EntryView]
    more: int | None = Field(description="The `before` of the next page, if there is one.")


class KindView(Wire):
    what: str
    count: int


class PersonView(Wire):
    key: str
    name: str


class Filters(Wire):
    kinds: list[KindView]
    people: list[PersonView]


def _name(request: Request, who: str) -> str:
    gate: Gate = request.app.state.gate
    record = gate.engine.state.accounts.get(who)
    return str(request.app.state.names.get(who) or (record.name if record else who))


@routes.get("", summary="Entries of the ledger, newest first")
async def page(
    request: Request,
    account: Reading,
    who: str | None = None,
    what: str | None = None,
    text: str = "",
    before: int | None = None,
) -> LedgerPage:
    gate: Gate = request.app.state.gate
    asked = {"who": who, "kind": what, "text": text, "before": before, "most": PAGE + 1}
    found = await request.app.state.ledger("search", **asked)
    document = edit.Opened(gate.engine.document)
    return LedgerPage(
        entries=[
            EntryView(
                number=number,
                at=one.at,
                who=_name(request, one.who),
                key=one.who,
                place=one.place,
                what=one.what,
                about=one.about,
                before=one.before,
                after=one.after,
                undoable=_standing(gate, document, one) and _may_undo(request, account, one),
            )
            for number, one in found[:PAGE]
        ],
        more=found[PAGE - 1][0] if len(found) > PAGE else None,
    )


def _standing(gate: Gate, document: edit.Opened, entry: LedgerEntry) -> bool:
    """Whether what this entry says still holds, so that it can be taken back."""
    if entry.what != "setting" or entry.about is None or entry.before == entry.after:
        return False
    if quote := _QUOTE.fullmatch(entry.about):
        record = gate.engine.state.quotes.get(quotes.key_of(int(quote[1])))
        return record is not None and record.removed == (entry.after is None)
    if ".feeds." in entry.about:
        return False
    return bool(document.read(edit.where_it_stands(entry.about, entry.after)) == entry.after)


def _may_undo(request: Request, account: Account, entry: LedgerEntry) -> bool:
    permissions: Permissions = request.app.state.access.permissions
    about = entry.about or ""
    own = account.level == "broadcaster" or not about.startswith(BROADCASTERS)
    return own and permissions.may(account, _act_of(about))


def _act_of(about: str) -> str:
    """The permission that a change of this place needs."""
    if _QUOTE.fullmatch(about):
        return "quote"
    return "filters" if about.startswith(("filters", "ladder", "drawbridge")) else "commands"


@routes.get("/filters", summary="Every kind of entry and everybody who is in it")
async def filters(request: Request, _: Reading) -> Filters:
    read = request.app.state.ledger
    return Filters(
        kinds=[KindView(what=what, count=count) for what, count in await read("kinds")],
        people=[PersonView(key=key, name=_name(request, key)) for key in await read("people")],
    )


@routes.post("/{number}/undo", summary="Take a single change of the settings back", status_code=204)
async def undo(number: int, request: Request, account: Reading) -> None:
    gate: Gate = request.app.state.gate
    entry: LedgerEntry | None = await request.app.state.ledger("entry", number=number)
    if entry is None or entry.about is None:
        raise ActError(f"there is no entry {number} to take back", "number")
    if not _standing(gate, edit.Opened(gate.engine.document), entry):
        detail = "This was changed again since, or is not taken back from here."
        raise Refused(409, "changed-since", detail, entry.about)
    if not _may_undo(request, account, entry):
        level = request.app.state.access.permissions.level(_act_of(entry.about))
        raise Refused(
            403, "not-allowed", f"A {account.level} may not change this; ask a {level} or the broadcaster."
        )
    if quote := _QUOTE.fullmatch(entry.about):
        restored: dict[str, Any] = {"restore": True} if entry.after is None else {}
        await gate.act(account, "quote", number=int(quote[1]), **restored)
        return
    await change_all(gate, account, [(edit.where_it_stands(entry.about, entry.after), entry.before)])

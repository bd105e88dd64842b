"""What goes over the wire about people: cards, lists, links and notes."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from gentlegate.web.schemas import Wire

ListName = Literal["regulars", "leads", "ignored"]
PersonString = Field(max_length=200, pattern=r"^[a-z0-9_-]+:@?[^\s:]+$", description="`platform:id`.")


class PersonRow(Wire):
    key: str
    platform: str
    login: str
    name: str
    level: str
    lists: list[ListName]
    strikes: int = Field(description="How many stand.")
    at: int | None = Field(None, description="When they talked last, where that is known.")


class PeoplePage(Wire):
    people: list[PersonRow]
    count: int = Field(description="How many there are in all.")


class AccountSeen(Wire):
    key: str
    platform: str
    login: str
    name: str
    first: int | None = Field(description="When this account talked first; null where it never did.")
    had: list[EarlierName]


class EarlierName(Wire):
    login: str
    name: str
    until: int


class WhyLevel(Wire):
    level: str
    by: Literal["badge", "list", "follows", "nothing"]
    platform: str | None


class StrikeView(Wire):
    at: int
    count: int
    until: int
    stands: bool


class NoteView(Wire):
    id: int
    person: str | None
    text: str
    at: int
    by: str = Field(description="The author's name.")
    mine: bool


class PassView(Wire):
    filters: list[str]
    until: int | None = Field(description="Null: with the stream.")


class ActView(Wire):
    """Something that was done about them, as the ledger and the judge have it."""

    at: int
    what: str
    by: str | None = Field(description="Who did it; null where the judge did.")
    about: str
    seconds: int | None
    undone: bool


class PersonCard(Wire):
    identity: str
    accounts: list[AccountSeen]
    alike: list[AccountSeen] = Field(description="Accounts of the same name elsewhere, which may be theirs.")
    level: str
    why: list[WhyLevel]
    lists: list[ListName]
    strikes: list[StrikeView]
    standing: int
    acts: list[ActView]
    passes: list[PassView]
    notes: list[NoteView]
    messages: int
    last: int | None


class Overview(Wire):
    """What there is to look at before somebody is chosen."""

    strikes: list[PersonRow] = Field(description="Those on whom most strikes stand.")
    alike: list[list[AccountSeen]] = Field(
        description="Accounts of one name on several platforms, known here and not linked."
    )
    notes: list[NoteView] = Field(description="The newest notes, about people and for the team.")
    names: dict[str, str] = Field(description="The names of those whom notes are about, by their person string.")


class SaidView(Wire):
    number: int
    at: int
    platform: str
    text: str
    outcome: str | None = Field(description="What became of it; null where it stayed.")
    filter: str | None
    by: str | None = Field(description="Who removed it by hand.")
    undone: bool


class SaidPage(Wire):
    messages: list[SaidView]
    more: int | None = Field(description="The `before` of the next page, if there is one.")


class AddNote(Wire):
    person: str | None = Field(None, max_length=200, description="Whom it is about; null: for the whole team.")
    text: str = Field(min_length=1, max_length=1000)


class KeepNote(Wire):
    gone: bool


class LinkWith(Wire):
    person: str = PersonString
    other: str = PersonString


class Unlink(Wire):
    person: str = PersonString


class CheckNames(Wire):
    platform: str = Field(max_length=40)
    names: list[str] = Field(min_length=1, max_length=500)


class CheckedName(Wire):
    typed: str
    person: str | None = Field(description="The person string to list; null where nobody has this name.")
    login: str
    name: str
    problem: str | None = Field(description="What is wrong with it, in words.")


class ListedPerson(Wire):
    entry: str = Field(description="As it stands in the settings.")
    platform: str
    login: str
    name: str
    known: bool = Field(description="Whether this account has talked here.")


class PeopleList(Wire):
    name: ListName
    entries: list[ListedPerson]
    may: bool = Field(description="Whether whoever asks may change it.")


class ChangePeopleList(Wire):
    add: list[str] = Field([], max_length=2000)
    take: list[str] = Field([], max_length=2000)


class Erased(Wire):
    messages: int
    settings: list[str] = Field(description="Lists and links in which the settings still name them.")


AccountSeen.model_rebuild()

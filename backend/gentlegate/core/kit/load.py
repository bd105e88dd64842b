"""From a document to a checked kit, or one error that names the place and the remedy."""

from __future__ import annotations

import types
from collections.abc import Iterator
from typing import Any, Union, get_args, get_origin

from pydantic import BaseModel, ValidationError
from rapidfuzz import process

from gentlegate.core.errors import KitError
from gentlegate.core.kit.checks import check_whole
from gentlegate.core.kit.model import Kit, Notice


def load_kit(document: Any, beside: Kit | None = None) -> Kit:
    """Check a parsed JSON document. Raises KitError naming the first fault's path; nothing is half-applied.

    A kit that is to be taken into another may mention what is there (`beside`).
    """
    if not isinstance(document, dict):
        raise KitError("", "a kit is one JSON object")
    version = document.get("gentlegate", 1)
    if isinstance(version, int) and version > 1:
        raise KitError("gentlegate", f"this kit is of version {version}; this gate reads version 1")
    try:
        kit = Kit.model_validate(document)
    except ValidationError as error:
        raise _plain(error) from None
    check_whole(kit, beside)
    return kit


def load_notice(value: Any) -> Notice:
    """Check one notice that stands in no kit; its command need not exist. KitError names the place in it."""
    try:
        return Kit.model_validate({"rotas": [{"name": "notice", "notices": [value]}]}).rotas[0].notices[0]
    except ValidationError as error:
        problem = _plain(error)
        raise KitError(problem.path.replace("rotas.0.notices.0", "notice"), problem.problem) from None


def _plain(error: ValidationError) -> KitError:
    first = error.errors(include_url=False)[0]
    place = [part for part in first["loc"] if not _is_tag(part)]
    path = ".".join(str(part) for part in place)
    if first["type"] == "extra_forbidden":
        return KitError(path, _unknown(place))
    if first["type"] == "missing":
        return KitError(path, "this field is needed")
    if first["type"] == "gentlegate":
        return KitError(path, str(first["ctx"]["problem"]))
    given = first["input"]
    shown = f" (given: {given!r:.60})" if not isinstance(given, dict | list) else ""
    return KitError(path, first["msg"][0].lower() + first["msg"][1:] + shown)


def _is_tag(part: int | str) -> bool:
    """Pydantic names the branch of a union in the place; people do not."""
    return isinstance(part, str) and (
        "[" in part or part in {"int", "float", "str", "bool", "Cooldown", "TimeoutRange", "date"}
    )


def _unknown(place: list[int | str]) -> str:
    known = _keys_at(place[:-1])
    nearest = process.extractOne(str(place[-1]), known, score_cutoff=55)
    return "unknown key" + (f'; did you mean "{nearest[0]}"?' if nearest else f"; known: {', '.join(known)}")


def _keys_at(place: list[int | str]) -> list[str]:
    model: Any = Kit
    for part in place:
        if isinstance(model, type) and issubclass(model, BaseModel):
            field = next(
                (f for name, f in model.model_fields.items() if (f.alias or name) == part),
                None,
            )
            model = field.annotation if field else None
        else:
            model = next(_inside(model), None)
    model = _unwrapped(model)
    return [field.alias or name for name, field in model.model_fields.items()] if model else []


def _inside(annotation: Any) -> Iterator[Any]:
    if get_origin(annotation) in (Union, types.UnionType):
        for branch in get_args(annotation):
            yield from _inside(branch)
    elif get_args(annotation):
        yield get_args(annotation)[-1] if get_origin(annotation) is dict else get_args(annotation)[0]


def _unwrapped(annotation: Any) -> type[BaseModel] | None:
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return annotation
    for branch in get_args(annotation):
        if found := _unwrapped(branch):
            return found
    return None

"""The published JSON Schemas, made from the models that check and write the formats."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

from pydantic import TypeAdapter

from gentlegate.core import effects
from gentlegate.core.kit.model import Kit
from gentlegate.formats.log import models

DIALECT = "https://json-schema.org/draft/2020-12/schema"


def schema(what: str) -> dict[str, Any]:
    """The JSON Schema of `log`, `kit` or `effect`."""
    if what == "log":
        found = models().json_schema()
    elif what == "kit":
        found = Kit.model_json_schema()
    else:
        found = _effect_schema()
    return {
        "$schema": DIALECT,
        "title": f"Gentle Gate {what}",
        **{k: v for k, v in found.items() if k != "title"},
    }


def _effect_schema() -> dict[str, Any]:
    shapes: list[dict[str, Any]] = []
    definitions: dict[str, Any] = {}
    for kind in effects.EFFECTS:
        shape = TypeAdapter(kind).json_schema(ref_template="#/$defs/{model}")
        definitions |= shape.pop("$defs", {})
        shape["properties"]["at"] = {"type": "string", "format": "date-time"}
        shape["properties"]["effect"] = {"const": kind.effect}
        if "until" in shape["properties"]:
            shape["properties"]["until"] = {"type": ["string", "null"], "description": "RFC 3339, or stream."}
        shape["required"] = [
            "at",
            "effect",
            *(f.name for f in fields(kind) if f.name in shape.get("required", []) and f.name != "at"),
        ]
        shapes.append(shape)
    return {"$defs": definitions, "oneOf": shapes}

"""What the stand-in platforms know of the world: their categories, and channels to look up, shout out and raid."""

from __future__ import annotations

from typing import Any

BROOK_CATEGORIES = [
    "Wheel throwing", "Glaze lab", "Kiln opening", "Hand building", "Tea & talk", "Studio tidy", "Mould making",
    "Tile making", "Raku firing", "Wood firing", "Sculpture", "Basket weaving", "Bookbinding", "Woodturning", "Spinning",
    "Weaving", "Knitting", "Leatherwork", "Glass blowing", "Calligraphy", "Printmaking", "Gardening", "Cooking", "Just chatting over tea",
]  # fmt: skip
LANTERN_CATEGORIES = [
    "Throwing", "Glazing", "Firing", "Hand building", "Talk", "Tidying", "Weaving", "Wood", "Glass", "Paper", "Garden", "Kitchen",
]  # fmt: skip

_CHANNELS: list[dict[str, Any]] = [
    {"login": "wickerworks", "name": "Wicker Works", "category": "Basket weaving"},
    {"login": "turnandturn", "name": "Turn & Turn", "category": "Woodturning"},
    {"login": "inkandnib", "name": "Ink & Nib", "category": "Calligraphy"},
    {"login": "loomingsoon", "name": "Looming Soon", "category": "Weaving"},
    {"login": "rakurae", "name": "Raku Rae", "category": "Raku firing"},
    {"login": "blowpipe", "name": "Blowpipe", "category": "Glass blowing"},
    {"login": "quietpots", "name": "Quiet Pots", "category": None},
    {"login": "thimblewick", "name": "thimblewick", "category": None},
]


_PEOPLE = {
    "brook": "marlo_finch odalys bram mossandloam copperred quillwort saltglaze_sam ashfall slip_and_score celadon_kid bisque_it coil_and_toil stoneware_stan",
    "lantern": "wren thimblewick ferrous bowl_cut wedgewise raku_rae pinchpot_pete grogwell kaolin_kay saltglaze_sam",
    "plaza": "glazed_and_confused kick_wheel_kit trimmings slipdip noodle_bowl terra_sig",
}  # fmt: skip


def people(platform: str) -> list[str]:
    """The log-ins of those who had an account there from the beginning."""
    return _PEOPLE.get(platform, "").split()


def channels(platform: str) -> list[dict[str, Any]]:
    """The platform's channels; the Kiln & Kettle is one of them."""
    own = {"login": "kilnandkettle", "name": "Kiln & Kettle", "category": "Wheel throwing"}
    return [{**entry, "link": f"https://{platform}.example/{entry['login']}"} for entry in (*_CHANNELS, own)]

"""Writes the evenings that ship with the Playhouse: `python -m playhouse.compose FOLDER`. Same seed, same files."""

from __future__ import annotations

import json
import random
import sys
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

BEGIN = datetime(2026, 3, 7, 18, 0, tzinfo=UTC)
REGULARS: dict[str, tuple[str, list[str]]] = {
    "mossandloam": ("brook", ["subscriber"]), "copperred": ("brook", []), "quillwort": ("brook", []),
    "saltglaze_sam": ("brook", ["subscriber"]), "ashfall": ("brook", ["vip"]), "slip_and_score": ("brook", []),
    "thimblewick": ("lantern", []), "ferrous": ("lantern", ["subscriber"]), "bowl_cut": ("lantern", []),
    "wedgewise": ("lantern", []), "raku_rae": ("lantern", ["subscriber"]), "pinchpot_pete": ("lantern", []),
    "celadon_kid": ("brook", []), "grogwell": ("lantern", []), "bisque_it": ("brook", ["subscriber"]),
    "coil_and_toil": ("brook", []), "kaolin_kay": ("lantern", []), "stoneware_stan": ("brook", []),
}  # fmt: skip
MODERATORS = {
    "odalys": ("brook", ["moderator"]),
    "bram": ("brook", ["moderator"]),
    "wren": ("lantern", ["moderator"]),
}
AT_PLAZA = ["glazed_and_confused", "kick_wheel_kit", "trimmings", "slipdip", "noodle_bowl", "terra_sig"]
LANTERNS = {"Wheel throwing": "Throwing", "Glaze lab": "Glazing", "Kiln opening": "Firing", "Tea & talk": "Talk"}
"""How Lantern names what the others name otherwise."""
HAPPENINGS: list[tuple[float, str, str, str, float | None]] = [
    (66, "plaza", "follow", "trimmings", None), (84, "brook", "tip", "stoneware_stan", 5),
    (130, "lantern", "subscribe", "raku_rae", 4), (410, "brook", "gift", "mossandloam", 3),
    (900, "plaza", "subscribe", "terra_sig", 1), (1500, "brook", "raid", "wickerworks", 24),
    (2400, "lantern", "tip", "ferrous", 2.5), (3600, "plaza", "tip", "noodle_bowl", 12), (5000, "brook", "follow", "guest_4100", None),
]  # fmt: skip
"""Seconds in, platform, what, who and how much, on the calm evening."""
BROADCASTER = ("marlo_finch", "brook", ["broadcaster"])
TALK = """
that rim is so even, how many pulls was it?
the sound of the wheel is putting my cat to sleep
hello from the night shift, kettle is on
is there a name for the wavy tool
it's a rib, the wavy one is just the fun rib
I made the little salt pig from last week! it only cracked a bit
first time here, what are we making?
twelve bowls, we are on number {n}
how wet is too wet for trimming?
leather hard, think cheddar
oh that wobble at the end, saved it
my clay always dries out before I get to the handles
cover it with a damp towel overnight, works for me
what cone does this clay go to?
cone six I think, the tag is on the shelf
love the speckle in that one
is that the same clay as the teapots?
the foot ring is my favourite bit to watch
I could never get centring, how long did it take you?
two years and a lot of tea
tea check: mine is oolong
mint here, and a biscuit
the glaze from Sunday came out so blue
more cobalt less regret
does the kiln run overnight?
it fires down slowly, opening on {day}
can't wait for the kiln opening on {day}
my handles keep popping off, any advice?
score, slip, and wrap it for a day
is the big bowl for noodles or for soup
yes
that is the nicest pour lip so far
quiet in here tonight, I like it
how heavy is one of those lumps?
about {n}00 grams, he weighed them before
the sponge on a stick is genius
where did you get that apron?
a friend sewed it, the pockets are enormous
my first mug leaked, still love it
did the tenmoku break over the edge?
a bit, it needs to go thicker next time
I am sketching along while you throw
the batt is slipping, watch it
phew
nice save
lol the cat walked in
what a lovely evening for this
that one is leaning like a tower
keep it, it has character
do you reclaim all the trimmings?
every crumb goes in the bucket
how do you stop the slip from clogging the sink?
settling bucket under the tap, empty it monthly
¿alguien más está amasando esta noche?
je regarde depuis l'atelier, bonsoir tout le monde
guten Abend aus der Werkstatt
the light is so good at this angle
number {n} looks like the best one
what is drying on the top shelf?
lids for the jars, they shrink a lot
I need one of those wire cutters
mine is fishing line and two buttons
patience is the hardest glaze to mix
does anyone know how long bisque takes?
about nine hours here, then a day to cool
my kiln god is a tiny frog
everyone needs a kiln frog
back, what did I miss?
bowl {n} and a splash of water on the camera
good to see you all
that swirl in the bottom is hypnotic
are these for the shop or the classes?
the classes get the practice ones
I signed up for the beginners evening
you will love it, bring an old towel
""".strip().splitlines()
SHOUTS = [
    "LOOK AT IT GO OH NO OH NO IT IS LEANING AGAIN SOMEBODY HOLD IT",
    "WHO LET THE CAT INTO THE GLAZE ROOM AGAIN I AM CRYING LAUGHING",
]
LINKS = [
    "my glaze notes are on ferrous.example/notes",
    "I wrote it up here https://quillwort.example/kiln-frogs",
    "look at this rib set wavytools.test",
]
PITCHES = [
    "best viewers cheap at viewers-now dot test dm me",
    "grow your channel today https://viewers-now.test/go",
    "free followers hxxp://follow-farm.test",
    "cheap viewers at viewers-now(.)test now",
]
CHEERS = [
    "gg",
    "hello hello",
    "wooooo",
    "what a save",
    "LETS GO",
    "so round",
    "🎉🎉🎉",
    "❤️❤️",
    "tea!",
    "clap clap clap",
    "👏👏👏👏",
]
COPIED = "this channel is run by robots, leave now and tell everyone you know"
LOUD = [
    "THAT IS THE ROUNDEST BOWL I HAVE EVER SEEN IN MY LIFE",
    "OH NO the handle is going, THE HANDLE IS GOING",
    "IS IT Kiln opening day ALREADY I AM NOT READY FOR THIS",
    "I can NOT believe how EVEN that rim is, HOW DO YOU DO IT",
    "CAPS LOCK IS STUCK sorry everyone but WHAT A TEAPOT",
    "hold it Hold It HOLD IT HOLD IT HOLD IT PLEASE",
]
LONG = (
    "there are two schools of thought on this, one says wedge it a hundred times and the other says wedge it until you are bored, "
    "and my teacher said both are wrong because the clay tells you, which is the kind of thing she said about everything, "
    "but I still do a hundred because counting calms me down and the neighbours have stopped asking what the thumping is"
)
DAYS = ["Sunday", "Saturday", "Friday"]


def _person(login: str, badges: list[str]) -> dict[str, Any]:
    person = {"id": login, "login": login, "name": login.replace("_", " ").title() if "_" in login else login}
    return person | ({"badges": badges} if badges else {})


class Evening:
    """Collects lines in order of time."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.lines: list[tuple[float, dict[str, Any]]] = []

    def stream(self, at: float, platform: str, live: bool, **values: str) -> None:
        if platform == "lantern" and "category" in values:
            values["category"] = LANTERNS[values["category"]]
        self.lines.append((at, {"kind": "stream", "platform": platform, "live": live, **values}))

    def happen(self, at: float, platform: str, what: str, login: str, amount: float | None) -> None:
        told = {"kind": "happening", "platform": platform, "what": what, "person": _person(login, [])}
        self.lines.append((at, told | ({} if amount is None else {"amount": amount})))

    def at_plaza(self, until: float) -> None:
        """A third platform with a few people of its own; their chance is theirs alone."""
        chance = random.Random(23)
        at = 6.0
        while at < until:
            text = chance.choice(TALK).format(n=chance.randint(2, 12), day=chance.choice(DAYS))
            self.say(at, chance.choice(AT_PLAZA), text, ("plaza", []))
            at += chance.expovariate(1 / 14) + 1

    def say(self, at: float, login: str, text: str, where: tuple[str, list[str]] | None = None) -> None:
        platform, badges = where or REGULARS.get(login) or MODERATORS[login]
        self.lines.append(
            (at, {"kind": "message", "platform": platform, "person": _person(login, badges), "text": text})
        )

    def small_talk(self, until: float, gap: float) -> None:
        at, last = 2.0, ""
        while at < until:
            text = self.chance.choice([line for line in TALK if line != last])
            last = text
            text = text.format(n=self.chance.randint(2, 12), day=self.chance.choice(DAYS))
            self.say(at, self.chance.choice(list(REGULARS)), text)
            at += self.chance.expovariate(1 / gap) + 0.4

    def write(self) -> Iterator[str]:
        numbers: dict[str, int] = {}
        for at, line in sorted(self.lines, key=lambda pair: pair[0]):
            when = (
                (BEGIN + timedelta(seconds=round(at, 3))).isoformat(timespec="milliseconds").replace("+00:00", "Z")
            )
            if line["kind"] == "message":
                number = numbers[line["platform"]] = numbers.get(line["platform"], 0) + 1
                line = {"kind": "message", "id": f"{line['platform'][0]}{number}", **line}
            yield json.dumps({"kind": line.pop("kind"), "at": when, **line}, ensure_ascii=False)


def calm() -> Evening:
    """Two hours of throwing bowls: the gate has little to do."""
    evening = Evening(7)
    evening.stream(0, "brook", True, title="Twelve bowls before tea", category="Wheel throwing")
    evening.stream(0.5, "lantern", True, title="Twelve bowls before tea", category="Wheel throwing")
    evening.stream(0.7, "plaza", True, title="Twelve bowls before tea", category="Wheel throwing")
    evening.small_talk(7200, 3.2)
    evening.at_plaza(7200)
    for happening in HAPPENINGS:
        evening.happen(*happening)
    evening.say(20, "copperred", "!kiln")
    evening.say(33, "bowl_cut", SHOUTS[0])
    evening.say(41, "bram", "!lost")
    evening.say(52, "ferrous", LINKS[0])
    evening.say(60, "kilnfan_8841", PITCHES[0], ("brook", []))
    evening.say(64, "wren", "!count mugs +1")
    for start in range(90, 7100, 150):
        jitter = evening.chance.uniform(0, 60)
        evening.say(start + jitter, evening.chance.choice(list(REGULARS)), "!kiln")
        evening.say(start + jitter + 2, evening.chance.choice(list(REGULARS)), "!kiln")
    for start in range(240, 7100, 400):
        evening.say(
            start,
            evening.chance.choice(list(MODERATORS)),
            evening.chance.choice(["!lost", "!count mugs +1", "!count boils +1"]),
        )
        evening.say(start + 90, evening.chance.choice(list(REGULARS)), evening.chance.choice([*SHOUTS, *LINKS]))
    for start in range(600, 7000, 1500):
        evening.say(start, f"guest_{start}", evening.chance.choice(PITCHES), ("brook", []))
    evening.stream(7210, "brook", False)
    evening.stream(7210.5, "lantern", False)
    evening.stream(7210.7, "plaza", False)
    return evening


def link_spam() -> Evening:
    """Forty minutes with a wave of pitches in the middle."""
    evening = Evening(11)
    evening.stream(0, "brook", True, title="Glaze lab: more cobalt, less regret", category="Glaze lab")
    evening.stream(0.5, "lantern", True, title="Glaze lab: more cobalt, less regret", category="Glaze lab")
    evening.small_talk(2400, 4)
    at = 300.0
    for number in range(240):
        platform = evening.chance.choice(["brook", "brook", "lantern"])
        evening.say(at, f"viewer_{1000 + number // 2}", evening.chance.choice(PITCHES), (platform, []))
        at += evening.chance.uniform(0.3, 2.5)
    evening.stream(2410, "brook", False)
    evening.stream(2410.5, "lantern", False)
    return evening


def lively(evening: Evening, until: float) -> None:
    """Joy of all kinds: cheers, capitals, emoji in rows, long lines, the same word over and over."""
    chance = evening.chance
    at = 8.0
    while at < until:
        kind = chance.random()
        if kind < 0.4:
            text = chance.choice(CHEERS)
        elif kind < 0.55:
            text = chance.choice(LOUD)
        elif kind < 0.68:
            text = chance.choice("😂🔥👏🎉💚☕") * min(40, int(chance.expovariate(1 / 7)) + 1)
        elif kind < 0.78:
            text = chance.choice(["wo", "no", "ye", "ha"]) + chance.choice("osw") * min(
                60, int(chance.expovariate(1 / 9)) + 2
            )
        elif kind < 0.86:
            text = " ".join([chance.choice(["spin", "tea", "left", "so"])] * chance.randint(2, 9))
        elif kind < 0.92:
            text = LONG[: chance.randint(90, len(LONG))]
        else:
            text = " ".join("@" + who for who in chance.sample(list(REGULARS), chance.randint(1, 7)))
        evening.say(at, chance.choice(list(REGULARS)), text)
        at += chance.expovariate(1 / 9) + 0.5


def copycats() -> Evening:
    """Fifty minutes with joy of all kinds, and a flood of copied lines in the middle."""
    evening = Evening(13)
    evening.stream(0, "brook", True, title="Kiln opening: what survived?", category="Kiln opening")
    evening.stream(0.5, "lantern", True, title="Kiln opening: what survived?", category="Kiln opening")
    evening.small_talk(3000, 3)
    lively(evening, 3000)
    at = 600.0
    for number in range(160):
        sign = evening.chance.choice(["", "!", "!!", " now", " ok"])
        platform = evening.chance.choice(["brook", "brook", "lantern"])
        evening.say(at, f"bowlfan_{number % 60}", COPIED + sign, (platform, []))
        at += evening.chance.uniform(0.1, 0.6)
    for start in range(200, 2900, 300):
        evening.say(start, f"guest_{start}", evening.chance.choice([*PITCHES, *LINKS]), ("brook", []))
    evening.stream(3010, "brook", False)
    evening.stream(3010.5, "lantern", False)
    return evening


def raid() -> Evening:
    """Half an hour into which three hundred newcomers come within half a minute, most of them friendly."""
    evening = Evening(17)
    evening.stream(0, "brook", True, title="Tea & talk", category="Tea & talk")
    evening.stream(0.5, "lantern", True, title="Tea & talk", category="Tea & talk")
    evening.small_talk(1800, 3.5)
    at = 240.0
    for number in range(300):
        text = evening.chance.choice(
            ["hello from the kick wheel crew", "raid!", "hi all", "what are we making?", "nice studio"]
        )
        if number % 25 == 24:
            text = evening.chance.choice(PITCHES)
        evening.say(at, f"wheeler_{number}", f"{text} {evening.chance.choice(CHEERS)}", ("brook", []))
        at += evening.chance.uniform(0.02, 0.18)
    evening.stream(1810, "brook", False)
    evening.stream(1810.5, "lantern", False)
    return evening


def main() -> None:
    folder = Path(sys.argv[1])
    for name, evening in (
        ("calm", calm()),
        ("link-spam", link_spam()),
        ("copycats", copycats()),
        ("raid", raid()),
    ):
        (folder / f"{name}.jsonl").write_text("\n".join(evening.write()) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()

"""Takes the pictures of `docs/screenshots` from the running demo: `python scripts/screenshots.py [NAME …]`."""

from __future__ import annotations

import json
import os
import sys
import time
from collections.abc import Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

import httpx
from tests.support.browser import DESK, PHONE, Browser

from gentlegate.demo.prepare import PASSWORD

FOLDER = Path(os.environ.get("SCREENSHOTS", Path(__file__).resolve().parents[1] / "docs" / "screenshots"))
ADDRESS = f"http://127.0.0.1:{os.environ.get('GENTLEGATE_PORT', '8770')}"
PLAYHOUSE = f"http://127.0.0.1:{os.environ.get('PLAYHOUSE_PORT', '8771')}"
SETTLE = 1.5


FRIENDS_KIT = {
    "gentlegate": 1,
    "commands": [
        {"name": "kiln", "reply": "The kiln is cold until Friday."},
        {"name": "temperature", "reply": "Ask the kiln."},
        {"name": "apron", "reply": "Sewn by a friend of the studio, in waxed canvas."},
        {
            "name": "cracked",
            "reply": "Cracked so far: {{ counter.cracked }}",
            "counts": [{"counter": "cracked", "by": 1}],
        },
    ],
    "counters": [{"name": "cracked", "label": "Cracked in the kiln"}],
    "rotas": [{"name": "Studio rules", "every": "25m", "notices": [{"command": "apron"}]}],
}


def shoot(browser: Browser, name: str) -> None:
    time.sleep(SETTLE)
    FOLDER.mkdir(parents=True, exist_ok=True)
    browser.driver.save_screenshot(str(FOLDER / f"{name}.png"))


def open_verdict(browser: Browser) -> None:
    browser.find("#gate-only").click()
    browser.wait(lambda: browser.all(".line mark"))
    lines = [e for e in browser.all(".line") if e.find_elements("css selector", "mark")]
    lines[-1].find_element("css selector", ".name").click()


def playhouse_page(browser: Browser) -> None:
    browser.driver.get(PLAYHOUSE)
    browser.wait(lambda: len(browser.all("li")) > 10)
    shoot(browser, "playhouse")


def desk(browser: Browser, name: str) -> None:
    browser.driver.get(ADDRESS)
    browser.wait(lambda: len(browser.all(".line")) > 10)
    shoot(browser, name)


def why(browser: Browser, name: str) -> None:
    browser.driver.get(ADDRESS)
    browser.wait(lambda: len(browser.all(".line")) > 10)
    open_verdict(browser)
    shoot(browser, name)


def room(browser: Browser, path: str, name: str, wait_for: str) -> None:
    browser.driver.get(ADDRESS + path)
    browser.find(wait_for)
    shoot(browser, name)


def people(browser: Browser) -> None:
    """Somebody with a strike, noted about; the note is taken away again."""
    browser.driver.get(f"{ADDRESS}/people/card/lantern:u-ferrous")
    browser.find(".person .note-form input").send_keys("Posts links to his own shop; ask first.\n")
    browser.find(".person .notes blockquote")
    shoot(browser, "people")
    browser.button("take away", ".person .notes").click()


def drawbridge(browser: Browser) -> None:
    """A flood, the bridge up, and a change for tonight; everything is put back after."""
    with httpx.Client(base_url=PLAYHOUSE) as playhouse:
        for number in range(12):
            body = {
                "platform": "brook",
                "login": f"bowlfan_{number}",
                "text": "this channel is run by robots, leave now",
            }
            playhouse.post("/type", json=body)
    browser.driver.get(f"{ADDRESS}/rules/emotes")
    browser.find("#tonight").click()
    browser.find("[data-filter=emotes] input[type=checkbox]").click()
    browser.find(".chip.plum")
    browser.driver.get(ADDRESS)
    browser.button("Raise the drawbridge").click()
    browser.find(".chip.clay")
    shoot(browser, "drawbridge")
    browser.button("Lower it").click()
    browser.button("Tonight: Emotes off").click()


def kits(browser: Browser) -> None:
    """A friend's kit, looked at and not taken in."""
    browser.driver.get(f"{ADDRESS}/setup/kits")
    browser.find("#kit-text").send_keys(json.dumps(FRIENDS_KIT))
    browser.button("See what it would change").click()
    browser.find(".kit-item")
    shoot(browser, "kits")


def try_out(browser: Browser) -> None:
    browser.driver.get(f"{ADDRESS}/commands/lost")
    browser.find(".folds")
    browser.button("Try-out").click()
    browser.find("#try-text").send_keys("!lost")
    browser.find(".try-found p")
    shoot(browser, "try-out")


def bench(browser: Browser) -> None:
    """What runs by itself, and a category with a slip in it, on the way to three platforms."""
    browser.driver.get(ADDRESS)
    browser.find(".presses")
    browser.button("Ad break", ".presses").click()
    browser.button("40 s", ".press-body").click()
    browser.find(".running progress")
    browser.button("Raid", ".presses").click()
    browser.find(".press-body input").send_keys("wickerworks\n")
    browser.find(".raid-armed")
    field = browser.find(".category-field input")
    field.click()
    field.send_keys("glase lab")
    browser.wait_text("Lantern: Glazing", ".becomes")
    shoot(browser, "bench")
    browser.button("Call it off").click()


def timers(browser: Browser) -> None:
    browser.driver.get(f"{ADDRESS}/timers/Good%20manners")
    browser.find(".chosen-rota .post")
    browser.all(".chosen-rota .post")[2].click()
    shoot(browser, "timers")


def records(browser: Browser) -> None:
    """A change made and looked at in the ledger, then taken back there."""
    browser.driver.get(f"{ADDRESS}/stage/shoutouts")
    field = browser.find("#shoutout-guard")
    field.clear()
    field.send_keys("7m")
    browser.button("Save").click()
    browser.wait_text("Saved.", ".notices")
    browser.driver.get(f"{ADDRESS}/records")
    browser.button("Take back", ".ledger")
    shoot(browser, "records")
    browser.button("Take back", ".ledger").click()


def platforms(browser: Browser) -> None:
    """Rights that are missing on one platform, with what to do; then given back."""
    with httpx.Client(base_url=PLAYHOUSE) as playhouse:
        playhouse.post("/trouble", json={"platform": "lantern", "rights": False})
        browser.driver.get(f"{ADDRESS}/setup/platforms")
        browser.find("#rights-lantern")
        shoot(browser, "platforms")
        playhouse.post("/trouble", json={"platform": "lantern", "rights": True})


Look = Callable[[Browser], None]


def in_room(path: str, name: str, wait_for: str) -> Look:
    return lambda browser: room(browser, path, name, wait_for)


DAY: dict[str, Look] = {
    "desk-day": lambda browser: desk(browser, "desk-day"),
    "why": lambda browser: why(browser, "why"),
    "rules": in_room("/rules/repeats", "rules", ".consequence li"),
    "links": in_room("/rules/links", "links", ".consequence li"),
    "people": people,
    "drawbridge": drawbridge,
    "commands": in_room("/commands/tea", "commands", ".bubble"),
    "timers": timers,
    "stage": in_room("/stage/counter/mugs", "stage", ".stage-card"),
    "records": records,
    "platforms": platforms,
    "team": in_room("/setup/team", "team", ".permissions li"),
    "kits": kits,
    "try-out": try_out,
    "bench": bench,
}
NIGHT: dict[str, Look] = {"desk-night": lambda browser: desk(browser, "desk-night")}
ON_A_PHONE: dict[str, Look] = {
    "desk-phone": lambda browser: desk(browser, "desk-phone"),
    "why-phone": lambda browser: why(browser, "why-phone"),
}
AT_THE_DOOR: dict[str, Look] = {"playhouse": playhouse_page}


def main() -> None:
    wanted = set(sys.argv[1:])
    for pictures, dark, size in (
        (AT_THE_DOOR, False, DESK),
        (DAY, False, DESK),
        (NIGHT, True, DESK),
        (ON_A_PHONE, False, PHONE),
    ):
        chosen = [look for name, look in pictures.items() if not wanted or name in wanted]
        if not chosen:
            continue
        browser = Browser(size, dark)
        try:
            if pictures is not AT_THE_DOOR:
                browser.log_in(ADDRESS, "odalys", PASSWORD)
            for look in chosen:
                look(browser)
        finally:
            browser.close()


if __name__ == "__main__":
    main()

"""Takes the pictures of `docs/screenshots` from the running demo: `python scripts/screenshots.py [NAME …]`."""

from __future__ import annotations

import json
import os
import sys
import time
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


def login_page(browser: Browser) -> None:
    browser.driver.get(ADDRESS)
    browser.find("#login")
    shoot(browser, "log-in")


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


def phrases(browser: Browser) -> None:
    browser.driver.get(f"{ADDRESS}/rules/phrases")
    browser.find(".try-fields input").send_keys("BUY f0ll0wers, you CR4CKP0T")
    browser.find(".tried li")
    shoot(browser, "phrases")


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


def main() -> None:
    wanted = set(sys.argv[1:])

    def want(name: str) -> bool:
        return not wanted or name in wanted

    for dark, size in ((False, DESK), (True, DESK), (False, PHONE)):
        browser = Browser(size, dark)
        try:
            if not dark and size == DESK and want("log-in"):
                login_page(browser)
            if not dark and size == DESK and want("playhouse"):
                playhouse_page(browser)
            browser.log_in(ADDRESS, "odalys", PASSWORD)
            if size == PHONE:
                if want("desk-phone"):
                    desk(browser, "desk-phone")
                if want("why-phone"):
                    why(browser, "why-phone")
            elif dark:
                if want("desk-night"):
                    desk(browser, "desk-night")
            else:
                if want("desk-day"):
                    desk(browser, "desk-day")
                if want("why"):
                    why(browser, "why")
                if want("rules"):
                    room(browser, "/rules/repeats", "rules", ".consequence li")
                if want("links"):
                    room(browser, "/rules/links", "links", ".consequence li")
                if want("phrases"):
                    phrases(browser)
                if want("drawbridge"):
                    drawbridge(browser)
                if want("commands"):
                    room(browser, "/commands/tea", "commands", ".bubble")
                if want("kits"):
                    kits(browser)
                if want("try-out"):
                    try_out(browser)
        finally:
            browser.close()


if __name__ == "__main__":
    main()

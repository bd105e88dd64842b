"""Running the stream over HTTP on all three platforms: what was asked for, what each took, what was said of it."""

from __future__ import annotations

import asyncio
import csv
import io
import json
import time
import unittest
from typing import Any, ClassVar

import httpx
from websockets.asyncio.client import connect
from websockets.exceptions import ConnectionClosed

from gentlegate.connectors.plaza.wire import is_signed
from playhouse.plaza import signature
from tests.support.world import World, eventually

PLATFORMS = ("brook", "lantern", "plaza")


def setUpModule() -> None:
    WithWorld.world = World().start(platforms=PLATFORMS)
    seen = "SELECT count(DISTINCT platform) FROM events WHERE kind = 'stream' AND body LIKE '%\"live\":true%'"
    eventually(lambda: WithWorld.world.rows(seen)[0][0] == len(PLATFORMS))


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    """A lead at the Desk."""

    world: ClassVar[World]

    def setUp(self) -> None:
        self.client = self.world.client("odalys")
        self.addCleanup(self.client.close)

    def post(self, path: str, **body: Any) -> dict[str, Any]:
        return dict(self.client.post(path, json=body).raise_for_status().json())

    def change(self, section: str, **values: Any) -> None:
        view = self.client.get(f"/api/sections/{section}").json()
        body = {"values": values, "revision": view["revision"]}
        self.client.put(f"/api/sections/{section}", json=body).raise_for_status()

    def platform(self, name: str) -> dict[str, Any]:
        return dict(self.world.playhouse.get("/state").json()["platforms"][name])

    def done(self, platform: str, what: str) -> list[dict[str, Any]]:
        return [one for one in self.platform(platform)["done"] if one["what"] == what]

    def ledger(self, what: str) -> list[tuple[Any, ...]]:
        return self.world.rows("SELECT who, about, before, after FROM ledger WHERE what = ? ORDER BY rowid", what)


class Category(WithWorld):
    def categories(self) -> list[str]:
        return [self.platform(name)["category"] for name in PLATFORMS]

    def test_a_typo_is_understood_and_named(self) -> None:
        self.world.type("!category Glase lab on brook", "odalys", "moderator")
        eventually(lambda: self.platform("brook")["category"] == "Glaze lab")
        eventually(lambda: any('now "Glaze lab" on Brook' in text for text in self.world.texts()))

    def test_what_some_do_not_have_is_said_and_the_others_are_set(self) -> None:
        done = self.post("/api/stream/category", category="Raku firing")
        eventually(lambda: self.categories()[::2] == ["Raku firing"] * 2)
        (said,) = done["says"]
        self.assertIn('Lantern has no category "Raku firing"; nearest: ', said)

    def test_pinned_to_each_platforms_own(self) -> None:
        pin = {
            "name": "At the wheel",
            "shortcuts": ["wheel"],
            "platforms": {"brook": "Wheel throwing", "lantern": "Throwing"},
        }
        self.change("channel", categories=[pin])
        self.assertEqual(self.post("/api/stream/category", category="WHEEL")["says"], [])
        eventually(lambda: self.categories() == ["Wheel throwing", "Throwing", "At the wheel"])

    def test_type_ahead(self) -> None:
        found = self.client.get("/api/stream/categories", params={"name": "firing"}).json()["platforms"]
        by_name = {one["platform"]: one for one in found}
        self.assertIn("Wood firing", by_name["brook"]["nearest"])
        self.assertEqual(by_name["lantern"]["exact"], "Firing")
        self.assertTrue(by_name["plaza"]["any"])

    def test_a_change_on_the_platform_shows(self) -> None:
        self.world.go("lantern", True, category="Paper")
        kept = "SELECT 1 FROM state WHERE name = 'platforms' AND key = 'lantern' AND body LIKE '%Paper%'"
        eventually(lambda: self.world.rows(kept))


class TitleLimits(WithWorld):
    def test_too_long_for_one_is_set_on_the_others(self) -> None:
        title = "t" * 90
        self.client.post("/api/desk/title", json={"title": title}).raise_for_status()
        eventually(lambda: self.platform("brook")["title"] == title and self.platform("lantern")["title"] == title)
        self.assertNotEqual(self.platform("plaza")["title"], title)
        self.world.type(f"!title {title}", "odalys", "moderator", platform="plaza")
        eventually(lambda: any("80" in text and "90" in text for text in self.world.texts("plaza")))


class MarksClipsAds(WithWorld):
    def test_a_marker_and_its_tables(self) -> None:
        self.post("/api/stream/marker", note="=first, bowl")
        eventually(lambda: self.done("brook", "marker") and self.done("lantern", "marker"))
        self.assertEqual(self.done("plaza", "marker"), [])
        rows = list(csv.DictReader(io.StringIO(self.client.get("/api/stream/markers.csv").text)))
        self.assertEqual((rows[-1]["note"], rows[-1]["by"]), ("'=first, bowl", "Odalys"))
        chapters = self.client.get("/api/stream/chapters.txt").text.splitlines()
        self.assertRegex(chapters[0], r"^0:00:0\d ")
        self.assertRegex(chapters[-1], r"^\d:\d\d:\d\d =first, bowl$")

    def test_a_clip_comes_with_its_link(self) -> None:
        self.assertRegex(self.post("/api/stream/clip")["link"], r"^https://brook\.example/clips/")
        self.world.type("!clip", "odalys", "moderator", platform="plaza")
        eventually(lambda: any("https://plaza.example/clips/" in text for text in self.world.texts("plaza")))

    def test_ads_by_the_platforms_lengths(self) -> None:
        refused = self.client.post("/api/stream/ad", json={"platform": "lantern", "seconds": 40})
        self.assertEqual((refused.status_code, refused.json()["detail"]), (422, "Lantern has no ad breaks"))
        wrong = self.client.post("/api/stream/ad", json={"platform": "plaza", "seconds": 30})
        self.assertIn("40", wrong.json()["detail"])
        self.post("/api/stream/ad", platform="plaza", seconds=40)
        eventually(lambda: self.done("plaza", "ad"))


class Raids(WithWorld):
    def test_to_oneself_to_nobody_and_from_where_there_are_none(self) -> None:
        self.assertEqual(
            self.post("/api/stream/raid", name="kilnandkettle")["says"], ["That is this channel itself."]
        )
        self.assertEqual(
            self.post("/api/stream/raid", name="nobody_at_all")["says"],
            ['Brook knows no channel named "nobody_at_all".'],
        )
        refused = self.client.post("/api/stream/raid", json={"name": "wickerworks", "platform": "lantern"})
        self.assertEqual(refused.json()["detail"], "Lantern has no raids")

    def test_armed_and_called_off_by_a_moderator(self) -> None:
        self.assertEqual(self.post("/api/stream/raid", name="@WickerWorks")["says"], [])
        with self.world.client("bram") as bram:
            self.assertEqual(bram.delete("/api/stream/raid").status_code, 200)
            self.assertEqual(bram.delete("/api/stream/raid").status_code, 422)
        self.assertEqual(self.done("brook", "raid"), [])
        armed, off = eventually(lambda: self.ledger("raid_armed"))[-2:]
        self.assertEqual(armed, ("brook:u-odalys", "brook", "null", '"Wicker Works"'))
        self.assertEqual(off, ("brook:u-bram", "brook", '"Wicker Works"', "null"))


class Shoutouts(WithWorld):
    def test_known_unknown_and_twice(self) -> None:
        self.assertEqual(self.post("/api/stream/shoutout", name="wickerworks")["says"], [])
        eventually(lambda: any("Wicker Works: https://brook.example/wickerworks" in t for t in self.world.texts()))
        eventually(lambda: self.done("brook", "shoutout"))
        again = self.client.post("/api/stream/shoutout", json={"name": "WickerWorks"})
        self.assertIn("Odalys gave Wicker Works a shoutout", again.json()["detail"])
        unknown = self.post("/api/stream/shoutout", name="nobody_at_all")["says"]
        self.assertEqual(unknown, ['Brook knows no channel named "nobody_at_all".'])
        self.post("/api/stream/shoutout", name="quietpots", platform="plaza")
        said = "Say hello to Quiet Pots: https://plaza.example/quietpots"
        eventually(lambda: said in self.world.texts("plaza"))

    def test_a_platform_in_trouble_is_said(self) -> None:
        self.world.trouble("plaza", broken=True)
        try:
            (said,) = self.post("/api/stream/shoutout", name="rakurae", platform="plaza")["says"]
        finally:
            self.world.trouble("plaza", broken=False)
        self.assertIn("Plaza: ", said)
        eventually(lambda: self.world.health()["platforms"]["plaza"] == "joined")


class ArrivalsAndHappenings(WithWorld):
    def happen(self, what: str, login: str = "rakurae", platform: str = "plaza", **more: Any) -> None:
        body = {"platform": platform, "what": what, "login": login, **more}
        self.world.playhouse.post("/happening", json=body).raise_for_status()

    def test_templates_in_turn(self) -> None:
        self.change(
            "happenings",
            tip=["{{ person.name }} gave {{ amount }}", "Thank you {{ person.name }}"],
            raid=["{{ amount }} came"],
        )
        for amount in (5, 6, 7.5):
            self.happen("tip", amount=amount)
        self.happen("raid", amount=300, platform="lantern")
        eventually(lambda: "rakurae gave 7.5" in self.world.texts("plaza"))
        said = [text for text in self.world.texts("plaza") if "rakurae" in text.lower() and "example" not in text]
        self.assertEqual(said, ["rakurae gave 5", "Thank you rakurae", "rakurae gave 7.5"])
        eventually(lambda: "300 came" in self.world.texts("lantern"))

    def test_greeted_once_and_again_after_forgetting(self) -> None:
        self.change("arrivals", greet="Welcome {{ person.name }}", skip=["brook:@saltglaze_sam"])
        self.addCleanup(self.change, "arrivals", greet=None, skip=[])
        for login in ("slipdip", "saltglaze_sam", "slipdip"):
            self.world.type(f"hello from {login}", login)
        self.world.type("hello", "marlo_finch", "broadcaster")
        eventually(lambda: "Welcome slipdip" in self.world.texts())
        self.post("/api/stream/arrivals/forget", person="brook:u-slipdip")
        self.world.type("me again", "slipdip")
        eventually(lambda: self.world.texts().count("Welcome slipdip") == 2)
        self.assertEqual([text for text in self.world.texts() if "Welcome" in text], ["Welcome slipdip"] * 2)
        self.assertEqual(self.ledger("arrivals")[-1][:2], ("brook:u-odalys", "brook:u-slipdip"))


class Quotes(WithWorld):
    def test_kept_removed_put_back_and_over_csv(self) -> None:
        one = self.post("/api/quotes", text="A lid is a roof.", said_by="Wren")
        number = one["number"]
        found = self.client.get("/api/quotes", params={"search": "ROOF"}).json()
        self.assertEqual([quote["number"] for quote in found], [number])
        self.client.delete(f"/api/quotes/{number}").raise_for_status()
        self.assertEqual(self.client.get("/api/quotes", params={"search": "roof"}).json(), [])
        removed = self.client.get("/api/quotes", params={"removed": True}).json()
        self.assertIn(number, [quote["number"] for quote in removed])
        self.client.post(f"/api/quotes/{number}/restore").raise_for_status()
        table = self.client.get("/api/quotes/table.csv").text
        more = table + f"{number + 50},Mind the kiln.,Marlo Finch,,,\r\n"
        done = self.post("/api/quotes/table", text=more)
        self.assertEqual((done["changed"], done["left"]), (1, table.count("\n") - 1))
        self.assertEqual(self.client.get("/api/quotes").json()[0]["text"], "Mind the kiln.")
        wrong = self.client.post("/api/quotes/table", json={"text": "text,who\nx,y"})
        self.assertEqual((wrong.status_code, wrong.json()["where"]), (422, "line 1"))
        self.assertEqual(self.client.delete("/api/quotes/99999").status_code, 422)


class Counters(WithWorld):
    def test_to_infinity_is_refused_and_nothing_changes(self) -> None:
        self.post("/api/desk/count", name="mugs", step="=7")
        for step in ("=9007199254740992", "+" + "9" * 400, "=1e9", "+∞"):
            with self.subTest(step[:8]):
                answer = self.client.post("/api/desk/count", json={"name": "mugs", "step": step})
                self.assertEqual(answer.status_code, 422)
        done = self.post("/api/desk/count", name="mugs", step="undo")
        self.assertEqual(done["effects"][0]["before"], 7)

    def test_made_renamed_and_removed(self) -> None:
        made = self.client.put(
            "/api/counters/lids", json={"command": {"name": "lids", "start": 3}, "revision": None}
        )
        made.raise_for_status()
        self.post("/api/desk/count", name="lids", step="+2")
        body = {"command": {"name": "lids", "label": "Lids found", "start": 3}, "revision": made.json()["revision"]}
        saved = self.client.put("/api/counters/lids", json=body).json()
        renamed = {"command": {"name": "caps"}, "revision": saved["revision"]}
        self.assertEqual(self.client.put("/api/counters/lids", json=renamed).json()["where"], "name")
        stale = self.client.put("/api/counters/lids", json=body)
        self.assertEqual(stale.status_code, 409)
        self.assertEqual(self.post("/api/desk/count", name="lids", step="undo")["effects"][0]["after"], 3)
        steps = self.client.get("/api/counters/lids/steps").json()
        self.assertEqual([(s["by"], s["before"], s["after"]) for s in steps], [("Odalys", 5, 3), ("Odalys", 3, 5)])
        gone = self.client.delete("/api/counters/lids", params={"revision": saved["revision"]}).json()
        self.assertEqual(self.client.post("/api/desk/count", json={"name": "lids", "step": "+1"}).status_code, 422)
        self.post("/api/kits/take-back", number=gone["number"])
        self.assertIn("lids", [view["name"] for view in self.client.get("/api/counters").json()])


class StageCards(WithWorld):
    def card(self, name: str = "counter:mugs") -> dict[str, Any]:
        return next(one for one in self.client.get("/api/stage").json()["cards"] if one["card"] == name)

    def socket(self, card: dict[str, Any]) -> str:
        key = card["address"].partition("key=")[2]
        return f"ws://127.0.0.1:{self.world.port}/api/stage-card?key={key}"

    def test_it_follows_every_press(self) -> None:
        card = self.card()

        async def follow() -> None:
            async with connect(self.socket(card)) as socket:
                value = int(json.loads(await socket.recv())["value"])
                for step in range(5):
                    asked = asyncio.create_task(
                        asyncio.to_thread(self.client.post, "/api/desk/count", json={"name": "mugs", "step": "+1"})
                    )
                    async with asyncio.timeout(5):
                        told = json.loads(await socket.recv())
                    self.assertEqual(told["value"], str(value + step + 1))
                    await asked

        asyncio.run(follow())

    def save(self, body: dict[str, Any]) -> httpx.Response:
        return self.client.put("/api/stage/counter:mugs/style", json=body)

    def test_its_looks_are_kept_and_a_new_key_ends_the_old_one(self) -> None:
        style = {"size": 90, "colour": "#2C6E5B", "typeface": "title", "label": False}
        read = self.card()["revision"]
        self.save({"style": style, "revision": read}).raise_for_status()
        card = self.card()
        other = self.save({"style": style | {"size": 40}, "revision": read})
        self.assertEqual((other.status_code, other.json()["theirs"]["size"]), (409, 90))
        self.assertEqual(other.json()["revision"], card["revision"])

        async def told() -> Any:
            async with connect(self.socket(card)) as socket:
                return json.loads(await socket.recv())

        self.assertEqual(asyncio.run(told())["style"]["size"], 90)
        fresh = self.client.post("/api/stage/counter:mugs/key").json()
        kept = self.world.rows("SELECT what, after FROM ledger WHERE about = 'counter:mugs' ORDER BY seq")
        self.assertEqual([what for what, _ in kept], ["card", "card_key"])
        self.assertNotIn(fresh["address"].partition("key=")[2], str(kept))
        self.assertNotEqual(fresh["address"], card["address"])
        with self.assertRaises(ConnectionClosed) as closed:
            asyncio.run(told())
        self.assertEqual(closed.exception.rcvd.code if closed.exception.rcvd else None, 4401)
        for wrong in ({"size": 1}, {"colour": "red; background: url(x)"}, {"typeface": "other"}):
            self.assertEqual(self.save({"style": wrong, "revision": card["revision"]}).status_code, 422)
        self.assertEqual(self.client.post("/api/stage/counter:nothing/key").status_code, 422)

    def test_its_key_opens_nothing_else(self) -> None:
        key = self.card()["address"].partition("key=")[2]
        with self.world.client(None) as nobody:
            for path in ("/api/stage", "/api/counters", "/api/session"):
                headers = {"Cookie": f"gentlegate_session={key}"}
                self.assertEqual(nobody.get(path, params={"key": key}, headers=headers).status_code, 401)


class Hooks(WithWorld):
    """What is not Plaza's, comes late or twice: refused, said, and without any consequence."""

    def hook(self, body: bytes, secret: str = "x" * 32, when: str | None = None) -> httpx.Response:
        when = when or str(int(time.time()))
        headers = {"X-Plaza-Time": when, "X-Plaza-Signature": signature(secret, when, body)}
        return httpx.post(f"{self.world.address}/hooks/plaza", content=body, headers=headers, trust_env=False)

    def test_forged(self) -> None:
        post = {"kind": "post", "no": 1, "may_moderate": True, "post": {"id": "forged", "text": "buy now"}}
        answer = self.hook(json.dumps(post).encode())
        self.assertEqual((answer.status_code, answer.json()["type"].rpartition(":")[2]), (401, "hook-forged"))
        self.assertEqual(self.world.rows("SELECT 1 FROM events WHERE message = 'forged'"), [])

    def test_without_anything(self) -> None:
        self.assertEqual(httpx.post(f"{self.world.address}/hooks/plaza").status_code, 401)
        self.assertEqual(httpx.post(f"{self.world.address}/hooks/brook", content=b"{}").status_code, 404)
        self.assertEqual(self.hook(b"x" * 300_000).status_code, 413)

    def test_what_was_missed_is_fetched_once(self) -> None:
        self.world.type("before it broke", platform="plaza")
        self.world.trouble("plaza", broken=True)
        line = self.world.type("said meanwhile", platform="plaza")
        self.world.trouble("plaza", broken=False)
        eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", line))
        self.world.type("after", platform="plaza")
        eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE body LIKE '%\"after\"%'"))
        self.assertEqual(self.world.rows("SELECT count(*) FROM events WHERE message = ?", line), [(1,)])


class Signature(unittest.TestCase):
    def test_every_part_counts(self) -> None:
        good = signature("secret", "100", b"{}")
        self.assertTrue(is_signed("secret", "100", b"{}", good))
        for secret, when, body in (("Secret", "100", b"{}"), ("secret", "101", b"{}"), ("secret", "100", b"{ }")):
            self.assertFalse(is_signed(secret, when, body, good))
        self.assertFalse(is_signed("secret", "100", b"{}", "v1="))

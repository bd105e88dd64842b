"""The ledger over HTTP: found by person, kind and words; single changes taken back, and taken back again."""

from __future__ import annotations

import asyncio
import unittest
from typing import Any, ClassVar

import httpx
from websockets.asyncio.client import connect

from gentlegate.demo.prepare import PASSWORD
from tests.support.world import World, eventually


def setUpModule() -> None:
    WithWorld.world = World().start()


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    world: ClassVar[World]

    def setUp(self) -> None:
        self.odalys, self.bram = self.world.client("odalys"), self.world.client("bram")
        for client in (self.odalys, self.bram):
            self.addCleanup(client.close)

    def entries(self, **asked: Any) -> list[dict[str, Any]]:
        return list(self.odalys.get("/api/ledger", params=asked).raise_for_status().json()["entries"])

    def undo(self, number: int) -> int:
        return self.odalys.post(f"/api/ledger/{number}/undo").status_code

    def save(self, name: str, **fields: Any) -> None:
        commands = {view["name"]: view for view in self.odalys.get("/api/commands").json()["commands"]}
        revision = commands[name]["revision"] if name in commands else None
        body = {"command": {"name": name, **fields}, "revision": revision}
        self.odalys.put(f"/api/commands/{name}", json=body).raise_for_status()

    def reply(self, name: str) -> str | None:
        commands = {view["name"]: view["command"] for view in self.odalys.get("/api/commands").json()["commands"]}
        return commands[name]["reply"] if name in commands else None


class Finding(WithWorld):
    def test_by_person_kind_and_words(self) -> None:
        self.save("apron", reply="Sewn by a friend.")
        self.bram.post("/api/desk/count", json={"name": "mugs", "step": "+1"}).raise_for_status()
        self.world.type("!count lost +2", "wren", "moderator", platform="lantern")
        eventually(lambda: self.entries(what="count", who="lantern:u-wren"))
        (newest, *_) = self.entries(text="APRON")
        self.assertEqual((newest["who"], newest["place"], newest["about"]), ("Odalys", "desk", "commands.apron"))
        self.assertEqual((newest["before"], newest["after"]["reply"]), (None, "Sewn by a friend."))
        counted = self.entries(what="count", who="brook:u-bram")[0]
        self.assertEqual(
            (counted["who"], counted["before"] + 1, counted["undoable"]), ("Bram", counted["after"], True)
        )
        self.assertEqual(self.entries(what="count", who="lantern:u-wren")[0]["place"], "chat")
        filters = self.odalys.get("/api/ledger/filters").json()
        self.assertIn("count", [kind["what"] for kind in filters["kinds"]])
        self.assertIn({"key": "brook:u-bram", "name": "Bram"}, filters["people"])
        self.assertEqual(self.entries(text="no such words anywhere"), [])

    def test_page_by_page_without_a_gap(self) -> None:
        for step in range(130):
            sign = "+1" if step % 2 else "=0"
            self.bram.post("/api/desk/count", json={"name": "boils", "step": sign})
        seen: list[int] = []
        before: int | None = None
        while True:
            asked = {"what": "count"} | ({} if before is None else {"before": before})
            page = self.odalys.get("/api/ledger", params=asked).json()
            seen += [entry["number"] for entry in page["entries"]]
            before = page["more"]
            if before is None:
                break
        total = self.world.rows("SELECT count(*) FROM ledger WHERE what = 'count'")[0][0]
        self.assertEqual((len(seen), seen), (total, sorted(set(seen), reverse=True)))


class Undoing(WithWorld):
    def test_the_undo_of_an_undo_is_the_change(self) -> None:
        self.save("lid", reply="one")
        self.save("lid", reply="two")
        first = self.entries(text="commands.lid")[0]
        self.assertEqual(self.undo(first["number"]), 204)
        self.assertEqual(self.reply("lid"), "one")
        self.assertEqual(self.undo(first["number"]), 409)
        second = self.entries(text="commands.lid")[0]
        self.assertEqual((second["before"], second["after"]), (first["after"], first["before"]))
        self.assertEqual(self.undo(second["number"]), 204)
        self.assertEqual(self.reply("lid"), "two")

    def test_what_was_made_goes_and_what_went_comes_back(self) -> None:
        self.save("tong", reply="hot")
        made = self.entries(text="commands.tong")[0]
        self.assertEqual(self.undo(made["number"]), 204)
        self.assertIsNone(self.reply("tong"))
        self.assertEqual(self.undo(self.entries(text="commands.tong")[0]["number"]), 204)
        self.assertEqual(self.reply("tong"), "hot")

    def test_what_was_changed_since_stays(self) -> None:
        self.save("rib", reply="one")
        self.save("rib", reply="two")
        old = self.entries(text="commands.rib")[0]
        self.save("rib", reply="three")
        self.assertFalse(
            next(e for e in self.entries(text="commands.rib") if e["number"] == old["number"])["undoable"]
        )
        self.assertEqual(self.undo(old["number"]), 409)
        self.assertEqual(self.reply("rib"), "three")

    def test_a_quote_and_a_filter(self) -> None:
        number = self.odalys.post("/api/quotes", json={"text": "Slip happens."}).json()["number"]
        self.odalys.delete(f"/api/quotes/{number}").raise_for_status()
        self.assertEqual(self.undo(self.entries(text=f"quotes.{number}")[0]["number"]), 204)
        self.assertIn(number, [quote["number"] for quote in self.odalys.get("/api/quotes").json()])
        self.odalys.put("/api/rules/filters/capitals", json={"values": {"share": 0.9}}).raise_for_status()
        self.assertEqual(self.undo(self.entries(text="filters.capitals")[0]["number"]), 204)
        self.assertEqual(self.odalys.get("/api/rules").json()["filters"][0]["values"]["share"], 0.8)

    def test_who_may_not_change_it_may_not_take_it_back(self) -> None:
        self.save("wire", reply="one")
        number = self.entries(text="commands.wire")[0]["number"]
        self.assertEqual(self.bram.post(f"/api/ledger/{number}/undo").status_code, 403)
        seen = self.bram.get("/api/ledger", params={"text": "commands.wire"}).json()["entries"]
        self.assertEqual([entry["undoable"] for entry in seen], [False])
        with self.world.client("marlo") as marlo:
            body = {"person": "brook:@helper"}
            marlo.post("/api/platforms/brook/gatekeeper", json=body).raise_for_status()
        gatekeeper = self.entries(text="channel.gatekeeper")[0]["number"]
        self.assertEqual(self.undo(gatekeeper), 403)

    def test_who_may_change_filters_takes_in_no_more_than_those(self) -> None:
        with self.world.client("marlo") as marlo:
            marlo.put("/api/team/permissions/filters", json={"level": "moderator"}).raise_for_status()
            self.addCleanup(lambda: self.move("filters", "lead"))
        kit = '{"gentlegate": 1, "commands": [{"name": "loop", "reply": "x"}], "ladder": {"memory": "2h"}}'
        body = {"text": kit, "name": "friends.json"}
        takes = {
            place: self.bram.post("/api/kits/take", json=body | {"picks": [{"place": place}]})
            for place in ("commands.loop", "ladder")
        }
        self.assertEqual([answer.status_code for answer in takes.values()], [403, 200])
        number = takes["ladder"].json()["number"]
        self.assertEqual(self.bram.post("/api/kits/take-back", json={"number": number}).status_code, 200)
        whole = self.odalys.post("/api/kits/take", json=body | {"picks": [{"place": "commands.loop"}]}).json()
        self.assertEqual(self.bram.post("/api/kits/take-back", json={"number": whole["number"]}).status_code, 403)

    def test_who_may_change_commands_alone_takes_those_in(self) -> None:
        text = '{"gentlegate": 1, "commands": [{"name": "slip", "reply": "x"}], "ladder": {"memory": "2h"}}'
        self.assertEqual(self.bram.post("/api/kits/preview", json={"text": text}).status_code, 403)
        self.move("commands", "moderator")
        self.addCleanup(lambda: self.move("commands", "lead"))
        self.assertEqual(self.bram.post("/api/kits/preview", json={"text": text}).status_code, 200)
        for place, status in (("commands.slip", 200), ("ladder", 403)):
            body = {"text": text, "name": "slip.json", "picks": [{"place": place}]}
            self.assertEqual(self.bram.post("/api/kits/take", json=body).status_code, status)

    def move(self, act: str, level: str) -> None:
        with self.world.client("marlo") as marlo:
            marlo.put(f"/api/team/permissions/{act}", json={"level": level}).raise_for_status()

    def test_why_where_a_change_is_part_of_more(self) -> None:
        self.save("spoon", reply="wooden")
        made = self.entries(text="commands.spoon")[0]
        self.assertIsNone(made["why"])
        self.undo(made["number"])
        self.assertEqual(self.entries(text="commands.spoon")[0]["why"], f"entry {made['number']} taken back")
        kit = '{"gentlegate": 1, "commands": [{"name": "ladle", "reply": "deep"}]}'
        body = {"text": kit, "name": "friends.json", "picks": [{"place": "commands.ladle"}]}
        taken = self.odalys.post("/api/kits/take", json=body).raise_for_status().json()
        self.odalys.post("/api/kits/take-back", json={"number": taken["number"]}).raise_for_status()
        whys = [one["why"] for one in self.entries(text="commands.ladle")]
        self.assertEqual(whys, ["taken back: friends.json", "friends.json"])

    def test_title_and_category_with_what_stood_before(self) -> None:
        for title in ("Nine bowls", "Ten bowls"):
            self.bram.post("/api/desk/title", json={"title": title, "platforms": ["brook"]}).raise_for_status()
        for name in ("Glaze lab", "Kiln opening"):
            body = {"category": name, "platforms": ["brook"]}
            self.bram.post("/api/stream/category", json=body).raise_for_status()
        for what, before, after in (
            ("title", "Nine bowls", "Ten bowls"),
            ("category", "Glaze lab", "Kiln opening"),
        ):
            newest = self.entries(what=what)[0]
            self.assertEqual((newest["before"], newest["after"]), (before, after))

    def test_what_still_stands_is_taken_back_whatever_kind_it_is(self) -> None:
        """Each of these is done, shown as one that can be taken back, taken back, and then is not any more."""
        self.world.type("a pot to hold on to", "holder")
        line = eventually(
            lambda: [one["id"] for one in self.world.lines() if one["text"] == "a pot to hold on to"]
        )[0]
        eventually(lambda: self.bram.get("/api/people/card/brook:u-holder").is_success)
        self.bram.post("/api/desk/title", json={"title": "One bowl", "platforms": ["brook"]}).raise_for_status()
        body = {"category": "Glaze lab", "platforms": ["brook"]}
        self.bram.post("/api/stream/category", json=body).raise_for_status()
        person = {"person": "brook:u-holder"}
        for method, path, body, what in (
            ("PUT", "/api/rules/mood", {"mood": "library", "tonight": True}, "tonight"),
            ("POST", "/api/desk/count", {"name": "boils", "step": "=41"}, "count"),
            ("POST", "/api/desk/title", {"title": "Two bowls", "platforms": ["brook"]}, "title"),
            ("POST", "/api/stream/category", {"category": "Kiln opening", "platforms": ["brook"]}, "category"),
            ("POST", "/api/desk/pass", {**person, "length": "5m"}, "pass"),
            ("POST", "/api/desk/people/timeout", {**person, "seconds": 600}, "timeout"),
            ("POST", "/api/desk/people/ban", person, "ban"),
            ("POST", "/api/desk/remove", {"platform": "brook", "message": line}, "remove"),
        ):
            with self.subTest(what):
                self.bram.request(method, path, json=body).raise_for_status()
                made = next(one for one in self.entries(what=what) if one["who"] == "Bram")
                self.assertTrue(made["undoable"], made)
                self.assertEqual(self.undo(made["number"]), 204)
                whys = [one["why"] for one in self.entries()[:4]]
                self.assertIn(f"entry {made['number']} taken back", whys)
                again = next(one for one in self.entries(what=what) if one["number"] == made["number"])
                self.assertFalse(again["undoable"])
                self.assertEqual(self.undo(made["number"]), 409)
        removed = self.entries(what="remove")[0]
        self.assertEqual((removed["person"], removed["whom"]), ("brook:u-holder", "holder"))
        self.assertEqual(self.odalys.get("/api/rules").json()["mood"], "parlour")

    def test_a_title_taken_back_and_back_again(self) -> None:
        for title in ("First", "Second"):
            self.bram.post("/api/desk/title", json={"title": title, "platforms": ["brook"]}).raise_for_status()
        for stands in ("First", "Second", "First"):
            self.assertEqual(self.undo(self.entries(what="title")[0]["number"]), 204)
            self.assertEqual(self.entries(what="title")[0]["after"], stands)

    def test_a_permission_is_the_broadcasters_to_take_back(self) -> None:
        self.move("clip", "lead")
        moved = self.entries(what="permission")[0]
        self.assertEqual((moved["undoable"], self.undo(moved["number"])), (False, 403))
        with self.world.client("marlo") as marlo:
            self.assertTrue(
                marlo.get("/api/ledger", params={"what": "permission"}).json()["entries"][0]["undoable"]
            )
            marlo.post(f"/api/ledger/{moved['number']}/undo").raise_for_status()
        self.assertIn("clip", self.bram.get("/api/session").json()["may"])

    def test_it_only_grows(self) -> None:
        before = len(self.entries())
        self.save("bat", reply="flat")
        self.undo(self.entries(text="commands.bat")[0]["number"])
        rows = self.world.rows("SELECT count(*) FROM ledger WHERE about = 'commands.bat'")
        self.assertEqual(rows[0][0], 2)
        self.assertGreaterEqual(len(self.entries()), min(before, 60))


class Days(WithWorld):
    def test_from_a_moment_up_to_another(self) -> None:
        self.save("early", reply="1")
        (early, *_) = self.entries(text="commands.early")
        self.save("later", reply="2")
        (later, *_) = self.entries(text="commands.later")
        about = [one["about"] for one in self.entries(since=early["at"], until=later["at"])]
        self.assertIn("commands.early", about)
        self.assertNotIn("commands.later", about)
        self.assertEqual(self.entries(since=later["at"] + 10**12), [])


class SectionsAtATime(WithWorld):
    def test_a_section_goes_back_after_a_look_and_in_one_press_again(self) -> None:
        self.save("kept", reply="as it was")
        then = self.world.rows("SELECT max(at) FROM settings")[0][0]
        self.save("kept", reply="as it is")
        self.save("fresh", reply="new")
        asked = {"section": "commands", "at": then}
        found = self.odalys.get("/api/ledger/section", params=asked).raise_for_status().json()
        self.assertEqual(
            {
                one["path"]: (one["now"] and one["now"]["reply"], one["then"] and one["then"]["reply"])
                for one in found["changes"]
            },
            {"commands.fresh": ("new", None), "commands.kept": ("as it is", "as it was")},
        )
        self.save("late", reply="came between")
        body = {**asked, "revision": found["revision"]}
        self.assertEqual(self.odalys.post("/api/ledger/section", json=body).status_code, 409)
        self.assertEqual(self.bram.post("/api/ledger/section", json=body).status_code, 403)
        found = self.odalys.get("/api/ledger/section", params=asked).json()
        done = self.odalys.post("/api/ledger/section", json={**body, "revision": found["revision"]})
        self.assertEqual(done.raise_for_status().json()["changed"], 3)
        self.assertEqual((self.reply("kept"), self.reply("fresh"), self.reply("late")), ("as it was", None, None))
        self.odalys.post("/api/kits/take-back", json={"number": done.json()["number"]}).raise_for_status()
        self.assertEqual((self.reply("kept"), self.reply("fresh")), ("as it is", "new"))

    def test_before_there_were_settings_and_what_is_the_broadcasters(self) -> None:
        answer = self.odalys.get("/api/ledger/section", params={"section": "commands", "at": 1})
        self.assertEqual((answer.status_code, answer.json()["where"]), (404, "at"))
        then = self.world.rows("SELECT max(at) FROM settings")[0][0]
        with self.world.client("marlo") as marlo:
            marlo.post("/api/people/lists/leads", json={"add": ["brook:u-thimblewick"]}).raise_for_status()
            asked = {"section": "people", "at": then}
            self.assertEqual(len(marlo.get("/api/ledger/section", params=asked).json()["changes"]), 1)
        found = self.odalys.get("/api/ledger/section", params=asked).json()
        self.assertEqual((found["changes"], found["kept"]), ([], 1))


class HandOver(WithWorld):
    def test_what_others_did_since_one_was_away(self) -> None:
        wren = self.world.client("wren")
        self.addCleanup(wren.close)
        self.world.type("click here: gone.test", "passerby")
        self.bram.post("/api/desk/count", json={"name": "lost", "step": "=5"}).raise_for_status()
        wren.post("/api/desk/count", json={"name": "mugs", "step": "=7"}).raise_for_status()
        self.bram.post("/api/people/notes", json={"person": None, "text": "Kiln opens at nine."}).raise_for_status()
        eventually(lambda: wren.get("/api/hand-over").json()["stopped"])
        missed = wren.get("/api/hand-over").raise_for_status().json()
        about = [(one["what"], one["who"]) for one in missed["entries"]]
        self.assertIn(("count", "Bram"), about)
        self.assertNotIn("Wren", [who for _, who in about])
        self.assertEqual([note["text"] for note in missed["notes"]], ["Kiln opens at nine."])
        self.assertEqual(missed["stopped"][0]["filter"], "links")
        self.assertFalse(missed["missed"])

    def test_who_was_away_is_told_until_they_have_seen_it(self) -> None:
        with self.world.client("wren") as wren:
            self.look_in(wren)
            self.assertFalse(wren.get("/api/hand-over").json()["missed"])
            self.bram.post("/api/desk/count", json={"name": "boils", "step": "=4"}).raise_for_status()
            hours = "UPDATE accounts SET here_at = here_at - 2 * 3600 * 1000000 WHERE login = 'wren'"
            self.world.change(hours)
            self.look_in(wren)
            missed = wren.get("/api/hand-over").json()
            self.assertTrue(missed["missed"])
            self.assertIn("boils", [one["about"] for one in missed["entries"]])
            self.look_in(wren)
            self.assertEqual(wren.get("/api/hand-over").json()["since"], missed["since"])
            wren.post("/api/hand-over/seen").raise_for_status()
            self.assertFalse(wren.get("/api/hand-over").json()["missed"])

    def look_in(self, client: httpx.Client) -> None:
        """A screen is opened and closed again."""
        address = self.world.address.replace("http", "ws", 1) + "/api/live"
        headers = {"Cookie": f"gentlegate_session={client.cookies['gentlegate_session']}"}

        async def look() -> None:
            async with connect(address, additional_headers=headers, proxy=None) as socket:
                await socket.recv()

        asyncio.run(asyncio.wait_for(look(), 10))


class Oneself(WithWorld):
    def test_another_password_ends_other_sessions_and_needs_the_old_one(self) -> None:
        here, there = self.world.client("wren"), self.world.client("wren")
        for client in (here, there):
            self.addCleanup(client.close)
        wrong = here.put("/api/password", json={"old": "not it", "new": "a longer secret"})
        self.assertEqual((wrong.status_code, wrong.json()["where"]), (422, "old"))
        here.put("/api/password", json={"old": PASSWORD, "new": "a longer secret"}).raise_for_status()
        self.assertEqual((here.get("/api/session").status_code, there.get("/api/session").status_code), (200, 401))
        here.put("/api/password", json={"old": "a longer secret", "new": PASSWORD}).raise_for_status()
        with self.world.client("wren") as again:
            self.assertTrue(again.get("/api/session").is_success)
        self.assertNotIn("longer secret", str(self.entries(what="password")))

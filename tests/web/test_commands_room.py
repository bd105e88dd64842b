"""Commands, cues, built-ins, kits and the try-out over HTTP."""

from __future__ import annotations

import json
import unittest
from pathlib import Path
from typing import Any, ClassVar

import httpx

from tests.support.world import World, eventually

ROOT = Path(__file__).resolve().parents[2]


def setUpModule() -> None:
    WithClient.world = World().start()


def tearDownModule() -> None:
    WithClient.world.stop()


class WithClient(unittest.TestCase):
    """A lead at the Desk."""

    world: ClassVar[World]

    def setUp(self) -> None:
        self.client = self.world.client("odalys")
        self.addCleanup(self.client.close)

    def save(self, name: str, revision: str | None = None, **fields: Any) -> httpx.Response:
        return self.client.put(
            f"/api/commands/{name}", json={"command": {"name": name, **fields}, "revision": revision}
        )

    def commands(self) -> dict[str, Any]:
        return {view["name"]: view for view in self.client.get("/api/commands").json()["commands"]}

    def names(self) -> list[str]:
        return list(self.commands())


class CommandsRoom(WithClient):
    def test_made_changed_and_removed(self) -> None:
        made = self.save("frog", reply="ribbit").json()
        changed = self.save("frog", made["revision"], reply="croak")
        self.assertEqual(changed.json()["command"]["reply"], "croak")
        done = self.client.delete("/api/commands/frog", params={"revision": changed.json()["revision"]}).json()
        self.assertNotIn("frog", self.names())
        self.client.post("/api/kits/take-back", json={"number": done["number"]}).raise_for_status()
        self.assertIn("frog", self.names())
        versions = self.client.get("/api/commands/FROG/history").json()["versions"]
        replies = (
            [(v["before"] or {}).get("reply") for v in versions],
            [(v["after"] or {}).get("reply") for v in versions],
        )
        self.assertEqual(replies, ([None, "croak", "ribbit", None], ["croak", None, "croak", "ribbit"]))
        self.assertEqual({(v["by"], v["place"]) for v in versions}, {("Odalys", "desk")})

    def test_bad_ones_are_refused_with_place_and_remedy(self) -> None:
        before = self.client.get("/api/commands").json()
        for fields, where, words in (
            ({"reply": "{{ x"}, "reply", "Line 1, column"),
            ({"reply": "x", "aliases": ["kiln"]}, "aliases.0", "already"),
            ({"reply": "x", "cooldwn": "none"}, "cooldwn", "cooldown"),
            ({"reply": "x", "cooldown": {"everyone": "a while"}}, "cooldown.everyone", "not a duration"),
        ):
            with self.subTest(fields):
                answer = self.save("newt", **fields)
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(
                    answer.json()["where"].removesuffix(".0").endswith(where.removesuffix(".0")), answer.json()
                )
                self.assertIn(words, answer.json()["detail"])
        self.assertEqual(self.client.get("/api/commands").json(), before)

    def test_a_name_in_use(self) -> None:
        answer = self.save("KILN", reply="x")
        self.assertEqual((answer.status_code, answer.json()["where"]), (409, "name"))
        self.assertEqual(self.save("uptime", reply="x").status_code, 422)

    def test_saving_over_a_newer_change_is_never_silent(self) -> None:
        read = self.save("toad", reply="one").json()["revision"]
        self.save("toad", read, reply="two")
        answer = self.save("toad", read, reply="three")
        self.assertEqual((answer.status_code, answer.json()["theirs"]["reply"]), (409, "two"))

    def test_a_preview_shows_each_platform_and_problems(self) -> None:
        long = self.client.post("/api/commands/preview", json={"reply": "word " * 60}).json()
        self.assertEqual(
            {one["platform"]: len(one["parts"]) for one in long["shown"]}, {"brook": 1, "lantern": 2, "plaza": 1}
        )
        broken = self.client.post("/api/commands/preview", json={"reply": "a\n{{ x | nothing }}"}).json()
        self.assertEqual(broken["line"], 2)

    def test_names_that_cannot_be_told_apart_are_refused(self) -> None:
        for name, words in (
            ("kі" + "ln", "looks like !kiln"),
            ("two words", "one word"),
            ("!kiln", "without !"),
            ("uptime", "built in"),
        ):
            with self.subTest(name):
                answer = self.client.put("/api/commands/+", json={"command": {"name": name, "reply": "x"}})
                self.assertEqual((answer.status_code, answer.json()["where"]), (422, "name"))
                self.assertIn(words, answer.json()["detail"])
                body = {"reply": "", "name": name, "was": None}
                self.assertIn(words, self.client.post("/api/commands/preview", json=body).json()["clash"])
        body = {"reply": "", "name": "kiln", "was": "kiln", "aliases": ["title"]}
        self.assertIn("built in", self.client.post("/api/commands/preview", json=body).json()["clash"])

    def test_several_at_once_and_back(self) -> None:
        for name in ("one", "two"):
            self.save(name, reply="x").raise_for_status()
        for asked, key, value in (
            ({"folder": "Clay"}, "folder", "Clay"),
            ({"on": False}, "on", False),
            ({"cooldown": {"person": "1h"}}, "cooldown", {"person": "1h"}),
        ):
            with self.subTest(key):
                done = self.client.post("/api/commands/several", json={"names": ["one", "two"], **asked}).json()
                self.assertEqual(done["changed"], 2)
                self.assertEqual([self.commands()[name]["command"][key] for name in ("one", "two")], [value] * 2)
                self.client.post("/api/kits/take-back", json={"number": done["number"]}).raise_for_status()
                self.assertNotIn(key, self.commands()["one"]["command"])
        gone = self.client.post("/api/commands/several", json={"names": ["one", "two"], "remove": True}).json()
        self.assertNotIn("two", self.names())
        self.client.post("/api/kits/take-back", json={"number": gone["number"]}).raise_for_status()
        self.assertIn("two", self.names())
        for body in (
            {"names": ["one"]},
            {"names": ["one"], "on": True, "folder": "x"},
            {"names": ["no"], "on": True},
        ):
            self.assertEqual(self.client.post("/api/commands/several", json=body).status_code, 422)

    def test_rotas_follow_a_command(self) -> None:
        rota = self.client.get("/api/commands").json()["rotas"][0]
        body = {"command": {"name": "apron", "reply": "x"}, "revision": None, "rotas": [rota]}
        made = self.client.put("/api/commands/apron", json=body).json()
        self.assertEqual(made["rotas"], [rota])
        body = {"command": {"name": "smock", "reply": "x"}, "revision": made["revision"]}
        self.assertEqual(self.client.put("/api/commands/apron", json=body).json()["rotas"], [rota])
        self.client.delete("/api/commands/smock").raise_for_status()

    def test_every_built_in_is_described_on_the_screen(self) -> None:
        words = json.loads((ROOT / "frontend" / "src" / "words" / "en.json").read_text(encoding="utf-8"))
        keys = {view["key"] for view in self.client.get("/api/commands").json()["built_ins"]}
        self.assertEqual(set(words["commands"]["builtIn"]), keys)

    def test_a_built_in_is_renamed_re_levelled_and_back(self) -> None:
        def view() -> Any:
            built_ins = self.client.get("/api/commands").json()["built_ins"]
            return next(one for one in built_ins if one["key"] == "uptime")

        was = view()
        setting = {"names": ["howlong"], "needs": {"level": "vip"}, "cooldown": "none"}
        body = {"setting": setting, "revision": was["revision"]}
        now = self.client.put("/api/built-ins/uptime", json=body).json()
        self.assertEqual((now["names"], now["level"], now["setting"]), (["howlong"], "vip", setting))
        self.assertEqual(self.client.put("/api/built-ins/uptime", json=body).status_code, 409)
        clash = {"setting": {"names": ["kiln"]}, "revision": now["revision"]}
        self.assertEqual(self.client.put("/api/built-ins/uptime", json=clash).status_code, 422)
        self.client.put("/api/built-ins/uptime", json={"setting": {}, "revision": now["revision"]})
        self.assertEqual(view(), was)
        self.assertEqual(len(self.client.get("/api/built-ins/uptime/history").json()["versions"]), 2)


class Kits(WithClient):
    def test_out_and_in_again_is_all_the_same(self) -> None:
        kit = self.client.post("/api/kits/export", json={}).text
        items = self.client.post("/api/kits/preview", json={"text": kit}).json()["items"]
        self.assertEqual({item["state"] for item in items}, {"same"})
        self.assertEqual({item["place"] for item in items}, set(self.client.get("/api/kits").json()["places"]))

    def test_taken_in_and_back_by_one_press(self) -> None:
        before = self.commands()
        kit = {
            "commands": [{"name": "kiln", "reply": "other"}, {"name": "wedge", "reply": "x", "counts": [{"counter": "wedges", "by": 1}]}],
            "counters": [{"name": "wedges"}],
        }  # fmt: skip
        body = {"text": json.dumps(kit), "name": "a friend's kit"}
        alone = self.client.post("/api/kits/take", json={**body, "picks": [{"place": "commands.wedge"}]})
        self.assertEqual((alone.status_code, self.commands()), (422, before))
        picks = [{"place": p} for p in ("commands.kiln", "commands.wedge", "counters.wedges")]
        picks[0]["names"] = {"kiln": "kiln2"}  # type: ignore[assignment]
        done = self.client.post("/api/kits/take", json={**body, "picks": picks}).json()
        self.assertEqual(done["changed"], 3)
        self.assertEqual(set(self.names()) - set(before), {"kiln2", "wedge"})
        batch = self.client.get("/api/kits").json()["taken"][0]
        self.assertEqual((batch["about"], batch["by"], batch["count"]), ("a friend's kit", "Odalys", 3))
        self.client.post("/api/kits/take-back", json={"number": done["number"]}).raise_for_status()
        self.assertEqual(self.commands(), before)
        self.assertEqual(self.client.post("/api/kits/take-back", json={"number": done["number"]}).status_code, 422)

    def test_faults_name_their_place_and_touch_nothing(self) -> None:
        before = self.commands()
        many = {"commands": [{"name": f"c{n}", "reply": "x"} for n in range(10_001)]}
        for text, kind, where in (
            ("{", "json", "line 1, column"),
            ("[1]", "json", None),
            ('{"gentlegate": 2}', "json", "gentlegate"),
            ('{"commands": [{"name": "x"}]}', "json", "commands.0.reply"),
            (json.dumps(many), "json", "commands"),
            ("name\n\n", "csv", None),
            ("name,reply\n a b,x\n", "csv", "commands.0.name"),
            ("nam\n", "csv", "line 1"),
        ):
            with self.subTest(text[:20]):
                answer = self.client.post("/api/kits/preview", json={"text": text, "kind": kind})
                if where is not None:
                    self.assertEqual(answer.status_code, 422)
                    self.assertTrue(answer.json()["where"].startswith(where), answer.json())
        self.assertEqual(self.commands(), before)

    def test_the_broadcasters_places_are_the_broadcasters(self) -> None:
        body = {"text": '{"people": {"leads": ["brook:@bram"]}}', "name": "x", "picks": [{"place": "people.leads"}]}
        self.assertEqual(self.client.post("/api/kits/take", json=body).status_code, 403)
        with self.world.client("marlo") as marlo:
            done = marlo.post("/api/kits/take", json=body).json()
            back = {"number": done["number"]}
            self.assertEqual(self.client.post("/api/kits/take-back", json=back).status_code, 403)
            self.assertEqual(marlo.post("/api/kits/take-back", json=back).status_code, 200)

    def test_commands_as_a_table(self) -> None:
        text = self.client.get("/api/kits/commands.csv").text
        preview = self.client.post("/api/kits/preview", json={"text": text, "kind": "csv"}).json()
        self.assertEqual({item["state"] for item in preview["items"]}, {"same"})
        body = {"text": "name,reply,aliases\nslab,flat,board plate\n", "kind": "csv", "name": "table"}
        done = self.client.post("/api/kits/take", json={**body, "picks": [{"place": "commands.slab"}]}).json()
        self.assertEqual(self.commands()["slab"]["command"]["aliases"], ["board", "plate"])
        self.client.post("/api/kits/take-back", json={"number": done["number"]}).raise_for_status()


class Channel(WithClient):
    def test_read_changed_refused_and_back(self) -> None:
        was = self.client.get("/api/sections/channel").json()
        body = {"values": was["values"] | {"prefix": "?", "timezone": "Europe/Lisbon"}, "revision": was["revision"]}
        now = self.client.put("/api/sections/channel", json=body).json()
        self.assertEqual((now["values"]["prefix"], self.client.get("/api/commands").json()["prefix"]), ("?", "?"))
        self.assertEqual(self.client.put("/api/sections/channel", json=body).status_code, 409)
        for values, where in (
            ({"timezone": "Mars/Olympus"}, "channel.timezone"),
            ({"prefix": "two words"}, "channel.prefix"),
            ({"gatekeeper": []}, "gatekeeper"),
        ):
            answer = self.client.put("/api/sections/channel", json={"values": values, "revision": now["revision"]})
            self.assertEqual((answer.status_code, answer.json()["where"]), (422, where))
        back = self.client.put(
            "/api/sections/channel", json={"values": was["values"], "revision": now["revision"]}
        ).json()
        self.assertEqual(back, was)


class TryOut(WithClient):
    def attempt(self, text: str, **more: Any) -> Any:
        return self.client.post("/api/try-out", json={"text": text, **more}).json()

    def says(self, found: Any) -> list[str]:
        return [effect["text"] for effect in found["effects"] if effect["effect"] == "say"]

    def test_unsaved_settings_and_another_moment(self) -> None:
        unsaved = [{"path": "commands.fresh", "value": {"name": "fresh", "reply": "at {{ now | time }}"}}]
        self.assertEqual(
            self.says(self.attempt("!fresh", changes=unsaved, at="2030-01-01T10:00:00Z"))[0][:3], "at "
        )
        self.assertEqual(self.says(self.attempt("!fresh")), [])
        self.assertEqual(self.client.post("/api/try-out", json={"text": "x", "at": "soon"}).status_code, 422)
        broken = self.client.post(
            "/api/try-out", json={"text": "x", "changes": [{"path": "commands.a", "value": {}}]}
        )
        self.assertEqual(broken.status_code, 422)

    def test_as_somebody_seen_in_chat(self) -> None:
        found = self.attempt("hello", login="nobody_yet", level=None)
        self.assertEqual((found["known"], found["level"]), (False, "everyone"))
        self.world.type("hello from me", "tryvip", badges=["vip"])
        found = eventually(lambda: (f := self.attempt("hi", login="TryVip", level=None)) and f["known"] and f)
        self.assertEqual(found["level"], "vip")


if __name__ == "__main__":
    unittest.main()

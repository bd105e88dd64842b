"""Kits out of one gate and into another."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, KitError
from gentlegate.core.kit import edit
from gentlegate.core.kit.entries import removing, rotas_by_command, saving
from gentlegate.core.kit.exchange import Pick, changes_of, compare, export, places_of
from gentlegate.core.kit.load import load_kit
from gentlegate.core.kit.names import looks_like
from tests.support.logs import desk

OURS: dict[str, Any] = {
    "channel": {"name": "Kiln & Kettle", "prefix": "!"},
    "filters": {"links": {"allowed": ["kiln.example"]}},
    "commands": [
        {"name": "kiln", "reply": "hot"},
        {"name": "glaze", "aliases": ["dip"], "reply": "wet"},
        {"name": "lost", "reply": "{{ counter.lost }} lost", "counts": [{"counter": "lost", "by": 1}]},
    ],
    "counters": [{"name": "lost"}],
    "rotas": [{"name": "Socials", "notices": [{"command": "kiln"}, {"text": "{{ counter.lost }} so far"}]}],
}
THEIRS: dict[str, Any] = {
    "gentlegate": 1,
    "commands": [
        {"name": "KILN", "reply": "hot", "on": True},
        {"name": "Dip", "reply": "another"},
        {"name": "Broken", "reply": "{{ counter.broken }}", "counts": [{"counter": "broken", "by": 1}]},
    ],
    "counters": [{"name": "broken", "label": "Pots broken"}],
    "channel": {"prefix": "?"},
}


def taken(document: dict[str, Any], incoming: dict[str, Any], *picks: Pick) -> dict[str, Any]:
    return edit.write_all(document, changes_of(document, incoming, picks))


class Export(unittest.TestCase):
    def test_some_come_with_what_they_mention(self) -> None:
        self.assertEqual(list(export(OURS, ["rotas.Socials"])), ["gentlegate", "commands", "rotas"])
        self.assertEqual(
            places_of(export(OURS, ["commands.LOST", "filters.links"])),
            ["filters.links", "commands.lost", "counters.lost"],
        )

    def test_all_of_it_is_the_document(self) -> None:
        self.assertEqual(export(OURS), {"gentlegate": 1} | OURS)

    def test_what_is_not_there_is_refused(self) -> None:
        with self.assertRaises(KitError) as caught:
            export(OURS, ["commands.none"])
        self.assertEqual(caught.exception.path, "commands.none")


class Compare(unittest.TestCase):
    def test_new_same_and_differs(self) -> None:
        items = {item.place: item for item in compare(OURS, THEIRS)}
        states = {place: item.state for place, item in items.items()}
        self.assertEqual(
            states,
            {
                "commands.KILN": "differs",
                "commands.Dip": "new",
                "commands.Broken": "new",
                "counters.broken": "new",
                "channel.prefix": "differs",
            },
        )
        self.assertEqual(items["commands.Broken"].needs, ("counters.broken",))
        self.assertEqual([(c.name, c.owner) for c in items["commands.Dip"].clashes], [("Dip", "an alias of glaze")])
        self.assertEqual(items["commands.KILN"].clashes, ())

    def test_written_differently_is_the_same(self) -> None:
        incoming = {"commands": [{"name": "kiln", "reply": ["hot"], "cooldown": "default", "aliases": []}]}
        self.assertEqual([item.state for item in compare(OURS, incoming)], ["same"])

    def test_what_stands_here_may_be_mentioned(self) -> None:
        rota = {"name": "More", "notices": [{"command": "glaze"}]}
        self.assertEqual([item.state for item in compare(OURS, {"rotas": [rota]})], ["new"])
        with self.assertRaises(KitError):
            load_kit({"rotas": [rota]})

    def test_kits_that_cannot_be_used(self) -> None:
        for incoming, path in (
            ({"gentlegate": 2}, "gentlegate"),
            ({"commands": [{"name": "a b", "reply": "x"}]}, "commands.0.name"),
            ({"commands": [{"name": "x", "reply": "{{ oops"}]}, "commands.0.reply.0"),
            ({"comands": []}, "comands"),
            ({"commands": [{"name": f"c{n}", "reply": "x"} for n in range(10_001)]}, "commands"),
        ):
            with self.subTest(path), self.assertRaises(KitError) as caught:
                compare(OURS, incoming)
            self.assertEqual(caught.exception.path, path)


class Take(unittest.TestCase):
    def test_picked_ones_alone(self) -> None:
        after = taken(OURS, THEIRS, Pick("commands.Broken"), Pick("counters.broken"))
        self.assertEqual([c["name"] for c in after["commands"]], ["kiln", "glaze", "lost", "Broken"])
        self.assertEqual(after["channel"], OURS["channel"])
        load_kit(after)

    def test_a_clash_is_resolved_by_another_name_and_mentions_follow(self) -> None:
        incoming = {
            "commands": [
                {"name": "lost", "aliases": ["dip", "gone"], "reply": "{{ counter.lost }}!", "counts": [{"counter": "lost", "by": 2}]}
            ],
            "counters": [{"name": "lost", "start": 7}],
            "rotas": [{"name": "Theirs", "notices": [{"command": "lost"}, {"text": "{{ counter.lost }}"}]}],
        }  # fmt: skip
        after = taken(
            OURS,
            incoming,
            Pick("commands.lost", {"lost": "gone2", "dip": ""}),
            Pick("counters.lost", {"lost": "theirs"}),
            Pick("rotas.Theirs"),
        )
        command, rota = after["commands"][-1], after["rotas"][-1]
        self.assertEqual((command["name"], command["aliases"]), ("gone2", ["gone"]))
        self.assertEqual(command["counts"], [{"counter": "theirs", "by": 2}])
        self.assertEqual(command["reply"], "{{ counter.theirs }}!")
        self.assertEqual(rota["notices"], [{"command": "gone2"}, {"text": "{{ counter.theirs }}"}])
        load_kit(after)

    def test_a_new_name_that_is_in_use_is_refused(self) -> None:
        for name in ("glaze", ""):
            with self.subTest(name), self.assertRaises(KitError):
                changes_of(OURS, THEIRS, [Pick("commands.KILN", {"kiln": name})])
        with self.assertRaises(KitError):
            changes_of(OURS, THEIRS, [Pick("commands.none")])

    def test_ten_thousand_entries_go_in_at_once_and_back(self) -> None:
        incoming = {"commands": [{"name": f"c{n}", "reply": "x"} for n in range(9_000)]}
        engine = Engine(OURS)
        picks = [Pick(item.place) for item in compare(OURS, incoming)]
        changes = [{"path": path, "value": value} for path, value in changes_of(OURS, incoming, picks)]
        self.assertEqual(len(engine.handle(desk(1, "settings", changes=changes, about="big"))), 9_000)
        self.assertEqual(len(engine.document["commands"]), 9_003)
        self.assertEqual(len(engine.handle(desk(2, "settings_back", number=1))), 9_000)
        self.assertEqual(engine.document["commands"], OURS["commands"])


class Together(unittest.TestCase):
    """Changes of many places in one act."""

    def setUp(self) -> None:
        self.engine = Engine(OURS)

    def change(self, changes: list[tuple[str, Any]], about: str | None = "it") -> list[Any]:
        listed = [{"path": path, "value": value} for path, value in changes]
        return self.engine.handle(desk(1, "settings", changes=listed, about=about))

    def test_all_or_none(self) -> None:
        with self.assertRaises(KitError):
            self.change([("commands.new", {"name": "new", "reply": "x"}), ("commands.bad", {"name": "bad"})])
        self.assertEqual(self.engine.document, OURS)
        self.assertEqual(len(self.engine.state.batches), 0)
        with self.assertRaises(ActError):
            self.engine.handle(desk(1, "settings", changes="x"))

    def test_what_changes_nothing_is_no_change(self) -> None:
        self.assertEqual(self.change([("commands.kiln", OURS["commands"][0])]), [])
        self.assertEqual(len(self.engine.state.batches), 0)

    def test_taken_back_once_and_what_was_changed_since_stays(self) -> None:
        self.change([("commands.kiln", {"name": "kiln", "reply": "cold"}), ("commands.glaze", None)])
        self.engine.handle(desk(2, "setting", path="commands.kiln", value={"name": "kiln", "reply": "warm"}))
        back = self.engine.handle(desk(3, "settings_back", number=1))
        self.assertEqual([e.path for e in back], ["commands.glaze"])
        self.assertEqual({c["name"]: c["reply"] for c in self.engine.document["commands"]}["kiln"], "warm")
        with self.assertRaises(ActError):
            self.engine.handle(desk(4, "settings_back", number=1))

    @given(
        st.lists(
            st.tuples(
                st.sampled_from(["kiln", "glaze", "lost", "new", "other"]), st.sampled_from(["x", "y", None])
            ),
            max_size=6,
            unique_by=lambda one: one[0],
        )
    )
    @settings(max_examples=60, deadline=None)
    def test_taking_back_restores_everything(self, wanted: list[tuple[str, str | None]]) -> None:
        self.engine = Engine(OURS | {"rotas": []})
        there = {command["name"] for command in OURS["commands"]}
        changes = [
            (f"commands.{name}", reply and {"name": name, "reply": reply})
            for name, reply in wanted
            if reply or name in there
        ]
        before = {command["name"]: command for command in self.engine.document["commands"]}
        if self.change(changes):
            self.engine.handle(desk(2, "settings_back", number=1))
        after = {command["name"]: command for command in self.engine.document["commands"]}
        self.assertEqual(before, after)


class Entries(unittest.TestCase):
    def test_rotas_follow_a_new_name(self) -> None:
        after = edit.write_all(OURS, saving(OURS, "kiln", {"name": "heat", "reply": "hot"}))
        self.assertEqual(rotas_by_command(after)["heat"], ["Socials"])
        load_kit(after)

    def test_put_on_a_rota_and_taken_off(self) -> None:
        on = edit.write_all(OURS, saving(OURS, "glaze", OURS["commands"][1], ["socials"]))
        self.assertEqual(rotas_by_command(on)["glaze"], ["Socials"])
        self.assertEqual(len(saving(on, "glaze", OURS["commands"][1], ["Socials"])), 1)
        off = edit.write_all(on, saving(on, "glaze", OURS["commands"][1], []))
        self.assertEqual(off, OURS)

    def test_removing_takes_the_notices_too(self) -> None:
        after = edit.write_all(OURS, removing(OURS, ["kiln", "glaze"]))
        self.assertEqual(after["rotas"][0]["notices"], [{"text": "{{ counter.lost }} so far"}])
        load_kit(after)

    def test_names_of_other_scripts_that_look_the_same(self) -> None:
        names = ["kiln", "cop", "tea"]
        for name, other in (("kіln", "kiln"), ("сор", "cop"), ("töa", None), ("kiln", None), ("чай", None)):
            self.assertEqual(looks_like(name, names), other, name)


if __name__ == "__main__":
    unittest.main()


class Renamed(unittest.TestCase):
    def test_another_name_is_a_change_and_is_taken_back_as_one(self) -> None:
        kit = {"rotas": [{"name": "Door", "every": "20m"}]}
        engine = Engine(kit)
        renamed = {"name": "Doors", "every": "20m"}
        (single,) = engine.handle(desk(1, "setting", path="rotas.Door", value=renamed))
        self.assertEqual((single.before, single.after), (kit["rotas"][0], renamed))
        again = {"name": "Gate", "every": "20m"}
        changes = [{"path": "rotas.Doors", "value": again}]
        (many,) = engine.handle(desk(2, "settings", changes=changes, about="rename"))
        self.assertEqual((many.before, many.after), (renamed, again))
        engine.handle(desk(3, "settings_back", number=engine.changes.last_batch))
        self.assertEqual(engine.document["rotas"], [renamed])

"""Passes, tonight, the drawbridge, the second look, and acts on a person by hand."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, KitError
from gentlegate.core.events import Removal
from gentlegate.core.judge import tally
from gentlegate.core.kit import edit
from gentlegate.core.state import State
from tests.support.logs import at, desk, live, of, offline, run, said, says

OLD = {"filters": {"newcomers": {"on": False}}}
MINUTE = 60


def outcomes(effects: list[Any]) -> list[tuple[str, Any]]:
    return [(v.outcome, v.exempt[0].by if v.exempt else None) for v in of(effects, "verdict")]


class Passes(unittest.TestCase):
    def test_two_minutes_for_links_unless_said_otherwise(self) -> None:
        effects = run(
            OLD,
            live(),
            says(1, "hi", "a"),
            desk(2, "pass", person="brook:u-a"),
            says(3, "see bad.test", "a"),
            says(121.999, "see bad.test", "a"),
            says(122, "see bad.test", "a"),
        )
        self.assertEqual(outcomes(effects), [("allow", "pass"), ("allow", "pass"), ("nudge", None)])
        (given_,) = of(effects, "pass")
        self.assertEqual((given_.person, given_.filters, given_.until), ("brook:u-a", ("links",), at(122)))

    def test_from_chat(self) -> None:
        mod = ("odalys", "moderator")
        effects = run(
            OLD,
            live(),
            says(1, "hi", "mossandloam"),
            says(2, "!pass MossAndLoam for 5m links capitals", *mod),
            says(3, "!pass nobody", *mod),
            says(4, "!pass mossandloam for ever", *mod),
            says(5, "!pass mossandloam glue", *mod),
            says(6, "!pass mossandloam for 5m", "viewer"),
            says(7, "LOOK AT BAD.TEST PLEASE IT HAS MY BEST BOWL AND MUG AND VASE", "mossandloam"),
        )
        words = said(effects)
        self.assertIn("Mossandloam has a pass for links, capitals for 5 min", words[0])
        self.assertIn('Nobody named "nobody" has talked here', words[1])
        self.assertIn('"ever" is not a duration', words[2])
        self.assertIn('There is no filter "glue"', words[3])
        self.assertEqual([effect.why for effect in of(effects, "refused")][-1], "level")
        self.assertEqual(of(effects, "verdict")[-1].outcome, "allow")

    def test_until_the_stream_ends(self) -> None:
        effects = run(
            OLD,
            live(),
            says(1, "hi", "a"),
            desk(2, "pass", person="brook:u-a", **{"for": "stream"}),
            says(5000, "bad.test", "a"),
            offline(6000),
            live(6000 + 11 * MINUTE),
            says(6000 + 12 * MINUTE, "bad.test", "a"),
        )
        self.assertEqual(outcomes(effects), [("allow", "pass"), ("nudge", None)])
        with self.assertRaises(ActError):
            run(OLD, says(1, "hi", "a"), desk(2, "pass", person="brook:u-a", **{"for": "stream"}))

    def test_never_for_forbidden_links_and_ended_early(self) -> None:
        kit = {"filters": {"links": {"forbidden": ["worse.test"]}, "newcomers": {"on": False}}}
        effects = run(
            kit,
            live(),
            says(1, "hi", "a"),
            desk(2, "pass", person="brook:u-a"),
            says(3, "worse.test", "a"),
            desk(10, "pass", person="brook:u-a", end=True),
            says(11, "bad.test", "a"),
        )
        self.assertEqual([v.outcome for v in of(effects, "verdict")], ["timeout", "timeout"])
        with self.assertRaises(ActError):
            run(kit, live(), desk(2, "pass", person="brook:u-a", end=True))

    def test_linked_people_share_it(self) -> None:
        kit = OLD | {"people": {"linked": [["brook:u-a", "lantern:u-b"]]}}
        effects = run(
            kit, live(), desk(1, "pass", person="lantern:u-b"), says(2, "bad.test", "a", platform="brook")
        )
        self.assertEqual(outcomes(effects), [("allow", "pass")])


class Tonight(unittest.TestCase):
    def test_a_value_a_list_and_the_mood_put_themselves_back(self) -> None:
        engine = Engine({"filters": {"links": {"allowed": ["kiln.example"]}}})
        for event in (
            live(),
            desk(1, "setting", path="filters.links.on", value=False, tonight=True),
            desk(2, "setting", path="filters.links.allowed", add=["moss.example"], tonight=True),
            desk(3, "setting", path="channel.mood", value="library", tonight=True),
        ):
            engine.handle(event)
        links = engine.parts.kit.filters.links
        self.assertEqual((links.on, [e.text for e in links.allowed]), (False, ["kiln.example", "moss.example"]))
        self.assertEqual(engine.parts.kit.channel.mood, "library")
        self.assertEqual(engine.document, {"filters": {"links": {"allowed": ["kiln.example"]}}})
        effects = engine.handle(offline(100)) + engine.advance(at(100 + 599))
        self.assertEqual(of(effects, "setting"), [])
        effects = engine.advance(at(100 + 600))
        self.assertEqual([e.tonight for e in of(effects, "setting")], [False] * 3)
        links = engine.parts.kit.filters.links
        self.assertEqual((links.on, len(links.allowed)), (None, 1))
        self.assertEqual(engine.parts.kit.channel.mood, "parlour")

    def test_also_when_the_end_came_while_the_server_was_down(self) -> None:
        engine = Engine({})
        for event in (live(), desk(1, "setting", path="filters.links.on", value=False, tonight=True), offline(50)):
            engine.handle(event)
        state = State()
        state.load([change for change in engine.state.take_changes() if change[2] is not None])  # type: ignore[misc]
        again = Engine(engine.document, state=state)
        self.assertFalse(again.parts.kit.filters.links.on)
        again.resume(at(5000))
        effects = again.handle(live(5001))
        self.assertEqual([e.path for e in of(effects, "setting")], ["filters.links.on"])
        self.assertIsNone(again.parts.kit.filters.links.on)

    def test_a_late_word_that_the_stream_had_ended_ends_it(self) -> None:
        engine = Engine({})
        engine.handle(live())
        engine.handle(desk(1, "setting", path="filters.links.on", value=False, tonight=True))
        engine.handle(offline(100), at(5000))
        self.assertEqual(engine.next_due(), at(700))
        self.assertEqual(len(of(engine.handle(live(5000)), "setting")), 1)

    def test_a_lasting_change_of_the_same_place_takes_over(self) -> None:
        engine = Engine({})
        for event in (
            live(),
            desk(1, "setting", path="filters.links.on", value=False, tonight=True),
            desk(2, "setting", path="filters.links.on", value=True),
        ):
            engine.handle(event)
        self.assertTrue(engine.parts.kit.filters.links.on)
        self.assertEqual(len(engine.state.tonight), 0)

    def test_put_back_early_and_refused_whole(self) -> None:
        engine = Engine({})
        engine.handle(live())
        engine.handle(desk(1, "setting", path="filters.emotes.most", value=3, tonight=True))
        with self.assertRaises(KitError):
            engine.handle(desk(2, "setting", path="filters.emotes.most", value=-3, tonight=True))
        self.assertEqual(engine.parts.kit.filters.emotes.most, 3)
        (back,) = of(engine.handle(desk(3, "put_back", number=1)), "setting")
        self.assertEqual((back.before, back.after), (3, None))
        with self.assertRaises(ActError):
            engine.handle(desk(4, "put_back", number=1))

    @given(
        st.lists(st.tuples(st.sampled_from(["on", "most", "list"]), st.booleans(), st.integers(0, 5)), max_size=8)
    )
    @settings(max_examples=60, deadline=None)
    def test_after_the_stream_only_lasting_changes_stand(self, changes: list[tuple[str, bool, int]]) -> None:
        engine, lasting = Engine({}), Engine({})
        engine.handle(live())
        for number, (what, tonight, value) in enumerate(changes):
            if what == "list":
                values: dict[str, Any] = {"path": "filters.links.allowed", "add": [f"host{value}.example"]}
            elif what == "on":
                values = {"path": "filters.emotes.on", "value": value > 2}
            else:
                values = {"path": "filters.emotes.most", "value": value}
            engine.handle(desk(number + 1, "setting", tonight=tonight, **values))
            if not tonight:
                lasting.handle(desk(number + 1, "setting", **values))
        engine.handle(offline(100))
        engine.advance(at(1000))
        self.assertEqual(engine.effective, lasting.document)


class Drawbridge(unittest.TestCase):
    def flood(self, people: int) -> list[Any]:
        text = "this channel is run by robots, leave now"
        return [says(1 + n / 4, text, f"p{n}") for n in range(people)]

    def test_offered_once_for_a_flood_of_copies(self) -> None:
        effects = run(OLD, live(), *self.flood(14))
        self.assertEqual([(e.state, e.why) for e in of(effects, "drawbridge")], [("offered", "copycats")])
        self.assertEqual(of(run(OLD, live(), *self.flood(9)), "drawbridge"), [])

    def test_offered_when_many_talk_for_the_first_time(self) -> None:
        people = [says(1 + n / 10, f"hello {n}", f"n{n}") for n in range(21)]
        self.assertEqual([e.why for e in of(run({}, live(), *people), "drawbridge")], ["newcomers"])
        self.assertEqual(of(run({}, live(), *people[:20]), "drawbridge"), [])

    def test_up_it_holds_newcomers_and_lowers_itself(self) -> None:
        kit = {"filters": {"links": {"on": False}}, "platforms": {"lantern": {"followers_only": False}}}
        effects = run(
            kit,
            says(-3600, "hi", "old"),
            live(),
            live(0, "lantern"),
            desk(1, "drawbridge", up=True),
            says(2, "hi", "fresh"),
            says(3, "@odalys come and see", "fresh"),
            says(4, "@odalys look", "old"),
            says(602, "@bram come and see", "fresh"),
            until=700,
        )
        self.assertEqual([(v.outcome, v.filter) for v in of(effects, "verdict")], [("remove", "newcomers")])
        self.assertEqual(
            [(e.platform, e.on) for e in of(effects, "followers_only")], [("brook", True), ("brook", False)]
        )
        raised, lowered = of(effects, "drawbridge")
        self.assertEqual((raised.until, lowered.at, lowered.by), (at(601), at(601), None))

    def test_mood_library_while_it_is_up(self) -> None:
        line = "A LINE WITH TWENTY SEVEN CAPITALS"
        effects = run(
            OLD, live(), says(1, line, "a"), desk(2, "drawbridge", up=True), says(3, line, "b"),
            desk(4, "drawbridge", up=False), says(5, line, "c"),
        )  # fmt: skip
        self.assertEqual([v.message for v in of(effects, "verdict")], [of(effects, "remove")[0].message])

    def test_by_itself_where_the_channel_wants_that_and_down_with_the_stream(self) -> None:
        kit = OLD | {"drawbridge": {"auto": True}, "channel": {"stream_gap": "1m"}}
        effects = run(kit, live(), *self.flood(12), offline(10), until=100)
        self.assertEqual(
            [(e.state, e.by) for e in of(effects, "drawbridge")], [("raised", None), ("lowered", None)]
        )
        self.assertEqual(of(effects, "drawbridge")[1].at, at(70))

    def test_twice_is_refused(self) -> None:
        with self.assertRaises(ActError):
            run(OLD, live(), desk(1, "drawbridge", up=False))


class SecondLook(unittest.TestCase):
    def test_asked_for_and_settled(self) -> None:
        engine = Engine(OLD)
        for event in (live(), says(1, "bad.test", "a", id="m1")):
            engine.handle(event)
        (asked,) = engine.handle(desk(2, "look", platform="brook", message="m1"))
        self.assertEqual((asked.mark, asked.by), ("asked", "brook:u-odalys"))
        with self.assertRaises(ActError):
            engine.handle(desk(3, "look", platform="brook", message="m1"))
        (settled,) = engine.handle(desk(4, "settle", platform="brook", message="m1", mark="right"))
        self.assertEqual(settled.mark, "right")
        with self.assertRaises(ActError):
            engine.handle(desk(5, "settle", platform="brook", message="m1", mark="maybe"))

    def test_what_the_judge_is_unsure_of_comes_by_itself_and_undo_settles_it(self) -> None:
        engine = Engine({"filters": {"capitals": {"share": 0.8, "letters": 10}, "newcomers": {"on": False}}})
        engine.handle(live())
        engine.handle(says(1, "AAAAAAAAbb", "a", id="m1"))
        engine.handle(says(20, "AAAAAAAAAA", "b", id="m2"))
        looks = dict(engine.state.looks.items())
        self.assertEqual([(key, look.why) for key, look in looks.items()], [("brook\tm1", "unsure")])
        engine.handle(desk(30, "undo", platform="brook", message="m1"))
        self.assertEqual(looks["brook\tm1"].settled, "wrong")
        self.assertEqual(tally.of_stream(engine.parts, 1)["capitals"].undone, 1)

    def test_a_persons_removal_is_something_the_judge_missed(self) -> None:
        effects = run(
            OLD,
            live(),
            says(1, "a rude thing", "a", id="m1"),
            says(2, "bad.test", "b", id="m2"),
            Removal(at(3), "brook", "m1"),
            Removal(at(4), "brook", "m2"),
        )
        self.assertEqual([(e.message, e.mark) for e in of(effects, "mark")], [("m1", "missed")])


class ByHand(unittest.TestCase):
    def test_a_lift_and_its_undo(self) -> None:
        kit = OLD | {"people": {"linked": [["brook:u-a", "lantern:u-b"]]}}
        engine = Engine(kit)
        for event in (live(), says(1, "hi", "a"), desk(10, "timeout", person="brook:u-a", seconds=600)):
            engine.handle(event)
        lifted = engine.handle(desk(20, "lift", person="brook:u-a"))
        self.assertEqual([(e.effect, e.person) for e in lifted], [("unban", "brook:u-a"), ("unban", "lantern:u-b")])
        undone = engine.handle(desk(110, "undo", person="brook:u-a"))
        self.assertEqual(
            [(e.person, e.seconds) for e in of(undone, "timeout")], [("brook:u-a", 500), ("lantern:u-b", 500)]
        )

    def test_a_ban_that_was_lifted_comes_back_as_a_ban(self) -> None:
        engine = Engine(OLD)
        for event in (live(), desk(1, "ban", person="brook:u-a"), desk(2, "lift", person="brook:u-a")):
            engine.handle(event)
        self.assertEqual(len(of(engine.handle(desk(3, "undo", person="brook:u-a")), "ban")), 1)
        self.assertEqual(len(of(engine.handle(desk(4, "undo", person="brook:u-a")), "unban")), 1)
        with self.assertRaises(ActError):
            engine.handle(desk(5, "undo", person="brook:u-a"))

    def test_a_removal_needs_a_message_and_a_timeout_does_not(self) -> None:
        with self.assertRaises(ActError):
            run(OLD, live(), desk(1, "remove", person="brook:u-a"))
        effects = run(OLD, live(), desk(1, "timeout", person="brook:u-a", seconds=60))
        self.assertEqual([e.effect for e in effects], ["timeout"])


class Lists(unittest.TestCase):
    def test_imported_hosts_are_forbidden(self) -> None:
        engine = Engine(
            OLD | {"filters": {"links": {"feeds": [{"name": "Bad hosts"}]}, "newcomers": {"on": False}}}
        )
        engine.handle(live())
        hosts = [f"host{n}.test" for n in range(100_000)]
        (changed,) = engine.handle(desk(1, "feed", name="bad HOSTS", hosts=hosts))
        self.assertEqual(changed.after, 100_000)
        verdict = of(engine.handle(says(2, "see sub.host99999.test/x", "a", "vip")), "verdict")[0]
        self.assertEqual((verdict.outcome, verdict.seconds), ("timeout", 600))
        with self.assertRaises(ActError):
            engine.handle(desk(3, "feed", name="other", hosts=[]))
        engine.handle(desk(4, "setting", path="filters.links.feeds", take=[{"name": "bad hosts"}]))
        self.assertEqual(len(engine.state.feeds), 0)
        self.assertEqual(of(engine.handle(says(5, "see host1.test", "b", "vip")), "verdict")[0].outcome, "nudge")

    def test_adding_and_taking_entries(self) -> None:
        document: dict[str, Any] = {"filters": {"links": {"allowed": ["a.example", {"text": "B.example"}]}}}
        path = "filters.links.allowed"
        self.assertEqual(len(edit.read(edit.add(document, path, ["b.example", "c.example"]), path)), 3)
        self.assertEqual(edit.read(edit.take(document, path, ["b.EXAMPLE "]), path), ["a.example"])
        with self.assertRaises(KitError):
            edit.add(document, "filters.links", ["x"])


if __name__ == "__main__":
    unittest.main()

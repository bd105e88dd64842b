"""What is stored about people, and what is left of somebody who was removed."""

from __future__ import annotations

from gentlegate.core.engine import Engine
from gentlegate.core.events import Event, Happening
from gentlegate.core.journal import Entry
from gentlegate.core.moments import HOUR, MINUTE
from gentlegate.store.accounts import Accounts
from gentlegate.store.journal import Journal
from gentlegate.store.people import People
from tests.store.test_store import OnAFile
from tests.support.logs import at, desk, live, person, says

KIT = {"filters": {"phrases": {"entries": ["glue gun"]}, "newcomers": {"on": False}}}


class Stored(OnAFile):
    def setUp(self) -> None:
        super().setUp()
        self.people, self.journal = People(self.database), Journal(self.database)

    def play(self, *events: Event) -> None:
        engine = Engine(KIT)
        entries = [Entry(event.at, event, engine.handle(event)) for event in events]
        self.journal.write(entries, engine.state.take_changes(), None)

    def bodies(self) -> str:
        rows = [*self.database.connection.execute("SELECT person, body FROM events")]
        rows += [*self.database.connection.execute("SELECT '', body FROM effects")]
        return " ".join(f"{row[0]} {row[1]}" for row in rows)


class Cards(Stored):
    def test_messages_with_what_became_of_them_page_by_page(self) -> None:
        self.play(
            live(),
            says(1, "hello", "sam", id="a"),
            says(2, "a glue gun", "sam", id="b"),
            says(3, "not mine", "lou", id="c"),
            desk(4, "remove", message="a", person="brook:u-sam"),
            desk(5, "undo", platform="brook", message="b"),
            says(6, "last", "sam", id="d"),
        )
        newest = self.people.messages(["brook:u-sam"], None, 2)
        self.assertEqual(
            [(one.text, one.outcome, one.undone) for one in newest],
            [("last", None, False), ("a glue gun", "nudge", True)],
        )
        (oldest,) = self.people.messages(["brook:u-sam"], newest[-1].number, 2)
        self.assertEqual((oldest.text, oldest.outcome, oldest.by), ("hello", "remove", "brook:u-odalys"))
        self.assertEqual(self.people.counts(["brook:u-sam"]), (3, at(6)))
        self.assertEqual([key for key, _ in self.people.lately(5)], ["brook:u-sam", "brook:u-lou"])


class Removal(Stored):
    def test_nothing_says_who_it_was_and_others_stay_as_they_are(self) -> None:
        follow = Happening(at(4), "brook", "follow", person("sam"))
        self.play(
            live(),
            says(1, "my secret", "sam"),
            says(2, "a glue gun", "sam"),
            says(3, "hello sam, said lou", "lou"),
            follow,
            desk(5, "timeout", person="brook:u-sam", seconds=60),
            desk(6, "pass", person="brook:u-lou"),
        )
        self.people.note("brook:u-sam", "knows glazes", "brook:u-bram", "Bram", at(7))
        before = self.bodies()
        self.assertEqual(self.people.erase(["brook:u-sam"], ["sam", "Sam"], "gone-1", ["brook:u-gatekeeper"]), 2)
        left = self.bodies()
        for trace in ("u-sam", "my secret", "glue gun", '"sam"', '"Sam"'):
            self.assertIn(trace, before)
            self.assertNotIn(trace, left)
        self.assertIn("hello sam, said lou", left)
        self.assertIn("brook:u-lou", left)
        self.assertEqual(self.people.counts(["brook:gone-1"])[0], 2)
        self.assertEqual(self.people.notes(["brook:u-sam"]), [])
        self.assertEqual(len(self.journal.recent_lines(10)), 4)
        self.assertEqual(self.people.erase(["brook:u-sam"], ["sam"], "gone-2", []), 0)

    def test_an_account_whose_name_begins_the_same_is_another(self) -> None:
        self.play(live(), says(1, "one", "sam"), says(2, "two", "sammy"))
        self.people.erase(["brook:u-sam"], ["sam"], "gone-1", [])
        self.assertIn("u-sammy", self.bodies())
        self.assertEqual([one.text for one in self.people.messages(["brook:u-sammy"], None, 5)], ["two"])


class Comings(Stored):
    def test_away_is_told_until_it_was_looked_at_and_a_reload_is_no_absence(self) -> None:
        accounts = Accounts(self.database)
        id = accounts.add("wren", "Wren", "moderator", "secret").id
        away = 10 * MINUTE
        accounts.came(id, 0, away)
        self.assertIsNone(accounts.away_from(id))
        accounts.still_here({id}, HOUR)
        accounts.came(id, HOUR + away - 1, away)
        self.assertIsNone(accounts.away_from(id))
        accounts.still_here({id}, 2 * HOUR)
        accounts.came(id, 3 * HOUR, away)
        self.assertEqual(accounts.away_from(id), 2 * HOUR)
        accounts.came(id, 3 * HOUR + 1, away)
        self.assertEqual(accounts.away_from(id), 2 * HOUR)
        accounts.seen_missed(id)
        self.assertIsNone(accounts.away_from(id))

    def test_the_settings_of_a_time(self) -> None:
        for moment, name in ((10, "one"), (20, "two")):
            self.journal.write([], [], (moment, "gate", {"channel": {"name": name}}))
        self.assertIsNone(self.journal.settings_at(9))
        for moment, name in ((10, "one"), (19, "one"), (20, "two"), (99, "two")):
            found = self.journal.settings_at(moment)
            assert found
            self.assertEqual(found[1]["channel"]["name"], name)

"""The floor that replay is measured beside, on one core: parse a line, fold it, ask one automaton and one RE2 set, write.

Usage: floor.py LOG KIT. It knows no rules: no spans, no disguises, no people, no other filters.
"""

import sys
import unicodedata

import orjson
import re2
from ahocorasick_rs import AhoCorasick

with open(sys.argv[2], "rb") as kit:
    entries = orjson.loads(kit.read())["filters"]["phrases"]["entries"]
words = [entry.lower() for entry in entries if isinstance(entry, str)]
automaton = AhoCorasick(words, store_patterns=False)
options = re2.Options()
options.max_mem = 64 << 20
patterns = re2.Set.SearchSet(options)
for entry in entries:
    if isinstance(entry, dict):
        patterns.Add(entry["text"])
patterns.Compile()

with open(sys.argv[1], "rb") as log:
    for line in log:
        message = orjson.loads(line)
        folded = unicodedata.normalize("NFKC", message["text"]).casefold()
        hits = automaton.find_matches_as_indexes(folded, overlapping=True)
        matched = patterns.Match(folded)
        sys.stdout.buffer.write(
            orjson.dumps(
                {"message": message["id"], "hits": len(hits), "matched": len(matched or ())},
                option=orjson.OPT_APPEND_NEWLINE,
            )
        )

"""The floor that replay is measured beside: the same lines parsed, folded and written, and nothing else."""

import sys
import unicodedata

import orjson

with open(sys.argv[1], "rb") as log:
    for line in log:
        message = orjson.loads(line)
        folded = unicodedata.normalize("NFKC", message["text"]).casefold()
        if "other.test" in folded:
            sys.stdout.buffer.write(
                orjson.dumps({"message": message["id"], "text": folded}, option=orjson.OPT_APPEND_NEWLINE)
            )

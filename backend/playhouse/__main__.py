"""Starts the Playhouse: `python -m playhouse`."""

from playhouse.serve import main

main()

"""The Playhouse: stand-in platforms on a port of their own, and the evenings they play."""

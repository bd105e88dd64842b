"""The Setup room: the team, the platforms, whole sections, kits."""

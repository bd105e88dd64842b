"""The People room: cards, notes, lists and links."""

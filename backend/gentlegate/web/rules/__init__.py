"""The Rules room: moods, filters, their lists, and what a setting would have stopped."""

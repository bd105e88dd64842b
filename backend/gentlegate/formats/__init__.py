"""The open formats: chat log in, effects out, both as JSON Lines (spec page 2)."""

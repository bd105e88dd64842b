"""The Stage room: stage cards and quotes."""

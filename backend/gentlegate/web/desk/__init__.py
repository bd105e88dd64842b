"""The Desk: acts on lines and people, running the stream, the hand-over, the try-out."""

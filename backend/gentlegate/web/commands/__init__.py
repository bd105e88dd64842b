"""The Commands room: commands, cues and built-ins, with their previews."""

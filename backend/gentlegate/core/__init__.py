"""The rules of the job: (state, event, now) → (state, effects). Knows no files, sockets or clocks."""

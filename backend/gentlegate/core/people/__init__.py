"""People: who somebody is, as they were seen, linked over platforms, and what stands on their card."""

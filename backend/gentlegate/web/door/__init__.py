"""Who may come in: log-in, sessions, the second factor, and what is bounded."""

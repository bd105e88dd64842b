"""Commands: hearing them, who may use them, cooldowns, templates and replies."""

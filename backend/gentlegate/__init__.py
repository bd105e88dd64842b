"""Gentle Gate: one gate for a channel's chat, shared by its moderators."""

__version__ = "0.1.0"

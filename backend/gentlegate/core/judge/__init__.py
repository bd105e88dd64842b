"""Verdicts, strikes and the ladder."""

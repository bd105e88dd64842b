"""The only place that knows SQL; one module a subject."""

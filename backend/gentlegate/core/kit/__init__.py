"""The kit's model, its checks and its edits; the only place in the core that knows Pydantic."""

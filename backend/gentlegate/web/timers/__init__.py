"""The Timers room: rotas and their forecast."""

"""Rotas: notices that take turns under one rhythm."""

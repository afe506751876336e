"""Marks, what a change does to them, what to do next."""

"""Logbooks and plans as earlier versions wrote them, and the sentences they fold to."""

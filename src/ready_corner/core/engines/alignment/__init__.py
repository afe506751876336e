"""Toe and camber from strings, gaps and gauges."""

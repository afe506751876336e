"""Tools, uncertainty and verdicts."""

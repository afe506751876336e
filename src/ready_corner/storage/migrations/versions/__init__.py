"""One module a revision."""

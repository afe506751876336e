"""Plan and logbook files: open JSON with a published schema."""

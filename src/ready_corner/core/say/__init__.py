"""Words for findings and advice."""

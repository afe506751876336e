"""Starting and stopping what runs on this machine: the database of its own, and the server."""

"""The job itself: pure numbers in, pure numbers out. No web, database, file or clock."""

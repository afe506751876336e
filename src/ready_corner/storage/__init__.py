"""Cars and their logbooks in MariaDB: rows are added, never changed."""

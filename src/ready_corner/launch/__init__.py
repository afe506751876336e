"""Starting and stopping what runs on this machine: the database of its own, and the server."""

import os

# Matrices here are small, and many threads reckon at once: threads within one sum gain nothing. And they must not be there when a process is begun,
# as one is whenever a database that ended is started again: OpenBLAS ends them then, and a sum that is under way would wait for them for ever.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

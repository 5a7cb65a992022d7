"""Ruvak plans sound runs in a venue and computes what they will do."""

import os

# Networks are solved in batches of small matrices, and several processes share the machine: threads inside the
# linear algebra library only wait for each other there. It reads this when it is loaded.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.2.0"

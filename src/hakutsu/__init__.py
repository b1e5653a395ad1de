"""Hakutsu: the independent vehicle inspector's workbench."""

import os

# Matrices here are small: threads of the linear algebra cost more than they give, and take the cores from others.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.9.0"

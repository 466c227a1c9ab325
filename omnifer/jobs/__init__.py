"""What takes over a second: asked for by the web server, done in worker processes, told while it goes on."""

SEARCHES, SHORT = "searches", "short"
"""Queues: what may take a minute, and what takes a second or three and does not wait behind it."""
TASK = "errand"
CHANNEL = "omnifer_errands"
"""On which workers say that there is news of an errand."""

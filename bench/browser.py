"""Debian's Chromium without a screen, for benchmarks, tests and pictures alike."""

from pathlib import Path

from playwright.sync_api import Browser, Playwright

BINARIES = ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")
"""The first draws pages only; the second carries a whole desktop browser along, for machines that have no other."""
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


FRUGAL = ["--js-flags=--single-threaded-gc --min-semi-space-size=64 --max-semi-space-size=128 --no-opt --no-maglev"]
"""Where other work wants the cores and pages live for seconds: a sixth less of the processor."""


def launch(playwright: Playwright, frugal: bool = False) -> Browser:
    """A browser without a window. Raises StopIteration where Debian's package is missing."""
    binary = next(path for path in BINARIES if Path(path).exists())
    return playwright.chromium.launch(executable_path=binary, args=[*ARGUMENTS, *(FRUGAL if frugal else ())])

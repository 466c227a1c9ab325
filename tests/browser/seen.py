"""`expect`, and it waits for what is not there yet without drawing the page's whole tree of roles at every look.

Playwright draws it whenever an assertion finds nothing, to show it in case of a failure: a seventh of the browser's time.
"""

from typing import Any

from playwright.sync_api import Locator
from playwright.sync_api import TimeoutError as NeverCame
from playwright.sync_api import expect as assertions

from tests.patience import PATIENCE_S

PATIENCE_MS = PATIENCE_S * 1000
assertions.set_options(timeout=PATIENCE_MS)
ABSENT_TOO = {"to_be_hidden", "not_to_be_visible", "not_to_be_attached", "to_have_count", "not_to_have_count"}
"""Assertions that can hold of what is not there."""


def expect(what: Any) -> Any:
    """Playwright's assertions of a locator or a page."""
    return _Patient(what) if isinstance(what, Locator) else assertions(what)


class _Patient:
    def __init__(self, what: Locator) -> None:
        self.what = what

    def __getattr__(self, name: str) -> Any:
        assertion = getattr(assertions(self.what), name)
        if name in ABSENT_TOO:
            return assertion
        return lambda *told, **more: self._once("visible" if name == "to_be_visible" else "attached", assertion, told, more)

    def _once(self, state: Any, assertion: Any, told: tuple, more: dict) -> None:
        try:
            self.what.wait_for(state=state, timeout=more.get("timeout", PATIENCE_MS))
        except NeverCame:
            more["timeout"] = 1  # the assertion itself tells what is wrong
        assertion(*told, **more)

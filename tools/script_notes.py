"""Notes which functions of the page's modules each test of the browser runs; a plugin of pytest for
``planted_script_faults``, whose copy of the program says in each function that it runs.
"""

from __future__ import annotations

import json
import os
from collections.abc import Generator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Error

FOLDER = Path(os.environ["WIDEPIN_NOTES"])

KEEP = """
globalThis.keepRan = () => {
  try {
    const before = JSON.parse(localStorage.getItem("ran-here") ?? "[]");
    localStorage.setItem("ran-here", JSON.stringify([...new Set([...before, ...(globalThis.ranHere ?? [])])]));
  } catch { /* a page that may keep nothing */ }
};
addEventListener("pagehide", globalThis.keepRan);
"""
"""Functions that ran on a page are kept for the next page of the same browser."""

TAKE = """() => {
  globalThis.keepRan?.();
  const ran = localStorage.getItem("ran-here");
  localStorage.removeItem("ran-here");
  globalThis.ranHere?.clear();
  return ran;
}"""


@pytest.hookimpl(tryfirst=True)
def pytest_configure() -> None:
    """Every page keeps what ran on it."""
    plain = Browser.new_context

    def new_context(self: Browser, *args: Any, **kwargs: Any) -> BrowserContext:
        context = plain(self, *args, **kwargs)
        context.add_init_script(KEEP)
        return context

    Browser.new_context = new_context  # type: ignore[method-assign]


@pytest.hookimpl(wrapper=True, tryfirst=True)
def pytest_runtest_teardown(item: pytest.Item) -> Generator[None, None, None]:
    """Note what ran before the pages are closed."""
    browser = getattr(item, "funcargs", {}).get("browser")
    ran: set[str] = set()
    for context in browser.contexts if browser else []:
        for page in context.pages:
            try:
                ran |= set(json.loads(page.evaluate(TAKE) or "[]"))
            except Error:  # a page that is gone, or of no address
                continue
    with (FOLDER / f"ran-{os.getpid()}.jsonl").open("a") as file:
        file.write(json.dumps({"test": item.nodeid, "ran": sorted(ran)}) + "\n")
    return (yield)

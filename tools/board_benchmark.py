"""How quick the board is in a real browser, from a running demo: ``bin/widepin tool board_benchmark``.

Figures of 60 and 200 objects are dragged for some seconds. Script time per frame is taken from the browser's own
performance timeline; beside it stands how long the machine's frames are when nothing is done in them.
"""

from __future__ import annotations

import statistics
import sys

from playwright.sync_api import Page, sync_playwright
from tests.chromium import CHROMIUM, EXECUTABLE

FRAMES = 240

DRAG = """async ([count, frames]) => {
  const board = document.querySelector(".board-page").board;
  const steps = [
    { id: "A", make: "free_point", at: [2, 3] }, { id: "B", make: "free_point", at: [8, 4] },
  ];
  for (let n = 0, last = "A"; steps.length + 3 <= count; n++) {
    steps.push({ id: `c${n}`, make: "circle", from: [last, "B"] }, { id: `d${n}`, make: "circle", from: ["B", last] },
      { id: `P${n}`, make: "intersection", from: [`c${n}`, `d${n}`], pick: 1 });
    last = `P${n}`;
  }
  const { store } = board;
  store.figure = new store.figure.constructor(store.book, steps);
  store.given = new Set(["A", "B"]);
  board.paper.fit();
  const frame = () => new Promise(requestAnimationFrame);
  performance.clearMeasures();
  for (let n = 0; n < 30; n++) { await frame(); store.figure.put("A", [2 + n / 300, 3]); board.paint(); }
  let before = await frame();
  const lengths = [];
  for (let n = 0; n < frames; n++) {
    const now = await frame();
    lengths.push(now - before);
    before = now;
    performance.mark("drag");
    store.figure.put("A", [2 + Math.sin(n / 9), 3 + Math.cos(n / 7)]);
    board.paint();
    performance.measure("script", "drag");
  }
  const script = performance.getEntriesByName("script").map(({ duration }) => duration);
  return { script, lengths };
}"""

IDLE = """async (frames) => {
  const frame = () => new Promise(requestAnimationFrame);
  let before = await frame();
  const lengths = [];
  for (let n = 0; n < frames; n++) { const now = await frame(); lengths.push(now - before); before = now; }
  return lengths;
}"""


def percentile(values: list[float], share: int) -> float:
    """A percentile of the values."""
    return statistics.quantiles(values, n=100)[share - 1]


def said(name: str, values: list[float]) -> str:
    """Median, 95th percentile and maximum in milliseconds."""
    return f"{name:<28} {statistics.median(values):>6.2f} {percentile(values, 95):>6.2f} {max(values):>6.2f}"


def transferred(page: Page) -> int:
    """Bytes that the page's load took over the wire."""
    return int(
        page.evaluate(
            "() => [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')]"
            ".reduce((sum, one) => sum + one.transferSize, 0)"
        )
    )


def main(address: str) -> None:
    """Measure and say it."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=EXECUTABLE, args=CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("button", name="Ilse Marran").click()
        board = page.get_by_role("link", name="Roundel in a gable").get_attribute("href")
        fresh = browser.new_context(storage_state=page.context.storage_state())
        page = fresh.new_page()
        for turn in ("first", "second"):
            page.goto(f"{address}{board}")
            page.wait_for_selector("[data-ready]")
            page.wait_for_timeout(500)
            print(f"{turn} load of the board: {transferred(page) / 1024:.0f} KB")
        print(f"{'milliseconds':<28} {'median':>6} {'95 %':>6} {'most':>6}")
        print(said("a frame with nothing in it", page.evaluate(IDLE, FRAMES)))
        for count in (60, 200):
            found = page.evaluate(DRAG, [count, FRAMES])
            print(said(f"{count} objects, script", found["script"]))
            print(said(f"{count} objects, frame", found["lengths"]))
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8317")

#!/usr/bin/env python3
"""From a key in What if to its figures on the screen, in the real browser on the demo car. bench/what_if.py [--times N]"""

import argparse
import statistics
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
from tests.serving import Server

TYPE = """async (times) => {
  const field = document.querySelector('section[aria-label="What if"] input.fig');
  const shown = () => document.querySelector('tbody').innerText;
  const waited = [];
  for (let i = 0; i < times; i++) {
    const before = shown(), start = performance.now();
    field.value = String(3 + (i % 5) * 2);
    field.dispatchEvent(new Event('input', { bubbles: true }));
    while (shown() === before && performance.now() - start < 5000) await new Promise(requestAnimationFrame);
    waited.push(performance.now() - start);
    await new Promise((later) => setTimeout(later, 150));
  }
  return waited;
}"""


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--times", type=int, default=30)
    times = parser.parse_args().times
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        server = Server(Path(folder))
        server.start()
        browser = play.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{server.url}/cars/heather/travel")
        page.get_by_label("By", exact=True).fill("1")
        page.locator("td.if").first.wait_for()
        waited = page.evaluate(TYPE, times)
        browser.close()
        server.stop()
    print(
        f"key to figures on the screen, {times} times: median {statistics.median(waited):.0f} ms, p95 {statistics.quantiles([*waited, *waited], n=20)[18]:.0f} ms, least {min(waited):.0f}"
    )


if __name__ == "__main__":
    main()

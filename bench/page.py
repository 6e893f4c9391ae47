"""The sheet in the real browser: from a step pressed to the new strip, in ms (``make bench``), and how many
controls and words its first screenful has (``python -m bench.page``).

Counted is what is seen without scrolling: a control is a link, a button, a field, a summary or a slider.
Cells of the size board are left out, and the words of the drawing.
"""

import os
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import numpy as np
import uvicorn
from selenium import webdriver
from selenium.webdriver.chrome.service import Service

from heathdrop.web.app import create_app

FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking"
)
#: Steps pressed: control, how often. The first moves the depth band, the others leave tuned rigs as they are.
PRESSED = (("fish_depth_ft", 12), ("clarity_ft", 12), ("wind_mph", 12))
#: Runs in the page: press, wait for another address on the answer, say how long it took (ms).
STEP = """
const [name, done] = [arguments[0], arguments[arguments.length - 1]];
const before = document.getElementById('answer').dataset.at;
const begun = performance.now();
document.querySelector(`[data-to=${name}]:not([data-step^='-'])`).click();
const look = () => document.getElementById('answer').dataset.at !== before
  ? done(performance.now() - begun) : requestAnimationFrame(look);
requestAnimationFrame(look);
"""

WIDTHS = ((1280, 800), (390, 844))
COUNT = """
const seen = (e) => { const b = e.getBoundingClientRect(); const s = getComputedStyle(e);
  return b.width > 1 && b.height > 1 && b.top < innerHeight && b.bottom > 0 && b.right > 0
    && s.visibility === 'visible' && s.opacity > 0
    && s.clipPath === 'none' && e.checkVisibility(); };
const apart = (e) => e.closest('.board, svg');
const controls = [...document.querySelectorAll('a, button, input, select, textarea, summary, [role=slider]')]
  .filter((e) => e.type !== 'hidden' && !apart(e) && (seen(e) || (e.labels?.[0] && seen(e.labels[0]))));
const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
let words = 0;
while (walk.nextNode()) {
  const at = walk.currentNode.parentElement;
  if (!apart(at) && !at.closest('script, style, option, noscript, .visually-hidden') && seen(at)) {
    words += (walk.currentNode.textContent.match(/[^\\s·−+]+/g) || []).length; }
}
const chosen = [...document.querySelectorAll('select')].filter(seen);
words += chosen.reduce((n, e) => n + e.selectedOptions[0].textContent.trim().split(/\\s+/).length, 0);
return [controls.length, words];
"""


@contextmanager
def served(season: bool = False) -> Iterator[tuple[webdriver.Chrome, str]]:
    """The app with the demo's data (and its ``season`` of casts), its address, and a browser beside it."""
    os.environ["SE_OFFLINE"] = "true"
    scratch = Path(tempfile.mkdtemp())
    app = create_app(scratch / "d.sqlite", demo=True, season=season)
    server = uvicorn.Server(uvicorn.Config(app, port=0, log_level="warning"))
    threading.Thread(target=server.run, daemon=True).start()
    while not server.started:
        time.sleep(0.05)
    port = server.servers[0].sockets[0].getsockname()[1]
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in (*FLAGS.split(), f"--user-data-dir={scratch / 'profile'}"):
        options.add_argument(flag)
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    try:
        yield driver, f"http://127.0.0.1:{port}"
    finally:
        driver.quit()
        server.should_exit = True


def measured() -> dict[str, list[float]]:
    """Milliseconds from press to answer, by control; the form's wait for more typing (120 ms) is in them."""
    found: dict[str, list[float]] = {}
    with served() as (driver, site):
        driver.get(f"{site}/?family=bladed-jig&fish_depth_ft=2&bottom_depth_ft=20")
        for name, times in PRESSED:
            found[name] = []
            for _ in range(times):
                found[name].append(float(driver.execute_async_script(STEP, name)))
                time.sleep(0.1)
    return found


def first_screens(at: str = "/") -> list[str]:
    """What the first screenful asks of a visitor, by width."""
    said = []
    with served() as (driver, site):
        for width, height in WIDTHS:
            size = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
            driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", size)
            driver.get(site + at)
            time.sleep(1.0)
            controls, words = driver.execute_script(COUNT)
            said.append(f"{at} at {width} × {height}: {controls} controls, {words} words")
    return said


def main() -> None:
    """Print the first screens, then the median and the 95th of a hundred by control, and over all."""
    print("\n".join(first_screens()), flush=True)
    found = measured()
    for name, took in (*found.items(), ("all", [t for some in found.values() for t in some])):
        middle, late = np.median(took), np.quantile(took, 0.95)
        print(f"control to answer, {name:15} median {middle:6.0f} ms  p95 {late:6.0f} ms")


if __name__ == "__main__":
    main()

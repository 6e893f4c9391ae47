"""Take the pictures of docs/screenshots from the demo data. Usage: python scripts/screenshots.py"""

import os
import tempfile
import threading
import time
from pathlib import Path
from typing import Any

import uvicorn
from PIL import Image
from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from heathdrop.api.planning import plan_answer
from heathdrop.conditions.plan import PlanRequest
from heathdrop.demo import ashmoor
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.reader import Reader
from heathdrop.feeds.simulated import Boat, Sounder
from heathdrop.sizing.warmth import warm_up
from heathdrop.web.app import create_app
from heathdrop.web.plan.deckcard import deck_card

PORT = 8651
OUT = Path(__file__).parent.parent / "docs" / "screenshots"
FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync --hide-scrollbars"
)
#: name: (address, width, height, script run before the picture)
VIEWS = {
    "size": ("/", 1280, 800, ""),
    "size-phone": ("/", 390, 844, ""),
    "water": ("/?view=water", 1280, 800, ""),
    "rig": ("/?view=rig&family=spinnerbait&wrong=ran-high", 1280, 800, ""),
    "lens": ("/?lens=depth&compare=bladed-jig:0.375:flat-tail,line:nylon:20", 1280, 800, ""),
    "chart": ("/chart?scenario=1", 900, 820, ""),
    "box": ("/box", 1280, 800, ""),
    "drops": ("/drops", 1280, 800, ""),
    "trainer": (
        "/train/eye?topic=nylon&seed=4",
        1280,
        800,
        "document.getElementById('depth').value = '5'; document.querySelector('#answer button.act').click()",
    ),
    "cast": (
        "/?view=cast&compare=line:fluorocarbon:20,line:nylon:20",
        1280,
        800,
        "document.querySelector('[data-jump=\"1\"]').click()",
    ),
    "search": (
        "/?view=search&fish_depth_ft=%3F&bottom_depth_ft=12&water_temp_f=58&cover=open",
        1280,
        800,
        "document.querySelector('.searching .mood').click()",
    ),
    "card": ("/card?scenario=1", 820, 1160, ""),
    "plan": ("/plan", 1280, 800, ""),
    "log": (
        "/log/day/2026-04-11",
        1280,
        800,
        "const d = document.querySelector('svg.depths'), r = d.getBoundingClientRect(); d.dispatchEvent(new "
        "MouseEvent('click', {clientX: r.x + r.width * .16, clientY: r.y + r.height * .4, bubbles: true}))",
    ),
    "bottom": ("/bottom", 1280, 800, ""),
    "deck-laptop": ("/deck", 1280, 800, ""),
    "deck-card": ("deck-card.html", 390, 844, "document.getElementById('go').click()"),
}


#: The deck's loop in four pictures: what is done before each, and how long is waited (s).
TAP = "document.querySelector('{}').click()"
DECK = (
    ("", 1.0),
    (TAP.format("#go"), 1.2),
    (TAP.format("#go"), 6.0),
    (TAP.format("[data-outcome=ran-high]"), 1.5),
)


def ready(app: Any, at: str, driver: webdriver.Chrome) -> None:
    """A trip begun with the plan, and a run over the mill bay's edge recorded."""
    feed, boat = Feed(), Boat(seed=5)
    feed.track.begin()
    for second in range(110):
        for line in boat.sentences(float(second)):
            feed.hear(line)
    app.state.track.take(feed.track.soundings)
    driver.get(f"{at}/deck")
    driver.find_element(By.CSS_SELECTOR, ".begin").click()
    WebDriverWait(driver, 60).until(lambda d: d.find_elements(By.CSS_SELECTOR, "#go"))


def strip(driver: webdriver.Chrome, at: str, name: str, steps: Any, scratch: Path) -> None:
    """Several states of the phone's screen side by side in one picture."""
    metrics = {"width": 390, "height": 844, "deviceScaleFactor": 1, "mobile": True}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    driver.get(at)
    whole = Image.new("RGB", (400 * len(steps) - 10, 844), "white")
    for k, (do, seconds) in enumerate(steps):
        if callable(do):
            do()
        elif do:
            driver.execute_script(do)
        time.sleep(seconds)
        driver.save_screenshot(str(scratch / "one.png"))
        whole.paste(Image.open(scratch / "one.png"), (400 * k, 0))
    whole.save(OUT / f"{name}.png")


def main() -> None:
    """Serve the demo, look at each view, write the pictures."""
    os.environ["SE_OFFLINE"] = "true"
    scratch = Path(tempfile.mkdtemp())
    warm_up()
    (scratch / "deck-card.html").write_text(
        deck_card(plan_answer(PlanRequest.model_validate({**ashmoor.day(), "box": "standard"}))), "utf-8"
    )
    app = create_app(scratch / "d.sqlite", demo=True, season=True)
    server = uvicorn.Server(uvicorn.Config(app, port=PORT, log_level="warning"))
    threading.Thread(target=server.run, daemon=True).start()
    while not server.started:
        time.sleep(0.05)
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in (*FLAGS.split(), f"--user-data-dir={scratch / 'profile'}"):
        options.add_argument(flag)
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    OUT.mkdir(parents=True, exist_ok=True)
    ready(app, f"http://127.0.0.1:{PORT}", driver)
    for name, (address, width, height, script) in VIEWS.items():
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
        driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        local = scratch / address
        driver.get(f"http://127.0.0.1:{PORT}{address}" if address.startswith("/") else local.as_uri())
        if name == "plan":
            WebDriverWait(driver, 30).until(lambda d: d.find_elements(By.CSS_SELECTOR, ".planboard"))
        if script:
            driver.execute_script(script)
        time.sleep(1.8)
        driver.save_screenshot(str(OUT / f"{name}.png"))
    strip(driver, f"http://127.0.0.1:{PORT}/deck", "deck", DECK, scratch)
    sounder = Sounder(Boat(seed=3), 0)
    sounder.start()
    app.state.feed, app.state.reader = Feed(), None
    reader = Reader(app.state.feed, f"tcp://127.0.0.1:{sounder.port}")
    reader.start()
    time.sleep(12.0)
    waits = [("", 2.0), (sounder.stop, 8.0), ("", 16.0)]
    strip(driver, f"http://127.0.0.1:{PORT}/deck", "sounder", waits, scratch)
    reader.stop()
    driver.quit()
    server.should_exit = True


if __name__ == "__main__":
    main()

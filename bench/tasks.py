"""Fifteen tasks of an angler's, walked in the real browser with every click and key counted.

    python -m bench.tasks [NAME ...]

From a newcomer's first water to everything exported, thrown away, brought in again and equal. What each came
to is asked of the page, not assumed.
"""

import io
import json
import re
import sys
import tempfile
import time
import urllib.request
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select, WebDriverWait

from bench.page import served
from heathdrop.conditions.made import OUTCOMES

SECONDS = 60
LAPTOP, PHONE = (1280, 800), (390, 844)


class Walk:
    """A pair of hands at the browser that counts what it does."""

    def __init__(self, driver: webdriver.Chrome, site: str, size: tuple[int, int]) -> None:
        self.driver, self.site, self.clicks, self.keys, self.loads = driver, site, 0, 0, 0
        width, height = size
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
        driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    def open(self, at: str) -> None:
        """A page by its address."""
        self.driver.get(self.site + at)

    def until(self, seen: Callable[[], object]) -> None:
        """Wait until something is seen."""
        WebDriverWait(self.driver, SECONDS, ignored_exceptions=[Exception]).until(lambda _: bool(seen()))

    def find(self, css: str) -> Any:
        """The first element."""
        return self.driver.find_element(By.CSS_SELECTOR, css)

    def many(self, css: str) -> list[Any]:
        """Every element."""
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def text(self, css: str) -> str:
        """An element's words."""
        return str(self.find(css).text)

    def press(self, css: str) -> None:
        """Click an element once it can be clicked."""

        def done() -> bool:
            found = self.find(css)
            self.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", found)
            found.click()
            return True

        self.until(done)
        self.clicks += 1

    def type(self, css: str, said: str, enter: bool = True) -> None:
        """Click a field, type over what stands there."""
        field = self.find(css)
        self.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", field)
        field.click()
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(said, *([Keys.ENTER] if enter else []))
        self.clicks += 1
        self.keys += len(said) + enter

    def pick(self, css: str, value: str) -> None:
        """Choose from a list: open it, touch the line."""
        Select(self.find(css)).select_by_value(value)
        self.clicks += 2

    @property
    def steps(self) -> str:
        """What was done so far."""
        return f"{self.clicks} clicks, {self.keys} keys"


def newcomer(walk: Walk) -> str:
    """52 °F, 12 ft, fish on the bottom, rock; saved, changed, found again."""
    walk.open("/")
    for name, said in (("water_temp_f", "52"), ("bottom_depth_ft", "12"), ("fish_depth_ft", "bottom")):
        walk.type(f"[name={name}]", said)
        walk.until(lambda n=name: f"{n}=" in walk.driver.current_url)
    walk.pick("[name=cover]", "rock")
    walk.until(lambda: "cover=rock" in walk.driver.current_url and not walk.text("#ask"))
    refused, four, called = walk.text("#halt"), walk.steps, walk.driver.title.split(" · ")[0]
    walk.press("#shelf > summary")
    walk.type("#save-name", "Rock in March")
    walk.until(lambda: "Rock in March" in walk.text("#saved"))
    walk.type("[name=water_temp_f]", "55")
    walk.until(lambda: "water_temp_f=55" in walk.driver.current_url)
    walk.press("#shelf > summary")
    walk.press("#saved li:last-child a")
    walk.until(lambda: walk.find("[name=water_temp_f]").get_attribute("value") == "52")
    return (
        f"{four} to “{called}”, refused: “{refused or 'nothing'}”; saved, changed, found again: {walk.steps}"
    )


def drop_test(walk: Walk) -> str:
    """Three tries on the phone, one of them spoilt and scrapped."""
    walk.open("/drops?family=swim-jig&head_oz=1/2&trailer=craw")
    for seconds in (4.9, 1.9, 5.0, 4.95):
        walk.press("#watch")
        time.sleep(seconds)
        before = len(walk.many("#tries button"))
        walk.press("#watch")
        walk.until(lambda b=before: len(walk.many("#tries button")) > b)
        if seconds < 4.0:
            walk.press("#scrap")
    low = walk.driver.execute_script(
        "return document.getElementById('tries').getBoundingClientRect().bottom < innerHeight"
    )
    walk.press("#keep-tries")
    walk.until(lambda: walk.many(".said") or walk.text("#drop-problem"))
    said = walk.text(".said") if walk.many(".said") else walk.text("#drop-problem")
    return f"{walk.steps}; tries in sight: {low}; “{' '.join(said.split())[:150]}”"


def plan(walk: Walk) -> str:
    """Six saved waters and five rods, two stops changed round, printed words whole."""
    walk.open("/plan")
    walk.until(lambda: walk.many(".planboard"))
    walk.press(".newplan summary")
    walk.press(".newplan form[action='/plan'] button")
    walk.until(lambda: walk.many("#add-which"))
    walk.driver.execute_script("document.body.dataset.stays = 'yes'")
    begun = time.monotonic()
    options = [str(o.get_attribute("value")) for o in walk.many("#saved-waters option")][:6]
    for k, value in enumerate(options):
        walk.type("#add-which", value)
        walk.press("#add-saved")
        walk.until(lambda n=k: len(walk.many(".planboard tbody tr")) > n)
    added = time.monotonic() - begun
    walk.press(".stopcard summary")
    stays = walk.driver.execute_script("return document.body.dataset.stays") == "yes"
    fits = [b.text.split()[0] for b in walk.many(".planboard .best")]
    return (
        f"{walk.steps}; six stops answered in {added:.0f} s, page kept: {stays}; figures of the best: {fits}"
    )


def deck(walk: Walk) -> str:
    """Fifteen casts, every outcome, with the plan's first rod and count at each of six stops."""
    walk.open("/deck")
    walk.driver.execute_script("localStorage.clear(); sessionStorage.clear()")
    walk.press(".begin")
    walk.until(lambda: walk.many("#go #now"))
    made = 0
    for outcome in [*OUTCOMES, *OUTCOMES][:15]:
        walk.press("#go")
        time.sleep(0.8)
        if not walk.find(f"[data-outcome={outcome}]").is_displayed():
            walk.press("#others")
        walk.press(f"[data-outcome={outcome}]")
        made += 1
        time.sleep(0.8)
        walk.driver.execute_script("document.getElementById('panel').close()")
        walk.until(lambda n=made: f"{n} cast" in walk.text("#kept"))
    kept = walk.text("#kept")
    walk.driver.refresh()
    walk.until(lambda: walk.text("#kept"))
    time.sleep(2.0)
    return f"{walk.steps}, {walk.clicks / made:.1f} a cast; “{kept}”, after a reload “{walk.text('#kept')}”"


def search(walk: Walk) -> str:
    """Where nobody knows how deep the fish are, in five covers: how many casts of the order differ."""
    found = {}
    for cover in ("open", "submerged-grass", "wood", "docks", "matted-grass"):
        walk.open(f"/?view=search&water_temp_f=58&bottom_depth_ft=16&fish_depth_ft=%3F&cover={cover}")
        walk.until(lambda: walk.many("#order tbody tr"))
        rows = [r.text for r in walk.many("#order tbody tr")]
        casts = {
            (c.find_elements(By.TAG_NAME, "td")[0].text, c.find_elements(By.TAG_NAME, "td")[1].text)
            for c in walk.many("#order tbody tr")
        }
        last = re.findall(r"(\d+) %", rows[-1])
        found[cover] = f"{len(casts)} of {len(rows)} casts differ, {last[-1] if last else '?'} % by then"
    return json.dumps(found)


def count_coach(walk: Walk) -> str:
    """Waters in which the coach once let the lure run into the grass or onto the bottom."""
    said = []
    for at in (
        "water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass&top_depth_ft=7",
        "water_temp_f=60&bottom_depth_ft=7&fish_depth_ft=4&cover=submerged-grass&top_depth_ft=5",
        "water_temp_f=66&bottom_depth_ft=20&fish_depth_ft=12&cover=open",
    ):
        walk.open(f"/?view=cast&{at}")
        walk.until(lambda: walk.many("#count-coach"))
        rows = [r.text.replace("\n", " ") for r in walk.many("#count-coach tr")]
        window = walk.many("#count-coach p")[1].text
        said.append(f"{window} ({'; '.join(rows[-2:])})")
    return " | ".join(said)


def refusals(walk: Walk) -> str:
    """A wrong figure on four pages: one sentence each, and what was typed still stands."""
    said = []
    walk.open("/")
    walk.type("[name=water_temp_f]", "five")
    walk.until(lambda: walk.text("#halt"))
    said.append((walk.text("#halt"), walk.find("[name=water_temp_f]").get_attribute("value")))
    walk.open("/box")
    walk.type("[name=entry]", "3/8 swim jog", enter=False)
    walk.press("#entry-form .prime")
    walk.until(lambda: "meant?" in walk.text("#entry-problem"))
    said.append((walk.text("#entry-problem"), walk.find("[name=entry]").get_attribute("value")))
    walk.open("/plan")
    walk.until(lambda: walk.many("#plan-rods"))
    walk.type("#plan-rods", "0")
    walk.until(lambda: walk.text("#plan-refusal"))
    said.append((walk.text("#plan-refusal"), walk.find("#plan-rods").get_attribute("value")))
    return json.dumps(said, ensure_ascii=False)


#: The demo's water with its four answers given.
MILL = "/?water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass&top_depth_ft=7"


def own_target(walk: Walk) -> str:
    """A fall of one's own; then one that nothing has, and what gives."""
    walk.open(f"{MILL}&family=swim-jig")
    said = []
    for fall in ("1.5 to 2", "0.3 to 0.5"):
        walk.type("#want_fall", fall)
        walk.until(lambda f=fall: f.split()[0] in walk.find("#answer").get_attribute("data-at"))
        gives = walk.many(".doubt.gives")
        said.append(f"{walk.text('.strip .what')}: {gives[0].text if gives else 'hits'}")
    return f"{walk.steps}; {' | '.join(said)}"


def on_paper(walk: Walk) -> str:
    """The card and the depth chart of the rig on the sheet."""
    found = []
    for link in ("print", "chart"):
        walk.open(MILL)
        walk.driver.find_element(By.LINK_TEXT, link).click()
        walk.clicks += 1
        walk.until(lambda: not walk.many("#state"))
        fits = walk.driver.execute_script("return document.documentElement.scrollWidth <= innerWidth")
        found.append(f"{walk.driver.title}, {len(walk.text('body').split())} words, fits: {fits}")
    return f"{walk.steps}; {' | '.join(found)}"


def gone_wrong(walk: Walk) -> str:
    """It ran two feet too low: told, the first change tried."""
    walk.open(MILL)
    walk.press("label:has(#view-rig)")
    walk.press("#fold-wrong summary")
    for word in ("ran too low", "2 ft"):
        walk.until(lambda w=word: [a for a in walk.many(".faults a") if w in a.text])
        link = next(a for a in walk.many(".faults a") if word in a.text)
        walk.driver.execute_script("arguments[0].click()", link)
        walk.clicks += 1
        walk.until(lambda w=word: ("missed_ft=2" if "2" in w else "wrong=ran-low") in walk.driver.current_url)
        time.sleep(1.0)
    walk.until(lambda: walk.many(".changes li"))
    first = walk.text(".changes li")
    walk.press(".changes li a")
    walk.until(lambda: walk.many("#to-best"))
    return f"{walk.steps}; {first}; then at {walk.text('.figures')[:60]!r}"


def day_typed(walk: Walk) -> str:
    """A day told in a line, kept, corrected, deleted and back."""
    walk.open("/log")
    line = (
        "yesterday evening two fish, best 4-2, and one missed in 30 casts, 3/8 swim jig craw, Reed bank, 61F"
    )
    walk.type("#dayline", line)
    walk.until(lambda: walk.many(".readback"))
    read = walk.text(".readback")
    walk.press("[name=do][value=keep]")
    walk.until(lambda: "Reed bank" in walk.text("main"))
    return f"{walk.steps}; “{read}”"


def turns(walk: Walk) -> str:
    """A round of five turns drilled in the trainer."""
    walk.open("/train/pace")
    for n in range(5):
        walk.press("#tap")
        time.sleep(8.0)
        walk.press("#tap")
        walk.until(lambda: walk.many("main.marked") or walk.many("#answer [type=submit], #answer .prime"))
        if not walk.many("main.marked"):
            walk.press("#answer .prime")
        walk.until(lambda: walk.many("main.marked"))
        walk.press("#next")
        walk.until(lambda n=n: walk.many("#tap") or n == 4)
    return f"{walk.steps}; {' '.join(walk.text('main').split())[:160]}"


PASTED = """half dozen 3/8 swim jigs black/blue
3/16 & 5/16 finesse jigs, green pumpkin
1 oz tungsten punch weights, 4 of them
bag of 8 craws 3.5 in watermelon
3/4 bladed jgi black
15 lb fluoro"""


def pasted(walk: Walk) -> str:
    """Six lines of tackle pasted as one has them, one of them misspelt."""
    walk.open("/box")
    before = walk.text(".counts")
    walk.driver.execute_script(
        "const e = document.getElementById('entry'); e.value = arguments[0];"
        "e.dispatchEvent(new Event('input', {bubbles: true}))",
        PASTED,
    )
    walk.press("#entry-form .prime")
    walk.until(lambda: walk.text(".counts") != before)
    walk.until(lambda: walk.many("[data-write]"))
    walk.press("[data-write]")
    walk.press("#entry-form .prime")
    walk.until(lambda: not walk.find("#entry").get_attribute("value"))
    return f"{walk.steps}; {before} → {walk.text('.counts')}"


def log_read(walk: Walk) -> str:
    """What the log teaches, a day opened, one cast of it found in the drawing."""
    walk.open("/log")
    walk.until(lambda: walk.many(".teaches h2, .teaches li"))
    taught = " ".join(walk.text(".teaches").split())[:120]
    walk.press(".daylist a")
    walk.until(lambda: walk.many("main svg"))
    return f"{walk.steps}; “{taught}”; {len(walk.many('main svg'))} drawings on the day"


def there_and_back(walk: Walk) -> str:
    """Everything exported, begun afresh, brought in again: equal."""

    def whole() -> dict[str, bytes]:
        with urllib.request.urlopen(f"{walk.site}/export.zip") as got:
            archive = zipfile.ZipFile(io.BytesIO(got.read()))
        return {n: archive.read(n) for n in archive.namelist() if n != "manifest.json"}

    before = whole()
    with urllib.request.urlopen(f"{walk.site}/export.zip") as got:
        file = Path(tempfile.mkdtemp()) / "mine.zip"
        file.write_bytes(got.read())
    walk.open("/data")
    walk.press("form[action='/data/afresh'] [type=checkbox]")
    walk.press("form[action='/data/afresh'] button")
    walk.until(lambda: len(whole()["tackle.csv"].splitlines()) <= 1)
    walk.open("/box")
    walk.press("details.files > summary")
    walk.find("#import-file").send_keys(str(file))
    walk.press("#import-form .prime")
    walk.press("[name=sure]")
    walk.until(lambda: len(whole()["tackle.csv"].splitlines()) > 1)
    after = whole()
    differ = [n for n in before if sorted(before[n].splitlines()) != sorted(after.get(n, b"").splitlines())]
    return f"{walk.steps}; {len(before)} files, differing: {differ or 'none'}"


TASKS: tuple[tuple[str, tuple[int, int], Callable[[Walk], str]], ...] = (
    ("newcomer", LAPTOP, newcomer),
    ("drop test", PHONE, drop_test),
    ("plan", LAPTOP, plan),
    ("deck", PHONE, deck),
    ("search", LAPTOP, search),
    ("count coach", LAPTOP, count_coach),
    ("refusals", LAPTOP, refusals),
    ("own target", LAPTOP, own_target),
    ("on paper", LAPTOP, on_paper),
    ("gone wrong", PHONE, gone_wrong),
    ("a day typed", LAPTOP, day_typed),
    ("turns", PHONE, turns),
    ("pasted", LAPTOP, pasted),
    ("log read", LAPTOP, log_read),
    ("there and back", LAPTOP, there_and_back),
)


def main() -> None:
    asked = sys.argv[1:]
    with served(season=True) as (driver, site):
        for name, size, task in (t for t in TASKS if not asked or t[0] in asked):
            try:
                print(f"{name}: {task(Walk(driver, site, size))}", flush=True)
            except Exception as error:
                print(f"{name}: NOT DONE, {type(error).__name__} {str(error)[:300]}", flush=True)


if __name__ == "__main__":
    main()

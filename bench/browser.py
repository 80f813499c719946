"""`./knollstack bench browser`: frames while zooming and dragging, and the time from an edit to its numbers.

Headless Chromium draws in software here, so the figures are an upper bound for a machine with a graphics card. An
empty page, driven in the same way in the same run, gives the reference.
"""

from __future__ import annotations

import gzip
import http.client
import json
import os
import re
import statistics
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from selenium import webdriver
from selenium.webdriver import Keys
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service

from bench.heavy import heavy_well
from knollstack.catalogue import load
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.evaluation.summary import summary_of
from knollstack.core.reading.read import parse_text
from knollstack.demo import documents
from knollstack.server.app import WEB
from knollstack.server.database import now
from knollstack.server.summaries import program
from knollstack.store.database import connect
from knollstack.store.summaries import keep_summary
from knollstack.store.wells import copy_design, create_well

FRAMES = 180
EDITS = 30
JOINTS = 500
DESIGNS = 1000
_FRAMES = """
const [kind, frames, done] = arguments;
const paper = document.querySelector("svg.on-depth[aria-label^='Mud window']") ?? document.body;
const grip = document.querySelector('[data-shoe="3"]');
const box = paper.getBoundingClientRect();
const times = [];
const act = {
  nothing: () => {},
  zoom: (i) => paper.dispatchEvent(new WheelEvent("wheel",
    {deltaY: (i % 60 < 30 ? -1 : 1) * 60, clientX: box.x + 60, clientY: box.y + 380, bubbles: true, cancelable: true})),
  drag: (i) => grip.dispatchEvent(new PointerEvent("pointermove",
    {pointerId: 1, clientX: 80, clientY: box.y + 420 + 40 * Math.sin(i / 10), bubbles: true})),
  scrub: (i) => {
    const slider = document.querySelector("input[type=range]");
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(slider, String(4 * i));
    slider.dispatchEvent(new Event("input", {bubbles: true}));
  },
};
if (kind === "drag") {
  grip.setPointerCapture = () => {};
  const down = {pointerId: 1, button: 0, clientX: 80, clientY: box.y + 420, bubbles: true};
  grip.dispatchEvent(new PointerEvent("pointerdown", down));
}
let last = performance.now();
let i = 0;
const step = (now) => {
  times.push(now - last);
  last = now;
  if (i++ < frames) { act[kind](i); requestAnimationFrame(step); return; }
  if (kind === "drag") grip.dispatchEvent(new PointerEvent("pointerup", {pointerId: 1, bubbles: true}));
  done(times.slice(5));
};
requestAnimationFrame(step);
"""
_EDIT = """
const [depth, done] = arguments;
const shown = () => document.querySelector('[data-testid="kick-2"]').textContent;
const before = shown();
const start = performance.now();
const watch = new MutationObserver(() => {
  if (shown() === before) return;
  watch.disconnect();
  requestAnimationFrame(() => done(performance.now() - start));
});
watch.observe(document.body, {subtree: true, childList: true, characterData: true});
const field = document.querySelector('[data-place="/strings/2/shoe_md_ft"]');
Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, String(depth));
field.dispatchEvent(new Event("input", {bubbles: true}));
field.dispatchEvent(new KeyboardEvent("keydown", {key: "Enter", bubbles: true}));
"""
_LIST = """
const [done] = arguments;
const start = performance.now();
const watch = new MutationObserver(() => {
  if (document.querySelectorAll('[data-design-row] svg').length < 10) return;
  watch.disconnect();
  requestAnimationFrame(() => done(performance.now() - start));
});
watch.observe(document.body, {subtree: true, childList: true});
[...document.querySelectorAll("a")].find((a) => a.textContent === "Wells").click();
"""
_PASTE = """
const [text, done] = arguments;
const cell = document.querySelector('[data-cell="0:0"]');
cell.focus();
const start = performance.now();
const watch = new MutationObserver(() => {
  if (document.querySelector('[role=grid][aria-rowcount="501"]') === null) return;
  watch.disconnect();
  requestAnimationFrame(() => done(performance.now() - start));
});
watch.observe(document.body, {subtree: true, childList: true});
const data = new DataTransfer();
data.setData("text/plain", text);
cell.dispatchEvent(new ClipboardEvent("paste", {clipboardData: data, bubbles: true, cancelable: true}));
"""
_JOINT = """
const below = () => document.querySelector('[data-cell="1:0"]').closest("tr").textContent;
const before = below();
window.measured = new Promise((done) => {
  let start = 0;
  window.addEventListener("keydown", (event) => { if (event.key === "Enter") start = performance.now(); }, {capture: true});
  const watch = new MutationObserver(() => {
    if (below() === before) return;
    watch.disconnect();
    requestAnimationFrame(() => done(performance.now() - start));
  });
  watch.observe(document.body, {subtree: true, childList: true, characterData: true});
});
"""


def chromium() -> webdriver.Chrome:
    options = Options()
    options.binary_location = "/usr/bin/chromium"
    for argument in ("--headless=new", "--no-sandbox", "--hide-scrollbars", "--window-size=1280,943", "--disable-gpu"):
        options.add_argument(argument)
    driver = webdriver.Chrome(service=Service("/usr/bin/chromedriver"), options=options)
    driver.set_script_timeout(60)
    return driver


def post(port: int, path: str, body: Any) -> Any:
    connection = http.client.HTTPConnection("127.0.0.1", port)
    connection.request("POST", path, json.dumps(body), {"Content-Type": "application/json"})
    return json.loads(connection.getresponse().read())


def wait(driver: webdriver.Chrome, css: str) -> None:
    from selenium.webdriver.support.ui import WebDriverWait

    WebDriverWait(driver, 15).until(lambda d: d.find_elements("css selector", css))


def frames_line(title: str, times: list[float]) -> str:
    ordered = sorted(times)
    late = sum(t > 1000 / 60 * 1.5 for t in times) / len(times)
    return f"{title:34}{statistics.median(times):8.1f}{ordered[int(len(times) * 0.95)]:8.1f}{late:9.0%}"


def answers(driver: webdriver.Chrome) -> int:
    """Evaluations answered since the page was opened."""
    asked = "performance.getEntriesByType('resource').filter((e) => e.name.endsWith('/api/evaluations')).length"
    count: int = driver.execute_script(f"return {asked}")
    return count


def initial_script_kb() -> float:
    """Compressed size of the scripts that the page names: what loads before the first view."""
    page = (WEB / "index.html").read_text(encoding="utf-8")
    names = [name for name in os.listdir(WEB / "assets") if name.endswith(".js") and name in page]
    return sum(len(gzip.compress((WEB / "assets" / name).read_bytes())) for name in names) / 1000


def long_tally() -> Any:
    """The demo well with a measured tally of its longest string."""
    document = json.loads(documents()[1])
    document["strings"][3]["running"] = {"joints": [{"length_ft": 25.575}] * JOINTS}
    return document


@contextmanager
def serving(folder: str) -> Iterator[str]:
    """The address of a server as it is served to people, with the demo wells."""
    command = [sys.executable, "-m", "knollstack", "demo", "--port", "0", "--no-browser", "--data", folder]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True) as process:
        said = process.stdout.readline() if process.stdout is not None else ""
        found = re.search(r"(http://\S+?)/ ", said)
        if found is None:
            process.kill()
            raise RuntimeError(f"the server did not start: {said}")
        try:
            yield found[1]
        finally:
            process.terminate()


def main() -> None:
    with tempfile.TemporaryDirectory() as folder, serving(folder) as base:
        port = int(base.rsplit(":", 1)[1])
        heavy = post(port, "/api/wells", {"document": heavy_well()})["design_id"]
        tally = post(port, "/api/wells", {"document": long_tally()})["design_id"]
        driver = chromium()
        measure(driver, base, heavy)
        measure_tally(driver, base, tally)
        fill(Path(folder) / "demo.sqlite")
        measure_list(driver, base)
        driver.quit()


def measure(driver: webdriver.Chrome, base: str, heavy: int) -> None:
    print(f"{os.cpu_count()} cores, headless Chromium without a graphics card, 1280×800")
    print(f"{'frames, ms':34}{'median':>8}{'95 %':>8}{'over 25':>9}")
    driver.get(f"{base}/api/units")
    print(frames_line("an empty page", driver.execute_async_script(_FRAMES, "nothing", FRAMES)))
    driver.get(f"{base}/designs/{heavy}/depths")
    wait(driver, '[data-shoe="3"]')
    for kind, title in (
        ("nothing", "the workbench at rest"),
        ("zoom", "zooming the depth axis"),
        ("drag", "dragging a shoe"),
    ):
        before = answers(driver)
        times = driver.execute_async_script(_FRAMES, kind, FRAMES)
        print(frames_line(title, times))
    print(f"evaluations while dragging: {(answers(driver) - before) / sum(times) * 1000:.1f} a second")
    driver.get(f"{base}/designs/4/sea?tab=disconnect")
    wait(driver, "input[type=range]")
    print(frames_line("scrubbing a disconnect", driver.execute_async_script(_FRAMES, "scrub", FRAMES)))
    driver.get(f"{base}/designs/2/depths")
    wait(driver, '[data-testid="kick-2"]')
    edits = [driver.execute_async_script(_EDIT, 6900 + 10 * i) for i in range(EDITS)]
    print(
        f"typed shoe depth to its new kick tolerance on the screen, demo well: median {statistics.median(edits):.0f} ms"
    )
    driver.get(f"{base}/designs/1/ground")
    wait(driver, '[role="tab"]')
    driver.find_element("xpath", '//*[@role="tab"][.="Pore"]').send_keys("\n")
    wait(driver, '[data-cell="0:0"]')
    block = "\n".join(f"{30 + 25 * i}\t{8.4 + i * 0.005:.3f}" for i in range(500))
    print(f"500 rows pasted to 500 rows on the screen: {driver.execute_async_script(_PASTE, block):.0f} ms")
    print(f"script before the first view: {initial_script_kb():.0f} kB compressed")


def typed_joint(driver: webdriver.Chrome, length: float) -> float:
    """From Enter in the first row to the running total of the second."""
    driver.execute_script(_JOINT)
    cell = driver.find_element("css selector", '[data-cell="0:0"]')
    cell.click()
    cell.send_keys(f"{length:.2f}" + Keys.ENTER)
    ms: float = driver.execute_async_script("window.measured.then(arguments[0])")
    return ms


def measure_tally(driver: webdriver.Chrome, base: str, design: int) -> None:
    driver.get(f"{base}/designs/{design}/running?string=4")
    wait(driver, '[data-cell="1:0"]')
    edits = [typed_joint(driver, 26 + 0.1 * i) for i in range(EDITS)]
    middle, slow = statistics.median(edits), sorted(edits)[int(len(edits) * 0.95)]
    print(f"a joint of {JOINTS} to the running totals below it: median {middle:.0f} ms, 95 % {slow:.0f} ms")


def fill(database: Path) -> None:
    """A thousand designs besides the demo wells, each with its summary."""
    held = connect(database)
    text = documents()[1]
    content = summary_of(evaluate(parse_text(text), load())).model_dump_json()
    for i in range(DESIGNS // 4):
        first = create_well(held, f"Well {i + 1}", text, "bench", now())
        made = [first, *(copy_design(held, first, name, "bench", now()) for name in ("Slim", "Liner", "Deep"))]
        for design in made:
            keep_summary(held, design, 1, program(), content)
    held.close()


def measure_list(driver: webdriver.Chrome, base: str) -> None:
    times = []
    for _ in range(9):
        driver.get(f"{base}/designs/2/depths")
        wait(driver, '[data-shoe="3"]')
        times.append(driver.execute_async_script(_LIST))
    print(f"a list of {DESIGNS:,} designs, from the click to its rows: median {statistics.median(times):.0f} ms")


if __name__ == "__main__":
    main()

"""Takes the pictures in docs/screenshots from the demo wells: `.venv/bin/python docs/take_screenshots.py`."""

from __future__ import annotations

import json
import sys
import tempfile
import threading
import time
from pathlib import Path

from PIL import Image
from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from waitress import create_server

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from knollstack.server.app import create_app  # noqa: E402
from knollstack.server.demo import load_demo  # noqa: E402
from knollstack.server.resuming import resume  # noqa: E402
from tests.browser.page import Page  # noqa: E402

STEPS = ("ground", "depths", "sizes", "mud", "pipe", "running", "cement", "wellhead", "preventers", "policy")
SETTLE_S = 1.0


def shoot(page: Page, name: str) -> None:
    time.sleep(SETTLE_S)
    page.driver.save_screenshot(str(ROOT / "docs" / "screenshots" / f"{name}.png"))


def send(page: Page, method: str, path: str, body: object) -> dict:
    script = (
        "return fetch('/api' + arguments[1], {method: arguments[0], body: arguments[2],"
        " headers: {'Content-Type': 'application/json', 'Knollstack-Name': 'Ben%20Okoro'}}).then(r => r.json())"
    )
    return page.run(script, method, path, json.dumps(body))


def alternatives(page: Page) -> None:
    """History of the demo design, a copy of it laid beside, and an import under way."""
    document = page.document(2)
    for i, depth in enumerate((7400.0, 7200.0)):
        document["strings"][2]["shoe_md_ft"] = depth
        send(page, "PUT", "/designs/2", {"well_id": 2, "based_on": i + 2, "document": document})
    page.open("/designs/2/history")
    page.find("[data-revision-row]")
    shoot(page, "history")
    copy = send(page, "POST", "/designs/2/copies", {"name": "6 5/8 in production"})["design_id"]
    document["strings"][2]["shoe_md_ft"] = 7600.0
    document["strings"][3]["od_in"] = 6.625
    send(page, "PUT", f"/designs/{copy}", {"well_id": 2, "based_on": 1, "document": document})
    page.open(f"/designs/2/beside/{copy}")
    page.find("table")
    shoot(page, "beside")
    under("history", ["beside", "wells"], (0, 40, 1280, 800))


def others(page: Page) -> None:
    """The centralizers of a platform well's inclined string; cement blended, and placed by its rules."""
    page.open("/designs/3/running")
    page.click("9 5/8 in")
    page.click("Centralizers")
    page.find("[data-working='running/2/standoff']")
    shoot(page, "centralizers")
    under("running", ["centralizers"], (0, 77, 978, 760))
    document = page.document(3)
    rows = [("lead", "silica fume", 15.0, "% of cement", 2.2), ("lead", "liquid dispersant", 0.05, "gal/sk", 1.2)]
    rows += [("tail", "lignosulfonate", 0.3, "% of cement", 1.36), ("tail", "liquid antifoam", 0.02, "gal/sk", 1.0)]
    keys = ("slurry", "name", "amount", "per", "sg")
    document["strings"][2]["cement"]["additives"] = [dict(zip(keys, row, strict=True)) for row in rows]
    send(page, "PUT", "/designs/3", {"well_id": 3, "based_on": 1, "document": document})
    page.open("/designs/3/cement?string=3&tab=blend")
    page.sees("liquid antifoam")
    shoot(page, "blend")
    page.open("/designs/2/cement?string=4&tab=placement")
    page.sees("Gas flow after cementing")
    shoot(page, "placing")
    under("placing", ["blend"], (0, 77, 978, 760))


def three_moments(page: Page) -> None:
    """The job as the rock breaks, in the whole window; below it in free fall and at its end, on the depth axis."""
    folder = ROOT / "docs" / "screenshots"
    page.open("/designs/2/cement?string=3&tab=job")
    for name, event in (("cement", "breaks at"), ("fall", "in free fall"), ("end", "Pressure bled back")):
        page.sees("What happens")
        page.click(event)
        shoot(page, name)
    whole, fall, end = (Image.open(folder / f"{name}.png").convert("RGB") for name in ("cement", "fall", "end"))
    tracks = (0, 77, 618, 760)
    made = Image.new("RGB", (whole.width, whole.height + tracks[3] - tracks[1]), whole.getpixel((620, 700)))
    made.paste(whole, (0, 0))
    for at, picture in ((0, fall), (whole.width // 2, end)):
        made.paste(picture.crop(tracks), (at, whole.height))
    made.save(folder / "cement.png")
    for name in ("fall", "end"):
        (folder / f"{name}.png").unlink()


def stack_and_tests(page: Page) -> None:
    """A stack with casing across it, in the whole window; below it its test plan, with what sees the pressure."""
    folder = ROOT / "docs" / "screenshots"
    page.open("/designs/2/preventers?string=3&tab=coverage")
    page.click("casing rams on 7 in casing: seals")
    shoot(page, "preventers")
    page.open("/designs/2/preventers?string=3&tab=tests")
    page.click("blind shear rams")
    shoot(page, "tests")
    whole, plan = (Image.open(folder / f"{name}.png").convert("RGB") for name in ("preventers", "tests"))
    bench = (300, 77, 978, 760)
    made = Image.new("RGB", (whole.width, whole.height + bench[3] - bench[1]), whole.getpixel((620, 780)))
    made.paste(whole, (0, 0))
    made.paste(plan.crop(bench), (bench[0], whole.height))
    made.save(folder / "preventers.png")
    (folder / "tests.png").unlink()


def under(into: str, names: list[str], box: tuple[int, int, int, int]) -> None:
    """The part of some pictures under a whole one, two in a row; the parts are pictures no more."""
    folder = ROOT / "docs" / "screenshots"
    whole = Image.open(folder / f"{into}.png").convert("RGB")
    wide, high = box[2] - box[0], box[3] - box[1]
    rows = -(-len(names) // 2)
    width = max(whole.width, 2 * wide if len(names) > 1 else wide)
    made = Image.new("RGB", (width, whole.height + rows * high), whole.getpixel((620, 780)))
    made.paste(whole, (0, 0))
    for i, name in enumerate(names):
        picture = Image.open(folder / f"{name}.png").convert("RGB").crop(box)
        made.paste(picture, (i % 2 * wide, whole.height + i // 2 * high))
        (folder / f"{name}.png").unlink()
    made.save(folder / f"{into}.png")


def at_sea(page: Page) -> None:
    """Riser and tension in the whole window; under it conductor, disconnect, wellhead, stack, sealed annuli, landing."""
    views = {
        "sea": "sea?tab=riser",
        "soil": "sea?tab=conductor",
        "drift": "sea?tab=disconnect",
        "head": "wellhead",
        "stack": "preventers?string=3&tab=shear",
        "annuli": "sea?tab=annuli",
        "landing": "sea?tab=landing",
    }
    for name, address in views.items():
        page.open(f"/designs/4/{address}")
        page.sees("mudline")
        if name == "drift":
            page.click("winter gale")
            page.run(
                "const i = document.querySelector('input[type=range]');"
                "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(i, '215');"
                "i.dispatchEvent(new Event('input', {bubbles: true}))"
            )
        shoot(page, name)
    under("sea", [name for name in views if name != "sea"], (300, 77, 978, 760))


def completed(page: Page) -> None:
    """Tubing in the whole window; under it evaluation, the decision, an abandonment, the tree. Then barriers of three states."""
    views = {
        "completion": "2/completion?tab=completed",
        "learnt": "2/completion?tab=evaluation",
        "decided": "2/completion?tab=decision",
        "left": "4/completion?tab=abandonment",
        "tree": "2/wellhead?string=4",
    }
    for name, address in views.items():
        page.open(f"/designs/{address}")
        page.find("main[data-drawn]")
        if name == "tree":
            select = page.named("Moment of the well")
            page.choose("Moment of the well", str(len(select.find_elements("tag name", "option")) - 1))
        shoot(page, name)
    under("completion", [name for name in views if name != "completion"], (0, 77, 978, 760))
    page.prefer(dark=True)
    for name, design, state in (
        ("barriers", 2, "drilling s4"),
        ("producing", 2, "producing"),
        ("abandoned", 4, "abandoned"),
    ):
        page.open(f"/designs/{design}/completion?tab=barriers")
        page.find(f'[data-state="{state}"]').click()
        shoot(page, name)
    under("barriers", ["producing", "abandoned"], (0, 77, 978, 760))
    page.prefer(dark=False)


def as_lived(page: Page) -> None:
    """The sheet with one step at the rig floor under it, a revision past its issue; the schedule with materials under it."""
    send(page, "POST", "/designs/2/sheet-issues", {"revision": 1, "note": "to the rig"})
    document = page.document(2)
    document["strings"][3]["mud_ppg"] += 0.1
    send(page, "PUT", "/designs/2", {"well_id": 2, "based_on": 1, "document": document})
    views = {
        "runsheet": "tab=sheet",
        "floor": "tab=floor&line=s3/slips",
        "schedule": "tab=schedule",
        "materials": "tab=materials",
    }
    for name, address in views.items():
        page.open(f"/designs/2/runsheet?{address}")
        page.find("main[data-drawn]")
        if name == "runsheet":
            page.choose("Section", "3")
            page.click("Leak-off test at the 9 5/8 in shoe")
        shoot(page, name)
    under("runsheet", ["floor", "schedule", "materials"], (0, 77, 1280, 760))


def as_drilled(page: Page) -> None:
    """A made-up log; under it a leak-off test, what is free and what if, and a simulated rig that has a kick."""
    send(page, "POST", "/designs/2/log", json.loads((ROOT / "docs" / "made-up-log.json").read_text(encoding="utf-8")))
    for name, tab in (("logbook", "log"), ("test", "tests"), ("today", "today")):
        page.open(f"/designs/2/logbook?tab={tab}&string=3")
        page.find("main[data-drawn]")
        if name == "today":
            page.sees("Kick tolerance now")
            page.drag('[data-grip="today"]', 0, 12)
            page.sees("Kick tolerance at this shoe")
        shoot(page, name)
    rig = {"speed": 300.0, "from_md_ft": 7000.0, "troubles": ["kick@7004"]}
    page.open("/designs/2/logbook?tab=live&string=3")
    page.find("main[data-drawn]")
    send(page, "POST", "/designs/2/simulated-rig", rig)
    page.open("/designs/2/logbook?tab=live&string=3")
    page.find('[data-watch="shut in"][data-severity="stop"]')  # for 20 s; the gain itself is over in two
    shoot(page, "live")
    send(page, "DELETE", "/designs/2/simulated-rig", {})
    under("logbook", ["test", "today", "live"], (0, 77, 978, 760))


Doing = tuple[int, str, dict[str, float]]
SHUT: tuple[Doing, ...] = (
    (174, "pick up", {}),
    (197, "pump", {"value": 0.0}),
    (216, "flow check", {}),
    (231, "close", {"target": 3}),
    (254, "open choke line", {}),
    (343, "record", {"sidpp_psi": 133.0, "sicp_psi": 153.0, "gain_bbl": 3.7}),
)
OUT: tuple[Doing, ...] = (
    (343, "hold casing pressure", {}),
    (343, "pump", {"value": 30.0}),
    (383, "hold drill pipe pressure", {"value": 377.0}),
    (4463, "hold casing pressure", {}),
    (4463, "pump", {"value": 0.0}),
    (4503, "choke", {"value": 0.0}),
    (4563, "line up mud", {"value": 10.11}),
    (4563, "hold casing pressure", {}),
    (4563, "pump", {"value": 30.0}),
    (5623, "hold drill pipe pressure", {"value": 259.0}),
    (13_543, "hold casing pressure", {}),
    (13_543, "pump", {"value": 0.0}),
    (13_583, "choke", {"value": 0.0}),
)


def played(page: Page, scene: dict[str, object], doings: tuple[Doing, ...], to_s: int) -> int:
    """A drill begun and brought to a second of its clock."""
    design = 3 if scene["kind"] == "diverter" else 2
    document = page.document(design)
    drill = send(page, "POST", f"/designs/{design}/drills", {"document": document, "scene": scene})["id"]
    rows = [{"at_s": at, "action": action, **more} for at, action, more in doings]
    for second in [*range(3000, to_s, 3000), to_s]:
        asked = [row for row in rows if second - 3000 <= row["at_s"] < second]
        send(page, "POST", f"/drills/{drill}/steps", {"to_s": second, "doings": asked})
    return drill


def rehearsed(page: Page) -> None:
    """The panel with a kick shut in, a kill sheet under it; the debrief of one circulated out, a broken shoe under it."""
    kick = {"kind": "drilling", "hole": "s3", "md_ft": 3000.0, "seed": 2, "goal": "driller's method"}
    played(page, kick, (), 100)
    page.open("/designs/2/drills?tab=scores")
    page.click("Go on")
    page.find('[data-testid="panel"] [data-gauge="gain"]')
    page.choose("Speed", "10")
    page.keys(" ")
    for key, seconds in (("", 10), ("u", 3), ("o", 2), ("f", 1), ("1", 4), ("c", 12)):
        page.keys(key)
        time.sleep(seconds)
    shoot(page, "drills")
    page.open("/designs/3/drills?tab=sheet")
    page.type("kill/SIDPP", "310")
    page.type("kill/SICP", "470")
    page.find('[data-working^="kill-sheet/"]')
    shoot(page, "killing")
    under("drills", ["killing"], (0, 77, 978, 760))
    drill = played(page, kick, SHUT + OUT, 13_643)
    send(page, "POST", f"/drills/{drill}/end", {"to_s": 13_643})
    broken = played(
        page, {"kind": "diverter", "hole": "s2", "md_ft": 2600.0, "seed": 2}, ((173, "close", {"target": 1}),), 600
    )
    send(page, "POST", f"/drills/{broken}/end", {"to_s": 600})
    for name, design in (("debrief", 2), ("broken", 3)):
        page.open(f"/designs/{design}/drills?tab=scores")
        page.click("Debrief")
        page.find('[data-testid="score"]')
        shoot(page, name)
        if name == "debrief":
            page.run("document.querySelector('[data-testid=\"debrief\"]').scrollTop = 560")
            shoot(page, "theory")
    under("debrief", ["theory", "broken"], (0, 77, 978, 760))


def main() -> None:
    options = Options()
    options.binary_location = "/usr/bin/chromium"
    for argument in ("--headless=new", "--no-sandbox", "--hide-scrollbars", "--window-size=1280,943", "--disable-gpu"):
        options.add_argument(argument)
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "k.sqlite")
        load_demo(Path(folder) / "k.sqlite")
        resume(app.extensions["feeds"])
        server = create_server(app, host="127.0.0.1", port=0)
        threading.Thread(target=server.run, daemon=True).start()
        driver = webdriver.Chrome(service=Service("/usr/bin/chromedriver"), options=options)
        page = Page(driver, f"http://127.0.0.1:{server.effective_port}")
        page.open("/")
        page.prefer(dark=False)
        page.run("localStorage.setItem('knollstack.name', 'Ben Okoro')")
        page.open("/")
        page.find('[data-design-row="3"] td:first-child svg')
        shoot(page, "wells")
        for step in STEPS:
            page.open(f"/designs/2/{step}")
            if step == "ground":
                page.click("Pore")
            if step == "depths":
                page.find('[data-working="depths/2/kick_tolerance"]').click()
            if step == "pipe":
                page.click("9 5/8 in")
                page.find("[aria-label^='Strength of the section']")
            if step == "running":
                page.click("9 5/8 in")
                page.click("Float and fill")
                page.find("[data-working='running/2/crush']")
            if step == "cement":
                three_moments(page)
                continue
            if step == "preventers":
                stack_and_tests(page)
                continue
            if step == "wellhead":
                page.click("Heights")
                page.find("[data-face='casing spool']").click()
            if step == "sizes":
                page.find("[aria-label='Chains']")
            shoot(page, step)
        page.open("/formulas/kick_height")
        shoot(page, "formulas")
        under("policy", ["formulas"], (0, 77, 1280, 800))
        under("depths", ["sizes"], (0, 77, 978, 760))
        others(page)
        at_sea(page)
        completed(page)
        as_lived(page)
        as_drilled(page)
        rehearsed(page)
        alternatives(page)
        driver.quit()
        server.close()


main()

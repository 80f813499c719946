"""The run sheet in the browser: issued and marked, edited against a rule, timed, signed, taken away and read back."""

import io
import json
import urllib.request

from openpyxl import load_workbook
from pypdf import PdfReader
from selenium.webdriver import Keys

LAND = "/designs/2/runsheet"


def step(page, key):
    """A step of the sheet, sought by its words where it is not in view."""
    return page.find(f'[data-step="{key}"]')


def open_step(page, key, words):
    page.choose("Section", "")
    search(page, words)
    page.strike(f'[data-step="{key}"] button')
    return step(page, key)


def search(page, words):
    box = page.find('[aria-label="Search the sheet"]')
    box.send_keys(Keys.CONTROL, "a")
    box.send_keys(words or Keys.BACKSPACE)


def sheet(page, design=2):
    return page.document(design)["runsheet"]


def changed(page):
    """Steps that are marked as changed, with every one of them in view."""
    page.choose("Only", "changed")
    return [e.get_attribute("data-step") for e in page.all("[data-step]:has([data-changed])")]


def asked(page, path, body):
    """What the server answers to a body."""
    request = urllib.request.Request(
        page.base + path, json.dumps(body).encode(), {"Content-Type": "application/json"}, method="POST"
    )
    with urllib.request.urlopen(request, timeout=60) as answer:
        return json.loads(answer.read())


def fetched(page, path):
    with urllib.request.urlopen(page.base + path, timeout=60) as answer:
        return answer.read()


def test_a_mud_weight_marks_exactly_the_steps_that_read_otherwise_since_the_issue(page):
    page.open(LAND)
    page.sees("Not issued yet.")
    assert page.violations() == []
    page.click("Issue")
    page.find("#issue-note").send_keys("for the spud meeting")
    assert page.violations() == []
    page.click("Issue the sheet as it is saved")
    page.sees("nothing changed since.")
    page.open("/designs/2/mud")
    page.type("/strings/3/mud_ppg", "13.3")
    page.until(lambda: page.document(2)["strings"][3]["mud_ppg"] == 13.3, "the mud")
    page.open(LAND)
    page.sees("steps changed since.")
    found = changed(page)
    assert {"s4/mud", "s4/drill/0", "s4/leak-off"} <= set(found)
    assert not [key for key in found if not key.startswith("s4/") and not key.startswith("end/")], (
        "the rest is as issued"
    )
    page.strike('[data-step="s4/mud"] button')
    page.sees("As issued: Bring the mud from 9.20 ppg to 13.20 ppg")
    page.open("/designs/2/mud")
    page.type("/strings/3/mud_ppg", "13.2")
    page.until(lambda: page.document(2)["strings"][3]["mud_ppg"] == 13.2, "as it was")
    page.open(LAND)
    page.sees("nothing changed since.")


def test_the_bushing_left_in_is_told_with_its_rule_and_put_back_by_the_remedy(page):
    page.open(LAND)
    open_step(page, "s3/bushing-out", "wear bushing")
    page.click("Cross out")
    page.sees("Wear bushing: the wear bushing is still in the bowl.")
    page.sees("It is out before a hanger, a seal or the test plug lands in its bowl")
    page.find('[data-step="s3/bushing-out"] [data-crossed=true]')
    page.until(lambda: sheet(page)["edits"][-1]["crossed"], "kept")
    assert sheet(page)["edits"][-1]["step"] == "s3/bushing-out"
    page.click("Take the step in again")
    page.gone("Wear bushing: the wear bushing is still in the bowl.")
    # by the keyboard: Delete crosses out and takes in again, Alt and the arrows move
    button = page.find('[data-step="s3/bushing-out"] button')
    button.send_keys(Keys.DELETE)
    page.sees("Wear bushing: the wear bushing is still in the bowl.")
    page.find('[data-step="s3/bushing-out"] button').send_keys(Keys.DELETE)
    page.gone("Wear bushing: the wear bushing is still in the bowl.")


def test_a_step_of_ones_own_stays_in_its_place_when_the_design_changes(page):
    page.open(LAND)
    open_step(page, "s3/leak-off", "leak-off 13 3/8")
    page.click("Own step")
    page.until(lambda: len(sheet(page)["steps"]) == 2, "added")
    at = len(sheet(page)["steps"]) - 1
    page.type(f"/runsheet/steps/{at}/text", "Squeeze the shoe if it leaks")
    page.type(f"/runsheet/steps/{at}/hours", "6")
    page.until(lambda: sheet(page)["steps"][at]["hours"] == 6, "its time")
    own = sheet(page)["steps"][at]
    assert (own["after"], own["text"]) == ("s3/leak-off", "Squeeze the shoe if it leaks")
    page.open("/designs/2/mud")
    page.type("/strings/2/mud_ppg", "9.4")
    page.until(lambda: page.document(2)["strings"][2]["mud_ppg"] == 9.4, "the design")
    page.open(LAND)
    search(page, "shoe")
    page.choose("Section", "2")
    order = [e.get_attribute("data-step") for e in page.all("[data-step]")]
    assert order[order.index("s3/leak-off") + 1] == f"own/{own['id']}"
    # moved by the keyboard, and back
    search(page, "")
    page.choose("Section", "2")
    page.find(f'[data-step="own/{own["id"]}"] button').send_keys(Keys.ALT, Keys.ARROW_DOWN)
    page.until(lambda: sheet(page)["steps"][at]["after"] == "s3/mud", "one further down")


def test_half_a_rate_gives_another_end_by_typing_and_by_dragging(page):
    page.open(LAND + "?tab=schedule")

    def end():
        return float(page.find("[data-end-day]").get_attribute("data-end-day"))

    before = end()
    assert page.violations() == []
    rate = page.find('[data-rate-of="s4"] input')
    assert rate.get_attribute("placeholder") == "30"
    rate.send_keys("15", Keys.ENTER)
    page.until(lambda: end() > before + 8, "5,525 ft at half the rate are 184 h more")
    slow = end()
    page.until(lambda: [r["ft_hour"] for r in sheet(page)["rates"] if r["string"] == "s4"] == [15], "kept")
    grip = '[data-rate="s4"]'
    assert page.find(grip).get_attribute("aria-valuenow") == "15"
    page.drag(grip + " circle", -40, 0)
    page.until(lambda: end() < slow - 2, "dragged to the left it is drilled faster")
    page.until(lambda: next(r["ft_hour"] for r in sheet(page)["rates"] if r["string"] == "s4") > 15, "dragged")
    page.find(grip).send_keys("30", Keys.ENTER)
    page.until(lambda: abs(end() - before) < 0.2, "typed over the grip")
    page.find(grip).send_keys(Keys.DELETE)
    page.until(lambda: not [r for r in sheet(page)["rates"] if r["string"] == "s4"], "policy's again")
    page.type("/runsheet/spud", "2027-02-30")
    page.sees("expected a date of the calendar")
    page.type("/runsheet/spud", "2027-03-08")
    page.gone("expected a date of the calendar")


def log(page):
    return page.run("return fetch('/api/designs/2/log').then((r) => r.json())")["entries"]


def test_a_step_at_the_rig_floor_is_signed_and_gone_past_and_a_held_one_is_not(page):
    page.open(LAND + "?tab=floor")
    page.sees("Dig and line the cellar")
    page.find('[aria-label^="Signed by"]').send_keys("A. Hand")
    page.click("Done")
    page.sees("Drive the 20 in conductor to 130 ft")
    page.until(
        lambda: [(e["step"], e["author"]) for e in log(page)] == [("site/cellar", "A. Hand")], "signed in the log"
    )
    assert page.violations() == []
    page.find("body").send_keys(Keys.ARROW_LEFT)
    page.sees("Done, A. Hand")
    page.click("Not done after all")
    page.sees("Step 1 of 206, 0 done")
    assert [(e["kind"], e["corrects"]) for e in log(page)] == [("signed", None), ("withdrawn", 1)], (
        "taken back by an entry"
    )


def test_the_rig_floor_does_not_go_past_a_stack_that_may_not_come_off(page):
    document = page.document(2)
    leak = {"id": "w", "element": "casing s3", "how": "pressure test", "result": "leaks", "date": "2027-03-28"}
    document["completion"]["verified"] = [leak]
    keys = [line["key"] for line in asked(page, "/api/run-sheets", {"document": document})["lines"]]
    done = [{"id": f"d{k}", "step": key, "done": True} for k, key in enumerate(keys[: keys.index("s3/count") + 1])]
    document["runsheet"]["edits"] = done
    made = asked(page, "/api/wells", {"document": document})["design_id"]
    page.open(f"/designs/{made}/runsheet?tab=floor")
    page.sees("Break the flange below the stack")
    page.sees("Do not go on: 1 of 2 barriers stand.")
    assert page.violations() == []
    assert not page.find("form button[type=submit]").is_enabled()
    page.find("body").send_keys(Keys.ARROW_RIGHT)
    page.sees("Break the flange below the stack")
    page.open(f"/designs/{made}/runsheet")
    page.sees("held")
    page.sees("The sheet stops here: 1 of 2 barriers stand.")
    page.find('[aria-label="Search the sheet"]').send_keys("9 5/8 in casing in the bowl")
    page.click("Set the slips around the 9 5/8 in casing")
    page.click("At the rig floor")
    page.sees("Not yet: the sheet stops at step")
    assert not page.find("form button[type=submit]").is_enabled()


def test_materials_and_calendar_are_taken_away_and_read_back(page):
    page.open(LAND + "?tab=materials")
    page.sees("First order:")
    assert page.violations() == []
    lead = page.find('[data-item="piece/0"] input[aria-label^="Lead time"]')
    lead.send_keys("30", Keys.ENTER)
    page.until(
        lambda: [o["lead_days"] for o in sheet(page)["orders"] if o["item"] == "piece/0"] == [30], "its lead time"
    )
    page.until(lambda: "2027-02-10" in page.find('[data-item="piece/0"]').text, "30 days before it is set")
    page.until(lambda: page.all('a[href*="materials.xlsx"]'), "saved")
    book = load_workbook(io.BytesIO(fetched(page, "/api/designs/2/materials.xlsx")))
    rows = list(book["Materials"].iter_rows(values_only=True))
    heads = list(rows[0])
    head = next(dict(zip(heads, r, strict=True)) for r in rows if r[-1] == "piece/0")
    assert (head["Kind"], head["Total"], head["Lead time (d)"], head["Order by"]) == ("wellhead", 1, 30, "2027-02-10")
    table = fetched(page, "/api/designs/2/materials.csv").decode()
    assert len(table.splitlines()) == len(rows) == len(page.all("[data-item]")) + 1
    calendar = fetched(page, "/api/designs/2/calendar.ics").decode()
    assert "BEGIN:VEVENT" in calendar
    assert "DTSTART;VALUE=DATE:20270210" in calendar
    paper = PdfReader(io.BytesIO(fetched(page, "/api/designs/2/run-sheet.pdf")))
    text = "\n".join(p.extract_text() for p in paper.pages)
    assert "Count the barriers" in text
    assert "Spud the well" in text


def test_four_hundred_steps_scroll_and_are_searched(page):
    """Only what is in view is drawn; the last one is found by its words."""
    document = page.document(2)
    steps = [
        {"id": f"own{k}", "text": f"Own step {k}", "kind": "drilling", "after": "s3/leak-off", "hours": None}
        for k in range(200)
    ]
    many = {**document, "name": "Many steps", "runsheet": document["runsheet"] | {"steps": steps}}
    made = asked(page, "/api/wells", {"document": many})["design_id"]
    page.open(f"/designs/{made}/runsheet")
    page.sees("405 steps")
    assert len(page.all("[data-step]")) < 60
    search(page, "own step 199")
    page.sees("1 of 405 steps")
    assert page.find("[data-step]").get_attribute("data-step") == "own/own199"
    search(page, "")
    page.find("[data-step] button").send_keys(Keys.END)
    page.until(lambda: page.all('[data-step="end/hand-over"]'), "the last step")

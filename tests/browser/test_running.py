"""Running the casing: a tally pasted, mended and spaced out; float equipment with what follows; joints moved."""

import json

from selenium.webdriver import ActionChains, Keys
from selenium.webdriver.support.select import Select

DEMO = "/designs/2"
PATH = "/strings/3/running"
MEASURED = (12_564.0 - 3.4) / 300 + 4.5 / 12
"""Of 300 joints that land the shoe of the 7 in string, hung at 30 ft, 6 ft short of 12,600 ft."""


def row(page, string=3):
    body = json.dumps({"document": page.document(2)})
    script = (
        "return fetch('/api/evaluations', {method: 'POST', body: arguments[0],"
        " headers: {'Content-Type': 'application/json'}}).then(r => r.json())"
    )
    return page.run(script, body)["running"]["strings"][string]


def pick(page, size):
    """Take a string in hand."""
    buttons = "[role=group][aria-label=String] button"
    page.strike(lambda: next((b for b in page.all(buttons) if b.text.replace("\u00a0", " ").startswith(size)), None))
    page.until(lambda: page.find(buttons + "[aria-pressed=true]").text.replace("\u00a0", " ").startswith(size), size)


def test_a_tally_of_300_joints_is_pasted_mended_and_spaced_out(page):
    page.open(DEMO + "/running")
    pick(page, "7 in")
    page.sees("Made from the length range")
    page.choose("Hanger", "mandrel")
    page.saved(2)
    lengths = [f"{MEASURED:.6f}"] * 300
    faulty = [*lengths]
    faulty[16], faulty[120] = "41.x", "-40"
    page.paste(PATH + "/joints/0/length_ft", "\n".join(["Length (ft)", *faulty]))
    page.sees("Nothing was pasted.")
    said = page.find("[role=alert]").text
    for row_, came in (("17", "41.x"), ("121", "-40")):
        assert any(f"ow {row_}" in line and came in line for line in said.splitlines()), said
    assert page.document(2)["strings"][3]["running"]["joints"] == [], "nothing of it was taken"
    page.click("Close")
    page.gone("Nothing was pasted.")
    page.run("document.querySelector('[role=grid]').scrollIntoView()")
    page.paste(PATH + "/joints/0/length_ft", "\n".join(["Length (ft)", *lengths]))
    page.sees("300 joints measured")
    page.sees("6.00 ft short")
    page.sees("The hanger lands and the shoe stands 6.00 ft above its planned depth.")
    page.click("Add a pup joint of 6.00 ft")
    page.gone("the shoe stands 6.00 ft above")
    page.saved(4, or_later=True)
    joints = page.document(2)["strings"][3]["running"]["joints"]
    assert (len(joints), joints[-1]["kind"], joints[-1]["length_ft"]) == (301, "pup joint", 6.0)
    assert abs(row(page)["shoe_off_ft"]) < 1.0
    assert page.violations() == []
    page.open(DEMO + "/running?string=4")
    page.find(f'[data-place="{PATH}/joints/2/length_ft"]')  # a long table shows its rows at once


def test_joints_are_moved_by_key_and_by_hand_and_left_out(page):
    page.open(DEMO + "/running")
    pick(page, "7 in")
    page.strike(f'[data-place="{PATH}/joints/0/length_ft"]')
    page.keys("44.5")
    page.keys(Keys.ENTER)
    page.sees("joints measured")
    page.strike(f'[data-place="{PATH}/joints/0/length_ft"]')
    page.keys(Keys.ARROW_DOWN, held=Keys.ALT)
    page.until(lambda: page.value(PATH + "/joints/1/length_ft") == "44.50", "one down")
    page.strike('th[data-row="1"]')
    page.run("document.querySelector('th[data-row=\"1\"]').scrollIntoView({block: 'center'})")
    held, target = page.find('th[data-row="1"]'), page.find('th[data-row="4"]')
    ActionChains(page.driver).move_to_element(held).click_and_hold().move_to_element(target).release().perform()
    page.until(lambda: page.value(PATH + "/joints/4/length_ft") == "44.50", "dragged to the fifth place")
    page.strike(f'[data-place="{PATH}/joints/4/left_out"]')
    page.keys(" ")
    left = page.until(
        lambda: [j for j in page.document(2)["strings"][3]["running"]["joints"] if j["left_out"]], "saved"
    )
    assert [j["length_ft"] for j in left] == [44.5], "the moved one stays on the rack"
    assert row(page)["left_out"] == 1


def test_a_faulty_joint_can_be_mended_after_a_reload(page):
    page.open(DEMO + "/running?string=4")
    page.type(PATH + "/joints/2/length_ft", "-40")
    page.sees("Cannot be evaluated or saved yet")
    page.open(DEMO + "/running?string=4")
    page.sees("expected at least 1 ft")
    page.click("Rig floor")
    page.sees("What is shown is the last that could")
    third = "table[aria-label='Joints as they are picked up'] tbody tr:nth-child(3)"
    page.until(lambda: page.find(third).text.startswith("3 41.71"), "the joint as it was worked last")
    page.click("Tally")
    page.type(PATH + "/joints/2/length_ft", "40.5")
    page.gone("Cannot be evaluated or saved yet")
    page.saved(2)
    assert page.document(2)["strings"][3]["running"]["joints"][2]["length_ft"] == 40.5


def test_float_equipment_is_switched_and_hook_load_and_cement_follow(page):
    page.open(DEMO + "/running")
    pick(page, "7 in")
    page.click("Float and fill")
    before = row(page)
    Select(page.find(f'[data-place="{PATH}/fill"]')).select_by_value("floated in")
    page.saved(2)
    page.until(lambda: row(page)["hook_up_lbf"] < 0.6 * before["hook_up_lbf"], "it hangs light")
    page.sees("Floated in")
    page.type(PATH + "/collar_joint", "5")
    page.saved(3)
    after = row(page)
    assert after["track_ft"] - before["track_ft"] > 75
    page.click("Cement")
    cement = page.find("table[aria-label='Cement of each string']").text
    track = next(line for line in cement.splitlines() if line.startswith("Shoe track"))
    assert float(track.split()[-2].replace("bbl", "") if track.split()[-1] == "bbl" else track.split()[-1]) > 5
    page.click("Running")
    page.click("Float and fill")
    for key, gear in (("shoe", "auto-fill float shoe"), ("collar", "auto-fill float collar")):
        Select(page.find(f'[data-place="{PATH}/{key}"]')).select_by_value(gear)
    page.sees("it cannot be floated in")
    page.click("Use float shoe and float collar")
    page.gone("it cannot be floated in")


def test_the_crushed_string_is_filled_by_its_remedy_and_its_working_opens(page):
    page.open(DEMO + "/running")
    pick(page, "9 5/8 in")
    page.click("Float and fill")
    page.sees("The pipe is crushed at joint 159")
    page.strike("[data-working='running/2/crush']")
    page.sees("Collapse resistance of the pipe body")
    page.click("Fill every 5 joints")
    page.gone("The pipe is crushed")
    page.click("Hook load")
    page.strike("[data-working='running/2/hook_up']")
    page.sees("Tension at the top of a span")
    assert page.violations() == []


def test_the_tally_goes_to_rack_and_rig_floor(page):
    page.open(DEMO + "/running")
    page.click("Rig floor")
    page.sees("Shoe at")
    script = "return fetch(arguments[0]).then(r => r.text())"
    csv = page.run(script, "/api/designs/2/strings/3/tally.csv?units=metric").splitlines()
    assert csv[0].startswith("No.,Measured length (m),Adds (m),Running total (m)")
    assert len(csv) == 1 + row(page)["joints"]
    pdf = page.run("return fetch('/api/designs/2/strings/3/floor.pdf').then(r => r.text())")
    assert pdf.startswith("%PDF")
    missing = page.run("return fetch('/api/designs/2/strings/0/floor.pdf').then(r => r.status)")
    assert missing == 404

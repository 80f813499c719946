"""The logbook by hand and live: entries, signing with actuals, a break dragged, what if, plan and as drilled, the rig."""

import pytest
from selenium.webdriver import Keys

from tests.core.logbook.log import SPUD, entry

BOOK = "/designs/2/logbook"
POINTS = [(0.5 * i, 60.0 * i) for i in range(8)] + [(4.0, 455.0), (4.5, 478.0), (5.0, 492.0)]
STORY = [
    SPUD,
    entry("depth", 9, md_ft=1500.0, mud_ppg=8.9),
    entry("shoe landed", 10, string="s2", md_ft=1985.0),
    entry(
        "cement", 11, string="s2", tail_bbl=380.0, displacement_bbl=288.0, top_md_ft=30.0, bumped=True, returns="full"
    ),
    entry(
        "leak-off test", 13, string="s2", mud_ppg=9.0, points=[{"volume_bbl": v, "pressure_psi": p} for v, p in POINTS]
    ),
    entry("depth", 20, md_ft=6200.0, mud_ppg=9.2),
]


def log(page, design=2):
    return page.run(f"return fetch('/api/designs/{design}/log').then((r) => r.json())")["entries"]


def write(page, *entries):
    page.run(
        "return fetch('/api/designs/2/log', {method: 'POST', headers: {'Content-Type': 'application/json'},"
        " body: JSON.stringify({entries: arguments[0]})}).then((r) => r.status)",
        list(entries),
    )
    assert len(log(page)) >= len(entries)


def fill(page, label, text):
    box = page.until(lambda: page.find(f'form[aria-label="Entry of the log"] [aria-label^="{label}"]'), label)
    box.clear()
    box.send_keys(text, Keys.TAB)


def test_an_entry_is_written_searched_corrected_and_withdrawn(page):
    page.open(BOOK)
    page.sees("Nothing is logged yet")
    page.click("New entry")
    page.choose("Entry", "mud")
    page.click("Write entry")
    page.sees("Not written. Depth: nothing; expected depth, of an entry")
    fill(page, "Time", "2027-03-09 10:00")
    fill(page, "Depth", "1500")
    fill(page, "Mud weight", "8.9")
    fill(page, "Author", "M. Sedge")
    assert page.violations() == []
    page.click("Write entry")
    page.sees("depth 1,500 ft, mud weight 8.90 ppg")
    page.sees("As drilled")
    page.find('[aria-label="Search the log"]').send_keys("no such thing")
    page.sees("0 of 1 entries")
    page.find('[aria-label="Search the log"]').clear()
    page.find('[aria-label="Search the log"]').send_keys("SEDGE")
    page.strike('[data-entry="1"] button')
    page.click("Correct")
    fill(page, "Mud weight", "9.1")
    page.click("Write the correction of 1")
    page.sees("corrected by 2")
    page.sees("in place of 1")
    page.until(lambda: page.find('[aria-label="Search the log"]').send_keys(Keys.CONTROL, "a") or True, "the search")
    page.find('[aria-label="Search the log"]').send_keys(Keys.DELETE)
    page.strike('[data-entry="2"] button')
    page.click("Withdraw")
    page.find('[aria-label="Why it is withdrawn"]').send_keys("wrong well")
    page.click("Withdraw entry 2")
    page.sees("entry 2 withdrawn")
    assert [(e["kind"], e["corrects"], e["mud_ppg"]) for e in log(page)] == [
        ("mud", None, 8.9), ("mud", 1, 9.1), ("withdrawn", 2, None)
    ]  # fmt: skip
    assert page.violations() == []


def test_a_pasted_block_is_shown_before_it_is_written_and_a_fault_writes_nothing(page):
    page.open(BOOK)
    page.sees("Nothing is logged yet")
    block = (
        "Time\tEntry\tString\tDepth\tRemarks\n2027-03-10 06:00\tshoe landed\t13 3/8 in\t1985\tto plan\n"
        "2027-03-11 06:00\tdepth\t\t2100\t\n"
    )
    paste = (
        "const d = new DataTransfer(); d.setData('text', arguments[0]); document.querySelector('[aria-label=Log]')"
        ".dispatchEvent(new ClipboardEvent('paste', {clipboardData: d, bubbles: true}))"
    )
    page.run(paste, block)
    page.sees("Gives 2 rows")
    assert log(page) == []
    page.click("Write these entries")
    page.sees("2 entries")
    assert [(e["kind"], e["string"], e["md_ft"]) for e in log(page)] == [
        ("shoe landed", "s2", 1985.0),
        ("depth", "", 2100.0),
    ]
    page.run(paste, block.replace("13 3/8 in", "22 in"))
    page.click("Write these entries")
    page.sees("Nothing was written. row 1, String: 22 in; expected a string of the design")
    assert len(log(page)) == 2


def test_several_entries_are_typed_as_a_table_and_written_together(page):
    page.open(BOOK)
    page.click("Several")
    for row, (depth, remarks) in enumerate([("1500", "bit 2"), ("", "no depth")]):
        if row:
            page.click("Another row")
        line = page.until(lambda row=row: page.find(f'form[aria-label="Several entries"] [data-row="{row}"]'), "a row")
        line.find_element("css selector", '[aria-label^="Depth"]').send_keys(depth, Keys.TAB)
        line.find_element("css selector", '[aria-label^="Remarks"]').send_keys(remarks, Keys.TAB)
    page.click("Write 2 entries")
    page.sees("Nothing was written. row 2, Depth: nothing")
    assert log(page) == []
    assert page.violations() == []
    page.choose("Entry, row 2", "note")
    page.click("Write 2 entries")
    page.until(lambda: len(log(page)) == 2, "both written")
    assert [(e["kind"], e["md_ft"], e["text"]) for e in log(page)] == [
        ("depth", 1500.0, "bit 2"),
        ("note", None, "no depth"),
    ]


def test_a_step_is_signed_with_what_it_came_to(page):
    page.open("/designs/2/runsheet?tab=floor&line=s2%2Fland")
    page.sees("Space out with the landing joint")
    page.find('[aria-label^="Signed by"]').send_keys("A. Hand")
    page.click("Done: log it")
    page.sees("what it came to")
    fill(page, "Time", "2027-03-10 18:00")
    fill(page, "Depth", "1990")
    page.click("Sign and log")
    page.until(
        lambda: (
            [(e["kind"], e["step"], e["string"], e["md_ft"]) for e in log(page)]
            == [("shoe landed", "s2/land", "s2", 1990.0)]
        ),
        "logged",
    )
    page.open("/designs/2/depths?string=2")
    page.until(lambda: "1,990" in page.find('[data-fact="1"]').text, "the shoe as drilled in its field")
    assert page.violations() == []
    page.strike('[data-fact="1"]')
    page.until(lambda: "logbook" in page.driver.current_url, "to the entry that it comes from")


def test_the_break_of_a_test_is_dragged_and_stands_in_the_ground(page):
    write(page, *STORY)
    page.open(f"{BOOK}?tab=tests&string=2")
    page.sees("Leak-off at 13.07 ppg")
    assert page.violations() == []
    page.drag('[data-grip="break"]', -70, 0, release=False)
    page.until(lambda: "Leak-off at 13.07" not in page.text, "the strength follows the hand")
    page.run("window.dispatchEvent(new Event('blur'))")
    page.drag('[data-grip="break"]', 0, 0)
    page.find('[data-grip="break"]').send_keys(Keys.ARROW_LEFT)
    page.until(lambda: log(page)[-1]["corrects"] is not None, "a correction")
    assert log(page)[-1]["leak_off_psi"] in [p for _, p in POINTS]
    page.open("/designs/2/ground?tab=leak_off_tests")
    page.sees("Leak-off")
    page.open(BOOK + "?tab=tests")
    page.choose("Kind of test", "integrity")
    page.sees("Integrity test to")
    page.sees("lowers nothing")


def shoe_drawn(page):
    return page.run("return document.querySelector('[data-shoe=\"1\"]')?.getAttribute('aria-valuenow')")


def test_the_switch_shows_the_plan_as_drilled_and_both(page):
    write(page, *STORY)
    page.open("/designs/2/depths?string=2")
    page.until(lambda: shoe_drawn(page) == "1985", "as drilled")
    page.sees("fact")
    page.gone("Trying remedies")
    page.strike('[data-working="depths/1/kick_tolerance"]')
    page.until(lambda: "1,985" in page.find('[aria-label="Working"]').text, "the working of what is drilled")
    assert not page.all("[data-beside-plan]")
    page.click("Both")
    page.until(lambda: page.all("[data-beside-plan]"), "what differs from the plan")
    page.sees("Differs from the plan")
    assert page.all("[data-ghosts] text")
    assert page.violations() == []
    page.strike('[aria-label="Plan or as drilled"] button:first-child')
    page.until(lambda: shoe_drawn(page) == "2000", "the plan")
    page.gone("Differs from the plan")
    assert not page.all('[data-fact="3"]')
    assert page.document(2)["strings"][1]["shoe_md_ft"] == 2000.0


def test_a_list_that_is_as_logged_is_shown_with_its_rows_and_not_typed_over(page):
    write(page, *STORY)
    planned = page.document(2)["ground"]["leak_off_tests"]
    page.open("/designs/2/ground?tab=leak_off_tests")
    page.sees("As drilled, by the log.")
    page.until(lambda: len(page.all('[data-place^="/ground/leak_off_tests/"]')) >= 2, "the logged test")
    page.type("/ground/leak_off_tests/0/emw_ppg", "19")
    page.sees("Nothing was changed: these rows are as logged.")
    assert page.document(2)["ground"]["leak_off_tests"] == planned
    assert page.violations() == []
    page.click("Show the plan to edit it")
    page.gone("these rows are as logged")
    page.open("/designs/2/ground?tab=pore")
    page.gone("As drilled, by the log.")


def test_a_string_that_stands_is_not_dragged_and_what_is_planned_below_is(page):
    write(page, *STORY)
    page.open("/designs/2/depths?string=2")
    page.until(lambda: shoe_drawn(page) == "1985", "as drilled")
    page.drag_shoe(1, 40)
    page.drag_shoe(2, 20)
    page.until(lambda: page.document(2)["strings"][2]["shoe_md_ft"] > 7000.0, "the next shoe is planned deeper")
    assert page.document(2)["strings"][1]["shoe_md_ft"] == 2000.0
    assert shoe_drawn(page) == "1985"


def test_what_if_the_casing_were_set_here_today_is_one_drag(page):
    write(page, *STORY)
    page.open(f"{BOOK}?tab=today&string=3")
    page.sees("Still free")
    page.sees("What if we set the 9 5/8 in casing here today?")
    page.until(lambda: page.find('[data-grip="today"]'), "the line of today")
    page.drag('[data-grip="today"]', 0, 12)
    page.sees("Kick tolerance at this shoe:")
    page.sees("as planned")
    assert page.violations() == []
    assert page.document(2)["strings"][2]["shoe_md_ft"] == 7000.0, "nothing is planned by it"
    assert len(log(page)) == len(STORY), "and nothing logged"
    grip = page.find('[data-grip="today"]')
    before = grip.get_attribute("aria-valuenow")
    grip.send_keys(Keys.ARROW_DOWN)
    page.until(lambda: page.find('[data-grip="today"]').get_attribute("aria-valuenow") != before, "by keyboard too")
    depth = page.find('[data-grip="today"]').get_attribute("aria-valuenow")
    page.click("Plan it so")
    page.until(lambda: page.document(2)["strings"][2]["shoe_md_ft"] == pytest.approx(float(depth), abs=1.0), "planned")
    page.find('[data-grip="today"]').send_keys(Keys.ARROW_DOWN)
    page.sees("Forget it")
    page.find('[data-grip="today"]').send_keys(Keys.ESCAPE)
    page.gone("Forget it")


def test_plan_and_actual_are_held_with_their_days(page):
    write(page, *STORY)
    page.open(f"{BOOK}?tab=compare")
    page.sees("15 ft shallower")
    page.sees("not yet")
    assert page.violations() == []


def test_a_simulated_rig_is_watched_live_until_it_kicks_and_is_stopped(page):
    page.open(f"{BOOK}?tab=live")
    page.sees("No feed is read")
    page.choose("Speed", "300")
    box = page.find('[aria-label^="Begins at"]')
    box.send_keys("6000", Keys.TAB)
    page.click("A trouble")
    page.choose("Trouble 1", "kick")
    depth = page.find('[aria-label^="Depth of trouble 1"]')
    depth.clear()
    depth.send_keys("6002", Keys.TAB)
    page.click("Start")
    page.sees("Connected to the simulated rig")
    page.until(lambda: page.all("[data-live]"), "its days on the schedule")
    page.until(lambda: page.find('[data-gauge="hole_md_ft"] dd').text.startswith("6,0"), "its depth")
    page.until(lambda: page.all('[data-watch][data-severity="stop"]'), "an alarm")
    page.until(lambda: page.all('[data-watch="shut in"]'), "shut in")
    assert page.violations() == []
    page.click("Log the depth")
    page.click("Write entry")
    page.until(lambda: [e["kind"] for e in log(page)] == ["depth"], "its depth in the log")
    page.until(lambda: page.strike('[data-form="rig"] > summary') or True, "the form of the rig")
    page.click("Stop")
    page.sees("No feed is read")


def test_casing_and_cement_are_drawn_on_what_is_planned(page):
    """From the last foot of the hole on: trips and logs pass in seconds at this speed."""
    page.open(f"{BOOK}?tab=live&string=2")
    page.sees("No feed is read")
    page.choose("Speed", "5000")
    page.find('[aria-label^="Begins at"]').send_keys("1999", Keys.TAB)
    page.click("Start")
    page.until(lambda: page.all("[data-read]"), "hook load read on the planned one")
    page.until(lambda: page.all('[data-doing="cementing"]'), "the job")
    page.until(lambda: page.all("path[data-measured]"), "its pressure on the planned one")


def feed(page):
    return page.run("return fetch('/api/designs/2/feed').then((r) => r.json())")


def test_codes_of_the_rig_s_own_are_told_to_the_feed(page):
    page.open(f"{BOOK}?tab=live")
    page.sees("No feed is read")
    page.until(lambda: page.strike('[data-form="feed"] details summary') or True, "the codes")
    page.find('[aria-label="Code"]').send_keys("12", Keys.TAB)
    page.click("Add code")
    page.sees("Code: 12; expected record and item, four digits, as 0126.")
    page.find('[aria-label="Code"]').send_keys(Keys.CONTROL, "a")
    page.find('[aria-label="Code"]').send_keys("2101", Keys.TAB)
    page.choose("Read as", "casing_psi")
    page.click("Add code")
    page.until(lambda: (feed(page)["source"] or {}).get("codes") == {"2101": "casing_psi"}, "kept")
    assert page.violations() == []
    page.strike('[data-code="2101"] button')
    page.until(lambda: feed(page)["source"]["codes"] == {}, "removed")


def test_a_feed_that_is_lost_is_told(page):
    page.open(f"{BOOK}?tab=live")
    page.sees("No feed is read")
    port = page.find('[aria-label="Port"]')
    port.clear()
    port.send_keys("1", Keys.TAB)
    page.click("Connect")
    page.sees("Lost 127.0.0.1:1 (Connection refused); it is tried again")
    page.until(lambda: page.strike("[data-feed] ~ div summary, details summary") or True, "the form of the feed")
    page.click("Disconnect")
    page.sees("No feed is read")

"""The completion in the browser: abandon with three plugs, drag one short, space out the tubing, take a logged pressure."""

import io

from pypdf import PdfReader
from selenium.webdriver import Keys

LAND, DEEP, PLATFORM = "/designs/2", "/designs/4", "/designs/3"


def tab(page, name):
    page.strike(f'[role="tab"][id*="{name}"]')


def rows(page, label):
    """Cells of a table by its label, as text."""
    found = page.find(f'table[aria-label="{label}"]').find_elements("css selector", "tbody tr")
    return [[c.text.replace("\u00a0", " ") for c in r.find_elements("css selector", "th, td")] for r in found]


def test_abandon_is_decided_and_takes_its_three_plugs_and_one_dragged_short_forbids_what_it_must(page):
    page.open(DEEP + "/completion?tab=decision")
    page.find('[aria-label="Suspend"] [role="radio"]').click()
    page.until(lambda: page.document(4)["completion"]["decision"] == "suspend", "another decision")
    page.find('[aria-label="Plug and abandon"] [role="radio"]').click()
    page.until(lambda: page.document(4)["completion"]["decision"] == "plug and abandon", "decided")
    assert page.violations() == []
    tab(page, "abandonment")
    page.sees("proposed by policy, from the bottom up")
    assert [r[0] for r in rows(page, "Plugs of the abandonment")] == [
        *("Bryony sand", "Shoe plug, on a viscous pill", "Surface plug, on a mechanical plug")
    ]
    page.click("Take the 3 proposed plugs")
    page.until(lambda: len(page.document(4)["completion"]["abandonment"]["plugs"]) == 3, "taken")
    page.sees("decided, in the order they are set")
    tab(page, "barriers")
    page.sees("Plugged, riser off")
    assert ["Plugged, riser off", "Unlatch the riser and recover the stack", "2 of 2", "allowed"] in rows(
        page, "States of the well"
    )
    tab(page, "abandonment")
    grip = '[data-grip="plug-1-top_md_ft"]'
    assert page.find(grip).get_attribute("aria-valuetext").replace("\u00a0", " ") == "13,000 ft"
    page.drag(grip + " path", 0, 5)
    page.until(lambda: page.document(4)["completion"]["abandonment"]["plugs"][1]["top_md_ft"] > 13_000, "dragged down")
    page.sees("Unlatch the riser and recover the stack is not allowed: 1 of 2 barriers.")
    page.sees("100 ft are asked")
    tab(page, "barriers")
    page.strike('[data-state="plugged"]')
    page.until(lambda: page.all('[data-element="abandonment k2"]'), "the short plug on the section")
    page.sees("Unlatch the riser and recover the stack: not allowed.")
    assert page.violations() == []
    page.click("Undo")
    page.gone("Unlatch the riser and recover the stack: not allowed.")
    # by the keyboard, from its grip: an arrow is a step, Escape and Enter as everywhere
    tab(page, "abandonment")
    page.find(grip).send_keys(Keys.ARROW_DOWN)
    page.until(lambda: page.document(4)["completion"]["abandonment"]["plugs"][1]["top_md_ft"] > 13_000, "by key")
    page.find(grip).send_keys("12990", Keys.ENTER)
    page.until(lambda: page.document(4)["completion"]["abandonment"]["plugs"][1]["top_md_ft"] == 12_990, "typed")


def test_a_proposed_plug_that_is_dragged_decides_them_all(page):
    page.open(LAND + "/completion?tab=abandonment")
    page.sees("Not what is decided at total depth")
    page.find('[data-grip="plug-0-top_md_ft"]').send_keys(Keys.ARROW_UP)
    page.until(lambda: len(page.document(2)["completion"]["abandonment"]["plugs"]) == 4, "all of them")
    assert page.document(2)["completion"]["abandonment"]["plugs"][0]["top_md_ft"] < 11_620
    page.click("Leave them to the proposal")
    page.until(lambda: page.document(2)["completion"]["abandonment"]["plugs"] == [], "proposed again")


def test_the_tubing_is_spaced_out_and_its_four_changes_open_into_their_workings(page):
    page.open(LAND + "/completion?tab=completed")
    page.sees("Tubing, changes of length")
    before = {r[0]: r for r in rows(page, "Changes of length of the tubing, case by case")}
    assert before["spaced out"][4:9] == ["0.00"] * 5
    assert before["spaced out"][-1] == "10,000"
    page.strike('[data-working="completion/tubing/case/4"]')
    for words in ("Hooke's law", "buckling into a helix", "ballooning", "mean change of temperature"):
        page.sees(words)
    page.type("/completion/slack_off_lbf", "20000")
    page.until(lambda: rows(page, "Changes of length of the tubing, case by case")[0][-1] == "20,000", "more on it")
    page.choose("Tubing at the packer", "anchored")
    page.until(
        lambda: (
            {r[0]: r for r in rows(page, "Changes of length of the tubing, case by case")}["shut in, cooled"][-2]
            == "0.00"
        ),
        "nothing moves",
    )
    after = {r[0]: r for r in rows(page, "Changes of length of the tubing, case by case")}
    assert after["shut in, cooled"][4:8] == before["shut in, cooled"][4:8], "the four effects are what they were"
    page.type("/completion/packer_md_ft", "13000")
    page.sees("13000: expected a depth no deeper than the end of the well (12600 ft)")
    page.until(lambda: page.document(2)["completion"]["packer_md_ft"] == 11_650, "nothing is saved of it")
    assert page.violations() == []


def test_a_logged_pressure_becomes_a_point_and_the_freedom_of_the_shoe_follows(page):
    page.open(LAND + "/depths?tab=schools")
    page.sees("free 6,840 to 8,900 ft")
    page.open(LAND + "/completion?tab=evaluation")
    page.type("/completion/pressure_points/0/psi", "4400")
    page.sees("10.08")
    page.strike(
        'table[aria-label="Logged pressures beside the profile"] tbody tr:first-child button:not([data-working])'
    )
    page.until(lambda: "in the profile" in rows(page, "Logged pressures beside the profile")[0][-1], "taken")
    point = next(p for p in page.document(2)["ground"]["pore"] if p["tvd_ft"] == 8400)
    assert point["source"] == "measured: Rook sand, run 1A"
    page.open(LAND + "/ground?tab=pore")
    page.sees("measured: Rook sand, run 1A")
    page.open(LAND + "/depths?tab=schools")
    page.sees("free ")
    page.until(lambda: "free 6,840 to 8,900 ft" not in page.text, "another freedom")


def test_a_record_stands_beside_its_element_and_one_that_leaks_forbids_the_removal(page):
    page.open(LAND + "/completion?tab=barriers")
    page.strike('[data-state="off s3"]')
    page.sees("9 5/8 in shoe track and float")
    page.strike('table[aria-label="Elements of the primary envelope"] tbody tr:first-child td:last-child button')
    page.until(lambda: len(page.document(2)["completion"]["verified"]) == 3, "recorded")
    page.until(lambda: "pressure test, 20" in rows(page, "Elements of the primary envelope")[0][-1], "beside it")
    page.type("/completion/verified/2/result", "leaks")
    page.sees("Nipple down the BOPs on 13 3/8 in is not allowed: 1 of 2 barriers.")
    page.sees("recorded as leaking")
    page.open(LAND + "/preventers?string=2&tab=steps")
    page.sees("Nipple down the BOPs on 13 3/8 in: 1 of 2 barriers, not allowed.")
    page.sees("The sequence ends here: the stack stays on.")
    assert "lift it" not in page.text
    page.open(LAND + "/preventers?string=3&tab=steps")
    page.sees("lift it")


def test_a_page_a_state_is_printed_with_both_envelopes(page):
    page.open(LAND + "/completion?tab=barriers")
    page.sees("Barriers, a page a state (PDF)")
    script = (
        "const done = arguments[0]; fetch('/api/designs/2/barriers.pdf').then(r => r.arrayBuffer())"
        ".then(b => done(Array.from(new Uint8Array(b))))"
    )
    pdf = PdfReader(io.BytesIO(bytes(page.driver.execute_async_script(script))))
    assert len(pdf.pages) == len(rows(page, "States of the well")) == 13
    text = pdf.pages[-1].extract_text()
    for words in ("Producing", "Primary envelope", "Secondary envelope", "surface safety valve", "Checked: name, date"):
        assert words in text

"""Depth axis and cursor, history, alternatives, working, first visit, printing: what is looked at."""

import base64
import io
import json

import pytest
from pypdf import PdfReader
from selenium.webdriver import ActionChains, Keys

from tests.helpers import demo

DEMO = "/designs/2"
SLANT = [(0, 0, 0), (2500, 0, 0), (5000, 50, 60), (12_000, 50, 60), (15_000, 20, 60), (15_700, 20, 60)]


def send(page, method, path, body):
    script = (
        "return fetch(arguments[0], {method: arguments[1], body: arguments[2],"
        " headers: {'Content-Type': 'application/json'}}).then(r => r.text())"
    )
    text = page.run(script, "/api" + path, method, json.dumps(body))
    return json.loads(text) if text else None


def moved(shoe_md_ft):
    document = demo()
    document["strings"][2]["shoe_md_ft"] = shoe_md_ft
    return document


def test_the_cursor_reads_everything_at_one_depth(page):
    page.open(DEMO + "/pipe")
    page.click("9 5/8 in")
    paper = page.find("svg.on-depth[aria-label^='Burst']")
    ActionChains(page.driver).move_to_element_with_offset(paper, 0, 20).perform()
    reading = page.find("[data-testid=reading]").text.replace("\u00a0", " ")
    for words in (
        "MD ",
        "zone Sallow shale",
        "hole 12 1/4 in",
        "9 5/8 in, cement behind",
        "mud 9.20 ppg",
        "pore 8.",
        "fracture 14.",
        "9 5/8 in factor over required 1.",
    ):
        assert words in reading, words
    assert page.find("[data-testid=section] text[font-weight='600']").is_displayed()


def test_an_inclined_well_on_either_axis(page):
    document = demo()
    document["strings"] = []
    document["trajectory"]["stations"] = [
        {"md_ft": float(m), "inclination_deg": float(i), "azimuth_deg": float(a)} for m, i, a in SLANT
    ]
    design = send(page, "POST", "/wells", {"document": document})["design_id"]
    page.open(f"/designs/{design}/depths")
    shoe = lambda: float(page.run("return document.querySelectorAll('[data-shoe=\"2\"] line')[1].getAttribute('y1')"))  # noqa: E731
    page.shoe(2)
    along = shoe()
    page.keys("a")
    page.sees("of scale")
    assert shoe() != pytest.approx(along, abs=5), "TVD is another depth"
    text = page.find("[data-testid=section]").text
    assert "ft TVD" in text
    assert "MD" in text, "shoes are still told by measured depth"
    page.drag_shoe(2, 40)
    page.until(lambda: page.document(design)["strings"], "dragging works on the path too")
    page.open(f"/designs/{design}/depths")
    page.sees("of scale")  # the choice is the person's and is kept


def test_history_tells_changes_in_words_and_brings_a_revision_back(page):
    for i, depth in enumerate((7400.0, 7600.0)):
        send(page, "PUT", "/designs/2", {"well_id": 2, "based_on": i + 1, "document": moved(depth)})
    page.open(DEMO + "/history")
    page.sees("9 5/8 in shoe 7,000 ft → 7,400 ft")
    page.sees("9 5/8 in shoe 7,400 ft → 7,600 ft")
    assert page.violations() == []
    page.click("Show revision 2")
    page.until(lambda: page.find("svg[aria-label$='revision 2']").text, "the old section")
    assert "7,400 ft" in page.find("svg[aria-label$='revision 2']").text.replace("\u00a0", " ")
    page.click("Bring it back as revision 4")
    page.until(lambda: page.shoe(2) == "7,400 ft", "the old shoe in the workbench")
    page.saved(4)
    page.open(DEMO + "/history")
    page.sees("revision 2 brought back")


def test_an_alternative_is_copied_and_laid_beside(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.click("Base design")
    page.click("Copy to an alternative")
    name = page.find("[aria-label='Name of the design']")
    name.send_keys(Keys.CONTROL + "a")
    name.send_keys("Base design" + Keys.ENTER)
    page.sees('already has a design called "Base design"')
    name.send_keys(Keys.CONTROL + "a")
    name.send_keys("Shallower" + Keys.ENTER)
    page.until(lambda: "/designs/5/" in page.driver.current_url, "the copy")
    page.type("/strings/2/shoe_md_ft", "6600")
    page.saved(2)
    page.open("/designs/2/beside/5")
    page.sees("Base design beside Shallower")
    page.sees("7,000 ft")
    assert [t.text for t in page.all("[data-side='0'] p")] == ["none"]
    assert "policy asks 25.0 bbl" in page.find("[data-side='1']").text.replace("\u00a0", " ")
    rows = page.find("table[aria-label='Results of both']").text.replace("\u00a0", " ")
    assert "kick tolerance at the shoe 27.5 bbl" in rows
    assert page.violations() == []
    page.open("/")
    page.sees("Shallower")


def test_findings_are_grouped_and_the_working_is_nested_in_the_units_chosen_and_copied(page):
    page.open(DEMO + "/depths")
    page.find('section[aria-label="Caution, Mud"]')
    page.find('section[aria-label="Stop, Cement"]')
    page.strike('[data-working="depths/2/kick_tolerance"]')
    page.sees(["5,446.8", "psi"][0])
    page.until(lambda: page.all("section[aria-label=Working] math mfrac"), "set as mathematics")
    page.run("navigator.clipboard.writeText = t => { window.copied = t; return Promise.resolve() }")
    page.click("Copy the working as text")
    copied = page.run("return window.copied")
    for words in (
        "kick tolerance, 9 5/8 in shoe",
        "H = (P_w − P_f",
        "ρ = 14.979 ppg  (mud weight)",
        "result = 27.468 bbl",
    ):
        assert words in copied.replace("\u00a0", " "), words
    page.strike("h1")
    page.keys("u")
    page.sees("Numbers are in the units chosen")
    page.until(lambda: "375.5" in page.find("section[aria-label=Working]").text, "5,446.8 psi in bar")


def test_a_formula_is_tried_in_other_units(page):
    page.open("/formulas/hydrostatic_pressure")
    page.find("[aria-label='mud weight']").send_keys("1.2")
    page.find("[aria-label='Unit of mud weight']").send_keys("SG")
    page.find("[aria-label='true vertical depth from the rig floor']").send_keys("1000")
    page.find("[aria-label='Unit of true vertical depth from the rig floor']").send_keys("m")
    page.click("Work it out")
    page.find("[aria-label='Unit of hydrostatic pressure']").send_keys("bar")
    # 1.2 kg/L × 9.80665 m/s² × 1000 m = 117.68 bar
    page.sees("117.6798")


def test_every_chart_has_a_table_behind_it(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    for title, words in (
        ("Section of the well", "Pike limestone begins"),
        ("Mud window", "3,350"),
        ("Kick tolerance", "policy asks"),
    ):
        page.click(f"{title} as a table")
        page.until(lambda words=words: words in page.find("[role=dialog]").text, title)
        assert page.violations() == []
        page.keys(Keys.ESCAPE)
        page.until(lambda: not page.all("[role=dialog]"), "closed")


def test_the_first_visit_offers_the_demo(page):
    for well in (1, 2, 3, 4):
        send(page, "DELETE", f"/wells/{well}", None)
    page.open("/")
    page.sees("Three ways to begin")
    assert page.violations() == []
    page.click("Look at the demo wells")
    page.sees("Harrow Fen 3, empty start")


def test_a_view_prints_whole_on_one_page(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.sees("Fill every 5 joints")
    options = {"printBackground": True, "preferCSSPageSize": True}
    pdf = base64.b64decode(page.driver.execute_cdp_cmd("Page.printToPDF", options)["data"])
    pages = PdfReader(io.BytesIO(pdf)).pages
    text = " ".join(pages[0].extract_text().split())
    assert len(pages) == 1
    for words in ("Harrow Fen 3", "revision 1", "Depths", "Kick tolerance", "local rules prevail"):
        assert words in text, words
    assert "Undo" not in text


@pytest.mark.parametrize("width", [1280, 1920])
def test_nothing_runs_out_of_the_window(page, width):
    document = demo()
    document["name"] = "A well with a name far longer than any bar was made for, number 17, sidetrack 3 " * 2
    document["ground"]["zones"][2]["name"] = "Upper transitional interbedded claystone and siltstone member"
    design = send(page, "POST", "/wells", {"document": document})["design_id"]
    page.driver.set_window_size(width, 943)
    for path in ("/", f"/designs/{design}/depths", f"/designs/{design}/ground", f"/designs/{design}/history"):
        page.open(path)
        page.find("table, section")
        assert page.run("return document.documentElement.scrollWidth <= window.innerWidth"), path
    page.driver.set_window_size(1280, 943)

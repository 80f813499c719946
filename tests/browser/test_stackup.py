"""Wellhead and preventers in the browser: a stack built by keyboard, a hole told and closed, heights typed, the cellar dug."""

from selenium.webdriver import Keys
from selenium.webdriver.common.by import By

from tests.browser.test_running import DEMO

ELEMENTS = "/preventers/0/elements"
FIVE = ["pipe rams", "drilling spool", "blind shear rams", "variable rams", "annular"]


def plain(text):
    return text.replace("\u00a0", " ")


def evaluation(page):
    script = """return fetch('/api/designs/2').then(r => r.json()).then(d => fetch('/api/evaluations', {method: 'POST',
      headers: {'Content-Type': 'application/json'}, body: JSON.stringify({document: d.document})})).then(r => r.json())"""
    return page.run(script)


def order(page):
    return [row["element"] for row in page.document(2)["preventers"][0]["elements"]]


def test_a_stack_is_built_by_keyboard_and_its_hole_is_told_and_closed(page):
    page.open(DEMO + "/preventers?string=3&tab=stack")
    page.click("Decide this stack")
    page.saved(2)
    assert order(page) == FIVE
    cell = page.strike(f'[data-place="{ELEMENTS}/4/element"]')
    cell.send_keys(Keys.CONTROL, Keys.ENTER)
    page.until(lambda: len(page.all(f'[data-place="{ELEMENTS}/5/element"]')) == 1, "a sixth row")
    page.strike(f'[data-place="{ELEMENTS}/5/element"]').send_keys("casing shear rams", Keys.ENTER)
    page.until(lambda: "casing shear rams" in order(page), "typed and saved")
    page.strike(f'[data-place="{ELEMENTS}/5/element"]')
    page.keys(Keys.ARROW_UP, held=Keys.ALT)
    page.until(lambda: order(page) == [*FIVE[:4], "casing shear rams", "annular"], "moved under the annular")
    # 7 in casing with no ram for it
    page.choose("Casing rams in", "")
    page.sees("7 in casing: only the annular closes on it while running 7 in casing.")
    page.click("Change the variable bore rams to 7 in for the casing run")
    page.gone("only the annular closes on it")

    def rigged():
        stack = page.document(2)["preventers"][0]
        return stack["casing_ram"] == stack["elements"][3]["id"]

    page.until(rigged, "saved: casing rams in the variable cavity")


def test_an_element_closes_on_what_is_across_by_mouse_and_by_key(page):
    page.open(DEMO + "/preventers?string=3&tab=coverage")
    page.sees("Running 7 in casing")
    page.click("casing rams on 7 in casing: seals")
    page.sees("Casing rams in the variable bore rams, on 7 in casing: seal on it. Backed up by annular preventer.")
    assert plain(page.named("Across the stack").find_element(By.CSS_SELECTOR, "option:checked").text).startswith(
        "7 in casing"
    )
    page.strike('[data-stackup] [data-kind="annular"]')
    page.sees("Annular preventer, on 7 in casing: seals on it. Backed up by casing rams in the variable bore rams.")
    page.run("document.querySelector('[data-stackup] [data-kind=\"annular\"]').focus()")
    page.keys(Keys.ARROW_DOWN)
    page.keys(Keys.ARROW_DOWN)
    page.keys(Keys.ENTER)
    page.sees("Blind shear rams, on 7 in casing: do not cut it. Backed up by annular preventer, then casing rams")
    before = page.find('[data-stackup] [data-kind="annular"] rect').get_attribute("height")
    page.keys("+")
    page.until(
        lambda: page.find('[data-stackup] [data-kind="annular"] rect').get_attribute("height") != before, "it is zoomed"
    )
    assert page.violations() == []


def test_the_suppliers_heights_move_both_cuts_and_the_cellar_is_dug(page):
    page.open(DEMO + "/wellhead")
    page.click("Decide these pieces")
    page.saved(2)
    before = evaluation(page)["wellhead"]
    page.type("/wellhead/pieces/1/height_in", "33")
    page.saved(3)
    after = evaluation(page)["wellhead"]
    moved = [after[key] - before[key] for key in ("surface_cut_in", "conductor_cut_in")]
    assert [round(m, 6) for m in moved] == [-9.0, -9.0]
    page.sees("The cellar is too shallow")
    page.click("Dig the cellar to 7.50")
    page.gone("The cellar is too shallow")
    page.until(lambda: evaluation(page)["wellhead"]["conductor_cut_in"] >= 0, "saved: a deeper cellar")
    page.strike('[data-face="casing spool"]')
    page.sees("Casing spool: 11 in 6B R54 with 12 studs of 1 7/8 in, 5,000 psi; it sees 4,747 psi (drilling).")
    page.click("Heights")
    page.strike("[data-stackup] [data-working='wellhead/face/0']")
    page.sees("Height of a piece's top face above the cellar floor")
    assert page.violations() == []


def test_the_test_plan_shows_what_sees_its_pressure_and_goes_out_as_csv(page):
    page.open(DEMO + "/preventers?string=3&tab=tests")
    page.click("blind shear rams")
    page.find("[data-stackup] [aria-label='pressed from the test plug up']")
    page.sees("from the plug in the bowl of the casing spool, pipe rams, drilling spool")
    text = page.run("return fetch('/api/designs/2/strings/2/bop-tests.csv?units=metric').then(r => r.text())")
    rows = text.splitlines()
    assert rows[0].startswith("No.,Test,Low (bar),High (bar)")
    assert len(rows) == 1 + len(evaluation(page)["preventers"]["strings"][2]["tests"])
    assert page.run("return fetch('/api/designs/2/strings/9/bop-tests.csv').then(r => r.status)") == 404
    page.click("Closing unit")
    page.type("/closing_unit/bottles", "2")
    page.sees("the functions of policy ask")
    most = max(r["accumulators"]["bottles_needed"] for r in evaluation(page)["preventers"]["strings"] if r["elements"])
    page.click(f"Use {most} bottles")
    page.gone("the functions of policy ask")

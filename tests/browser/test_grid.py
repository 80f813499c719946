"""The tables, worked like a spreadsheet."""

import json

from selenium.webdriver import ActionChains, Keys

DEMO, EMPTY = "/designs/2", "/designs/1"


def cell(page, row, column):
    return page.find(f'[data-cell="{row}:{column}"]')


def focused(page):
    return page.run("return document.activeElement.dataset.cell ?? document.activeElement.tagName")


def selected(page):
    return page.run('return [...document.querySelectorAll("td[aria-selected=true]")].map((c) => c.dataset.cell)')


def clipboard(page, kind):
    """What a copy or a cut of the focused table puts on the clipboard."""
    return page.run(
        "const data = new DataTransfer(); document.activeElement.dispatchEvent(new ClipboardEvent(arguments[0],"
        " {clipboardData: data, bubbles: true, cancelable: true})); return data.getData('text/plain')",
        kind,
    )


def table(page, path):
    held = page.document(2)
    for key in path.split("/"):
        held = held[key]
    return held


def drag(page, start, end, dx=0):
    ActionChains(page.driver).move_to_element(start).click_and_hold().move_to_element(end).move_by_offset(
        dx, 0
    ).release().perform()


def test_cells_rows_and_columns_are_selected_copied_filled_and_cut(page):
    page.open(DEMO + "/ground")
    page.click("Pore")
    before = table(page, "ground/pore")
    drag(page, cell(page, 0, 0), cell(page, 1, 1))
    assert selected(page) == ["0:0", "0:1", "1:0", "1:1"]
    page.until(lambda: "2 rows by 2 columns selected" in page.run("return document.body.textContent"), "told")
    lines = [line.split("\t") for line in clipboard(page, "copy").split("\n")]
    assert [float(line[1]) for line in lines] == [p["emw_ppg"] for p in before[:2]]
    page.strike('th[data-column="emw_ppg"]')
    assert len(selected(page)) == len(before)
    assert focused(page) == "0:1"
    drag(page, cell(page, 1, 1), cell(page, 2, 1))
    page.keys("d", held=Keys.CONTROL)
    page.saved(2)
    after = table(page, "ground/pore")
    assert [p["emw_ppg"] for p in after[1:3]] == [before[1]["emw_ppg"]] * 2
    assert [p["tvd_ft"] for p in after] == [p["tvd_ft"] for p in before]
    drag(page, page.find('[data-row="1"]'), page.find('[data-row="2"]'))
    assert selected(page) == ["1:0", "1:1", "2:0", "2:1"]
    assert clipboard(page, "cut").count("\n") == 1
    page.saved(3)
    assert table(page, "ground/pore") == [before[0], *before[3:]]
    page.keys("a", held=Keys.CONTROL)
    assert len(selected(page)) == 2 * (len(before) - 2)
    page.keys(Keys.SPACE, held=Keys.SHIFT)
    assert len(selected(page)) == 2


def test_a_row_is_inserted_in_place_by_the_menu(page):
    page.open(DEMO + "/ground")
    page.click("Pore")
    before = table(page, "ground/pore")
    ActionChains(page.driver).context_click(cell(page, 1, 1)).perform()
    page.until(lambda: page.all("[role=menuitem]"), "the menu")
    page.click("Insert row above")
    page.saved(2)
    middle = {key: (before[0][key] + before[1][key]) / 2 for key in ("tvd_ft", "emw_ppg")}
    assert middle.items() <= table(page, "ground/pore")[1].items()
    assert focused(page) == "1:0"
    page.keys(Keys.ESCAPE)
    page.click("Zones")
    page.strike(lambda: cell(page, 2, 0))
    ActionChains(page.driver).key_down(Keys.CONTROL).key_down(Keys.SHIFT).send_keys(Keys.ENTER).key_up(
        Keys.SHIFT
    ).key_up(Keys.CONTROL).perform()
    zones = lambda: [page.find(f'[data-cell="{i}:1"]').text for i in (1, 2, 3)]  # noqa: E731
    page.until(lambda: zones() == ["380", "1,180", "1,180"], "over half of the zone below")
    assert cell(page, 2, 2).text == "2,265"


def test_a_column_is_made_wider_by_drag_and_by_key_and_stays_so(page):
    page.open(DEMO + "/ground")
    page.click("Zones")
    width = lambda: page.find('th[data-column="rock"]').rect["width"]  # noqa: E731
    was, edge = width(), page.find('[data-edge="rock"]')
    ActionChains(page.driver).move_to_element(edge).click_and_hold().move_by_offset(24, 0).release().perform()
    page.until(lambda: abs(width() - was - 24) < 2, "dragged")
    page.strike(lambda: cell(page, 0, 3))
    ActionChains(page.driver).key_down(Keys.ALT).key_down(Keys.SHIFT).send_keys(Keys.ARROW_LEFT).perform()
    ActionChains(page.driver).key_up(Keys.SHIFT).key_up(Keys.ALT).perform()
    page.until(lambda: abs(width() - was - 16) < 2, "by key")
    page.driver.refresh()
    page.click("Zones")
    page.until(lambda: abs(width() - was - 16) < 2, "kept")
    ActionChains(page.driver).double_click(page.find('[data-edge="rock"]')).perform()
    page.until(lambda: abs(width() - was) < 2, "shared again")
    assert json.loads(page.run("return localStorage.getItem('knollstack.preferences')"))["widths"] == {}


def test_five_thousand_rows_are_worked_with_only_those_in_view_drawn(page):
    page.open(EMPTY + "/ground")
    page.click("Path")
    stations = "\n".join(f"{i * 2.5:.1f}\t0\t0" for i in range(5000))
    page.paste("/trajectory/stations/0/md_ft", stations)
    count = lambda: page.find("[role=grid]").get_attribute("aria-rowcount")  # noqa: E731
    page.until(lambda: count() == "5001", "pasted")
    assert len(page.all("[data-cell]")) < 400
    page.run("arguments[0].focus()", cell(page, 0, 0))
    page.keys(Keys.ARROW_DOWN, held=Keys.CONTROL)
    page.until(lambda: focused(page) == "4999:0", "the last row")
    assert page.run("return document.activeElement.dataset.text") == "12,497.5"
    page.keys(Keys.ARROW_UP, held=Keys.SHIFT)
    assert selected(page) == ["4998:0", "4999:0"]
    page.run("document.activeElement.closest('[role=region], .overflow-auto').scrollTop = 0")
    page.until(lambda: page.all('[data-cell="0:0"]'), "scrolled away")
    assert focused(page) == "4998:0", "the focus stays with its row"
    page.keys(Keys.HOME, held=Keys.CONTROL)
    page.until(lambda: focused(page) == "0:0", "and back")

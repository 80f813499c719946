"""Pipe and sizes as an engineer works them: sections, cases, remedies, stock, and a chain taken whole."""

import io

from openpyxl import Workbook

DEMO = "/designs/2"


def text_of(element):
    return element.text.replace("\u00a0", " ")


def wait_saved(page):
    page.until(lambda: page.find("[role=status]").get_attribute("data-save") == "saved", "saved")


def sections(page, string):
    return [(s["weight_ppf"], s["to_md_ft"]) for s in page.document(2)["strings"][string].get("sections", [])]


def test_a_tapered_string_is_taken_and_its_break_dragged(page):
    page.open(DEMO + "/pipe")
    page.click("7 in")
    page.click("Use 2 sections")
    page.until(lambda: page.all('[data-grip="section-3-0"]'), "the break in the section")
    wait_saved(page)
    (weight, to), (last, end) = sections(page, 3)
    assert weight < last
    assert end is None
    grip = page.find('[data-grip="section-3-0"]')
    before = grip.get_attribute("aria-valuenow")
    assert float(before) == to
    page.drag('[data-grip="section-3-0"] path', 0, 60)
    page.until(lambda: page.find('[data-grip="section-3-0"]').get_attribute("aria-valuenow") != before, "moved")
    page.until(
        lambda: page.all('[data-testid="factor-3-burst"].text-brick'), "the lighter pipe falls short deeper down"
    )
    page.click("Undo")
    page.until(lambda: page.find('[data-grip="section-3-0"]').get_attribute("aria-valuenow") == before, "one undo")
    page.until(lambda: not page.all(".text-brick[data-testid='factor-3-burst']"), "it stands again")
    page.click("Leave it to the tool")
    page.until(lambda: not page.all('[data-grip="section-3-0"]'), "one proposed section again")


def test_a_case_is_drawn_apart_and_every_view_reads_at_the_cursor(page):
    page.open(DEMO + "/pipe")
    page.click("9 5/8 in")
    page.click("gas to surface")
    paper = page.find("svg.on-depth[aria-label^='Burst: gas to surface']")
    assert paper.find_elements("css selector", "path[stroke='var(--ink)']")
    assert page.find("button[aria-pressed=true]").text == "gas to surface"
    assert page.find("svg[aria-label^='Strength of the section']").is_displayed()
    for label, view in (
        ("Pressure track", "collapse"),
        ("Pressure track", "inside and outside"),
        ("Axial track", "effective force"),
        ("Axial track", "factors over asked"),
    ):
        page.choose(label, view)
        page.until(lambda v=view: page.all(f"svg.on-depth[aria-label^='{v}' i]"), view)
    page.click("lost returns")
    page.until(lambda: page.all("svg.on-depth[aria-label^='Inside and outside: lost returns']"), "its two columns")


def test_a_weak_pipe_is_found_and_the_nearest_that_mends_it_is_one_click(page):
    page.open(DEMO + "/pipe")
    page.click("7 in")
    page.choose("7 in section 1 weight", "26")
    page.sees("collapse factor is")
    page.click("Use 32 lb/ft")
    page.gone("collapse factor is")
    wait_saved(page)
    assert page.document(2)["strings"][3]["pipe"]["weight_ppf"] == 32.0


def test_a_stock_list_from_a_workbook_sets_the_choice(page, tmp_path):
    book = Workbook()
    for row in (
        ["OD (in)", "Weight (lb/ft)", "Grade", "Connection", "Price a foot"],
        [7, 35, "P110", "BTC", 70],
        [7, 38, "P110", "BTC", 60],
    ):
        book.active.append(row)
    data = io.BytesIO()
    book.save(data)
    source = tmp_path / "stock.xlsx"
    source.write_bytes(data.getvalue())
    page.open(DEMO + "/pipe")
    page.click("7 in")
    page.click("Stock")
    page.click("Import")
    page.find('[aria-label="Table file"]').send_keys(str(source))
    page.find("[data-testid=taken]")
    page.click("Replace the table with these rows")
    page.choose("Choose pipe from", "stock list")
    page.click("Strings")
    page.until(lambda: page.value_of("7 in section 1 weight") == "38", "the cheaper of the two in stock")
    page.sees("by price")


def test_a_chain_is_taken_whole_and_a_hole_is_opened(page):
    page.open(DEMO + "/sizes")
    page.sees("carry 4 strings to the production casing")
    page.click("20 · 13 3/8 · 11 3/4 · 7")
    page.sees("under-reamed")
    page.click("Use 20 · 13 3/8 · 11 3/4 · 7")
    page.until(lambda: page.value_of("intermediate casing") == "11.75", "taken")
    wait_saved(page)
    string = page.document(2)["strings"][2]
    assert string["od_in"] == 11.75
    assert string["opened_from_in"] == 12.25
    assert page.find("svg[aria-label^='The nest from above']").is_displayed()
    page.click("Undo")
    page.until(lambda: page.value_of("intermediate casing") == "9.625", "one undo")


def test_a_row_of_the_catalogue_is_used_and_a_connection_allowed(page):
    page.open(DEMO + "/pipe")
    page.click("7 in")
    page.click("Catalogue")
    page.choose("Connection shown", "FJ")
    table = page.find("table[aria-label^='Catalogue of']")
    row = next(r for r in table.find_elements("css selector", "tbody tr") if text_of(r).startswith("38.0 P110"))
    assert "assumed" in row.get_attribute("title"), "a generic joint says so"
    page.strike(lambda: row.find_element("css selector", "button"))
    wait_saved(page)
    assert page.document(2)["strings"][3]["pipe"] == {"weight_ppf": 38.0, "grade": "P110", "connection": "FJ"}
    page.open(DEMO + "/policy")
    page.strike(lambda: page.named("Choose from PTC"))
    wait_saved(page)
    assert page.document(2)["policy"]["pipe"]["connections"] == ["STC", "LTC", "BTC", "PTC"]


def test_a_pipe_of_ones_own_is_pasted_and_chosen(page):
    page.open(DEMO + "/pipe")
    page.click("7 in")
    page.click("Own pipes")
    page.click("Add")
    page.paste("/pipes/0/od_in", "7\t30\t0.42\tXH\t95000\tOWN\t7.4")
    wait_saved(page)
    assert page.document(2)["pipes"][0]["grade"] == "XH"
    page.click("Strings")
    page.choose("7 in section 1 weight", "30")
    page.sees("Joint ratings of OWN are unknown")
    page.click("Own pipes")
    page.type("/pipes/0/joint_lbf", "800000")
    page.type("/pipes/0/joint_psi", "11000")
    page.gone("Joint ratings of OWN are unknown")
    page.click("Undo")
    page.sees("Joint ratings of OWN are unknown")


def test_a_liner_is_tied_back_and_a_case_of_ones_own_is_added(page):
    page.open("/designs/3/pipe")
    page.click("9 5/8 in")
    page.sees("liner hung inside")
    page.sees("tubing leak")
    page.click("6 5/8 in")
    liner = page.find("section[aria-label='6\u00a05/8\u00a0in pipe'], section[aria-label='6 5/8\u00a0in pipe']")
    page.strike(
        lambda: next(s for s in liner.find_elements("css selector", "summary") if text_of(s).startswith("Wear"))
    )
    page.strike(lambda: page.named("6 5/8 in tied back"))
    page.click("9 5/8 in")
    page.gone("liner hung inside")
    cases = "table[aria-label^='9'][aria-label$='load cases']"
    page.until(lambda: "tubing leak" not in page.find(cases).text, "no production through a tied-back casing")
    page.click("6 5/8 in")
    liner = page.find("section[aria-label='6\u00a05/8\u00a0in pipe'], section[aria-label='6 5/8\u00a0in pipe']")
    wear = next(s for s in liner.find_elements("css selector", "summary") if text_of(s).startswith("Wear"))
    if not liner.find_elements("css selector", "details[open] [aria-label='Own load cases of 6 5/8\u00a0in']"):
        page.strike(lambda wear=wear: wear)
    page.strike(lambda: next(b for b in liner.find_elements("css selector", "button") if b.text == "Add"))
    page.sees("case 1")
    wait_saved(page)
    string = page.document(3)["strings"][-1]
    assert string["tie_back"]
    assert string["loads"][0]["inside_psi"] == 1000.0

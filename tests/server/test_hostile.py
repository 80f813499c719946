"""What someone could send: each is refused in words, nothing is half done, and the server answers the next request."""

import base64
import copy
import io
import json
import random
import zipfile

import openpyxl
import pytest

from knollstack.core.document.described import fields
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from knollstack.formats import delimited, xlsx
from tests.helpers import demo, many, put
from tests.server.test_api import DEMO, problem

HUGE = 2**70


@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("get", f"/api/designs/{HUGE}", 422),
        ("get", f"/api/designs/{'9' * 5_000}", 404),
        ("delete", f"/api/wells/{HUGE}", 422),
        ("get", f"/api/designs/2/revisions?before={HUGE}", 422),
        ("get", "/api/designs/2/revisions?before=%00", 422),
        ("get", "/api/designs/2/sheet?units=imperial", 422),
        ("get", "/api/designs/2/tables/pore?mixed=" + "a:b," * 400, 422),
        ("get", "/api/catalogue/pipes?od_in=nan", 422),
        ("get", "/api/formulas/" + "x" * 9_000, 404),
        ("get", "/" + "deep/" * 2_000, 200),
        ("get", "/%ED%A0%80", 200),
        ("get", "/..%2f..%2fetc%2fpasswd", 200),
        ("delete", f"/api/bin/well/{HUGE}", 422),
        ("delete", "/api/bin/ghost/1", 422),
    ],
)
def test_odd_addresses(client, method, path, status):
    answer = getattr(client, method)(path)
    assert answer.status_code == status
    assert "Traceback" not in answer.text


@pytest.mark.parametrize("place", ["name", "note", "strings__0__id", "ground__zones__0__name"])
def test_half_of_a_character_is_told_at_its_place(client, place):
    document = demo()
    put(document, place.split("__"), "a\ud800b")
    for url in ("/api/evaluations", "/api/wells"):
        body = json.dumps({"document": document})
        (fault,) = problem(client.post(url, data=body, content_type="application/json"), 422)["faults"]
        assert (fault["path"], fault["value"]) == ("/document/" + place.replace("__", "/"), "half of a character")
    (fault,) = problem(client.post("/api/wells/file", data=json.dumps(document).encode()), 422)["faults"]
    assert fault["path"] == "/" + place.replace("__", "/")
    key = json.dumps({"document": {**demo(), "\udfff": 1}})
    problem(client.post("/api/evaluations", data=key, content_type="application/json"), 422)


@pytest.mark.parametrize("number", ["1e400", "0." + "3" * 400, "9" * 400, "-0.0", "1E-400"])
def test_numbers_of_any_length(client, number):
    text = json.dumps({"document": demo()}).replace('"rig_floor_ft": 30.0', f'"rig_floor_ft": {number}', 1)
    assert client.post("/api/evaluations", data=text, content_type="application/json").status_code in (200, 422)


def test_lists_to_a_formula_of_single_numbers(client):
    for name, inputs in [
        ("maasp", {"fracture_ppg": [14.0, 15.0], "mud_ppg": 9.0, "shoe_tvd_ft": [1.0]}),
        ("slurry", {"water_gal_sk": [4.97, 5.2]}),
        ("hydrostatic_pressure", {"mud_ppg": [], "tvd_ft": 1.0}),
    ]:
        assert client.post(f"/api/formulas/{name}", json={"inputs": inputs}).status_code in (200, 422)
    for item in client.get("/api/formulas").get_json()["formulas"]:
        inputs = {i["name"]: [1.0, 2.0] for i in item["inputs"]}
        answer = client.post(f"/api/formulas/{item['name']}", json={"inputs": inputs})
        assert answer.status_code in (200, 422), item["name"]


@pytest.mark.parametrize(
    ("place", "value", "path"),
    [
        ("policy__mud__drill_strings__0__pipe_id_in", 5.0, "/policy/mud/drill_strings/0/pipe_id_in"),
        ("policy__mud__drill_strings__0__collar_id_in", 9.5, "/policy/mud/drill_strings/0/collar_id_in"),
    ],
)
def test_a_bore_over_its_own_diameter(client, place, value, path):
    document = parse(demo()).model_dump(mode="json")
    row = document["policy"]["mud"]["drill_strings"][0]
    limit = row["pipe_od_in" if "pipe" in place else "collar_od_in"]
    for bore, status in ((limit, 422), (limit - 0.1, 200)):
        put(document, place.split("__"), bore)
        answer = client.post("/api/evaluations", json={"document": document})
        assert answer.status_code == status
    put(document, place.split("__"), limit)
    (fault,) = problem(client.post("/api/evaluations", json={"document": document}), 422)["faults"]
    assert fault["path"] == path


@pytest.mark.parametrize("top", [0.0, 1.0, 30.0, 100.0])
def test_a_gas_column_near_the_surface(client, top):
    document = demo()
    gas = {"top_tvd_ft": top, "base_tvd_ft": 6_000.0, "fluid": "gas", "gas_contact_tvd_ft": 6_000.0}
    document["ground"]["zones"] = [{"id": "z1", "name": "Gas", **gas}]
    answer = client.post("/api/evaluations", json={"document": document})
    assert answer.status_code in (200, 422)
    if answer.status_code == 422:
        assert all(f["path"].startswith("/ground/") for f in answer.get_json()["faults"])


def test_top_down_without_strings(client):
    for index in range(len(documents())):
        document = json.loads(documents()[index]) | {"strings": [], "policy": {"depths": {"method": "top down"}}}
        assert client.post("/api/evaluations", json={"document": document}).status_code == 200
        bare = {"format": "knollstack.well", "version": 9, "name": "x", "policy": document["policy"]}
        assert client.post("/api/evaluations", json={"document": bare}).status_code == 200


def preview(client, name, data, status=422):
    body = {"name": name, "data": base64.b64encode(data).decode()}
    answer = client.post("/api/tables/pore/preview", json=body)
    assert answer.status_code == status, answer.text[:300]
    return answer.get_json()


@pytest.mark.parametrize(
    ("data", "value"),
    [
        (b"1,2\n" + b'"' + b"x" * 200_000 + b'",2\n', "a line of"),
        (b"a,b\n" + b"1," * 300 + b"\n", "301 columns"),
        (b"1,2\n" * 100_001, "100,001 rows"),
        (b"1,'" + b"y" * 3_000 + b"\n", "a cell of"),
        (b"1234.5;9.5\n1234.5;9,5\n", '"9,5" beside "1234.5"'),
        (b"1234.5;9,5\n", '"9,5" beside "1234.5"'),
        (b"\x89PNG\r\n\x1a\n\0\0", "bytes that are no text"),
        (b"\xff\xfea\0b", "UTF-16"),
        (b" (" * 900 + b"\n1,2", "x"),
        (b" (" * 9_000 + b"\n1,2", "a cell of"),
    ],
)
def test_tables_beyond_all_bounds(client, data, value):
    answer = preview(client, "t.csv", data, 422 if value != "x" else 200)
    if value != "x":
        assert answer["title"] == '"t.csv" cannot be used'
        assert value in answer["faults"][0]["value"]


def workbook():
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.title = "Pore"
    for row in (("TVD (ft)", "EMW (ppg)"), (1_000.0, 9.0), (2_000.0, 9.5)):
        sheet.append(row)
    held = io.BytesIO()
    book.save(held)
    return held.getvalue()


def with_part(data, name, change):
    held = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as source, zipfile.ZipFile(held, "w", zipfile.ZIP_DEFLATED) as target:
        for item in source.infolist():
            content = source.read(item)
            target.writestr(item.filename, change(content) if item.filename == name else content)
    return held.getvalue()


SHEET = "xl/worksheets/sheet1.xml"


@pytest.mark.parametrize(
    ("change", "value"),
    [
        (lambda x: x.replace(b"<v>9.5</v>", b"<v>nine</v>"), 'sheet "Pore", cell B3'),
        (lambda x: x.replace(b"<v>2000</v>", b"<v></v><<<"), 'sheet "Pore", after cell B2'),
        (lambda x: x.replace(b'r="A2" t="n"><v>1000</v>', b'r="A2" t="s"><v>999</v>'), 'sheet "Pore", cell A2'),
        (lambda x: x[: len(x) // 2], 'sheet "Pore"'),
        (lambda x: b"", "no workbook"),
    ],
)
def test_a_damaged_workbook_names_sheet_and_cell(client, change, value):
    assert preview(client, "p.xlsx", workbook(), 200)["count"] == 2
    damaged = preview(client, "p.xlsx", with_part(workbook(), SHEET, change))
    assert value in damaged["faults"][0]["value"]


def test_every_way_to_damage_a_workbook_is_refused(client):
    whole, draw = workbook(), random.Random(4)
    for _ in range(many(40)):
        data = bytearray(whole)
        for _ in range(draw.choice([1, 5, 40])):
            data[draw.randrange(len(data))] = draw.randrange(256)
        cut = bytes(data[: draw.choice([len(data), draw.randrange(len(data))])])
        body = {"name": "p.xlsx", "data": base64.b64encode(cut).decode()}
        assert client.post("/api/tables/pore/preview", json=body).status_code in (200, 422)


def test_a_workbook_that_unpacks_to_far_more_is_not_unpacked(client, monkeypatch):
    monkeypatch.setattr(xlsx, "load_workbook", lambda *_, **__: 1 / 0)
    for part, words in (("xl/styles.xml", "styles"), (SHEET, "sheet1")):
        bomb = with_part(workbook(), part, lambda _: b" " * 41_000_000)
        assert words in preview(client, "p.xlsx", bomb)["faults"][0]["value"]


def test_text_that_a_spreadsheet_would_run_goes_out_harmless_and_comes_back(client):
    document, names = demo(), ["=1+1", "+cmd", "-2", "@x", "'=1", "' plain", "plain"]
    for zone, name in zip(document["ground"]["zones"], names, strict=False):
        zone["name"] = name
    made = client.post("/api/wells", json={"document": document}).get_json()["design_id"]
    text = client.get(f"/api/designs/{made}/tables/zones").get_data(as_text=True)
    cells = [line.split(",")[0] for line in text.splitlines()[1:]]
    assert not [cell for cell in cells if cell.startswith(("=", "+", "-", "@"))]
    shown = preview(client, "z.csv", text.encode(), 200)
    target = client.post(
        "/api/tables/zones/preview", json={"name": "z.csv", "data": base64.b64encode(text.encode()).decode()}
    )
    body = {"name": "z.csv", "data": base64.b64encode(text.encode()).decode(), "mapping": target.get_json()["mapping"]}
    taken = client.post("/api/tables/zones/import", json={**body, "trajectory": demo()["trajectory"]}).get_json()[
        "rows"
    ]
    assert [row["name"] for row in taken][: len(names)] == names
    assert shown["count"] == len(cells)


def test_three_points_at_one_depth_are_told(client):
    data = base64.b64encode(b"1000,9.0\n1000,9.2\n1000,9.4\n2000,9.5").decode()
    shown = client.post("/api/tables/pore/preview", json={"name": "p.csv", "data": data}).get_json()
    body = {"name": "p.csv", "data": data, "mapping": shown["mapping"], "trajectory": demo()["trajectory"]}
    taken = client.post("/api/tables/pore/import", json=body).get_json()
    assert [row["emw_ppg"] for row in taken["rows"]] == [9.0, 9.4, 9.5]
    assert taken["notes"] == ["3 values at 1000 ft TVD: the first and the last are kept, as a step"]


def test_bounds_of_cells_are_met_on_both_sides(client, monkeypatch):
    monkeypatch.setattr(delimited, "MOST_CELLS", 6)
    assert preview(client, "t.csv", b"1,9\n2,9\n3,9\n", 200)["count"] == 3
    assert "8 cells" in preview(client, "t.csv", b"1,9\n2,9\n3,9\n4,9\n")["faults"][0]["value"]


VALUES = [None, True, 0, -1, 1e308, 5e-324, HUGE, "", "x", "9" * 400, [], {}, [None], {"a": 1}, 12.25, 39_999.0]
PATHS = ["evaluations"] * 6 + ["loads", "chains", "drawings/ground", "drawings/kick", "workings", "differences"]


def mutated(document, draw):
    """A document with one to six places set, scaled, taken away, doubled, emptied, or put to a bound."""
    document = copy.deepcopy(document)
    for _ in range(draw.choice([1, 1, 2, 6])):
        node, place = document, []
        while isinstance(node, (dict, list)) and node and (not place or draw.random() < 0.8):
            parent, key = node, draw.choice(list(node)) if isinstance(node, dict) else draw.randrange(len(node))
            place.append("*" if isinstance(node, list) else key)
            node = node[key]
        field = fields().get("/" + "/".join(place))
        ways = [draw.choice(VALUES)]
        if isinstance(node, (int, float)):
            ways.append(node * draw.choice([-1, 0.5, 0.99, 1.01, 2, 10]))
        if field is not None and field.low is not None:
            ways += [field.low, field.high]
        if field is not None and field.options:
            ways.append(draw.choice(field.options))
        way = draw.choice([*ways, "gone", "twice"])
        if way == "gone":
            del parent[key]
        elif way == "twice" and isinstance(parent, list):
            parent.insert(key, copy.deepcopy(node))
        else:
            parent[key] = way
    return document


@pytest.mark.parametrize("seed", range(4))
def test_mutated_documents_are_judged_or_refused(client, seed):
    draw = random.Random(seed)
    wells = [parse(json.loads(text)).model_dump(mode="json") for text in documents()]
    answers = set()
    for _ in range(many(40)):
        document = mutated(draw.choice(wells), draw)
        body = {"document": document, "before": demo(), "after": document, "string": 2, "key": "depths/2/maasp"}
        answer = client.post(f"/api/{draw.choice(PATHS)}", json=body)
        assert answer.status_code in (200, 404, 422), json.dumps(document)
        answers.add(answer.status_code)
    assert {200, 422} <= answers
    assert client.get(f"/api/designs/{DEMO}").status_code == 200

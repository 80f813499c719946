"""Several people on one design: late edits are kept and merged, deleted work is saved anew, everyone has a name."""

import json

import pytest

from tests.browser.test_workbench import DEMO
from tests.helpers import demo


def saved_by_ann(page, shoe=7100.0, **changes):
    """Another person saves revision 2 of the demo design."""
    document = {**demo(), **changes}
    document["strings"][2]["shoe_md_ft"] = shoe
    document["strings"][1]["mud_ppg"] = 8.8
    status = page.run(
        "return fetch('/api/designs/2', {method: 'PUT', body: arguments[0],"
        " headers: {'Content-Type': 'application/json', 'Knollstack-Name': 'Ann%20Berg'}}).then(r => r.status)",
        json.dumps({"well_id": 2, "based_on": 1, "document": document}),
    )
    assert status == 200


def answer(page, path):
    return json.loads(page.run("return fetch('/api' + arguments[0]).then(r => r.text())", path))


def conflict(page):
    page.open("/")
    page.run("localStorage.setItem('knollstack.name', 'Ben Okoro')")
    page.open(DEMO + "/depths")
    page.shoe(2)
    saved_by_ann(page)
    page.type("/strings/2/shoe_md_ft", "7300")
    page.sees("Revision 2 was saved by Ann Berg while you worked. Both versions are kept: yours as a draft.")


@pytest.mark.parametrize("server", ["2"], indirect=True)
def test_two_versions_are_merged_by_choice(page):
    conflict(page)
    page.click("Compare and merge")
    page.sees("theirs 8.80 ppg, yours 9.00 ppg")
    page.sees("1 change from revision 2")
    merge = page.find('[role="dialog"] button[class*="border-petrol"]')
    assert not merge.is_enabled(), "every place that both changed is chosen first"
    page.strike(lambda: page.named("9 5/8 in shoe: yours, 7,300 ft"))
    assert page.violations() == []
    page.click("Merge as revision 3")
    page.saved(3)
    strings = page.document(2)["strings"]
    assert (strings[1]["mud_ppg"], strings[2]["shoe_md_ft"]) == (8.8, 7300.0)
    page.until(lambda: answer(page, "/designs/2/drafts")["drafts"] == [], "the draft is settled")
    newest = answer(page, "/designs/2/revisions")["revisions"][0]
    assert (newest["author"], newest["note"]) == ("Ben Okoro", "merged with changes made on revision 1")


def test_theirs_is_shown_and_mine_comes_back_from_its_draft(page):
    conflict(page)
    page.type("/strings/2/shoe_md_ft", "7400")
    page.until(
        lambda: answer(page, "/designs/2/drafts/1")["document"]["strings"][2]["shoe_md_ft"] == 7400.0,
        "the draft follows",
    )
    page.click("Show theirs")
    page.until(lambda: page.shoe(2) == "7,100 ft", "theirs")
    page.run("localStorage.clear(); sessionStorage.clear()")
    page.open(DEMO + "/depths")
    page.sees("Draft by Ben Okoro")
    page.click("Compare and merge")
    page.until(lambda: page.shoe(2) == "7,400 ft", "mine again")
    page.sees("Revision 2 was saved")
    page.click("Save mine as the next revision")
    page.saved(3)
    page.gone("Draft by Ben Okoro")
    assert page.document(2)["strings"][1]["mud_ppg"] == 9.0


def test_a_draft_is_dropped_by_hand(page):
    conflict(page)
    page.click("Show theirs")
    page.click("Drop…")
    page.click("Drop it for good")
    page.gone("Draft by Ben Okoro")
    assert answer(page, "/designs/2/drafts")["drafts"] == []


def test_edits_made_while_the_server_was_away_open_as_a_conflict(page):
    """Meanwhile another saved: nothing is dropped, both are told apart, and mine is kept on the server too."""
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.cut_off()
    page.type("/strings/2/shoe_md_ft", "7300")
    page.sees("server not reached; edits are kept here")
    page.open("/")
    saved_by_ann(page)
    page.open(DEMO + "/depths")
    page.sees("Both versions are kept: yours as a draft.")
    page.until(lambda: page.value("/strings/2/shoe_md_ft") == "7,300", "mine is shown")
    (draft,) = answer(page, "/designs/2/drafts")["drafts"]
    assert draft["based_on"] == 1
    page.click("Show theirs")
    page.until(lambda: page.shoe(2) == "7,100 ft", "theirs")
    page.click("Undo")
    page.until(lambda: page.shoe(2) == "7,300 ft", "mine is one undo away")
    page.saved(3)


def test_a_newer_revision_is_told_before_one_edits(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    saved_by_ann(page)
    page.run("window.dispatchEvent(new Event('focus'))")
    page.sees("Revision 2 was saved by Ann Berg.")
    page.click("Show it")
    page.until(lambda: page.shoe(2) == "7,100 ft", "the newer revision")
    page.gone("was saved by")
    page.type("/strings/2/shoe_md_ft", "7200")
    page.saved(3)


def test_work_on_a_deleted_well_becomes_a_new_one(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.run("return fetch('/api/wells/2', {method: 'DELETE'}).then(r => r.status)")
    page.type("/strings/2/shoe_md_ft", "7300")
    page.sees("This design was deleted elsewhere.")
    page.type("/strings/2/shoe_md_ft", "7350")
    page.sees("edits are kept here")
    page.click("Save it as a new well")
    page.until(lambda: "/designs/5/" in page.driver.current_url, "the new well")
    page.until(lambda: page.shoe(2) == "7,350 ft", "as it was worked on")
    page.saved(1)


def test_a_full_disk_is_told_and_the_edit_is_saved_once_there_is_room(page):
    page.open(DEMO + "/depths")
    page.shoe(2)
    page.refuse_saves(507)
    page.type("/strings/2/shoe_md_ft", "7300")
    page.sees("the server's disk is full; edits are kept here")
    page.reach_again()
    page.saved(2)


def test_the_bin_gives_back_and_is_emptied_by_hand(page):
    page.open("/")
    page.strike(lambda: page.named("Delete Selkie A7"))
    page.strike(lambda: page.named("Delete Merrow Deep 1"))
    page.click("Bin (2)")
    assert page.violations() == []
    page.click("Put back Selkie A7")
    page.until(lambda: len(page.all('[role="dialog"] li')) == 1, "one is left")
    page.click("Empty the bin…")
    page.click("Empty it for good")
    page.sees("The bin is empty.")
    page.click("Close")
    page.until(lambda: len(page.all("[data-design-row]")) == 3, "three wells")


def test_a_person_is_asked_for_a_name_once(page):
    page.open("/")
    page.find('[aria-label="Your name"] input').send_keys("Cleo Marsh")
    page.click("Keep")
    page.gone("Your name, as it goes")
    page.click("New well")
    page.until(lambda: "/designs/5/ground" in page.driver.current_url, "a new well")
    assert answer(page, "/designs/5")["item"]["author"] == "Cleo Marsh"
    page.sees("Cleo Marsh")
    page.open("/")
    page.sees("by Cleo Marsh")
    assert page.all('[aria-label="Your name"] input') == []

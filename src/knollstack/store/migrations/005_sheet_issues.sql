-- An issue of the run sheet: the revision whose sheet the rig has in hand. It is written once.
CREATE TABLE sheet_issue (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    design_id INTEGER NOT NULL,
    issue INTEGER NOT NULL CHECK (issue >= 1),
    number INTEGER NOT NULL,
    author TEXT NOT NULL,
    issued_at TEXT NOT NULL,
    note TEXT NOT NULL,
    UNIQUE (design_id, issue),
    FOREIGN KEY (design_id, number) REFERENCES revision (design_id, number) ON DELETE CASCADE
) STRICT;

CREATE TRIGGER sheet_issue_never_changes BEFORE UPDATE ON sheet_issue
BEGIN
    SELECT RAISE (ABORT, 'an issue of the run sheet never changes');
END;

CREATE TRIGGER sheet_issue_is_never_replaced BEFORE INSERT ON sheet_issue
WHEN EXISTS (
    SELECT 1 FROM sheet_issue
    WHERE id = NEW.id OR (design_id = NEW.design_id AND issue = NEW.issue)
)
BEGIN
    SELECT RAISE (ABORT, 'an issue of the run sheet never changes');
END;

CREATE TRIGGER sheet_issue_goes_with_the_bin BEFORE DELETE ON sheet_issue
WHEN NOT EXISTS (
    SELECT 1 FROM design JOIN well ON well.id = design.well_id
    WHERE design.id = OLD.design_id AND (design.deleted_at IS NOT NULL OR well.deleted_at IS NOT NULL)
)
BEGIN
    SELECT RAISE (ABORT, 'an issue goes only with what is emptied from the bin');
END;

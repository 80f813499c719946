-- Nothing of a person's is lost: ids are never given again, what is deleted goes to a bin first, revisions are packed
-- small and guarded by their hash, and a save that came too late is kept as a draft.
ALTER TABLE well RENAME TO old_well;
ALTER TABLE design RENAME TO old_design;
ALTER TABLE revision RENAME TO old_revision;
ALTER TABLE summary RENAME TO old_summary;
DROP TRIGGER revision_is_immutable;

CREATE TABLE well (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    name TEXT NOT NULL,
    created_at TEXT NOT NULL,
    deleted_at TEXT,
    deleted_by TEXT
) STRICT;

CREATE TABLE design (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    well_id INTEGER NOT NULL REFERENCES well (id),
    name TEXT NOT NULL,
    created_at TEXT NOT NULL,
    deleted_at TEXT,
    deleted_by TEXT
) STRICT;

CREATE UNIQUE INDEX design_name ON design (well_id, name) WHERE deleted_at IS NULL;

-- The content is the document's text packed: whole, or as what differs from the revision named by base.
CREATE TABLE revision (
    design_id INTEGER NOT NULL REFERENCES design (id),
    number INTEGER NOT NULL CHECK (number >= 1),
    parent INTEGER CHECK (parent < number),
    author TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    note TEXT NOT NULL,
    hash TEXT NOT NULL CHECK (length(hash) = 64),
    base INTEGER CHECK (base < number),
    content BLOB NOT NULL,
    PRIMARY KEY (design_id, number)
) STRICT;

CREATE TABLE summary (
    design_id INTEGER PRIMARY KEY REFERENCES design (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    worked_by TEXT NOT NULL,
    content TEXT NOT NULL
) STRICT;

INSERT INTO well (id, name, created_at) SELECT id, name, created_at FROM old_well;
INSERT INTO design (id, well_id, name, created_at) SELECT id, well_id, name, created_at FROM old_design;
INSERT INTO revision (design_id, number, parent, author, saved_at, note, hash, content)
SELECT design_id, number, parent, author, saved_at, note, hash_of(document), packed(document) FROM old_revision;
INSERT INTO summary SELECT design_id, revision, worked_by, content FROM old_summary;

DROP TABLE old_summary;
DROP TABLE old_revision;
DROP TABLE old_design;
DROP TABLE old_well;

CREATE TABLE draft (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    design_id INTEGER NOT NULL REFERENCES design (id) ON DELETE CASCADE,
    based_on INTEGER NOT NULL,
    author TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    hash TEXT NOT NULL CHECK (length(hash) = 64),
    content BLOB NOT NULL
) STRICT;

-- What changed in a revision, in words, worked by one state of the program: a note that can be made again.
CREATE TABLE revision_words (
    design_id INTEGER NOT NULL,
    number INTEGER NOT NULL,
    worked_by TEXT NOT NULL,
    content TEXT NOT NULL,
    PRIMARY KEY (design_id, number),
    FOREIGN KEY (design_id, number) REFERENCES revision (design_id, number) ON DELETE CASCADE
) STRICT;

CREATE TRIGGER revision_never_changes BEFORE UPDATE ON revision
BEGIN
    SELECT RAISE (ABORT, 'a revision never changes');
END;

-- REPLACE deletes without a word to a trigger of DELETE: it is refused where it begins, by its key or by its row.
CREATE TRIGGER revision_is_never_replaced BEFORE INSERT ON revision
WHEN EXISTS (
    SELECT 1 FROM revision
    WHERE (design_id = NEW.design_id AND number = NEW.number) OR rowid = NEW.rowid
)
BEGIN
    SELECT RAISE (ABORT, 'a revision never changes');
END;

CREATE TRIGGER revision_goes_with_the_bin BEFORE DELETE ON revision
WHEN NOT EXISTS (
    SELECT 1 FROM design JOIN well ON well.id = design.well_id
    WHERE design.id = OLD.design_id AND (design.deleted_at IS NOT NULL OR well.deleted_at IS NOT NULL)
)
BEGIN
    SELECT RAISE (ABORT, 'a revision goes only with what is emptied from the bin');
END;

PRAGMA application_id = 1265528684;

-- A well has designs (alternatives); a design has revisions, which never change.
CREATE TABLE well (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    created_at TEXT NOT NULL
) STRICT;

CREATE TABLE design (
    id INTEGER PRIMARY KEY,
    well_id INTEGER NOT NULL REFERENCES well (id) ON DELETE CASCADE,
    name TEXT NOT NULL,
    created_at TEXT NOT NULL,
    UNIQUE (well_id, name)
) STRICT;

CREATE TABLE revision (
    design_id INTEGER NOT NULL REFERENCES design (id) ON DELETE CASCADE,
    number INTEGER NOT NULL CHECK (number >= 1),
    parent INTEGER CHECK (parent < number),
    author TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    note TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (design_id, number)
) STRICT;

CREATE TRIGGER revision_is_immutable BEFORE UPDATE ON revision
BEGIN
    SELECT RAISE (ABORT, 'a revision never changes');
END;

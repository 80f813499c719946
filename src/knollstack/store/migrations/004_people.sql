-- Who may do what, and who has signed for what. A name is never given twice: signatures carry it.
CREATE TABLE account (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    password_hash TEXT NOT NULL,
    role TEXT NOT NULL CHECK (role IN ('viewer', 'designer', 'approver')),
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

-- A session is known by the hash of its token alone.
CREATE TABLE session (
    token_hash TEXT PRIMARY KEY,
    account_id INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    began_at TEXT NOT NULL,
    seen_at TEXT NOT NULL
) STRICT;

CREATE TABLE failed_sign_in (
    name TEXT NOT NULL,
    address TEXT NOT NULL,
    at TEXT NOT NULL
) STRICT;

CREATE INDEX failed_sign_in_at ON failed_sign_in (at);

-- A signature is for one revision's document and what its evaluation was, each by its hash.
CREATE TABLE signature (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    design_id INTEGER NOT NULL,
    number INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('checked', 'approved', 'withdrawn')),
    account_id INTEGER NOT NULL REFERENCES account (id),
    name TEXT NOT NULL,
    role TEXT NOT NULL,
    signed_at TEXT NOT NULL,
    document_hash TEXT NOT NULL CHECK (length(document_hash) = 64),
    evaluation_hash TEXT NOT NULL CHECK (length(evaluation_hash) = 64),
    note TEXT NOT NULL,
    FOREIGN KEY (design_id, number) REFERENCES revision (design_id, number) ON DELETE CASCADE
) STRICT;

CREATE INDEX signature_of_design ON signature (design_id, number);

CREATE TRIGGER signature_never_changes BEFORE UPDATE ON signature
BEGIN
    SELECT RAISE (ABORT, 'a signature never changes');
END;

CREATE TRIGGER signature_is_never_replaced BEFORE INSERT ON signature
WHEN EXISTS (SELECT 1 FROM signature WHERE id = NEW.id)
BEGIN
    SELECT RAISE (ABORT, 'a signature never changes');
END;

CREATE TRIGGER signature_is_of_the_document BEFORE INSERT ON signature
WHEN NOT EXISTS (
    SELECT 1 FROM revision
    WHERE design_id = NEW.design_id AND number = NEW.number AND hash = NEW.document_hash
)
BEGIN
    SELECT RAISE (ABORT, 'a signature is for a document that was saved');
END;

CREATE TRIGGER signature_goes_with_the_bin BEFORE DELETE ON signature
WHEN NOT EXISTS (
    SELECT 1 FROM design JOIN well ON well.id = design.well_id
    WHERE design.id = OLD.design_id AND (design.deleted_at IS NOT NULL OR well.deleted_at IS NOT NULL)
)
BEGIN
    SELECT RAISE (ABORT, 'a signature goes only with what is emptied from the bin');
END;

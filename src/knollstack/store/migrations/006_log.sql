-- The log of a well: entries that are written once; a correction is an entry of its own. It belongs to the well, since every design
-- of it is of the same hole.
CREATE TABLE log_entry (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    well_id INTEGER NOT NULL REFERENCES well (id),
    number INTEGER NOT NULL CHECK (number >= 1),
    corrects INTEGER CHECK (corrects < number),
    content TEXT NOT NULL,
    UNIQUE (well_id, number),
    FOREIGN KEY (well_id, corrects) REFERENCES log_entry (well_id, number)
) STRICT;

-- An entry is corrected once: what corrects the correction names that.
CREATE UNIQUE INDEX log_correction ON log_entry (well_id, corrects) WHERE corrects IS NOT NULL;

CREATE TRIGGER log_entry_never_changes BEFORE UPDATE ON log_entry
BEGIN
    SELECT RAISE (ABORT, 'an entry of the log never changes');
END;

CREATE TRIGGER log_entry_is_never_replaced BEFORE INSERT ON log_entry
WHEN EXISTS (
    SELECT 1 FROM log_entry
    WHERE id = NEW.id OR (well_id = NEW.well_id AND number = NEW.number)
)
BEGIN
    SELECT RAISE (ABORT, 'an entry of the log never changes');
END;

CREATE TRIGGER log_entry_corrects_once BEFORE INSERT ON log_entry
WHEN NEW.corrects IS NOT NULL AND EXISTS (
    SELECT 1 FROM log_entry WHERE well_id = NEW.well_id AND corrects = NEW.corrects
)
BEGIN
    SELECT RAISE (ABORT, 'an entry of the log is corrected once');
END;

CREATE TRIGGER log_entry_goes_with_the_bin BEFORE DELETE ON log_entry
WHEN NOT EXISTS (SELECT 1 FROM well WHERE id = OLD.well_id AND deleted_at IS NOT NULL)
BEGIN
    SELECT RAISE (ABORT, 'an entry goes only with a well that is emptied from the bin');
END;

-- Where the rig's feed of a well is read from.
CREATE TABLE feed (
    well_id INTEGER PRIMARY KEY REFERENCES well (id) ON DELETE CASCADE,
    content TEXT NOT NULL
) STRICT;

-- What the feed brought, thinned: a row for a span of the rig's clock, its channels each as least, last and most.
CREATE TABLE feed_span (
    well_id INTEGER NOT NULL REFERENCES well (id) ON DELETE CASCADE,
    begins_s INTEGER NOT NULL,
    span_s INTEGER NOT NULL CHECK (span_s >= 1),
    content TEXT NOT NULL,
    PRIMARY KEY (well_id, begins_s)
) STRICT;

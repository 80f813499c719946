-- A rehearsal on a design as it stood when it began: its scene, what was done, and at its end what it came to. A drill that has ended
-- never changes.
CREATE TABLE drill (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    design_id INTEGER NOT NULL REFERENCES design (id) ON DELETE CASCADE,
    person TEXT NOT NULL,
    begun_at TEXT NOT NULL,
    scene TEXT NOT NULL,
    document TEXT NOT NULL,
    doings TEXT NOT NULL DEFAULT '[]',
    clock_s INTEGER NOT NULL DEFAULT 0 CHECK (clock_s >= 0),
    ended_at TEXT,
    score REAL,
    debrief TEXT,
    CHECK ((ended_at IS NULL) = (debrief IS NULL) AND (ended_at IS NULL) = (score IS NULL))
) STRICT;

CREATE INDEX drill_of_design ON drill (design_id, id);

CREATE TRIGGER drill_that_ended_never_changes BEFORE UPDATE ON drill
WHEN OLD.ended_at IS NOT NULL
BEGIN
    SELECT RAISE (ABORT, 'a drill that has ended never changes');
END;

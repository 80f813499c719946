-- What a list shows of a design's newest revision, worked by one state of the program: a note that can be made again.
CREATE TABLE summary (
    design_id INTEGER PRIMARY KEY REFERENCES design (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    worked_by TEXT NOT NULL,
    content TEXT NOT NULL
) STRICT;

"""Drills: the kill sheet of every hole, and a kick on this very well, played by a crew and judged by rules."""

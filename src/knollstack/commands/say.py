"""One line to the person at the terminal, and the exit code of what cannot be used."""

import sys

FAULTY = 2


def say(text: str) -> None:
    print(text, file=sys.stderr)

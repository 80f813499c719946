"""What each command of the terminal does, one concern a file; the parser stands in `cli.py`."""

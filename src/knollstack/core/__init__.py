"""The rules of the job.

Everything in this package is a pure function of its arguments: no web framework, no database, no file,
no clock. A design and a catalogue go in, an evaluation comes out. It is tested on its own.
"""

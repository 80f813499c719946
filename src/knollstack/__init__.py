"""Knollstack: casing program design, from the ground to the preventers."""

__version__ = "0.1.0"

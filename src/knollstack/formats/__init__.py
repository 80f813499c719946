"""Formats in and out, one module each."""

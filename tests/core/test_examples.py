"""The examples in the docstrings of the core run and give what they say."""

import doctest
import importlib
import pkgutil

import knollstack.core


def test_every_example_in_a_docstring_runs():
    finder, runner = doctest.DocTestFinder(exclude_empty=True), doctest.DocTestRunner()
    examples = [
        found
        for module in pkgutil.walk_packages(knollstack.core.__path__, "knollstack.core.")
        for found in finder.find(importlib.import_module(module.name))
        if found.examples
    ]
    assert len(examples) >= 10
    for found in examples:
        assert runner.run(found).failed == 0, found.name

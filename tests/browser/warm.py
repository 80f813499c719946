"""The demo wells judged once, before servers are forked: each test's server begins with what every page asks first."""

import json

from knollstack.catalogue import load
from knollstack.core.base.units import table
from knollstack.core.evaluation.evaluate import with_sheet
from knollstack.core.evaluation.tried import tried
from knollstack.core.reading.read import parse
from knollstack.demo import documents

table()
for text in documents():
    with_sheet(parse(json.loads(text)), load())
    tried(parse(json.loads(text)), load())

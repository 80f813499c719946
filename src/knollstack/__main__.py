"""`python -m knollstack`."""

import sys

from knollstack.cli import main

sys.exit(main())

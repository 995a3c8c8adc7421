"""`python -m ritornel`: the command line."""

import sys

from ritornel.cli import main

sys.exit(main())

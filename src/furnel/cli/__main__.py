"""`python -m furnel.cli`."""

import sys

from furnel.cli import main

sys.exit(main())

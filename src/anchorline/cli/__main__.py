"""The command line: `python -m anchorline.cli`."""

from . import main

main()

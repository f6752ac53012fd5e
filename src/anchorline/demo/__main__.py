"""`python -m anchorline.demo`."""

from .commands import main

main()

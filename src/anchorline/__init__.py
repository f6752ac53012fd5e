"""Anchorline: gets correct postal addresses into business records."""

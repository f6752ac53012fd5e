"""The calls on mappings while they are made: declared once, for forms and targets.

`routes` declares them, `calls` carries them out, `answers` makes their answers.
"""

from .routes import MAPPING_ROUTERS

__all__ = ["MAPPING_ROUTERS"]

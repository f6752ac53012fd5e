"""Words of messages that both ends of the API say."""

from anchorline.core.counting import counted

__all__ = ["counted"]

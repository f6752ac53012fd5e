"""Documents over HTTP: what is answered of one kind (a file each), and the calls that all have."""

from .forms import FORM_API
from .own_layouts import OWN_LAYOUT_API
from .routes import document_router
from .targets import TARGET_API

__all__ = ["FORM_API", "OWN_LAYOUT_API", "TARGET_API", "document_router"]

"""The kinds of documents. A further one is a file beside these and a line here."""

from __future__ import annotations

from collections.abc import Mapping

from .forms import FormKind
from .kind import DocumentKind
from .own_layouts import OwnLayoutKind
from .targets import TargetKind

FORMS, OWN_LAYOUTS, TARGETS = FormKind(), OwnLayoutKind(), TargetKind()
KINDS: Mapping[str, DocumentKind] = {kind.name: kind for kind in (FORMS, OWN_LAYOUTS, TARGETS)}

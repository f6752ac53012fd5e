"""What a form says in other languages than its own.

A document is written in one language, and may hold translations of what people read. What a
translation leaves out is said in the form's own language.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from ..address import escape_pointer
from ..errors import Problem, nearest_names, unknown_name_detail
from .model import Field, Form

OWN_LANGUAGE = "en"


def translation_problems(form: Form, document: Mapping[str, Any]) -> Iterator[Problem]:
    """What of a document's translations belongs to nothing that is on the form."""
    own = document.get("language") or OWN_LANGUAGE
    keys = form.order
    for language, texts in (document.get("translations") or {}).items():
        pointer = f"/translations/{escape_pointer(language)}"
        if language == own:
            yield Problem(pointer, "This is the form's own language: no translation is needed.")
        for key, said in (texts.get("items") or {}).items():
            place = f"{pointer}/items/{escape_pointer(key)}"
            if key not in keys:
                detail = unknown_name_detail("field or slot", key, nearest_names(key, keys))
                yield Problem(place, detail)
                continue
            item = form.item(key)
            options = [one.value for one in item.options] if isinstance(item, Field) else []
            for value in said.get("options") or {}:
                if value not in options:
                    detail = unknown_name_detail("option", value, nearest_names(value, options))
                    yield Problem(f"{place}/options/{escape_pointer(value)}", detail)


def languages_of(document: Mapping[str, Any]) -> list[str]:
    """The languages that a form can be read in, its own first."""
    own = document.get("language") or OWN_LANGUAGE
    return [own, *(one for one in document.get("translations") or {} if one != own)]

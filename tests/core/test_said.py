"""Sentences with a kind, which can be said in another language."""

import pytest

from anchorline.core.forms import read_form
from anchorline.core.layouts import check_components
from anchorline.core.said import Said, said
from tests.core.form_checking import check_values


def test_a_sentence_is_its_text_and_knows_what_is_filled_in():
    made = said("too_long", "This is {length} characters long.", length=7)
    assert (made, made.kind, made.given) == (
        "This is 7 characters long.",
        "too_long",
        {"length": 7},
    )


@pytest.mark.parametrize(
    ("field", "typed", "kind", "given"),
    [
        ({"type": "text", "max_length": 3}, "abcd", "too_long", {"length": 4, "most": 3}),
        ({"type": "text"}, "a\nb", "one_line", {}),
        ({"type": "text"}, "a\x07", "unprintable", {}),
        ({"type": "number"}, "{x}", "not_a_number", {"value": "{x}"}),
        ({"type": "number", "least": 2}, 1, "too_small", {"least": 2}),
        ({"type": "number", "most": 2}, 3, "too_large", {"most": 2}),
        ({"type": "number", "decimals": 0}, 1.5, "not_whole", {}),
        ({"type": "number", "decimals": 1}, 1.25, "too_many_decimals", {"most": 1}),
        ({"type": "date"}, "1.2.2026", "not_a_date", {}),
        ({"type": "date", "least": "2026-01-01"}, "2025-01-01", "too_early", {"first": "2026-01-01"}),
        ({"type": "date", "most": "2026-01-01"}, "2027-01-01", "too_late", {"last": "2026-01-01"}),
        ({"type": "email"}, "x", "not_an_email", {}),
        ({"type": "phone"}, "+12", "not_a_phone", {}),
        ({"type": "link", "form": "towns"}, "x", "not_offered", {}),
        ({"type": "text", "required": True}, None, "needed", {}),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_value_has_a_kind(layouts, field, typed, kind, given):
    document = {"key": "f", "kind": "web", "title": "F",
                "fields": [{"key": "a", "label": "A", **field}]}  # fmt: skip
    _values, (problem,) = check_values(read_form(document, layouts), {"a": typed})
    assert isinstance(problem.detail, Said)
    assert (problem.detail.kind, dict(problem.detail.given)) == (kind, given)


def test_what_is_wrong_with_a_postcode_has_a_kind(layouts):
    components = {"street": "Lindenweg", "number": "3", "town": "Ort", "postcode": "ABC"}
    _canonical, (problem,) = check_components(layouts.require("DE"), components)
    assert problem.detail.kind == "not_a_postcode"
    assert problem.detail.given["masks"] == "99999"
    assert "'ABC' is not a" in problem.detail

"""Each type of field: what it keeps, what it refuses, what its settings may be."""

from pathlib import Path

import pytest

from anchorline.core.errors import DocumentError
from anchorline.core.forms import FIELD_TYPES, read_form
from anchorline.core.forms import field_types as package
from tests.core.form_checking import check_values

MOVED = {"least": 1, "most": 10, "decimals": 1}
DAYS = {"least": "2026-03-01", "most": "2026-03-31"}
COLOURS = {"options": [{"value": "black"}, {"value": "white"}]}


def form_with(layouts, **settings):
    field = {"key": "it", "label": "It", **settings}
    document = {"key": "f", "kind": "web", "title": "F", "fields": [field]}
    return read_form(document, layouts)


@pytest.mark.parametrize(
    ("settings", "given", "kept"),
    [
        ({"type": "text"}, " a ", "a"),
        ({"type": "long_text"}, "a\nb", "a\nb"),
        ({"type": "hidden"}, "x", "x"),
        ({"type": "number", **MOVED}, 1, 1),
        ({"type": "number", **MOVED}, "10", 10),
        ({"type": "number", **MOVED}, 9.5, 9.5),
        ({"type": "number", "decimals": 0}, "3.0", 3),
        ({"type": "number", "decimals": 0}, 1e20, 1e20),
        ({"type": "number", "decimals": 2}, 0.07, 0.07),
        ({"type": "date", **DAYS}, "2026-03-01", "2026-03-01"),
        ({"type": "date", **DAYS}, "2026-03-31", "2026-03-31"),
        ({"type": "choice", **COLOURS}, "white", "white"),
        ({"type": "yes_no"}, False, False),
        ({"type": "consent"}, True, True),
        ({"type": "email"}, "ada@example.org", "ada@example.org"),
        ({"type": "phone"}, "+44 20 555 0123", "+44205550123"),
        ({"type": "phone", "phone": {"country": "GB"}}, "020 555 0123", "+44205550123"),
    ],
)
def test_what_is_kept(layouts, settings, given, kept):
    values, problems = check_values(form_with(layouts, **settings), {"it": given})
    assert (values, problems) == ({"it": kept}, [])


@pytest.mark.parametrize(
    ("settings", "given", "said"),
    [
        ({"type": "text"}, 5, "Give text here."),
        ({"type": "text", "max_length": 3}, "abcd", "4 characters long; at most 3 fit"),
        ({"type": "number", **MOVED}, 0.9, "less than 1, the least"),
        ({"type": "number", **MOVED}, 10.1, "more than 10, the most"),
        ({"type": "number", **MOVED}, 2.25, "at most 1 digit after the point"),
        ({"type": "number", "decimals": 0}, 2.5, "Give a whole number here."),
        ({"type": "number"}, "two", "not a number; write it like 12"),
        ({"type": "date", **DAYS}, "2026-02-28", "before 2026-03-01, the first day"),
        ({"type": "date", **DAYS}, "2026-04-01", "after 2026-03-31, the last day"),
        ({"type": "date"}, "31.3.2026", "write it like 2026-03-31"),
        ({"type": "choice", **COLOURS}, "whit", "Did you mean white?"),
        ({"type": "yes_no"}, "yes", "Say true or false here."),
        ({"type": "consent"}, "yes", "Say true or false here."),
        ({"type": "consent"}, False, "This is needed."),
        ({"type": "consent"}, None, "This is needed."),
        ({"type": "email"}, "ada@", "not an e-mail address"),
        ({"type": "phone"}, "+441234", "not a phone number"),
        ({"type": "phone"}, "020 7946 0123", "Begin with + and the dial code"),
        (
            {"type": "phone", "phone": {"only": ["DE"]}},
            "+44 20 7946 0123",
            "Numbers of GB are not taken",
        ),
    ],
)
def test_what_is_refused(layouts, settings, given, said):
    values, problems = check_values(form_with(layouts, **settings), {"it": given})
    assert values == {}
    assert [problem.pointer for problem in problems] == ["/values/it"]
    assert said in problems[0].detail


@pytest.mark.parametrize("kind", ["heading", "note"])
def test_what_stands_between_fields_keeps_nothing(layouts, kind):
    form = form_with(layouts, type=kind, required=True)
    assert check_values(form, {"it": "x"}) == ({}, [])
    assert not FIELD_TYPES[kind].holds_value


@pytest.mark.parametrize(
    ("settings", "setting", "said"),
    [
        ({"type": "number", "least": "a"}, "least", "A limit of a number is a number."),
        ({"type": "number", "least": 2, "most": 1}, "most", "No number is at least 2"),
        ({"type": "number", "decimals": 11}, "decimals", "0 to 10 decimals"),
        ({"type": "date", "least": 5}, "least", "not a date"),
        ({"type": "date", "most": "2026-02-30"}, "most", "not a date"),
        ({"type": "date", "least": "2026-02-02", "most": "2026-02-01"}, "most", "No day is from"),
        ({"type": "text", "unit": "km"}, "unit", "only fields of the type formula or number"),
        ({"type": "choice", **COLOURS, "least": 0}, "least", "of the type date or number have it"),
        ({"type": "number", "hidden": True}, "hidden", "of the type formula have it"),
        ({"type": "choice"}, "options", "at least one option"),
        ({"type": "choice", "options": [{"value": "a"}, {"value": "a"}]}, "options", "twice"),
    ],
)
def test_settings_that_cannot_be_are_named(layouts, settings, setting, said):
    with pytest.raises(DocumentError) as caught:
        form_with(layouts, **settings)
    (problem,) = caught.value.problems
    assert problem.pointer == f"/fields/0/{setting}"
    assert said in problem.detail


def test_each_type_has_a_module_of_its_own():
    modules = {path.stem for path in Path(package.__file__).parent.glob("*.py")}
    assert set(FIELD_TYPES) == modules - {"__init__", "registry"}
    assert all(field_type.title and field_type.says for field_type in FIELD_TYPES.values())

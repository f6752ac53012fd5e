import pytest

from anchorline.core.address import component_problems, normalize_components, require_component
from anchorline.core.errors import UnknownNameError


def test_a_misspelt_component_is_answered_with_the_nearest():
    with pytest.raises(UnknownNameError, match=r"no component 'stret'. Did you mean street"):
        require_component("stret")


def test_normalizing_folds_blanks_orders_and_drops_empties():
    normalized = normalize_components({"town": " Brack  water ", "number": "12", "unit": "  "})
    assert list(normalized.items()) == [("number", "12"), ("town", "Brack water")]


def test_problems_point_at_the_name_with_escapes():
    (problem,) = component_problems(["post/code"], "/components")
    assert problem.pointer == "/components/post~1code"
    assert "postcode" in problem.detail

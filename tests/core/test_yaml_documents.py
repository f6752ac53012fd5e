"""YAML 1.2, as files of layouts and own layouts have it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.yaml_documents import YamlError, read_yaml, write_yaml


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("NO", "NO"),
        ("no", "no"),
        ("on", "on"),
        ("y", "y"),
        ("true", True),
        ("False", False),
        ("012", 12),
        ("08", 8),
        ("'08'", "08"),
        ("0o14", 12),
        ("1:20", "1:20"),
        ("1_000", "1_000"),
        ("2026-03-01", "2026-03-01"),
        ("~", None),
        ("", None),
        ("é 霧", "é 霧"),
    ],
)
def test_a_word_is_a_word_and_a_number_a_number(text, value):
    assert read_yaml(f"[{text}]" if text else "[~]") == [value]


@given(
    st.recursive(
        st.none() | st.booleans() | st.integers() | st.text(st.characters(codec="utf-8")),
        lambda inner: st.lists(inner) | st.dictionaries(st.text(max_size=9), inner),
        max_leaves=12,
    )
)
def test_what_is_written_is_read_again(value):
    assert read_yaml(write_yaml(value)) == value


@pytest.mark.parametrize(
    ("text", "line", "column"), [("a: [1\nb: 2", 2, 2), ("a: b: c", 1, 5), ("a: '1\n", 2, 1)]
)
def test_what_is_no_yaml_is_said_with_its_place(text, line, column):
    with pytest.raises(YamlError) as caught:
        read_yaml(text)
    assert (caught.value.line, caught.value.column) == (line, column), str(caught.value)


def test_it_makes_plain_values_only():
    with pytest.raises(YamlError):
        read_yaml("!!python/object/apply:os.getcwd []")

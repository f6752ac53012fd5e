"""From what went wrong to a problem answer."""

import pytest
from flask import Flask
from pydantic import ValidationError

from anchorline.core.errors import DocumentError, Problem, UnknownNameError
from anchorline.service.problems import (
    ProblemError,
    from_validation,
    install_problem_handlers,
    invalid,
)
from anchorline.store.database import DatabaseUnavailableError, NotThereError, StorageFullError
from anchorline.wire.forms import FormDocument


def raising(error):
    app = Flask("x")
    install_problem_handlers(app)

    @app.get("/")
    def view():
        raise error

    return app.test_client().get("/")


@pytest.mark.parametrize(
    ("error", "status", "detail"),
    [
        (ProblemError(418, "no coffee"), 418, "no coffee"),
        (UnknownNameError("component", "stret", ["street"]), 422, "Did you mean street"),
        (NotThereError("There is no form 'x'."), 404, "There is no form 'x'."),
        (DatabaseUnavailableError("away"), 503, "nothing is made twice"),
        (StorageFullError("full"), 507, "There is no room left"),
        (RuntimeError("secret detail"), 500, "it has been logged"),
    ],
)
def test_every_error_becomes_a_problem_that_says_what_to_do(error, status, detail):
    answer = raising(error)
    assert answer.status_code == answer.json["status"] == status
    assert answer.content_type == "application/problem+json"
    assert detail in answer.json["detail"]
    assert "secret detail" not in answer.text
    assert answer.headers["Cache-Control"] == "no-store"


def test_a_documents_problems_keep_their_places_and_a_pause_is_named():
    answer = raising(DocumentError("form x", [Problem("/key", "too long")]))
    assert answer.json["errors"] == [{"pointer": "/key", "detail": "too long"}]
    assert raising(DatabaseUnavailableError("x")).headers["Retry-After"] == "2"


@pytest.mark.parametrize("count", [1, 3])
def test_problems_are_counted_in_words_that_fit(count):
    said = invalid([Problem("/a", "x")] * count).detail
    assert said == f"The request has {count} problem{'s' if count > 1 else ''}; see errors."


@pytest.mark.parametrize(
    ("document", "pointer", "detail"),
    [
        ({"kind": "web", "title": "T"}, "/key", "This is needed."),
        ({"key": "k", "kind": "web", "title": "T" * 201}, "/title", "At most 200 characters."),
        ({"key": "k", "kind": "web", "title": "T", "fields": [{"key": "a", "a/b": 1}]},
         "/fields/0/a~1b", "'a/b' is not known here."),
        ({"key": "k", "kind": "web", "title": "T", "fields": [5]}, "/fields/0", "valid dictionary"),
    ],
)  # fmt: skip
def test_a_shape_that_does_not_fit_is_named_at_its_place(document, pointer, detail):
    with pytest.raises(ValidationError) as caught:
        FormDocument.model_validate(document, strict=True)
    (problem,) = from_validation(caught.value, FormDocument, document).errors
    assert problem.pointer == pointer
    assert detail in problem.detail


def test_at_most_twenty_problems_are_listed_whatever_there_are():
    few, many = invalid([Problem("/a", "x")] * 20), invalid([Problem("/a", "x")] * 21)
    assert (len(few.errors), few.detail) == (20, "The request has 20 problems; see errors.")
    assert len(many.errors) == 20
    assert many.detail == "The request has 21 problems; errors has the first 20."


def test_unknown_names_without_end_cost_little_and_are_counted():
    with pytest.raises(ValidationError) as caught:
        FormDocument.model_validate(given := {f"n{i}": 1 for i in range(40_000)})
    problem = from_validation(caught.value, FormDocument, given)
    assert len(problem.errors) == 20
    assert problem.detail.startswith("The request has 40,00")


def test_a_name_of_a_million_letters_is_cut_short_in_what_is_said_of_it():
    with pytest.raises(ValidationError) as caught:
        FormDocument.model_validate(given := {"x" * 1_000_000: 1})
    errors = from_validation(caught.value, FormDocument, given).errors
    assert max(len(problem.detail) for problem in errors) < 200
    answer = raising(UnknownNameError("component", "y" * 1_000_000, ["street"]))
    assert len(answer.text) < 400

"""The JSON Schema of forms as files is the one that the service checks by."""

import json
from pathlib import Path

import jsonschema_rs
import pytest

from anchorline.core.forms.ready_made import ready_made_forms
from anchorline.demo.scenario import FORMS, form_document
from anchorline.wire.forms import FormDocument, document_as_kept

SCHEMA = json.loads((Path(__file__).parents[2] / "docs/form.schema.json").read_text())


def test_the_published_schema_is_that_of_the_service():
    published = {name: value for name, value in SCHEMA.items() if name != "$schema"}
    assert published == FormDocument.model_json_schema(), (
        "write it anew: docs/contributors.md says how"
    )


@pytest.mark.parametrize("document", [
    *(dict(ready.document) for ready in ready_made_forms()),
    *(document_as_kept(form_document(key)) for key in FORMS),
], ids=lambda document: document["key"])  # fmt: skip
def test_the_forms_that_there_are_fit_it(document):
    jsonschema_rs.validator_for(SCHEMA).validate(document)


def test_a_misspelt_setting_does_not_fit_it():
    misspelt = {"key": "a", "kind": "web", "title": "A", "feilds": []}
    assert not jsonschema_rs.validator_for(SCHEMA).is_valid(misspelt)

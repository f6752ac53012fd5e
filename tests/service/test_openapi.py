"""The OpenAPI document is complete and true."""

import json
import os
import subprocess
import sys
from pathlib import Path

import httpx
import pytest

from anchorline.service.app import ROUTERS
from tests.waiting import SLOWNESS


def document(stack):
    return httpx.get(f"{stack.url}/api/v1/openapi.json", trust_env=False, timeout=60).json()


def test_every_endpoint_is_described_with_its_problems_and_access(stack):
    described = document(stack)
    assert described["openapi"] == "3.1.0"
    operations = {
        operation["operationId"]: operation
        for path in described["paths"].values()
        for operation in path.values()
    }
    assert set(operations) == {e.name for router in ROUTERS for e in router.endpoints}
    for name, operation in operations.items():
        assert operation["summary"], name
        assert "422" in operation["responses"], name
        assert ("401" in operation["responses"]) == bool(operation["security"]) or name == "sign_in"


@pytest.mark.parametrize(
    "endpoint", [e for a in ROUTERS for e in a.endpoints], ids=lambda e: e.name
)
def test_every_body_and_answer_has_an_example_that_is_one(endpoint):
    schemas = [schema for schemas in endpoint.answers.values() for schema in schemas or ()]
    for schema in [*schemas, *([endpoint.body] if endpoint.body else [])]:
        examples = schema.model_json_schema().get("examples")
        assert examples, schema.__name__
        for example in examples:
            schema.model_validate(example)


def test_every_reference_leads_somewhere(stack):
    described = document(stack)
    text = json.dumps(described)
    for name in {part.split('"')[0] for part in text.split("#/components/schemas/")[1:]}:
        assert name in described["components"]["schemas"]


# `make test-faults` tries each part of the largest body as well, which takes a third of the time.
WHOLE = bool(os.environ.get("FAULTS_ALONE"))


@pytest.mark.ruins
def test_the_live_service_answers_as_described_whatever_it_is_sent(scratch_stack, tmp_path):
    """No 5xx, no undocumented status, schema or content type, no way around authentication."""
    # An address too long to be read is refused with 414 or 431, which the tool does not expect.
    refusals = "400, 401, 403, 404, 405, 409, 413, 414, 415, 422, 428, 429, 431"
    # Each part of a body is tried at one of the calls that take it.
    same = "".join(
        f'[[operations]]\ninclude-operation-id = "{name}"\nphases.coverage.enabled = false\n'
        for name in (
            *(() if WHOLE else ("put_form_draft",)),
            "compare_form",
            "compare_own_layout",
            "compare_target",
            "preview_own_layout",
            "dry_run_record",
            "change_record",
            "put_target_draft",
            "try_target",
            "report_target_capture",
            "export_activity",
            "export_capture_quality",
            "lint_form",
            "propose_mapping",
            "try_mapping",
            "lint_target",
            "propose_target_rules",
            "try_target_mapping",
        )
    )
    (tmp_path / "schemathesis.toml").write_text(
        f"[checks]\nnegative_data_rejection.expected-statuses = [{refusals}]\n{same}"
    )
    done = subprocess.run(
        [
            str(Path(sys.executable).with_name("st")), "run",
            f"{scratch_stack.url}/api/v1/openapi.json",
            "--header", f"Authorization: Bearer {scratch_stack.access['server_key']}",
            "--checks",
            "not_a_server_error,status_code_conformance,content_type_conformance,"
            "response_schema_conformance,negative_data_rejection,unsupported_method,"
            "ignored_auth",
            "--max-examples", "2", "--phases", "examples,coverage,fuzzing", "--no-color",
            "--generation-database", "none", "--warnings", "off", "--seed", "2470",
        ],
        cwd=tmp_path, capture_output=True, text=True, timeout=100 * SLOWNESS,
    )  # fmt: skip
    assert done.returncode == 0, "\n".join(line[:300] for line in done.stdout.splitlines())[-6000:]

"""A client that a general generator makes from the OpenAPI document can do the work."""

import json
import subprocess
import sys
from pathlib import Path

import httpx
import pytest

PROGRAM = """
import io, sys
sys.path.insert(0, {folder!r})
from made.api.datasets import get_job, load_edition
from made.api.finding import suggest
from made.api.records import submit_record
from made.client import AuthenticatedClient
from made.models import LoadEditionFilesBody, RecordRequest
from made.types import File

client = AuthenticatedClient(base_url={url!r}, token={key!r}, raise_on_unexpected_status=True)
rows = b"id,country_code,street,town,postcode\\na,GB,Gritstone Row,Marl,QV1 1AA\\n"
body = LoadEditionFilesBody(file=File(payload=io.BytesIO(rows), file_name="rows.csv"))
job = load_edition.sync("generated-{mark}", client=client, body=body)
print("job", job.kind, job.source_name)
found = suggest.sync(client=client, q="abbey mews", country="GB")
print("found", len(found.suggestions) > 0)
"""


@pytest.fixture(scope="module")
def made(stack, tmp_path_factory) -> Path:
    folder = tmp_path_factory.mktemp("generated")
    document = httpx.get(f"{stack.url}/api/v1/openapi.json", trust_env=False, timeout=60).json()
    (folder / "openapi.json").write_text(json.dumps(document))
    (folder / "settings.yaml").write_text("post_hooks: []\n")
    done = subprocess.run(
        [Path(sys.executable).with_name("openapi-python-client"), "generate", "--meta", "none",
         "--path", "openapi.json", "--config", "settings.yaml", "--output-path", "made"],
        cwd=folder, capture_output=True, text=True, timeout=400,
    )  # fmt: skip
    assert done.returncode == 0, done.stdout + done.stderr
    return folder


def test_a_generated_client_sends_a_file_and_searches(made, stack):
    program = PROGRAM.format(
        folder=str(made), url=stack.url, key=stack.access["server_key"], mark=stack.url[-4:]
    )
    done = subprocess.run(
        [sys.executable, "-c", program], capture_output=True, text=True, timeout=200
    )
    assert done.returncode == 0, done.stderr
    assert done.stdout.split("\n")[:2] == ["job load rows.csv", "found True"]

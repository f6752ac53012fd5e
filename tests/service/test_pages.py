import json
import re
import subprocess
import sys

import pytest


@pytest.mark.parametrize(
    ("path", "status", "kind"),
    [
        ("/f/tuning-visit", 200, "text/html"),
        ("/f/supplier", 404, "text/html"),
        ("/f/nope", 404, "text/html"),
        ("/console", 200, "text/html"),
        ("/console/records", 200, "text/html"),
        ("/embed/anchorline.js", 200, "text/javascript"),
        ("/embed/../settings.py", 404, "application/problem+json"),
        ("/favicon.svg", 200, "image/svg+xml"),
        ("/healthz", 200, "application/json"),
        ("/readyz", 200, "application/json"),
        ("/metrics", 200, "text/plain"),
        ("/nope", 404, "application/problem+json"),
    ],
)
def test_each_page_answers_as_what_it_is(stack, path, status, kind):
    with stack.http(None) as http:
        answer = http.get(path)
    assert (answer.status_code, answer.headers["Content-Type"].split(";")[0]) == (status, kind)
    assert answer.headers["X-Content-Type-Options"] == "nosniff"


@pytest.mark.parametrize("path", ["/embed/anchorline.js", "/assets/{}"])
def test_scripts_are_sent_compressed_to_whoever_takes_that(stack, path):
    with stack.http(None) as http:
        if "{}" in path:
            path = re.search(r"/assets/[^\"]+\.js", http.get("/console").text)[0]
        packed = http.get(path, headers={"Accept-Encoding": "gzip"})
        plain = http.get(path, headers={"Accept-Encoding": "identity"})
        assert packed.headers["Content-Encoding"] == "gzip"
        assert "Content-Encoding" not in plain.headers
        assert packed.headers["Vary"] == plain.headers["Vary"] == "Accept-Encoding"
        assert packed.content == plain.content
        assert int(packed.headers["Content-Length"]) < len(plain.content) / 2
        assert packed.headers["ETag"] != plain.headers["ETag"]
        again = {"Accept-Encoding": "gzip", "If-None-Match": packed.headers["ETag"]}
        assert http.get(path, headers=again).status_code == 304
        assert http.get("/embed/page.css").headers.get("Content-Encoding") is None, "too small"


def test_pages_allow_no_foreign_script(stack):
    with stack.http(None) as http:
        policy = http.get("/f/tuning-visit").headers["Content-Security-Policy"]
    assert "script-src 'self';" in policy
    assert "frame-ancestors 'none'" in policy


def test_metrics_count_requests_and_ready_says_each_part(stack):
    with stack.http() as http:
        http.get("/api/v1/suggest?q=kiln")
        metrics = http.get("/metrics").text
        assert http.get("/readyz").json() == {
            "ready": True, "database": True, "migrations": True, "editions": True,
        }  # fmt: skip
    assert (
        'anchorline_requests_total{endpoint="finding.suggest",method="GET",status="200"}' in metrics
    )


def test_the_log_is_json_without_addresses_or_secrets(stack):
    with stack.http() as http:
        http.get("/api/v1/suggest?q=verysecretstreet")
        http.post("/api/v1/session", json={"email": "a@b.example", "password": "hunter2hunter2"})
    lines = (stack.folder / "demo" / "service.log").read_text().splitlines()
    for line in lines:
        assert line.startswith("{"), "\n".join(lines)[-3000:]
        json.loads(line)
    text = "\n".join(lines)
    for secret in ("verysecretstreet", "hunter2", stack.access["server_key"], "a@b.example"):
        assert secret not in text


def test_the_access_file_is_the_owners_alone(stack):
    assert (stack.folder / "demo" / "access.json").stat().st_mode & 0o777 == 0o600
    assert set(stack.access) == {
        "url", "admin_email", "admin_password", "server_key", "browser_key",
    }  # fmt: skip


def run(stack, *arguments, text="", **environment):
    return subprocess.run(
        [sys.executable, "-m", "anchorline.service", *arguments],
        env=stack.environment | environment,
        input=text,
        capture_output=True,
        text=True,
        timeout=200,
    )


@pytest.mark.parametrize(
    ("environment", "detail"),
    [
        ({"ANCHORLINE_PORT": "http"}, "ANCHORLINE_PORT is 'http'; it must be a whole number"),
        ({"ANCHORLINE_LOG_LEVEL": "loud"}, "one of debug, info, warning, error"),
        ({"ANCHORLINE_SECRET": "short"}, "at least 32 characters"),
        ({"ANCHORLINE_DATABASE_URL": "postgres://x"}, "must begin with mariadb+pymysql://"),
        (
            {"ANCHORLINE_MAP_TILES": "https://x/{z}/{x}.png"},
            "an http(s) address with {z}, {x} and {y}",
        ),
        ({"ANCHORLINE_MAP_TILES": "https://x/{z}/{x}/{y};script-src *"}, "quotes and semicolons"),
    ],
)
def test_a_setting_that_cannot_be_used_is_named_at_the_start(stack, environment, detail):
    done = run(stack, "run", **environment)
    assert done.returncode == 1
    assert detail in done.stderr
    assert "Traceback" not in done.stderr


def test_a_short_password_is_refused(stack):
    done = run(stack, "user", "c@example.org", "C", text="short\n")
    assert (done.returncode, done.stderr) == (1, "At least 10 characters.\n")

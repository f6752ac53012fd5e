"""Keys as an operator makes, lists and ends them."""

import subprocess
import sys

import pytest

from anchorline.application.documents import FORMS, TARGETS
from anchorline.core.keys import OriginError, web_origin
from anchorline.service.__main__ import _parser
from anchorline.service.key_commands import make_key
from anchorline.store.documents import DocumentStore
from anchorline.store.keys import KeyStore
from tests.waiting import wait_until


@pytest.mark.parametrize(
    ("given", "origin"),
    [
        ("https://shop.example", "https://shop.example"),
        ("HTTPS://Shop.Example/", "https://shop.example"),
        ("https://shop.example:443", "https://shop.example"),
        ("http://localhost:3000", "http://localhost:3000"),
        ("http://127.0.0.1:80", "http://127.0.0.1"),
        ("http://[::1]:8080", "http://[::1]:8080"),
    ],
)
def test_an_origin_is_kept_as_browsers_send_it(given, origin):
    assert web_origin(given) == origin


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ("shop.example", "scheme, host and perhaps port"),
        ("*", "no web origin"),
        ("", "no web origin"),
        ("ftp://shop.example", "no web origin"),
        ("https://", "no web origin"),
        ("https://*.example", "no web origin"),
        ("https://shop.example:99999", "no web origin"),
        ("https://shop.example/order", "write https://shop.example."),
        ("https://shop.example?x=1", "has no path"),
        ("https://ada@shop.example", "write https://shop.example."),
    ],
)
def test_what_is_no_origin_is_refused_with_what_one_is(given, said):
    with pytest.raises(OriginError) as caught:
        web_origin(given)
    assert said in str(caught.value)


@pytest.fixture
def operator(stack):
    def run(*arguments):
        return subprocess.run(
            [sys.executable, "-m", "anchorline.service", *arguments],
            env=stack.environment, capture_output=True, text=True, timeout=200,
        )  # fmt: skip

    return run


@pytest.mark.parametrize(
    ("arguments", "said"),
    [
        (["browser", "Shop", "--origin", "shop.example", "--form", "venue"], "no web origin"),
        (["browser", "Shop", "--origin", "https://a.example", "--form", "tuning-vist"],
         "no form 'tuning-vist'. Did you mean tuning-visit"),
        (["browser", "Shop", "--form", "venue"], "needs the web origins"),
        (["browser", "Shop", "--origin", "https://a.example"], "needs the forms or targets"),
        (["server", "Shop", "--scope", "find", "--origin", "https://a.example"],
         "make a browser key"),
        (["server", "Shop"], "one or more of find, desk, forms"),
        (["server", "Shop", "--scope", "fnd"], "Did you mean find"),
    ],
)  # fmt: skip
def test_a_key_that_could_not_work_is_not_made(arguments, said, stack_database, capsys):
    keys = KeyStore(stack_database)
    before = keys.list()
    given = _parser().parse_args(["key", *arguments])
    forms = DocumentStore(stack_database, FORMS.stored).keys()
    targets = DocumentStore(stack_database, TARGETS.stored).keys()
    status = make_key(keys, forms, targets, given)
    out, err = capsys.readouterr()
    assert (status, out) == (2, "")
    assert said in err
    assert keys.list() == before


def test_a_key_is_listed_without_its_secret_and_ended(operator, stack):
    made = operator("key", "browser", "Ended Shop", "--origin", "https://Shop.Example/",
                    "--form", "venue", "--form", "venue")  # fmt: skip
    key = made.stdout.strip()
    identifier, secret = key.split("_")[2:]
    listed = operator("keys").stdout
    (line,) = [line for line in listed.splitlines() if line.startswith(identifier)]
    assert "in use" in line
    assert "Ended Shop  from https://shop.example  for venue" in line
    assert secret not in listed
    headers = {"Authorization": f"Bearer {key}", "Origin": "https://shop.example"}
    with stack.http(None) as http:
        assert http.get("/api/v1/forms/venue", headers=headers).status_code == 200
        ended = operator("end-key", identifier)
        assert (ended.returncode, "is ended" in ended.stdout) == (0, True)
        wait_until(
            lambda: http.get("/api/v1/forms/venue", headers=headers).status_code == 401,
            why="an ended key still works",
        )
    assert "ended" in next(x for x in operator("keys").stdout.splitlines() if identifier in x)
    assert "ended before" in operator("end-key", identifier).stdout
    unknown = operator("end-key", "nosuchkey")
    assert (unknown.returncode, "no key 'nosuchkey'" in unknown.stderr) == (3, True)

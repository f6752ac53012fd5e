import pytest
from flask import Request
from itsdangerous import TimestampSigner
from werkzeug.test import EnvironBuilder

from anchorline.service.access import Access, Gate
from anchorline.service.allowed import Allowed
from anchorline.service.logs import _hide_secrets
from anchorline.service.problems import ProblemError
from anchorline.service.rates import Rate
from anchorline.service.settings import SETTINGS, SettingsError, read_settings
from anchorline.store.database import DatabaseUnavailableError
from anchorline.store.keys import ApiKey


def test_without_variables_the_defaults_hold():
    settings = read_settings({})
    assert (settings.host, settings.port, settings.workers) == ("127.0.0.1", 8470, 2)
    assert settings.database_url is None
    assert settings.https is False
    assert settings.gazetteer_folder == settings.var / "gazetteer"


def test_every_fault_is_said_at_once():
    with pytest.raises(SettingsError) as caught:
        read_settings(
            {"ANCHORLINE_PORT": "0", "ANCHORLINE_THREADS": "many", "ANCHORLINE_HTTPS": "maybe"}
        )
    lines = str(caught.value).splitlines()
    assert len(lines) == 3
    assert lines[0] == "ANCHORLINE_PORT is '0'; it must be a whole number from 1 to 65535."
    assert all(any(name in line for name in SETTINGS) for line in lines)


def test_the_signing_secret_is_made_once_and_kept_from_others(tmp_path):
    settings = read_settings({"ANCHORLINE_VAR_DIR": str(tmp_path / "var")})
    made = settings.signing_secret()
    assert len(made) >= 32
    assert settings.signing_secret() == made
    assert (tmp_path / "var" / "service-secret").stat().st_mode & 0o777 == 0o600
    own = read_settings({"ANCHORLINE_SECRET": "s" * 32})
    assert own.signing_secret() == "s" * 32


PLENTY = Allowed((Rate(1000, 1000),) * 2, (Rate(1000, 1000),) * 2)


class Keys:
    """Counts how often the store is asked."""

    asked = 0

    def check(self, presented):
        self.asked += 1
        return ApiKey("1", "server", "Shop", ("find",)) if presented == "good" else None


class AwayKeys(Keys):
    """Answers once, and then not any more."""

    def check(self, presented):
        if self.asked:
            raise DatabaseUnavailableError("away")
        return super().check(presented)


def test_a_key_in_view_goes_on_while_the_database_is_away(monkeypatch):
    gate = Gate(AwayKeys(), None, "secret" * 8, PLENTY)
    assert gate.authorize(request("good"), Access.SERVER, ("find",)).name == "Shop"
    monkeypatch.setattr("anchorline.service.keys_in_view._VIEW_SECONDS", -1.0)
    assert gate.authorize(request("good"), Access.SERVER, ("find",)).name == "Shop"
    with pytest.raises(DatabaseUnavailableError):
        gate.authorize(request("unknown"), Access.SERVER, ("find",))


class OldSigner(TimestampSigner):
    """Signs as if it were two days ago."""

    def get_timestamp(self):
        return super().get_timestamp() - 2 * 24 * 3600


def request(token):
    builder = EnvironBuilder(headers={"Authorization": f"Bearer {token}"})
    return Request(builder.get_environ())


@pytest.fixture
def gate():
    return Gate(Keys(), None, "secret" * 8, PLENTY)


def test_typing_asks_for_a_key_once_in_a_while_only(gate):
    for _ in range(20):
        assert gate.authorize(request("good"), Access.SERVER, ("find",)).name == "Shop"
        with pytest.raises(ProblemError):
            gate.authorize(request("bad"), Access.SERVER, ("find",))
    assert gate.keys._keys.asked == 2


def test_a_page_token_opens_its_form_until_it_runs_out(gate):
    caller = gate.authorize(request(gate.page_token("visit")), Access.CAPTURE)
    assert caller.may_use_form("visit")
    assert not caller.may_use_form("other")
    with pytest.raises(ProblemError, match="needs a server key"):
        gate.authorize(request(gate.page_token("visit")), Access.SERVER)
    old = OldSigner("secret" * 8, salt="page").sign("visit").decode()
    with pytest.raises(ProblemError, match="open for too long"):
        gate.authorize(request(f"anl_page_{old}"), Access.CAPTURE)
    forged = TimestampSigner("other" * 8, salt="page").sign("visit").decode()
    with pytest.raises(ProblemError, match="not valid; load the page anew"):
        gate.authorize(request(f"anl_page_{forged}"), Access.CAPTURE)


@pytest.mark.parametrize(
    "name", ["password", "csrf_token", "Authorization", "api_key", "Set-Cookie"]
)
def test_the_log_hides_what_is_called_like_a_secret(name):
    assert _hide_secrets(None, "info", {name: "hunter2", "event": "x"})[name] == "hidden"

"""Commands, run as processes against the running service."""

import os

import pytest

from .launcher import Launcher


@pytest.fixture(scope="session")
def launcher():
    started = Launcher()
    yield started
    started.close()


@pytest.fixture
def run(launcher, stack, tmp_path):
    def run(*arguments, source=None, **environment):
        known = {
            "PATH": os.environ["PATH"],
            "XDG_CONFIG_HOME": str(tmp_path),
            "ANCHORLINE_URL": stack.url,
            "ANCHORLINE_KEY": stack.access["server_key"],
            "LANG": "C.UTF-8",
        }
        return launcher.run(arguments, known | environment, source)

    return run

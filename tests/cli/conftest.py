"""Commands, run as processes against the running service."""

import os
import subprocess
import sys
from pathlib import Path

import pytest

COMMAND = str(Path(sys.executable).with_name("anchorline"))


@pytest.fixture
def run(stack, tmp_path):
    def run(*arguments, source=None, **environment):
        return subprocess.run(
            [COMMAND, *arguments],
            env={
                "PATH": os.environ["PATH"],
                "XDG_CONFIG_HOME": str(tmp_path),
                "ANCHORLINE_URL": stack.url,
                "ANCHORLINE_KEY": stack.access["server_key"],
                "LANG": "C.UTF-8",
            }
            | environment,
            capture_output=True,
            input=source,
            text=True,
            timeout=200,
        )

    return run

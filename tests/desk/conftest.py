"""A desktop for the tests of a file, and the eyes of the agent in it."""

import os

import pytest

from anchorline.desk.looking import Eyes

pytest.register_assert_rewrite("tests.desk.desktop", "tests.desk.writes")

from .desktop import Desktop  # noqa: E402

# What tells a process where its screen and its session are.
_OF_SESSION = ("DISPLAY", "DBUS_SESSION_BUS_ADDRESS", "XDG_SESSION_TYPE", "WAYLAND_DISPLAY")


@pytest.fixture(scope="module")
def desktop():
    """This process acts in the desktop's session as long as it is there."""
    made = Desktop()
    before = {name: os.environ.get(name) for name in _OF_SESSION}
    for name in _OF_SESSION:
        os.environ.pop(name, None)
        if name in made.environment:
            os.environ[name] = made.environment[name]
    yield made
    for name, value in before.items():
        os.environ.pop(name, None)
        if value is not None:
            os.environ[name] = value
    made.close()


@pytest.fixture(scope="module")
def eyes(desktop):
    made = Eyes()
    assert made.tree, made.without_tree
    yield made
    made.close()

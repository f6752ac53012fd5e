"""What of waitress is used beside what it documents: a release that changes it is not taken unseen."""

import ast
import inspect
import re
import textwrap
from importlib.metadata import version

import pytest

from anchorline.service.serving.connection import Connection, _OnePiece
from anchorline.service.serving.received import ReceivedRequest
from anchorline.service.serving.server import Server
from tests.conftest import PROJECT

# Methods and attributes of waitress's classes that ours override, call, read or set.
USED = {
    Server: {
        "_map", "accept_connections", "accepting", "active_channels", "channel_class",
        "handle_accept", "pull_trigger", "readable", "run", "task_dispatcher",
    },
    _OnePiece: {
        "build_response_header", "channel", "chunked_response", "complete",
        "content_bytes_written", "content_length", "has_body", "write", "wrote_header",
    },
    Connection: {
        "_flush_exception", "_flush_some", "close_when_flushed", "connected",
        "error_task_class", "handle_close", "handle_read", "handle_write", "parser_class",
        "readable", "received", "request", "requests", "requests_lock", "send",
        "send_continue", "sent_continue", "server", "service", "socket", "task_class",
        "total_outbufs_len", "will_close", "writable",
    },
    ReceivedRequest: {
        "body_rcv", "chunked", "command", "completed", "content_length",
        "empty", "error", "expect_continue", "first_line", "header_plus", "headers",
        "headers_finished", "path", "received", "version",
    },
}  # fmt: skip


def theirs(ours):
    """The classes of waitress that one of ours is made from."""
    return [one for one in ours.__mro__ if one.__module__.startswith("waitress")]


def names_of(ours):
    """What these classes have, and set on themselves."""
    found = {name for one in theirs(ours) for name in vars(one)}
    for one in theirs(ours):
        tree = ast.parse(textwrap.dedent(inspect.getsource(one)))
        found |= {
            node.attr
            for node in ast.walk(tree)
            if isinstance(node, ast.Attribute)
            and isinstance(node.value, ast.Name)
            and node.value.id == "self"
        }
    return {name for name in found if not name.startswith("__")}


def used_in(ours):
    """Names that our class overrides, or speaks of beside `self` and `super()`."""
    tree = ast.parse(textwrap.dedent(inspect.getsource(ours)))
    found = {node.name for node in ast.walk(tree) if isinstance(node, ast.FunctionDef)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Assign):
            found |= {target.id for target in node.targets if isinstance(target, ast.Name)}
        if isinstance(node, ast.Attribute):
            of = ast.unparse(node.value)
            if of in ("self", "super()"):
                found.add(node.attr)
    return found


@pytest.mark.parametrize("ours", USED, ids=lambda one: one.__name__)
def test_what_is_used_of_waitress_is_named_here_and_is_there(ours):
    assert used_in(ours) & names_of(ours) == USED[ours]


@pytest.mark.parametrize("ours", USED, ids=lambda one: one.__name__)
def test_what_is_overridden_takes_what_waitress_gives_it(ours):
    for name, function in vars(ours).items():
        above = next((vars(one)[name] for one in theirs(ours) if name in vars(one)), None)
        if inspect.isfunction(function) and inspect.isfunction(above) and name != "__init__":
            assert len(inspect.signature(function).parameters) == len(
                inspect.signature(above).parameters
            ), name


def test_the_release_that_is_taken_is_held_from_above():
    declared = re.search(
        r'"waitress>=([\d.]+),<([\d.]+)"', (PROJECT / "pyproject.toml").read_text()
    )
    assert declared is not None, "its classes are made use of beyond what it documents"
    least, most = (tuple(map(int, one.split("."))) for one in declared.groups())
    there = tuple(map(int, version("waitress").split(".")))
    assert least <= there < most

"""The sources themselves: documentation complete, lists kept twice alike, files of a size."""

import ast
import json
import re
import subprocess
import sys
from pathlib import Path

import click
import pytest

from anchorline.cli import main as cli
from anchorline.cli.main import COMMANDS
from anchorline.core.address import COMPONENTS
from anchorline.core.forms.slot_settings import SETTINGS as SLOT_SETTINGS
from anchorline.core.layouts import shipped_layouts
from anchorline.core.mapping import CHANGES, FACTS, IF_WRITTEN, SOURCES
from anchorline.core.mapping.lint import CHECKS
from anchorline.service.app import ROUTERS
from anchorline.service.settings import SETTINGS

PROJECT = Path(__file__).parents[2]
DOCS = PROJECT / "docs"


def test_the_consoles_vocabulary_is_the_cores():
    text = (PROJECT / "console/src/api/vocabulary.ts").read_text()
    components, rest = text.split("export const FACTS")
    facts = rest
    assert re.findall(r'^  "(\w+)",$', components, re.M) == list(COMPONENTS)
    assert re.findall(r"^  (\w+):", facts, re.M) == list(FACTS)


@pytest.mark.parametrize("setting", SETTINGS)
def test_every_setting_is_in_the_operators_table(setting):
    default, meaning = SETTINGS[setting]
    assert f"| `{setting}` | {default} | {meaning} |" in (DOCS / "operators.md").read_text()


@pytest.mark.parametrize(
    "endpoint", [e for a in ROUTERS for e in a.endpoints], ids=lambda e: e.name
)
def test_every_endpoint_is_in_the_integrators_table_with_its_rule(endpoint):
    path = re.sub(r"<(?:path:)?(\w+)>", r"{\1}", endpoint.rule)
    row = f"| `{endpoint.method} {path}` | {endpoint.access.value} |"
    assert row in (DOCS / "integrators.md").read_text()


def test_the_list_of_commands_says_of_each_what_it_says_itself():
    """The list is written down, so that asking for it loads nothing."""
    context = click.Context(cli)
    for name, (_module, says) in COMMANDS.items():
        command = cli.get_command(context, name)
        assert command.name == name
        first = re.match(r"\w+", says)[0]
        assert command.get_short_help_str(300).startswith(first), name


def test_what_an_idempotency_key_is_for_is_never_taken_for_a_form():
    """Records have their form's key as the scope, and a form may be called `keys`."""
    service = PROJECT / "src" / "anchorline" / "service"
    calls = re.compile(r"idempotency_key\(\s*request, (f?\"[^\"]*\"|\w+),")
    scopes = [one for path in service.rglob("*.py") for one in calls.findall(path.read_text())]
    assert len(scopes) >= 7
    assert {one for one in scopes if "/" not in one} == {"form", "scope"}
    copies = (service / "documents" / "calls.py").read_text()
    assert 'scope = f"copy {self._kind.name}/{key}"' in copies


def test_every_command_begins_with_what_it_does():
    """One voice: "End a key", and neither "Ends" nor "A key is ended"."""
    context = click.Context(cli)
    groups = {name: cli.get_command(context, name) for name in cli.list_commands(context)}
    whole = [
        (f"{name} {sub}", one)
        for name, group in groups.items()
        for sub, one in getattr(group, "commands", {"": group}).items()
    ]
    verbs = {one.get_short_help_str(300).split()[0] for _name, one in whole}
    assert {verb for verb in verbs if verb.endswith("s") or not verb.istitle()} <= {"Address"}
    nouns = {"All", "The", "What", "How", "Records", "Components", "One", "Addresses", "Where"}
    assert not [name for name, one in whole if one.get_short_help_str(300).split()[0] in nouns]


def test_every_command_is_in_the_command_line_page():
    text = (DOCS / "command-line.md").read_text()
    context = click.Context(cli)
    for name in cli.list_commands(context):
        command = cli.get_command(context, name)
        for sub, one in getattr(command, "commands", {"": command}).items():
            if one.hidden:
                continue
            assert f"anchorline {name} {sub}".strip() in text


def test_every_picture_that_is_linked_is_there_and_every_one_there_is_linked():
    pictures = {p.name for p in (DOCS / "screenshots").glob("*.png")}
    pages = [PROJECT / "README.md", *DOCS.glob("*.md")]
    linked = {
        name
        for page in pages
        for name in re.findall(r"screenshots/([\w.-]+\.png)", page.read_text())
    }
    assert linked == pictures
    assert 0 < len(pictures) < 20


def tracked(*patterns):
    done = subprocess.run(
        ["git", "ls-files", "--cached", "--others", "--exclude-standard", *patterns],
        cwd=PROJECT, capture_output=True, text=True, check=True,
    )  # fmt: skip
    return [PROJECT / name for name in done.stdout.split() if (PROJECT / name).exists()]


def test_no_module_is_too_long_to_read_in_a_sitting():
    made = PROJECT / "embed/src/api.ts"  # nobody reads it from one end to the other
    for path in tracked("src/*.py", "src/*.pyx", "embed/src", "console/src"):
        if path == made:
            continue
        assert len(path.read_text().splitlines()) <= 320, path


def test_no_lock_file_names_a_registry():
    lock = json.loads((PROJECT / "package-lock.json").read_text())
    for name, package in lock["packages"].items():
        assert not package.get("resolved", "").startswith("http"), name
    assert "://" not in (PROJECT / "setup/constraints.txt").read_text()


def public_definitions(path):
    """The public functions and classes of a module, and the public methods of its public classes."""
    kinds = (ast.FunctionDef, ast.ClassDef)
    for node in ast.parse(path.read_text()).body:
        if isinstance(node, kinds) and not node.name.startswith("_"):
            yield node
            if isinstance(node, ast.ClassDef):
                yield from (
                    inner
                    for inner in node.body
                    if isinstance(inner, ast.FunctionDef) and not inner.name.startswith("_")
                )


def test_everything_public_in_the_core_the_store_and_the_client_says_what_it_is():
    for area in ("core", "store", "client", "wire"):
        for path in tracked(f"src/anchorline/{area}/*.py"):
            if "migrations" in path.parts or path.name == "schema.py":
                continue
            assert ast.get_docstring(ast.parse(path.read_text())), path
            for node in public_definitions(path):
                assert ast.get_docstring(node), f"{path}: {node.name}"


def test_no_function_is_over_sixty_lines():
    for path in tracked("src/*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.FunctionDef) and "migrations" not in path.parts:
                assert node.end_lineno - node.lineno <= 60, f"{path}: {node.name}"


def test_the_page_of_layouts_names_every_country_that_is_not_sure():
    text = (DOCS / "layouts.md").read_text()
    shown = text.partition("<!-- confidence -->")[2].partition("<!-- /confidence -->")[0]
    expected = "".join(
        f"\n**{confidence}** ({len(names)}): {', '.join(names)}.\n"
        for confidence in ("likely", "open")
        for names in [sorted(x.name for x in shipped_layouts() if x.confidence == confidence)]
    )
    assert shown == f"\n{expected.lstrip()}", f"put there:\n{expected}"


def test_nothing_built_is_kept_with_the_sources():
    listed = subprocess.run(
        ["git", "ls-files"], cwd=PROJECT, check=True, capture_output=True, text=True
    ).stdout.split("\n")
    assert [name for name in listed if re.search(r"\.(so|o|pyc)$|^(src/)?build/", name)] == []


def test_the_core_reads_no_clock():
    """It may count days; what time it is, it is told."""
    clocks = {"now", "today", "utcnow", "monotonic", "perf_counter", "process_time"}
    for path in tracked("src/anchorline/core/*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Attribute):
                assert node.attr not in clocks, f"{path}:{node.lineno} reads a clock"


def test_the_types_of_the_web_parts_are_made_from_the_api_of_today(tmp_path):
    """`make api-types` makes them anew."""
    subprocess.run([sys.executable, "api-types/schemas.py"], cwd=PROJECT, check=True)
    made = tmp_path / "api.ts"
    generate = json.loads((PROJECT / "api-types/package.json").read_text())["scripts"]["generate"]
    command = generate.replace("../embed/src/api.ts", str(made)).split()
    program = PROJECT / "api-types/node_modules/.bin" / command[0]
    subprocess.run(
        [program, *command[1:]], cwd=PROJECT / "api-types", check=True, capture_output=True
    )
    assert made.read_text() == (PROJECT / "embed/src/api.ts").read_text()


def test_every_class_that_the_console_names_has_a_rule():
    """A class without one is a slip of a name: the page falls apart, and nothing says so."""
    sheets = "".join(path.read_text() for path in (PROJECT / "console/src").rglob("*.css"))
    rules = set(re.findall(r"\.([a-z][\w-]*)", sheets))
    for path in (PROJECT / "console/src").rglob("*.tsx"):
        for names in re.findall(r'className="([^"]*)"', path.read_text()):
            assert set(names.split()) <= rules, f"{path}: {names}"


@pytest.mark.parametrize("setting", [*SLOT_SETTINGS, *FACTS])
def test_every_setting_of_an_address_is_documented(setting):
    assert f"`{setting}`" in (DOCS / "addresses.md").read_text()


@pytest.mark.parametrize("name", [*CHANGES, *SOURCES, *CHECKS, *IF_WRITTEN])
def test_everything_that_a_mapping_can_be_made_of_is_documented(name):
    assert f"`{name}`" in (DOCS / "mapping.md").read_text()


# Keys of JavaScript's own events, and names of ours; what people name never stands there.
NAMED_BY_US = {"codes[key]", "SAID[value]", "record[key]"}


def test_what_people_name_is_looked_up_where_nothing_is_inherited():
    """A field can be called `constructor`: `valueAt` finds what an object itself has, and no more."""
    looked_up = re.compile(r"(\w+\??\.?\[(?:\w+\.)*(?:key|value)(?: \?\? \"\")?\])(?! =[^=])")
    found = {
        f"{path.relative_to(PROJECT)}: {place}"
        for path in tracked("embed/src/*.ts", "console/src/*.ts", "console/src/*.tsx")
        if path.name != "api.ts" and ".test." not in path.name
        for line in path.read_text().splitlines()
        if not line.strip().startswith("else delete ")
        for place in looked_up.findall(line)
        if place not in NAMED_BY_US
    }
    assert found == set()

"""Every method of the client asks for what the service declares, in the schema that it takes."""

import inspect
import json
import re
from datetime import UTC, date, datetime
from pathlib import Path

import httpx
import pytest

from anchorline.client import Client, OwnLayoutDocument, PageTargetDocument, RulesRequest
from anchorline.client.transport import Transport
from anchorline.service.app import ROUTERS
from anchorline.service.endpoints import API
from anchorline.wire.forms import FormDocument
from anchorline.wire.target_runs import TargetRunReport

ENDPOINTS = {endpoint.name: endpoint for router in ROUTERS for endpoint in router.endpoints}
FORM = FormDocument(key="call-back", title="Call back", kind="web", fields=[], slots=[])
OWN = OwnLayoutDocument(key="south", title="South", countries=["FR"])
SEEN = [{"kind": "title", "text": "Contact"}]
RUN = TargetRunReport(address="home", version=1, outcome="verified", ms=400)
PAGE = PageTargetDocument(key="checkout", title="Checkout")
TOWN = {"town": "Marl"}
CALLS = {
    "suggest": lambda c: c.suggest(
        "kiln", country=("GB", "FR"), kinds="street", near=(51.5, -2.8), within="demo:~1",
        language="cy", limit=3, after="8", trace=True,
    ),
    "get_address": lambda c: c.address("demo:GB0000012@cy", components=("town", "postcode")),
    "get_postcode": lambda c: c.postcode("GB", "QV1 1AA"),
    "get_nearest": lambda c: c.nearest(51.5, -2.8, limit=2, radius_m=100),
    "list_layouts": lambda c: c.layouts(),
    "get_layout": lambda c: c.layout("CH", language="fr", form="venue"),
    "write_address_lines": lambda c: c.lines("DE", TOWN, international=True, from_country="FR"),
    "write_many_lines": lambda c: c.many_lines([{"country_code": "FR", **TOWN}], form="venue"),
    "check_against_layout": lambda c: c.check("DE", TOWN, form="venue"),
    "list_samples": lambda c: c.samples("DE", form="venue"),
    "preview_own_layout": lambda c: c.own_layouts.preview(OWN, "FR", TOWN, language="fr"),
    "get_form": lambda c: c.form("venue", draft=True),
    "list_link_choices": lambda c: c.link_choices("venue", "town", "ma"),
    "list_field_types": lambda c: c.field_types(),
    "list_ready_made_forms": lambda c: c.ready_made_forms(),
    "propose_form": lambda c: c.propose_form("Name,Street", "Customers", plain=[1], left_out=[0]),
    "fill_form_slot": lambda c: c.fill("venue", "place", components=TOWN, values={"name": "x"}),
    "list_mapping_changes": lambda c: c.mapping_changes(),
    "lint_form": lambda c: c.lint("venue", FORM),
    "run_form_examples": lambda c: c.mapping_examples("venue"),
    "list_mapping_samples": lambda c: c.mapping_samples("venue", "place"),
    "propose_mapping": lambda c: c.mapping_proposals("venue", "place"),
    "try_mapping": lambda c: c.try_mapping("venue", "place", components=TOWN, country="GB"),
    "read_components_back": lambda c: c.components_of("venue", "place", {"line": "x"}),
    "start_mapping_coverage": lambda c: c.start_coverage("venue", "place", per_country=10),
    "list_coverage": lambda c: c.coverage("venue", "place"),
    "get_surroundings": lambda c: c.surroundings(51.5, -2.9, limit=2, radius_m=50),
    "get_position": lambda c: c.position("QV1", country="GB", datasets="demo"),
    "list_dial_codes": lambda c: c.dial_codes(),
    "check_phone": lambda c: c.check_phone("020 7946 0123", "GB"),
    "change_record": lambda c: c.change_record("r1", {"name": "x"}, revision=3),
    "get_record_history": lambda c: c.record_history("r1"),
    "try_formula": lambda c: c.try_formula("n * 2", {"n": 3}, {"p": {"components": TOWN}}),
    "list_formula_functions": lambda c: c.formula_functions(),
    "submit_record": lambda c: c.submit("venue", {"name": "x"}, idempotency_key="once"),
    "list_records": lambda c: c.records(
        form="venue", search="marl", sort="-label", limit=5, after="x"
    ),
    "get_record": lambda c: c.record("r/1"),
    "list_datasets": lambda c: c.datasets.list(),
    "get_dataset": lambda c: c.datasets.get("demo"),
    "set_dataset_rules": lambda c: c.datasets.set_rules("demo", RulesRequest()),
    "load_edition": lambda c: c.datasets.load(
        "demo", Path(__file__), changes=True, base=1, bad_share=0.1, activate="never"
    ),
    "get_edition": lambda c: c.datasets.edition("demo", 1),
    "activate_dataset_edition": lambda c: c.datasets.activate("demo", 1),
    "rebuild_edition": lambda c: c.datasets.rebuild("demo", 1),
    "compare_edition": lambda c: c.datasets.compare("demo", 1),
    "delete_dataset": lambda c: c.datasets.remove_dataset("demo"),
    "delete_edition": lambda c: c.datasets.remove("demo", 1),
    "get_job": lambda c: c.datasets.job("j1"),
    "cancel_job": lambda c: c.datasets.cancel("j1"),
    "retry_job": lambda c: c.datasets.retry("j1", bad_share=0.1),
    "discard_job_file": lambda c: c.datasets.discard_file("j1"),
    "get_job_report": lambda c: c.datasets.report("j1"),
    "propose_page_target": lambda c: c.targets.propose("shop", "Shop", [{"name": "street"}]),
    "send_look": lambda c: c.programs.send_look(SEEN, "desk-7"),
    "list_looks": lambda c: c.programs.looks(),
    "delete_look": lambda c: c.programs.remove_look("8f0c"),
    "recognise_screen": lambda c: c.programs.recognise(SEEN, drafts=True),
    "propose_screen_signature": lambda c: c.programs.propose_signature([SEEN], [SEEN]),
    "list_program_targets": lambda c: c.programs.published(),
    "list_ready_made_targets": lambda c: c.programs.ready_made(),
    "lint_target": lambda c: c.target_mappings.lint("shop"),
    "list_target_samples": lambda c: c.target_mappings.samples("shop", "delivery"),
    "propose_target_rules": lambda c: c.target_mappings.proposals("shop", "delivery"),
    "try_target_mapping": lambda c: c.target_mappings.try_out(
        "shop", "delivery", components=TOWN, country="GB"
    ),
    "start_target_coverage": lambda c: c.target_mappings.start_coverage(
        "shop", "delivery", per_country=10
    ),
    "run_target_examples": lambda c: c.target_mappings.examples("shop"),
    "read_target_components": lambda c: c.target_mappings.components_of(
        "shop", "delivery", {"line": "x"}
    ),
    "list_target_coverage": lambda c: c.target_mappings.coverage("shop", "delivery"),
    "propose_program_target": lambda c: c.programs.propose(
        "ledger", "Ledger", [SEEN], fields=[{"label": "Street"}], countries=["GB"]
    ),
    "report_target_run": lambda c: c.programs.report_run("ledger", RUN),
    "list_target_runs": lambda c: c.programs.runs("ledger"),
    "try_target": lambda c: c.targets.trial(PAGE, "delivery"),
    "attach_target": lambda c: c.targets.attached("checkout"),
    "report_target_fault": lambda c: c.targets.report_fault("checkout", "path", "/", "is not"),
    "list_target_faults": lambda c: c.targets.faults("checkout"),
    "fill_target": lambda c: c.targets.fill("checkout", "delivery", components=TOWN),
    "list_keys": lambda c: c.keys.list(),
    "make_key": lambda c: c.keys.make("server", "Orders", scopes=["find"]),
    "rotate_key": lambda c: c.keys.rotate("5f0c2a9be417", overlap_hours=2),
    "end_key": lambda c: c.keys.end("5f0c2a9be417"),
    "set_allowance": lambda c: c.keys.allow("5f0c2a9be417", 1000, warn_share=0.9),
    "get_usage": lambda c: c.activity.usage("2027-03"),
    "list_activity": lambda c: c.activity.list(
        subject="5f0c2a9be417", outcome="refused", since=datetime(2027, 3, 1, tzinfo=UTC), after=7
    ),
    "export_activity": lambda c: c.activity.lines(outcome="failed"),
    "get_capture_quality": lambda c: c.activity.quality(kind="form", name="venue"),
    "export_capture_quality": lambda c: c.activity.quality_table(until=date(2027, 3, 1)),
    "report_form_capture": lambda c: c.activity.report_quality("form", "venue", {"shown": 1}),
    "report_target_capture": lambda c: c.activity.report_quality(
        "target", "checkout", {"shown": 1}, not_found=["x"]
    ),
    "list_observations": lambda c: c.activity.observations(),
    "observe": lambda c: c.activity.observe("target", "checkout", hours=1),
    "get_overview": lambda c: c.overview(),
}  # fmt: skip
# What documents of all kinds have, by the calls of the client on each kind.
for _kind, _plural, _calls, _document in (
    ("form", "forms", lambda c: c.forms, FORM),
    ("own_layout", "own_layouts", lambda c: c.own_layouts, OWN),
    ("target", "targets", lambda c: c.targets, PAGE),
):
    CALLS |= {
        name: lambda client, of=_calls, ask=ask, document=_document: ask(of(client), document)
        for name, ask in {
            f"list_{_plural}": lambda c, _: c.list("north"),
            f"get_{_kind}_draft": lambda c, _: c.draft("south"),
            f"put_{_kind}_draft": lambda c, one: c.put_draft(one, '"1-0"', unfinished=True),
            f"publish_{_kind}": lambda c, _: c.publish("south", '"1-0"'),
            f"restore_{_kind}": lambda c, _: c.restore("south", 2, '"1-0"'),
            f"take_{_kind}_back": lambda c, _: c.take_back("south", '"1-0"'),
            f"copy_{_kind}": lambda c, _: c.copy("south", "north", "North"),
            f"delete_{_kind}": lambda c, _: c.delete("south", '"1-0"'),
            f"list_{_kind}_versions": lambda c, _: c.versions("south"),
            f"get_{_kind}_version": lambda c, _: c.version("south", 2),
            f"get_{_kind}_difference": lambda c, _: c.difference("south", since=1, until=2),
            f"compare_{_kind}": lambda c, one: c.difference("south", one, since=1),
            f"note_{_kind}_editor": lambda c, _: c.note_editor("south", "p8f3k2a9"),
        }.items()
    }
# Asked for by people at a browser alone, or what another call does as well.
WITHOUT_A_METHOD = {"sign_in", "get_session", "sign_out", "dry_run_record", "list_form_records"}
# Methods made of those above.
MADE_OF_OTHERS = {"all_records", "close", "follow", "wait"}


class AskedError(Exception):
    """Ends a call once its request is known."""


def request_of(call) -> httpx.Request:
    """The request that a call sends."""
    sent = []

    def answer(request):
        request.read()
        sent.append(request)
        raise AskedError

    http = httpx.MockTransport(answer)
    client = Client(transport=Transport("http://x", "k", http=http, tries=1))
    with pytest.raises(AskedError):
        call(client)
    (request,) = sent
    return request


def pattern_of(rule: str) -> str:
    parts = re.sub(r"<path:\w+>", ".+", rule)
    return API + re.sub(r"<\w+>", "[^/]+", parts)


@pytest.mark.parametrize("name", CALLS)
def test_a_method_sends_what_its_endpoint_takes(name):
    endpoint, request = ENDPOINTS[name], request_of(CALLS[name])
    path, _, query = request.url.raw_path.decode().partition("?")
    assert request.method == endpoint.method
    assert re.fullmatch(pattern_of(endpoint.rule), path)
    if query:
        endpoint.query.model_validate(dict(request.url.params))
    if endpoint.body is not None:
        assert request.headers["Content-Type"] == "application/json"
        endpoint.body.model_validate(json.loads(request.content), strict=True)
    elif endpoint.upload:
        assert request.content == Path(__file__).read_bytes()
    else:
        assert request.content == b""
    allowed = {name.lower() for name in endpoint.request_headers}
    assert {"if-match", "idempotency-key"}.intersection(request.headers) <= allowed


def test_every_endpoint_for_programs_has_a_method_and_every_method_is_tried():
    assert set(ENDPOINTS) - set(CALLS) == WITHOUT_A_METHOD
    client = Client("http://x", "k")
    groups = (client, client.datasets, client.forms, client.own_layouts, client.activity)
    methods = {
        name
        for group in groups
        for name, _ in inspect.getmembers(group, inspect.ismethod)
        if not name.startswith("_")
    }
    source = inspect.getsource(inspect.getmodule(request_of))
    tried = {name for name in methods if f".{name}(" in source.split("WITHOUT_A_METHOD")[0]}
    assert methods - tried == MADE_OF_OTHERS
    client.close()

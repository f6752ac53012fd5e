"""How large a body may be is looked up by its address, before the application sees it."""

import pytest

from anchorline.service.app import ROUTERS
from anchorline.service.bodies import NO_BODY, Bodies
from anchorline.service.settings import read_settings

SETTINGS = read_settings({"ANCHORLINE_MAX_BODY": "500000", "ANCHORLINE_MAX_UPLOAD": "7000000"})
ENDPOINTS = [endpoint for router in ROUTERS for endpoint in router.endpoints]


@pytest.fixture(scope="module")
def bodies():
    return Bodies(ROUTERS, SETTINGS)


@pytest.mark.parametrize(
    ("method", "path", "most"),
    [
        ("POST", "/api/v1/session", 4096),
        ("POST", "/api/v1/forms/tuning-visit/records", 500_000),
        ("PUT", "/api/v1/forms/a%20b/draft", 500_000),
        ("POST", "/api/v1/datasets/demo/editions", 7_000_000),
        ("POST", "/api/v1/datasets/de/mo/editions", NO_BODY),
        ("POST", "/api/v1/datasets//editions", NO_BODY),
        ("GET", "/api/v1/session", NO_BODY),
        ("POST", "/api/v1/forms/x/publish", NO_BODY),
        ("POST", "/elsewhere", NO_BODY),
        ("MADEUP", "/api/v1/session", NO_BODY),
        ("POST", "/api/v1/sessionx", NO_BODY),
        ("POST", "x/api/v1/session", NO_BODY),
    ],
)
def test_each_address_has_its_own_limit(bodies, method, path, most):
    assert bodies.largest(method, path) == most


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda e: e.name)
def test_every_endpoint_that_takes_a_body_is_found_and_no_other(bodies, endpoint):
    path = "/api/v1" + endpoint.rule.replace("<path:", "<").replace("<", "").replace(">", "")
    takes = endpoint.body is not None or endpoint.upload
    assert (bodies.endpoint(endpoint.method, path) is endpoint) == takes


def test_large_bodies_come_in_only_from_those_whom_the_address_admits(stack):
    big = {"Content-Type": "application/json"}
    with stack.http(None) as nobody, stack.http("browser_key") as browser, stack.http() as server:

        def draft(http):
            return http.put(
                "/api/v1/forms/x/draft", content=b"[" + b"1," * 50_000 + b"1]", headers=big
            )

        assert draft(nobody).status_code == 401
        assert draft(browser).status_code == 403
        assert draft(server).status_code == 422

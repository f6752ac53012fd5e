"""Counts of answers: closed lists of labels, memory that all processes share."""

import os

import pytest

from anchorline.service.metrics import Metrics


def lines(metrics):
    return metrics.text().decode().splitlines()


def test_answers_are_counted_by_endpoint_method_and_status():
    metrics = Metrics(["finding.suggest", "forms.list_forms"])
    for _ in range(3):
        metrics.count("finding.suggest", "GET", 200, 0.0004)
    metrics.count("finding.suggest", "GET", 422, 0.3)
    said = lines(metrics)
    labels = 'endpoint="finding.suggest",method="GET"'
    assert f'anchorline_requests_total{{{labels},status="200"}} 3.0' in said
    assert f'anchorline_requests_total{{{labels},status="422"}} 1.0' in said
    suggest = 'endpoint="finding.suggest"'
    assert f'anchorline_request_seconds_bucket{{{suggest},le="0.001"}} 3.0' in said
    assert f'anchorline_request_seconds_bucket{{{suggest},le="0.5"}} 4.0' in said
    assert f"anchorline_request_seconds_count{{{suggest}}} 4.0" in said
    assert not any("list_forms" in line for line in said)


@pytest.mark.parametrize("seconds", [0.001, 12.0])
def test_a_time_at_the_end_of_a_bucket_is_in_it_and_beyond_the_last_in_infinity(seconds):
    metrics = Metrics(["a"])
    metrics.count("a", "GET", 200, seconds)
    end = "0.001" if seconds < 1 else "+Inf"
    assert f'anchorline_request_seconds_bucket{{endpoint="a",le="{end}"}} 1.0' in lines(metrics)


def test_what_nobody_has_makes_no_series_of_its_own():
    metrics = Metrics(["a"])
    for number in range(5000):
        metrics.count(f"made up {number}", f"METHOD{number}", 1000 + number, 0.01)
    counted = [line for line in lines(metrics) if line.startswith("anchorline_requests_total")]
    assert counted == [
        'anchorline_requests_total{endpoint="none",method="other",status="other"} 5000.0'
    ]


def test_processes_count_together_and_a_follower_goes_on_where_the_dead_one_was():
    metrics = Metrics(["a"], processes=2)
    for number in (0, 1, 1):
        child = os.fork()
        if child == 0:
            metrics.be_process(number)
            metrics.count("a", "GET", 200, 0.01)
            os._exit(0)
        os.waitpid(child, 0)
    assert 'anchorline_requests_total{endpoint="a",method="GET",status="200"} 3.0' in lines(metrics)


def test_made_up_methods_make_no_series_in_the_running_service(stack):
    with stack.http(None) as http:
        for number in range(60):
            assert http.request(f"MADEUP{number}", "/healthz").status_code == 405
        text = http.get("/metrics").text
    assert "MADEUP" not in text
    assert 'method="other"' in text


def test_nothing_is_written_to_the_disk_for_it(stack):
    assert not (stack.folder / "metrics").exists()

"""Threads beside the work of a load: same pieces, same order, nothing that goes wrong is lost."""

import time

import pytest

from anchorline.service.loading.prefetch import BackgroundSteps, prefetch


def test_pieces_come_in_their_order_and_only_a_few_ahead():
    fetched = []

    def pieces():
        for number in range(20):
            fetched.append(number)
            yield number

    found = []
    for piece in prefetch(pieces()):
        found.append(piece)
        time.sleep(0.002)
        assert len(fetched) <= piece + 5
    assert found == list(range(20))
    assert list(prefetch([])) == []


def test_what_goes_wrong_in_fetching_is_raised_in_its_place():
    def pieces():
        yield 1
        raise ValueError("broken")

    found = prefetch(pieces())
    assert next(found) == 1
    with pytest.raises(ValueError, match="broken"):
        next(found)


def test_steps_are_done_in_order_and_all_of_them_before_the_end():
    done = []
    with BackgroundSteps() as steps:
        for number in range(30):
            steps.submit(lambda number=number: (time.sleep(0.001), done.append(number)))
    assert done == list(range(30))


def test_a_step_that_fails_is_raised_and_later_ones_are_not_done():
    done = []

    def fail():
        raise ValueError("not kept")

    def all_steps():
        with BackgroundSteps() as steps:
            steps.submit(fail)
            for number in range(30):
                steps.submit(lambda number=number: (time.sleep(0.005), done.append(number)))

    with pytest.raises(ValueError, match="not kept"):
        all_steps()
    assert len(done) < 30

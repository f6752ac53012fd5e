"""Guessing is slowed by account and by address; nobody is kept out of where they were before."""

import threading
import uuid

import pytest

from anchorline.store.database import Database
from anchorline.store.sign_in_brake import (
    FREE_FAILURES,
    LONGEST_WAIT,
    LONGEST_WAIT_OF_KNOWN,
    SignInBrake,
    SignInTry,
)
from anchorline.store.users import UserStore

FREE = FREE_FAILURES + 1


@pytest.fixture
def brake(database):
    return SignInBrake(database)


@pytest.fixture
def email():
    return f"{uuid.uuid4().hex}@firm.example"


@pytest.fixture
def address():
    """An address of the test's own."""
    number = uuid.uuid4().int
    return f"10.{number % 250}.{number // 250 % 250}.{number // 62500 % 250}"


def let_through(brake, *tries):
    return sum(not brake.count(tried) for tried in tries)


def test_after_the_free_tries_each_waits_longer_up_to_the_longest(brake, email, address, clock):
    tried = SignInTry(email, address)
    assert let_through(brake, *[tried] * 9) == FREE
    waits = []
    for _ in range(12):
        waits.append(brake.count(tried))
        clock.forward(seconds=waits[-1].total_seconds())
        assert not brake.count(tried)
    assert waits == sorted(waits)
    assert waits[-1] == LONGEST_WAIT


@pytest.mark.parametrize("spelt", ["{} ", " {}", "{}\t", "{}\u00a0", "\uff21{}"])
def test_what_was_meant_is_counted_however_it_is_spelt(brake, email, spelt, clock):
    accounts = ["a" + email if spelt.startswith("\uff21") else email, spelt.format(email)]
    tries = [SignInTry(accounts[n % 2].swapcase(), f"10.9.{n}.1") for n in range(12)]
    assert let_through(brake, *tries) == FREE


def test_of_forty_simultaneous_tries_five_get_through(database_url, email, address, clock):
    database = Database(database_url, clock)
    brake, through, lock = SignInBrake(database), [], threading.Lock()

    def guess():
        if not brake.count(SignInTry(email, address)):
            with lock:
                through.append(1)

    threads = [threading.Thread(target=guess) for _ in range(40)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    database.close()
    assert len(through) == FREE


def test_many_addresses_guess_at_one_account_together(brake, email):
    assert let_through(brake, *[SignInTry(email, f"10.8.{n}.7") for n in range(20)]) == FREE


def test_one_address_guesses_at_many_accounts_together(brake, address):
    tries = [SignInTry(f"{uuid.uuid4().hex}@x.example", address) for _ in range(20)]
    assert let_through(brake, *tries) == FREE


def test_the_addresses_of_one_ipv6_subscriber_count_as_one(brake):
    place = uuid.uuid4().hex[:4]
    tries = [
        SignInTry(f"{uuid.uuid4().hex}@x.example", f"2001:db8:{place}:1::{n:x}") for n in range(20)
    ]
    assert let_through(brake, *tries) == FREE


def test_guessing_from_elsewhere_keeps_nobody_out_of_where_they_were_before(
    brake, email, address, clock
):
    at_home = SignInTry(email, address, "browser one")
    assert not brake.count(at_home)
    brake.succeeded(at_home)
    elsewhere = [SignInTry(email, f"10.7.{n}.7") for n in range(50)]
    assert let_through(brake, *elsewhere) <= FREE
    for known in (
        at_home,
        SignInTry(email, address),  # the address alone
        SignInTry(email, "10.6.6.6", "browser one"),  # the browser, on the road
    ):
        assert not brake.count(known)
        brake.succeeded(known)


def test_guessing_in_the_same_house_keeps_a_browser_that_signed_in_before_in(brake, email, address):
    mine = SignInTry(email, address, "mine")
    brake.count(mine)
    brake.succeeded(mine)
    assert let_through(brake, *[SignInTry(email, address)] * 30) == FREE
    assert not brake.count(mine)


def test_a_known_place_is_slowed_as_well_but_for_a_short_while_only(brake, email, address, clock):
    known = SignInTry(email, address)
    brake.count(known)
    brake.succeeded(known)
    waits = []
    for _ in range(30):
        waits.append(brake.count(known))
        clock.forward(seconds=waits[-1].total_seconds())
    assert max(waits) == LONGEST_WAIT_OF_KNOWN


def test_after_a_new_password_no_place_is_known(brake, email, address, database):
    UserStore(database).put(email, "E", "a long enough one")
    known = SignInTry(email, address)
    brake.count(known)
    brake.succeeded(known)
    brake.forget_places(email)
    assert let_through(brake, *[SignInTry(email, f"10.5.{n}.1") for n in range(20)]) <= FREE
    assert brake.count(known)


def test_tries_are_forgotten_after_an_hour(brake, email, address, clock):
    tried = SignInTry(email, address)
    assert let_through(brake, *[tried] * 9) == FREE
    clock.forward(hours=1, seconds=1)
    assert let_through(brake, *[tried] * 9) == FREE


def test_an_account_is_found_by_what_was_meant(database, email):
    users = UserStore(database)
    users.put(f" {email.upper()} ", "E", "a long enough one")
    assert users.check_password(f"{email}  ", "a long enough one").email == email
    users.put(email, "E", "another long one")
    assert users.check_password(email, "a long enough one") is None

"""The service as the agent asks it: beside the window, and only the newest question."""

from __future__ import annotations

import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from queue import Empty, SimpleQueue
from secrets import token_hex

from anchorline.client import AnchorlineError, Client
from anchorline.core.targets.programs import Look, RunReport
from anchorline.core.targets.programs.ways import FOUND, TRIED
from anchorline.wire.filling import FillAnswer
from anchorline.wire.finding import SuggestionSchema
from anchorline.wire.target_runs import TargetRunReport

from .finding import Finding, ask
from .known_targets import AddressOfTarget, KnownTarget
from .writing import Order, told_fields

_MOST_STEPS = 400
_TRIES = 3
_AGAIN_SECONDS = 5.0


class DeskService:
    """Asks the service from threads of its own.

    Args:
        machine: what this machine is called in reports.
    """

    def __init__(self, client: Client, machine: str) -> None:
        self.client, self._machine = client, machine
        # Whoever types waits for nothing else.
        self._typing = ThreadPoolExecutor(max_workers=2, thread_name_prefix="typing")
        self._pool = ThreadPoolExecutor(max_workers=3, thread_name_prefix="desk")
        self._newest = 0
        self._reports: SimpleQueue[tuple[str, TargetRunReport]] = SimpleQueue()
        self._closing = threading.Event()
        self._telling = threading.Thread(target=self._tell, name="reports", daemon=True)
        self._telling.start()

    def close(self) -> None:
        """Asks nothing more; reports that are still to be told get a second."""
        self._closing.set()
        self._telling.join(1)
        for pool in (self._typing, self._pool):
            pool.shutdown(wait=False, cancel_futures=True)

    def suggest(
        self,
        state: Finding,
        address: AddressOfTarget | None,
        then: Callable[[int, list[SuggestionSchema], str], None],
    ) -> None:
        """Asks for suggestions; `then` gets the question's number, them, or why there are none."""
        self._newest = state.asked

        def work() -> None:
            # Typed on meanwhile: nobody wants this answer any more.
            if state.asked != self._newest:
                return
            try:
                then(state.asked, ask(self.client, state, address), "")
            except AnchorlineError as error:
                then(state.asked, [], str(error))

        self._typing.submit(work)

    def fill(
        self,
        target: KnownTarget,
        address: AddressOfTarget,
        address_id: str,
        then: Callable[[FillAnswer | None, str], None],
    ) -> None:
        """Asks what an address puts into a target; `then` gets that, or why it is not to be had."""

        def work() -> None:
            try:
                fill = self.client.targets.fill(
                    target.key, address.key, address_id=address_id, capture=token_hex(12)
                )
            except AnchorlineError as error:
                then(None, str(error))
            else:
                then(fill, "")

        self._typing.submit(work)

    def lines(self, address_id: str, then: Callable[[list[str], str], None]) -> None:
        """Asks for the lines of an address; `then` gets them, or why they are not to be had."""

        def work() -> None:
            try:
                then(list(self.client.address(address_id).lines), "")
            except AnchorlineError as error:
                then([], str(error))

        self._typing.submit(work)

    def send_look(self, look: Look, then: Callable[[str], None]) -> None:
        """Sends what is seen of a screen; `then` gets what came of it, in words."""
        facts = [{"kind": fact.kind, "text": fact.text} for fact in look.facts]

        def work() -> None:
            try:
                self.client.programs.send_look(facts, self._machine[:200])
            except AnchorlineError as error:
                then(f"The screen was not sent: {error}")
            else:
                then("The screen is shown in the console now, under Targets.")

        self._pool.submit(work)

    def run(self, work: Callable[[], None]) -> None:
        """Does something beside the window."""
        self._pool.submit(work)

    def report(self, order: Order, report: RunReport) -> None:
        """Tells what came of a run, when the service answers: outcome and steps, no text of it."""
        told = TargetRunReport.model_validate(
            {
                "address": order.address.key,
                "version": order.target.version,
                "outcome": report.outcome,
                "stop": report.stop,
                "detail": report.detail[:600],
                # Where ways were to be tried and none was begun, keys would have been the first.
                "by": TRIED[0] if order.by == FOUND else order.by,
                "ms": max(report.ms, 0),
                "fields": told_fields(report),
                "log": [
                    {"at_ms": one.at_ms, "says": one.says[:200], "failed": one.failed}
                    for one in report.log[:_MOST_STEPS]
                ],
                "machine": self._machine[:200],
                "practice": order.is_practice,
            }
        )
        self._reports.put((order.target.key, told))

    def _tell(self) -> None:
        while not (self._closing.is_set() and self._reports.empty()):
            try:
                target, report = self._reports.get(timeout=0.3)
            except Empty:
                continue
            for _ in range(_TRIES):
                try:
                    self.client.programs.report_run(target, report)
                    break
                except AnchorlineError:
                    if self._closing.wait(_AGAIN_SECONDS):
                        break

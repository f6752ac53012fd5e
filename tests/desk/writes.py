"""Writing in this process, to its end."""

import threading

from anchorline.desk.writing import Order, Writing


class Write:
    """One address written; `report` is what came of the last thing that was done."""

    def __init__(self, eyes, target, place, values, by="", on_step=None, is_slow=False):
        address = target.addresses[0]
        way = by or address.plan.by
        self._done = threading.Event()
        self.report = self.found = None
        order = Order(target, address, values, place, way, is_slow)
        self.writing = Writing(
            order, eyes.selections, eyes.tree, self._end, on_step or (lambda _: None), self._find
        )

    def _end(self, report):
        self.report = report
        self._done.set()

    def _find(self, found):
        self.found = found

    def start(self):
        return self._do(self.writing.start)

    def go_on(self):
        return self._do(self.writing.go_on)

    def undo(self):
        return self._do(self.writing.undo)

    def begin(self):
        """Starts, and does not wait."""
        self._done.clear()
        self.writing.start()

    def wait(self):
        assert self._done.wait(30), "the run did not end"
        return self.report

    def _do(self, act):
        self._done.clear()
        act()
        return self.wait()

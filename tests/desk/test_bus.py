"""The accessibility bus, where it is slow to answer."""

from jeepney import new_method_call

from anchorline.desk.accessible import bus
from anchorline.desk.accessible.bus import _DBUS, Bus
from anchorline.desk.errors import NoBusError


class SlowBus(Bus):
    """Answers with what it is given, one after the other."""

    def __init__(self, answers):
        super().__init__(None)
        self._answers = answers

    def ask(self, messages, seconds):
        return [self._answers.pop(0) for _ in messages]


def test_a_process_that_was_not_told_in_time_is_asked_for_again_and_then_known():
    slow = SlowBus([None, 4711])
    assert slow.pid(":1.7") == 0
    assert slow.pid(":1.7") == 4711
    assert slow.pid(":1.7") == 4711


class Gone:
    """A connection whose other end has ended."""

    outgoing_serial = iter(range(1, 100))
    is_closed = False

    def send(self, message, serial):
        raise BrokenPipeError(32, "Broken pipe")

    def close(self):
        self.is_closed = True


def test_a_bus_that_has_ended_answers_nothing_until_there_is_one_again(desktop, monkeypatch):
    gone = Gone()
    ended = Bus(gone)
    call = new_method_call(_DBUS, "GetId")
    assert ended.ask([call, call], 1) == [None, None]
    assert gone.is_closed
    monkeypatch.setattr(bus, "_connect", lambda _seconds: _raise(NoBusError("none")))
    assert ended.ask([call], 1) == [None]
    monkeypatch.undo()
    assert ended.ask([call], 1) == [None], "it was looked for a moment ago"
    monkeypatch.setattr(bus, "_AGAIN_SECONDS", 0)
    assert isinstance(ended.ask([call], 5)[0], str)
    ended.close()


def _raise(error):
    raise error

"""The accessibility bus, where it is slow to answer."""

from anchorline.desk.accessible.bus import Bus


class SlowBus(Bus):
    """Answers with what it is given, one after the other."""

    def __init__(self, answers):
        super().__init__(None)
        self._answers = answers

    def ask(self, messages, seconds):
        return [self._answers.pop(0) for _ in messages]


def test_a_process_that_was_not_told_in_time_is_asked_for_again_and_then_known():
    bus = SlowBus([None, 4711])
    assert bus.pid(":1.7") == 0
    assert bus.pid(":1.7") == 4711
    assert bus.pid(":1.7") == 4711

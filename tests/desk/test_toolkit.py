"""The windows' toolkit, where a release of it has ended the agent after some hundred keys."""

import os
import subprocess
import sys

_COUNTS = """
import sys
from PySide6.QtCore import QObject, Qt, QTimer, Signal
from PySide6.QtWidgets import QApplication

application = QApplication([])


class Told(QObject):
    number = Signal(int, list, str)


told = Told()
told.number.connect(lambda *_: None, Qt.ConnectionType.QueuedConnection)
ones = (None, False, True)
before = [sys.getrefcount(one) for one in ones]
for number in range(300):
    told.number.emit(number, [], "")
    QTimer.singleShot(0, lambda: None)
    application.processEvents()
after = [sys.getrefcount(one) for one in ones]
print([one for one, then, now in zip(ones, before, after) if now < then - 100])
"""


def test_what_is_told_gives_no_references_away():
    done = subprocess.run(
        [sys.executable, "-c", _COUNTS], capture_output=True, text=True, timeout=60, check=False,
        env=os.environ | {"QT_QPA_PLATFORM": "offscreen"},
    )  # fmt: skip
    assert (done.stdout.strip(), done.returncode) == ("[]", 0), done.stderr[-500:]

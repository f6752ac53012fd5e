"""Programs on the desktop that are not ours, in which an address must land.

`facts` is what can be seen of a screen, `signature` and `recognition` tell whose it is, `plan` and
`steps` say how to write into it, and `run` does so through `hands`, which know the screen.
"""

from ..proposal.seen import SeenField
from .facts import Fact, Look
from .hands import Hands, StopRun
from .program import ProgramTarget, read_program_target
from .recognition import Recognition, recognise
from .report import RunReport
from .run import Run
from .visits import FieldText

__all__ = [
    "Fact",
    "FieldText",
    "Hands",
    "Look",
    "ProgramTarget",
    "Recognition",
    "Run",
    "RunReport",
    "SeenField",
    "StopRun",
    "read_program_target",
    "recognise",
]

import os
import subprocess
from pathlib import Path

from anchorline.service.loading.priority import NICENESS, step_back


def test_a_process_steps_back_behind_those_of_other_sessions_too():
    process = subprocess.Popen(["sleep", "30"], start_new_session=True)
    try:
        step_back(process.pid)
        assert os.getpriority(os.PRIO_PROCESS, process.pid) == NICENESS
        group = Path(f"/proc/{process.pid}/autogroup")
        said = group.read_text().split() if group.exists() else []
        assert said[-2:] in ([], ["nice", str(NICENESS)])
    finally:
        process.kill()
        process.wait()

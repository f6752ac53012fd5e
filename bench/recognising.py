"""CPU time of recognising a screen among eighty targets: python -m bench.recognising"""

from __future__ import annotations

import time

from tests.core.targets.test_recognition import OTHERS, OWN, candidates

from anchorline.core.targets.programs import recognise


def main() -> None:
    targets = candidates() * 10
    times = []
    for look in [*OTHERS, *(look for _, look in OWN)]:
        began = time.process_time()
        recognise(look, targets)
        times.append((time.process_time() - began) * 1000)
    times.sort()
    p50, p95 = times[len(times) // 2], times[int(len(times) * 0.95)]
    print(f"{len(times)} looks, {len(targets)} targets: p50 {p50:.2f} p95 {p95:.2f} ms of CPU")


if __name__ == "__main__":
    main()

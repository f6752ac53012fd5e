"""Work on datasets outside of requests: loads, rebuilds, comparisons, and their worker.

`parsing` turns a file into kept blocks of checked rows, `editions` builds, compares, activates and
removes editions, `jobs` does one job from end to end, `lease` watches that the job is still this
process's own, and `worker` looks for jobs and gives each a process of its own.
"""

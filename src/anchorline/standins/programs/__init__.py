"""Programs with windows of their own, each hard to write into in its own way.

Each keeps what stands in its fields in a JSON file, at every change, so that a test can read what
really arrived. `python -m anchorline.standins.programs.NAME --file STATE.json` starts one.
"""

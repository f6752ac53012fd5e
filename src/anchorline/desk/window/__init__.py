"""The agent's own windows: the finder, what came of a run, setting up a target."""

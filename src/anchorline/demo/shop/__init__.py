"""Felt & Hammer: a made-up shop of another origin, whose checkout is not ours."""

"""Simulated outside things, for the demo and for tests."""

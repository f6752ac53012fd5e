"""Benchmarks: what finding, loading and serving cost, each runnable by one command."""

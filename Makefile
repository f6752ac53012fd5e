# Anchorline: `make demo` to try it, `make test` to check it. Each target installs what it lacks.

SHELL := /bin/bash
PYTHON := .venv/bin/python
# Tests are rewritten for their assertions at import: once, not at each run.
PYTEST := PYTHONDONTWRITEBYTECODE= $(PYTHON) -m pytest

.PHONY: api-types help demo demo-desk demo-start demo-stop test test-durations test-quick test-faults check linters web install bench-finding bench-load bench-service

help:  ## what can be made
	@grep -hE '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 16

demo: install  ## serve the demo on http://127.0.0.1:8470 until Ctrl-C
	@exec $(PYTHON) -m anchorline.demo run

demo-start: install  ## the same in the background; returns once it answers
	@$(PYTHON) -m anchorline.demo start

demo-stop:  ## stop the demo that runs in the background
	@$(PYTHON) -m anchorline.demo stop

demo-desk: install  ## the demo, made-up programs and the desktop agent on an X11 display
	@setup/install.sh desk
	@$(PYTHON) -m anchorline.demo start
	@$(PYTHON) -m anchorline.demo desk

install:  ## what serving needs
	@setup/install.sh run

web: install  ## build the console and the embedded scripts

api-types:  ## TypeScript's types of the API, from its own description
	@setup/install.sh test
	$(PYTHON) api-types/schemas.py
	npm run --silent generate -w api-types

check:  ## linters and types alone
	@setup/install.sh test
	@$(MAKE) --no-print-directory linters

# What is installed stays as it is: the tests run beside this.
linters:
	@npm run --silent check & web=$$!; \
	set -e; \
	.venv/bin/ruff check; \
	.venv/bin/ruff format --check; \
	.venv/bin/mypy; \
	.venv/bin/lint-imports; \
	wait $$web

SIZE ?= 1m
bench-finding: install  ## time, success and memory of finding; SIZE=10m for ten million
	@$(PYTHON) -m pip install --quiet --constraint setup/constraints.txt -e '.[bench]'
	@$(PYTHON) -m bench.finding --size $(SIZE)

bench-load: install  ## rows a second and memory of loading; SIZE=10m for ten million
	@$(PYTHON) -m bench.load --size $(SIZE)

bench-service: install  ## the service under people who type, next to an empty route
	@$(PYTHON) -m pip install --quiet --constraint setup/constraints.txt -e '.[bench]'
	@$(PYTHON) -m bench.service --size $(SIZE)

# Tests wait more than they work: three beside each other, and what only reads the sources beside them.
test:  ## everything
	@setup/install.sh test
	@checks=$$(mktemp); { nice $(MAKE) --no-print-directory linters && nice npm test --silent; } > $$checks 2>&1 & checking=$$!; \
	$(PYTEST) --numprocesses 3 --dist loadgroup --no-loadscope-reorder; tested=$$?; \
	wait $$checking; checked=$$?; cat $$checks; rm $$checks; \
	exit $$(( tested || checked ))

test-durations:  ## the same, and how long each group took, for the order in which they begin
	KEEP_DURATIONS=1 $(MAKE) --no-print-directory test

test-quick:  ## the core, the client and the elements: no service, no browser
	@setup/install.sh test
	npm test --silent
	$(PYTEST) --numprocesses 2 --dist loadgroup tests/core tests/client -m "not live"

test-faults:  ## faults made on purpose while people are busy
	@setup/install.sh test
	FAULTS_ALONE=1 $(PYTEST) tests/faults tests/service/test_openapi.py

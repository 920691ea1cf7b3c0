# The two commands: `make demo` and `make test`. Everything they need, they install.
PYTHON ?= python3
VENV   := .venv
BIN    := $(VENV)/bin
PORT   ?= 8321

.PHONY: demo test test-ui test-python test-browser check lint types install ui browser bench proof wheel api-types \
	schemas lock screenshots

# A part of the tests, and how long it took.
timed = @begun=$$(date +%s); $(2) && echo "$(1): $$(($$(date +%s) - begun)) s"

demo: install ui
	$(BIN)/lumso demo --port $(PORT)

test: test-ui test-python test-browser

test-ui: ui/node_modules/.installed
	$(call timed,tests of the interface,cd ui && npm run --silent test)

test-python: install ui
	$(call timed,tests in Python,$(BIN)/pytest -n 2 --dist worksteal --ignore=tests/browser)

# Each worker has a server and a browser of its own; the slowest are printed: whoever adds a task merges another.
test-browser: install ui browser
	$(call timed,tests in the browser,$(BIN)/pytest -n 2 --dist worksteal --durations=12 tests/browser)

# All that must hold before a change lands.
check: test lint types

install: $(VENV)/.installed

$(VENV)/.installed: requirements.lock pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check uv
	VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip sync --quiet --require-hashes --compile-bytecode requirements.lock
	VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip install --quiet --no-deps --no-build-isolation --editable .
	$(BIN)/python -m compileall -q src
	touch $@

ui/node_modules/.installed: ui/package-lock.json
	cd ui && npm ci --silent
	touch $@

UI_SOURCES := $(shell find ui/src ui/index.html ui/vite.config.ts -type f 2>/dev/null)

src/lumso/web/index.html: ui/node_modules/.installed $(UI_SOURCES)
	cd ui && npm run --silent build

ui: src/lumso/web/index.html

# Debian's own Chromium, for the browser tests: its headless shell, which is half as heavy, where there is none yet.
browser:
	@command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || \
		{ apt-get update -qq && apt-get install -y -qq chromium-headless-shell >/dev/null; }

lint: install ui/node_modules/.installed
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	cd ui && npm run --silent lint
	$(BIN)/python tools/test_share.py

types: install ui/node_modules/.installed
	$(BIN)/mypy
	cd ui && npm run --silent types

# One file that is installed anywhere, the interface inside: no Node there, nothing of this folder.
wheel: install ui
	rm -rf build
	$(BIN)/pip wheel --quiet --no-deps --no-build-isolation --wheel-dir dist .
	rm -rf build

# What takes minutes and changes rarely, at the length that tests/counts.py says: random examples, whose seed is printed.
SEED ?= $(shell date +%s)
proof: install ui
	@echo "Seed: $(SEED) (again: make proof SEED=$(SEED))"
	LUMSO_PROOF=1 $(BIN)/pytest -n 2 --dist worksteal --ignore=tests/browser --hypothesis-seed=$(SEED)

# How fast it is here, beside the figures that are kept; `make bench KEEP=--keep` keeps what it finds, on an idle machine.
bench: install ui browser
	$(BIN)/python tools/bench.py $(KEEP)

# The interface's types come from the API's own description; a test fails when they are stale.
api-types: install ui/node_modules/.installed
	$(BIN)/python tools/describe.py api > ui/api.json
	cd ui && npm run --silent api

schemas: install
	$(BIN)/python tools/describe.py schemas docs/schema

screenshots: install ui browser
	$(BIN)/python tools/screenshots.py docs/screenshots

lock:
	$(BIN)/uv pip compile pyproject.toml --extra dev --generate-hashes --no-emit-index-url --no-header -q --upgrade -o requirements.lock
	cd ui && npm update --silent && cd .. && $(PYTHON) tools/lock_without_addresses.py ui/package-lock.json

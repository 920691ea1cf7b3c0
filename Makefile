# The two commands: `make demo` and `make test`. Everything they need, they install.
PYTHON ?= python3
VENV   := .venv
BIN    := $(VENV)/bin
PORT   ?= 8321

.PHONY: demo test check lint types install ui browser bench wheel fuzz api-types schemas lock screenshots

demo: install ui
	$(BIN)/lumso demo --port $(PORT)

test: install ui browser
	cd ui && npm run --silent test
	$(BIN)/pytest -n 2 --ignore=tests/browser
	$(BIN)/pytest tests/browser

# All that must hold before a change lands.
check: test lint types

install: $(VENV)/.installed

$(VENV)/.installed: requirements.lock pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check uv
	VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip sync --quiet --require-hashes --compile-bytecode requirements.lock
	VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip install --quiet --no-deps --no-build-isolation --editable .
	touch $@

ui/node_modules/.installed: ui/package-lock.json
	cd ui && npm ci --silent
	touch $@

UI_SOURCES := $(shell find ui/src ui/index.html ui/vite.config.ts -type f 2>/dev/null)

src/lumso/web/index.html: ui/node_modules/.installed $(UI_SOURCES)
	cd ui && npm run --silent build

ui: src/lumso/web/index.html

# Debian's own Chromium, for the browser tests.
browser:
	@command -v chromium >/dev/null || { apt-get update -qq && apt-get install -y -qq chromium >/dev/null; }

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

# Every call of the API asked hundreds of times, with what it allows and what it does not.
fuzz: install
	FUZZ_EXAMPLES=200 $(BIN)/pytest tests/api/test_fuzz.py

bench: install ui browser
	$(BIN)/python tools/bench.py
	$(BIN)/python tools/bench_days.py
	$(BIN)/python tools/bench_look.py
	$(BIN)/python tools/strain.py

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

# Gentle Gate. `make demo` sets everything up and starts it; `make test` sets everything up and tests it.
SHELL := /bin/bash
PY := .venv/bin/python
NPM := npm --prefix frontend
BACKEND := $(shell find backend -name '*.py' -o -name '*.sql' -o -name '*.json' -o -name '*.txt' 2>/dev/null)
SCREENS := $(shell find frontend/src frontend/index.html frontend/stage.html frontend/vite.config.ts -type f 2>/dev/null)

.PHONY: help setup demo run test check bench judge screenshots types clean

help:
	@echo "make demo         set up, then start the application and the Playhouse with the demo's world"
	@echo "make run          set up, then start the application with its own data folder"
	@echo "make test         set up, then check and test everything"
	@echo "make check        ruff, mypy, Biome, tsc; whether the screens' types are current"
	@echo "make bench        measure, and write docs/bench.md"
	@echo "make judge        how right the judge is on our own sets; writes docs/judge.md"
	@echo "make screenshots  take the pictures in docs/screenshots again"

.stamps/python: requirements-dev.txt pyproject.toml
	@mkdir -p .stamps
	@test -x $(PY) || python3.11 -m venv .venv 2>/dev/null || python3 -m venv .venv
	@echo "Setting up the Python environment …"
	@$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.txt
	@$(PY) -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	@touch $@

.stamps/node: frontend/package-lock.json
	@mkdir -p .stamps
	@echo "Setting up the front end …"
	@$(NPM) ci --no-audit --no-fund --loglevel=error
	@touch $@

.stamps/screens: .stamps/node $(SCREENS)
	@$(NPM) run --silent build -- --logLevel error
	@touch $@

.stamps/browser:
	@mkdir -p .stamps
	@command -v chromium >/dev/null && command -v chromedriver >/dev/null || \
	  (echo "Installing Chromium …" && apt-get update -qq && \
	   DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium chromium-driver >/dev/null)
	@touch $@

setup: .stamps/python .stamps/screens

demo: setup
	@exec .venv/bin/gentlegate demo

run: setup
	@exec .venv/bin/gentlegate serve

types: .stamps/python .stamps/node
	@.venv/bin/gentlegate openapi > .stamps/openapi.json
	@cd frontend && npx --no-install openapi-typescript ../.stamps/openapi.json -o src/api/schema.d.ts

check: .stamps/python .stamps/node
	$(PY) -m ruff check backend tests scripts bench
	$(PY) -m ruff format --check backend tests scripts bench
	$(PY) -m mypy
	@.venv/bin/gentlegate openapi > .stamps/openapi.json
	@cd frontend && npx --no-install openapi-typescript ../.stamps/openapi.json -o ../.stamps/schema.d.ts >/dev/null
	@cmp -s .stamps/schema.d.ts frontend/src/api/schema.d.ts || \
	  (echo "frontend/src/api/schema.d.ts is stale; run make types" && exit 1)
	$(NPM) run --silent check

test: setup .stamps/browser check
	@cd frontend && npx --no-install vite build --config vite.tests.config.ts && \
	  node --test ../.stamps/screen-tests/all.test.js
	$(PY) -m unittest discover --start-directory tests --top-level-directory .

bench: setup .stamps/browser
	$(PY) bench/measure.py

judge: setup
	$(PY) bench/judge.py

screenshots: setup .stamps/browser
	$(PY) scripts/screenshots.py

clean:
	rm -rf .stamps .venv frontend/node_modules frontend/dist

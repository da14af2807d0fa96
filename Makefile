# One short target for each duty, for people and CI alike. Everything lands in .venv and instance.
PYTHON ?= $(shell command -v python3.11 || command -v python3)
VENV := .venv
BIN := $(VENV)/bin
PIP := $(BIN)/pip --disable-pip-version-check -q
BIOME := tools/node_modules/.bin/biome
# what is compiled once need not be compiled at every start
export PYTHONDONTWRITEBYTECODE :=
# three at a time on two cores: a browser test mostly waits
SIDE_BY_SIDE := -n 3 --dist worksteal

.PHONY: help setup demo test unit browser lint format bench soak lock screenshots clean

help: ## this list
	@grep -E '^[a-z]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:[^#]*## /\t/' | expand -t 14

setup: $(VENV)/.app ## install Fenwick into .venv

$(VENV)/.app: requirements/app.txt pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(PIP) install --require-hashes -r requirements/app.txt
	$(PIP) install --no-deps --no-build-isolation -e .
	@touch $@

$(VENV)/.test: $(VENV)/.app requirements/test.txt
	$(PIP) install --require-hashes -r requirements/test.txt
	@touch $@

# the linter of styles and scripts comes from npm; where there is no npm, Debian has one
tools/node_modules/.done: tools/package.json tools/package-lock.json
	@command -v npm >/dev/null || (apt-get update -qq && apt-get install -y -qq --no-install-recommends npm >/dev/null)
	cd tools && npm ci --no-audit --no-fund --silent
	@touch $@

chromium: ## Debian's headless Chromium, where it is missing
	@command -v chromium-headless-shell >/dev/null || \
	  (apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium-headless-shell >/dev/null)

demo: $(VENV)/.app ## seed the demo shop and serve it
	$(BIN)/fenwick demo --home instance

test: $(VENV)/.test chromium lint ## everything: linters, types, tests, browser
	$(BIN)/pytest $(SIDE_BY_SIDE)

unit: $(VENV)/.test ## tests without the browser
	$(BIN)/pytest $(SIDE_BY_SIDE) --ignore tests/browser

browser: $(VENV)/.test chromium ## browser journeys alone
	$(BIN)/pytest $(SIDE_BY_SIDE) tests/browser

lint: $(VENV)/.test tools/node_modules/.done ## style, types, layers: Python, templates, styles and scripts
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/djlint --quiet --lint src/fenwick/web/templates
	$(BIOME) ci

format: $(VENV)/.test tools/node_modules/.done ## put the code into its format
	$(BIN)/ruff check --fix .
	$(BIN)/ruff format .
	$(BIOME) check --write

bench: $(VENV)/.test chromium ## speed, as ratios in one run
	$(BIN)/python -m bench

soak: $(VENV)/.test ## kills, races, odd requests, odd trees, ten years of data: minutes
	$(BIN)/python -m bench.soak

screenshots: $(VENV)/.test chromium ## take docs/screenshots again
	$(BIN)/python -m bench.screenshots

lock: $(VENV)/.test ## resolve the requirements again
	for name in app test; do $(BIN)/uv pip compile -q --python-version 3.11 --generate-hashes --no-emit-index-url \
	  --no-emit-find-links --no-header requirements/$$name.in -o requirements/$$name.txt; done

clean: ## remove what was installed and seeded
	rm -rf $(VENV) instance

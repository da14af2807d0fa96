# One short target for each duty, for people and CI alike. Everything lands in .venv and instance.
PYTHON ?= $(shell command -v python3.11 || command -v python3)
VENV := .venv
BIN := $(VENV)/bin
PIP := $(BIN)/pip --disable-pip-version-check -q

.PHONY: help setup demo test unit browser lint format bench lock screenshots clean

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

chromium: ## Debian's Chromium, where it is missing
	@command -v chromium >/dev/null || (apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium >/dev/null)

demo: $(VENV)/.app ## seed the demo shop and serve it
	$(BIN)/fenwick demo --home instance

test: $(VENV)/.test chromium lint ## everything: linters, types, tests, browser
	$(BIN)/pytest

unit: $(VENV)/.test ## tests without the browser
	$(BIN)/pytest --ignore tests/browser

browser: $(VENV)/.test chromium ## browser journeys alone
	$(BIN)/pytest tests/browser

lint: $(VENV)/.test ## style, types, layers
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports

format: $(VENV)/.test ## put the code into its format
	$(BIN)/ruff check --fix .
	$(BIN)/ruff format .

bench: $(VENV)/.test chromium ## speed, as ratios in one run
	$(BIN)/python -m bench

screenshots: $(VENV)/.test chromium ## take docs/screenshots again
	$(BIN)/python -m bench.screenshots

lock: $(VENV)/.test ## resolve the requirements again
	for name in app test; do $(BIN)/uv pip compile -q --python-version 3.11 --generate-hashes --no-emit-index-url \
	  --no-emit-find-links --no-header requirements/$$name.in -o requirements/$$name.txt; done

clean: ## remove what was installed and seeded
	rm -rf $(VENV) instance

# Targets for people and for CI. `make` alone lists them.
PY ?= python3
VENV := .venv
BIN := $(VENV)/bin
PORT ?= 8642
DATA ?=
# Bytecode is kept, also where the shell says not to: each start would read all sources anew.
export PYTHONDONTWRITEBYTECODE :=

.PHONY: help setup demo test format mutants bench bench-browser bench-backup bench-care screenshots wheel attack kill load vendor lock clean chromium pango

help:
	@echo "make setup        venv with everything to run"
	@echo "make demo         the app with demo data on http://127.0.0.1:$(PORT)  (DATA=folder to keep them)"
	@echo "make test         ruff, mypy, doctests, unit, reference and browser tests"
	@echo "make format       Python, templates, CSS and JavaScript as the tests want them"
	@echo "make mutants      changed lines written otherwise, one by one: what no test notices (SINCE=HEAD~1 MOST=100)"
	@echo "make bench        speed and memory figures"
	@echo "make bench-browser  latency in the browser"
	@echo "make bench-backup  a shop of 20 000 enquiries backed up and read back"
	@echo "make bench-care   a shop of 20 000 boats in service: due list, finding, recall"
	@echo "make screenshots  docs/screenshots anew from the demo data"
	@echo "make vendor       front-end files anew (needs npm)"
	@echo "make wheel        a wheel in dist, to be installed with pip"
	@echo "make attack       hostile requests over all addresses and roles"
	@echo "make kill         the server killed at work, over and over"
	@echo "make load         twenty people and fifty writers"
	@echo "make lock         lock files anew"
	@echo "make clean        removes the venv and caches"

$(VENV)/.made:
	@$(PY) -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed: PY=python3.12 make …"; exit 1; }
	@$(PY) -m venv $(VENV) >/dev/null 2>&1 || { [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null && apt-get update -qq && apt-get install -y -qq python3-venv >/dev/null && $(PY) -m venv $(VENV); } || { echo "The venv module is missing: apt-get install python3-venv"; exit 1; }
	@$(BIN)/python -m pip install --quiet --disable-pip-version-check 'uv>=0.5'
	@touch $@

$(VENV)/.run: $(VENV)/.made requirements.lock
	@if [ ! -f $(VENV)/.dev ]; then VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip sync --quiet requirements.lock; else VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip install --quiet -r requirements.lock; fi
	@touch $@

$(VENV)/.dev: $(VENV)/.made requirements-dev.lock
	@VIRTUAL_ENV=$(CURDIR)/$(VENV) $(BIN)/uv pip sync --quiet requirements-dev.lock
	@touch $@ $(VENV)/.run

setup: $(VENV)/.run

demo: $(VENV)/.run
	@$(BIN)/python -m jolvek demo --port $(PORT) $(if $(DATA),--data "$(DATA)")

chromium:
	@command -v "$${CHROMIUM:-chromium-headless-shell}" >/dev/null || { [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null && echo "Installing chromium-headless-shell for the browser tests" && apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell >/dev/null; } || command -v chromium >/dev/null || command -v chromium-browser >/dev/null || { echo "The browser tests need Chromium: apt-get install chromium-headless-shell (or set CHROMIUM to a browser's path)"; exit 1; }

pango: $(VENV)/.dev
	@$(BIN)/python -c 'import weasyprint' >/dev/null 2>&1 || { [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null && echo "Installing pango for the PDF tests" && apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 >/dev/null; } || { echo "The PDF tests need Pango: apt-get install libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0"; exit 1; }

test: $(VENV)/.dev chromium pango
	@$(BIN)/ruff check .
	@$(BIN)/ruff format --check --quiet .
	@$(BIN)/mypy
	@$(BIN)/python -m pytest

format: $(VENV)/.dev
	@$(BIN)/ruff check --fix --quiet .
	@$(BIN)/ruff format --quiet .
	@$(BIN)/djlint jolvek/web/stations jolvek/web/desk jolvek/web/public jolvek/web/kit --reformat --quiet || true
	@$(BIN)/python scripts/format_static.py

mutants: $(VENV)/.dev
	@$(BIN)/python scripts/mutants.py $(or $(SINCE),HEAD~1) $(or $(MOST),100)

bench: $(VENV)/.run
	@$(BIN)/python -m jolvek bench

bench-browser: $(VENV)/.dev chromium
	@PYTHONPATH=. $(BIN)/python scripts/browser_bench.py

bench-backup: $(VENV)/.dev
	@PYTHONPATH=. $(BIN)/python scripts/backup_bench.py

bench-care: $(VENV)/.dev
	@PYTHONPATH=. $(BIN)/python scripts/care_bench.py

screenshots: $(VENV)/.dev chromium
	@PYTHONPATH=. $(BIN)/python scripts/screenshots.py

wheel: $(VENV)/.made
	@$(BIN)/uv build --quiet --wheel --out-dir dist

attack kill load: $(VENV)/.dev
	@PYTHONPATH=. $(BIN)/python scripts/$@.py

vendor:
	@bash scripts/vendor.sh

LOCK := pip compile --quiet --no-emit-index-url --no-emit-find-links --generate-hashes --python-version 3.11 --universal --no-header
lock: $(VENV)/.made
	@$(BIN)/uv $(LOCK) pyproject.toml -o requirements.lock
	@$(BIN)/uv $(LOCK) --extra dev -c requirements.lock pyproject.toml -o requirements-dev.lock

clean:
	@rm -rf $(VENV) .mypy_cache .ruff_cache .pytest_cache .hypothesis build *.egg-info

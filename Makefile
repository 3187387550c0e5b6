# Two commands do everything on a fresh machine: `make demo` and `make test`. Stamps keep later runs quick.
SHELL := /bin/bash
PORT ?= 8642
SOAK ?= 20
# A browser waits now and then, so one test more than there are cores runs at once.
WORKERS ?= $(shell expr $$(nproc) + 1)
PY := .venv/bin/python
# The system's own Python 3.11 where there is one: others are often built in a way that makes all of this a fifth slower.
PYTHON ?= $(shell for one in /usr/bin/python3.11 python3.11; do $$one -c 'import ensurepip' 2>/dev/null && echo $$one && break; done)
WEB := $(shell find web/src web/public web/worker docs/manual -type f 2>/dev/null) CHANGELOG.md web/index.html web/vite.config.ts web/svelte.config.js web/tsconfig.json web/tsconfig.worker.json
# What Python compiles once is kept, whatever the machine is set to: workers and servers of the tests start sooner.
export PYTHONDONTWRITEBYTECODE :=
export PIP_DISABLE_PIP_VERSION_CHECK := 1

# One set-up of this folder at a time: a second one waits, and then finds everything there.
ALONE := $(shell mkdir -p .stamps; command -v flock >/dev/null && echo flock .stamps/set-up.lock)

.PHONY: demo test compiled front quick coverage soak mutants bench judges types format lint lint-python types-web style-web screenshots wheel clean

demo:
	@$(ALONE) $(MAKE) --no-print-directory .stamps/app .stamps/web
	@$(PY) -m kelbrast demo --port $(PORT)

# As many tests run at once as there are cores: threads of one would only stand in each other's way.
test quick: export OPENBLAS_NUM_THREADS := 1

# What does not wait for each other is done beside each other: fetching, building and what reads the code without running it.
test:
	@$(ALONE) $(MAKE) -j$(WORKERS) -Otarget --no-print-directory .stamps/dev .stamps/web .stamps/chromium compiled lint front
	$(PY) -m pytest -q -n $(WORKERS) --dist worksteal

# What the tests import is compiled once, or each worker would do it for itself.
compiled: .stamps/dev
	@$(PY) -m pytest -q --collect-only > .stamps/collected || { tail -n 40 .stamps/collected; exit 1; }

front: .stamps/npm
	cd web && npm run -s test

# What most changes break, while one works; the whole is `make test`.
quick: .stamps/dev .stamps/npm
	cd web && npx vitest run --silent
	$(PY) -m pytest -q -n $(WORKERS) --dist worksteal tests/core tests/documents --ignore tests/core/test_vision.py --ignore tests/core/test_day.py

lint: lint-python types-web style-web

lint-python: .stamps/dev
	.venv/bin/ruff check src tests bench docs
	.venv/bin/ruff format --check src tests bench docs
	.venv/bin/mypy
	.venv/bin/lint-imports --no-logo

types-web: .stamps/npm
	cd web && npm run -s check

style-web: .stamps/npm
	cd web && npm run -s lint

# Which lines no test runs; without the browser, with the command line.
coverage: .stamps/dev
	$(PY) -m coverage erase
	$(PY) -m coverage run -m pytest -q --ignore tests/browser --ignore tests/attacks --ignore tests/app/test_killed.py
	$(PY) -m coverage combine -q
	$(PY) -m coverage report

# The attacks of the tests and what holds for any numbers, many times over and each time with others.
soak: .stamps/dev .stamps/web .stamps/chromium
	KELBRAST_SOAK=$(SOAK) $(PY) -m pytest tests/attacks tests/app/test_killed.py tests/outside/test_day.py -s -q
	KELBRAST_SOAK=$(SOAK) $(PY) -m pytest -m hypothesis -q
	KELBRAST_SOAK=1 $(PY) -m pytest -m soak -q

# Changed copies of the code, each against the tests that run it: which change would nobody notice? All of them take a night;
# `make mutants OF='kelbrast.core.bench.*'` takes some.
mutants: .stamps/mutants
	OPENBLAS_NUM_THREADS=1 KELBRAST_SOAK=3 .venv/bin/mutmut run --max-children $(shell nproc) $(OF)
	$(PY) docs/mutation_score.py

bench: .stamps/dev .stamps/web .stamps/chromium
	@$(PY) bench/timings.py

# How often the eye is right on the photos of two judges, as in docs/eye.md: two hours, most of them for the path tracer.
judges: .stamps/judge
	@$(PY) bench/eye.py

# After a change of the API, of a sentence, a rule or a model: the description, the front end's types from it, the sentences to
# test with, the page of rules, and the tables of model.md.
types: .stamps/dev .stamps/npm
	$(PY) -c 'from kelbrast.api.application import description; print(description(), end="")' > docs/openapi.json
	PYTHONPATH=tests $(PY) tests/wording_samples.py
	PYTHONPATH=tests $(PY) tests/written.py
	$(PY) docs/print_rules.py > docs/rules.md
	$(PY) docs/print_equations.py
	$(PY) docs/print_trade.py
	cd web && npm run -s types

format: .stamps/dev .stamps/npm
	.venv/bin/ruff check --fix src tests bench docs
	.venv/bin/ruff format src tests bench docs
	cd web && npm run -s format

screenshots: .stamps/dev .stamps/web .stamps/chromium
	$(PY) docs/take_screenshots.py

# A wheel with the screens inside, for machines without Node: pip install dist/kelbrast-*.whl, then kelbrast demo.
wheel: .stamps/app .stamps/web
	rm -rf dist build && mkdir -p build
	cp -r src pyproject.toml README.md LICENSE build
	cp -r web/dist build/src/kelbrast/screens
	cp -r examples build/src/kelbrast/demo/examples
	$(PY) -m pip wheel -q --no-deps --no-build-isolation -w dist ./build
	@rm -rf build && ls dist

clean:
	rm -rf dist .stamps .venv web/node_modules web/dist web/.svelte-check

.venv/bin/python:
	@test -n "$(PYTHON)" || { echo "Kelbrast needs Python 3.11 that can make environments (package python3.11-venv)"; exit 1; }
	$(PYTHON) -m venv .venv
	@# The pip of Python 3.11 looks at every file of every package before it takes the pinned one: twice the time of all this.
	$(PY) -m pip install -q --require-hashes -r requirements/pip.txt

# Only what is run gets compiled, when it is: that halves the time of this.
.stamps/app: requirements/app.txt pyproject.toml | .venv/bin/python
	$(PY) -m pip install -q --no-compile --require-hashes -r requirements/app.txt
	$(PY) -m pip install -q --no-deps --no-build-isolation -e .
	@mkdir -p .stamps && touch $@

.stamps/dev: requirements/dev.txt .stamps/app
	$(PY) -m pip install -q --no-compile --require-hashes -r requirements/dev.txt
	@touch $@

.stamps/mutants: requirements/mutants.txt .stamps/dev
	$(PY) -m pip install -q --require-hashes -r requirements/mutants.txt
	@touch $@

# The path tracer is of no use to the program itself. With LLVM 16 or newer it takes half the time (Debian: libllvm19).
.stamps/judge: requirements/judge.txt .stamps/dev
	$(PY) -m pip install -q --no-compile --require-hashes -r requirements/judge.txt
	@touch $@

.stamps/npm: web/package-lock.json web/package.json
	@command -v npm >/dev/null || { echo "Kelbrast needs Node 20 with npm (npm is not here)"; exit 1; }
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@mkdir -p .stamps && touch $@

.stamps/web: .stamps/npm $(WEB)
	cd web && npm run -s build -- --logLevel warn
	@touch $@

.stamps/chromium:
	@command -v chromium-headless-shell >/dev/null || { apt-get update -qq && apt-get install -y -qq chromium-headless-shell; }
	@mkdir -p .stamps && touch $@

# Heathdrop: `make demo` runs it, `make test` checks it. Both install what is missing.
# A machine that forbids bytecode would compile every module again at every start.
unexport PYTHONDONTWRITEBYTECODE
.PHONY: setup setup-dev browser demo test fast golden check cover mutate bench soak agree bands reach days lessons-study calibrate evidence figures pins

setup:
	@bash scripts/setup.sh run

setup-dev:
	@bash scripts/setup.sh dev

browser:
	@bash scripts/browser.sh

demo: setup
	@.venv/bin/heathdrop serve --demo --data .demo/ashmoor.sqlite

# Two workers, each with a browser of its own at the end; the quick tests first.
FAST = -n 2 --dist worksteal -m "not slow and not browser" --ignore=tests/browser
SLOW = -n 2 --dist worksteal -m "slow and not browser" --ignore=tests/browser
SEEN = -n 2 --dist worksteal tests/browser

# Every stage is run, whatever the ones before came to; what failed is said at the end.
test: setup-dev browser
	@failed=; \
	.venv/bin/python -m pytest $(FAST) || failed="$$failed fast"; \
	.venv/bin/python -m pytest $(SLOW) || failed="$$failed slow"; \
	.venv/bin/python -m pytest $(SEEN) || failed="$$failed browser"; \
	if [ -n "$$failed" ]; then echo "failed:$$failed"; exit 1; fi

# The fast tests alone: no browser, nothing slow.
fast: setup-dev
	@.venv/bin/python -m pytest $(FAST)

# Renews the golden answers in tests/golden; read the difference as text before it lands.
golden: setup-dev
	@HEATHDROP_GOLDEN=renew .venv/bin/python -m pytest -q tests/conditions tests/physics tests/sizing tests/advice tests/learning tests/store tests/api tests/web

# Everything: style, types, branch coverage of the core by the fast tests (below 95 % it fails), then the rest.
check: setup-dev browser
	@.venv/bin/ruff check .
	@.venv/bin/ruff format --check .
	@.venv/bin/mypy
	@.venv/bin/python -m pytest $(FAST) --cov --cov-report=term:skip-covered
	@.venv/bin/python -m pytest $(SLOW)
	@.venv/bin/python -m pytest $(SEEN)

# Branch coverage of the core by the fast tests alone, with the lines that are missed.
cover: setup-dev
	@.venv/bin/python -m pytest $(FAST) --cov --cov-report=term-missing:skip-covered

# Speed as ratios; with AGAINST=REV this tree and that revision are asked in turn.
bench: setup-dev
	@.venv/bin/python -m $(if $(AGAINST),bench.against $(AGAINST),bench)

# Wrong edits made one by one in a sample of a room, and how many its tests catch; minutes, by room.
AREA ?= judgement
SAMPLE ?= 100
mutate: setup-dev
	@.venv/bin/python -m bench.mutants $(AREA) --sample $(SAMPLE) --at mutants

# About five bounded minutes against the real program: kills, hostile requests, twenty clients.
soak: setup-dev
	@.venv/bin/python -m bench.soak
	@.venv/bin/python -m bench.attacks

# How far the judgement agrees with worked waters and with pieces of the work, how steady it is (about four minutes).
agree: setup-dev
	@.venv/bin/python -m bench.agree
	@.venv/bin/python -m bench.questions
	@.venv/bin/python -m bench.pieces
	@.venv/bin/python -m bench.steady

# Do told 80 % bands hold for hands, boats and gear that are not the program's priors (a minute)?
bands: setup-dev
	@.venv/bin/python -m bench.bands

# Does the first rig come near the fish? Its cast played again over random waters, and over thin line.
reach: setup-dev
	@.venv/bin/python -m bench.reach 200 23
	@.venv/bin/python -m bench.thin

# A simulated day: casts to the first bite, the search against stepped counts and a guide's rule.
days: setup-dev
	@.venv/bin/python -m bench.days

# Simulated anglers with known truth: what their logs claim, and how often that is right (about five minutes).
lessons-study: setup-dev
	@.venv/bin/python -m bench.lessons_study

# Fits the judgement's numbers to the worked waters and writes them to the catalogue (about two minutes).
calibrate: setup-dev
	@.venv/bin/python -m bench.calibrate --write

# Runs the studies of docs/model.md (about six minutes) and draws its figures.
evidence: setup-dev
	@.venv/bin/python -m bench.evidence

# Every measured figure in one run (under an hour; goes on where it was broken off), written to docs/figures.md.
figures: setup-dev
	@.venv/bin/python -m bench.figures

# Renews the pin files from pyproject.toml; no address of an index is written into them.
pins: setup-dev
	@.venv/bin/python -m uv pip compile -q --generate-hashes --no-header --no-annotate --python-version 3.11 pyproject.toml -o requirements.txt
	@.venv/bin/python -m uv pip compile -q --generate-hashes --no-header --no-annotate --python-version 3.11 --extra dev pyproject.toml -o requirements-dev.txt

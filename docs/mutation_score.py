"""The score of the last `make mutants`, by package: how many changed copies its tests noticed."""

import json
from collections import Counter
from pathlib import Path

MUTANTS = Path(__file__).parents[1] / "mutants"
KILLED, SURVIVED, TIMED_OUT = (1, 3), (0,), (36, 24, -24, 152, 255)  # exit codes of the run


def main() -> None:
    totals: dict[str, Counter[str]] = {}
    for meta in sorted(MUTANTS.rglob("*.py.meta")):
        parts = meta.relative_to(MUTANTS / "src" / "kelbrast").parts
        package = parts[1] if parts[0] == "core" else parts[0]
        for code in json.loads(meta.read_text())["exit_code_by_key"].values():
            what = "killed" if code in KILLED or code in TIMED_OUT else "survived" if code in SURVIVED else "not run"
            totals.setdefault(package, Counter())[what] += 1
    print("| package | killed | survived | score |\n| --- | --- | --- | --- |")
    for package, count in [*totals.items(), ("all", sum(totals.values(), Counter()))]:
        score = count["killed"] / max(1, count["killed"] + count["survived"])
        print(f"| {package} | {count['killed']} | {count['survived']} | {score:.0%} |")


if __name__ == "__main__":
    main()

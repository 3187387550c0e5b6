"""Prints `docs/rules.md` from the rules of the core: `python docs/print_rules.py > docs/rules.md`."""

from kelbrast.core.reference.loader import sources
from kelbrast.core.rules.book import BOOK, THEMES

HEAD = """# The rules of the trade

Every rule that forbids, ends, orders or warns stands in one module of `src/kelbrast/core/rules`, and this page is printed from
them (`make types`; a test holds it current). A name in parentheses is what a plan calls the refusal (`binding` in the plan
file); numbers are named by their place in the reference data.
"""


def page() -> str:
    parts = [HEAD]
    for theme, rules in BOOK.items():
        parts.append(f"## {theme.capitalize()}\n\n{THEMES[theme]} (`rules/{theme}.py`)\n")
        parts += [
            f"- **{rule.id}** {rule.does}. {rule.says}\n"
            f"  Lifted by: {rule.lifted_by}. Source: {sources()[rule.source].title}.\n"
            for rule in rules
        ]
    return "\n".join(parts)


if __name__ == "__main__":
    print(page(), end="")

"""Writes what the trade sees and the model's figure beside it into `docs/model.md`: `python docs/print_trade.py`."""

import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
MODEL = ROOT / "docs" / "model.md"
BEGIN, END = "<!-- trade: printed from the checks -->", "<!-- end of the trade -->"


def written(text: str) -> str:
    """The document with its table as the model is now."""
    sys.path[:0] = [str(ROOT / "tests" / "outside"), str(ROOT / "tests")]
    from test_trade_figures import cells

    rows = [f"| {what} | {ours:.2g} | {low:g} to {high:g} |" for what, ours, low, high in cells()]
    head = ["| figure (Ra in um on stainless of 190 HV where nothing else is said) | model | trade |", "| --- | --- | --- |"]
    before, _, rest = text.partition(BEGIN)
    _, _, after = rest.partition(END)
    return before + "\n".join([BEGIN, *head, *rows, END]) + after


if __name__ == "__main__":
    MODEL.write_text(written(MODEL.read_text(encoding="utf-8")), encoding="utf-8")

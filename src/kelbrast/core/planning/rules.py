"""The rules that can stand between a part and its finish, by the names of the plan file."""

from typing import Final, Literal, get_args

# The order in which single rules are lifted to find the one that binds: the part's own limits first, the rack's last.
Rule = Literal["metal", "reach", "heat", "speed", "contamination", "lay", "too-soft", "not-fine-enough"]
RULES: Final[tuple[Rule, ...]] = get_args(Rule)

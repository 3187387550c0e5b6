"""`python -m kelbrast`, and the command `kelbrast`."""

import sys


def main() -> None:
    """Run the command line. Ctrl+C ends it without a word, also while it is still starting."""
    try:
        from kelbrast.cli.main import main as run  # large: it may be interrupted while it is loaded

        run()
    except KeyboardInterrupt:
        sys.exit(130)  # as shells say it: 128 and the number of the signal


if __name__ == "__main__":
    main()

"""`python -m kelbrast`, and the command `kelbrast`."""

import signal
import sys


def main() -> None:
    """Run the command line. Ctrl+C ends it without a word, also while it is still starting.

    Loading takes a second, and an exception raised inside an import may come out as any other: until everything is
    there, nothing has been begun, and the signal may end the process as it ends any program.
    """
    answered = signal.getsignal(signal.SIGINT)
    heard = answered is signal.default_int_handler  # started in the background, a program does not hear it at all
    if heard:
        signal.signal(signal.SIGINT, signal.SIG_DFL)
    from kelbrast.cli.main import main as run

    try:
        if heard:
            signal.signal(signal.SIGINT, answered)
        run()
    except KeyboardInterrupt:
        sys.exit(130)  # as shells say it: 128 and the number of the signal


if __name__ == "__main__":
    main()

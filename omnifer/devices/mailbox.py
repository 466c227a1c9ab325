"""A stand-in for a mail server: takes every mail and sends none, for tests and demonstrations.

    python -m omnifer.devices.mailbox PORT FOLDER

Each mail is a file of the folder (Maildir).
"""

import mailbox
import socket
import sys
import threading
from email.message import Message
from pathlib import Path

from aiosmtpd.controller import Controller
from aiosmtpd.handlers import Mailbox


class SimulatedMailbox:
    """A mail server on loopback that keeps what it is given."""

    def __init__(self, folder: Path, port: int = 0) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self.folder, self.port = folder, port or _free_port()
        self._server = Controller(Mailbox(folder / "mails"), hostname="127.0.0.1", port=self.port)

    def __enter__(self) -> "SimulatedMailbox":
        self._server.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._server.stop()

    @property
    def address(self) -> str:
        """How a sender names it."""
        return f"smtp://127.0.0.1:{self.port}"

    def mails(self) -> list[Message]:
        """What came, the oldest first."""
        kept = mailbox.Maildir(self.folder / "mails")
        return [kept[key] for key in sorted(kept.keys(), key=lambda key: kept.get_message(key).get_date())]


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def main() -> None:
    """Take mails until ended."""
    with SimulatedMailbox(Path(sys.argv[2]), int(sys.argv[1])):
        threading.Event().wait()


if __name__ == "__main__":
    main()

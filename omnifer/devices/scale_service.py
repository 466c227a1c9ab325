"""The stand-in of a weighing scale: plain lines over TCP on loopback. See docs/weighing-scale.md."""

import contextlib
import os
import socketserver
import sys
import threading
import time

from omnifer.devices.scale import MOST_KG, STEP_KG, Scale

A_SECOND = 5
"""Lines in a second."""
LONGEST_LINE = 64


class Shared:
    """The one scale that everybody sees who connects."""

    def __init__(self, scale: Scale) -> None:
        self.scale, self.lock = scale, threading.Lock()
        self.silent_until = 0.0
        self.number = 0

    def say(self) -> str:
        """The next line."""
        with self.lock:
            self.number += 1
            return self.scale.line(time.monotonic(), self.number)

    def told(self, line: str) -> str:
        """Do what a line asks. Gives the answer."""
        words = line.split()
        now = time.monotonic()
        with self.lock, contextlib.suppress(ValueError, IndexError):
            match words:
                case ["Z"]:
                    self.scale.zero(now)
                    return "OK Z"
                case ["PUT", kg] if 0 <= float(kg) <= 1000:
                    self.scale.put(float(kg), now)
                    return "OK PUT"
                case ["DRIFT", kg] if abs(float(kg)) <= 10:
                    self.scale.drift_kg_per_min = float(kg)
                    self.scale.zeroed_s = now
                    return "OK DRIFT"
                case ["DROP", seconds] if 0 <= float(seconds) <= 60:
                    self.silent_until = now + float(seconds)
                    return "OK DROP"
        return f"ERR {line[:20]!r} is not understood"

    @property
    def dropped(self) -> bool:
        """Whether its link is down just now."""
        return time.monotonic() < self.silent_until


class _Link(socketserver.StreamRequestHandler):
    """One listener: told a line a fifth of a second, and listened to."""

    server: "ScaleServer"

    def handle(self) -> None:
        shared = self.server.shared
        if shared.dropped:
            return
        self._send(f"HELLO simulated {MOST_KG:g} {STEP_KG:g} kg")
        listener = threading.Thread(target=self._listen, daemon=True)
        listener.start()
        with contextlib.suppress(OSError):
            while not shared.dropped:
                self._send(shared.say())
                time.sleep(1 / A_SECOND)

    def _listen(self) -> None:
        with contextlib.suppress(OSError, ValueError):
            while line := self.rfile.readline(LONGEST_LINE):
                self._send(self.server.shared.told(line.decode("ascii", "replace").strip()))

    def _send(self, line: str) -> None:
        self.wfile.write(f"{line}\n".encode("ascii"))


class ScaleServer(socketserver.ThreadingTCPServer):
    """Serves one scale on loopback."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int, scale: Scale | None = None) -> None:
        seed = int(os.environ.get("OMNIFER_SCALE_SEED", "1"))
        self.shared = Shared(scale or Scale(seed=seed))
        super().__init__(("127.0.0.1", port), _Link)


if __name__ == "__main__":
    ScaleServer(int(sys.argv[1])).serve_forever()

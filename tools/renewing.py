"""What was brought into the folder takes the place of what runs, without a request that is dropped: `SIGHUP`.

New processes begin beside the old ones, at the same socket; when they can answer, the old ones finish what they have
begun. Where the new ones cannot begin, that is said, and the old ones go on.
"""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
from collections.abc import Mapping
from dataclasses import dataclass
from types import FrameType

from tools.application import ROOT, start_ready, start_worker
from tools.supervisor import Supervisor


@dataclass
class Renewing:
    """Renews the workers of a *supervisor*, which answer at *listening* with the settings of an *environment*."""

    supervisor: Supervisor
    listening: socket.socket
    environment: Mapping[str, str]
    asked: bool = False

    def on_hangup(self) -> None:
        """Have `SIGHUP` ask for it."""
        signal.signal(signal.SIGHUP, self._ask)

    def _ask(self, number: int, frame: FrameType | None) -> None:
        self.asked = True

    def if_asked(self) -> None:
        """Do it, if it was asked for."""
        if self.asked:
            self.asked = False
            print(f"slate: {self._renew()}", file=sys.stderr, flush=True)

    def _renew(self) -> str:
        """Do it; what was done, in a sentence."""
        made = subprocess.run([sys.executable, "-m", "tools.launch", "ready"], cwd=ROOT, env=os.environ)
        if made.returncode:
            return "what is in the folder now cannot be started; what ran before goes on"
        names = [name for name in self.supervisor.names() if name.startswith("worker ")]
        begun = start_ready(self.listening, self.environment, len(names))
        if begun is None:
            return "what is in the folder now ends by itself; what ran before goes on"
        for name, process in zip(names, begun, strict=True):
            self.supervisor.replace(name, lambda: start_worker(self.listening, self.environment), process)
        return f"{len(begun)} processes of what is in the folder now answer; those before finish what they have begun"

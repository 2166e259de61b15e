"""The application in a process of its own, on a free port: for tests, benchmarks and screenshots."""

from __future__ import annotations

import os
import secrets
import signal
import subprocess
import sys
import time
import urllib.request

from tools.launch import ROOT
from tools.postgres import free_port


class LiveServer:
    """The application in its own process, as an installation runs it."""

    def __init__(self, teacher: str, url: str) -> None:
        self.port = free_port(0)
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = os.environ | {
            "KEEN_SLATE_DATABASE_URL": url,
            "KEEN_SLATE_SECRET_KEY": secrets.token_urlsafe(24),
            "KEEN_SLATE_TEACHER": teacher,
        }
        self.start()

    def start(self) -> None:
        """Start it, and wait until it answers."""
        command = [sys.executable, "-m", "gunicorn", "--bind", f"127.0.0.1:{self.port}", "--workers", "1", "--threads",
                   "4", "--log-level", "critical", "--no-control-socket", "keen_slate.web:create_app()"]  # fmt: skip
        self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment, start_new_session=True)
        for _ in range(100):
            try:
                with urllib.request.urlopen(f"{self.address}/api/openapi.json", timeout=2):
                    return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the application does not answer")

    def kill(self) -> None:
        """End it as a power cut would."""
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        """End it."""
        self.process.terminate()
        self.process.wait()

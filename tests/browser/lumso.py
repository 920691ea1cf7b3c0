"""The other end of `tests/launcher.py`: a Lumso in a process of its own, as the browser tests turn it."""

import json
import re
import ssl
import subprocess
import sys
from io import BytesIO
from pathlib import Path
from typing import Any
from urllib.request import Request, urlopen

from pypdf import PdfReader

ROOT = Path(__file__).parents[2]


class Running:
    """A Lumso that is put back for each test, and can be stopped and started again on the same file and port."""

    def __init__(self, folder: Path, **asked: Any) -> None:
        """Begin one; see `tests/launcher.py` for what may be asked."""
        line = [sys.executable, "-m", "tests.launcher", str(folder), json.dumps(asked)]
        self.process = subprocess.Popen(line, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, cwd=ROOT)
        self.scheme = "https" if asked.get("tls") else "http"
        self._take(self._answer())

    def _take(self, told: dict[str, Any]) -> None:
        self.port: int = told["port"]
        self.data = Path(told["data"])
        self.reach: str = told.get("reach", "")
        self.code: str = told.get("code", "")

    def _answer(self) -> dict[str, Any]:
        assert self.process.stdout
        line = self.process.stdout.readline()
        assert line, "the server is gone"
        said: dict[str, Any] = json.loads(line)
        assert "failed" not in said, said["failed"]
        return said

    def order(self, do: str, **more: Any) -> dict[str, Any]:
        """Have it do something, and wait until that is done."""
        assert self.process.stdin
        self.process.stdin.write(json.dumps({"do": do, **more}) + "\n")
        self.process.stdin.flush()
        return self._answer()

    def back(self, to: str) -> None:
        """As it was before anybody came: `to` is "empty", "loft", or "log" with what the loft wrote down."""
        self._take(self.order("back", to=to))

    def start(self) -> None:
        """Serve again."""
        self._take(self.order("start"))

    def stop(self) -> None:
        """Serve no more."""
        self.order("stop")

    def end(self) -> None:
        """Let it go."""
        assert self.process.stdin
        assert self.process.stdout
        self.process.stdin.close()
        self.process.wait(timeout=30)
        self.process.stdout.close()

    @property
    def url(self) -> str:
        """Its address on this machine."""
        return f"{self.scheme}://127.0.0.1:{self.port}"

    def ask(self, path: str, body: Any = None, method: str = "", **headers: str) -> Any:
        """What the API answers, read: GET, or POST of a body where nothing else is said."""
        said = {"Content-Type": "application/json", **{k.replace("_", "-"): v for k, v in headers.items()}}
        sent = None if body is None else json.dumps(body).encode()
        request = Request(f"{self.url}/api/{path}", sent, said, method=method or ("POST" if sent else "GET"))
        itself = ssl.create_default_context()
        itself.check_hostname, itself.verify_mode = False, ssl.CERT_NONE  # no other answers on this machine's own port
        with urlopen(request, context=itself if self.scheme == "https" else None) as reply:
            text = reply.read()
            return json.loads(text) if text else None

    def code_of(self, job: str) -> str:
        """The code of the first batch of a job, printed now."""
        body = json.dumps({"what": "cards"}).encode()
        with urlopen(Request(f"{self.url}/api/jobs/{job}/print", body, {"Content-Type": "application/json"})) as reply:
            text = PdfReader(BytesIO(reply.read())).pages[0].extract_text()
        return str(re.findall(r"\b[a-z]{4}-\d\d\b", text)[0])

    def tag(self, path: str) -> str:
        """The revision that the API says something is at."""
        with urlopen(f"{self.url}/api/{path}") as reply:
            return str(reply.headers["ETag"])

    def job(self, name: str) -> str:
        """The id of the job of a name."""
        return next(str(j["id"]) for j in self.ask("jobs")["jobs"] if j["name"] == name)

"""A certificate of one's own: trusted by whoever trusts the authority, for the names of this machine and no others."""

import json
import socket
import ssl
import stat
import subprocess
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509

from lumso.tls import RENEW_DAYS, SERVER_DAYS, certificate, fingerprint

NAMES = {"127.0.0.1", "loft.local", "192.168.1.20"}


def serial(path: Path) -> int:
    return x509.load_pem_x509_certificate(path.read_bytes()).serial_number


def test_it_is_made_once_and_its_keys_are_for_their_owner(tmp_path: Path) -> None:
    cert, key, authority = certificate(tmp_path / "tls", NAMES)
    assert serial(cert) == serial(certificate(tmp_path / "tls", NAMES)[0])
    assert certificate(tmp_path / "tls", NAMES)[2] == authority
    for secret in (key, tmp_path / "tls" / "authority-key.pem"):
        assert stat.S_IMODE(secret.stat().st_mode) == 0o600
    assert len(fingerprint(authority).split(":")) == 32


def test_it_is_made_anew_for_another_name_and_before_it_ends_from_the_same_authority(tmp_path: Path) -> None:
    cert, _, authority = certificate(tmp_path, NAMES)
    first = serial(cert)
    late = datetime.now(UTC) + timedelta(days=SERVER_DAYS - RENEW_DAYS + 1)
    assert serial(certificate(tmp_path, NAMES, late - timedelta(days=2))[0]) == first
    again, _, same = certificate(tmp_path, NAMES, late)
    second = serial(again)
    assert second != first
    assert same == authority
    assert serial(certificate(tmp_path, {*NAMES, "192.168.1.77"}, late)[0]) != second


def test_a_browser_that_trusts_the_authority_is_served_and_another_is_not(tmp_path: Path) -> None:
    data = tmp_path / "x.sqlite3"
    command = [sys.executable, "-m", "lumso", "serve", "--tls", "--port", "0", "--data", str(data)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as lumso:
        assert lumso.stdout
        line = lumso.stdout.readline()
        assert "https://127.0.0.1:" in line
        port = int(line.partition("https://127.0.0.1:")[2].split("/")[0])
        trusting = ssl.create_default_context(cafile=str(tmp_path / "tls" / "authority.pem"))
        with (
            socket.create_connection(("127.0.0.1", port)) as plain,
            trusting.wrap_socket(plain, server_hostname="127.0.0.1") as line_,
        ):
            line_.sendall(b"GET /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n")
            answer = b""
            while piece := line_.recv(65536):
                answer += piece
        with socket.create_connection(("127.0.0.1", port)) as plain, pytest.raises(ssl.SSLError):
            ssl.create_default_context().wrap_socket(plain, server_hostname="127.0.0.1")
        with socket.create_connection(("127.0.0.1", port)) as plain, pytest.raises(ssl.SSLError):
            trusting.wrap_socket(plain, server_hostname="elsewhere.example")
        lumso.terminate()
    assert json.loads(answer.partition(b"\r\n\r\n")[2])["count"] == 0


def test_in_workshop_mode_the_terminal_says_how_to_come_in(tmp_path: Path) -> None:
    command = [sys.executable, "-m", "lumso", "serve", "--host", "0.0.0.0", "--port", "0"]
    command += ["--data", str(tmp_path / "x.sqlite3")]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as lumso:
        assert lumso.stdout
        said = ""
        for line in lumso.stdout:
            said += line
            if "--tls encrypts them." in line:
                break
        lumso.terminate()
    assert "Workshop mode. On another device open http://" in said
    assert "give the code:" in said
    assert "▄" in said, "a picture to scan"
    assert "cross the network unencrypted" in said


@pytest.mark.parametrize(
    "given",
    [
        ["--cert", "x.pem"],
        ["--key", "x.pem"],
        ["--cert", "x.pem", "--key", "y.pem"],
        ["--cert", __file__, "--key", __file__],
    ],
)
def test_a_certificate_without_its_key_or_that_is_none_is_refused(tmp_path: Path, given: list[str]) -> None:
    command = [sys.executable, "-m", "lumso", "serve", "--port", "0", "--data", str(tmp_path / "x.sqlite3"), *given]
    ended = subprocess.run(command, capture_output=True, text=True, timeout=30)
    assert ended.returncode == 2
    assert "lumso: " in ended.stderr
    assert "Traceback" not in ended.stderr

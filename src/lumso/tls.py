"""A certificate of one's own: a local authority, made once, and what it says of this machine, made anew in time."""

import ipaddress
import os
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS, SERVER_DAYS, RENEW_DAYS = 3650, 397, 30
"""How long certificates hold: browsers take none for a server that holds longer than 398 days."""

Key = ec.EllipticCurvePrivateKey


def _name(text: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, text)])


def _keep(path: Path, content: bytes, secret: bool = False) -> None:
    """Write a file that is there whole or not at all; a key is for its owner only."""
    path.parent.mkdir(parents=True, exist_ok=True)
    fresh = path.with_name(f".{path.name}")
    fresh.unlink(missing_ok=True)
    with os.fdopen(os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600 if secret else 0o644), "wb") as out:
        out.write(content)
    fresh.replace(path)


def _pem(key: Key) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )


def _begun(subject: x509.Name, issuer: x509.Name, key: Key, days: int, now: datetime) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + timedelta(days=days))
    )


def _authority(folder: Path, now: datetime) -> tuple[x509.Certificate, Key]:
    """The authority of this workshop, made where there is none that holds."""
    kept, secret = folder / "authority.pem", folder / "authority-key.pem"
    if kept.exists() and secret.exists():
        known = x509.load_pem_x509_certificate(kept.read_bytes())
        key = serialization.load_pem_private_key(secret.read_bytes(), None)
        if isinstance(key, ec.EllipticCurvePrivateKey) and known.not_valid_after_utc > now + timedelta(SERVER_DAYS):
            return known, key
    key = ec.generate_private_key(ec.SECP256R1())
    name = _name("Lumso, this workshop")
    made = (
        _begun(name, name, key, AUTHORITY_DAYS, now)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(x509.KeyUsage(False, False, False, False, False, True, True, False, False), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    _keep(secret, _pem(key), secret=True)
    _keep(kept, made.public_bytes(serialization.Encoding.PEM))
    return made, key


def _called(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _holds(path: Path, names: set[str], authority: x509.Certificate, now: datetime) -> bool:
    """Whether a certificate is of this authority, names all of these, and holds for a while yet."""
    if not path.exists():
        return False
    known = x509.load_pem_x509_certificate(path.read_bytes())
    said = known.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    told = set(said.get_values_for_type(x509.DNSName)) | {str(a) for a in said.get_values_for_type(x509.IPAddress)}
    try:
        known.verify_directly_issued_by(authority)
    except Exception:
        return False
    return names <= told and known.not_valid_after_utc > now + timedelta(days=RENEW_DAYS)


def certificate(folder: Path, names: set[str], now: datetime | None = None) -> tuple[Path, Path, bytes]:
    """The certificate and key for a server of these names and addresses, and the authority that devices trust.

    Kept in `folder`, and made anew when they end within a month or the machine has another name.
    """
    at = now or datetime.now(UTC)
    authority, authority_key = _authority(folder, at)
    kept, secret = folder / "server.pem", folder / "server-key.pem"
    if not (secret.exists() and _holds(kept, names, authority, at)):
        key = ec.generate_private_key(ec.SECP256R1())
        issuer = x509.AuthorityKeyIdentifier.from_issuer_public_key(authority_key.public_key())
        made = (
            _begun(_name("Lumso"), authority.subject, key, SERVER_DAYS, at)
            .add_extension(x509.SubjectAlternativeName([_called(n) for n in sorted(names)]), critical=False)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
            .add_extension(issuer, critical=False)
            .sign(authority_key, hashes.SHA256())
        )
        _keep(secret, _pem(key), secret=True)
        _keep(kept, made.public_bytes(serialization.Encoding.PEM))
    return kept, secret, authority.public_bytes(serialization.Encoding.PEM)


def fingerprint(pem: bytes) -> str:
    """The SHA-256 fingerprint of a certificate, as devices show it: pairs of digits."""
    return x509.load_pem_x509_certificate(pem).fingerprint(hashes.SHA256()).hex(":").upper()

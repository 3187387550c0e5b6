"""A certificate that this computer makes for itself, so that tablets can talk to it in secret and work without a connection.

A root is made once; a tablet that is told to trust it trusts this computer, and by the root's own limits nothing else: it can
only vouch for this host's names and for addresses of private networks. What the server shows is signed by it and made anew when
an address changes or its year is nearly over.
"""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from ipaddress import IPv4Address, IPv6Address, ip_address, ip_network
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import (
    Encoding,
    NoEncryption,
    PrivateFormat,
    load_pem_private_key,
)
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from kelbrast.storage.devices import write_private
from kelbrast.storage.trouble import told

ROOT_LIVES: Final = timedelta(days=3650)
SHOWN_LIVES: Final = timedelta(days=397)  # what browsers accept at most
_RENEW_BEFORE: Final = timedelta(days=60)
_SLACK: Final = timedelta(hours=12)  # a tablet's clock may be slow
# RFC 1918, RFC 3927, RFC 4193, RFC 4291, and this machine itself
_PRIVATE: Final = (
    "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10", "::1/128",
)  # fmt: skip


class ShopCertificate:
    """The root and what is signed by it, in a folder that only its owner can read."""

    def __init__(self, folder: Path) -> None:
        self.root, self._root_key = folder / "root.pem", folder / "root.key"
        self.shown, self.key = folder / "shown.pem", folder / "shown.key"

    def make_sure(self, names: Sequence[str], addresses: Sequence[str], now: datetime | None = None) -> bool:
        """Have a certificate for these names and addresses that lives long enough; says whether a new one was made.

        Raises:
            StoreTrouble: there is no room, or no right to write there.
        """
        now = now or datetime.now(UTC)
        with told(self.root):
            root, signs = self._kept_root(names, now) or self._new_root(names, now)
            if self._good(root, names, addresses, now):
                return False
            key = ec.generate_private_key(ec.SECP256R1())
            made = (
                _begun(key.public_key(), names[0], root.subject, now, SHOWN_LIVES)
                .add_extension(x509.SubjectAlternativeName([*_names(names), *_addresses(addresses)]), critical=False)
                .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
                .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
                .add_extension(x509.AuthorityKeyIdentifier.from_issuer_public_key(signs.public_key()), critical=False)
                .sign(signs, hashes.SHA256())
            )
            write_private(self.key, _pem(key))
            write_private(self.shown, made.public_bytes(Encoding.PEM) + root.public_bytes(Encoding.PEM))
            return True

    @property
    def fingerprint(self) -> str:
        """Of the root, to compare with what a tablet shows before it is trusted."""
        return x509.load_pem_x509_certificate(self.root.read_bytes()).fingerprint(hashes.SHA256()).hex(":").upper()

    def _kept_root(self, names: Sequence[str], now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey] | None:
        """The root, if it can still sign for these names."""
        if not (self.root.is_file() and self._root_key.is_file()):
            return None
        try:
            root = x509.load_pem_x509_certificate(self.root.read_bytes())
            key = load_pem_private_key(self._root_key.read_bytes(), None)
            limits = root.extensions.get_extension_for_class(x509.NameConstraints).value.permitted_subtrees or []
        except (ValueError, x509.ExtensionNotFound):
            return None
        may_name = {limit.value for limit in limits if isinstance(limit, x509.DNSName)}
        living = root.not_valid_after_utc > now + SHOWN_LIVES
        return (root, key) if isinstance(key, ec.EllipticCurvePrivateKey) and living and may_name >= set(names) else None

    def _new_root(self, names: Sequence[str], now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
        key = ec.generate_private_key(ec.SECP256R1())
        called = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Kelbrast on {names[0]}"[:64])])
        limits = [*_names(names), *(x509.IPAddress(ip_network(one)) for one in _PRIVATE)]
        root = (
            _begun(key.public_key(), f"Kelbrast on {names[0]}", called, now, ROOT_LIVES)
            .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
            .add_extension(x509.NameConstraints(limits, None), critical=True)
            .add_extension(
                x509.KeyUsage(
                    key_cert_sign=True, crl_sign=True, digital_signature=False, content_commitment=False,
                    key_encipherment=False, data_encipherment=False, key_agreement=False, encipher_only=False,
                    decipher_only=False,
                ),
                critical=True,
            )
            .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
            .sign(key, hashes.SHA256())
        )  # fmt: skip
        write_private(self._root_key, _pem(key))
        write_private(self.root, root.public_bytes(Encoding.PEM))
        return root, key

    def _good(self, root: x509.Certificate, names: Sequence[str], addresses: Sequence[str], now: datetime) -> bool:
        """Whether what is shown is signed by this root, names everything and lives a while."""
        if not (self.shown.is_file() and self.key.is_file()):
            return False
        try:
            made = x509.load_pem_x509_certificates(self.shown.read_bytes())[0]
            made.verify_directly_issued_by(root)
            said = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        except Exception:  # whatever is wrong with it, a new one is made
            return False
        every = {*said.get_values_for_type(x509.DNSName), *map(str, said.get_values_for_type(x509.IPAddress))}
        return every >= {*names, *addresses} and made.not_valid_after_utc > now + _RENEW_BEFORE


def _begun(
    key: ec.EllipticCurvePublicKey, name: str, issuer: x509.Name, now: datetime, lives: timedelta
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name[:64])]))
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _SLACK)
        .not_valid_after(now + lives - _SLACK)
    )


def _names(names: Sequence[str]) -> list[x509.DNSName]:
    return [x509.DNSName(name) for name in names]


def _addresses(addresses: Sequence[str]) -> list[x509.IPAddress]:
    found: list[IPv4Address | IPv6Address] = [ip_address(address) for address in addresses]
    return [x509.IPAddress(one) for one in found]


def _pem(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(Encoding.PEM, PrivateFormat.PKCS8, NoEncryption())

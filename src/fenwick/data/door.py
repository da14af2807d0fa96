"""Who may come in when a shop is served to a network: its passphrase, who has signed in, and codes for a phone.

They lie beside the shop, not in it: to put an older copy of the shop back lets nobody in again.
"""

from __future__ import annotations

import hashlib
import json
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from fenwick.data.database import ShopDatabaseError
from fenwick.data.whole_file import write_whole

LEAST, MOST = 8, 200  #: characters of a passphrase
CODE_LASTS = 600.0  #: a pairing code [s]
CODE_LETTERS = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"  #: none that is taken for another
CODE_LENGTH = 8
MOST_SIGN_INS = 50  #: the oldest ends when one more comes


@dataclass(frozen=True)
class SignIn:
    """A browser that has signed in."""

    id: str
    token_hash: str
    browser: str
    since: str  #: date and time, UTC


class Door:
    """The door of one shop; safe to use from several threads."""

    def __init__(self, path: Path, clock: Callable[[], float] = time.monotonic) -> None:
        self._path, self._clock = path, clock
        self._lock = threading.Lock()
        self._checking = threading.Lock()  # one at a time: a check takes memory on purpose
        self._codes: dict[str, float] = {}
        self._hash, self._stamp = "", 0
        self._sign_ins: list[SignIn] = []
        self._read_again()

    @property
    def has_passphrase(self) -> bool:
        """Whether there is one to sign in with."""
        self._read_again()
        return bool(self._hash)

    def set_passphrase(self, text: str) -> None:
        """Take another passphrase; everybody has to sign in again.

        Raises
        ------
        ValueError
            When it is too short or too long, with a sentence.
        ShopDatabaseError
            When it cannot be written.
        """
        if not LEAST <= len(text) <= MOST:
            raise ValueError(f"A passphrase takes {LEAST} to {MOST} characters: four words are easy to keep in mind.")
        with self._lock:
            self._write(PasswordHasher().hash(text), [])

    def fits(self, text: str) -> bool:
        """Whether a text is the passphrase."""
        self._read_again()
        if not self._hash or len(text) > MOST:
            return False
        with self._checking:
            try:
                return PasswordHasher().verify(self._hash, text)
            except (VerificationError, InvalidHashError):
                return False

    def new_code(self) -> str:
        """A code that lets one browser in, once, within ten minutes."""
        code = "".join(secrets.choice(CODE_LETTERS) for _ in range(CODE_LENGTH))
        with self._lock:
            self._codes = {one: until for one, until in self._codes.items() if until > self._clock()}
            self._codes[code] = self._clock() + CODE_LASTS
        return code

    def takes_code(self, code: str) -> bool:
        """Whether a code lets somebody in; it does so once."""
        with self._lock:
            return self._codes.pop(code.strip().upper().replace("-", ""), -1.0) > self._clock()

    def sign_in(self, browser: str) -> str:
        """Let a browser in; the token that it is known by.

        Raises
        ------
        ShopDatabaseError
            When it cannot be written.
        """
        token = secrets.token_urlsafe(32)
        now = datetime.now(UTC).isoformat(" ", "minutes")[:16]
        with self._lock:
            mine = SignIn(secrets.token_hex(4), _digest(token), browser[:120], now)
            self._write(self._hash, [*self._sign_ins, mine][-MOST_SIGN_INS:])
        return token

    def of(self, token: str) -> SignIn | None:
        """Whose token it is; None when it lets nobody in, or no longer."""
        self._read_again()
        wanted = _digest(token)
        return next((one for one in self._sign_ins if secrets.compare_digest(one.token_hash, wanted)), None)

    def sign_ins(self) -> tuple[SignIn, ...]:
        """Everybody who is in, the newest first."""
        return tuple(reversed(self._sign_ins))

    def end(self, sign_in: str) -> None:
        """Let somebody in no longer."""
        with self._lock:
            self._write(self._hash, [one for one in self._sign_ins if one.id != sign_in])

    def _read_again(self) -> None:
        """Take what the command line has changed meanwhile."""
        try:
            stamp = self._path.stat().st_mtime_ns
        except OSError:  # there is no passphrase yet
            return
        if stamp != self._stamp:
            found = _read(self._path)
            self._hash = str(found.get("passphrase", ""))
            self._sign_ins = [SignIn(**one) for one in found.get("sign_ins", [])]
            self._stamp = stamp

    def _write(self, passphrase: str, sign_ins: list[SignIn]) -> None:
        text = json.dumps({"passphrase": passphrase, "sign_ins": [asdict(one) for one in sign_ins]})
        try:
            write_whole(self._path, text)
        except OSError as error:
            raise ShopDatabaseError(f"Who may come in could not be written ({error.strerror}).") from error
        self._read_again()


def _digest(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def _read(path: Path) -> dict[str, Any]:
    try:
        found = json.loads(path.read_text())
    except FileNotFoundError:
        return {}
    except (OSError, ValueError) as error:
        raise ShopDatabaseError(
            "Who may come in cannot be read; set the passphrase anew with “fenwick passphrase”."
        ) from error
    return found if isinstance(found, dict) else {}

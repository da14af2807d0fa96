"""A recording as a telephone makes it, decoded within bounds: the sound of a file, or of a short film."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

import av
import numpy as np

from fenwick.core.arrays import Array

RATE = 16_000  #: to which everything is brought [1/s]
MOST_SECONDS, LEAST_SECONDS = 120.0, 1.0
FULL = 0.985  #: of what a recording can hold, from which it is clipped [-]
NO_SOUND = "This file has no sound that can be read: WAV, M4A, OGG, MP3 or a short film, please."


class BadSoundError(ValueError):
    """A file whose sound cannot be read; says so in a sentence."""


@dataclass(frozen=True)
class SoundHeard:
    """Sound, one channel."""

    wave: Array  #: −1 … 1
    rate: float  #: [1/s]

    @property
    def seconds(self) -> float:
        """How long it is [s]."""
        return self.wave.size / self.rate

    @property
    def clipped(self) -> float:
        """Share of it that is as loud as it can be [-]."""
        return float(np.mean(np.abs(self.wave) > FULL)) if self.wave.size else 0.0

    @property
    def loudness(self) -> float:
        """Of the whole, against the loudest that it can hold [dB]."""
        return float(10.0 * np.log10(np.mean(self.wave**2) + 1e-12))


def sound_of(raw: bytes) -> SoundHeard:
    """The sound of a file, its first two minutes.

    Raises
    ------
    BadSoundError
    """
    if not raw:
        raise BadSoundError("Choose a recording first.")
    try:
        wave = _decoded(raw)
    except (av.error.FFmpegError, ValueError, IndexError, OSError) as error:
        raise BadSoundError(NO_SOUND) from error
    found = SoundHeard(wave, float(RATE))
    if found.seconds < LEAST_SECONDS:
        raise BadSoundError(f"The recording is too short, {found.seconds:.1f} s: three seconds at least, please.")
    return found


def _decoded(raw: bytes) -> Array:
    pieces, count = [], 0
    with av.open(BytesIO(raw), mode="r") as file:
        if not file.streams.audio:
            raise BadSoundError("This film has no sound: record it with the microphone on.")
        to_one = av.AudioResampler(format="flt", layout="mono", rate=RATE)
        for frame in file.decode(file.streams.audio[0]):
            for piece in to_one.resample(frame):
                pieces.append(piece.to_ndarray().ravel())
                count += pieces[-1].size
            if count > MOST_SECONDS * RATE:
                break
    return np.concatenate(pieces)[: int(MOST_SECONDS * RATE)].astype(float) if pieces else np.zeros(0)

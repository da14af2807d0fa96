"""The pitch of a motor in a recording, followed over time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.ndimage import percentile_filter
from scipy.signal import stft

from fenwick.core.arrays import Array
from fenwick.phone.found import RefusedError
from fenwick.phone.reading import PITCH, PhoneReading
from fenwick.phone.sound import SoundHeard

LOWEST, HIGHEST = 70.0, 1300.0  #: of a motor's fundamental that is looked for [Hz]
WINDOW, HOP, PADDED = 0.5, 0.1, 4  #: of a piece and between pieces [s], and how far it is filled up
HARMONICS, FADES = 8, 0.84  #: that are looked at, and what each weighs against the one below [-]
STEP = 0.0012  #: between pitches that are tried, in their logarithm [-]
ABOVE = 12.0  #: over the noise, from which a tone counts no more [dB]
LEAST_TONE = 6.0  #: how far a motor's tones stand out of the noise, weighted [dB]
QUIET, CLIPPED = -62.0, 0.01  #: loudness [dB] below, share of clipped sound above which a recording is refused
NEAR, STANDS_OUT = 0.012, 5.0  #: of a tone about its place [-], and over the noise [dB]
MOST_PIECES = 300  #: of a long recording: they lie further apart, and take no more memory
REACH = 0.4  #: over the recording, about its usual pitch, in the logarithm [-]
TWO_LEVELS = 0.035  #: between two steady pitches, as when the hose is shut, in the logarithm [-]


@dataclass(frozen=True)
class PitchTrack:
    """Pitch over time, arrays of shape (n,)."""

    at: Array  #: [s]
    hertz: Array  #: [Hz]
    tone: float  #: how far it stands out of the noise [dB]


def read_pitch(sound: SoundHeard) -> PhoneReading:
    """The fundamental of a motor, over a whole recording.

    Parameters
    ----------
    sound : the recording

    Raises
    ------
    RefusedError
    """
    if sound.loudness < QUIET:
        raise RefusedError("The recording is silent: hold the microphone a metre from the motor.")
    if sound.clipped > CLIPPED:
        raise RefusedError("The recording is too loud and clipped: step back, or turn the microphone away.")
    track = followed(sound)
    if track.tone < LEAST_TONE:
        raise RefusedError("No steady tone is heard over the noise: nothing else running, a metre from the motor.")
    value = float(np.median(track.hertz))
    scatter = 1.4826 * float(np.median(np.abs(track.hertz - value)))
    sure = max(2.0 * scatter / np.sqrt(max(sound.seconds / WINDOW, 1.0)), 0.003 * value)
    drift = float(np.polyfit(track.at, track.hertz, 1)[0]) if track.at.size > 2 else 0.0
    seen = {
        "seconds": round(sound.seconds, 1),
        "tone_db": round(track.tone, 1),
        "loudness_db": round(sound.loudness, 1),
        "drift_hz_s": round(drift, 3),
        "track_s": [round(float(one), 2) for one in track.at],
        "track_hz": [round(float(one), 2) for one in track.hertz],
        **_levels(track),
    }
    return PhoneReading(PITCH, value, value - sure, value + sure, seen)


def followed(sound: SoundHeard) -> PitchTrack:
    """The pitch of each piece of a recording.

    Parameters
    ----------
    sound : the recording
    """
    size, hop = int(WINDOW * sound.rate), max(HOP, sound.seconds / MOST_PIECES)
    overlap = size - min(int(hop * sound.rate), size)
    hertz, at, spectrum = stft(
        sound.wave, sound.rate, nperseg=size, noverlap=overlap, nfft=PADDED * size, padded=False, boundary=None
    )
    level = 20.0 * np.log10(np.abs(spectrum) + 1e-9)
    over = _over_noise(level, hertz)
    tried = np.exp(np.arange(np.log(LOWEST), np.log(HIGHEST), STEP))
    score = _scores(over, hertz, tried)
    usual = score.mean(axis=1)
    best = int(np.argmax(usual))
    near = np.abs(np.log(tried / tried[best])) < REACH
    step = float(hertz[1] - hertz[0])
    found = np.array(
        [_finer(_peak(score[near, i], tried[near]), level[:, i], over[:, i], step) for i in range(score.shape[1])]
    )
    return PitchTrack(at, found, float(score.max(axis=0).mean()))


def _over_noise(level: Array, hertz: Array) -> Array:
    """How far each frequency stands out of the noise about it, 0 … ABOVE, which nothing quite reaches [dB]."""
    width = max(round(float(180.0 / (hertz[1] - hertz[0]))) | 1, 3)
    step = max(width // 24, 1)
    floor = percentile_filter(level[::step], 60, size=(max(width // step, 3), 1))
    over = np.maximum(level - np.repeat(floor, step, axis=0)[: level.shape[0]], 0.0)
    return np.asarray(ABOVE * (1.0 - np.exp(-over / ABOVE)))


def _scores(over: Array, hertz: Array, tried: Array) -> Array:
    """What stands at the multiples of each pitch, less what stands half-way between them, shape (k, n) [dB]."""
    step = hertz[1] - hertz[0]
    weights = FADES ** np.arange(HARMONICS)
    total = np.zeros((tried.size, over.shape[1]))
    whole = np.zeros((tried.size, 1))
    for k, weight in enumerate(weights, 1):
        for part, sign in ((float(k), 1.0), (k - 0.5, -1.0)):
            place = np.round(part * tried / step).astype(int)
            there = place < over.shape[0]
            total[there] += sign * weight * over[place[there]]
        whole[k * tried < hertz[-1]] += weight
    return np.asarray(total / np.maximum(whole, weights[0]))


def _peak(score: Array, tried: Array) -> float:
    """The best of some pitches, between the grid's by a parabola."""
    i = int(np.argmax(score))
    if not 0 < i < score.size - 1:
        return float(tried[i])
    a, b, c = score[i - 1 : i + 2]
    bend = a - 2.0 * b + c
    off = 0.0 if bend >= 0.0 else float(np.clip(0.5 * (a - c) / bend, -0.5, 0.5))
    return float(tried[i] * np.exp(off * STEP))


def _finer(pitch: float, level: Array, over: Array, step: float) -> float:
    """A pitch by where its tones really stand, those that stand out and are high saying more."""
    places, weights = [], []
    for k in range(1, HARMONICS + 1):
        low, high = (int(k * pitch * side / step) for side in (1.0 - NEAR, 1.0 + NEAR))
        if high + 3 >= level.size:
            break
        i = low - 1 + int(np.argmax(level[low - 1 : high + 3]))
        if over[i] < STANDS_OUT:
            continue
        a, b, c = level[i - 1 : i + 2]
        bend = a - 2.0 * b + c
        off = 0.0 if bend >= 0.0 else float(np.clip(0.5 * (a - c) / bend, -0.5, 0.5))
        places.append((i + off) * step / k)
        weights.append(k * k * float(over[i]))
    if not places:
        return pitch
    middle = float(np.median(places))
    kept = np.abs(np.array(places) / middle - 1.0) < NEAR
    if not kept.any():  # they contradict each other: noise
        return pitch
    return float(np.average(np.array(places)[kept], weights=np.array(weights)[kept]))


def _levels(track: PitchTrack) -> dict[str, float]:
    """Where a recording has two steady pitches, such as open and then shut: both, and their ratio."""
    n = track.hertz.size
    if n < 8:
        return {}
    logs = np.log(track.hertz)
    cuts = range(3, n - 3)
    errors = [logs[:i].var() * i + logs[i:].var() * (n - i) for i in cuts]
    cut = cuts[int(np.argmin(errors))]
    before, after = float(np.median(track.hertz[:cut])), float(np.median(track.hertz[cut:]))
    clear = min(errors) < 0.3 * logs.var() * n
    if abs(np.log(after / before)) < TWO_LEVELS or not clear:
        return {}
    return {
        "first_hz": round(before, 2),
        "then_hz": round(after, 2),
        "ratio": round(after / before, 4),
        "changed_s": round(float(track.at[cut]), 2),
    }

"""Recordings of motors over the noise of a workshop, each with its truth; and broken ones, which must be refused."""

from __future__ import annotations

from io import BytesIO

import numpy as np
from scipy.io import wavfile
from scipy.signal import lfilter

from fenwick.core.arrays import Array
from fenwick.phone.scenes.photos import StandIn
from fenwick.phone.sound import RATE

SECONDS = 4.0
BROKEN_SOUNDS = ("silent", "clipped", "noise", "short")


def pitch_scene(seed: int, broken: str = "") -> StandIn:
    """A motor, recorded from a metre away.

    Parameters
    ----------
    seed : of all that is drawn [-]
    broken : one of BROKEN_SOUNDS; empty: as it should be
    """
    chance = np.random.default_rng([seed, 5])
    seconds = 0.5 if broken == "short" else SECONDS
    at = np.arange(int(seconds * RATE)) / RATE
    pitch, drift = float(chance.uniform(140.0, 620.0)), float(chance.uniform(-0.01, 0.01))
    hertz = pitch * (1.0 + drift * (at / seconds - 0.5) + 0.0015 * np.sin(2.0 * np.pi * chance.uniform(0.5, 3.0) * at))
    signal_to_noise = float(chance.uniform(6.0, 24.0))
    wave = _motor(hertz, chance)
    noise = _workshop(at.size, chance)
    wave = wave / wave.std() * 10.0 ** (signal_to_noise / 20.0) + noise / noise.std()
    if broken == "noise":
        wave = noise / noise.std()
    wave = 0.6 * wave / np.abs(wave).max()
    if broken == "silent":
        wave = 1e-4 * wave
    if broken == "clipped":
        wave = np.clip(8.0 * wave, -1.0, 1.0)
    packed = BytesIO()
    wavfile.write(packed, RATE, np.round(32767.0 * np.clip(wave, -1.0, 1.0)).astype(np.int16))
    truth = {"value": float(hertz.mean()), "snr_db": signal_to_noise, "broken": broken or None}
    return StandIn("pitch", packed.getvalue(), ".wav", truth)


def _motor(hertz: Array, chance: np.random.Generator) -> Array:
    """Tones at the multiples of a pitch: the fundamental is there, though not always the loudest."""
    phase = 2.0 * np.pi * np.cumsum(hertz) / RATE
    wave = np.zeros_like(phase)
    for k in range(1, 11):
        strength = float(chance.uniform(0.35, 1.0)) / k ** float(chance.uniform(0.4, 1.0))
        wave += strength * np.sin(k * phase + chance.uniform(0.0, 2.0 * np.pi))
    swell = 2.0 * np.pi * chance.uniform(2.0, 6.0) * np.arange(phase.size) / RATE
    return np.asarray(wave * (1.0 + 0.15 * np.sin(swell)))


def _workshop(count: int, chance: np.random.Generator) -> Array:
    """Rush of air, duller than hiss, and now and then a knock."""
    rush = lfilter([1.0], [1.0, -float(chance.uniform(0.6, 0.9))], chance.normal(0.0, 1.0, count))
    for _ in range(int(chance.integers(0, 4))):
        start = int(chance.integers(0, max(count - 800, 1)))
        knock = chance.normal(0.0, 1.0, 800) * np.exp(-np.arange(800) / 160.0)
        rush[start : start + 800] += 4.0 * rush.std() * knock[: rush[start : start + 800].size]
    return np.asarray(rush)

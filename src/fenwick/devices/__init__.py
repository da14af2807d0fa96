"""Devices that send lines of text: a scale, a particle monitor, a manometer. Real or simulated, read by one code."""

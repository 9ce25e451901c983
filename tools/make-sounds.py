#!/usr/bin/env python3
# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
"""Makes the tones in data/sounds: plain sines that fade in and out, told apart without a look."""

import math
import struct
import sys
import wave

RATE = 22050  # samples a second
FADE = 0.01  # seconds; without it a tone begins and ends with a click

# What is told, and its tones one after another: hertz and seconds; 0 Hz is a pause.
TONES = {
    "dwell-over": [(880, 0.12), (1320, 0.20)],
    "oven-due": [(660, 0.25), (0, 0.08), (660, 0.25), (0, 0.08), (880, 0.40)],
}


def samples(tones):
    for hertz, seconds in tones:
        count = round(seconds * RATE)
        for i in range(count):
            at = i / RATE
            loud = min(1.0, at / FADE, (seconds - at) / FADE) * (0.5 if hertz else 0.0)
            yield round(32767 * loud * math.sin(2 * math.pi * hertz * at))


def main():
    folder = sys.argv[1] if len(sys.argv) > 1 else "data/sounds"
    for name, tones in TONES.items():
        with wave.open(f"{folder}/{name}.wav", "wb") as sound:
            sound.setnchannels(1)
            sound.setsampwidth(2)
            sound.setframerate(RATE)
            sound.writeframes(b"".join(struct.pack("<h", s) for s in samples(tones)))


main()

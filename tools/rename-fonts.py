#!/usr/bin/env python3
# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
"""Makes data/fonts from Debian's fonts-b612 under family names of Rollcall's own.

On a machine that also has fonts-b612 installed, asking for the family 'B612' resolves to the
monospaced face. A private family name cannot be confused; the licence (OFL 1.1, no reserved
font name) allows it. Needs the packages fonts-b612 and python3-fonttools.
"""
import sys
from pathlib import Path
from fontTools.ttLib import TTFont

SOURCE = Path("/usr/share/fonts/opentype/b612")
FACES = {
    "B612-Regular.otf": ("Rollcall Sans", "Regular"),
    "B612-Bold.otf": ("Rollcall Sans", "Bold"),
    "B612Mono-Regular.otf": ("Rollcall Mono", "Regular"),
}

target = Path(__file__).resolve().parent.parent / "data" / "fonts"
for file, (family, style) in FACES.items():
    font = TTFont(SOURCE / file)
    postscript = family.replace(" ", "") + "-" + style
    names = {1: family, 2: style, 3: postscript, 4: f"{family} {style}", 6: postscript, 16: family, 17: style}
    table = font["name"]
    table.names = [n for n in table.names if n.nameID not in (16, 17, 21, 22)]
    for record in list(table.names):
        if record.nameID in names:
            table.setName(names[record.nameID], record.nameID, record.platformID, record.platEncID, record.langID)
    if "CFF " in font:
        cff = font["CFF "].cff
        cff.fontNames = [postscript]
        cff.topDictIndex[0].FamilyName = family
        cff.topDictIndex[0].FullName = f"{family} {style}"
    font.save(target / f"{postscript}.otf")
    print(target / f"{postscript}.otf", file=sys.stderr)

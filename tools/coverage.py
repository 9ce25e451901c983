#!/usr/bin/env python3
# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
"""What gcovr counted, told in two numbers: lines, and decisions (each if, loop and choice both ways).

gcovr's branches are those of the compiler: every copy of a vector and every initializer list has some, which no source
line asks for and no test can turn. Its decisions are those that stand in the source.

    coverage.py REPORT.json LEAST_LINES LEAST_DECISIONS

Prints the files with most decisions untaken; ends with 1 where either share, in per cent, is below its least.
"""
import json
import sys

report, least_lines, least_decisions = sys.argv[1], float(sys.argv[2]), float(sys.argv[3])
lines = [0, 0]
decisions = [0, 0]
open_in = []
with open(report, encoding="utf-8") as text:
    files = json.load(text)["files"]
for file in files:
    missing = 0
    for line in file["lines"]:
        if not line.get("gcovr/noncode"):
            lines[0] += line["count"] > 0
            lines[1] += 1
        decision = line.get("gcovr/decision", {"type": "none"})
        if decision["type"] == "conditional":
            taken = [decision["count_true"] > 0, decision["count_false"] > 0]
        elif decision["type"] == "switch":
            taken = [decision["count"] > 0]
        else:
            continue
        decisions[0] += sum(taken)
        decisions[1] += len(taken)
        missing += len(taken) - sum(taken)
    open_in.append((missing, file["file"]))
for missing, name in sorted(open_in, reverse=True)[:15]:
    print(f"{missing:6d} decisions untaken  {name}")
share_lines = 100 * lines[0] / lines[1]
share_decisions = 100 * decisions[0] / decisions[1]
print(f"lines {share_lines:.1f} % of {lines[1]}, decisions {share_decisions:.1f} % of {decisions[1]}")
sys.exit(share_lines < least_lines or share_decisions < least_decisions)

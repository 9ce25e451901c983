#!/usr/bin/env python3
# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
"""What gcovr counted, told in two numbers: lines, and decisions (each if and loop both ways, each choice taken).

gcovr's branches are those of the compiler: every copy of a vector and every initializer list has some, which no source
line asks for and no test can turn. Which lines decide is what gcovr says; which ways they went is read from the counts
here, because gcovr leaves out what begins with a declaration, and takes the line after `if (a) b;` for its body:

- a line with the two branches of one condition: these;
- one whose body is on other lines, or that leaves (`if (a) return b;`): how often the next counted line ran, against
  how often it ran itself;
- any other: the last two branches that ran at all, which the last condition of several decides. It errs to the side of
  what was not tried.

    coverage.py REPORT.json LEAST_LINES LEAST_DECISIONS [FILE...]

Prints the files with most ways not gone, of each FILE the lines with them; ends with 1 where either share, in per cent, is
below its least.
"""
import json
import re
import sys

LEAVES = re.compile(r"\)\s*(return|continue|break|throw)\b|\b(wrong|damage)\(")


def ways(line, source, count_of_next):
    """Whether a deciding line went each of its ways."""
    if line["gcovr/decision"]["type"] == "switch":
        return [line["gcovr/decision"]["count"] > 0]
    counts = [branch["count"] for branch in line["branches"]]
    code = source.split("//")[0].rstrip()
    if len(counts) == 2:
        return [count > 0 for count in counts]
    if not code.endswith(";") or LEAVES.search(code):
        return [count_of_next > 0, line["count"] > count_of_next]
    pairs = [pair for pair in zip(counts[::2], counts[1::2]) if any(pair)]
    return [count > 0 for count in pairs[-1]] if pairs else [False, False]


def main():
    report, least_lines, least_decisions = sys.argv[1], float(sys.argv[2]), float(sys.argv[3])
    lines = [0, 0]
    decisions = [0, 0]
    open_in = []
    with open(report, encoding="utf-8") as text:
        files = json.load(text)["files"]
    for file in files:
        with open(file["file"], encoding="utf-8") as text:
            sources = text.read().split("\n")
        counted = [line for line in file["lines"] if not line.get("gcovr/noncode")]
        missing = 0
        for i, line in enumerate(counted):
            lines[0] += line["count"] > 0
            lines[1] += 1
            if line.get("gcovr/decision", {"type": "none"})["type"] == "none":
                continue
            last = line["line_number"]  # the condition may go on over more lines
            while not re.search(r"[;{]$|\)$", sources[last - 1].split("//")[0].rstrip()) and last < len(sources):
                last += 1
            body = next((other for other in counted[i + 1 :] if other["line_number"] > last), None)
            taken = ways(line, sources[line["line_number"] - 1], body["count"] if body else 0)
            decisions[0] += sum(taken)
            decisions[1] += len(taken)
            missing += len(taken) - sum(taken)
            if file["file"] in sys.argv[4:] and not all(taken):
                print(f"{file['file']}:{line['line_number']}: {sources[line['line_number'] - 1].strip()}")
        open_in.append((missing, file["file"]))
    for missing, name in sorted(open_in, reverse=True)[:15]:
        print(f"{missing:6d} ways not gone in {name}")
    share_lines = 100 * lines[0] / lines[1]
    share_decisions = 100 * decisions[0] / decisions[1]
    print(f"lines {share_lines:.1f} % of {lines[1]}, decisions {share_decisions:.1f} % of {decisions[1]}")
    sys.exit(share_lines < least_lines or share_decisions < least_decisions)


if __name__ == "__main__":
    main()

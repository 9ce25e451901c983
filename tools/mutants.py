#!/usr/bin/env python3
# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
"""What the core's tests are worth: small random changes of the core, each built and tested by itself.

    mutants.py [--seed N] [--count N] [--only I,J...] [--folders heat,judge,steel,measure]

A change turns a sign, an `and` into an `or`, a comparison's border, an order, a yes or no, or moves a constant by a
tenth. The tree is copied to build/mutants and built there without optimization, its core as a shared library, so that
only one file is compiled for each. The tests of the changed folder run first; the first that fails ends the run of a
change, and so does one that takes two minutes. Prints each change with what found it, at the end those that nothing
found. Changes that do not compile, or that make the same program, are drawn again.
"""
import argparse
import os
import random
import re
import subprocess
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
TREE = ROOT / "build" / "mutants" / "tree"
OUT = ROOT / "build" / "mutants" / "out"

NUMBER = re.compile(r"(?<![\w.])(\d+\.\d+|\d+)(?![\w.]|\s*>)")
KINDS = {
    "sign": [(re.compile(r" \+ "), " - "), (re.compile(r" - "), " + "), (re.compile(r" \+= "), " -= "),
             (re.compile(r" -= "), " += ")],
    "and": [(re.compile(r" && "), " || "), (re.compile(r" \|\| "), " && ")],
    "border": [(re.compile(r" < "), " <= "), (re.compile(r" <= "), " < "), (re.compile(r" > "), " >= "),
               (re.compile(r" >= "), " > ")],
    "order": [(re.compile(r"\bstd::min\("), "std::max("), (re.compile(r"\bstd::max\("), "std::min("),
              (re.compile(r"\batLeast\("), "atMost("), (re.compile(r"\batMost\("), "atLeast(")],
    "yes": [(re.compile(r"\btrue\b"), "false"), (re.compile(r"\bfalse\b"), "true"), (re.compile(r" == "), " != "),
            (re.compile(r" != "), " == ")],
    "constant": [(NUMBER, None)],
}


def code_of(line):
    """The line with comments and texts blanked, so that places stay."""
    line = re.sub(r'"(\\.|[^"\\])*"', lambda m: '"' + " " * (len(m.group()) - 2) + '"', line)
    return re.sub(r"//.*", lambda m: " " * len(m.group()), line)


def sites(folders):
    found = {kind: [] for kind in KINDS}
    for folder in folders:
        for path in sorted((ROOT / "src" / "core" / folder).rglob("*.cpp")):
            for number, line in enumerate(path.read_text().splitlines()):
                code = code_of(line)
                if code.lstrip().startswith(("#", "template", "using", "struct", "class")):
                    continue
                for kind, rules in KINDS.items():
                    if kind == "constant" and "constexpr double" not in code and "constexpr int" not in code:
                        continue
                    for pattern, instead in rules:
                        for match in pattern.finditer(code):
                            found[kind].append((path.relative_to(ROOT), number, match.start(), match.end(), instead))
    return found


def changed(line, start, end, instead):
    if instead is None:
        value = line[start:end]
        moved = float(value) * 1.1 if "." in value else int(value) + max(1, int(value) // 10)
        instead = f"{moved:.12g}"
    return line[:start] + instead + line[end:]


def run(command, **more):
    return subprocess.run(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, **more)


def prepare():
    TREE.mkdir(parents=True, exist_ok=True)
    files = run(["git", "ls-files", "-co", "--exclude-standard"], cwd=ROOT).stdout.splitlines()
    for name in files:
        source, target = ROOT / name, TREE / name
        if not source.is_file():
            continue
        content = source.read_bytes()
        if name == "src/CMakeLists.txt":
            content = content.replace(b"add_library(rollcall_${name} STATIC", b"add_library(rollcall_${name} SHARED")
        if not target.exists() or target.read_bytes() != content:
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_bytes(content)
    configured = run(["cmake", "-S", TREE, "-B", OUT, "-G", "Ninja", "-DCMAKE_BUILD_TYPE=Debug",
                      "-DCMAKE_CXX_FLAGS=-O1 -w", "-DCMAKE_CXX_FLAGS_DEBUG=",
                      "-DCMAKE_UNITY_BUILD=OFF"])
    if configured.returncode:
        sys.exit(configured.stdout)
    built = run(["cmake", "--build", OUT, "--target", "tests_of_core"])
    if built.returncode:
        sys.exit(built.stdout[-3000:])


def programs(folder):
    own = {p.stem for p in (TREE / "tests" / "core" / folder).rglob("tst_*.cpp")}
    others = {p.stem for p in (TREE / "tests" / "core").rglob("tst_*.cpp")} - own
    slow = {"tst_numbers", "tst_fracture"}
    ordered = sorted(own - slow) + sorted(others - slow) + sorted(slow)
    return [OUT / "tests" / name for name in ordered]


def found_by(folder):
    environment = dict(os.environ, QT_QPA_PLATFORM="offscreen", ROLLCALL_DATA=str(TREE / "data"),
                       QTEST_FUNCTION_TIMEOUT="120000")
    for program in programs(folder):
        try:
            if run([program], env=environment, timeout=120).returncode:
                return program.name
        except subprocess.TimeoutExpired:
            return program.name + " (without end)"
    return None


def main():
    options = argparse.ArgumentParser()
    options.add_argument("--seed", type=int, default=38)
    options.add_argument("--count", type=int, default=200)
    options.add_argument("--only", default="")
    options.add_argument("--folders", default="heat,judge,steel,measure")
    chosen = options.parse_args()
    only = {int(i) for i in chosen.only.split(",") if i}
    prepare()
    if found_by("heat"):
        sys.exit("the tests fail without any change")
    draw = random.Random(chosen.seed)
    places = sites(chosen.folders.split(","))
    kept, drawn, survivors, seen, began = 0, 0, [], set(), time.time()
    while kept < (len(only) or chosen.count):
        site = draw.choice(places[draw.choice(sorted(KINDS))])
        if site in seen:
            continue
        seen.add(site)
        drawn += 1
        if only and drawn not in only:
            continue
        path, number, start, end, instead = site
        target = TREE / path
        lines = (ROOT / path).read_text().splitlines(keepends=True)
        before = lines[number].strip()
        lines[number] = changed(lines[number], start, end, instead)
        target.write_text("".join(lines))
        built = run(["cmake", "--build", OUT, "--target", "rollcall_core"])
        if built.returncode == 0:
            kept += 1
            found = found_by(path.parts[2])
            place = f"{path}:{number + 1}"
            print(f"{drawn:3} {'found by ' + found if found else 'NOT FOUND':32} {place}: {before}  ->  "
                  f"{lines[number].strip()}", flush=True)
            if not found:
                survivors.append(f"{drawn}: {place}\n    {before}\n    {lines[number].strip()}")
        target.write_text((ROOT / path).read_text())
    print(f"\n{kept - len(survivors)} of {kept} found in {(time.time() - began) / 60:.0f} min; not found:")
    print("\n".join(survivors))


if __name__ == "__main__":
    main()

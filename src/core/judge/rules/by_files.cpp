// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/expectation.h"
#include "core/judge/rules/readings.h"

#include <algorithm>
#include <limits>

namespace rollcall {

namespace {

constexpr double unbounded = std::numeric_limits<double>::infinity();

// The file that would settle it: one that, skating, puts the blade above the lower limit, or biting, below the upper
// one.
std::optional<double> settlingFile(const std::vector<double>& files, const Window& window, double lower, double upper) {
    if (window.low && !atLeast(lower - filesThemselves, *window.low)) {
        for (const double file : files) {
            if (atLeast(file - filesThemselves, *window.low) && file > lower && file < upper) return file;
        }
    }
    if (window.high && !atMost(upper + filesThemselves, *window.high)) {
        for (auto file = files.rbegin(); file != files.rend(); ++file) {
            if (atMost(*file + filesThemselves, *window.high) && *file > lower && *file < upper) return *file;
        }
    }
    return std::nullopt;
}

// What this set of files can confirm at all: how narrow a window, how high a minimum.
void sayReach(const ReadBlade& b, const std::vector<double>& files, Findings& f) {
    const FilesReach reach = filesReach(files);
    if (!filesConfirm(files, b.window.low, b.window.high))
        f.say(Fact::filesCannot, Tone::caution, "E37", {reach.narrowest, reach.highest});
}

// What the rod did parts the bracket, a colour stands for a temperature that was not noted: the next temper follows.
void sayRodAndColour(const ReadBlade& b, Findings& f) {
    if (b.c.gate != Gate::temper) return;
    if (const auto read = readByFiles(b.batch, b.blade(), b.logged)) {
        const bool failed = read->rod && *read->rod != EdgeOutcome::held;
        const FileBracket bracket = fileBracket(fileTestAt(b.blade(), b.c.gate)->trials);
        if (failed && read->low > *bracket.lower - filesThemselves)
            f.say(Fact::filesHarder, Tone::caution, "E37", {read->low, read->high});
        else if (failed && read->high < *bracket.upper + filesThemselves)
            f.say(Fact::filesSofter, Tone::caution, "E37", {read->low, read->high});
    }
    if (b.grade == nullptr) return;
    for (const TemperColour& one : temperColours(b.batch, b.blade(), b.logged, *b.grade, b.tables)) {
        if (!one.seen.empty()) f.say(Fact::temperByColour, Tone::note, "E37", {one.low_c, one.high_c}, {one.seen});
    }
}

void filesAlone(const ReadBlade& b, Findings& f) {
    if (!b.byFiles) return;
    const std::vector<double> files = filesAtHand(b.batch.testers);
    sayReach(b, files, f);
    const FileTest* test = fileTestAt(b.blade(), b.c.gate);
    if (test == nullptr) return f.say(Fact::filesNotTried, Tone::open, "E37");
    if (test->surface != Surface::bare)
        return f.say(Fact::filesNotTried, Tone::open, "E37"); // said why by the files' own rule
    const FileBracket bracket = fileBracket(test->trials);
    if (bracket.conflict != FileConflict::none) return; // likewise, and the gate's table asks for another try
    const double lower = bracket.lower.value_or(-unbounded);
    const double upper = bracket.upper.value_or(unbounded);
    const std::vector<double> told{lower - filesThemselves, upper + filesThemselves};
    const Window& window = b.window;
    sayRodAndColour(b, f);
    if (window.low && upper + filesThemselves < *window.low) {
        f.say(Fact::filesSoft, Tone::bad, "E37", told);
        if (!b.finished) sayWhatIsLeft(b, f);
        return;
    }
    if (window.high && lower - filesThemselves > *window.high)
        return f.say(Fact::filesHard, Tone::caution, "E37", told);
    const bool above = !window.low || atLeast(lower - filesThemselves, *window.low);
    const bool below = !window.high || atMost(upper + filesThemselves, *window.high);
    if (above && below) return f.say(Fact::filesPass, Tone::good, "E37", told);
    if (const auto file = settlingFile(files, window, lower, upper))
        return f.say(Fact::filesAcross, Tone::caution, "E37", {told[0], told[1], *file});
    f.say(Fact::filesStay, Tone::caution, "E37", told);
    // What skates a file near full hardness was hardened, though no file at hand can confirm the minimum.
    constexpr double nearFull = 5; // HRC
    if (b.c.gate == Gate::quench && b.grade != nullptr &&
        lower - filesThemselves >= b.grade->as_quenched_min - nearFull)
        f.say(Fact::filesHardened, Tone::note, "E37", {lower, b.grade->as_quenched_min});
}

} // namespace

Rule<ReadBlade> filesAloneRule() {
    return {{"by files",
             "that the gate is asked by files; no tester's reading",
             {Fact::filesNotTried, Fact::filesPass, Fact::filesSoft, Fact::filesHard, Fact::filesAcross,
              Fact::filesStay, Fact::filesHardened, Fact::filesCannot, Fact::filesHarder, Fact::filesSofter,
              Fact::temperByColour, Fact::softOnClean, Fact::rehardenLeft, Fact::useFits, Fact::noWayLeft}},
            filesAlone};
}

std::vector<DecisionRow> filesAloneRows() {
    // Beside a tester's readings files are other evidence, and are settled with the readings.
    const std::vector<Condition> readAlready{{Fact::readingsTaken}};
    return {
        {{Fact::filesNotTried}, State::notYet, Act::tryFiles},
        {{Fact::filesContradict, Fact::filesRepeated}, State::borderline, Act::makerDecides, readAlready},
        {{Fact::filesContradict}, State::borderline, Act::tryFiles, readAlready},
        {{Fact::filesSoft, Fact::softOnClean, Fact::rehardenLeft}, State::fail, Act::reharden},
        {{Fact::filesSoft, Fact::softOnClean}, State::fail, Act::scrap},
        {{Fact::filesSoft}, State::fail, Act::tryFiles},
        {{Fact::filesHard}, State::borderline, Act::temperAgain},
        {{Fact::filesAcross}, State::borderline, Act::tryFiles},
        {{Fact::filesStay, Fact::filesHarder}, State::borderline, Act::temperAgain},
        {{Fact::filesStay, Fact::filesHardened}, State::borderline, Act::logTemper},
        {{Fact::filesStay}, State::borderline, Act::makerDecides},
        {{Fact::filesPass}, State::pass, Act::done},
    };
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/log_work.h"

#include "core/judge/doubts.h"
#include "core/judge/judged.h"
#include "core/measure/rockwell.h"
#include "core/measure/statistics.h"
#include "core/steel/grade_sheet.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/proof.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "logbook/transfer/import.h"

#include <algorithm>
#include <fmt/format.h>
#include <QFile>
#include <QJsonArray>

// Batches and blades: made, read, struck out, excused, signed for.
namespace rollcall::cli {

namespace {

// "61:63", "61 to 63", [61, 63], 64.5 for a minimum.
Window windowIn(const LogLine& line, const char* field) {
    Window window;
    if (!line.has(field)) return window;
    const QJsonValue value = line.value(field);
    std::vector<double> ends;
    if (value.isString()) {
        QString text = value.toString();
        text.replace(QStringLiteral("to"), QStringLiteral(" ")).replace(QLatin1Char(':'), QLatin1Char(' '));
        const auto numbers = parseNumbers(text.toStdString());
        if (!numbers) throw BadField{field, numbers.error().text};
        ends = *numbers;
    } else {
        ends = line.numbers(field, 0, 100);
    }
    if (ends.empty() || ends.size() > 2) throw BadField{field, "a window is written like 61:63"};
    for (const double end : ends) {
        if (!(end >= 20 && end <= 70)) throw BadField{field, "a window lies within 20 to 70 HRC"};
    }
    window.low = ends[0];
    if (ends.size() == 2) window.high = ends[1];
    return window;
}

std::string windowText(const Window& window) {
    return window.low ? fmt::format("{:g}{}", *window.low, window.high ? fmt::format(":{:g}", *window.high) : "")
                      : std::string();
}

// A blade's own claim, where the line names any of it.
std::optional<BladeClaim> claimIn(const LogLine& line) {
    BladeClaim own;
    own.claimed = line.text("sold_as", "");
    own.grade = line.has("taken_for") ? line.text("taken_for") : own.claimed;
    if (const Grade* known = line.context().tables.grade(own.grade)) own.grade = known->name;
    own.purpose = line.text("purpose", "");
    if (line.has("window")) own.window = windowIn(line, "window");
    own.quench_minimum = line.optionalPlain("minimum", 20, 70);
    if (line.has("tempers")) own.minimum_tempers = line.whole("tempers", 0, 5);
    if (line.yes("finished", false)) own.minimum_tempers = 0;
    return own == BladeClaim{} ? std::nullopt : std::optional(own);
}

BladeDraft bladeIn(const LogLine& one) {
    BladeDraft draft;
    draft.mark = one.text("mark");
    const auto mm = [&](const char* field, double most) {
        return one.optional(field, Quantity::length, 0.05, most).value_or(0);
    };
    const double length = mm("length", 2000);
    const double height = mm("height", 500);
    const double thickness = mm("thickness", 50);
    if (const auto perhaps = perhapsInches(thickness))
        one.doubt(fmt::format("{} is {:g} mm thick", draft.mark, thickness),
                  fmt::format("{:g} in = {:.2f} mm", thickness, *perhaps));
    if (length > 0 && height > 0) {
        draft.shape = BladeShape::knife(length, height, thickness);
        // The reading line lies a tenth of the height from the edge, as the window proposes it.
        draft.shape.reading_line_mm = height / 10;
    }
    draft.shape.thickness_mm = thickness;
    draft.own = claimIn(one);
    return draft;
}

ReadingDraft readingIn(const LogLine& line, const Blade& blade, const Tester& tester) {
    ReadingDraft draft;
    draft.blade = blade.id;
    draft.gate = line.gate("gate");
    if (draft.gate != Gate::quench && draft.gate != Gate::temper)
        throw BadField{"gate", "readings are taken at quench or temper"};
    draft.round = blade.round;
    draft.after_temper = draft.gate == Gate::quench ? 0 : lastTemper(blade);
    if (line.has("after_temper")) draft.after_temper = line.whole("after_temper", 0, lastTemper(blade));
    draft.scale = line.text("scale", "HRC");
    draft.resolution = tester.resolution;
    draft.tester = tester.id;
    draft.note = line.text("note", "");
    if (line.has("zone")) draft.zone = line.word<Zone>("zone");
    draft.convex_radius_mm = line.optional("convex_radius", Quantity::length, 3, 1000);
    if (line.has("x") != line.has("y")) throw BadField{line.has("x") ? "y" : "x", "a place needs both"};
    if (line.has("x"))
        draft.spot =
            Spot{line.number("x", Quantity::length, -500, 2000), line.number("y", Quantity::length, -500, 500)};
    return draft;
}

void setValue(ReadingDraft& draft, double value, const Tables& tables) {
    const auto scale = tables.scale(draft.scale);
    if (!scale) throw BadField{"scale", scale.error().text};
    if (!inRange(*scale, value)) throw BadField{"value", fmt::format("{:g} is outside {}", value, draft.scale)};
    draft.value = value;
    draft.as_entered = fmt::format("{:g}", value);
}

} // namespace

Result<Done> changeOneClaim(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    BladeClaim own = blade.own.value_or(BladeClaim{});
    const BladeClaim said = claimIn(line).value_or(BladeClaim{});
    const auto names = [&](const char* field) { return !line.value(field).isUndefined(); }; // null: as the batch
    if (names("sold_as")) own.claimed = said.claimed;
    if (names("sold_as") || names("taken_for")) own.grade = said.grade;
    if (names("purpose")) own.purpose = said.purpose;
    if (names("window")) own.window = said.window;
    if (names("minimum")) own.quench_minimum = said.quench_minimum;
    if (names("tempers") || names("finished")) own.minimum_tempers = said.minimum_tempers;
    return changeClaim(line.logbook(), blade.id, own);
}

Result<Done> addOneBlade(const LogLine& line) {
    return only(addBlade(line.logbook(), line.batch().id, bladeIn(line)));
}

Result<Done> makeBatch(const LogLine& line) {
    BatchDraft draft;
    draft.name = line.text("name");
    draft.grade = line.text("sold_as", "");
    if (const Grade* known = line.context().tables.grade(draft.grade)) draft.grade = known->name;
    draft.lot = line.text("lot", "");
    draft.purpose = line.text("purpose", "");
    draft.window = windowIn(line, "window");
    draft.window_text = windowText(draft.window);
    draft.quench_minimum = line.optionalPlain("minimum", 20, 70);
    if (line.has("tempers")) draft.minimum_tempers = line.whole("tempers", 0, 5);
    if (line.yes("finished", false)) draft.minimum_tempers = 0; // no temper of ours can be logged
    if (line.has("rule")) draft.rule = line.word<DecisionRule>("rule");
    draft.allowance = line.optionalPlain("allowance", 0, 5);
    const int planned = line.has("planned") ? line.whole("planned", 1, 50) : 3;
    if (line.has("gates")) {
        for (const QJsonValue one : line.value("gates").toArray()) {
            const auto gate = gateNamed(one.toString().toStdString());
            if (!gate) throw BadField{"gates", "known are steel, heat, quench, temper, edge, proof, release"};
            const bool read = *gate == Gate::quench || *gate == Gate::temper;
            draft.plan[indexOf(*gate)] = {true, read ? planned : 1};
        }
    } else {
        if (!line.yes("finished", false)) draft.plan[indexOf(Gate::quench)] = {true, planned};
        draft.plan[indexOf(Gate::temper)] = {true, planned};
    }
    if (line.has("evidence")) {
        const QJsonObject by = line.value("evidence").toObject();
        for (auto one = by.begin(); one != by.end(); ++one) {
            const auto gate = gateNamed(one.key().toStdString());
            if (!gate || (*gate != Gate::quench && *gate != Gate::temper) ||
                one.value().toString() != QLatin1String("files"))
                throw BadField{"evidence", "quench or temper by \"files\""};
            draft.plan[indexOf(*gate)].by_files = true;
        }
    }
    if (line.has("blades")) {
        for (const QJsonValue one : line.value("blades").toArray()) {
            if (!one.isObject()) throw BadField{"blades", "each is an object with its mark"};
            draft.blades.push_back(bladeIn(LogLine(one.toObject(), line.context())));
        }
    } else {
        const int count = line.whole("count", 1, 200);
        const QString pattern = QString::fromStdString(line.text("marks", "#"));
        for (int i = 1; i <= count; ++i) {
            QString mark = pattern.contains(QLatin1Char('#')) ? pattern : pattern + QLatin1Char('#');
            draft.blades.push_back(
                bladeIn(LogLine({{"mark", mark.replace(QLatin1Char('#'), QString::number(i))}}, line.context())));
        }
    }
    return only(addBatch(line.logbook(), draft));
}

Result<Done> verifyOnBlock(const LogLine& line) {
    const Tester tester = line.tester();
    const std::string name = line.text("block");
    const auto shop = line.logbook().shop();
    if (!shop) return shop.error();
    const auto block =
        std::find_if(shop->blocks.begin(), shop->blocks.end(), [&](const Block& one) { return one.name == name; });
    if (block == shop->blocks.end()) throw BadField{"block", fmt::format("there is no block {}", name)};
    const std::vector<double> readings = line.numbers("readings", 0, 130);
    if (readings.empty()) throw BadField{"readings", "at least one is needed"};
    const auto run = startVerification(line.logbook(), tester.id, block->id);
    if (!run) return run.error();
    for (const double value : readings) {
        if (auto logged = logBlockReading(line.logbook(), *run, value, fmt::format("{:g}", value)); !logged)
            return logged.error();
    }
    return Done{};
}

Result<Done> logOneReading(const LogLine& line) {
    const Batch batch = line.batch();
    ReadingDraft draft = readingIn(line, line.blade(batch), line.tester());
    setValue(draft, line.plain("value", 0, 2000), line.context().tables);
    std::vector<double> others;
    for (const Reading& r : line.blade(batch).readings) {
        if (!r.struck && r.gate == draft.gate && r.round == draft.round && r.scale == draft.scale &&
            r.zone == draft.zone)
            others.push_back(r.value);
    }
    constexpr double far = 8; // points: more than metal and tester make
    if (!others.empty() && std::abs(draft.value - medianOf(others)) > far)
        line.doubt(fmt::format("{:g} is far from its other readings", draft.value),
                   fmt::format("about {:g}", medianOf(others)));
    return only(logReading(line.logbook(), draft));
}

Result<Done> logStrikes(const LogLine& line) {
    const Batch batch = line.batch();
    SeriesDraft series;
    series.instrument_mean = line.optionalPlain("instrument_mean", 0, 100);
    series.support = line.text("support", "");
    for (const double value : line.numbers("values", 0, 100)) {
        ReadingDraft strike = readingIn(line, line.blade(batch), line.tester());
        setValue(strike, value, line.context().tables);
        series.strikes.push_back(strike);
    }
    return logSeries(line.logbook(), series);
}

Result<Done> strikeOut(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    const Gate gate = line.gate("gate");
    std::vector<const Reading*> standing;
    for (const Reading& r : blade.readings) {
        if (!r.struck && r.gate == gate && r.round == blade.round) standing.push_back(&r);
    }
    const Reading* chosen = nullptr;
    if (line.has("nth")) {
        const int nth = line.whole("nth", 1, 1000);
        if (nth > static_cast<int>(standing.size()))
            throw BadField{"nth", fmt::format("{} readings stand there", standing.size())};
        chosen = standing[static_cast<std::size_t>(nth) - 1];
    } else {
        const double value = line.plain("value", 0, 2000);
        for (const Reading* r : standing) {
            if (std::abs(r->value - value) < 1e-6) chosen = r;
        }
        if (chosen == nullptr) throw BadField{"value", fmt::format("no reading of {:g} stands there", value)};
    }
    const std::string reason = line.text("reason");
    const auto known = named<StrikeReason>(reason);
    return strikeReading(line.logbook(), chosen->id, known.value_or(StrikeReason::other), known ? "" : reason);
}

Result<Done> replaceSet(const LogLine& line) {
    const Batch batch = line.batch();
    const Gate gate = line.gate("gate");
    std::string keep;
    for (const Tester& tester : batch.testers) {
        if (tester.name == line.text("keep")) keep = tester.id;
    }
    if (keep.empty()) throw BadField{"keep", "there is no such tester"};
    std::vector<std::string> others;
    for (const Blade* blade : line.blades(batch)) {
        for (const Reading& r : blade->readings) {
            if (!r.struck && r.gate == gate && r.round == blade->round && r.tester != keep) others.push_back(r.id);
        }
    }
    if (others.empty()) throw BadField{"keep", "no other set stands there"};
    return supersedeReadings(line.logbook(), others, line.text("reason"));
}

Result<Done> tryFiles(const LogLine& line) {
    const Batch batch = line.batch();
    const Blade& blade = line.blade(batch);
    FileTest test;
    test.gate = line.gate("gate");
    test.round = blade.round;
    test.after_temper = lastTemper(blade);
    test.surface = line.word<Surface>("surface", Surface::bare);
    for (const auto& [field, touch] : {std::pair("skates", FileTouch::skates), std::pair("bites", FileTouch::bites),
                                       std::pair("touches", FileTouch::touches)}) {
        if (!line.has(field)) continue;
        for (const double file : line.numbers(field, 20, 70)) test.trials.push_back({file, touch});
    }
    std::string set;
    if (line.has("tester")) {
        set = line.tester().id;
    } else {
        for (const Tester& tester : batch.testers) {
            if (tester.kind == TesterKind::files) set = tester.id;
        }
        if (set.empty()) throw BadField{"tester", "there is no set of files in this shop"};
    }
    return only(logFileTest(line.logbook(), blade.id, set, test));
}

Result<Done> newStudy(const LogLine& line) {
    Study study;
    study.name = line.text("name");
    study.factor = line.text("factor", "");
    for (const QJsonValue one : line.value("pieces").toArray()) {
        const QJsonArray pair = one.toArray();
        const QJsonObject named{{"batch", pair.at(0)}, {"blade", pair.at(1)}};
        const LogLine piece(named, line.context());
        study.blades.push_back(piece.blade(piece.batch()).id);
    }
    return only(addStudy(line.logbook(), study));
}

Result<Done> signFor(const LogLine& line) {
    const Batch batch = line.batch();
    const Judged judged(batch, line.context().tables, line.logbook().now());
    std::vector<Decision> decisions;
    for (const Blade* blade : line.blades(batch)) {
        const auto index = static_cast<std::size_t>(blade - batch.blades.data());
        Signature signature;
        signature.disposition = line.word<Disposition>("decision");
        signature.round = blade->round;
        signature.basis = releaseBasis(judged.verdicts().blades[index]);
        signature.reason = line.text("reason", "");
        if (signature.reason.empty() && judged.release(index).needsReason(signature.disposition))
            throw BadField{"reason",
                           fmt::format("{} is not passed at every gate, or readings of it were struck out: say "
                                       "why it may go",
                                       blade->mark)};
        decisions.push_back({blade->id, signature});
    }
    return sign(line.logbook(), decisions);
}

Result<Done> eachBlade(const LogLine& line, const std::function<Result<Done>(const Blade&)>& act) {
    const Batch batch = line.batch();
    for (const Blade* blade : line.blades(batch)) {
        if (auto done = act(*blade); !done) return done;
    }
    return Done{};
}

Result<Done> newLimits(const LogLine& line) {
    if (line.has("blade")) return changeOneClaim(line);
    const Batch batch = line.batch();
    const Window window = line.has("window") ? windowIn(line, "window") : batch.window;
    const auto minimum = line.has("minimum") ? line.optionalPlain("minimum", 20, 70) : batch.quench_minimum;
    return changeLimits(line.logbook(), batch.id, window, windowText(window), minimum);
}

Result<Done> newZoneWindow(const LogLine& line) {
    const Window window = line.has("window") ? windowIn(line, "window") : Window{};
    return changeZoneWindow(line.logbook(), line.batch().id, line.word<Zone>("zone"), window);
}

} // namespace rollcall::cli

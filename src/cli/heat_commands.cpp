// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/base/number.h"
#include "core/heat/colour.h"
#include "core/heat/next_temper.h"
#include "core/heat/soak.h"
#include "core/heat/trace.h"
#include "core/heat/warp.h"

#include <QFile>
#include <QJsonArray>

// The commands about heat that compute from their arguments alone.
namespace rollcall::cli {

namespace {

Result<const Grade*> gradeFrom(const Options& options, const Tables& tables) {
    const Result<std::string> name = options.required("grade");
    if (!name) return name.error();
    const Grade* grade = tables.grade(*name);
    if (grade == nullptr)
        return Error{ErrorKind::argument, "--grade", "there is no grade '" + *name + "' in the library"};
    return grade;
}

struct TypedTemper {
    TemperHeat heat;
    std::optional<double> reading;
};

// "190:2" or, with what was read after it, "190:2=63.4".
Result<TypedTemper> temperFrom(const std::string& text, const char* option) {
    const Error malformed{ErrorKind::argument, std::string("--") + option,
                          "a temper is written TEMPERATURE:HOURS, with =READING after it where it was read"};
    TypedTemper temper;
    const std::vector<std::string> sides = split(text, '=');
    if (sides.empty() || sides.size() > 2) return malformed;
    const std::vector<std::string> parts = split(sides[0], ':');
    if (parts.size() != 2) return malformed;
    const auto temperature = parseQuantity(parts[0], Quantity::temperature);
    const auto hours = parseQuantity(parts[1], Quantity::duration);
    if (!temperature || !hours) return malformed;
    temper.heat = {*temperature, *hours};
    if (sides.size() == 2) {
        const auto reading = parseNumber(sides[1]);
        if (!reading || !(*reading >= 20 && *reading <= 72)) return malformed;
        temper.reading = *reading;
    }
    return temper;
}

QString warningText(TemperWarning warning) {
    switch (warning) {
    case TemperWarning::smallerStep:
        return QStringLiteral("a smaller step: hotter lies over 40 degrees beyond what was read");
    case TemperWarning::overHump:
        return QStringLiteral("over the hump of secondary hardening: it costs toughness or rust resistance");
    case TemperWarning::insideEmbrittlement:
        return QStringLiteral("temperatures that turn this grade brittle are left out, or the answer lies among them");
    case TemperWarning::embrittlementUnknown:
        return QStringLiteral("it is not known at which tempers this grade turns brittle");
    case TemperWarning::lowConfidence:
        return QStringLiteral("the grade's temper curve is of low confidence here");
    case TemperWarning::alreadySoft:
        return QStringLiteral("softer than the window already by expectation: tempering cannot raise it");
    case TemperWarning::curveEnds:
        return QStringLiteral("the grade's curve ends here");
    case TemperWarning::staysHard:
        return QStringLiteral("even the hottest temper of this branch leaves it above the window");
    case TemperWarning::onlyStepsTooSoft:
        return QStringLiteral("every step of the oven from here on risks ending too soft");
    case TemperWarning::readAfter:
        return QStringLiteral("too little is known to aim at once: the coolest useful temper, then read");
    }
    return {};
}

QJsonArray pair(double low, double high) {
    return {low, high};
}

} // namespace

Result<QJsonObject> temper(const Options& options, const Tables& tables) {
    const Result<const Grade*> grade = gradeFrom(options, tables);
    if (!grade) return grade.error();
    TemperCandidate blade{"heat", "blade", {}};
    std::vector<TemperObservation> observations;
    for (const std::string& text : options.all("cycle")) {
        const Result<TypedTemper> temper = temperFrom(text, "cycle");
        if (!temper) return temper.error();
        blade.tempers.push_back(temper->heat);
        const Result<double> parameter = temperParameter((*grade)->hj_c, blade.tempers);
        if (!parameter) return Error{parameter.error().kind, "--cycle", parameter.error().text};
        if (temper->reading) observations.push_back({blade.heat, blade.blade, *parameter, *temper->reading, 0.4});
    }
    const Result<TemperModel> model = TemperModel::learn(**grade, {}, observations);
    if (!model) return model.error();
    if (options.has("next") == options.has("target"))
        return Error{ErrorKind::argument, "", "either --next TEMPERATURE:HOURS or --target LOW:HIGH is needed"};
    if (options.has("next")) {
        const Result<TypedTemper> next = temperFrom(options.text("next"), "next");
        if (!next) return next.error();
        const Result<NextTemper> answer = predictTemper(*model, blade, next->heat, {});
        if (!answer) return Error{answer.error().kind, "--next", answer.error().text};
        QJsonObject object{{"parameter", answer->expect.parameter},
                           {"predicted_hrc", answer->expect.hrc},
                           {"interval", pair(answer->expect.low, answer->expect.high)},
                           {"library_hrc", answer->expect.library_hrc},
                           {"standard_uncertainty", answer->expect.u}};
        explain(options, object,
                {QStringLiteral("P = T (C + log10 t) with C = %1 of %2, earlier tempers as equivalent hours (M19)")
                     .arg((*grade)->hj_c)
                     .arg(q((*grade)->name)),
                 QStringLiteral("the grade's curve gives %1 at P %2; moved by %3 readings to %4 (M20)")
                     .arg(answer->expect.library_hrc, 0, 'f', 2)
                     .arg(answer->expect.parameter, 0, 'f', 1)
                     .arg(observations.size())
                     .arg(answer->expect.hrc, 0, 'f', 2),
                 QStringLiteral("95 % interval of the same blade: 1.96 times %1 either way")
                     .arg(answer->expect.u, 0, 'f', 3)});
        return object;
    }
    TemperAim aim;
    const std::vector<std::string> limits = split(options.text("target"), ':');
    const Error malformed{ErrorKind::argument, "--target", "a window is written LOW:HIGH"};
    if (limits.size() != 2) return malformed;
    const Result<double> low = parseNumber(limits[0]);
    const Result<double> high = parseNumber(limits[1]);
    if (!low || !high || *low > *high) return malformed;
    aim.window = {*low, *high};
    if (options.has("hours")) {
        const Result<double> hours = parseQuantity(options.text("hours"), Quantity::duration);
        if (!hours) return Error{ErrorKind::argument, "--hours", hours.error().text};
        aim.hours = *hours;
    }
    const Result<double> step = options.number("oven-step", 5);
    if (!step) return step.error();
    aim.oven.apart_c = *step;
    const std::string branch = options.text("branch");
    if (branch == "low")
        aim.branch = TemperBranch::low;
    else if (branch == "high")
        aim.branch = TemperBranch::high;
    else if (!branch.empty())
        return Error{ErrorKind::argument, "--branch", "the branch is low or high"};
    aim.despite_embrittlement = options.has("despite-embrittlement");
    const Result<TemperAdvice> advice = adviseTemper(*model, **grade, blade, aim);
    if (!advice) return advice.error();
    QJsonArray warnings;
    for (const TemperWarning warning : advice->warnings) warnings.append(warningText(warning));
    QJsonObject object{{"temperature_c", QJsonValue()},
                       {"predicted_hrc", QJsonValue()},
                       {"interval", QJsonValue()},
                       {"probability_inside", QJsonValue()},
                       {"probability_too_soft", QJsonValue()},
                       {"cautious_temperature_c", QJsonValue()},
                       {"branch", advice->branch == TemperBranch::low ? "low" : "high"},
                       {"warnings", warnings}};
    if (advice->best) {
        object["temperature_c"] = advice->best->temperature_c;
        object["predicted_hrc"] = advice->best->expect.hrc;
        object["interval"] = pair(advice->best->expect.low, advice->best->expect.high);
        object["probability_inside"] = advice->best->chance_inside;
        object["probability_too_soft"] = advice->best->chance_soft;
    }
    if (advice->cautious) object["cautious_temperature_c"] = advice->cautious->temperature_c;
    explain(options, object,
            {QStringLiteral("highest step with a chance of at most one in ten below the window and not below its "
                            "middle by expectation, not below the hottest temper before (M21)")});
    return object;
}

Result<QJsonObject> trace(const Options& options, const Tables&) {
    QFile file(options.word(0));
    if (!file.open(QIODevice::ReadOnly))
        return Error{ErrorKind::input, options.word(0).toStdString(), "this file cannot be read"};
    const QByteArray bytes = file.readAll();
    const Result<TraceFile> read =
        readTrace(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!read)
        return Error{ErrorKind::input,
                     options.word(0).toStdString() + (read.error().place.empty() ? "" : " " + read.error().place),
                     read.error().text};
    const auto temperature = [&](const char* name, double otherwise) -> Result<double> {
        if (!options.has(name)) return otherwise;
        const Result<double> value = parseQuantity(options.text(name), Quantity::temperature);
        if (!value) return Error{ErrorKind::argument, std::string("--") + name, value.error().text};
        return value;
    };
    const Result<std::string> needed = options.required("threshold");
    if (!needed) return needed.error();
    const Result<double> threshold = temperature("threshold", 0);
    if (!threshold) return threshold.error();
    const Result<double> reference = temperature("reference", 800);
    if (!reference) return reference.error();
    const Result<double> ac1 = temperature("ac1", 727);
    if (!ac1) return ac1.error();
    double from = 0;
    double to = read->trace.end();
    struct {
        const char* name;
        double* target;
    } const ends[] = {{"from", &from}, {"to", &to}};
    for (const auto& [name, target] : ends) {
        if (!options.has(name)) continue;
        const Result<double> clock = parseClock(options.text(name));
        if (!clock) return Error{ErrorKind::argument, std::string("--") + name, clock.error().text};
        *target = *clock;
    }
    std::vector<TraceSample> left;
    const Trace sound = read->trace.withoutFaults(left);
    const Result<SoakAnswer> above = soakAbove(sound, *threshold, from, to);
    if (!above) return above.error();
    const Result<double> equivalent = equivalentMinutes(sound, *reference, *ac1, from, to);
    if (!equivalent) return equivalent.error();
    QJsonArray skipped;
    for (const auto& line : read->skipped) skipped.append(QJsonObject{{"line", line.line}, {"reason", q(line.reason)}});
    QJsonArray gaps;
    for (const auto& gap : read->gaps) gaps.append(QJsonObject{{"line", gap.line}, {"minutes", gap.minutes}});
    QJsonArray faults;
    for (const TraceSample& one : left) faults.append(QJsonObject{{"s", one.s}, {"c", one.c}});
    QJsonObject object{{"samples", static_cast<int>(read->trace.samples().size())},
                       {"probe_faults", faults},
                       {"minutes_above", above->minutes_above},
                       {"longest_span_minutes", above->longest_span_minutes},
                       {"peak_c", above->peak_c},
                       {"equivalent_minutes", *equivalent},
                       {"skipped", skipped},
                       {"gaps", gaps}};
    if (options.has("thickness")) {
        const Result<double> thickness = options.length("thickness");
        if (!thickness) return thickness.error();
        const std::string surface = options.text("surface", "scaled");
        const auto covered = named<HeatSurface>(surface);
        if (!covered) return Error{ErrorKind::argument, "--surface", "the surface is scaled, foil or coated"};
        const Result<Trace> steel = steelInOven(sound, *thickness, *covered, from, to, *ac1);
        if (!steel) return steel.error();
        const Result<SoakAnswer> steelAbove = soakAbove(*steel, *threshold, 0, steel->end());
        if (!steelAbove) return steelAbove.error();
        object["steel_minutes_above"] = steelAbove->minutes_above;
        object["steel_peak_c"] = steelAbove->peak_c;
    }
    explain(options, object,
            {QStringLiteral("time above by straight lines between the samples (M22)"),
             QStringLiteral("equivalent minutes: integral of exp(-Q/R (1/T - 1/Tref)) above %1 °C, Q 400 kJ/mol (M22)")
                 .arg(*ac1),
             QStringLiteral("steel: a sheet that starts at 20 °C and takes up heat on both faces, an estimate (M23)")});
    return object;
}

Result<QJsonObject> colour(const Options& options, const Tables& tables) {
    const Result<std::string> name = options.required("temper");
    if (!name) return name.error();
    double hours = 1;
    if (options.has("hours")) {
        const Result<double> typed = parseQuantity(options.text("hours"), Quantity::duration);
        if (!typed) return Error{ErrorKind::argument, "--hours", typed.error().text};
        hours = *typed;
    }
    double chromium = 0;
    bool stainless = false;
    if (options.has("grade")) {
        const Result<const Grade*> grade = gradeFrom(options, tables);
        if (!grade) return grade.error();
        chromium = (*grade)->chromium_percent;
        stainless = (*grade)->isStainless();
    }
    const Result<ColourRange> range = colourRange(tables, *name, hours, OxideSurface::bare, chromium, stainless);
    if (!range) return Error{range.error().kind, "--temper", range.error().text};
    QJsonObject object{{"low_c", range->low_c},
                       {"high_c", range->high_c},
                       {"confidence", range->confidence == Confidence::low ? "low" : "medium"}};
    explain(options, object,
            {QStringLiteral("midpoints to the neighbours at one hour and 15 °C either way; 10 °C lower for each "
                            "doubling of the time, higher with chromium (M25)")});
    return object;
}

Result<QJsonObject> warp(const Options& options, const Tables&) {
    const Result<std::string> text = options.required("blades");
    if (!text) return text.error();
    const Result<std::vector<Warp>> warps = parseWarps(*text);
    if (!warps) return Error{ErrorKind::argument, "--blades", warps.error().message()};
    const Result<std::vector<StackPlace>> plan = stackPlan(*warps);
    if (!plan) return Error{plan.error().kind, "--blades", plan.error().message()};
    QJsonArray order;
    for (const StackPlace& place : *plan)
        order.append(
            QJsonObject{{"blade", q(place.blade)}, {"turn_over", place.turn_over}, {"shim_mm", place.shim_mm}});
    QJsonObject object{{"order", order}};
    explain(
        options, object,
        {QStringLiteral("by size, bow against bow in pairs, the flattest outside; never an untempered blade (M24)")});
    return object;
}

} // namespace rollcall::cli

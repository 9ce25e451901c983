// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/measure/comparison.h"
#include "core/measure/files.h"
#include "core/measure/verification.h"

#include <QJsonArray>

// The commands about what a number is worth: the tester on its block, files, a second tester.
namespace rollcall::cli {

Result<QJsonObject> verify(const Options& options, const Tables& tables) {
    const Result<double> block = options.number("block");
    if (!block) return block.error();
    const Result<double> uncertainty = options.number("block-uncertainty", 0.3);
    if (!uncertainty) return uncertainty.error();
    Result<std::vector<double>> readings = options.numbers("readings");
    if (!readings) return readings.error();
    const Result<double> seating = options.number("seating", 0);
    if (!seating) return seating.error();
    const std::size_t discarded = *seating >= 0 && *seating <= 10 ? static_cast<std::size_t>(*seating) : 11;
    if (discarded > 10 || double(discarded) != *seating || discarded > readings->size())
        return Error{ErrorKind::argument, "--seating",
                     "how many of the first readings only seat the indenter, 0 to 10"};
    readings.value().erase(readings.value().begin(), readings.value().begin() + std::ptrdiff_t(discarded));
    const Result<VerificationAnswer> run = verifyTester(tables, options.text("scale", "HRC"), *block, *readings);
    if (!run) return run.error();
    QJsonObject answer{{"mean", run->mean},
                       {"error", run->error},
                       {"repeatability", run->repeatability},
                       {"max_error", run->max_error},
                       {"max_repeatability", run->max_repeatability},
                       {"ok", run->ok},
                       {"n", static_cast<int>(readings->size())},
                       {"discarded", static_cast<int>(discarded)},
                       {"table_line", run->table_line},
                       {"next", run->ok ? "may be used until the day ends or indenter or anvil change"
                                        : "clean, re-seat, discard two readings, repeat once; then stop the tester"}};
    explain(options, answer,
            {QStringLiteral("E = mean - certified = %1 - %2 = %3 (M6)")
                 .arg(run->mean)
                 .arg(*block)
                 .arg(QString::number(run->error, 'f', 4)),
             QStringLiteral("R = largest - smallest = %1").arg(QString::number(run->repeatability, 'f', 4)),
             QStringLiteral("allowed by line %1 of e18_machine_tolerance.csv").arg(run->table_line)});
    return answer;
}

namespace {

QString fileReason(const FileBracket& bracket) {
    switch (bracket.conflict) {
    case FileConflict::oneFileDidBoth:
        return QStringLiteral("the file of %1 skated and bit; repeat on clean bare metal").arg(bracket.skating);
    case FileConflict::softerBit:
        return QStringLiteral("%1 bit where %2 skated; repeat on clean bare metal")
            .arg(bracket.biting)
            .arg(bracket.skating);
    case FileConflict::touchDoesNotMatch:
        return QStringLiteral("a file that barely catches does not fit the others; repeat on clean bare metal");
    case FileConflict::none:
        break;
    }
    if (!bracket.lower) return QStringLiteral("no file skated: softer than %1").arg(*bracket.upper);
    if (!bracket.upper) return QStringLiteral("no file bit: harder than %1").arg(*bracket.lower);
    return QStringLiteral("between the hardest that skates and the softest that bites; files are known to 1.5");
}

} // namespace

Result<QJsonObject> files(const Options& options, const Tables&) {
    std::vector<FileTrial> trials;
    struct {
        const char* name;
        FileTouch touch;
    } const kinds[] = {{"skates", FileTouch::skates}, {"bites", FileTouch::bites}, {"touches", FileTouch::touches}};
    for (const auto& [name, touch] : kinds) {
        if (!options.has(name)) continue;
        const Result<std::vector<double>> hardnesses = options.numbers(name);
        if (!hardnesses) return hardnesses.error();
        for (const double hardness : *hardnesses) {
            if (!(hardness >= 20 && hardness <= 70))
                return Error{ErrorKind::range, std::string("--") + name, "a file's hardness is 20 to 70 HRC"};
            trials.push_back({hardness, touch});
        }
    }
    if (trials.empty()) return Error{ErrorKind::argument, "", "--skates, --bites or --touches is needed"};
    const FileBracket bracket = fileBracket(trials);
    const auto side = [](const std::optional<double>& value) { return value ? QJsonValue(*value) : QJsonValue(); };
    QJsonObject answer{{"lower", side(bracket.lower)},
                       {"upper", side(bracket.upper)},
                       {"contradiction", bracket.conflict != FileConflict::none},
                       {"reason", fileReason(bracket)}};
    explain(options, answer,
            {QStringLiteral("hardest that skates to softest that bites, within 1.5 of any that barely catches (M12)")});
    return answer;
}

Result<QJsonObject> compare(const Options& options, const Tables&) {
    const Result<std::vector<double>> a = options.numbers("a");
    if (!a) return a.error();
    const Result<std::vector<double>> b = options.numbers("b");
    if (!b) return b.error();
    const Result<Comparison> compared = compareTesters(*a, *b);
    if (!compared) return compared.error();
    const Comparison& c = *compared;
    QJsonObject answer{{"n", c.n},
                       {"bias", c.bias},
                       {"sd", c.sd},
                       {"interval", QJsonArray{c.low, c.high}},
                       {"limits_of_agreement", QJsonArray{c.agreement_low, c.agreement_high}},
                       {"rough", c.rough},
                       {"differ", c.differ()}};
    explain(options, answer,
            {QStringLiteral("bias = mean of a - b, interval by t with %1 degrees of freedom (M14)").arg(c.n - 1)});
    return answer;
}

} // namespace rollcall::cli

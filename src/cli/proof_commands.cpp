// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/judge/sampling.h"
#include "core/proof/bend.h"
#include "core/proof/edge.h"
#include "core/proof/grain.h"

#include <QJsonArray>

// The commands about edges, bends, grain and samples that compute from their arguments alone.
namespace rollcall::cli {

namespace {

// A length with its unit, or what is taken when the option is not given.
Result<double> lengthOr(const Options& options, const char* name, double otherwise) {
    return options.has(name) ? options.length(name) : Result<double>(otherwise);
}

} // namespace

Result<QJsonObject> edge(const Options& options, const Tables& tables) {
    EdgeLoad load;
    const Result<std::string> force = options.required("force");
    if (!force) return force.error();
    const Result<double> newtons = parseQuantity(*force, Quantity::force);
    if (!newtons) return Error{ErrorKind::argument, "--force", newtons.error().text};
    load.force_n = *newtons;
    struct {
        const char* name;
        double* target;
        Result<double> value;
    } const fields[] = {{"hrc", &load.hrc, options.number("hrc")},
                        {"angle-per-side", &load.angle_per_side_deg, options.number("angle-per-side")},
                        {"behind-edge", &load.behind_edge_mm, options.length("behind-edge")},
                        {"raise", &load.raise_deg, options.number("raise")},
                        {"contact", &load.contact_mm, lengthOr(options, "contact", 3)}};
    for (const auto& [name, target, value] : fields) {
        if (!value) return value.error();
        *target = *value;
    }
    const Result<EdgeYield> yield = edgeYield(tables, load);
    if (!yield) return yield.error();
    QJsonObject answer{{"line_load_n_per_mm", yield->line_load_n_per_mm},
                       {"yield_thickness_mm", yield->yield_thickness_mm},
                       {"yield_depth_mm", orNull(yield->yield_depth_mm)},
                       {"note", yield->yield_depth_mm
                                    ? "an estimate to a factor of three; the contact length is a guess"
                                    : "the load exceeds the edge bevel; an estimate to a factor of three"}};
    explain(options, answer,
            {QStringLiteral("q = F cos(raise) / contact; t = 3 q / (sigma tan(angle)) with sigma = 9.807 HV / 3; depth "
                            "= t / (2 tan(angle)) (M27)")});
    return answer;
}

Result<QJsonObject> bend(const Options& options, const Tables&) {
    const Result<double> thickness = options.length("thickness");
    if (!thickness) return thickness.error();
    const Result<double> length = options.length("free-length");
    if (!length) return length.error();
    const Result<double> angle = options.number("angle");
    if (!angle) return angle.error();
    std::optional<double> lever;
    if (options.has("lever")) {
        const Result<double> typed = options.length("lever");
        if (!typed) return typed.error();
        lever = *typed;
    }
    const Result<BendStrain> strain = bendStrain(*thickness, *length, *angle, lever);
    if (!strain) return strain.error();
    QJsonObject answer{{"strain_percent", strain->mean}, {"peak_strain_percent", orNull(strain->at_least)}};
    explain(options, answer,
            {QStringLiteral("mean = angle t / (2 L); the peak is at least 2 (a + L) / (2 a + L) times that (M29)")});
    return answer;
}

Result<QJsonObject> grain(const Options& options, const Tables&) {
    const std::vector<std::string> lengths = options.all("line");
    const std::vector<std::string> counts = options.all("crossings");
    if (lengths.empty() || lengths.size() != counts.size())
        return Error{ErrorKind::argument, "", "--line and --crossings are needed in pairs"};
    std::vector<InterceptLine> lines;
    for (std::size_t i = 0; i < lengths.size(); ++i) {
        const Result<double> length = parseQuantity(lengths[i], Quantity::length);
        if (!length) return Error{ErrorKind::argument, "--line", length.error().text};
        const Result<double> count = parseNumber(counts[i]);
        if (!count) return Error{ErrorKind::argument, "--crossings", count.error().text};
        lines.push_back({*length, *count});
    }
    const Result<GrainSize> size = grainSize(lines);
    if (!size) return size.error();
    QJsonObject answer{{"mean_intercept_mm", size->mean_intercept_mm},
                       {"g", size->g},
                       {"interval", size->interval
                                        ? QJsonValue(QJsonArray{size->interval->first, size->interval->second})
                                        : QJsonValue()},
                       {"rough", size->rough}};
    explain(options, answer,
            {QStringLiteral(
                "G = -6.643856 log10(length / crossings) - 3.288; interval from crossings per mm of each line (M30)")});
    return answer;
}

Result<QJsonObject> sample(const Options& options, const Tables&) {
    const Result<std::vector<double>> means = options.numbers("readings");
    if (!means) return means.error();
    const std::vector<std::string> limits = split(options.text("window"), ':');
    const Error malformed{ErrorKind::argument, "--window", "a window is written LOW:HIGH"};
    if (limits.size() != 2) return malformed;
    const Result<double> low = parseNumber(limits[0]);
    const Result<double> high = parseNumber(limits[1]);
    if (!low || !high || *low > *high) return malformed;
    const Result<double> untested = options.number("untested");
    if (!untested) return untested.error();
    if (*untested != static_cast<int>(*untested))
        return Error{ErrorKind::argument, "--untested", "a whole number is needed"};
    const Result<double> blade = options.number("blade-u", 0);
    if (!blade) return blade.error();
    const Result<double> common = options.number("common-u", 0);
    if (!common) return common.error();
    const Result<SampleChance> chance =
        sampleChance(*means, {*low, *high}, static_cast<int>(*untested), {*blade, *common});
    if (!chance) return chance.error();
    QJsonObject answer{{"probability_next", chance->next}, {"probability_all", chance->all}, {"rough", chance->rough}};
    explain(options, answer,
            {QStringLiteral("t for the next, multivariate t by quadrature for all; one accident cannot be excluded by "
                            "statistics (M18)")});
    return answer;
}

} // namespace rollcall::cli

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/judge/measurement.h"
#include "core/measure/indent.h"
#include "core/measure/outline.h"
#include "core/measure/rockwell.h"
#include "core/measure/verification.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <QJsonArray>

// The commands that compute from their arguments alone.
namespace rollcall::cli {

namespace {

QString fixed(double value, int places = 4) {
    return QString::number(value, 'f', places);
}

Result<Window> windowFrom(const Options& options) {
    if (options.has("window") == options.has("min"))
        return Error{ErrorKind::argument, "", "either --window LOW:HIGH or --min is needed"};
    if (options.has("min")) {
        const Result<double> low = options.number("min");
        if (!low) return low.error();
        return Window{*low, std::nullopt};
    }
    const std::vector<std::string> parts = split(options.text("window"), ':');
    const Error malformed{ErrorKind::argument, "--window", "a window is written LOW:HIGH"};
    if (parts.size() != 2) return malformed;
    const Result<double> low = parseNumber(parts[0]);
    const Result<double> high = parseNumber(parts[1]);
    if (!low || !high) return malformed;
    return Window{*low, *high};
}

Result<MeasurementInput> judgeInput(const Options& options) {
    MeasurementInput input;
    const Result<std::vector<double>> readings = options.numbers("readings");
    if (!readings) return readings.error();
    input.readings = *readings;
    const Result<Window> window = windowFrom(options);
    if (!window) return window.error();
    input.window = *window;
    const std::string rule = options.text("rule", "guarded");
    if (rule == "plain")
        input.rule = DecisionRule::plain;
    else if (rule == "allowance")
        input.rule = DecisionRule::allowance;
    else if (rule != "guarded")
        return Error{ErrorKind::argument, "--rule", "the rule is guarded, plain or allowance"};
    const std::string tester = options.text("tester", "bench");
    if (tester != "bench" && tester != "rebound")
        return Error{ErrorKind::argument, "--tester", "the tester is bench or rebound"};
    input.tester = tester == "rebound" ? TesterModel::reboundTester() : TesterModel::bench();
    struct {
        const char* name;
        double* target;
    } const numbers[] = {{"resolution", &input.tester.resolution},
                         {"pooled-sd", &input.tester.pooled_sd},
                         {"pooled-dof", &input.tester.pooled_dof},
                         {"block-uncertainty", &input.tester.block_uncertainty},
                         {"allowance", &input.allowance}};
    for (const auto& [name, target] : numbers) {
        const Result<double> value = options.number(name, *target);
        if (!value) return value.error();
        *target = *value;
    }
    if (options.has("bias")) {
        const Result<double> bias = options.number("bias");
        if (!bias) return bias.error();
        const Result<double> n = options.number("block-n", 2);
        if (!n) return n.error();
        if (*n < 1 || *n > 1000 || *n != std::floor(*n))
            return Error{ErrorKind::argument, "--block-n", "a whole number of block readings is needed"};
        input.bias = BlockBias{*bias, static_cast<int>(*n)};
    }
    input.uncorrected = options.has("uncorrected");
    return input;
}

// The same facts a gate would name, so that judge and show read alike.
std::vector<Reason> reasonsOf(const MeasurementInput& input, const Measurement& m) {
    std::vector<Reason> reasons;
    const std::vector<double> interval{m.decided_mean, m.decided_uncertainty, m.probability_inside};
    const Agreement& a = m.agreement;
    for (const std::size_t i : a.flagged) {
        reasons.push_back({Fact::flaggedReading,
                           Tone::caution,
                           "M10",
                           {input.readings[i], m.mean, a.mean_without_flagged.value_or(m.mean)},
                           {input.tester.rebound ? "rebound" : "bench"}});
    }
    const auto [low, high] = std::minmax_element(input.readings.begin(), input.readings.end());
    if (a.disagree)
        reasons.push_back(
            {Fact::readingsDisagree, Tone::caution, "M10", {*high - *low, 3.64 * input.tester.pooled_sd}, {}});
    if (a.cluster_gap)
        reasons.push_back({Fact::twoGroups, Tone::caution, "M10", {*a.cluster_gap}, {}});
    else if (a.uneven)
        reasons.push_back({Fact::unevenBlade, Tone::caution, "M10", {*high - *low}, {}});
    if (m.changed_by_flagged) reasons.push_back({Fact::verdictHangsOnFlagged, Tone::caution, "M10", {}, {}});
    if (a.grubbs) reasons.push_back({Fact::grubbs, Tone::note, "M10", {}, {}});
    if (m.n == 1 && input.rule == DecisionRule::guarded)
        reasons.push_back({Fact::oneReadingOnly, Tone::caution, "M15", {}, {}});
    if (m.outcome == Outcome::fail) {
        const bool soft = m.side == Side::soft;
        const double by =
            soft ? *input.window.low - m.decided_mean : m.decided_mean - input.window.high.value_or(m.decided_mean);
        reasons.push_back(
            {soft ? Fact::soft : Fact::hard, Tone::bad, "M15", {by, m.decided_mean, m.decided_uncertainty}, {}});
    } else {
        const bool crossesLow =
            input.window.low && m.decided_mean - m.decided_uncertainty < *input.window.low - limitTolerance;
        const bool crossesHigh =
            input.window.high && m.decided_mean + m.decided_uncertainty > *input.window.high + limitTolerance;
        const Fact fact = m.outcome == Outcome::pass  ? Fact::inWindow
                          : crossesLow && crossesHigh ? Fact::mayBeEither
                          : crossesLow                ? Fact::mayBeSoft
                          : crossesHigh               ? Fact::mayBeHard
                                                      : Fact::inWindow;
        reasons.push_back({fact, m.outcome == Outcome::pass ? Tone::good : Tone::caution, "M15", interval, {}});
    }
    if (m.more_readings.value_or(0) > 0)
        reasons.push_back({Fact::moreReadingsSettle,
                           Tone::note,
                           "E40",
                           {double(*m.more_readings), chanceSettledBy(input, *m.more_readings)},
                           {}});
    return reasons;
}

} // namespace

Result<QJsonObject> rockwell(const Options& options, const Tables& tables) {
    const Result<RockwellScale> scale = tables.scale(options.text("scale", "HRC"));
    if (!scale) return scale.error();
    const Result<double> depth = options.length("depth");
    if (!depth) return depth.error();
    const Result<double> value = rockwellNumber(*scale, *depth);
    if (!value) return value.error();
    QJsonObject answer{{"scale", q(scale->symbol)}, {"value", roundToTenth(*value)}};
    if (!hasRange(*scale)) answer["warning"] = QStringLiteral("no valid range is laid down for this scale");
    explain(
        options, answer,
        {QStringLiteral("HR = N - h/S = %1 - %2/%3 = %4 (M1)").arg(scale->n).arg(*depth).arg(scale->s_mm).arg(*value)});
    return answer;
}

Result<QJsonObject> convert(const Options& options, const Tables& tables) {
    const Result<std::string> from = options.required("from");
    if (!from) return from.error();
    const Result<std::string> to = options.required("to");
    if (!to) return to.error();
    const Result<double> value = options.number("value");
    if (!value) return value.error();
    const Result<Converted> converted = convertHardness(tables, *from, *value, *to);
    if (!converted) return converted.error();
    QJsonObject answer{{"from", q(*from)},
                       {"value", *value},
                       {"to", q(*to)},
                       {"result", converted->value},
                       {"standard", "ASTM E140, table for non-austenitic steels, linear interpolation"}};
    explain(options, answer,
            {QStringLiteral(
                 "between the table's lines beside %1 %2 (M8); a converted value carries at least 0.5 HRC of its own")
                 .arg(*value)
                 .arg(q(*from))});
    return answer;
}

Result<QJsonObject> indent(const Options& options, const Tables& tables) {
    const std::string scale = options.text("scale", "HRC");
    const Result<double> value = options.number("value");
    if (!value) return value.error();
    const Result<double> diameter = indentDiameter(tables, scale, *value);
    if (!diameter) return diameter.error();
    const Result<ThicknessAnswer> thickness = minThickness(tables, scale, *value);
    QJsonArray cautions;
    QJsonObject answer{{"diameter_mm", *diameter},
                       {"min_spacing_mm", minSpacing(*diameter)},
                       {"min_edge_distance_mm", minEdgeDistance(*diameter)}};
    answer["min_thickness_mm"] = thickness ? QJsonValue(thickness->min_thickness_mm) : QJsonValue();
    if (!thickness) cautions.append(q(thickness.error().text));
    if (options.has("thickness")) {
        const Result<double> given = options.length("thickness");
        if (!given) return given.error();
        if (!(*given > 0)) return Error{ErrorKind::range, "--thickness", "the thickness must be more than zero"};
        if (!thickness) return thickness.error();
        const bool ok = thickEnough(*thickness, *given);
        answer["thickness_ok"] = ok;
        QJsonArray lighter;
        if (!ok) {
            for (const std::string& name : lighterScales(tables, scale, *value, *given)) lighter.append(q(name));
        }
        answer["lighter_scales"] = lighter;
        if (ok && !atLeast(*given, thickness->ten_depths_mm)) {
            cautions.append(
                words::sentence({Fact::belowTenDepths, Tone::note, "M4", {*given, thickness->ten_depths_mm}, {}}));
        }
    }
    answer["cautions"] = cautions;
    explain(options, answer,
            {QStringLiteral("d = 2 sqrt(F / (pi p)), p = HV/0.927 (M2): %1 mm").arg(fixed(*diameter)),
             QStringLiteral("spacing 3 d, edge 2.5 d (M3)"),
             thickness ? QStringLiteral("thickness: line %1 of e18_min_thickness.csv (M4)").arg(thickness->table_line)
                       : QString()});
    return answer;
}

Result<QJsonObject> judge(const Options& options, const Tables& tables) {
    Result<MeasurementInput> input = judgeInput(options);
    if (!input) return input.error();
    if (input->rule == DecisionRule::allowance && !options.has("allowance") && !input->readings.empty()) {
        const Result<ToleranceBand> band = toleranceFor(tables, "HRC", input->readings.front());
        if (band) input.value().allowance = band->max_error;
    }
    const Result<Measurement> measured = measure(*input);
    if (!measured) return measured.error();
    Measurement m = *measured;
    // A tester whose error is beyond what E18 allows there has failed its block: no Pass and no Fail by it.
    const Result<ToleranceBand> allowed = toleranceFor(tables, "HRC", m.mean);
    const bool failed = input->bias && allowed && !atMost(std::abs(input->bias->error), allowed->max_error);
    if (failed) m.outcome = Outcome::borderline;
    QJsonArray flagged;
    for (const std::size_t i : m.agreement.flagged) {
        flagged.append(QJsonObject{{"index", static_cast<int>(i)},
                                   {"value", input->readings[i]},
                                   {"reason", input->tester.rebound
                                                  ? "far from the median: same spot struck twice?"
                                                  : "far from the median: edge, mark, scale, seating or overshoot?"}});
    }
    QJsonArray reasons;
    for (const Reason& reason : reasonsOf(*input, m)) reasons.append(reasonText(reason));
    if (failed) reasons.append(reasonText({Fact::testerFailed, Tone::caution, "M6", {}, {"the tester"}}));
    constexpr std::array<const char*, 3> names{"pass", "borderline", "fail"};
    QJsonObject answer{{"n", m.n},
                       {"mean", m.mean},
                       {"corrected_mean", m.corrected_mean},
                       {"sd", orNull(m.sd)},
                       {"standard_uncertainty", m.budget.standard_uncertainty},
                       {"dof", std::isinf(m.budget.dof) ? QJsonValue() : QJsonValue(m.budget.dof)},
                       {"coverage_factor", m.budget.coverage_factor},
                       {"expanded_uncertainty", m.decided_uncertainty},
                       {"probability_inside", m.probability_inside},
                       {"verdict", names[static_cast<std::size_t>(m.outcome)]},
                       {"more_readings", m.more_readings ? QJsonValue(*m.more_readings) : QJsonValue()},
                       {"flagged", flagged},
                       {"mean_without_flagged", orNull(m.agreement.mean_without_flagged)},
                       {"uneven", m.agreement.uneven},
                       {"reasons", reasons}};
    if (m.may_settle) answer["may_settle"] = *m.may_settle;
    const int further = m.more_readings.value_or(m.may_settle.value_or(0));
    if (further > 0) answer["chance_settled"] = chanceSettledBy(*input, further);
    if (options.has("explain")) {
        Verdict verdict;
        verdict.measurement = m;
        verdict.tables_edition = Tables::edition;
        explain(options, answer, words::derivation(verdict, input->window));
    }
    return answer;
}

Result<QJsonObject> spots(const Options& options, const Tables& tables) {
    struct {
        const char* name;
        double value = 0;
    } lengths[] = {{"length"}, {"height"}, {"thickness"}};
    for (auto& [name, value] : lengths) {
        const Result<double> length = options.length(name);
        if (!length) return length.error();
        if (!(*length > 0 && *length <= 5000))
            return Error{ErrorKind::range, std::string("--") + name, "a length over zero and up to 5000 mm is needed"};
        value = *length;
    }
    const Result<double> count = options.number("n", 3);
    if (!count) return count.error();
    if (!(*count >= 1 && *count <= 100) || *count != std::floor(*count))
        return Error{ErrorKind::argument, "--n", "a whole number from 1 to 100 is needed"};
    const Result<double> value = options.number("value", 60);
    if (!value) return value.error();
    const std::string scale = options.text("scale", "HRC");
    const Result<double> diameter = indentDiameter(tables, scale, *value);
    if (!diameter) return diameter.error();
    const SpacingRule rule = SpacingRule::forIndent(*diameter);
    BladeShape shape = BladeShape::rectangle(lengths[0].value, lengths[1].value, lengths[2].value);
    shape.reading_line_mm = rule.min_edge_mm;
    if (options.has("edge-line")) {
        const Result<double> line = options.length("edge-line");
        if (!line) return line.error();
        shape.reading_line_mm = *line;
    }
    std::vector<Spot> existing;
    for (const std::string& pair : split(options.text("existing"), ';')) {
        const std::vector<std::string> xy = split(pair, ',');
        const Result<double> x = xy.size() == 2 ? parseNumber(xy[0]) : Result<double>(Error{});
        const Result<double> y = xy.size() == 2 ? parseNumber(xy[1]) : Result<double>(Error{});
        if (!x || !y) return Error{ErrorKind::argument, "--existing", "indents are written \"x,y;x,y\" in mm"};
        existing.push_back({*x, *y});
    }
    QJsonArray places;
    QString reason;
    const Result<ThicknessAnswer> thickness = minThickness(tables, scale, *value);
    if (thickness && !thickEnough(*thickness, shape.thickness_mm)) {
        reason = words::sentence({Fact::tooThin,
                                  Tone::caution,
                                  "M4",
                                  {shape.thickness_mm, thickness->min_thickness_mm},
                                  lighterScales(tables, scale, *value, shape.thickness_mm)});
    } else {
        const SuggestedSpots suggested = suggestSpots(shape, existing, static_cast<int>(*count), rule);
        for (const Spot& spot : suggested.spots) places.append(QJsonObject{{"x_mm", spot.x_mm}, {"y_mm", spot.y_mm}});
        if (suggested.shortage == SpotShortage::lineTooNearEdge)
            reason =
                QStringLiteral("the reading line lies nearer than %1 mm to an edge").arg(fixed(rule.min_edge_mm, 2));
        if (suggested.shortage == SpotShortage::noRoomOnLine)
            reason = QStringLiteral("only %1 of %2 fit on the line at %3 mm from each other and from all indents")
                         .arg(places.size())
                         .arg(*count)
                         .arg(fixed(rule.min_spacing_mm, 2));
    }
    QJsonObject answer{{"spots", places},
                       {"min_spacing_mm", rule.min_spacing_mm},
                       {"reason", reason.isEmpty() ? QJsonValue() : QJsonValue(reason)}};
    explain(options, answer,
            {QStringLiteral("3 d = %1 mm between indents, 2.5 d = %2 mm from edges (M3)")
                 .arg(fixed(rule.min_spacing_mm, 3), fixed(rule.min_edge_mm, 3))});
    return answer;
}

} // namespace rollcall::cli

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/ledger_text.h"
#include "words/units.h"

#include <algorithm>
#include <QLocale>

namespace rollcall {

using namespace ledger;

namespace {

struct SeenReach {
    double low = 1e300;
    double high = -1e300;
    void take(double value) {
        low = std::min(low, value);
        high = std::max(high, value);
    }
};

} // namespace

LedgerView temperView(const TemperLedger& ledger) {
    LedgerView view;
    view.table = {tr("Hardness over temper, %1").arg(q(ledger.grade)),
                  {tr("Batch"), tr("Temper"), tr("As 2 h, °C"), tr("HRC"), tr("±"), tr("Softest"), tr("Hardest"),
                   tr("Blades"), tr("From library"), tr("Day")},
                  {}};
    view.strip = 3;
    view.strip_u = 4;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::degrees;
    chart.x_title = tr("one temper of 2 h worth all of them, %1").arg(words::unit(Quantity::temperature));
    chart.y_title = tr("HRC, %1").arg(q(ledger.grade));
    chart.empty = tr("No heat of %1 was read after a temper yet by a verified tester.").arg(q(ledger.grade));
    LedgerChart::Line library{{}, LedgerChart::Tone::library, true, false, tr("library")};
    LedgerChart::Line shop{{}, LedgerChart::Tone::shop, false, false, tr("this shop")};
    LedgerChart::Band about{{}, {}, LedgerChart::Tone::library};
    LedgerChart::Band known{{}, {}, LedgerChart::Tone::shop};
    double difference = 0;
    double half = 0;
    double spread = 0;
    int steps = 0;
    for (const TemperLedger::Step& step : ledger.curve) {
        library.points.emplace_back(step.celsius, step.library);
        about.low.emplace_back(step.celsius, step.library - step.spread);
        about.high.push_back(step.library + step.spread);
        shop.points.emplace_back(step.celsius, step.shop);
        known.low.emplace_back(step.celsius, step.low);
        known.high.push_back(step.high);
        if (step.celsius < ledger.from_c - 0.5 || step.celsius > ledger.to_c + 0.5) continue;
        difference += step.shop - step.library;
        half += (step.high - step.low) / 2;
        spread += step.spread;
        ++steps;
    }
    if (steps > 0) {
        difference /= steps;
        half /= steps;
        spread /= steps;
    }
    chart.bands.push_back(std::move(about));
    chart.lines.push_back(std::move(library));
    if (!ledger.heats.empty()) {
        chart.bands.push_back(std::move(known));
        chart.lines.push_back(std::move(shop));
    }
    for (const HeatMean& heat : ledger.heats) {
        const int row = static_cast<int>(view.table.rows.size());
        double at = 0;
        // The curve's own steps turn a parameter into its temperature.
        for (std::size_t i = 1; i < ledger.curve.size(); ++i) {
            const auto& a = ledger.curve[i - 1];
            const auto& b = ledger.curve[i];
            if (heat.parameter > b.parameter && i + 1 < ledger.curve.size()) continue;
            at = a.celsius + (b.celsius - a.celsius) * (heat.parameter - a.parameter) / (b.parameter - a.parameter);
            break;
        }
        const QString name = tr("%1, temper %2").arg(q(heat.batch->name)).arg(heat.temper);
        chart.points.push_back(
            {at, heat.hrc, std::pair{heat.low, heat.high}, row, LedgerChart::Tone::plain,
             tr("%1: %2 HRC, %3 blades from %4 to %5; %6 than the library says")
                 .arg(name, words::hardness(heat.hrc))
                 .arg(heat.blades)
                 .arg(words::hardness(heat.low), words::hardness(heat.high), apart(heat.from_library))});
        view.table.rows.push_back({q(heat.batch->name), heat.temper, toPlaces(at, 0), toPlaces(heat.hrc, 2),
                                   toPlaces(2 * heat.u, 2), toPlaces(heat.low, 1), toPlaces(heat.high, 1), heat.blades,
                                   toPlaces(heat.from_library, 2), dayText(heat.batch->day())});
        view.places.push_back({placeOf(heat.batch, heat.blade)});
    }
    if (ledger.heats.empty()) {
        view.word = tr("Nothing read");
        view.sub = tr("The library alone speaks for %1.").arg(q(ledger.grade));
        return view;
    }
    // What was read, and where the windows lie, fill the picture; the whole curve is wider than that.
    double from = ledger.from_c;
    double to = ledger.to_c;
    for (const LedgerChart::Point& point : chart.points) {
        from = std::min(from, point.x);
        to = std::max(to, point.x);
    }
    constexpr double air = 25; // °C
    chart.x_range = std::pair{from - air, to + air};
    SeenReach seen;
    for (const TemperLedger::Step& step : ledger.curve) {
        if (step.celsius < from - air || step.celsius > to + air) continue;
        for (const double value : {step.low, step.high, step.library}) seen.take(value);
    }
    for (const LedgerChart::Point& point : chart.points) {
        seen.take(point.bar->first);
        seen.take(point.bar->second);
    }
    chart.y_range = std::pair{seen.low - 0.5, seen.high + 0.5};
    const bool near = std::abs(difference) <= spread;
    view.state = near && ledger.scatter < 1.5 ? State::pass : State::borderline;
    view.word = std::abs(difference) < 0.05 ? tr("As the library") : apart(difference);
    view.sub = tr("than the library says, from %1 to %2; the library itself is good to ± %3.")
                   .arg(words::degreesNumber(ledger.from_c), words::degrees(ledger.to_c), words::tenths(spread));
    if (std::abs(difference) < 0.05)
        view.sub = tr("From %1 to %2 the shop reads what the library says.")
                       .arg(words::degreesNumber(ledger.from_c), words::degrees(ledger.to_c));
    view.lines.push_back({Tone::good,
                          tr("%1 heats, %2 blades; a new heat is foretold to ± %3 (95 %)")
                              .arg(ledger.heats.size())
                              .arg(ledger.blades)
                              .arg(words::tenths(half)),
                          QStringLiteral("M20")});
    if (ledger.teaches)
        view.lines.push_back({Tone::note,
                              ledger.teaches->before - ledger.teaches->after < 0.02
                                  ? tr("Another heat of three hardly sharpens it: heats differ by more than the curve")
                                  : tr("A heat of three tempered at %1 would teach most: ± %2 becomes ± %3")
                                        .arg(words::degrees(ledger.teaches->celsius), hrc2(ledger.teaches->before),
                                             hrc2(ledger.teaches->after)),
                              QStringLiteral("M20")});
    if (ledger.scatter >= 1.5)
        view.lines.push_back({Tone::caution,
                              tr("The heats scatter %1 times what is usual: oven, quench or steel differ")
                                  .arg(words::tenths(ledger.scatter)),
                              QStringLiteral("E19")});
    if (ledger.left_out > 0)
        view.lines.push_back(
            {Tone::note, tr("%1 readings lie beyond the library's curve").arg(ledger.left_out), QStringLiteral("M20")});
    return view;
}

LedgerView compareView(const Comparisons& comparisons, Factor factor, Response response) {
    LedgerView view;
    view.table = {
        tr("By %1, %2").arg(factorName(factor), responseName(response)),
        {capital(factorName(factor)), tr("Heats"), tr("Blades"), tr("From expected"), tr("±"), tr("Scatter of heats")},
        {}};
    view.strip = 3;
    view.strip_u = 4;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::names;
    chart.y_title = response == Response::tempered ? tr("HRC from the library's curve, each heat, mean with 95 %")
                                                   : tr("HRC from the grade's typical, each heat, mean with 95 %");
    chart.empty = tr("No heat says which %1 it was.").arg(factorName(factor));
    for (std::size_t i = 0; i < comparisons.levels.size(); ++i) {
        const Level& level = comparisons.levels[i];
        const int row = static_cast<int>(i);
        chart.names << q(level.name);
        const std::size_t n = level.values.size();
        for (std::size_t k = 0; k < n; ++k) {
            // Side by side within the level, in order of time.
            const double beside = n < 2 ? 0.12 : 0.06 + 0.28 * static_cast<double>(k) / static_cast<double>(n - 1);
            chart.points.push_back({row + beside, level.values[k], std::nullopt, row, LedgerChart::Tone::plain,
                                    tr("%1: %2").arg(q(level.batches[k]->name), signedHrc(level.values[k]))});
        }
        chart.points.push_back(
            {row - 0.18, level.mean,
             level.known ? std::optional(std::pair{level.known->low, level.known->high}) : std::nullopt, row,
             LedgerChart::Tone::shop, tr("%1: mean %2 of %3 heats").arg(q(level.name), signedHrc(level.mean)).arg(n)});
        const double half = level.known ? (level.known->high - level.known->low) / 2 : 0;
        view.table.rows.push_back({q(level.name), static_cast<int>(n), level.pieces, toPlaces(level.mean, 2),
                                   level.known ? QVariant(toPlaces(half, 2)) : QVariant(), optional(level.sd, 2)});
        std::vector<LedgerPlace> places;
        for (std::size_t k = 0; k < level.batches.size(); ++k)
            places.push_back(placeOf(level.batches[k], k < level.blades.size() ? level.blades[k] : std::string()));
        view.places.push_back(std::move(places));
    }
    if (!comparisons.levels.empty()) chart.limits.push_back({0, {}, true});
    if (comparisons.unnamed > 0)
        view.lines.push_back({Tone::note,
                              tr("Of %1 heats the %2 is not noted").arg(comparisons.unnamed).arg(factorName(factor)),
                              QStringLiteral("record")});
    if (comparisons.more > 0)
        view.lines.push_back({Tone::note, tr("%1 more with fewer heats are left out").arg(comparisons.more), {}});
    if (comparisons.pairs.empty()) {
        view.word = tr("Too little");
        view.sub = comparisons.levels.empty()       ? chart.empty
                   : comparisons.levels.size() == 1 ? tr("There is one %1 alone.").arg(factorName(factor))
                                                    : tr("Two heats of each are needed to compare them.");
        return view;
    }
    const LevelPair& first = comparisons.pairs.front();
    const QString a = q(comparisons.levels[first.a].name);
    const QString b = q(comparisons.levels[first.b].name);
    const auto differing = std::count_if(comparisons.pairs.begin(), comparisons.pairs.end(),
                                         [](const LevelPair& pair) { return pair.differ; });
    view.state = differing > 0 ? State::borderline : State::pass;
    view.word = differing > 0 ? tr("They differ") : tr("No difference shown");
    view.sub = differing > 0 ? tr("%1 reads %2 than %3: by %4 to %5 HRC.")
                                   .arg(a, apart(first.difference), b,
                                        hrc2(std::min(std::abs(first.known.low), std::abs(first.known.high))),
                                        hrc2(std::max(std::abs(first.known.low), std::abs(first.known.high))))
                             : tr("Between any two the difference may be chance.");
    std::size_t told = 0;
    for (const LevelPair& pair : comparisons.pairs) {
        if (++told > 4) break;
        QString text =
            tr("%1 against %2: %3, from %4 to %5; %6")
                .arg(q(comparisons.levels[pair.a].name), q(comparisons.levels[pair.b].name), signedHrc(pair.difference),
                     signedHrc(pair.known.low), signedHrc(pair.known.high), chanceText(pair.adjusted));
        const std::size_t least =
            std::min(comparisons.levels[pair.a].values.size(), comparisons.levels[pair.b].values.size());
        if (!pair.differ && pair.heats_to_tell && *pair.heats_to_tell > static_cast<int>(least))
            text += tr("; %1 heats of each would tell").arg(*pair.heats_to_tell);
        view.lines.push_back({pair.differ ? Tone::caution : Tone::note, text, QStringLiteral("Welch")});
    }
    if (comparisons.pairs.size() > 1)
        view.lines.push_back({Tone::note,
                              tr("%1 pairs are compared, and all of them counted: chance makes none better")
                                  .arg(comparisons.pairs.size()),
                              QStringLiteral("Holm")});
    if (comparisons.scatter_p)
        view.lines.push_back({*comparisons.scatter_p < 0.05 ? Tone::caution : Tone::note,
                              (*comparisons.scatter_p < 0.05 ? tr("They do not scatter alike; %1")
                                                             : tr("No difference in scatter shown; %1"))
                                  .arg(chanceText(*comparisons.scatter_p)),
                              QStringLiteral("Brown-Forsythe")});
    view.lines.push_back({Tone::unseen, notChance(), {}});
    return view;
}

LedgerView seriesView(const ShopSeries& series, const SeriesSays& says, bool cumulative) {
    LedgerView view;
    view.table = {seriesName(series), {tr("Day"), tr("Batch"), tr("HRC"), tr("Says")}, {}};
    view.strip = 2;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::day;
    chart.y_title =
        cumulative ? tr("sums beyond three quarters of a sigma, in sigmas") : tr("HRC from what is expected");
    if (series.kind == ShopSeries::Kind::tester && !cumulative) chart.y_title = tr("error on the block, HRC");
    chart.empty = tr("Twenty values are needed for limits.");
    std::map<std::size_t, RunRule> signals_;
    if (says.chart) {
        for (const RunSignal& signal : says.chart->alarms) signals_.emplace(signal.at, signal.rule);
    }
    LedgerChart::Line line{{}, LedgerChart::Tone::limit, false, false, {}};
    const QString told = tr("%1 %2: %3%4");
    for (std::size_t i = 0; i < series.values.size(); ++i) {
        const auto signal = signals_.find(i);
        const QString batch = i < series.batches.size() ? q(series.batches[i]->name) : QString();
        const QString rule = signal == signals_.end() ? QString() : runRuleText(signal->second);
        const int row = static_cast<int>(i);
        const QString day = dayText(static_cast<std::int64_t>(series.days[i]));
        view.table.rows.push_back({day, batch, toPlaces(series.values[i], 2), rule});
        std::vector<LedgerPlace> places;
        if (i < series.batches.size()) places.push_back(placeOf(series.batches[i], series.blades[i]));
        view.places.push_back(std::move(places));
        const QString text =
            told.arg(day, batch, signedHrc(series.values[i]), rule.isEmpty() ? QString() : QStringLiteral("; ") + rule);
        if (!cumulative) {
            line.points.emplace_back(series.days[i], series.values[i]);
            chart.points.push_back({series.days[i], series.values[i], std::nullopt, row,
                                    rule.isEmpty() ? LedgerChart::Tone::plain : LedgerChart::Tone::alarm, text});
        } else if (says.cumulative) {
            for (const double value : {says.cumulative->up[i], -says.cumulative->down[i]})
                chart.points.push_back(
                    {series.days[i], value, std::nullopt, row,
                     std::abs(value) > says.cumulative->limit ? LedgerChart::Tone::alarm : LedgerChart::Tone::plain,
                     text});
        }
    }
    if (!cumulative) {
        chart.lines.push_back(std::move(line));
        if (says.chart) {
            chart.limits.push_back({says.chart->mean, tr("mean"), false});
            chart.limits.push_back({says.chart->high(), tr("+4.5 σ"), true});
            chart.limits.push_back({says.chart->low(), tr("−4.5 σ"), true});
        }
    } else if (says.cumulative) {
        chart.limits.push_back({says.cumulative->limit, tr("higher"), true});
        chart.limits.push_back({-says.cumulative->limit, tr("lower"), true});
        chart.limits.push_back({0, {}, false});
    }
    const bool signalled = (says.chart && !says.chart->alarms.empty()) || (says.cumulative && says.cumulative->signal);
    if (!says.chart) {
        view.word = tr("Too few");
        view.sub = tr("%1 values; limits need twenty.").arg(series.values.size());
    } else {
        view.state = signalled ? State::borderline : State::pass;
        view.word = signalled ? tr("Something changed") : tr("Steady");
        view.sub = signalled && !says.chart->alarms.empty()
                       ? tr("Last %1: %2.")
                             .arg(dayText(static_cast<std::int64_t>(series.days[says.chart->alarms.back().at])),
                                  runRuleText(says.chart->alarms.back().rule))
                   : signalled ? tr("A small shift has added up.")
                               : tr("Nothing that chance does not do.");
    }
    if (says.known)
        view.lines.push_back({Tone::note,
                              tr("Mean %1, known to %2 to %3 (95 %) from %4 values")
                                  .arg(signedHrc(says.mean), signedHrc(says.known->low), signedHrc(says.known->high))
                                  .arg(series.values.size()),
                              QStringLiteral("t")});
    if (says.chart)
        view.lines.push_back({says.chart->alarms.empty() ? Tone::good : Tone::caution,
                              tr("%1 signals; limits from the first %2 values, sigma %3")
                                  .arg(says.chart->alarms.size())
                                  .arg(says.chart->learned_from)
                                  .arg(hrc2(says.chart->sigma)),
                              QStringLiteral("3σ")});
    if (says.cumulative && says.cumulative->signal)
        view.lines.push_back({Tone::caution,
                              (says.cumulative->side > 0 ? tr("It has been higher since about %1")
                                                         : tr("It has been lower since about %1"))
                                  .arg(dayText(static_cast<std::int64_t>(series.days[says.cumulative->began]))),
                              QStringLiteral("CUSUM")});
    if (says.drift && says.drift->likely)
        view.lines.push_back({Tone::caution,
                              tr("A slow drift is likely: %1 HRC a week").arg(signedHrc(says.drift->per_week)),
                              QStringLiteral("E41")});
    if (says.hotter_c && says.hotter_known) {
        const bool sure = says.hotter_known->low > 0 || says.hotter_known->high < 0;
        view.lines.push_back(
            {sure ? Tone::caution : Tone::note,
             tr("As if the oven were %1 off its setting: %2 to %3 hotter, estimated")
                 .arg(words::degreesApart(std::abs(*says.hotter_c)), words::degreesApart(says.hotter_known->low),
                      words::degreesApart(says.hotter_known->high)),
             QStringLiteral("M20")});
        view.lines.push_back(
            {Tone::unseen, tr("A tester or a steel that reads off looks the same. A known thermocouple decides"), {}});
    }
    return view;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/ledger_text.h"
#include "words/units.h"

#include <algorithm>
#include <QLocale>

namespace rollcall {

using namespace ledger;

LedgerView yieldView(const YieldLedger& ledger) {
    LedgerView view;
    view.table = {tr("First-pass yield"),
                  {tr("Gate or month"), tr("Passed at once"), tr("Of"), tr("Share, %"), tr("From, %"), tr("To, %"),
                   tr("Hardened again")},
                  {}};
    view.strip = 3;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::day;
    chart.y_title = tr("passed all gates at once, by month, with 95 %");
    chart.percent = true;
    chart.y_range = std::pair{-0.02, 1.04};
    chart.empty = tr("No blade has an answer at every gate yet.");
    const auto row = [&](const QString& name, const Share& share, const QVariant& again,
                         const std::vector<const LedgerBatch*>& held) {
        view.table.rows.push_back({name, share.passed, share.of,
                                   toPlaces(100.0 * share.passed / std::max(1, share.of), 1),
                                   share.known ? QVariant(toPlaces(100 * share.known->low, 1)) : QVariant(),
                                   share.known ? QVariant(toPlaces(100 * share.known->high, 1)) : QVariant(), again});
        view.places.push_back(placesOf(held));
    };
    for (const Gate gate : allGates) {
        const Share& share = ledger.gates[indexOf(gate)];
        if (share.of > 0 && gate != Gate::release) row(words::gateName(gate), share, {}, ledger.held[indexOf(gate)]);
    }
    for (const YieldLedger::Month& month : ledger.months) {
        const QString name = QStringLiteral("%1-%2").arg(month.year).arg(month.month, 2, 10, QLatin1Char('0'));
        constexpr int middle = 15; // of the month
        const auto day = static_cast<double>(QDate(1970, 1, 1).daysTo(QDate(month.year, month.month, middle)));
        const double share = static_cast<double>(month.share.passed) / month.share.of;
        chart.points.push_back(
            {day, share,
             month.share.known ? std::optional(std::pair{month.share.known->low, month.share.known->high})
                               : std::nullopt,
             static_cast<int>(view.table.rows.size()), LedgerChart::Tone::plain,
             tr("%1: %2, known to %3").arg(name, shareText(month.share), knownText(month.share.known))});
        row(name, month.share, month.rehardened, month.batches);
    }
    if (ledger.all.of == 0) {
        view.word = tr("Nothing decided");
        view.sub = chart.empty;
        return view;
    }
    const double share = static_cast<double>(ledger.all.passed) / ledger.all.of;
    chart.limits.push_back({share, tr("all: %1 %").arg(std::lround(100 * share)), true});
    view.state = ledger.causes.empty() ? State::pass : State::borderline;
    view.word = tr("%1 % at once").arg(std::lround(100 * share));
    view.sub = tr("%1 blades passed every gate at the first go: %2 (95 %).")
                   .arg(shareText(ledger.all), knownText(ledger.all.known));
    const bool none = ledger.rehardenings + ledger.spare_tempers == 0;
    view.lines.push_back({none ? Tone::good : Tone::caution,
                          none ? tr("No rework: nothing was hardened again or tempered further")
                               : tr("Rework: %1 hardenings again, %2 oven loads of further tempers, %3")
                                     .arg(ledger.rehardenings)
                                     .arg(ledger.spare_tempers)
                                     .arg(words::hours(ledger.spare_hours)),
                          QStringLiteral("record")});
    std::size_t told = 0;
    for (const YieldLedger::Cause& cause : ledger.causes) {
        if (++told > 5) break;
        view.lines.push_back({Tone::caution,
                              tr("%1, %2 blades, as in %3: %4")
                                  .arg(words::gateName(cause.gate))
                                  .arg(cause.blades)
                                  .arg(q(cause.batches.back()->name), words::sentence(cause.reason)),
                              QString::fromUtf8(cause.reason.rule)});
    }
    view.lines.push_back(
        {Tone::unseen, tr("A blade hardened again counts at Quench, whatever it was hardened again for"), {}});
    return view;
}

LedgerView proofView(const ProofLedger& ledger, ProofBy by, std::size_t property) {
    LedgerView view;
    view.table.title = tr("Edge, cuts, blows and grain, %1").arg(proofByName(by));
    view.table.head << tr("Group") << tr("Blades") << tr("Mean HRC");
    for (const ProofProperty& one : ledger.properties)
        view.table.head << propertyName(one) << tr("Tried") << tr("Place");
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::names;
    chart.empty = tr("No edge was pressed, no trial ended, and no fracture was counted yet.");
    const auto groupName = [&](const ProofLedger::Group& group) {
        if (!group.name.empty()) return q(group.name);
        return by == ProofBy::angle ? tr("%1 to %2° a side").arg(group.low).arg(group.high)
                                    : tr("%1 to %2 HRC").arg(group.low).arg(group.high);
    };
    const auto valueOf = [](const ProofProperty& one, const ProofProperty::Cell& cell) -> QVariant {
        if (cell.tried == 0) return {};
        const bool share = one.kind == ProofProperty::Kind::rod || one.kind == ProofProperty::Kind::trial;
        return share ? toPlaces(100 * cell.value, 0) : toPlaces(cell.value, 1);
    };
    for (std::size_t i = 0; i < ledger.groups.size(); ++i) {
        const ProofLedger::Group& group = ledger.groups[i];
        QVariantList row{groupName(group), group.blades, optional(group.mean_hrc, 1)};
        for (const ProofProperty& one : ledger.properties) {
            const ProofProperty::Cell& cell = one.cells[i];
            row << valueOf(one, cell) << (cell.tried > 0 ? QVariant(cell.tried) : QVariant());
            row << (!cell.place ? QVariant()
                    : cell.place->best == cell.place->worst
                        ? QVariant(QString::number(cell.place->best))
                        : QVariant(tr("%1 to %2").arg(cell.place->best).arg(cell.place->worst)));
        }
        view.table.rows.push_back(std::move(row));
        view.places.push_back(placesOf(group.batches));
        chart.names << groupName(group);
    }
    if (ledger.properties.empty()) {
        view.word = tr("Nothing tried");
        view.sub = chart.empty;
        return view;
    }
    const ProofProperty& shown = ledger.properties[std::min(property, ledger.properties.size() - 1)];
    const bool share = shown.kind == ProofProperty::Kind::rod || shown.kind == ProofProperty::Kind::trial;
    chart.percent = share;
    if (share) chart.y_range = std::pair{-0.02, 1.04};
    chart.y_title = tr("%1, with 95 %").arg(propertyName(shown));
    int tried = 0;
    std::vector<std::size_t> first;
    for (std::size_t i = 0; i < shown.cells.size(); ++i) {
        const ProofProperty::Cell& cell = shown.cells[i];
        if (cell.tried == 0) continue;
        ++tried;
        const QString known = !cell.known ? QString()
                              : share
                                  ? knownText(cell.known)
                                  : tr("%1 to %2").arg(words::tenths(cell.known->low), words::tenths(cell.known->high));
        // A count from one run is known to a factor of forty: its bar would flatten all others.
        const double most = share ? 1.0 : cell.value * 4 + 1;
        chart.points.push_back(
            {static_cast<double>(i), cell.value,
             cell.known ? std::optional(std::pair{cell.known->low, std::min(most, cell.known->high)}) : std::nullopt,
             static_cast<int>(i), LedgerChart::Tone::plain,
             tr("%1: %2 of %3 tried, known to %4")
                 .arg(groupName(ledger.groups[i]),
                      share ? tr("%1 %").arg(std::lround(100 * cell.value)) : words::tenths(cell.value))
                 .arg(cell.tried)
                 .arg(known)});
        if (cell.place && cell.place->best == 1 && cell.place->worst < 2) first.push_back(i);
    }
    view.state = tried < 2 ? State::notYet : State::pass;
    view.word = tried < 2 ? tr("One alone") : first.size() == 1 ? tr("One stands out") : tr("No order shown");
    view.sub = tried < 2           ? tr("There is nothing to set it beside.")
               : first.size() == 1 ? tr("%1, at this property alone.").arg(groupName(ledger.groups[first.front()]))
                                   : tr("What is known of them overlaps: a tie.");
    view.lines.push_back(
        {Tone::note, tr("Each property stands alone; nothing is ranked over all of them"), QStringLiteral("E33")});
    view.lines.push_back({Tone::unseen, tr("Pieces were not chosen by lot, and grade, edge and use go together"), {}});
    if (!share && shown.kind == ProofProperty::Kind::count)
        view.lines.push_back({Tone::note, tr("A count taken as if each stroke were as likely as the next to do it"),
                              QStringLiteral("E33")});
    return view;
}

LedgerView whatIfView(const WhatIfAnswer& answer, const WhatIf& wish, const std::optional<YieldForecast>& forecast) {
    LedgerView view;
    view.table = {
        tr("What would change"),
        {tr("Batch"), tr("Blade"), tr("Grade"), tr("HRC"), tr("±"), tr("Window"), tr("Is"), tr("Would be"), tr("Day")},
        {}};
    view.strip = 3;
    view.strip_u = 4;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::names;
    chart.y_title = tr("blades at Temper: as they are, and as they would be");
    chart.empty = tr("No blade was read at Temper yet.");
    chart.y_range = std::pair{0.0, std::max(4.0, answer.blades * 1.08)};
    const auto count = [](const auto& counts, State state) { return counts[static_cast<std::size_t>(state)]; };
    for (const State state : {State::pass, State::borderline, State::fail, State::notYet}) {
        const auto at = static_cast<double>(chart.names.size());
        chart.names << words::stateName(state);
        const auto bar = [&](double x, int blades, LedgerChart::Tone tone, const QString& says) {
            const auto high = static_cast<double>(blades);
            chart.bands.push_back({{{x - 0.17, 0}, {x + 0.17, 0}}, {high, high}, tone});
            chart.lines.push_back({{{x - 0.17, high}, {x + 0.17, high}}, tone, false, false, {}});
            chart.points.push_back({x, high, std::nullopt, -1, tone, tr("%1: %2 blades").arg(says).arg(blades)});
        };
        bar(at - 0.2, count(answer.was, state), LedgerChart::Tone::limit, tr("%1 now").arg(words::stateName(state)));
        bar(at + 0.2, count(answer.would_be, state), LedgerChart::Tone::shop,
            tr("%1 then").arg(words::stateName(state)));
    }
    constexpr std::size_t mostRows = 1000; // a table of more is not read; the counts above are of all
    for (const ChangedVerdict& changed : answer.changed) {
        if (view.table.rows.size() >= mostRows) break;
        const LedgerMeasurement& m = *changed.blade->tempered;
        view.table.rows.push_back({q(changed.batch->name), q(changed.blade->mark), q(changed.blade->grade),
                                   toPlaces(m.mean, 1), toPlaces(m.u, 1), words::windowText(m.window),
                                   words::stateName(changed.was), words::stateName(changed.would_be),
                                   dayText(changed.batch->day())});
        view.places.push_back({placeOf(changed.batch, changed.blade->id)});
    }
    if (answer.blades == 0) {
        chart.lines.clear();
        chart.points.clear();
        view.word = tr("Nothing read");
        view.sub = chart.empty;
        return view;
    }
    const int passes = count(answer.would_be, State::pass) - count(answer.was, State::pass);
    view.state = answer.changed.empty() ? State::pass : State::borderline;
    view.word = wish.nothing()           ? tr("As it is")
                : answer.changed.empty() ? tr("Nothing changes")
                                         : tr("%1 change").arg(answer.changed.size());
    view.sub = wish.nothing() ? tr("Move a limit, the tester's error, the temper or the rule.")
                              : tr("Of %1 blades %2 would pass, %3 than now.")
                                    .arg(answer.blades)
                                    .arg(count(answer.would_be, State::pass))
                                    .arg(passes >= 0 ? tr("%1 more").arg(passes) : tr("%1 fewer").arg(-passes));
    if (answer.changed.size() > mostRows)
        view.lines.push_back({Tone::note, tr("The newest %1 are listed").arg(mostRows), {}});
    if (answer.held > 0)
        view.lines.push_back(
            {Tone::note,
             tr("%1 blades are held by more than their hardness: they only get worse here").arg(answer.held),
             QStringLiteral("M15")});
    if (answer.beyond > 0)
        view.lines.push_back(
            {Tone::note,
             tr("%1 blades stay as they are: what another temper does to them is not known").arg(answer.beyond),
             QStringLiteral("M20")});
    if (wish.temper_by != 0)
        view.lines.push_back(
            {Tone::unseen, tr("What another temper does is estimated by the library's curve"), QStringLiteral("M20")});
    if (forecast)
        view.lines.push_back(
            {Tone::note,
             tr("A next batch in %1, tempered at %2 for 2 h: %3 % of its blades pass; of ten, %4 to %5 "
                "(90 %), estimated")
                 .arg(words::windowText(forecast->window), words::degrees(forecast->celsius))
                 .arg(std::lround(100 * forecast->share))
                 .arg(std::lround(std::floor(forecast->of_ten.low)))
                 .arg(std::lround(std::ceil(forecast->of_ten.high))),
             QStringLiteral("M20")});
    view.lines.push_back({Tone::unseen, tr("Nothing of it is stored; the verdicts stay what they are"), {}});
    return view;
}

LedgerView planView(const Result<StudyPlan>& plan) {
    LedgerView view;
    view.table = {tr("Order of work"), {tr("Place"), tr("Mark"), tr("Level")}, {}};
    LedgerChart& chart = view.chart;
    chart.x_title = tr("pieces of each level");
    chart.y_title = tr("chance that the difference shows");
    chart.percent = true;
    chart.y_range = std::pair{0.0, 1.04};
    if (!plan) {
        chart.empty =
            tr("Say what is varied, its levels, and what difference matters. Then it stands here how many pieces "
               "show it, in which order they are to be done, and when they are read what came of it.");
        view.word = tr("Not planned");
        view.sub = words::errorText(plan.error());
        return view;
    }
    const int levels = static_cast<int>(plan->levels.size());
    LedgerChart::Line power{{}, LedgerChart::Tone::shop, false, false, {}};
    const int most = std::max(8, plan->pieces * 2);
    for (int n = 2; n <= most; ++n) power.points.emplace_back(n, powerOf(plan->difference, plan->sd, levels, n));
    chart.lines.push_back(std::move(power));
    chart.limits.push_back({plan->power, tr("%1 % asked").arg(std::lround(100 * plan->power)), true});
    const double has = powerOf(plan->difference, plan->sd, levels, plan->pieces);
    chart.points.push_back({static_cast<double>(plan->pieces), has, std::nullopt, -1, LedgerChart::Tone::shop,
                            tr("%1 pieces of each: %2 %").arg(plan->pieces).arg(std::lround(100 * has))});
    const std::vector<std::size_t> order = orderOf(*plan);
    const std::vector<std::string> marks = marksOf(*plan);
    for (std::size_t i = 0; i < order.size(); ++i) {
        view.table.rows.push_back({static_cast<int>(i + 1), q(marks[i]), q(plan->levels[order[i]])});
        view.places.push_back({});
    }
    view.state = State::pass;
    view.word = tr("%1 of each").arg(plan->pieces);
    view.sub = tr("%1 pieces show a difference of %2 in %3 of 100 studies.")
                   .arg(order.size())
                   .arg(plan->difference)
                   .arg(std::lround(100 * has));
    view.lines.push_back({Tone::note, tr("Two-sided at 5 %, pieces that scatter by %1 within a level").arg(plan->sd),
                          levels == 2 ? QStringLiteral("t") : QStringLiteral("F")});
    view.lines.push_back({Tone::note,
                          tr("Harden and temper them in this order, each level once in a round: what drifts in a day "
                             "falls on all"),
                          {}});
    if (levels > 2)
        view.lines.push_back({Tone::note,
                              tr("The difference is that of the lowest level to the highest, the others in the middle"),
                              {}});
    view.lines.push_back({Tone::unseen,
                          tr("Blades of one heat share its luck: where the heat is what varies, a piece is "
                             "a heat"),
                          {}});
    return view;
}

LedgerView studyView(const StudyPlan& plan, const StudyRead& read, const LedgerBatch& batch) {
    LedgerView view;
    view.table = {q(plan.name), {q(plan.factor), tr("Pieces"), tr("Planned"), tr("Mean"), tr("±"), tr("Scatter")}, {}};
    view.strip = 3;
    view.strip_u = 4;
    LedgerChart& chart = view.chart;
    chart.over = LedgerChart::Over::names;
    chart.y_title = tr("%1, each piece, mean with 95 %").arg(measuredName(plan.measured));
    for (const std::string& name : plan.levels) {
        const auto level = std::find_if(read.comparisons.levels.begin(), read.comparisons.levels.end(),
                                        [&](const Level& one) { return one.name == name; });
        const int row = static_cast<int>(chart.names.size());
        chart.names << q(name);
        view.places.push_back({placeOf(&batch)});
        if (level == read.comparisons.levels.end()) {
            view.table.rows.push_back({q(name), 0, plan.pieces, {}, {}, {}});
            continue;
        }
        const std::size_t n = level->values.size();
        for (std::size_t k = 0; k < n; ++k) {
            const double beside =
                0.06 + 0.28 * static_cast<double>(k) / std::max<double>(1, static_cast<double>(n) - 1);
            chart.points.push_back({row + beside, level->values[k], std::nullopt, row, LedgerChart::Tone::plain,
                                    tr("%1: %2").arg(q(name), hrc2(level->values[k]))});
        }
        chart.points.push_back(
            {row - 0.18, level->mean,
             level->known ? std::optional(std::pair{level->known->low, level->known->high}) : std::nullopt, row,
             LedgerChart::Tone::shop, tr("%1: mean %2").arg(q(name), hrc2(level->mean))});
        view.table.rows.push_back(
            {q(name), static_cast<int>(n), plan.pieces, toPlaces(level->mean, 2),
             level->known ? QVariant(toPlaces((level->known->high - level->known->low) / 2, 2)) : QVariant(),
             optional(level->sd, 2)});
    }
    const auto& pairs = read.comparisons.pairs;
    const auto differing = std::count_if(pairs.begin(), pairs.end(), [](const LevelPair& pair) { return pair.differ; });
    view.state = read.missing > 0 ? State::notYet : State::pass;
    view.word = read.missing > 0 ? tr("Not done") : differing > 0 ? tr("They differ") : tr("No difference shown");
    view.sub = read.missing > 0 ? tr("%1 of %2 pieces are still to be measured.")
                                      .arg(read.missing)
                                      .arg(plan.pieces * static_cast<int>(plan.levels.size()))
                                : tr("As planned: a difference of %1 would have shown in %2 of 100 such studies.")
                                      .arg(plan.difference)
                                      .arg(std::lround(100 * read.power_had));
    if (read.missing > 0 && differing > 0)
        view.lines.push_back(
            {Tone::caution, tr("Looking before the end and stopping when it pleases finds differences by chance"), {}});
    std::size_t told = 0;
    for (const LevelPair& pair : pairs) {
        if (++told > 4) break;
        view.lines.push_back({pair.differ ? Tone::good : Tone::note,
                              tr("%1 against %2: %3, from %4 to %5; %6")
                                  .arg(q(read.comparisons.levels[pair.a].name), q(read.comparisons.levels[pair.b].name),
                                       signedHrc(pair.difference), signedHrc(pair.known.low),
                                       signedHrc(pair.known.high), chanceText(pair.adjusted)),
                              QStringLiteral("Welch, Holm")});
    }
    if (read.comparisons.scatter_p)
        view.lines.push_back({*read.comparisons.scatter_p < 0.05 ? Tone::caution : Tone::note,
                              (*read.comparisons.scatter_p < 0.05 ? tr("They do not scatter alike; %1")
                                                                  : tr("No difference in scatter shown; %1"))
                                  .arg(chanceText(*read.comparisons.scatter_p)),
                              QStringLiteral("Brown-Forsythe")});
    return view;
}

std::vector<LedgerView::Line> weekSentences(const Week& week) {
    std::vector<LedgerView::Line> lines;
    lines.push_back(
        {Tone::note,
         week.worked.empty() ? tr("Nothing was read or tempered this week.")
         : week.worked.size() == 1
             ? tr("One batch was worked on: %1 blades, %2 readings in all.").arg(week.blades).arg(week.readings)
             : tr("%1 batches were worked on: %2 blades, %3 readings in all.")
                   .arg(week.worked.size())
                   .arg(week.blades)
                   .arg(week.readings),
         QStringLiteral("record")});
    if (week.passed.of == 0) {
        lines.push_back({Tone::note, tr("No blade of this week has an answer at every gate yet."), {}});
    } else {
        QString text = tr("%1 blades passed every gate at once").arg(shareText(week.passed));
        const bool other = week.before.of > 0 && week.chance < 0.05;
        if (week.before.of > 0)
            text +=
                tr("; %1 in the twelve weeks before: %2")
                    .arg(shareText(week.before), other ? tr("more than chance does (%1)").arg(chanceText(week.chance))
                                                       : tr("no more than chance does"));
        text += QLatin1Char('.');
        if (!week.causes.empty())
            text += QLatin1Char(' ') + tr("Most often, in %1 blades: %2.")
                                           .arg(week.causes.front().blades)
                                           .arg(words::sentence(week.causes.front().reason));
        lines.push_back({other ? Tone::caution : Tone::good, text, QStringLiteral("E33")});
    }
    if (week.shifted.empty()) {
        lines.push_back({Tone::good, tr("No oven, grade or tester left its usual limits."), QStringLiteral("3σ")});
    } else {
        QStringList names;
        for (const Week::Shifted& shifted : week.shifted) {
            if (names.size() == 3) break;
            names << tr("%1 (%2)").arg(seriesName(*shifted.series), shifted.cumulative
                                                                        ? tr("a small shift added up")
                                                                        : runRuleText(shifted.signal.rule));
        }
        lines.push_back(
            {Tone::caution,
             tr("Out of their usual limits: %1%2.")
                 .arg(names.join(QStringLiteral(", ")),
                      week.shifted.size() > 3 ? tr(" and %1 more").arg(week.shifted.size() - 3) : QString()),
             QStringLiteral("3σ")});
    }
    QStringList testers;
    for (const WeekTester& tester : week.drifting)
        testers << (tester.weeks_left ? tr("%1 drifts %2 a week, out of tolerance in about %3 weeks")
                                            .arg(q(tester.name), signedHrc(tester.per_week))
                                            .arg(std::lround(*tester.weeks_left))
                                      : tr("%1 drifts %2 a week").arg(q(tester.name), signedHrc(tester.per_week)));
    for (const WeekTester& tester : week.overdue)
        testers
            << (tester.days_since
                    ? tr("%1 was read on and last verified %2 ago").arg(q(tester.name), words::days(*tester.days_since))
                    : tr("%1 was read on and never verified").arg(q(tester.name)));
    lines.push_back({testers.isEmpty() ? Tone::good : Tone::caution,
                     testers.isEmpty() ? tr("No tester drifts, and none that was used is overdue.")
                                       : testers.join(QStringLiteral("; ")) + QLatin1Char('.'),
                     QStringLiteral("M6")});
    QStringList blocks;
    for (const WeekBlock& block : week.blocks)
        blocks << (block.months_left ? tr("%1 (%2 months left)").arg(q(block.name), words::tenths(*block.months_left))
                                     : tr("%1 (nearly full)").arg(q(block.name)));
    lines.push_back({blocks.isEmpty() ? Tone::good : Tone::caution,
                     blocks.isEmpty() ? tr("No block needs to be ordered.")
                                      : tr("Order a block in the place of %1.").arg(blocks.join(QStringLiteral(", "))),
                     QStringLiteral("M13")});
    return lines;
}

LedgerView weekView(const Week& week) {
    LedgerView view;
    const std::vector<LedgerView::Line> lines = weekSentences(week);
    const auto count = std::count_if(lines.begin(), lines.end(),
                                     [](const LedgerView::Line& line) { return line.tone == Tone::caution; });
    view.state = count > 0 ? State::borderline : State::pass;
    view.word = count == 0 ? tr("A quiet week") : count == 1 ? tr("One thing") : tr("%1 things").arg(count);
    view.sub = tr("The seven days to %1.").arg(dayText(week.last_day));
    view.table = {tr("The week to %1").arg(dayText(week.last_day)), {tr("What changed")}, {}};
    for (const LedgerView::Line& line : lines) {
        view.table.rows.push_back({line.text});
        view.tones.push_back(line.tone);
    }
    // What was worked on, what held blades back, what moved; testers and blocks have a place of their own.
    view.places.resize(lines.size());
    view.places[0] = placesOf(week.worked);
    if (!week.causes.empty()) view.places[1] = placesOf(week.causes.front().batches);
    if (!week.shifted.empty() && !week.shifted.front().series->batches.empty()) {
        const Week::Shifted& first = week.shifted.front();
        view.places[2] = {placeOf(first.series->batches[first.signal.at], first.series->blades[first.signal.at])};
    }
    return view;
}

} // namespace rollcall

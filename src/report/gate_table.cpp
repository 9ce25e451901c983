// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/gate_table.h"

#include "plot/translate.h"
#include "report/page.h"
#include "words/words.h"

#include <algorithm>

namespace rollcall {

namespace {

QString text(const std::string& words) {
    return QString::fromStdString(words);
}

template<class T>
QVariant orBlank(const std::optional<T>& value) {
    return value ? QVariant(*value) : QVariant();
}

QVariant moment(const std::optional<Instant>& at) {
    return at ? QVariant(timeOf(*at)) : QVariant();
}

std::string markOf(const Batch& batch, const std::string& blade) {
    for (const Blade& one : batch.blades) {
        if (one.id == blade) return one.mark;
    }
    return {};
}

ReportTable shotTable(const Batch& batch) {
    ReportTable table{
        tr("Steel"),
        {tr("piece"), tr("element"), tr("mass %"), tr("below %"), tr("1 sigma"), tr("time"), tr("struck out")},
        {}};
    for (const ElementReading& value : batch.certificate)
        table.rows.push_back({tr("the mill's certificate"), text(value.element), orBlank(value.percent), QVariant(),
                              QVariant(), QVariant(), QVariant()});
    for (const SteelShot& shot : batch.shots) {
        const QString piece =
            shot.blade.empty() ? shot.piece.empty() ? tr("bar") : text(shot.piece) : text(markOf(batch, shot.blade));
        for (const ElementReading& value : shot.composition.elements)
            table.rows.push_back({piece, text(value.element), orBlank(value.percent), orBlank(value.lod),
                                  orBlank(value.sigma), timeOf(shot.at), shot.struck ? tr("yes") : QVariant()});
    }
    return table;
}

ReportTable temperTable(const Batch& batch) {
    ReportTable table{tr("Tempers"), {tr("blade"), tr("round"), tr("temper"), tr("°C"), tr("hours"), tr("time")}, {}};
    for (const Blade& blade : batch.blades) {
        for (const Temper& temper : blade.tempers)
            table.rows.push_back({text(blade.mark), temper.round, temper.number, orBlank(temper.temperature_c),
                                  orBlank(temper.hours), moment(temper.time)});
    }
    return table;
}

ReportTable rungTable(const Batch& batch) {
    ReportTable table{tr("Edge"),
                      {tr("blade"), tr("force N"), tr("raise °"), tr("contact mm"), tr("edge"), tr("depth mm"),
                       tr("from heel mm"), tr("struck out")},
                      {}};
    for (const Blade& blade : batch.blades) {
        for (const EdgeRung& rung : blade.rungs)
            table.rows.push_back({text(blade.mark), orBlank(rung.force_n), orBlank(rung.raise_deg),
                                  orBlank(rung.contact_mm), words::outcomeName(rung.outcome), orBlank(rung.size_mm),
                                  orBlank(rung.place_mm), rung.struck ? tr("yes") : QVariant()});
    }
    return table;
}

ReportTable trialTable(const Batch& batch) {
    ReportTable table{
        tr("Trials"), {tr("blade"), tr("protocol"), tr("begun"), tr("entry"), tr("value"), tr("note")}, {}};
    for (const Blade& blade : batch.blades) {
        for (const Trial& trial : blade.trials) {
            int entry = 0;
            for (const TrialEvent& event : trial.events)
                table.rows.push_back({text(blade.mark), text(trial.protocol.name), timeOf(trial.begun), ++entry,
                                      event.value, text(event.text)});
        }
    }
    return table;
}

} // namespace

ReportTable gateTable(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables, Gate gate) {
    switch (gate) {
    case Gate::steel:
        return shotTable(batch);
    case Gate::heat:
        return temperTable(batch);
    case Gate::quench:
    case Gate::temper: {
        ReportTable table = readingTable(batch);
        table.title = words::gateName(gate);
        std::erase_if(table.rows, [&](const QVariantList& row) { return row[1].toString() != words::gateName(gate); });
        return table;
    }
    case Gate::edge:
        return rungTable(batch);
    case Gate::proof:
        return trialTable(batch);
    case Gate::release:
        break;
    }
    return bladeTable(batch, verdicts, tables);
}

ReportTable fractureTable(const Batch& batch) {
    ReportTable table{tr("Grain"),
                      {tr("blade"), tr("photo"), tr("pixels per mm"), tr("place"), tr("crossings"), tr("first rating"),
                       tr("second rating"), tr("struck out")},
                      {}};
    for (const Blade& blade : batch.blades) {
        for (const FracturePhoto& photo : blade.fractures) {
            for (const CountedLine& line : photo.lines)
                table.rows.push_back({text(blade.mark), text(photo.name), orBlank(photo.px_per_mm),
                                      words::zoneText(line.zone), line.count(), QVariant(), QVariant(),
                                      line.struck ? tr("yes") : QVariant()});
            for (const FractureRating& rating : photo.ratings)
                table.rows.push_back({text(blade.mark), text(photo.name), orBlank(photo.px_per_mm), QVariant(),
                                      QVariant(), rating.first, rating.second, QVariant()});
        }
    }
    return table;
}

ReportTable runTable(const std::vector<Verification>& runs, const std::vector<Tester>& testers) {
    ReportTable table{tr("Verifications"),
                      {tr("tester"), tr("block"), tr("certified"), tr("scale"), tr("readings"), tr("error"),
                       tr("spread"), tr("time")},
                      {}};
    for (const Verification& run : runs) {
        const auto tester =
            std::find_if(testers.begin(), testers.end(), [&](const Tester& one) { return one.id == run.tester; });
        double sum = 0;
        for (const double reading : run.readings) sum += reading;
        const auto [low, high] = std::minmax_element(run.readings.begin(), run.readings.end());
        const bool read = !run.readings.empty();
        const auto rounded = [](double value) { return QString::number(value, 'f', 2).toDouble(); };
        table.rows.push_back(
            {tester == testers.end() ? QString() : text(tester->name), text(run.block), run.certified, text(run.scale),
             static_cast<int>(run.readings.size()),
             read ? rounded(sum / static_cast<double>(run.readings.size()) - run.certified) : QVariant(),
             read ? rounded(*high - *low) : QVariant(), moment(run.time)});
    }
    return table;
}

std::vector<ReportTable> allTables(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables) {
    std::vector<ReportTable> sheets{bladeTable(batch, verdicts, tables), readingTable(batch)};
    for (ReportTable& table :
         std::vector<ReportTable>{shotTable(batch), temperTable(batch), rungTable(batch), trialTable(batch),
                                  fractureTable(batch), runTable(batch.verifications, batch.testers)}) {
        if (!table.rows.empty()) sheets.push_back(std::move(table));
    }
    return sheets;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/import_plan.h"

#include "core/base/number.h"
#include "logbook/database.h"
#include "logbook/logbook.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

namespace {

bool differ(const std::optional<double>& said, const std::optional<double>& before) {
    constexpr double sameQuantity = 1e-6; // 404.6F and 207C are one temperature
    return said && before && std::abs(*said - *before) > sameQuantity;
}

} // namespace

std::string testerName(const ReadingLine& line) {
    return line.tester.empty() ? "tester not named" : line.tester;
}

Result<Done> ImportPlanner::learnLogbook() {
    const auto shop = m_logbook.shop();
    if (!shop) return shop.error();
    m_plan.shop = *shop;
    for (const Block& block : m_plan.shop.blocks) m_plan.blocks[block.name] = {block.id, block.certified, {}};
    const auto batches = m_logbook.batches();
    if (!batches) return batches.error();
    for (const BatchSummary& summary : *batches) m_there[summary.name] = summary.id;
    const auto imported =
        m_logbook.database().single(QStringLiteral("SELECT 1 FROM reading WHERE identity<>'' LIMIT 1"));
    if (!imported) return imported.error();
    m_nothingImported = !imported->isValid();
    return Done{};
}

// The batch of a line, read when it is there.
Result<PlannedBatch*> ImportPlanner::batchOf(const std::string& name) {
    const auto known = m_plan.batches.find(name);
    if (known != m_plan.batches.end()) return &known->second;
    PlannedBatch planned;
    if (const auto there = m_there.find(name); there != m_there.end()) {
        const auto batch = m_logbook.batchAlone(there->second);
        if (!batch) return batch.error();
        planned.id = batch->id;
        planned.there = true;
        planned.known = {batch->grade, batch->window.low, batch->window.high, {}, batch->quench_minimum, {}, {}};
        for (const Blade& blade : batch->blades) {
            PlannedBlade one;
            one.mark = blade.mark;
            one.id = blade.id;
            one.round = blade.round;
            for (const Temper& temper : blade.tempers) {
                if (temper.round == blade.round) one.tempers = std::max(one.tempers, temper.number);
            }
            planned.places[blade.mark] = planned.blades.size();
            planned.blades.push_back(std::move(one));
        }
        planned.before = planned.blades.size();
    }
    m_plan.order.push_back(name);
    return &m_plan.batches.emplace(name, std::move(planned)).first->second;
}

// Whether a line is taken, and what it says about what it belongs to.
Result<Done> ImportPlanner::look(const ReadingLine& line, const std::string& identity) {
    std::string wrong;
    PlannedBatch* batch = nullptr;
    PlannedBlade* blade = nullptr;
    if (line.block) {
        wrong = contradictionOnBlock(line);
    } else {
        const Result<PlannedBatch*> found = batchOf(line.batch);
        if (!found) return found.error();
        batch = *found;
        const auto place = batch->places.find(line.blade);
        if (place != batch->places.end()) blade = &batch->blades[place->second];
        wrong = contradiction(line, *batch, blade);
    }
    m_plan.taken.push_back(false);
    if (!wrong.empty()) {
        reject(line.line, wrong);
        return Done{};
    }
    const Result<bool> known = isThere(line, identity);
    if (!known) return known.error();
    if (*known) {
        ++m_plan.report.already_there;
        if (blade != nullptr) learn(line, *batch, *blade);
        return Done{};
    }
    m_plan.taken.back() = true;
    ++m_plan.report.readings;
    const auto tester = std::find_if(m_plan.testers.begin(), m_plan.testers.end(),
                                     [&](const auto& t) { return t.first == testerName(line); });
    if (tester == m_plan.testers.end())
        m_plan.testers.emplace_back(testerName(line), line.decimals);
    else
        tester->second = std::max(tester->second, line.decimals);
    if (line.block) {
        PlannedBlock& block = m_plan.blocks.at(line.blade);
        if (!block.uncertainty) block.uncertainty = line.block_uncertainty;
    } else {
        plan(line, *batch);
    }
    return Done{};
}

void ImportPlanner::plan(const ReadingLine& line, PlannedBatch& batch) {
    batch.taken = true;
    const auto [place, isNew] = batch.places.try_emplace(line.blade, batch.blades.size());
    if (isNew) batch.blades.emplace_back().mark = line.blade;
    PlannedBlade& blade = batch.blades[place->second];
    learn(line, batch, blade);
    if (!blade.thickness_mm && line.thickness_mm) {
        blade.thickness_mm = line.thickness_mm;
        blade.thickness_text = line.thickness_text;
    }
    if (line.gate == Gate::quench) ++blade.at_quench;
    if (line.gate != Gate::temper) return;
    // A reading after temper 2 says that two tempers ran.
    const int temper = line.temper.value_or(0);
    blade.ran = std::max(blade.ran, temper);
    if (temper > blade.last_read) blade.after_last = 0;
    blade.last_read = std::max(blade.last_read, temper);
    if (temper == blade.last_read) ++blade.after_last;
}

// What a line says that does not contradict what was said before.
void ImportPlanner::learn(const ReadingLine& line, PlannedBatch& batch, PlannedBlade& blade) {
    const auto add = [&](BladeWishes& wishes) {
        if (line.window_low || line.window_high) {
            wishes.window_low = line.window_low;
            wishes.window_high = line.window_high;
            wishes.window_text = line.window_text;
        }
        if (line.minimum) wishes.minimum = line.minimum;
        if (wishes.grade.empty()) wishes.grade = line.grade;
        if (wishes.purpose.empty()) wishes.purpose = line.purpose;
        if (line.finished) wishes.finished = line.finished;
    };
    if (batch.there) {
        add(batch.known);
    } else {
        BladeWishes wishes = blade.wishes != nullptr ? *blade.wishes : BladeWishes();
        add(wishes);
        if (blade.wishes == nullptr || *blade.wishes != wishes) blade.wishes = m_plan.wishes(std::move(wishes));
    }
    if (!line.temper || (!line.temperature_c && !line.hours)) return;
    const auto number = static_cast<std::size_t>(*line.temper);
    if (blade.tempers_told.size() < number) blade.tempers_told.resize(number);
    const ToldTemper*& told = blade.tempers_told[number - 1];
    ToldTemper said = told != nullptr ? *told : ToldTemper();
    const bool news = (line.temperature_c && !said.temperature_c) || (line.hours && !said.hours);
    if (!news) return;
    if (line.temperature_c) said.temperature_c = line.temperature_c;
    if (line.hours) said.hours = line.hours;
    said.text += (said.text.empty() ? "" : " ") + std::string(trimmed(line.temper_text));
    told = m_plan.told(std::move(said));
}

// What one line says must not contradict its block or the lines before.
std::string ImportPlanner::contradictionOnBlock(const ReadingLine& line) {
    const auto known = m_plan.blocks.find(line.blade);
    if (known == m_plan.blocks.end()) {
        if (!line.certified) return fmt::format("the certified value of block {} is missing", line.blade);
        m_plan.blocks[line.blade] = {{}, *line.certified, {}};
    } else if (line.certified && *line.certified != known->second.certified) {
        return fmt::format("block {} is certified {}, this line says {}", line.blade, known->second.certified,
                           *line.certified);
    }
    return {};
}

// The same with its batch.
std::string ImportPlanner::contradiction(const ReadingLine& line, const PlannedBatch& batch,
                                         const PlannedBlade* blade) const {
    static const BladeWishes none;
    const BladeWishes& said = batch.there ? batch.known : blade != nullptr && blade->wishes ? *blade->wishes : none;
    const bool saysWindow = line.window_low || line.window_high;
    if (saysWindow && (said.window_low || said.window_high) &&
        (line.window_low != said.window_low || line.window_high != said.window_high))
        return fmt::format("another window than batch {} has", line.batch);
    if (differ(line.minimum, said.minimum)) return fmt::format("another minimum than batch {} has", line.batch);
    if (!line.grade.empty() && !said.grade.empty() && !sameName(line.grade, said.grade))
        return fmt::format("batch {} is {}, this line says {}", line.batch, said.grade, line.grade);
    const auto number = static_cast<std::size_t>(line.temper.value_or(0));
    if (blade == nullptr || number == 0 || number > blade->tempers_told.size()) return {};
    const ToldTemper* told = blade->tempers_told[number - 1];
    if (told != nullptr && (differ(line.temperature_c, told->temperature_c) || differ(line.hours, told->hours)))
        return fmt::format("another temperature or time for temper {} of {} than a line before", number, line.blade);
    return {};
}

// A line is there already when the logbook holds at least as many equal readings as the file up to it.
Result<bool> ImportPlanner::isThere(const ReadingLine& line, const std::string& identity) {
    if (m_nothingImported) return false;
    // An earlier Rollcall kept the whole of it.
    const Result<QVariant> count = m_logbook.database().single(
        QStringLiteral("SELECT COUNT(*) FROM reading r WHERE r.identity IN (?, ?) AND r.identity<>'' AND NOT EXISTS "
                       "(SELECT 1 FROM import_mark m WHERE m.import=r.import)"),
        {q(identity), q(line.identity())});
    if (!count) return count.error();
    return count->toInt() > 0 && ++m_ordinal[identity] <= count->toInt();
}

} // namespace rollcall

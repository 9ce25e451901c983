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

BladeWishes& ImportPlan::wishesOf(const std::string& name, const Mark& mark, const PlannedBatch& batch) {
    const auto [entry, isNew] = wishes.try_emplace(batch.there ? name : name + "\x1f" + mark);
    if (isNew && batch.there) entry->second = batch.known;
    return entry->second;
}

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
            PlannedBlade one{blade.mark, blade.id, blade.round, 0, {}, {}, {}};
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
Result<Done> ImportPlanner::look(const ReadingLine& line) {
    std::string wrong;
    PlannedBatch* batch = nullptr;
    if (line.block) {
        wrong = contradictionOnBlock(line);
    } else {
        const Result<PlannedBatch*> found = batchOf(line.batch);
        if (!found) return found.error();
        batch = *found;
        wrong = contradiction(line, *batch);
    }
    m_plan.taken.push_back(false);
    if (!wrong.empty()) {
        reject(line.line, wrong);
        return Done{};
    }
    const Result<bool> known = isThere(line);
    if (!known) return known.error();
    if (*known) {
        ++m_plan.report.already_there;
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
    if (isNew) batch.blades.push_back({line.blade, {}, 1, 0, {}, {}, {}});
    PlannedBlade& blade = batch.blades[place->second];
    if (!blade.thickness_mm && line.thickness_mm) {
        blade.thickness_mm = line.thickness_mm;
        blade.thickness_text = line.thickness_text;
    }
    ++blade.readings[{line.gate, line.gate == Gate::temper ? line.temper.value_or(0) : 0}];
    if (line.gate != Gate::temper || !line.temper) return;
    // A reading after temper 2 says that two tempers ran; one that no line describes is logged as not noted.
    for (int number = blade.tempers + 1; number <= *line.temper; ++number) {
        ToldTemper& told = batch.tempers[number][line.blade];
        if (number == *line.temper && (line.temperature_c || line.hours))
            told = {line.temperature_c, line.hours, line.temper_text};
    }
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
std::string ImportPlanner::contradiction(const ReadingLine& line, const PlannedBatch& batch) {
    BladeWishes& wishes = m_plan.wishesOf(line.batch, line.blade, batch);
    const bool saysWindow = line.window_low || line.window_high;
    if (saysWindow && (wishes.window_low || wishes.window_high) &&
        (line.window_low != wishes.window_low || line.window_high != wishes.window_high))
        return fmt::format("another window than batch {} has", line.batch);
    if (differ(line.minimum, wishes.minimum)) return fmt::format("another minimum than batch {} has", line.batch);
    if (!line.grade.empty() && !wishes.grade.empty() && !sameName(line.grade, wishes.grade))
        return fmt::format("batch {} is {}, this line says {}", line.batch, wishes.grade, line.grade);
    if (line.temper) {
        auto& said = m_said[line.batch + "\x1f" + line.blade + "\x1f" + std::to_string(*line.temper)];
        if (differ(line.temperature_c, said.first) || differ(line.hours, said.second))
            return fmt::format("another temperature or time for temper {} of {} than a line before", *line.temper,
                               line.blade);
        if (line.temperature_c) said.first = line.temperature_c;
        if (line.hours) said.second = line.hours;
    }
    if (saysWindow) {
        wishes.window_low = line.window_low;
        wishes.window_high = line.window_high;
        wishes.window_text = line.window_text;
    }
    if (line.minimum) wishes.minimum = line.minimum;
    if (wishes.grade.empty()) wishes.grade = line.grade;
    if (wishes.purpose.empty()) wishes.purpose = line.purpose;
    if (line.finished) wishes.finished = line.finished;
    return {};
}

// A line is there already when the logbook holds at least as many equal readings as the file up to it.
Result<bool> ImportPlanner::isThere(const ReadingLine& line) {
    if (m_nothingImported) return false;
    const std::string identity = line.shortIdentity();
    // An earlier Rollcall kept the whole of it.
    const Result<QVariant> count = m_logbook.database().single(
        QStringLiteral("SELECT COUNT(*) FROM reading r WHERE r.identity IN (?, ?) AND r.identity<>'' AND NOT EXISTS "
                       "(SELECT 1 FROM import_mark m WHERE m.import=r.import)"),
        {q(identity), q(line.identity())});
    if (!count) return count.error();
    return count->toInt() > 0 && ++m_ordinal[identity] <= count->toInt();
}

} // namespace rollcall

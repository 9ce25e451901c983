// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/ledger_batch.h"

#include "core/judge/expectation.h"
#include "core/judge/gate_case.h"
#include "core/proof/fracture.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

// What stands most often; of equals the first by name.
std::string mostOften(const std::map<std::string, int>& counts) {
    const auto most = std::max_element(counts.begin(), counts.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == counts.end() ? std::string() : most->first;
}

std::optional<Reason> causeOf(const Verdict& verdict) {
    if (verdict.state != State::fail && verdict.state != State::borderline) return std::nullopt;
    for (const Reason& reason : verdict.reasons) {
        if (reason.tone == Tone::bad || reason.tone == Tone::caution) return reason;
    }
    return std::nullopt;
}

LedgerMeasurement measurementOf(const Batch& batch, const Verdict& verdict, const Window& window, bool finished,
                                const Tables& tables) {
    const Measurement& m = *verdict.measurement;
    LedgerMeasurement kept;
    kept.mean = m.corrected_mean;
    kept.error = m.mean - m.corrected_mean;
    kept.u = m.budget.expanded_uncertainty;
    kept.n = m.n;
    kept.planned = batch.planOf(Gate::temper).planned_readings;
    kept.window = window;
    kept.rule = batch.rule;
    kept.uncorrected = batch.uncorrected;
    kept.finished = finished;
    if (batch.allowance)
        kept.allowance = *batch.allowance;
    else if (const auto allowed = toleranceFor(tables, "HRC", m.mean))
        kept.allowance = allowed->max_error;
    return kept;
}

bool anythingTried(const Blade& blade) {
    return !blade.rungs.empty() || !blade.trials.empty() || !blade.edges.empty();
}

} // namespace

LedgerBatch ledgerBatchOf(const Batch& batch, const Judged& judged, const Tables& tables) {
    LedgerBatch kept;
    kept.id = batch.id;
    kept.name = batch.name;
    kept.grade = batch.grade;
    kept.lot = batch.lot;
    if (batch.recipe) {
        kept.recipe = batch.recipe->name + " " + std::to_string(batch.recipe->version);
        if (const RecipeStage* soak = batch.recipe->stage(StageKind::austenitise)) {
            kept.soak_c = soak->temperature_c;
            kept.soak_minutes = soak->minutes;
        }
    }
    if (!batch.heat_runs.empty()) {
        const HeatRun& last = batch.heat_runs.back();
        kept.oven = last.oven;
        kept.medium = last.medium;
        kept.soak_c = last.set_c;
        if (last.min_minutes) kept.soak_minutes = *last.min_minutes;
    }
    Instant read = batch.created.value_or(Instant{});
    kept.made_ms = read.utc_ms;
    const auto later = [&](const std::optional<Instant>& at) {
        if (at && at->utc_ms > read.utc_ms) read = *at;
    };
    for (const HeatRun& run : batch.heat_runs) later(run.zero);

    std::map<std::string, std::vector<LedgerReading>> readings; // by blade
    for (const ReadTemper& one : readTempers(batch, tables))
        readings[one.observation.blade].push_back({one.temper, one.observation.hrc,
                                                   std::hypot(one.observation.u, one.observation.common_u),
                                                   one.observation.parameter});
    std::map<std::string, int> people;
    std::map<std::string, int> testers;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        LedgerBlade one;
        const BladeClaim claim = batch.claimOf(blade);
        one.id = blade.id;
        one.mark = blade.mark;
        one.grade = claim.grade;
        one.purpose = claim.purpose;
        one.round = blade.round;
        kept.readings += static_cast<int>(blade.readings.size());
        for (const Reading& reading : blade.readings) {
            later(reading.time);
            if (reading.gate != Gate::temper || reading.struck) continue;
            ++people[reading.person];
            if (const Tester* tester = batch.tester(reading.tester)) ++testers[tester->name];
        }
        const int needed = requiredTempers(batch, blade, tables);
        for (const Temper& temper : blade.tempers) {
            later(temper.time);
            if (temper.round != blade.round) continue;
            ++one.tempers;
            one.last_temper_c = temper.temperature_c.value_or(0);
            // One that was meant from the start is no rework: it follows the one before without a reading between.
            const bool readBefore = std::any_of(blade.readings.begin(), blade.readings.end(), [&](const Reading& r) {
                return r.gate == Gate::temper && r.round == temper.round && !r.struck && r.after_temper &&
                       *r.after_temper >= needed && *r.after_temper < temper.number;
            });
            if (temper.number <= needed || !readBefore) continue;
            ++one.spare_tempers;
            one.spare_hours += temper.hours.value_or(0);
        }
        for (const Gate gate : allGates) {
            const auto& verdict = judged.verdicts().at(i, gate);
            if (!verdict) continue;
            one.states[indexOf(gate)] = verdict->state;
            if (auto cause = causeOf(*verdict)) one.causes.emplace_back(gate, std::move(*cause));
            if (!verdict->measurement) continue;
            if (gate == Gate::quench) one.quenched_hrc = verdict->measurement->corrected_mean;
            if (gate == Gate::temper)
                one.tempered = measurementOf(batch, *verdict, *claim.window, batch.isFinished(blade), tables);
        }
        // Of a blade with a grade of its own the batch's curve says nothing.
        if (const auto own = readings.find(blade.id); own != readings.end() && claim.grade == batch.grade)
            one.readings = std::move(own->second);
        if (anythingTried(blade)) {
            StudyPiece piece = studyPiece(batch, i, judged.facts(i));
            if (piece.held || piece.failed_as || !piece.trials.empty() || !piece.counts.empty())
                one.piece = std::make_shared<const StudyPiece>(std::move(piece));
        }
        if (const std::vector<FracturePhoto> photos = fracturesOf(blade); !photos.empty()) {
            const FractureReading reading = readFractures(photos);
            if (reading.says == FractureReading::Says::counted || reading.says == FractureReading::Says::rated)
                one.grain = reading.g;
        }
        kept.blades.push_back(std::move(one));
    }
    kept.person = mostOften(people);
    kept.tester = mostOften(testers);
    kept.read_ms = read.utc_ms;
    kept.read_offset = read.offset_minutes;
    return kept;
}

namespace {

bool isEarlier(const LedgerBatch* a, const LedgerBatch* b) {
    return a->read_ms != b->read_ms ? a->read_ms < b->read_ms : a->id < b->id;
}

} // namespace

void Ledger::put(LedgerBatch batch) {
    drop(batch.id);
    const auto kept = std::make_shared<const LedgerBatch>(std::move(batch));
    m_batches.emplace(kept->id, kept);
    m_ordered.insert(std::upper_bound(m_ordered.begin(), m_ordered.end(), kept.get(), isEarlier), kept.get());
}

void Ledger::drop(const std::string& id) {
    const auto found = m_batches.find(id);
    if (found == m_batches.end()) return;
    m_ordered.erase(std::lower_bound(m_ordered.begin(), m_ordered.end(), found->second.get(), isEarlier));
    m_batches.erase(found);
}

const LedgerBatch* Ledger::batch(const std::string& id) const {
    const auto found = m_batches.find(id);
    return found == m_batches.end() ? nullptr : found->second.get();
}

std::vector<std::string> Ledger::grades() const {
    std::map<std::string, int> counts;
    for (const auto& [id, batch] : m_batches) {
        for (const LedgerBlade& blade : batch->blades) {
            if (!blade.grade.empty()) ++counts[blade.grade];
        }
    }
    std::vector<std::pair<std::string, int>> all(counts.begin(), counts.end());
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.second > b.second; });
    std::vector<std::string> names;
    for (const auto& [name, count] : all) names.push_back(name);
    return names;
}

} // namespace rollcall

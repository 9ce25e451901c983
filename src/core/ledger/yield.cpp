// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/yield.h"

#include <algorithm>
#include <chrono>

namespace rollcall {

namespace {

bool firstGo(const LedgerBlade& blade, Gate gate) {
    if (blade.at(gate) != State::pass) return false;
    if (gate == Gate::temper && blade.spare_tempers > 0) return false;
    return blade.round == 1 || gate == Gate::steel;
}

bool answered(const std::optional<State>& state) {
    return state && (*state == State::pass || *state == State::borderline || *state == State::fail);
}

// Batches come in order: one that is there already is the last.
void add(std::vector<const LedgerBatch*>& batches, const LedgerBatch* batch) {
    if (batches.empty() || batches.back() != batch) batches.push_back(batch);
}

} // namespace

std::optional<bool> passedAtOnce(const LedgerBlade& blade) {
    bool any = false;
    bool all = true;
    for (const Gate gate : allGates) {
        const auto state = blade.at(gate);
        if (gate == Gate::release || !state || *state == State::excused) continue;
        if (*state == State::notYet) return std::nullopt;
        any = true;
        all = all && firstGo(blade, gate);
    }
    return any ? std::optional(all) : std::nullopt;
}

YieldLedger yieldLedger(const Ledger& ledger, const std::string& grade) {
    YieldLedger answer;
    std::array<std::pair<int, int>, gateCount> gates{};
    struct Counts {
        int passed = 0;
        int of = 0;
        int rehardened = 0;
        std::vector<const LedgerBatch*> batches;
    };
    std::map<std::pair<int, int>, Counts> months;
    std::map<std::pair<Gate, Fact>, YieldLedger::Cause> causes;
    int passed = 0;
    int of = 0;
    for (const LedgerBatch* batch : ledger.batches()) {
        const std::chrono::year_month_day date{
            std::chrono::sys_days{std::chrono::days{static_cast<int>(batch->day())}}};
        int spare = 0;
        double hours = 0;
        for (const LedgerBlade& blade : batch->blades) {
            if (!grade.empty() && blade.grade != grade) continue;
            answer.rehardenings += blade.round - 1;
            spare = std::max(spare, blade.spare_tempers);
            hours = std::max(hours, blade.spare_hours);
            for (const Gate gate : allGates) {
                if (!answered(blade.at(gate))) continue;
                ++gates[indexOf(gate)].second;
                const bool passedHere = firstGo(blade, gate);
                gates[indexOf(gate)].first += passedHere ? 1 : 0;
                if (!passedHere) add(answer.held[indexOf(gate)], batch);
                const Reason* reason = blade.causeAt(gate);
                if (reason == nullptr || gate == Gate::release) continue;
                YieldLedger::Cause& cause = causes[{gate, reason->fact}];
                cause.gate = gate;
                cause.reason = *reason;
                ++cause.blades;
                add(cause.batches, batch);
            }
            const auto once = passedAtOnce(blade);
            if (!once) continue;
            auto& month = months[{int(date.year()), static_cast<int>(unsigned(date.month()))}];
            month.passed += *once ? 1 : 0;
            ++month.of;
            month.rehardened += blade.round - 1;
            if (!*once) add(month.batches, batch);
            passed += *once ? 1 : 0;
            ++of;
        }
        answer.spare_tempers += spare;
        answer.spare_hours += hours;
    }
    for (const Gate gate : allGates)
        answer.gates[indexOf(gate)] = Share::from(gates[indexOf(gate)].first, gates[indexOf(gate)].second);
    for (const auto& [when, month] : months)
        answer.months.push_back(
            {when.first, when.second, Share::from(month.passed, month.of), month.rehardened, month.batches});
    answer.all = Share::from(passed, of);
    for (auto& [key, cause] : causes) answer.causes.push_back(std::move(cause));
    std::stable_sort(answer.causes.begin(), answer.causes.end(),
                     [](const auto& a, const auto& b) { return a.blades > b.blades; });
    return answer;
}

} // namespace rollcall

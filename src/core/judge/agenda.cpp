// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"

#include "core/judge/gate_case.h"
#include "core/judge/release_judge.h"

#include <algorithm>
#include <optional>

namespace rollcall {

namespace {

int urgency(const NextStep& next) {
    switch (next.act) {
    case Act::verifyTester:
    case Act::verifyOnHarderBlock:
    case Act::clearCrack:
        return 0;
    case Act::takeReadings:
    case Act::readThicker:
    case Act::markBlade:
    case Act::takeShot:
    case Act::takeRung:
    case Act::runTrial:
    case Act::countGrain:
    case Act::tryFiles:
        return 1;
    case Act::readAgain:
    case Act::mapReadings:
    case Act::clearConflict:
    case Act::backUpRebound:
    case Act::lookIntoSurprise:
    case Act::chooseSet:
    case Act::noteEdge:
    case Act::measureDamage:
    case Act::fileEdge:
        return 2;
    case Act::logTemper:
    case Act::temperAgain:
    case Act::setWindow:
    case Act::startHeat:
        return 3;
    case Act::coldTreat: // within the hour: austenite settles
        return 3;
    case Act::reharden:
    case Act::repairDamage:
    case Act::addGrade:
    case Act::returnBar:
    case Act::otherUse:
    case Act::scrap:
    case Act::backToSteel:
    case Act::falseSoftness:
    case Act::makerDecides:
    case Act::acceptOrReturn:
    case Act::breakCoupon:
    case Act::lookAtHeat:
    case Act::reassign:
    case Act::tellApart:
    case Act::hardenFiner:
    case Act::answerGates:
    case Act::sign:
        return 4;
    case Act::nothing:
    case Act::done:
    case Act::out:
        return 5;
    }
    return 5;
}

// Somebody has signed for what is so now, and nothing is to be done to the blade.
bool isSettled(const Blade& blade, const BladeVerdicts& verdicts) {
    const auto last = std::find_if(blade.signatures.rbegin(), blade.signatures.rend(),
                                   [&](const Signature& one) { return one.round == blade.round; });
    if (last == blade.signatures.rend() || last->disposition == Disposition::temperAgain ||
        last->disposition == Disposition::reharden)
        return false;
    const bool damaged = openCrack(blade).has_value() || openDamage(blade) != nullptr;
    if (damaged && last->disposition == Disposition::release) return false;
    return changedSince(last->basis, releaseBasis(verdicts)).empty();
}

// Gate by gate. Quench lies behind a blade that was tempered, and what the heat did is read there: neither Heat nor an
// undecided steel holds a blade up. From Temper on the first gate that does not pass speaks, whatever was tried behind
// it: hardness before the edge, the edge before the structure.
const Verdict* firstOpen(const Batch& batch, std::size_t blade, const BatchVerdicts& verdicts) {
    const Blade& one = batch.blades[blade];
    const Verdict* current = nullptr;
    for (const Gate gate : allGates) {
        const std::optional<Verdict>& verdict = verdicts.at(blade, gate);
        if (!verdict || verdict->state == State::excused) continue;
        const bool begun =
            verdict->taken > 0 || !verdict->left_out.empty() || (gate == Gate::temper && lastTemper(one) > 0);
        const bool early = current != nullptr && (current->gate == Gate::steel || current->gate == Gate::heat);
        const bool open =
            current == nullptr || current->state == State::pass || (early && current->state != State::notYet);
        const bool holds = current != nullptr && current->state != State::pass && current->gate == Gate::temper;
        if (holds && !open) break;
        if (begun || open) current = &*verdict;
        const bool later = indexOf(gate) > indexOf(Gate::temper);
        if (later && current == &*verdict && current->state != State::pass) break;
    }
    return current;
}

// Where another gate asks for a temper, Temper knows which one.
const NextStep& withTemperature(const Verdict& asks, const std::optional<Verdict>& temper) {
    const bool known = asks.next.act == Act::logTemper && temper && temper->next.act == Act::logTemper;
    return known ? temper->next : asks.next;
}

} // namespace

const std::vector<StepOrderRow>& stepOrder() {
    static const std::vector<StepOrderRow> rows{
        {StepOrder::out, "it is out of the batch", "nothing; at Proof its fracture"},
        {StepOrder::settled, "somebody has signed for what is so now, and no damage is open", "nothing"},
        {StepOrder::crack, "a crack or break is marked or was seen on the rod, and not cleared", "clear the crack"},
        {StepOrder::steel, "Steel is asked and fails, and it is ours to harden", "the step of Steel"},
        {StepOrder::gate,
         "a gate does not pass: Steel and Heat while nobody has looked; Quench before the first temper; then Temper, "
         "Edge, Proof, Release in this order",
         "the step of the first of them, which orders within itself: measurement, surface, reversible, irreversible"},
        {StepOrder::damage, "a chip, a tip, a bend or a burn is marked and not cleared", "repair, then look again"},
        {StepOrder::nothing, "otherwise", "nothing"}};
    return rows;
}

std::string stepOrderText() {
    std::string text = "### The order of steps\n\n| | the first row that fits | what speaks |\n|---|---|---|\n";
    int number = 0;
    for (const StepOrderRow& row : stepOrder())
        text += "| " + std::to_string(++number) + " | " + row.when + " | " + row.speaks + " |\n";
    return text + "\n";
}

StepPlace stepPlace(const Batch& batch, std::size_t i, const BatchVerdicts& verdicts) {
    const Blade& blade = batch.blades[i];
    const Verdict* current = firstOpen(batch, i, verdicts);
    const bool open = current != nullptr && current->state != State::pass;
    if (blade.fate) { // E13
        const bool fracture = open && current->gate == Gate::proof;
        return fracture && !isSettled(blade, verdicts.blades[i]) ? StepPlace{StepOrder::gate, current}
                                                                 : StepPlace{StepOrder::out};
    }
    if (isSettled(blade, verdicts.blades[i])) return {StepOrder::settled};
    if (openCrack(blade)) return {StepOrder::crack, current};
    const std::optional<Verdict>& steel = verdicts.at(i, Gate::steel);
    if (steel && steel->state == State::fail && !batch.isFinished(blade)) return {StepOrder::steel, &*steel};
    if (open) return {StepOrder::gate, current};
    if (openDamage(blade) != nullptr) return {StepOrder::damage};
    return {};
}

std::vector<Task> agenda(const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<Task> tasks;
    for (std::size_t i = 0; i < verdicts.blades.size(); ++i) {
        const StepPlace place = stepPlace(batch, i, verdicts);
        switch (place.order) {
        case StepOrder::crack:
            tasks.push_back(
                {i, place.verdict != nullptr ? place.verdict->gate : Gate::release, {Act::clearCrack}, State::fail});
            break;
        case StepOrder::steel:
        case StepOrder::gate:
            tasks.push_back({i, place.verdict->gate, withTemperature(*place.verdict, verdicts.at(i, Gate::temper)),
                             place.verdict->state});
            break;
        case StepOrder::damage:
            tasks.push_back({i, Gate::release, {Act::repairDamage}, State::borderline});
            break;
        case StepOrder::out:
        case StepOrder::settled:
        case StepOrder::nothing:
            break;
        }
    }
    std::stable_sort(tasks.begin(), tasks.end(),
                     [](const Task& a, const Task& b) { return urgency(a.next) < urgency(b.next); });
    return tasks;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"

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
    return changedSince(last->basis, releaseBasis(verdicts)).empty();
}

} // namespace

std::vector<Task> agenda(const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<Task> tasks;
    for (std::size_t i = 0; i < verdicts.blades.size(); ++i) {
        const Verdict* current = nullptr;
        for (const Gate gate : allGates) {
            const std::optional<Verdict>& verdict = verdicts.at(i, gate);
            if (!verdict || verdict->state == State::excused) continue;
            const bool begun = verdict->taken > 0 || !verdict->left_out.empty() ||
                               (gate == Gate::temper && lastTemper(batch.blades[i]) > 0);
            // What the heat did is read at Quench, and a wrong steel does not stop a batch by itself: neither holds it
            // up.
            const bool early = current != nullptr && (current->gate == Gate::steel || current->gate == Gate::heat);
            const bool open =
                current == nullptr || current->state == State::pass || (early && current->state != State::notYet);
            if (begun || open) current = &*verdict;
        }
        if (current == nullptr || current->state == State::pass || isSettled(batch.blades[i], verdicts.blades[i]))
            continue;
        tasks.push_back({i, current->gate, current->next, current->state});
    }
    std::stable_sort(tasks.begin(), tasks.end(),
                     [](const Task& a, const Task& b) { return urgency(a.next) < urgency(b.next); });
    return tasks;
}

} // namespace rollcall

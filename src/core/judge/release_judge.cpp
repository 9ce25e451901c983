// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/release_judge.h"

#include "core/base/number.h"
#include "core/judge/gate_case.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace rollcall {

namespace {

std::map<std::string, std::string> parsed(const std::string& basis) {
    std::map<std::string, std::string> gates;
    std::size_t at = 0;
    while (at < basis.size()) {
        const std::size_t end = std::min(basis.find("; ", at), basis.size());
        const std::string one = basis.substr(at, end - at);
        const std::size_t equals = one.find('=');
        // What is compared is verdict and mean; the rest says what they rested on.
        if (equals != std::string::npos)
            gates[one.substr(0, equals)] = one.substr(equals + 1, one.find(" U", equals) - equals - 1);
        at = end + 2;
    }
    return gates;
}

Suggestion suggestionFor(const Batch& batch, const Blade& blade, const BladeVerdicts& verdicts,
                         const std::vector<OpenGate>& open, const Tables& tables) {
    if (openCrack(blade)) return {Disposition::scrap, Gate::release, {}, 0};
    if (isUntempered(batch, blade)) return {Disposition::temperAgain, Gate::temper, {}, 0};
    if (openDamage(blade) != nullptr) return {Disposition::hold, Gate::release, {}, 0};
    if (open.empty()) return {Disposition::release, Gate::release, {}, 0};
    // What failed weighs most, and of it what lies deepest: a blade soft from the quench is not tempered right.
    for (const OpenGate& one : open) {
        if (one.state != State::fail) continue;
        const std::optional<Verdict>& verdict = verdicts[indexOf(one.gate)];
        const bool heat = one.gate == Gate::quench || one.gate == Gate::temper || one.next.act == Act::hardenFiner;
        if (!heat) return {Disposition::hold, one.gate, {}, 0};
        const bool finished = batch.isFinished(blade);
        if (!finished && blade.round - 1 < batch.rehardening_limit)
            return {Disposition::reharden, one.gate, {}, blade.round + 1};
        if (verdict->measurement && one.gate == Gate::temper) {
            const std::string purpose =
                purposeThatHolds(batch.claimOf(blade).purpose, verdict->measurement->decided_mean, tables);
            if (!purpose.empty()) return {Disposition::otherPurpose, one.gate, purpose, 0};
        }
        return {finished ? Disposition::sendBack : Disposition::scrap, one.gate, {}, 0};
    }
    for (const OpenGate& one : open) {
        if (one.gate == Gate::temper && (one.next.act == Act::temperAgain || one.next.act == Act::logTemper))
            return {Disposition::temperAgain, one.gate, {}, 0};
    }
    return {Disposition::hold, open.front().gate, {}, 0};
}

} // namespace

std::string releaseBasis(const BladeVerdicts& verdicts) {
    std::string basis;
    for (const Gate gate : allGates) {
        const std::optional<Verdict>& verdict = verdicts[indexOf(gate)];
        if (gate == Gate::release || !verdict) continue;
        basis += fmt::format("{}{}={}", basis.empty() ? "" : "; ", storedName(gate), nameOf(verdict->state));
        if (const auto& m = verdict->measurement)
            basis += fmt::format(" {:.2f} U{:.2f} n{}", m->decided_mean, m->decided_uncertainty, m->n);
    }
    return basis;
}

std::vector<BasisChange> changedSince(const std::string& basis, const std::string& now) {
    const std::map<std::string, std::string> then = parsed(basis);
    const std::map<std::string, std::string> present = parsed(now);
    std::vector<BasisChange> changes;
    for (const Gate gate : allGates) {
        const auto was = then.find(storedName(gate));
        const auto is = present.find(storedName(gate));
        const std::string before = was == then.end() ? "" : was->second;
        const std::string after = is == present.end() ? "" : is->second;
        if (before != after) changes.push_back({nameOf(gate), before, after});
    }
    return changes;
}

ReleaseAnswer releaseAnswer(const Batch& batch, std::size_t blade, const BladeVerdicts& verdicts,
                            const Tables& tables) {
    const Blade& one = batch.blades[blade];
    ReleaseAnswer answer;
    answer.out = one.fate.has_value();
    answer.cracked = openCrack(one).has_value();
    answer.damaged = openDamage(one) != nullptr;
    // What did not harden has nothing to temper.
    const std::optional<Verdict>& quench = verdicts[indexOf(Gate::quench)];
    answer.untempered = isUntempered(batch, one) && !(quench && quench->state == State::fail);
    for (const std::optional<Verdict>& verdict : verdicts)
        answer.struck = answer.struck || (verdict && verdict->has(Fact::struckMatters));
    for (const Gate gate : allGates) {
        const std::optional<Verdict>& verdict = verdicts[indexOf(gate)];
        if (gate == Gate::release || !batch.planOf(gate).required || !verdict) continue;
        // Files that show a blade hardened cannot always confirm the minimum; its temper has answered since.
        if (gate == Gate::quench && verdict->has(Fact::filesHardened) && lastTemper(one) > 0) continue;
        if (verdict->state != State::pass && verdict->state != State::excused)
            answer.open.push_back({gate, verdict->state, verdict->next});
    }
    answer.suggestion = suggestionFor(batch, one, verdicts, answer.open, tables);
    for (const Signature& signature : one.signatures) {
        if (signature.round == one.round) answer.signature = &signature;
    }
    if (answer.signature != nullptr) answer.changed = changedSince(answer.signature->basis, releaseBasis(verdicts));
    return answer;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gate_case.h"
#include "core/judge/release_judge.h"
#include "core/judge/rules/rules.h"

namespace rollcall {

namespace {

/// What is known of one blade at Release.
struct ReleaseOfBlade {
    const Blade& blade;
    ReleaseAnswer answer;

    bool isDecided() const { return answer.signature != nullptr && answer.changed.empty(); }
    NextStep::With with(Act, const Findings&) const { return {}; }
};

Tone toneOf(Disposition disposition) {
    switch (disposition) {
    case Disposition::release:
        return Tone::good;
    case Disposition::scrap:
        return Tone::bad;
    case Disposition::hold:
        return Tone::caution;
    default:
        return Tone::note;
    }
}

void crackOfBlade(const ReleaseOfBlade& r, Findings& f) {
    sayCrack(r.blade, f);
}

// E47, E58. What is to be put right, or needs a reason, before it goes.
void damage(const ReleaseOfBlade& r, Findings& f) {
    if (const DamageMark* mark = openDamage(r.blade))
        f.say(Fact::damageOpen, Tone::caution, "E47", {mark->size_mm.value_or(0)}, {mark->kind});
    if (r.answer.untempered) f.say(Fact::untempered, Tone::bad, "E65");
    if (r.answer.struck) f.say(Fact::struckMatters, Tone::caution, "E58");
}

void signature(const ReleaseOfBlade& r, Findings& f) {
    if (r.answer.signature == nullptr) return;
    const Signature& signature = *r.answer.signature;
    for (const BasisChange& change : r.answer.changed)
        f.say(Fact::signatureStale, Tone::caution, "release", {}, {signature.by, change.gate, change.was, change.is});
    if (r.isDecided() && signature.disposition == Disposition::release && r.answer.needsReason(signature.disposition))
        f.say(Fact::signedOver, Tone::caution, "release", {}, {signature.by, signature.reason});
    else
        f.say(Fact::signedFor, r.isDecided() ? toneOf(signature.disposition) : Tone::note, "release", {},
              {nameOf(signature.disposition), signature.by, signature.reason});
}

void gates(const ReleaseOfBlade& r, Findings& f) {
    for (const OpenGate& open : r.answer.open)
        f.say(Fact::gateMissing,
              open.state == State::fail         ? Tone::bad
              : open.state == State::borderline ? Tone::caution
                                                : Tone::open,
              "release", {double(indexOf(open.gate)), double(open.state)}, {nameOf(open.gate)});
    if (r.answer.open.empty()) f.say(Fact::allAnswered, Tone::good, "release");
}

void suggestion(const ReleaseOfBlade& r, Findings& f) {
    if (r.isDecided()) return;
    const Suggestion& s = r.answer.suggestion;
    const std::string why = s.disposition == Disposition::otherPurpose ? s.purpose
                            : s.disposition == Disposition::reharden   ? std::to_string(s.next_round)
                                                                       : std::string();
    f.say(Fact::suggested, Tone::note, "release", {}, {nameOf(s.disposition), why});
}

GateRules<ReleaseOfBlade> releaseRules() {
    return {Gate::release,
            {{{"crack", "damage marked", {Fact::crackSeen}}, crackOfBlade},
             {{"damage",
               "damage marked; a heat, a reading or a file as quenched; readings struck out",
               {Fact::damageOpen, Fact::untempered, Fact::struckMatters}},
              damage},
             {{"signature", "a signature of this round", {Fact::signatureStale, Fact::signedOver, Fact::signedFor}},
              signature},
             {{"gates", "the gates that are asked", {Fact::gateMissing, Fact::allAnswered}}, gates},
             {{"suggestion", "no signature that stands", {Fact::suggested}}, suggestion}},
            {{{{Fact::signedFor, Tone::bad}}, State::fail, Act::done},
             {{Fact::crackSeen}, State::fail, Act::clearCrack},
             {{Fact::untempered}, State::fail, Act::logTemper},
             {{Fact::damageOpen}, State::borderline, Act::repairDamage},
             {{Fact::signatureStale, Fact::gateMissing}, State::borderline, Act::answerGates},
             {{Fact::signatureStale}, State::borderline, Act::sign},
             {{Fact::signedOver}, State::pass, Act::done},
             {{{Fact::signedFor, Tone::good}}, State::pass, Act::done},
             {{{Fact::signedFor, Tone::caution}}, State::borderline, Act::done},
             {{Fact::signedFor}, State::notYet, Act::done},
             {{Fact::gateMissing}, State::notYet, Act::answerGates},
             {{Fact::struckMatters}, State::borderline, Act::makerDecides},
             {{}, State::notYet, Act::sign}}};
}

const GateRules<ReleaseOfBlade>& releaseGate() {
    static const GateRules<ReleaseOfBlade> gate = releaseRules();
    return gate;
}

} // namespace

GateTable releaseTable() {
    return releaseGate().table();
}

Verdict judgeRelease(const Batch& batch, std::size_t index, const BladeVerdicts& verdicts, const Tables& tables) {
    const Blade& blade = batch.blades[index];
    if (auto excused = excusedVerdict(blade, Gate::release)) return *excused;
    const ReleaseOfBlade release{blade, releaseAnswer(batch, index, verdicts, tables)};
    Verdict verdict = releaseGate().judge(blade, release);
    verdict.taken = release.answer.signature != nullptr ? 1 : 0;
    return verdict;
}

} // namespace rollcall

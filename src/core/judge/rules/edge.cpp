// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"
#include "core/judge/rules/rules.h"

#include <algorithm>
#include <string_view>

namespace rollcall {

namespace {

const char* word(EdgeOutcome outcome) {
    switch (outcome) {
    case EdgeOutcome::held:
        return "true";
    case EdgeOutcome::set:
        return "set";
    case EdgeOutcome::roll:
        return "roll";
    case EdgeOutcome::chip:
        return "chip";
    case EdgeOutcome::crack:
        return "crack";
    }
    return "";
}

bool isBrittle(const EdgeRung& rung) {
    return rung.outcome == EdgeOutcome::chip || rung.outcome == EdgeOutcome::crack;
}

/// What is known of one blade at Edge.
struct EdgeOfBlade {
    EdgeOfBlade(const Batch& batch, const Blade& b, std::optional<double> hrc, const Tables& t)
        : glass_hard(isUntempered(batch, b)), blade(b), tables(t), ask(edgeAskOf(batch)), rungs(rungsOf(b)), read(hrc),
          assumed(edgeHardness(batch, hrc)), ladder(readLadder(t, edgeOf(b), assumed, rungs, ask.rung)) {}

    NextStep::With with(Act act, const Findings& findings) const {
        if (act != Act::takeRung) return {};
        if (findings.has(Fact::askedFlexOpen)) return {};
        if (findings.has(Fact::localDamage) || ask.by_hand) return ask.rung;
        if (findings.has(Fact::askedRungHeld)) return ladder.meaningful.value_or(ask.rung);
        return ladder.next.value_or(ask.rung);
    }

    bool glass_hard = false;
    const Blade& blade;
    const Tables& tables;
    EdgeAsk ask;
    std::vector<EdgeRung> rungs;
    std::optional<double> read;
    std::optional<double> assumed; ///< HRC, where none is read
    LadderAnswer ladder;
};

void crackOfEdge(const EdgeOfBlade& e, Findings& f) {
    sayCrack(e.blade, f);
    if (e.glass_hard) f.say(Fact::untempered, Tone::bad, "E65");
}

void geometry(const EdgeOfBlade& e, Findings& f) {
    if (!edgeOf(e.blade)) f.say(Fact::edgeNotMeasured, Tone::open, "M27");
    if (!e.read && e.assumed) f.say(Fact::hardnessAssumed, Tone::note, "M27", {*e.assumed});
}

// E31. What an earlier edge did is read with that edge's geometry, and proves nothing for the present one but what it
// held where it was no stouter.
void earlier(const EdgeOfBlade& e, Findings& f) {
    for (const EarlierEdge& one : earlierEdges(e.blade)) {
        const LadderAnswer then = readLadder(e.tables, one.geometry, e.assumed, one.rungs, e.ask.rung);
        double held = 0;
        double failed = 0;
        const char* why = "none";
        for (const RungAnswer& answer : then.rungs) {
            (one.rungs[answer.rung].failed() ? failed : held) += 1;
            if (answer.cause == DamageCause::heat) why = "heat";
            if (answer.cause == DamageCause::unknown && std::string_view(why) != "heat") why = "unknown";
            const bool thin = answer.cause == DamageCause::geometry || answer.cause == DamageCause::yields;
            if (thin && std::string_view(why) == "none") why = "geometry";
        }
        f.say(Fact::earlierEdge, std::string_view(why) == "heat" ? Tone::caution : Tone::note, "E31",
              {one.geometry.behind_edge_mm, one.geometry.angle_per_side_deg, held, failed, one.carries ? 1.0 : 0.0},
              {why});
    }
}

void grinding(const EdgeOfBlade& e, Findings& f) {
    if (e.blade.grinding.empty() || !e.blade.grinding.back().colour) return;
    const bool cleared = e.blade.grinding.back().cleared;
    f.say(cleared ? Fact::burnCleared : Fact::burntInGrinding, cleared ? Tone::good : Tone::caution, "edge");
}

void sounds(const EdgeOfBlade& e, Findings& f) {
    const bool heard = std::any_of(e.ladder.rungs.begin(), e.ladder.rungs.end(),
                                   [&](const RungAnswer& answer) { return e.rungs[answer.rung].sound; });
    if (heard) f.say(Fact::soundHeard, Tone::caution, "edge");
}

// School one: the edge flexed over the rod by hand, at about the sharpening angle.
void byHand(const EdgeOfBlade& e, Findings& f) {
    if (!e.ask.by_hand) return;
    const EdgeRung* failed = nullptr;
    for (const RungAnswer& answer : e.ladder.rungs) {
        if (e.rungs[answer.rung].failed()) failed = &e.rungs[answer.rung];
    }
    if (failed != nullptr) return f.say(isBrittle(*failed) ? Fact::flexChipped : Fact::flexBent, Tone::caution, "M28");
    if (e.ladder.rungs.empty()) return f.say(Fact::askedFlexOpen, Tone::open, "M28");
    f.say(Fact::flexHeld, Tone::good, "M28");
    const EdgeLoadStep meaningful = e.ladder.meaningful.value_or(EdgeLoadStep{90, 45});
    f.say(Fact::weakEvidence, Tone::note, "M28", {meaningful.force_n, meaningful.raise_deg});
}

// What explains the failures.
void failures(const EdgeOfBlade& e, Findings& f) {
    for (const RungAnswer& answer : e.ladder.rungs) {
        const EdgeRung& rung = e.rungs[answer.rung];
        const std::vector<double> numbers{rung.size_mm.value_or(0), answer.damage_thickness_mm.value_or(0),
                                          answer.expected ? answer.expected->yield_thickness_mm : 0.0,
                                          rung.force_n.value_or(0), rung.raise_deg.value_or(0)};
        switch (answer.cause) {
        case DamageCause::none:
            break;
        case DamageCause::yields:
            f.say(Fact::yieldsAnyway, Tone::note, "M27", numbers, {word(rung.outcome)});
            break;
        case DamageCause::geometry:
            f.say(Fact::geometryExplains, Tone::note, "M27", numbers, {word(rung.outcome)});
            break;
        case DamageCause::unknown:
            f.say(Fact::damageNotExplained, Tone::caution, "M27", {}, {word(rung.outcome)});
            break;
        case DamageCause::heat:
            f.say(Fact::heatTreatmentAsked, answer.local ? Tone::caution : Tone::bad, "M28", numbers,
                  {word(rung.outcome)});
            if (answer.local) f.say(Fact::localDamage, Tone::caution, "edge", {rung.place_mm.value_or(0)});
            if (answer.gross) f.say(isBrittle(rung) ? Fact::grosslyHard : Fact::grosslySoft, Tone::bad, "M28");
            break;
        }
    }
}

void asked(const EdgeOfBlade& e, Findings& f) {
    if (e.ladder.rungs.empty()) f.say(Fact::noRungTaken, Tone::open, "M28");
    if (e.ask.by_hand) return;
    const std::vector<double> rung{e.ask.rung.force_n, e.ask.rung.raise_deg};
    if (e.ladder.asked_held) return f.say(Fact::askedRungHeld, Tone::good, "M28", rung);
    const bool failed = e.ladder.asked_failed;
    f.say(Fact::askedRungOpen, failed ? Tone::caution : Tone::open, "M28", rung);
    if (failed && !e.ladder.next) f.say(Fact::ladderEnds, Tone::note, "M28");
}

void strength(const EdgeOfBlade& e, Findings& f) {
    if (e.ask.by_hand || e.ladder.rungs.empty()) return;
    if (e.ladder.strong) f.say(Fact::strongEdge, Tone::good, "M27");
    const bool best = std::any_of(e.ladder.rungs.begin(), e.ladder.rungs.end(), [&](const RungAnswer& answer) {
        const EdgeRung& rung = e.rungs[answer.rung];
        return rung.outcome == EdgeOutcome::set && !rung.failed() && rung.force_n.value_or(0) >= 199 &&
               rung.raise_deg.value_or(0) >= 44;
    });
    if (best) f.say(Fact::asGoodAsItGets, Tone::good, "M28");
    if (!e.ladder.weak) return;
    // Where no rung of the ladder would mean more, nothing more can be asked.
    const EdgeLoadStep at = e.ladder.meaningful.value_or(EdgeLoadStep{0, 0});
    f.say(Fact::weakEvidence, e.ladder.meaningful ? Tone::caution : Tone::note, "M28", {at.force_n, at.raise_deg});
}

GateRules<EdgeOfBlade> edgeRules() {
    const Condition failedByHand{"failed by hand", {Fact::flexChipped, Fact::flexBent}};
    return {Gate::edge,
            {{{"crack", "damage marked; the edge on the rod; its tempers", {Fact::crackSeen, Fact::untempered}},
              crackOfEdge},
             {{"geometry", "its thickness and angle; the hardness", {Fact::edgeNotMeasured, Fact::hardnessAssumed}},
              geometry},
             {{"earlier edges", "rungs taken before it was re-ground", {Fact::earlierEdge}}, earlier},
             {{"grinding", "a note of grinding", {Fact::burntInGrinding, Fact::burnCleared}}, grinding},
             {{"sounds", "rungs", {Fact::soundHeard}}, sounds},
             {{"by hand",
               "that the flex by hand is asked",
               {Fact::flexChipped, Fact::flexBent, Fact::askedFlexOpen, Fact::flexHeld, Fact::weakEvidence}},
              byHand},
             {{"failures",
               "rungs; geometry and hardness explain them",
               {Fact::yieldsAnyway, Fact::geometryExplains, Fact::damageNotExplained, Fact::heatTreatmentAsked,
                Fact::localDamage, Fact::grosslyHard, Fact::grosslySoft}},
              failures},
             {{"asked",
               "the rung that is asked",
               {Fact::noRungTaken, Fact::askedRungHeld, Fact::askedRungOpen, Fact::ladderEnds}},
              asked},
             {{"strength", "rungs by load", {Fact::strongEdge, Fact::asGoodAsItGets, Fact::weakEvidence}}, strength}},
            {{{Fact::crackSeen}, State::fail, Act::clearCrack},
             {{Fact::untempered}, State::notYet, Act::logTemper},
             {{{Fact::heatTreatmentAsked, Tone::bad}}, State::fail, Act::lookAtHeat},
             {{failedByHand}, State::borderline, Act::takeRung},
             {{Fact::damageNotExplained, Fact::edgeNotMeasured}, State::borderline, Act::noteEdge},
             {{Fact::damageNotExplained}, State::borderline, Act::measureDamage},
             {{Fact::localDamage}, State::borderline, Act::takeRung},
             {{{Fact::askedRungOpen, Tone::caution}, Fact::ladderEnds}, State::borderline, Act::makerDecides},
             {{{Fact::askedRungOpen, Tone::caution}, Fact::edgeNotMeasured}, State::borderline, Act::noteEdge},
             {{{Fact::askedRungOpen, Tone::caution}}, State::borderline, Act::takeRung},
             {{Condition{"asked and open", {Fact::askedRungOpen, Fact::askedFlexOpen}}, Fact::edgeNotMeasured},
              State::notYet,
              Act::noteEdge},
             {{Condition{"asked and open", {Fact::askedRungOpen, Fact::askedFlexOpen}}}, State::notYet, Act::takeRung},
             {{{Fact::weakEvidence, Tone::caution}}, State::borderline, Act::takeRung},
             {{Fact::askedRungHeld, Fact::edgeNotMeasured}, State::borderline, Act::noteEdge},
             {{Fact::burntInGrinding}, State::borderline, Act::fileEdge},
             {{}, State::pass, Act::done}}};
}

const GateRules<EdgeOfBlade>& edgeGate() {
    static const GateRules<EdgeOfBlade> gate = edgeRules();
    return gate;
}

} // namespace

GateTable edgeTable() {
    return edgeGate().table();
}

Verdict judgeEdge(const Batch& batch, std::size_t index, std::optional<double> hrc, const Tables& tables) {
    const Blade& blade = batch.blades[index];
    if (auto excused = excusedVerdict(blade, Gate::edge)) return *excused;
    const EdgeOfBlade edge(batch, blade, hrc, tables);
    Verdict verdict = edgeGate().judge(blade, edge);
    verdict.cautions = {Caution::sharpEdge, Caution::dust};
    verdict.taken = static_cast<int>(edge.ladder.rungs.size());
    return verdict;
}

} // namespace rollcall

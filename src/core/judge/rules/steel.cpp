// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/rules/rules.h"
#include "core/judge/steel_book.h"

#include <algorithm>
#include <limits>
#include <optional>

namespace rollcall {

namespace {

constexpr double sureEnough = 0.8; // E49: of one grade, not of several together

/// What is known of one blade at Steel.
struct SteelOfBlade {
    const Batch& batch;
    const SteelAnswer& answer;
    const Grade* grade;

    /// The two likeliest of those that fit, where the first alone is not likely enough to be taken.
    std::optional<std::pair<const GradeCandidate*, const GradeCandidate*>> rivals() const {
        const GradeCandidate* best = answer.bestBeside(batch.grade);
        if (best == nullptr || best->share >= sureEnough) return std::nullopt;
        for (const GradeCandidate& other : answer.candidates) {
            const TellApart::Test test = howToTellApart(*best->grade, *other.grade).test;
            // A coupon that was hardened has said what it can.
            const bool canPart = test != TellApart::Test::none && !(test == TellApart::Test::coupon && couponTaken());
            if (fits(other) && &other != best && other.cannot_be_told_apart && canPart) return std::pair(best, &other);
        }
        return std::nullopt;
    }
    bool couponTaken() const {
        return std::any_of(batch.steel_notes.begin(), batch.steel_notes.end(), [](const SteelNote& note) {
            return note.kind == SteelNoteKind::coupon && note.hrc.has_value();
        });
    }
    bool fits(const GradeCandidate& one) const {
        return one.grade->for_blades && one.claim != Claim::notConsistent && !sameName(one.grade->name, batch.grade);
    }
    NextStep::With with(Act act, const Findings&) const {
        if (act == Act::tellApart) {
            const auto [a, b] = *rivals();
            return TellApartStep{a->grade->name, b->grade->name, howToTellApart(*a->grade, *b->grade)};
        }
        const GradeCandidate* best = answer.bestBeside(batch.grade);
        if (act != Act::reassign || best == nullptr) return {};
        return GradeStep{best->grade->name, best->share};
    }
};

void couponAndSpark(const SteelOfBlade& s, Findings& f) {
    for (const SteelNote& note : s.batch.steel_notes) {
        if (note.kind == SteelNoteKind::coupon && note.hrc && s.grade != nullptr) {
            constexpr double coupon_u = 1.0; // HRC: a coupon's own scatter and the tester
            const bool fits = couponFits(*s.grade, *note.hrc, coupon_u);
            f.say(fits ? Fact::couponAgrees : Fact::couponContradicts, fits ? Tone::good : Tone::caution, "quench",
                  {*note.hrc, s.grade->as_quenched_min, s.grade->as_quenched_max}, {s.grade->name});
        }
        if (note.kind == SteelNoteKind::spark && note.agrees)
            f.say(*note.agrees ? Fact::sparkAgrees : Fact::sparkContradicts, *note.agrees ? Tone::good : Tone::caution,
                  "steel", {}, {note.text});
    }
}

void grade(const SteelOfBlade& s, Findings& f) {
    if (s.grade == nullptr) f.say(Fact::gradeUnknown, Tone::note, "tables", {}, {s.batch.grade});
    if (!s.batch.claimed.empty() && !sameName(s.batch.claimed, s.batch.grade))
        f.say(Fact::gradeReassigned, Tone::note, "record", {}, {s.batch.claimed, s.batch.grade});
}

void shots(const SteelOfBlade& s, Findings& f) {
    for (const ShotWarning warning : s.answer.warnings)
        f.say(warning == ShotWarning::coating ? Fact::shotCoated
              : warning == ShotWarning::scale ? Fact::shotScaled
                                              : Fact::shotSmall,
              Tone::caution, "M26");
    // The poor man's check, a spark or a coupon, stands where there is no analyser.
    const auto checked = [](const SteelNote& note) {
        return note.kind == SteelNoteKind::coupon ? note.hrc.has_value() : note.agrees.has_value();
    };
    if (!s.answer.match && !std::any_of(s.batch.steel_notes.begin(), s.batch.steel_notes.end(), checked))
        f.say(Fact::noShotTaken, Tone::open, "M26");
}

void sayElement(const ElementMatch& e, Fact fact, Tone tone, Findings& f) {
    f.say(fact, tone, "M26",
          {e.reading.percent.value_or(e.reading.lod.value_or(0.0)), e.low,
           e.high.value_or(std::numeric_limits<double>::infinity()), e.z},
          {e.element, e.reading.percent ? "" : "under"});
}

void composition(const SteelOfBlade& s, Findings& f) {
    if (!s.answer.apart.empty()) {
        // Each is shown; five that do not agree will not be agreed by a sixth.
        constexpr int enough = 5;
        const Tone tone = s.answer.odd_left_out ? Tone::note : s.answer.shots >= enough ? Tone::bad : Tone::caution;
        const ShotsApart& one = s.answer.apart.front();
        f.say(Fact::shotsDisagree, tone, "E48", {one.lowest, one.highest, double(s.answer.shots)}, {one.element});
    }
    if (!s.answer.match) return;
    const CompositionMatch& match = *s.answer.match;
    constexpr int often = 5; // who has shot it so often has no cleaner metal
    const Tone dirty = s.answer.shots >= often ? Tone::bad : Tone::caution;
    if (!s.answer.foreign.empty())
        f.say(Fact::platedOrDirty, dirty, "E49", {double(s.answer.shots)}, s.answer.foreign);
    else if (s.answer.perhapsPlated())
        f.say(Fact::platedOrDirty, dirty, "E49", {double(s.answer.shots)}, {match.elements.front().element});
    switch (match.claim) {
    case Claim::consistent:
        f.say(s.answer.by_certificate ? Fact::certificateConsistent : Fact::steelConsistent, Tone::good, "M26",
              {double(match.elements.size()), double(s.answer.shots)}, {s.batch.grade});
        break;
    case Claim::undecidable:
        if (match.elements.front().z > 0 && !match.elements.front().doubtful)
            sayElement(match.elements.front(), Fact::steelUndecided, Tone::caution, f);
        break;
    case Claim::notConsistent:
        for (const ElementMatch& element : match.elements) {
            if (element.z >= 2 && !element.doubtful)
                sayElement(element, Fact::steelNotConsistent, element.z >= 3 ? Tone::bad : Tone::caution, f);
        }
        break;
    }
    if (!match.wanted.empty()) f.say(Fact::steelIncomplete, Tone::caution, "E15", {}, match.wanted);
    for (const ElementMatch& element : match.elements) {
        if (element.doubtful && element.z >= 2) sayElement(element, Fact::elementDoubtful, Tone::caution, f);
    }
    for (const SteelAnswer::Differs& one : s.answer.differs)
        f.say(Fact::certificateDiffers, Tone::caution, "E14", {one.shot, one.certificate}, {one.element});
    if (!match.unseen.empty()) f.say(Fact::methodCannotSee, Tone::note, "M26", {}, match.unseen);
}

// E49. Another steel is always possible: what nobody has measured, and what is no blade steel, is said.
void otherSteels(const SteelOfBlade& s, Findings& f) {
    if (!s.answer.match) return;
    const GradeCandidate* other = s.answer.notForBlades();
    if (other != nullptr && s.answer.match->claim == Claim::notConsistent)
        f.say(Fact::notBladeSteel, Tone::bad, "E49", {other->share}, {other->grade->name});
    const bool hasCarbon = s.grade != nullptr && std::any_of(s.grade->composition.begin(), s.grade->composition.end(),
                                                             [](const ElementLimits& l) { return l.element == "C"; });
    if (hasCarbon && !s.answer.carbon_known) f.say(Fact::carbonUnseen, Tone::note, "E49");
    constexpr double worthSaying = 0.05;
    if (s.answer.otherShare() >= worthSaying) f.say(Fact::maybeOutside, Tone::note, "E49", {s.answer.otherShare()});
}

void lookAlikes(const SteelOfBlade& s, Findings& f) {
    if (!s.answer.match) return;
    const bool wrong = s.answer.match->claim == Claim::notConsistent;
    std::vector<std::string> others;
    std::vector<double> shares;
    for (const GradeCandidate& candidate : s.answer.candidates) {
        const bool allowed = !wrong || candidate.claim != Claim::notConsistent;
        if (!candidate.cannot_be_told_apart || !allowed || sameName(candidate.grade->name, s.batch.grade)) continue;
        others.push_back(candidate.grade->name);
        shares.push_back(candidate.share);
    }
    if (const auto rivals = wrong ? s.rivals() : std::nullopt) {
        const TellApart how = howToTellApart(*rivals->first->grade, *rivals->second->grade);
        f.say(Fact::severalFit, Tone::note, "E17",
              {rivals->first->share, rivals->second->share, how.a_low, how.a_high, how.b_low, how.b_high},
              {rivals->first->grade->name, rivals->second->grade->name,
               how.test == TellApart::Test::coupon ? "HRC" : "% C"});
    }
    const GradeCandidate* best = s.answer.bestBeside(s.batch.grade);
    if (wrong && best != nullptr && best->share < sureEnough && !s.rivals())
        f.say(Fact::noneSure, Tone::note, "E49", shares, others);
    if (wrong && !s.answer.candidates.empty() && best == nullptr)
        f.say(Fact::noGradeFits, Tone::note, "M26");
    else if (!others.empty())
        f.say(wrong ? Fact::looksMoreLike : Fact::alsoConsistent, Tone::note, "M26", shares, others);
}

GateRules<SteelOfBlade> steelRules() {
    const Condition contradicted{"coupon or spark against it", {Fact::couponContradicts, Fact::sparkContradicts}};
    const Condition consistent{"composition consistent", {Fact::steelConsistent, Fact::certificateConsistent}};
    const Condition spoiled{"shot spoiled", {Fact::shotCoated, Fact::shotScaled, Fact::shotSmall}};
    const Condition undecided{
        "composition undecided",
        {Fact::steelUndecided, Fact::steelIncomplete, Fact::elementDoubtful, Fact::certificateDiffers}};
    const Condition checked{"coupon or spark for it", {Fact::couponAgrees, Fact::sparkAgrees}};
    const Condition wrong = Fact::steelNotConsistent;
    return {Gate::steel,
            {{{"composition",
               "shots or a certificate; a known grade",
               {Fact::steelConsistent, Fact::certificateConsistent, Fact::steelUndecided, Fact::steelNotConsistent,
                Fact::steelIncomplete, Fact::elementDoubtful, Fact::certificateDiffers, Fact::methodCannotSee,
                Fact::shotsDisagree, Fact::platedOrDirty}},
              composition},
             {{"other steels",
               "shots or a certificate; a known grade",
               {Fact::notBladeSteel, Fact::carbonUnseen, Fact::maybeOutside}},
              otherSteels},
             {{"coupon and spark",
               "a hardened coupon or a spark beside a known bar",
               {Fact::couponAgrees, Fact::couponContradicts, Fact::sparkAgrees, Fact::sparkContradicts}},
              couponAndSpark},
             {{"grade", "the record", {Fact::gradeUnknown, Fact::gradeReassigned}}, grade},
             {{"shots", "shots", {Fact::shotCoated, Fact::shotScaled, Fact::shotSmall, Fact::noShotTaken}}, shots},
             {{"look-alikes",
               "shots or a certificate; a known grade",
               {Fact::severalFit, Fact::noneSure, Fact::noGradeFits, Fact::looksMoreLike, Fact::alsoConsistent}},
              lookAlikes}},
            {{{{Fact::shotsDisagree, Tone::bad}}, State::borderline, Act::makerDecides},
             {{{Fact::shotsDisagree, Tone::caution}}, State::borderline, Act::takeShot},
             {{{Fact::platedOrDirty, Tone::bad}}, State::borderline, Act::makerDecides},
             {{Fact::platedOrDirty}, State::borderline, Act::takeShot},
             {{wrong, Fact::notBladeSteel}, State::fail, Act::returnBar},
             {{wrong, Fact::severalFit}, State::fail, Act::tellApart},
             {{wrong, Fact::noGradeFits}, State::fail, Act::addGrade},
             {{wrong, Fact::noneSure}, State::fail, Act::makerDecides},
             {{wrong}, State::fail, Act::reassign},
             {{undecided}, State::borderline, Act::takeShot},
             {{contradicted}, State::borderline, Act::reassign},
             {{consistent, spoiled}, State::borderline, Act::takeShot},
             {{consistent}, State::pass, Act::done},
             {{checked}, State::pass, Act::done},
             {{}, State::notYet, Act::takeShot}}};
}

const GateRules<SteelOfBlade>& steelGate() {
    static const GateRules<SteelOfBlade> gate = steelRules();
    return gate;
}

} // namespace

GateTable steelTable() {
    return steelGate().table();
}

Verdict judgeSteel(const Batch& batch, std::size_t index, const SteelBook& book, const Tables& tables) {
    const Blade& blade = batch.blades[index];
    if (auto excused = excusedVerdict(blade, Gate::steel)) return *excused;
    const SteelAnswer& answer = book.of(index);
    Verdict verdict = steelGate().judge(blade, {batch, answer, tables.grade(batch.grade)});
    if (answer.method == AnalysisMethod::xrf && answer.shots > 0) verdict.cautions.push_back(Caution::xrays);
    return verdict;
}

std::vector<Verdict> judgeSteel(const Batch& batch, const SteelBook& book, const Tables& tables) {
    std::vector<Verdict> verdicts;
    verdicts.reserve(batch.blades.size());
    std::optional<std::size_t> byBar;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const bool excused = excusedVerdict(batch.blades[i], Gate::steel).has_value();
        const bool asBar = !excused && &book.of(i) == &book.bar();
        if (asBar && byBar) {
            verdicts.push_back(verdicts[*byBar]);
            verdicts.back().blade = batch.blades[i].id;
            continue;
        }
        verdicts.push_back(judgeSteel(batch, i, book, tables));
        if (asBar) byBar = i;
    }
    return verdicts;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "words/phrases.h"
#include "words/words.h"

#include <cmath>

// What is said at the Edge and Proof gates, and of pieces that stand for others.
namespace rollcall::words {

namespace {

QString load(const Reason& r, std::size_t at) {
    return rung({number(r, at), number(r, at + 1)});
}

} // namespace

QString rung(const EdgeLoadStep& step) {
    return tr("%1 N at %2°").arg(std::lround(step.force_n)).arg(std::lround(step.raise_deg));
}

QString outcomeName(EdgeOutcome outcome) {
    switch (outcome) {
    case EdgeOutcome::held:
        return tr("true");
    case EdgeOutcome::set:
        return tr("set");
    case EdgeOutcome::roll:
        return tr("roll");
    case EdgeOutcome::chip:
        return tr("chip");
    case EdgeOutcome::crack:
        return tr("crack");
    }
    return {};
}

QString traitName(Trait trait) {
    switch (trait) {
    case Trait::grade:
        return tr("grade");
    case Trait::lot:
        return tr("lot");
    case Trait::changed:
        return tr("change to the steel");
    case Trait::recipe:
        return tr("recipe");
    case Trait::heat:
        return tr("heat");
    case Trait::tempers:
        return tr("tempers");
    case Trait::spine:
        return tr("spine");
    case Trait::soak:
        return tr("soak");
    case Trait::hardness:
        return tr("hardness");
    case Trait::thickness:
        return tr("thickness");
    case Trait::edge:
        return tr("edge thickness");
    case Trait::angle:
        return tr("edge angle");
    case Trait::finish:
        return tr("finish");
    }
    return {};
}

QString differenceText(const Difference& difference) {
    // The run of an oven has no name of its own that a maker would know.
    if (difference.trait == Trait::heat) return difference.known ? tr("another heat") : tr("heat not known");
    const QString trait = traitName(difference.trait);
    if (!difference.known) return tr("%1 not known of both").arg(trait);
    const QString unit = difference.trait == Trait::soak       ? tr(" min")
                         : difference.trait == Trait::hardness ? tr(" HRC")
                         : difference.trait == Trait::angle    ? QStringLiteral("°")
                                                               : QString();
    const bool measured = difference.trait == Trait::thickness || difference.trait == Trait::edge;
    const auto word = [&](const std::string& text) {
        const auto mm = parseNumber(text);
        if (measured && mm) return length(*mm, difference.trait == Trait::edge ? 2 : 1);
        return text.empty() ? tr("none") : QString::fromStdString(text) + unit;
    };
    return tr("%1 %2 against %3").arg(trait, word(difference.a), word(difference.b));
}

namespace {

QString howText(const QString& how) {
    return how.isEmpty() ? QString() : QStringLiteral(": ") + how;
}

QString damageSentence(const Reason& r, const QString& says) {
    return tr("%1 of %2 at %3: metal %4 thick, %5 yields; %6")
        .arg(text(r, 0), length(number(r, 0), 2), load(r, 3), length(number(r, 1), 2), lengthNumber(number(r, 2), 2),
             says);
}

} // namespace

QString proofSentence(const Reason& r) {
    if (const QString grain = grainSentence(r); !grain.isEmpty()) return grain;
    if (const QString release = releaseSentence(r); !release.isEmpty()) return release;
    switch (r.fact) {
    case Fact::noRungTaken:
        return tr("The edge was not on the rod yet");
    case Fact::edgeNotMeasured:
        return tr("Edge not measured: without thickness and angle nothing explains what it does");
    case Fact::hardnessAssumed:
        return tr("No hardness read: %1 is taken, the middle of the window").arg(hardness(number(r, 0)));
    case Fact::askedRungHeld:
        return tr("%1 is asked, and held").arg(load(r, 0));
    case Fact::askedRungOpen:
        return tr("%1 is asked, not held").arg(load(r, 0));
    case Fact::ladderEnds:
        return tr("No lighter rung is left to try");
    case Fact::askedFlexOpen:
        return tr("Flexed over the rod by hand: asked, not done");
    case Fact::yieldsAnyway:
        return damageSentence(r, tr("it yields anyway"));
    case Fact::geometryExplains:
        return damageSentence(r, tr("geometry explains it"));
    case Fact::heatTreatmentAsked:
        return damageSentence(r, tr("look at the heat treatment"));
    case Fact::grosslyHard:
        return tr("Broke out under 45 N: grossly hard or brittle");
    case Fact::grosslySoft:
        return tr("Gave way under 45 N: grossly soft");
    case Fact::damageNotExplained:
        return tr("A %1 whose size, load or edge is not known: nothing explains it yet").arg(text(r, 0));
    case Fact::localDamage:
        return tr("Only at %1; the same load was held elsewhere: a blister or an overheated patch?")
            .arg(length(number(r, 0), 0));
    case Fact::strongEdge:
        return tr("True at three times the load that should mark it: a strong edge");
    case Fact::asGoodAsItGets:
        return tr("A tiny set only, at 200 N and 45°: as good as it gets");
    case Fact::weakEvidence:
        return number(r, 0) > 0
                   ? tr("Weak evidence: so light a load marks no such edge; %1 would mean something").arg(load(r, 0))
                   : tr("Weak evidence: no load of the ladder marks so stout an edge");
    case Fact::flexHeld:
        return tr("Flexes over the rod and comes back");
    case Fact::flexChipped:
        return tr("Chipped by hand: too hard, or very thin");
    case Fact::flexBent:
        return tr("Stayed bent by hand: too soft, or very thin");
    case Fact::soundHeard:
        return tr("A tick was heard: look along the edge with a loupe");
    case Fact::burntInGrinding:
        return tr("Colour or burning while grinding: file the edge or read it before it goes on");
    case Fact::burnCleared:
        return tr("Burnt while grinding, and cleared since");
    case Fact::noTrialYet:
        return tr("No piece of this batch was tried yet");
    case Fact::trialRunning:
        return tr("%1: %2 of %3 done").arg(text(r, 0)).arg(std::lround(number(r, 0))).arg(std::lround(number(r, 1)));
    case Fact::trialPassed:
        return tr("%1 passed").arg(text(r, 0));
    case Fact::trialFailed:
        return tr("%1 failed at %2%3").arg(text(r, 0), text(r, 1), howText(text(r, 2)));
    case Fact::trialVoided:
        return tr("%1 is void: the edge was touched up").arg(text(r, 0));
    case Fact::notTheSteel:
        return tr("%1: %2; it says nothing of the steel, the step is done again").arg(text(r, 0), recorded(r.texts[1]));
    case Fact::trialOfEarlierEdge:
        return (text(r, 1) == QLatin1String("passed") ? tr("%1 passed with an earlier edge of %2, %3° per side")
                                                      : tr("%1 failed with an earlier edge of %2, %3° per side"))
            .arg(text(r, 0), length(number(r, 0), 2), QString::number(std::lround(number(r, 1))));
    case Fact::earlierEdge: {
        const QString edge = tr("Earlier edge of %1, %2° per side")
                                 .arg(length(number(r, 0), 2), QString::number(std::lround(number(r, 1))));
        const QString why = text(r, 0) == QLatin1String("geometry")  ? tr("; its geometry explains it")
                            : text(r, 0) == QLatin1String("heat")    ? tr("; its geometry does not explain it")
                            : text(r, 0) == QLatin1String("unknown") ? tr("; not explained")
                                                                     : QString();
        const QString failed =
            number(r, 3) > 0 ? tr(", %1 failed%2").arg(QString::number(std::lround(number(r, 3))), why) : QString();
        const QString stands =
            number(r, 4) > 0 ? tr("; what it held stands for this one") : tr("; it proves nothing for this one");
        return tr("%1: %2 held%3%4")
            .arg(edge, QString::number(std::lround(number(r, 2))), failed, number(r, 2) > 0 ? stands : QString());
    }
    case Fact::trialGivenUp:
        return tr("%1 was given up%2").arg(text(r, 0), howText(text(r, 1)));
    case Fact::photoWanted:
        if (number(r, 0) == 1) return tr("%1: a photo is wanted still").arg(text(r, 0));
        return tr("%1: %2 photos are wanted still").arg(text(r, 0)).arg(std::lround(number(r, 0)));
    case Fact::pieceSpeaksFor:
        return tr("%1 passed %2 and speaks for it").arg(text(r, 0), text(r, 1));
    case Fact::pieceSpeaksInPart:
        return tr("%1 passed %2: speaks for it, but").arg(text(r, 0), text(r, 1));
    case Fact::pieceSpeaksAgainst:
        return tr("%1 failed %2 and was treated no worse").arg(text(r, 0), text(r, 1));
    case Fact::pieceAgainstInPart:
        return tr("%1 failed %2: speaks against it, but").arg(text(r, 0), text(r, 1));
    case Fact::pieceDoesNotSpeak:
        return text(r, 2) == QLatin1String("passed")
                   ? tr("%1 passed %2, but does not speak for it").arg(text(r, 0), text(r, 1))
                   : tr("%1 failed %2, but does not speak for it").arg(text(r, 0), text(r, 1));
    case Fact::pieceDiffers:
    case Fact::pieceTraitNotKnown: {
        const auto word = [&](std::size_t i) { return i < r.texts.size() ? r.texts[i] : std::string(); };
        return differenceText(
            {traitNamed(word(1)).value_or(Trait::lot), r.fact == Fact::pieceDiffers, word(2), word(3)});
    }
    default:
        return {};
    }
}

QString proofHeadline(const Verdict& v) {
    if (v.gate == Gate::edge) {
        if (v.has(Fact::heatTreatmentAsked) && !v.has(Fact::localDamage)) return tr("Look at the heat treatment.");
        if (v.has(Fact::localDamage)) return tr("Damaged at one place only.");
        if (v.has(Fact::damageNotExplained)) return tr("Nothing explains it yet.");
        if (v.has(Fact::noRungTaken)) return tr("Not on the rod yet.");
        if (v.state == State::pass)
            return v.has(Fact::weakEvidence) ? tr("Comes back true: weak evidence.") : tr("Held what is asked.");
        if (v.has(Fact::weakEvidence)) return tr("Held, but weak evidence.");
        if (v.has(Fact::burntInGrinding)) return tr("Burnt while grinding.");
        if (v.has(Fact::flexChipped) || v.has(Fact::flexBent)) return tr("By hand it did not come back.");
        if (v.has(Fact::geometryExplains) || v.has(Fact::yieldsAnyway)) return tr("Geometry explains it.");
        return tr("The asked rung is not held yet.");
    }
    for (const Reason& r : v.reasons) {
        if (const QString grain = grainHeadline(r); !grain.isEmpty()) return grain;
        if (v.state == State::pass && r.fact == Fact::trialPassed) return tr("Every step passed.");
        if (r.fact == Fact::trialFailed || r.fact == Fact::trialVoided || r.fact == Fact::trialRunning)
            return proofSentence(r) + QLatin1Char('.');
        if (r.fact == Fact::pieceSpeaksAgainst) return tr("%1 failed in its stead.").arg(text(r, 0));
        if (r.fact == Fact::pieceSpeaksInPart) return tr("%1 speaks with reservations.").arg(text(r, 0));
        if (r.fact == Fact::pieceAgainstInPart) return tr("%1 failed, and may speak for it.").arg(text(r, 0));
        if (r.fact == Fact::pieceDoesNotSpeak) return tr("%1 does not speak for it.").arg(text(r, 0));
    }
    return tr("No piece was tried yet.");
}

Caution cautionNamed(const std::string& word) {
    return word == "rope"     ? Caution::rope
           : word == "chop"   ? Caution::chop
           : word == "bend"   ? Caution::bend
           : word == "impact" ? Caution::impact
           : word == "nail"   ? Caution::nail
                              : Caution::sharpEdge;
}

} // namespace rollcall::words

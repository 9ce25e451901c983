// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/phrases.h"
#include "words/words.h"

#include <cmath>

// What is said of a heat, of what a temper was expected to give, and of the next one.
namespace rollcall::words {

namespace {

QString seconds(double value) {
    return QString::number(value, 'f', 1);
}

QString planText(double least, double most) {
    if (least > 0 && most > 0) return tr("%1 to %2").arg(least).arg(most);
    return least > 0 ? tr("%1 or more").arg(least) : tr("up to %1").arg(most);
}

QString signedHardness(double value) {
    return (value > 0 ? QStringLiteral("+") : QString()) + hardness(value);
}

} // namespace

QString heatSentence(const Reason& r) {
    const auto h = [&](std::size_t i) { return hardness(number(r, i)); };
    switch (r.fact) {
    case Fact::noHeatLogged:
        return tr("No heat is logged for it");
    case Fact::notInYet:
        return tr("Not in the oven yet");
    case Fact::notOutYet:
        return tr("In the oven: mark it as it leaves");
    case Fact::soakGood:
        if (!r.texts.empty())
            return tr("Soak %1 min; %2 asks for %3")
                .arg(minutes(number(r, 0)), text(r, 0), planText(number(r, 1), number(r, 2)));
        return number(r, 1) > 0 || number(r, 2) > 0
                   ? tr("Soak %1 min, plan %2").arg(minutes(number(r, 0)), planText(number(r, 1), number(r, 2)))
                   : tr("Soak %1 min; no limits set").arg(minutes(number(r, 0)));
    case Fact::soakOver:
        return number(r, 2) > 0 ? tr("Soaked %1 min, %2 at most; worth %3 min at the set point")
                                      .arg(minutes(number(r, 0)), minutes(number(r, 1)), minutes(number(r, 2)))
                                : tr("Soaked %1 min, %2 at most").arg(minutes(number(r, 0)), minutes(number(r, 1)));
    case Fact::soakUnder:
        return tr("Soaked %1 min, %2 at least").arg(minutes(number(r, 0)), minutes(number(r, 1)));
    case Fact::soakApart:
        return tr("Soak worth %1 min, the others' middle %2: they do not compare")
            .arg(minutes(number(r, 0)), minutes(number(r, 1)));
    case Fact::soakByOven:
        return tr("Thickness not known: the oven's time counts, the steel's was shorter");
    case Fact::soakByNote:
        return tr("%1 min as it was written down for the load; no mark and no trace").arg(minutes(number(r, 0)));
    case Fact::soakByClock:
        return tr("No trace: %1 min between its marks, the steel lags behind").arg(minutes(number(r, 0)));
    case Fact::ovenOvershot:
        return tr("The oven went to %1, set %2: %3 more is half as much soak again")
            .arg(degrees(number(r, 0)), degrees(number(r, 1)), degreesApart(10));
    case Fact::ovenNeverChecked:
        return tr("The oven was never checked: %1 off is a factor 1.5 of soak").arg(degreesApart(10));
    case Fact::transferGood:
        return tr("%1 s to the quench, about %2 on entering").arg(seconds(number(r, 0)), degrees(number(r, 1)));
    case Fact::transferLate:
        return tr("%1 s to the quench: the edge fell to about %2, under %3 it begins to change (Ac1 %4)")
            .arg(seconds(number(r, 0)), degrees(number(r, 1)), degrees(number(r, 2)), degrees(number(r, 3)));
    case Fact::transferSlow:
        return tr("%1 s to the quench: over %2 s even an air-hardening grade loses hardness")
            .arg(seconds(number(r, 0)), seconds(number(r, 1)));
    case Fact::transferApart:
        return tr("The watch says %1 s to the quench, the marks on the trace %2: the watch is taken")
            .arg(seconds(number(r, 0)), seconds(number(r, 1)));
    case Fact::traceDamaged:
        return tr("The oven's trace is not what was put in: it is damaged and not judged");
    case Fact::probeFault:
        return tr("Samples far off both neighbours left out: %1, the first %2 at %3 min; a fault of the probe")
            .arg(number(r, 0), 0, 'f', 0)
            .arg(degrees(number(r, 1)), minutes(number(r, 2)));
    case Fact::transferNotNoted:
        return tr("Transfer: not looked at");
    case Fact::quenchantGood:
        return tr("Quenchant at %1").arg(degrees(number(r, 0)));
    case Fact::quenchantOff:
        return tr("Quenchant at %1, aimed at %2").arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::quenchantNotNoted:
        return tr("Quenchant: not looked at");
    case Fact::noteAgainstTrace:
        return text(r, 0) == QLatin1String("soak")
                   ? tr("The note says %1 min of soak, the trace %2").arg(minutes(number(r, 0)), minutes(number(r, 1)))
                   : tr("The note says %1, the oven was set to %2").arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::surprise:
        return tr("%1 %2 than expected (%3 to %4): oven, log, reading or steel?")
            .arg(hardness(std::abs(number(r, 0))), number(r, 0) > 0 ? tr("harder") : tr("softer"), h(1), h(2));
    case Fact::surpriseAlone:
        return tr("Its siblings came as expected: suspect this blade");
    case Fact::surpriseShared:
        return tr("Its siblings are off the same way (%1): suspect oven or tester").arg(signedHardness(number(r, 0)));
    case Fact::surpriseFar:
        return tr("%1 times its standard uncertainty off: was the temper run? oven? steel? Look before it passes")
            .arg(number(r, 0), 0, 'f', 1);
    case Fact::surpriseLooked:
        return tr("Looked into by %1: %2").arg(text(r, 1), text(r, 0));
    case Fact::temperLoad: {
        const QString marks = listed(r);
        const QString rest = std::abs(number(r, 0) - number(r, 1)) > 0.5
                                 ? tr("; alone it would be %1").arg(degrees(number(r, 1)))
                                 : QString();
        return (number(r, 2) > 0 ? tr("Two loads: %1 go in together at %2%3") : tr("%1 go in together at %2%3"))
            .arg(marks, degrees(number(r, 0)), rest);
    }
    case Fact::curveScatters:
        return tr("What the curve was learned from contradicts itself: %1 times the usual scatter, so wider")
            .arg(number(r, 0), 0, 'f', 1);
    case Fact::siblingsDoubted:
        return tr("Far off their siblings or against themselves, so hardly counted: %1").arg(listed(r));
    case Fact::readingNotBelieved:
        return tr("Readings above the %1 that this grade can give: %2, not believed")
            .arg(hardness(number(r, 1)))
            .arg(number(r, 0), 0, 'f', 0);
    case Fact::nextTemper:
        return tr("Next: %1 for %2, expect %3; %4 inside, %5 too soft")
            .arg(degrees(number(r, 0)), hours(number(r, 1)), h(2), percent(number(r, 3)), percent(number(r, 4)));
    case Fact::nextTemperCautious:
        return tr("Or with more care: %1, expect %2, %3 too soft")
            .arg(degrees(number(r, 0)), h(2), percent(number(r, 4)));
    case Fact::temperThenRead:
        return tr("Too little is known to aim at once: %1 is the coolest useful temper, then read")
            .arg(degrees(number(r, 0)));
    case Fact::noTemperReaches:
        return tr("No temper allowed for this grade reaches the window");
    case Fact::temperAvoided:
        return tr("%1 to %2 turns this grade brittle: another window, or your reason")
            .arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::temperBlind:
        return tr("No prediction for another temper: its readings contradict each other, or the quench. Look first");
    case Fact::colourAgainstOven:
        return tr("%1 on the steel means %2 to %3; the oven said %4: check the oven")
            .arg(text(r, 0), degrees(number(r, 0)), degrees(number(r, 1)), degrees(number(r, 2)));
    default:
        return {};
    }
}

} // namespace rollcall::words

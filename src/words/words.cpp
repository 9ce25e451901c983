// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <QCoreApplication>

namespace rollcall::words {

namespace {

QString tr(const char* text) {
    return QCoreApplication::translate("words", text);
}

QString text(const Reason& reason, std::size_t index) {
    return index < reason.texts.size() ? QString::fromStdString(reason.texts[index]) : QString();
}

double number(const Reason& reason, std::size_t index) {
    return index < reason.numbers.size() ? reason.numbers[index] : 0.0;
}

QString whole(double value) {
    return QString::number(std::lround(value));
}

QString testerName(const Reason& reason) {
    const QString name = text(reason, 0);
    return name.isEmpty() ? tr("The tester") : name;
}

QString minutes(double value) {
    return QString::number(value, 'f', 1);
}

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

QString evidenceName(const QString& code) {
    if (code == QLatin1String("files")) return tr("files");
    if (code == QLatin1String("expectation")) return tr("expected hardness");
    if (code == QLatin1String("second tester")) return tr("second tester");
    if (code == QLatin1String("steel")) return tr("steel");
    return tr("soak");
}

} // namespace

QString gateName(Gate gate) {
    switch (gate) {
    case Gate::steel:
        return tr("Steel");
    case Gate::cycle:
        return tr("Cycle");
    case Gate::quench:
        return tr("Quench");
    case Gate::temper:
        return tr("Temper");
    case Gate::edge:
        return tr("Edge");
    case Gate::proof:
        return tr("Proof");
    case Gate::release:
        return tr("Release");
    }
    return {};
}

QString stateName(State state) {
    switch (state) {
    case State::pass:
        return tr("Pass");
    case State::borderline:
        return tr("Borderline");
    case State::fail:
        return tr("Fail");
    case State::notYet:
        return tr("Not yet");
    case State::excused:
        return tr("Excused");
    }
    return {};
}

QString strikeName(StrikeReason reason) {
    switch (reason) {
    case StrikeReason::sameSpot:
        return tr("same spot");
    case StrikeReason::edge:
        return tr("too near an edge");
    case StrikeReason::scale:
        return tr("scale or decarburised skin");
    case StrikeReason::seating:
        return tr("seating or warp");
    case StrikeReason::overshoot:
        return tr("minor load overshot");
    case StrikeReason::other:
        return tr("other");
    case StrikeReason::superseded:
        return tr("superseded");
    }
    return {};
}

QString ruleName(DecisionRule rule) {
    switch (rule) {
    case DecisionRule::guarded:
        return tr("guarded: all of mean ± U inside");
    case DecisionRule::plain:
        return tr("plain: the mean decides");
    case DecisionRule::allowance:
        return tr("allowance: a little outside is Borderline");
    }
    return {};
}

QString hardness(double value) {
    return QString::fromStdString(tenthText(value)).replace(QLatin1Char('-'), QChar(0x2212));
}

QString uncertainty(double value) {
    return QString::fromStdString(uncertaintyText(value));
}

QString degrees(double celsius) {
    return QStringLiteral("%1 °C").arg(std::lround(celsius));
}

QString hours(double value) {
    return value < 1 ? tr("%1 min").arg(std::lround(value * 60)) : tr("%1 h").arg(value, 0, 'g', 3);
}

QString percent(double chance) {
    return tr("%1 %").arg(std::clamp<int>(static_cast<int>(std::lround(chance * 100)), 1, 99));
}

QString millimetres(double value) {
    return QString::number(value, 'f', 1);
}

QString windowText(const Window& window) {
    if (window.low && window.high) return tr("%1 to %2").arg(hardness(*window.low), hardness(*window.high));
    if (window.low) return tr("%1 or harder").arg(hardness(*window.low));
    if (window.high) return tr("%1 or softer").arg(hardness(*window.high));
    return tr("no window");
}

QString bracketText(double lower, double upper) {
    if (std::isinf(lower) && std::isinf(upper)) return tr("nothing");
    if (std::isinf(upper)) return tr("%1 or harder").arg(hardness(lower));
    if (std::isinf(lower)) return tr("%1 or softer").arg(hardness(upper));
    return tr("%1 to %2").arg(hardness(lower), hardness(upper));
}

QString sentence(const Reason& r) {
    const auto h = [&](std::size_t i) { return hardness(number(r, i)); };
    const auto mm = [&](std::size_t i) { return millimetres(number(r, i)); };
    const auto mm2 = [&](std::size_t i) { return QString::number(number(r, i), 'f', 2); };
    const auto u = [&](std::size_t i) { return uncertainty(number(r, i)); };
    switch (r.fact) {
    case Fact::readingsTaken:
        return tr("%1 of %2 readings taken").arg(whole(number(r, 0)), whole(number(r, 1)));
    case Fact::noMinimumSet:
        return tr("No minimum set for this gate");
    case Fact::noWindowSet:
        return tr("No window set for this gate");
    case Fact::testerVerified:
        return tr("Verified: error %1, spread %2").arg(h(0), h(1));
    case Fact::testerNotVerified:
        return tr("%1 is not verified for these readings: Borderline at best").arg(testerName(r));
    case Fact::testerFailed:
        return tr("%1 failed its block: Borderline at best").arg(testerName(r));
    case Fact::readingsSuspect:
        return tr("%1 failed twice on its block after these readings: they are suspect").arg(testerName(r));
    case Fact::verificationOtherBand:
        return tr("The block at %1 does not cover readings at %2").arg(h(0), h(1));
    case Fact::blockFarOff:
        return tr("Block %1 is more than 5 from %2: use one nearer").arg(h(0), h(1));
    case Fact::spacingGood:
        return tr("%1 mm apart, %2 needed").arg(mm(0), mm(1));
    case Fact::spacingBroken:
        return text(r, 0) == QLatin1String("edge")
                   ? tr("%3 left out: %1 mm from the edge, %2 needed").arg(mm(0), mm(1), h(2))
               : text(r, 0) == QLatin1String("strike")
                   ? tr("%3 left out: %1 mm from another strike, %2 needed; work hardened metal reads high")
                         .arg(mm(0), mm(1), h(2))
                   : tr("%3 left out: %1 mm from another indent, %2 needed").arg(mm(0), mm(1), h(2));
    case Fact::spacingNotLookedAt:
        return tr("Places of the indents: not looked at");
    case Fact::acceptedReading:
        return tr("%1 counts against the rule: %2").arg(h(0), text(r, 0));
    case Fact::thicknessGood:
        return tr("%1 mm thick, %2 needed").arg(mm2(0), mm2(1));
    case Fact::tooThin: {
        QStringList scales;
        for (std::size_t i = 0; i < r.texts.size(); ++i) scales << text(r, i);
        const QString lighter =
            scales.isEmpty() ? tr("no Rockwell scale will do") : tr("read %1 instead").arg(scales.join(tr(" or ")));
        return tr("%1 mm is too thin, %2 needed: %3").arg(mm2(0), mm2(1), lighter);
    }
    case Fact::belowTenDepths:
        return tr("%1 mm is under ten indent depths (%2): look at the back for a mark").arg(mm2(0), mm2(1));
    case Fact::outsideScale:
        if (r.rule == "M8") return tr("%1 %2 does not convert to HRC: not judged").arg(h(0), text(r, 0));
        return tr("%1 is outside the range of %2").arg(h(0), text(r, 0));
    case Fact::mixedScales:
        return tr("Read on more than one scale: Borderline at best");
    case Fact::mixedTesters:
        return tr("Read on more than one tester: Borderline at best");
    case Fact::converted:
        return tr("Converted from %1").arg(text(r, 0));
    case Fact::readingsAgree:
        return tr("%1 apart; tester explains %2").arg(h(0), h(1));
    case Fact::readingsDisagree:
        return tr("%1 apart; tester explains %2: read a third").arg(h(0), h(1));
    case Fact::flaggedReading: {
        const bool high = number(r, 0) > number(r, 2);
        const QString why = text(r, 0) == QLatin1String("rebound") ? tr("same spot struck twice?")
                            : high                                 ? tr("minor load overshot?")
                                                                   : tr("near an edge or mark, scale, seating?");
        return tr("%1 stands apart: %2 Mean %3 with it, %4 without").arg(h(0), why, h(1), h(2));
    }
    case Fact::verdictHangsOnFlagged:
        return tr("The verdict hangs on that one reading");
    case Fact::unevenBlade:
        return tr("Uneven: readings %1 apart. Map the blade, do not average").arg(h(0));
    case Fact::twoGroups:
        return tr("Two groups of readings, %1 apart. Map the blade, do not average").arg(h(0));
    case Fact::grubbs:
        return tr("Grubbs' test calls one reading an outlier");
    case Fact::notLookedAt:
        return tr("%1: not looked at").arg(evidenceName(text(r, 0)));
    case Fact::evidenceAgrees:
        return r.numbers.empty() ? tr("Agrees: %1").arg(evidenceName(text(r, 0)))
                                 : tr("Agrees with %1, %2 to %3").arg(evidenceName(text(r, 0)), h(0), h(1));
    case Fact::evidenceConflicts:
        return r.numbers.empty() ? tr("Contradicted by: %1").arg(evidenceName(text(r, 0)))
                                 : tr("Contradicted by %1, %2 to %3").arg(evidenceName(text(r, 0)), h(0), h(1));
    case Fact::filesAgree:
        return tr("Agrees with the files: %1").arg(bracketText(number(r, 0), number(r, 1)));
    case Fact::filesConflict:
        return tr("Files say %1: repeat both on bare metal. Scale skates falsely, soft skin bites; or the tester is "
                  "off")
            .arg(bracketText(number(r, 0), number(r, 1)));
    case Fact::filesContradict:
        return number(r, 0) == number(r, 1)
                   ? tr("The file of %1 skated and bit: repeat on clean bare metal").arg(h(0))
                   : tr("Files contradict: %1 skated, %2 bit. Repeat on clean bare metal").arg(h(0), h(1));
    case Fact::filesNotOnBareMetal:
        return text(r, 0) == QLatin1String("scale") ? tr("Files tried on scale: it skates falsely, not counted")
                                                    : tr("Files tried on soft skin: it bites falsely, not counted");
    case Fact::secondOpinion:
        return tr("A second tester's %1 readings, mean %2, are superseded: %3")
            .arg(whole(number(r, 1)), h(0), text(r, 0));
    case Fact::instrumentAverage: {
        const QString support = text(r, 0).isEmpty() ? QString() : tr(". Support: %1").arg(text(r, 0));
        return tr("Its own average says %1; the strikes that count give %2, without the flagged %3")
                   .arg(h(0), h(1), h(2)) +
               support;
    }
    case Fact::convexCorrected:
        return tr("Convex, radius %1 mm: up to %2 added").arg(mm(1), h(0));
    case Fact::convexRefused:
        return tr("%1 left out, radius %2 mm: %3").arg(h(0), mm(1), text(r, 0));
    case Fact::reboundThin:
        return tr("%1 mm thick; rebound strikes need %2 behind them").arg(mm(0), mm(1));
    case Fact::reboundNotAlone:
        return tr("Rebound strikes alone never release a blade");
    case Fact::inWindow:
        return tr("%1 ± %2: %3 that it is inside").arg(h(0), u(1), percent(number(r, 2)));
    case Fact::mayBeSoft:
        return tr("May be soft: %1 ± %2, %3 inside").arg(h(0), u(1), percent(number(r, 2)));
    case Fact::mayBeHard:
        return tr("May be hard: %1 ± %2, %3 inside").arg(h(0), u(1), percent(number(r, 2)));
    case Fact::mayBeEither:
        return tr("May be either side: %1 ± %2, %3 inside").arg(h(0), u(1), percent(number(r, 2)));
    case Fact::soft:
        return tr("Soft by %1: %2 ± %3").arg(h(0), h(1), u(2));
    case Fact::hard:
        return tr("Hard by %1: %2 ± %3").arg(h(0), h(1), u(2));
    case Fact::oneReadingOnly:
        return tr("One reading decides nothing alone");
    case Fact::windowTooNarrow:
        return tr("The window is %1 wide, this tester needs %2 to pass a blade. More block and blade readings help")
            .arg(h(0), u(1));
    case Fact::moreReadingsSettle:
        return tr("%1 more would settle it if they read alike").arg(whole(number(r, 0)));
    case Fact::moreBlockReadingsHelp:
        return tr("Five block readings would narrow ± %1 to ± %2").arg(u(0), u(1));
    case Fact::lowConfidenceRow:
        return tr("The table's %1 for this grade is of low confidence").arg(text(r, 0));
    case Fact::aboveGradeMaximum:
        return tr("%1 is above what the grade can give (%2): tester, block or steel").arg(h(0), h(1));
    case Fact::onlyThisBladeLow:
        return tr("Siblings read %1: late transfer, thick section, cool spot or soft skin?").arg(h(0));
    case Fact::allBladesLow:
        return tr("All low by %1: short soak, slow quenchant or tester?").arg(h(0));
    case Fact::allBladesVeryLow:
        return tr("All low by %1: wrong steel, or never hot enough").arg(h(0));
    case Fact::softAlloyTwoCauses:
        return tr("Soak too cool, or too hot with retained austenite: opposite cures. Cold-treat one blade to tell");
    case Fact::edgeLineLow:
        return tr("Edge line %1, elsewhere %2: thin metal cooled early, or soft skin?").arg(h(0), h(1));
    case Fact::scatterOverThree:
        return tr("%1 of scatter on one blade: scale, soft spots or uneven heat").arg(h(0));
    case Fact::longSinceQuench:
        return tr("%1 min since the quench: give it a 150 °C snap temper and log it").arg(whole(number(r, 0)));
    case Fact::tempersMissing:
        return tr("Tempers missing: %1 of %2 logged").arg(whole(number(r, 0)), whole(number(r, 1)));
    case Fact::oneTemperAdvised:
        return tr("One temper logged; two are advised");
    case Fact::noReadingsAfterLastTemper:
        return tr("No readings after temper %1").arg(whole(number(r, 0)));
    case Fact::readingsNotTiedToCycle:
        return tr("%1 readings do not say after which temper").arg(whole(number(r, 0)));
    case Fact::roseAfterTemper:
        return tr("Rose from %1 to %2 after temper %3: one more cycle is required")
            .arg(h(0), h(1), whole(number(r, 2)));
    case Fact::notYetDone:
        return tr("Hard is not a failure: temper again");
    case Fact::temperingCannotRaise:
        return tr("Tempering will not raise it");
    case Fact::ruleOutFalseSoftness:
        return tr("First rule out soft skin, warp, support and a near edge");
    case Fact::overHardeningLimit:
        return tr("Hardened again %1 times, the shop's limit is %2").arg(whole(number(r, 0)), whole(number(r, 1)));
    case Fact::fullAnnealFirst:
        return tr("%1: full anneal before hardening again, never normalise").arg(text(r, 0));
    case Fact::normaliseFirst:
        return tr("%1: check for cracks, then normalise or sub-critical anneal before hardening again").arg(text(r, 0));
    case Fact::gradeUnknown:
        return text(r, 0).isEmpty() ? tr("The grade is not known: its rules cannot be looked up")
                                    : tr("%1 is not in the library: its rules cannot be looked up").arg(text(r, 0));
    case Fact::siblingsShiftedToo:
        return tr("All siblings are off the same way (%1): look at oven and tester").arg(h(0));
    case Fact::noHeatLogged:
        return tr("No heat is logged for it");
    case Fact::notInYet:
        return tr("Not in the oven yet");
    case Fact::notOutYet:
        return tr("In the oven: mark it as it leaves");
    case Fact::soakGood:
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
    case Fact::soakByClock:
        return tr("No trace: %1 min between its marks, the steel lags behind").arg(minutes(number(r, 0)));
    case Fact::ovenOvershot:
        return tr("The oven went to %1, set %2: 10 °C more is half as much soak again")
            .arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::ovenNeverChecked:
        return tr("The oven was never checked: 10 °C off is a factor 1.5 of soak");
    case Fact::transferGood:
        return tr("%1 s to the quench, about %2 on entering").arg(seconds(number(r, 0)), degrees(number(r, 1)));
    case Fact::transferLate:
        return tr("%1 s to the quench: the edge fell to about %2, Ac1 is %3")
            .arg(seconds(number(r, 0)), degrees(number(r, 1)), degrees(number(r, 2)));
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
    case Fact::nextTemper:
        return tr("Next: %1 for %2, expect %3; %4 inside, %5 too soft")
            .arg(degrees(number(r, 0)), hours(number(r, 1)), h(2), percent(number(r, 3)), percent(number(r, 4)));
    case Fact::nextTemperCautious:
        return tr("Or with more care: %1, expect %2, %3 too soft")
            .arg(degrees(number(r, 0)), h(2), percent(number(r, 4)));
    case Fact::noTemperReaches:
        return tr("No temper allowed for this grade reaches the window");
    case Fact::temperAvoided:
        return tr("%1 to %2 is left out: the grade turns brittle there")
            .arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::temperBlind:
        return tr("Nothing can be foretold: %1").arg(text(r, 0));
    case Fact::colourAgainstOven:
        return tr("%1 on the steel means %2 to %3; the oven said %4: check the oven")
            .arg(text(r, 0), degrees(number(r, 0)), degrees(number(r, 1)), degrees(number(r, 2)));
    case Fact::excusedBecause:
        return text(r, 1).isEmpty() ? text(r, 0) : tr("%1 (%2)").arg(text(r, 0), text(r, 1));
    case Fact::outBecause:
        return tr("Out of the batch: %1").arg(text(r, 0));
    }
    return {};
}

QString headline(const Verdict& v) {
    if (v.state == State::excused) return v.reasons.empty() ? QString() : sentence(v.reasons.front());
    if (v.has(Fact::tempersMissing)) {
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::tempersMissing) return sentence(r);
        }
    }
    if (v.state == State::notYet) {
        if (v.gate == Gate::cycle) return v.reasons.empty() ? QString() : sentence(v.reasons.front());
        if (v.has(Fact::noMinimumSet)) return tr("No minimum set.");
        if (v.has(Fact::noWindowSet)) return tr("No window set.");
        const int left = std::max(1, v.planned) - v.taken;
        return left == 1 ? tr("One reading to go.") : tr("%1 readings to go.").arg(left);
    }
    if (v.gate == Gate::cycle) {
        if (v.state == State::pass) return tr("Soaked and quenched to plan.");
        return v.reasons.empty() ? QString() : sentence(v.reasons.front());
    }
    if (!v.measurement) return {};
    const Measurement& m = *v.measurement;
    switch (v.state) {
    case State::pass:
        return tr("%1 inside.").arg(percent(m.probability_inside));
    case State::fail:
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::soft || r.fact == Fact::hard) {
                return (r.fact == Fact::soft ? tr("Soft by %1.") : tr("Hard by %1.")).arg(hardness(number(r, 0)));
            }
        }
        return tr("Outside the window.");
    default:
        break;
    }
    if (m.side == Side::hard) return tr("Hard: not yet done.");
    return tr("%1 inside.").arg(percent(m.probability_inside));
}

NextWords nextStep(const Verdict& v) {
    const auto n = [&](std::size_t i) {
        return i < v.next.numbers.size() ? static_cast<int>(std::lround(v.next.numbers[i])) : 0;
    };
    switch (v.next.act) {
    case Act::nothing:
        return {};
    case Act::takeReadings:
        return {tr("Take reading %1").arg(v.taken + 1), {}};
    case Act::readAgain:
        return n(0) == 1   ? NextWords{tr("Read once more"), tr("on a new spot")}
               : n(0) == 2 ? NextWords{tr("Read twice more"), tr("on new spots")}
                           : NextWords{tr("Read %1 times more").arg(n(0)), tr("on new spots")};
    case Act::mapReadings:
        return {tr("Map the blade"), tr("clean it, read heel to tip")};
    case Act::verifyTester:
        return {tr("Verify the tester"), tr("on a block near the work")};
    case Act::logTemper:
        if (v.next.numbers.size() >= 5)
            return {tr("Temper %1 at %2").arg(n(0) + 1).arg(degrees(v.next.numbers[2])),
                    tr("for %1, expect %2").arg(hours(v.next.numbers[3]), hardness(v.next.numbers[4]))};
        return {tr("Log temper %1").arg(n(0) + 1), tr("%1 needed before a Pass").arg(n(1))};
    case Act::temperAgain:
        if (v.next.numbers.size() >= 3)
            return {tr("Temper again at %1").arg(degrees(v.next.numbers[0])),
                    tr("for %1, expect %2").arg(hours(v.next.numbers[1]), hardness(v.next.numbers[2]))};
        return {tr("Temper again"), tr("a little hotter, then read")};
    case Act::markBlade:
        return {tr("Mark it in the oven"), tr("and as it leaves")};
    case Act::startHeat:
        return {tr("Start the heat"), tr("oven, set point, soak")};
    case Act::breakCoupon:
        return {tr("Break a coupon"), tr("that soaked %1 min, before finishing")
                                          .arg(v.next.numbers.empty() ? QString() : minutes(v.next.numbers[0]))};
    case Act::falseSoftness:
        return {tr("Read on clean metal"), tr("soft again: re-harden, other use, scrap")};
    case Act::makerDecides:
        return {tr("You decide"), tr("this tester cannot settle it")};
    case Act::verifyOnHarderBlock:
        return {tr("Verify the tester"), tr("on a block near this hardness")};
    case Act::backToSteel:
        return {tr("Back to Steel"), tr("check grade and thermocouple")};
    case Act::setWindow:
        return {tr("Set the limits"), tr("the gate has nothing to compare with")};
    case Act::readThicker:
        return {tr("Read where it is thicker"), tr("or on a lighter scale")};
    case Act::clearConflict:
        return {tr("Clear the conflict"), tr("repeat on clean bare metal")};
    case Act::done:
        return {tr("Done at this gate"), {}};
    case Act::out:
        return {tr("Nothing to do"), {}};
    }
    return {};
}

QString cautionText(Caution caution) {
    switch (caution) {
    case Caution::glassHard:
        return tr("Glass-hard: do not drop or flex. Face shield, nobody in line, temper today.");
    case Caution::hotWork:
        return tr("Hot oven, hot steel: dry tongs, gloves. The oven's manual and local codes come first.");
    case Caution::quenchOil:
        return tr("Oil 50 °C below its flash point, lid and extinguisher at hand, never water. Face shield.");
    case Caution::clampedStack:
        return tr("Never clamp an untempered blade. A clamped stack is a spring: no galvanised clamps.");
    case Caution::torch:
        return tr("Torch: nothing that burns near it, edge in water or wet sand, eyes shielded.");
    case Caution::overhang:
        return tr("Long blade: support the overhang, it tilts on the anvil.");
    }
    return {};
}

QString budgetPartName(BudgetPart::Source source) {
    switch (source) {
    case BudgetPart::Source::certificate:
        return tr("block certificate");
    case BudgetPart::Source::blockMean:
        return tr("few block readings");
    case BudgetPart::Source::resolution:
        return tr("steps of the display");
    case BudgetPart::Source::repeatability:
        return tr("scatter of the readings");
    case BudgetPart::Source::rebound:
        return tr("coupling and steel group");
    case BudgetPart::Source::conversion:
        return tr("conversion to HRC");
    case BudgetPart::Source::convex:
        return tr("correction for the convex surface");
    }
    return {};
}

QString budgetHint(const Budget& budget) {
    const auto largest = std::max_element(budget.parts.begin(), budget.parts.end(), [](const auto& a, const auto& b) {
        return a.standard_uncertainty < b.standard_uncertainty;
    });
    if (largest == budget.parts.end()) return {};
    switch (largest->source) {
    case BudgetPart::Source::certificate:
        return tr("The block's certificate limits it most: only a better block would help.");
    case BudgetPart::Source::blockMean:
        return tr("More readings on the block would help most.");
    case BudgetPart::Source::resolution:
        return tr("The display's steps limit it most: a finer display would help.");
    case BudgetPart::Source::repeatability:
        return tr("More readings on the blade would help most.");
    case BudgetPart::Source::rebound:
        return tr("Coupling of the rebound probe limits it: a bench tester would help.");
    case BudgetPart::Source::conversion:
        return tr("The conversion limits it: reading in HRC would help.");
    case BudgetPart::Source::convex:
        return tr("The convex surface limits it: a flat would help.");
    }
    return {};
}

QStringList derivation(const Verdict& v, const Window& window) {
    QStringList lines;
    const auto f = [](double x, int places = 3) { return QString::number(x, 'f', places); };
    if (v.measurement) {
        const Measurement& m = *v.measurement;
        lines << tr("Mean of %1 readings as read: %2").arg(m.n).arg(f(m.mean));
        if (m.sd) lines << tr("Their standard deviation s: %1").arg(f(*m.sd));
        lines << tr("Minus the tester's error %1: c = %2").arg(f(m.mean - m.corrected_mean), f(m.corrected_mean));
        for (const BudgetPart& part : m.budget.parts) {
            lines << tr("  u, %1: %2  (degrees of freedom %3)")
                         .arg(budgetPartName(part.source), f(part.standard_uncertainty, 4),
                              std::isinf(part.dof) ? tr("endless") : f(part.dof, 0));
        }
        lines << tr("Together u = %1, degrees of freedom %2, k = %3")
                     .arg(f(m.budget.standard_uncertainty, 4), f(m.budget.dof, 1), f(m.budget.coverage_factor));
        lines << tr("U = k · u = %1  (M9)").arg(f(m.budget.expanded_uncertainty));
        lines << tr("Window %1; c − U = %2, c + U = %3  (M15)")
                     .arg(windowText(window), f(m.decided_mean - m.decided_uncertainty, 2),
                          f(m.decided_mean + m.decided_uncertainty, 2));
        lines << tr("Chance inside: %1  (M16)").arg(percent(m.probability_inside));
    }
    for (const Reason& reason : v.reasons)
        lines << tr("%1  (%2)").arg(sentence(reason), QString::fromStdString(reason.rule));
    lines << tr("Reference tables of %1; the shop's own copy of the standard governs.")
                 .arg(QString::fromStdString(v.tables_edition));
    return lines;
}

QString errorText(const Error& error) {
    return QString::fromStdString(error.message());
}

} // namespace rollcall::words

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "words/phrases.h"
#include "words/words.h"

#include <cmath>

// One sentence for every fact.
namespace rollcall::words {

namespace {

QString whole(double value) {
    return QString::number(std::lround(value));
}

QString testerName(const Reason& reason) {
    const QString name = text(reason, 0);
    return name.isEmpty() ? tr("The tester") : name;
}

QString evidenceName(const QString& code) {
    if (code == QLatin1String("files")) return tr("files");
    if (code == QLatin1String("expectation")) return tr("expected hardness");
    if (code == QLatin1String("second tester")) return tr("second tester");
    if (code == QLatin1String("steel")) return tr("steel");
    return tr("soak");
}

// "Mo 0.05, needs 0.50 to 0.80"
QString elementText(const Reason& reason) {
    const double high = number(reason, 2);
    const QString measured = text(reason, 1) == QLatin1String("under") ? tr("%1 under %2") : tr("%1 %2");
    const QString needs = std::isinf(high) ? tr("needs %1 or more").arg(percentText(number(reason, 1)))
                          : number(reason, 1) <= 0
                              ? tr("at most %1").arg(percentText(high))
                              : tr("needs %1 to %2").arg(percentText(number(reason, 1)), percentText(high));
    return measured.arg(text(reason, 0), percentText(number(reason, 0))) + QStringLiteral(", ") + needs;
}

// "58.5 to 66.5", open where no file bounds it.
QString bracketText(const Reason& r) {
    if (std::isinf(number(r, 0))) return tr("under %1").arg(hardness(number(r, 1)));
    if (std::isinf(number(r, 1))) return tr("over %1").arg(hardness(number(r, 0)));
    return tr("%1 to %2").arg(hardness(number(r, 0)), hardness(number(r, 1)));
}

QString plain(double value) {
    return QString::number(value, 'g', 4);
}

// Grades with what all evidence says of each, in whole per cent.
QString withShares(const Reason& r) {
    QStringList grades;
    for (std::size_t i = 0; i < r.texts.size(); ++i)
        grades << (i < r.numbers.size() ? tr("%1 %2").arg(text(r, i), percent(number(r, i))) : text(r, i));
    return grades.join(QStringLiteral(", "));
}

} // namespace

QString sentence(const Reason& r) {
    const auto h = [&](std::size_t i) { return hardness(number(r, i)); };
    const auto mm = [&](std::size_t i) { return length(number(r, i)); };
    const auto mmOnly = [&](std::size_t i) { return lengthNumber(number(r, i)); };
    const auto mm2 = [&](std::size_t i) { return length(number(r, i), 2); };
    const auto mm2Only = [&](std::size_t i) { return lengthNumber(number(r, i), 2); };
    const auto u = [&](std::size_t i) { return uncertainty(number(r, i)); };
    switch (r.fact) {
    case Fact::readingsTaken:
        return tr("%1 of %2 readings taken").arg(whole(number(r, 0)), whole(number(r, 1)));
    case Fact::noMinimumSet:
        return tr("No minimum set for this gate");
    case Fact::noWindowSet:
        return tr("No window set for this gate");
    case Fact::testerVerified:
        return std::abs(number(r, 3) - number(r, 0)) >= 0.05
                   ? tr("Verified: error %1, by its usual error too %2, spread %3").arg(h(0), h(3), h(1))
                   : tr("Verified: error %1, spread %2").arg(h(0), h(1));
    case Fact::testerNotVerified:
        return tr("%1 is not verified for these readings: Borderline at best").arg(testerName(r));
    case Fact::blockEndsSoon:
        return tr("The certificate of block %1 ends in %2").arg(text(r, 0), days(static_cast<int>(number(r, 0))));
    case Fact::readBeforeVerified:
        return r.tone == Tone::caution
                   ? tr("%1 readings were taken before %2 was verified: read again, now that it is")
                         .arg(whole(number(r, 0)), testerName(r))
                   : tr("%1 readings from before %2 was verified are left out").arg(whole(number(r, 0)), testerName(r));
    case Fact::readingsHeld:
        return tr("%1 failed its block after these readings: clean, seat, repeat the run before they count")
            .arg(testerName(r));
    case Fact::testerStopped:
        return tr("%1 failed its block %2 in a row: stop it. Use another tester or files, and have it looked at")
            .arg(testerName(r), times(static_cast<int>(number(r, 0))));
    case Fact::heldCleared:
        return tr("%1 failed its block once after these readings; the repeat was good, so they count")
            .arg(testerName(r));
    case Fact::earlierState:
        return text(r, 0) == QLatin1String("cold")
                   ? tr("Read before the cold treatment: read the blade as it is now")
                   : tr("Read on metal that is ground off: read the blade as it is now");
    case Fact::stateBefore:
        return text(r, 0) == QLatin1String("cold")
                   ? tr("Before the cold treatment it read %1 (%2 readings)").arg(h(0), whole(number(r, 1)))
                   : tr("On the metal that is ground off it read %1 (%2 readings)").arg(h(0), whole(number(r, 1)));
    case Fact::mapped:
        return tr("%1 readings map it already: more of them will not settle it").arg(whole(number(r, 0)));
    case Fact::metalCleaned:
        return tr("Read on clean metal");
    case Fact::filesRepeated:
        return tr("Files tried %1 in this state").arg(times(static_cast<int>(number(r, 0))));
    case Fact::filesHardened:
        return tr("Hardened: it skates the file of %1. These files cannot confirm %2. Temper it today").arg(h(0), h(1));
    case Fact::keepsAustenite:
        return text(r, 0) == QLatin1String("hot") ? tr("Soaked at %1, over %2: retained austenite is likely. Treat one "
                                                       "blade cold; if it rises, that was "
                                                       "it")
                                                        .arg(degrees(number(r, 0)), degrees(number(r, 1)))
                                                  : tr("Soaked long at %1: retained austenite is likely. Treat one "
                                                       "blade cold; if it rises, that was it")
                                                        .arg(degrees(number(r, 0)));
    case Fact::temperDoubted:
        return tr("Temper %1 is logged as %2. Meant as %3 °F, which is %4?")
            .arg(whole(number(r, 2)), degrees(number(r, 0)), whole(number(r, 0)), degrees(number(r, 1)));
    case Fact::softOnClean:
        return r.numbers.empty() ? tr("Soft on clean metal too") : tr("Soft on clean metal too: %1").arg(h(0));
    case Fact::rehardenLeft:
        return tr("Harden it again: round %1, the shop allows %2 again")
            .arg(whole(number(r, 0)), times(static_cast<int>(number(r, 1))));
    case Fact::useFits:
        return tr("Its hardness suits another use: %1").arg(text(r, 0));
    case Fact::noWayLeft:
        return r.numbers.size() < 2
                   ? tr("It was hardened again as often as the shop allows, and no use suits its hardness")
                   : tr("Hardened again it is as soft as before: %1 then, %2 now; once more makes the same")
                         .arg(h(0), h(1));
    case Fact::hotterHelps:
        return tr("Another temper would make it surer: %1 inside now, %2 after it")
            .arg(percent(number(r, 0)), percent(number(r, 1)));
    case Fact::smallerStep:
        return tr("A smaller step, to %2: nothing hotter than %1 was read in this shop")
            .arg(degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::overHump:
        return tr("Tempered higher, to its secondary hardness at %1, it gets harder. It costs toughness or rust "
                  "resistance, and takes two tempers there")
            .arg(degrees(number(r, 0)));
    case Fact::runsDoubted:
        return tr("Not used: tempers whose readings nobody expected, in %1. Look into them first").arg(listed(r));
    case Fact::shotsDisagree:
        return r.tone == Tone::note ? tr("One shot differs in %1 (%2 to %3) and is left out")
                                          .arg(text(r, 0), percentText(number(r, 0)), percentText(number(r, 1)))
                                    : tr("The shots disagree, %1 %2 to %3: another bar, plated, or not clean")
                                          .arg(text(r, 0), percentText(number(r, 0)), percentText(number(r, 1)));
    case Fact::platedOrDirty:
        return tr("Plated or dirty: %1 belongs to the surface, not to this steel. Grind to bare metal and shoot again")
            .arg(listed(r));
    case Fact::carbonUnseen:
        return tr("Its carbon was not measured: a coupon, sparks or spark emission would tell");
    case Fact::maybeOutside:
        return tr("%1 that it is a steel the library does not hold").arg(percent(number(r, 0)));
    case Fact::noneSure:
        return tr("None is sure enough to change the grade: %1").arg(withShares(r));
    case Fact::notBladeSteel:
        return tr("Looks like %1 (%2), which is no blade steel").arg(text(r, 0), percent(number(r, 0)));
    case Fact::steelFailed:
        return tr("Its composition does not match %1: settle the steel before anything is done to the blade")
            .arg(text(r, 0));
    case Fact::setOutside:
        return tr("Set to %1; %2 is hardened from %3 to %4")
            .arg(degrees(number(r, 0)), text(r, 0), degrees(number(r, 1)), degrees(number(r, 2)));
    case Fact::planOutside:
        return tr("The plan of %1 min is outside the %2 min that %3 asks for")
            .arg(planText(number(r, 0), number(r, 1)), planText(number(r, 2), number(r, 3)), text(r, 0));
    case Fact::mediumSlow:
        return tr("%1 is too slow for %2: it will not harden through").arg(text(r, 0), text(r, 1));
    case Fact::mediumHarsh:
        return tr("%1 is harsher than %2 asks for: look for cracks").arg(text(r, 0), text(r, 1));
    case Fact::mediumUnknown:
        return text(r, 0).isEmpty() ? tr("Quenchant not noted: not checked against the grade")
                                    : tr("%1 is not known here: not checked against the grade").arg(text(r, 0));
    case Fact::oilHot:
        return r.numbers.size() > 2 ? tr("Oil at %1, and it flashes at %2: keep it %3 below")
                                          .arg(degrees(number(r, 0)), degrees(number(r, 2)), degreesApart(number(r, 1)))
                                    : tr("Oil at %1: make sure that it flashes at least %2 higher")
                                          .arg(degrees(number(r, 0)), degreesApart(number(r, 1)));
    case Fact::heatUnchecked:
        return text(r, 0).isEmpty()
                   ? tr("No grade is set: the heat is not checked against anything")
                   : tr("%1 is not in the library: its heat is not checked against anything").arg(text(r, 0));
    case Fact::traceGap:
        return tr("The trace does not cover %1 min, from minute %2 on: not counted as soak")
            .arg(minutes(number(r, 0)), minutes(number(r, 1)));
    case Fact::untempered:
        return tr("Glass-hard, not tempered yet: nothing is pressed, bent or tried");
    case Fact::damageOpen:
        return number(r, 0) > 0 ? tr("%1 of %2: repair it, then look again").arg(recorded(r.texts.at(0)), mm(0))
                                : tr("%1: repair it, then look again").arg(recorded(r.texts.at(0)));
    case Fact::struckMatters:
        return r.texts.empty() ? tr("Readings were struck out that would change a verdict: say why it may go")
                               : tr("With the %1 readings that were struck out it would read %2 and not pass")
                                     .arg(whole(number(r, 1)), h(0));
    case Fact::testerFailed:
        return tr("%1 failed its block: Borderline at best").arg(testerName(r));
    case Fact::readingsSuspect:
        return tr("%1 failed twice on its block after these readings: they are suspect").arg(testerName(r));
    case Fact::verificationOtherBand:
        return tr("The block at %1 does not cover readings at %2").arg(h(0), h(1));
    case Fact::zoneBeside: {
        const QString read =
            std::lround(number(r, 2)) == 1 ? tr("one reading") : tr("%1 readings").arg(whole(number(r, 2)));
        const QString beside = tr("%1: %2 ± %3, %4").arg(zoneName(r.texts[0]), h(0), h(1), read);
        const double low = number(r, 3);
        const double high = number(r, 4);
        if (std::isinf(low) && std::isinf(high)) return tr("Beside the edge, %1").arg(beside);
        const QString window = std::isinf(high)  ? tr("%1 at least").arg(h(3))
                               : std::isinf(low) ? tr("%1 at most").arg(h(4))
                                                 : tr("%1 to %2").arg(h(3), h(4));
        return tr("Beside the edge, %1, asked %2").arg(beside, window);
    }
    case Fact::steelsShare:
        return tr("%1 are soaked together from %2 to %3").arg(listed(r), degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::steelsShareNothing:
        return tr("%1 share no soaking temperature: one of them is over- or underheated").arg(listed(r));
    case Fact::partQuench:
        return tr("%1 quenches %2 (%3) too slowly").arg(text(r, 0), text(r, 1), text(r, 2));
    case Fact::partReading:
        return tr("%1 in the %2: %3 comes to %4 to %5 from the quench").arg(h(0), text(r, 1), text(r, 0), h(1), h(2));
    case Fact::partOutside:
        return tr("%1 is outside what %2 (%3) is soaked at, %4 to %5")
            .arg(degrees(number(r, 0)), text(r, 0), text(r, 1), degrees(number(r, 1)), degrees(number(r, 2)));
    case Fact::partEmbrittles:
        return tr("%1 turns %2 (%3) brittle: %4 to %5")
            .arg(degrees(number(r, 0)), text(r, 0), text(r, 1), degrees(number(r, 1)), degrees(number(r, 2)));
    case Fact::verificationAged:
        return tr("Verified %1 before: aged, ± %2 more for its drift since")
            .arg(days(static_cast<int>(number(r, 0))), u(1));
    case Fact::withAllowance:
        return tr("Passes with allowance: %1 lies %2 outside, %3 is allowed").arg(h(0), h(1), h(2));
    case Fact::canPass: {
        const auto band = [&](std::size_t i) {
            return std::isinf(number(r, i))          ? tr("up to %1").arg(h(i + 1))
                   : std::isinf(number(r, i + 1))    ? tr("from %1").arg(h(i))
                   : number(r, i) > number(r, i + 1) ? tr("no mean")
                                                     : tr("%1 to %2").arg(h(i), h(i + 1));
        };
        return tr("With this tester and %1 readings %2 passes; with five readings on the block %3")
            .arg(whole(number(r, 2)), band(0), band(3));
    }
    case Fact::filesNotTried:
        return tr("Asked by files, and none tried on bare metal yet");
    case Fact::filesPass:
        return tr("By the files %1: inside").arg(bracketText(r));
    case Fact::filesSoft:
        return tr("By the files %1: soft").arg(bracketText(r));
    case Fact::filesHard:
        return tr("By the files %1: hard").arg(bracketText(r));
    case Fact::filesAcross:
        return tr("By the files %1: across a limit; the file of %2 would settle it").arg(bracketText(r), h(2));
    case Fact::filesStay:
        return tr("By the files %1: across a limit, and no file of the set would settle it").arg(bracketText(r));
    case Fact::coldTreated:
        return tr("Cold treated at %1 for %2").arg(degrees(number(r, 0)), hours(number(r, 1)));
    case Fact::coldLate:
        return number(r, 1) > 1
                   ? tr("Cold treated at %1 after %2 tempers: little is left to turn, and what turns is untempered")
                         .arg(degrees(number(r, 0)), whole(number(r, 1)))
                   : tr("Cold treated at %1 after a temper: little is left to turn, and what turns is untempered")
                         .arg(degrees(number(r, 0)));
    case Fact::finishedKnife:
        return tr("A finished knife: nothing is done to its steel");
    case Fact::filesHarder:
        return tr("The rod chipped the edge: taken as the harder half, %1 to %2").arg(h(0), h(1));
    case Fact::filesSofter:
        return tr("The edge rolled on the rod: taken as the softer half, %1 to %2").arg(h(0), h(1));
    case Fact::temperByColour:
        return tr("The temper's temperature is not noted; by its colour, %1, it was %2 to %3")
            .arg(text(r, 0), degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::filesCannot:
        return std::isinf(number(r, 0))
                   ? tr("No set of files is known: nothing can be confirmed by them")
                   : tr("This set cannot confirm the window: it needs %1 HRC of width, or a minimum of %2 at most")
                         .arg(h(0), h(1));
    case Fact::blockRunOut:
        return tr("The certificate of block %1 had run out %2 before: its value is not assured")
            .arg(QString::fromStdString(r.texts.at(0)), days(static_cast<int>(number(r, 0))));
    case Fact::blockFarOff:
        return tr("Block %1 is more than 5 from %2: use one nearer").arg(h(0), h(1));
    case Fact::spacingGood:
        return tr("%1 apart, %2 needed").arg(mm(0), mmOnly(1));
    case Fact::spacingBroken:
        return text(r, 0) == QLatin1String("edge")
                   ? tr("%3 left out: %1 from the edge, %2 needed").arg(mm(0), mmOnly(1), h(2))
               : text(r, 0) == QLatin1String("strike")
                   ? tr("%3 left out: %1 from another strike, %2 needed; work hardened metal reads high")
                         .arg(mm(0), mmOnly(1), h(2))
                   : tr("%3 left out: %1 from another indent, %2 needed").arg(mm(0), mmOnly(1), h(2));
    case Fact::spacingNotLookedAt:
        return tr("Places of the indents: not looked at");
    case Fact::acceptedReading:
        return tr("%1 counts against the rule: %2").arg(h(0), text(r, 0));
    case Fact::thicknessGood:
        return tr("%1 thick, %2 needed").arg(mm2(0), mm2Only(1));
    case Fact::tooThin: {
        QStringList scales;
        for (std::size_t i = 0; i < r.texts.size(); ++i) scales << text(r, i);
        const QString lighter =
            scales.isEmpty() ? tr("no Rockwell scale will do") : tr("read %1 instead").arg(scales.join(tr(" or ")));
        return tr("%1 is too thin, %2 needed: %3").arg(mm2(0), mm2Only(1), lighter);
    }
    case Fact::belowTenDepths:
        return tr("%1 is under ten indent depths (%2): look at the back for a mark").arg(mm2(0), mm2Only(1));
    case Fact::outsideScale:
        if (r.rule == "M8") return tr("%1 %2 does not convert to HRC: not judged").arg(h(0), text(r, 0));
        return tr("%1 is outside the range of %2").arg(h(0), text(r, 0));
    case Fact::mixedScales:
        return tr("Read on more than one scale: Borderline at best");
    case Fact::mixedTesters:
    case Fact::testersAgree: {
        // Mean and U of each, then what they say together.
        QStringList sets;
        const std::size_t count = r.texts.size() / 2;
        for (std::size_t i = 0; i < count; ++i) {
            const QString set = tr("%1 %2 ± %3").arg(text(r, i), h(2 * i), h(2 * i + 1));
            sets << (text(r, count + i).isEmpty() ? set : tr("%1 not verified").arg(set));
        }
        const std::size_t last = 2 * count;
        const QString all = sets.join(QStringLiteral(", "));
        if (count > 2) {
            QStringList apart;
            for (std::size_t i = 0; i < count; ++i) {
                if (number(r, last + 2 + i) > 1) apart << text(r, i);
            }
            const QString together =
                (r.fact == Fact::mixedTesters ? tr("Testers further apart than they explain: %1; together %2 ± %3")
                                              : tr("Testers agree: %1; together %2 ± %3"))
                    .arg(all, h(last), h(last + 1));
            return apart.isEmpty()     ? together
                   : apart.size() == 1 ? tr("%1; %2 stands apart").arg(together, apart.front())
                                       : tr("%1; %2 stand apart").arg(together, apart.join(QStringLiteral(", ")));
        }
        // Of two that contradict each other the middle is nobody's number.
        return r.fact == Fact::mixedTesters
                   ? tr("Testers further apart than they explain: %1").arg(all)
                   : tr("Testers agree: %1; together %2 ± %3, the first is judged").arg(all, h(last), h(last + 1));
    }
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
    case Fact::soakOffPlan:
        return tr("Its soak was off the plan: see Heat");
    case Fact::filesAgree:
        return tr("Agrees with the files: %1").arg(bracketText(number(r, 0), number(r, 1)));
    case Fact::filesConflict:
        return tr("Files say %1: repeat both on bare metal. Scale skates falsely, soft skin bites; or the tester is "
                  "off")
            .arg(bracketText(number(r, 0), number(r, 1)));
    case Fact::filesNoted:
        return tr("Files say %1; no reading to compare with").arg(bracketText(number(r, 0), number(r, 1)));
    case Fact::filesAgainstWindow:
        return tr("Files alone say %1: outside what is asked").arg(bracketText(number(r, 0), number(r, 1)));
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
        return tr("Convex, radius %1: up to %2 added").arg(mm(1), h(0));
    case Fact::convexRefused:
        return tr("%1 left out, radius %2: %3").arg(h(0), mm(1), text(r, 0));
    case Fact::reboundThin:
        return tr("%1 thick; rebound strikes need %2 behind them").arg(mm(0), mmOnly(1));
    case Fact::steelIncomplete: {
        QStringList elements;
        for (std::size_t i = 0; i < r.texts.size(); ++i) elements << text(r, i);
        return tr("Undecided: measure %1, which make the grade").arg(elements.join(QStringLiteral(", ")));
    }
    case Fact::elementDoubtful:
        return tr("%1 reads %2, but XRF sees it badly: repeat on ground, clean metal")
            .arg(text(r, 0), percentText(number(r, 0)));
    case Fact::certificateDiffers:
        return tr("%1: %2 measured, %3 on the certificate")
            .arg(text(r, 0), percentText(number(r, 0)), percentText(number(r, 1)));
    case Fact::crackSeen:
        return r.numbers.empty() ? tr("A %1 is marked and not cleared").arg(recorded(r.texts.at(0)))
                                 : tr("A %1 is marked at %2 and not cleared").arg(recorded(r.texts.at(0)), mm(0));
    case Fact::temperEmbrittles:
        return tr("Tempered at %1, inside %2 to %3 that this grade is to avoid: prove it on the rod or a broken coupon")
            .arg(degrees(number(r, 0)), whole(number(r, 1)), degrees(number(r, 2)));
    case Fact::heatExplains:
        return text(r, 0) == QLatin1String("soak")       ? tr("The Heat gate accounts for it: soaked short or cool")
               : text(r, 0) == QLatin1String("transfer") ? tr("The Heat gate accounts for it: too cool on entering")
               : text(r, 0) == QLatin1String("quenchant")
                   ? tr("The Heat gate accounts for it: the quenchant was off its temperature")
                   : tr("The Heat gate accounts for it: %1 is slow for this grade and thickness").arg(text(r, 1));
    case Fact::aboveGradeVerified:
        return tr("%1 is over %2, the most this grade is known to give: the library may be low, the steel another, or "
                  "it "
                  "was treated cold")
            .arg(h(0), h(1));
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
    case Fact::meanBelow:
        return tr("The mean itself, %1, is below %2").arg(h(0), h(1));
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
        return tr("%1 more would settle it in %2 of such cases").arg(whole(number(r, 0)), percent(number(r, 1)));
    case Fact::moreReadingsMay:
        return tr("%1 more settle it in %2 of such cases").arg(whole(number(r, 0)), percent(number(r, 1)));
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
    case Fact::notHardened:
        return tr("Not hardened: %1 readings, the hardest %2, are below the scale").arg(whole(number(r, 0)), h(1));
    case Fact::steelSettled:
        return tr("Its steel was looked at");
    case Fact::softAlloyTwoCauses:
        return tr("Soak too cool, or too hot with retained austenite: opposite cures. Cold-treat one blade to tell");
    case Fact::edgeLineLow:
        return tr("Edge line %1, elsewhere %2: thin metal cooled early, or soft skin?").arg(h(0), h(1));
    case Fact::scatterOverThree:
        return tr("%1 of scatter on one blade: scale, soft spots or uneven heat").arg(h(0));
    case Fact::longSinceQuench:
        return tr("%1 min since the quench: give it a %2 snap temper and log it")
            .arg(whole(number(r, 0)), degrees(150));
    case Fact::tempersMissing:
        return tr("Tempers missing: %1 of %2 logged").arg(whole(number(r, 0)), whole(number(r, 1)));
    case Fact::oneTemperAdvised:
        return tr("One temper logged; two are advised");
    case Fact::noReadingsAfterLastTemper:
        return tr("No readings after temper %1").arg(whole(number(r, 0)));
    case Fact::readingsNotTiedToTemper:
        return tr("%1 readings do not say after which temper").arg(whole(number(r, 0)));
    case Fact::roseAfterTemper:
        return tr("Rose from %1 to %2 after temper %3: one more temper is required")
            .arg(h(0), h(1), whole(number(r, 2)));
    case Fact::notYetDone:
        return tr("Hard is not a failure: temper again");
    case Fact::temperingCannotRaise:
        return tr("Tempering will not raise it");
    case Fact::ruleOutFalseSoftness:
        return tr("First rule out soft skin, warp, support and a near edge");
    case Fact::overHardeningLimit:
        return tr("Hardened again %1, the shop's limit is %2")
            .arg(times(static_cast<int>(number(r, 0))), whole(number(r, 1)));
    case Fact::fullAnnealFirst:
        return r.numbers.size() < 2 ? tr("%1: have it annealed before hardening again, never normalize").arg(text(r, 0))
                                    : tr("%1: full anneal at %2 to %3 before hardening again, never normalize")
                                          .arg(text(r, 0), degrees(number(r, 0)), degrees(number(r, 1)));
    case Fact::normaliseFirst:
        return tr("%1: check for cracks, then normalise or sub-critical anneal before hardening again").arg(text(r, 0));
    case Fact::gradeUnknown:
        return text(r, 0).isEmpty() ? tr("The grade is not known: its rules cannot be looked up")
                                    : tr("%1 is not in the library: its rules cannot be looked up").arg(text(r, 0));
    case Fact::siblingsShiftedToo:
        return tr("All siblings are off the same way (%1): look at oven and tester").arg(h(0));
    case Fact::noShotTaken:
        return tr("Not looked at: shoot the bar, or note a spark or a coupon");
    case Fact::steelConsistent:
        return number(r, 1) == 1 ? tr("%1 elements from one shot answer to %2").arg(whole(number(r, 0)), text(r, 0))
                                 : tr("%1 elements from %2 shots answer to %3")
                                       .arg(whole(number(r, 0)), whole(number(r, 1)), text(r, 0));
    case Fact::certificateConsistent:
        return tr("By the mill's certificate only: %1 elements answer to %2").arg(whole(number(r, 0)), text(r, 0));
    case Fact::steelUndecided:
        return tr("%1: cannot be decided, repeat on bare metal").arg(elementText(r));
    case Fact::steelNotConsistent:
        return elementText(r);
    case Fact::alsoConsistent:
        return tr("So are these: %1. It cannot tell them apart").arg(withShares(r));
    case Fact::looksMoreLike:
        return tr("Looks more like %1").arg(withShares(r));
    case Fact::severalFit:
        return tr("May be %1 (%2, %3 to %4 %5) or %6 (%7, %8 to %9 %5)")
            .arg(text(r, 0), percent(number(r, 0)), plain(number(r, 2)), plain(number(r, 3)), text(r, 2), text(r, 1),
                 percent(number(r, 1)), plain(number(r, 4)), plain(number(r, 5)));
    case Fact::noGradeFits:
        return tr("No grade in the library fits");
    case Fact::methodCannotSee:
        return tr("It does not see %1").arg(listed(r));
    case Fact::gradeReassigned:
        return tr("Sold as %1, taken for %2").arg(text(r, 0), text(r, 1));
    case Fact::shotCoated:
        return tr("Plated or coated? Grind to bare metal and shoot again");
    case Fact::shotScaled:
        return tr("Scale, grit or dirt? Grind to bare metal and shoot again");
    case Fact::shotSmall:
        return tr("The parts do not add up: spot too small or not flat?");
    case Fact::couponAgrees:
        return tr("A hardened coupon at %1 suits %2 (%3 to %4)").arg(h(0), text(r, 0), h(1), h(2));
    case Fact::couponContradicts:
        return tr("A hardened coupon at %1 does not suit %2 (%3 to %4)").arg(h(0), text(r, 0), h(1), h(2));
    case Fact::sparkAgrees:
        return text(r, 0).isEmpty() ? tr("Sparks like the known bar")
                                    : tr("Sparks like the known bar: %1").arg(text(r, 0));
    case Fact::sparkContradicts:
        return text(r, 0).isEmpty() ? tr("Sparks unlike the known bar")
                                    : tr("Sparks unlike the known bar: %1").arg(text(r, 0));
    case Fact::excusedBecause:
        return text(r, 1).isEmpty() ? text(r, 0) : tr("%1 (%2)").arg(text(r, 0), text(r, 1));
    case Fact::outBecause:
        return tr("Out of the batch: %1").arg(recorded(r.texts.empty() ? std::string() : r.texts[0]));
    default: {
        const QString heat = heatSentence(r);
        return heat.isEmpty() ? proofSentence(r) : heat;
    }
    }
}

} // namespace rollcall::words

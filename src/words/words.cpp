// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "core/base/number.h"
#include "words/phrases.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <QDateTime>
#include <QLocale>

namespace rollcall::words {

QString gateName(Gate gate) {
    switch (gate) {
    case Gate::steel:
        return tr("Steel");
    case Gate::heat:
        return tr("Heat");
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

QString entryName(const std::string& action) {
    static const std::map<std::string_view, const char*> names{
        {"study planned", QT_TRANSLATE_NOOP("rollcall", "the planned study")},
        {"batch added", QT_TRANSLATE_NOOP("rollcall", "the new batch")},
        {"blade added", QT_TRANSLATE_NOOP("rollcall", "the blade added")},
        {"blade renamed", QT_TRANSLATE_NOOP("rollcall", "the other mark")},
        {"batch renamed", QT_TRANSLATE_NOOP("rollcall", "the batch's other name")},
        {"blade measured anew", QT_TRANSLATE_NOOP("rollcall", "the blade's other measures")},
        {"cold treatment logged", QT_TRANSLATE_NOOP("rollcall", "the cold treatment")},
        {"reading moved", QT_TRANSLATE_NOOP("rollcall", "Moving the reading")},
        {"blade excused", QT_TRANSLATE_NOOP("rollcall", "the excuse")},
        {"blade taken out", QT_TRANSLATE_NOOP("rollcall", "taking the blade out")},
        {"claim changed", QT_TRANSLATE_NOOP("rollcall", "what the knife is asked for")},
        {"limits changed", QT_TRANSLATE_NOOP("rollcall", "the limits")},
        {"zone window changed", QT_TRANSLATE_NOOP("rollcall", "the zone's window")},
        {"plan changed", QT_TRANSLATE_NOOP("rollcall", "the gate's plan")},
        {"means changed", QT_TRANSLATE_NOOP("rollcall", "by which evidence a gate is asked")},
        {"rules changed", QT_TRANSLATE_NOOP("rollcall", "the rules")},
        {"note kept", QT_TRANSLATE_NOOP("rollcall", "the note")},
        {"signed", QT_TRANSLATE_NOOP("rollcall", "the signature")},
        {"temper cycle logged", QT_TRANSLATE_NOOP("rollcall", "the temper")},
        {"temper meant", QT_TRANSLATE_NOOP("rollcall", "that the temper is meant")},
        {"temper cycle struck out", QT_TRANSLATE_NOOP("rollcall", "striking out the temper")},
        {"grade re-assigned", QT_TRANSLATE_NOOP("rollcall", "the other grade")},
        {"edge asked for", QT_TRANSLATE_NOOP("rollcall", "what the edges are asked for")},
        {"grain asked for", QT_TRANSLATE_NOOP("rollcall", "the least grain")},
        {"sample asked for", QT_TRANSLATE_NOOP("rollcall", "the sample")},
        {"steel named", QT_TRANSLATE_NOOP("rollcall", "the other steel")},
        {"surprise looked into", QT_TRANSLATE_NOOP("rollcall", "the look into a surprise")},
        {"recipe chosen", QT_TRANSLATE_NOOP("rollcall", "the recipe")},
        {"reading struck out", QT_TRANSLATE_NOOP("rollcall", "striking out the reading")},
        {"readings superseded", QT_TRANSLATE_NOOP("rollcall", "the set that was put aside")},
        {"import taken back", QT_TRANSLATE_NOOP("rollcall", "Taking the import back")},
        {"reading accepted", QT_TRANSLATE_NOOP("rollcall", "counting the reading")}};
    const auto known = names.find(action);
    return known != names.end() ? tr(known->second) : QString::fromStdString(action);
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
    case StrikeReason::typingSlip:
        return tr("typing slip");
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
        return tr("allowance: outside by no more than it passes");
    case DecisionRule::chance:
        return tr("chance: 90 % or more inside passes");
    }
    return {};
}

QString tenths(double value) {
    return QString::number(value, 'f', 1);
}

QString hardness(double value) {
    return QString::fromStdString(tenthText(value)).replace(QLatin1Char('-'), QChar(0x2212));
}

QString uncertainty(double value) {
    return QString::fromStdString(uncertaintyText(value));
}

QString hours(double value) {
    return value < 1 ? tr("%1 min").arg(std::lround(value * 60)) : tr("%1 h").arg(value, 0, 'g', 3);
}

QString days(int count) {
    return count == 1 ? tr("one day") : tr("%1 days").arg(count);
}

QString times(int count) {
    return count == 1 ? tr("once") : count == 2 ? tr("twice") : tr("%1 times").arg(count);
}

QString percentText(double value) {
    return QString::number(value, 'f', value < 0.1 ? 3 : value < 10 ? 2 : 1);
}

QString percent(double chance) {
    return tr("%1 %").arg(std::clamp<int>(static_cast<int>(std::lround(chance * 100)), 1, 99));
}

QString windowText(const Window& window) {
    if (window.low && window.high) return tr("%1 to %2").arg(hardness(*window.low), hardness(*window.high));
    if (window.low) return tr("%1 or harder").arg(hardness(*window.low));
    if (window.high) return tr("%1 or softer").arg(hardness(*window.high));
    return tr("no window");
}

QString touchName(FileTouch touch) {
    return touch == FileTouch::skates ? tr("skates") : touch == FileTouch::bites ? tr("bites") : tr("barely catches");
}

QString readingText(const Batch& batch, const Reading& reading) {
    QStringList parts{hardness(reading.value) + QLatin1Char(' ') + QString::fromStdString(reading.scale)};
    if (reading.zone != Zone::edge) parts << zoneName(nameOf(reading.zone));
    for (const Tester& tester : batch.testers) {
        if (tester.id == reading.tester) parts << QString::fromStdString(tester.name);
    }
    if (reading.time)
        parts << QLocale().toString(
            QDateTime::fromMSecsSinceEpoch(reading.time->utc_ms, Qt::OffsetFromUTC, reading.time->offset_minutes * 60),
            QStringLiteral("d MMM HH:mm"));
    if (!reading.person.empty()) parts << QString::fromStdString(reading.person);
    const QString text = parts.join(QStringLiteral(", "));
    return reading.struck ? tr("%1; struck out: %2").arg(text, strikeName(reading.struck->reason)) : text;
}

QString bracketText(double lower, double upper) {
    if (std::isinf(lower) && std::isinf(upper)) return tr("nothing");
    if (std::isinf(upper)) return tr("%1 or harder").arg(hardness(lower));
    if (std::isinf(lower)) return tr("%1 or softer").arg(hardness(upper));
    return tr("%1 to %2").arg(hardness(lower), hardness(upper));
}

QString headline(const Verdict& v) {
    if (v.state == State::excused) return v.reasons.empty() ? QString() : sentence(v.reasons.front());
    if (v.next.act == Act::clearCrack) return tr("It is cracked.");
    if (v.next.act == Act::lookIntoSurprise)
        return v.has(Fact::temperDoubted) ? tr("A temper may be in the wrong unit.") : tr("Nobody expected this.");
    if (v.has(Fact::untempered)) return tr("Glass-hard: temper it first.");
    if (v.next.act == Act::repairDamage) return tr("Damaged: repair it first.");
    if (v.has(Fact::steelFailed)) return tr("It is not the steel it should be.");
    if (v.has(Fact::tempersMissing)) {
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::tempersMissing) return sentence(r);
        }
    }
    if (v.gate == Gate::edge || v.gate == Gate::proof) return proofHeadline(v);
    if (v.gate == Gate::release) return releaseHeadline(v);
    if (v.state == State::notYet) {
        if (v.gate == Gate::steel) return tr("Nobody has looked yet.");
        if (v.gate == Gate::heat) return v.reasons.empty() ? QString() : sentence(v.reasons.front());
        if (v.has(Fact::noMinimumSet)) return tr("No minimum set.");
        if (v.has(Fact::noWindowSet)) return tr("No window set.");
        if (v.has(Fact::filesNotTried)) return tr("Asked by files.");
        const auto* step = v.next.as<ReadStep>();
        const int left = step != nullptr ? step->readings : std::max(1, std::max(1, v.planned) - v.taken);
        return left == 1 ? tr("One reading to go.") : tr("%1 readings to go.").arg(left);
    }
    if (v.gate == Gate::steel) {
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::alsoConsistent && v.state == State::pass) return tr("Consistent, but not alone.");
        }
        return v.state == State::pass        ? tr("Consistent with its claim.")
               : v.state == State::fail      ? tr("Not what it is taken for.")
               : v.has(Fact::steelUndecided) ? tr("This method cannot decide it.")
                                             : tr("Something speaks against it.");
    }
    if (v.gate == Gate::heat) {
        if (v.state == State::pass) return tr("Soaked and quenched to plan.");
        const Fact first = v.reasons.empty() ? Fact::noHeatLogged : v.reasons.front().fact;
        return first == Fact::soakOver           ? tr("Soaked longer than planned.")
               : first == Fact::soakUnder        ? tr("Soaked shorter than planned.")
               : first == Fact::soakApart        ? tr("Soaked unlike the others.")
               : first == Fact::transferLate     ? tr("Slow into the quench.")
               : first == Fact::transferSlow     ? tr("Slow into the quench.")
               : first == Fact::transferApart    ? tr("Two transfer times.")
               : first == Fact::quenchantOff     ? tr("The quenchant was off.")
               : first == Fact::ovenOvershot     ? tr("The oven overshot.")
               : first == Fact::noteAgainstTrace ? tr("Note and trace disagree.")
                                                 : QString();
    }
    for (const Reason& r : v.reasons) {
        if (r.fact == Fact::filesPass || r.fact == Fact::filesSoft || r.fact == Fact::filesHard ||
            r.fact == Fact::filesAcross || r.fact == Fact::filesStay)
            return tr("%1 by the files.").arg(bracketText(number(r, 0), number(r, 1)));
    }
    if (!v.measurement) return {};
    const Measurement& m = *v.measurement;
    switch (v.state) {
    case State::pass:
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::withAllowance) return tr("With allowance, %1 outside.").arg(hardness(number(r, 1)));
        }
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

namespace {

QString temperDetail(const TemperStep& temper) {
    const QString own = tr("for %1, expect %2").arg(hours(temper.advised->hours), hardness(temper.advised->expect.hrc));
    if (temper.load.size() < 2) return own;
    return tr("%1; %2 blades together").arg(own).arg(temper.load.size());
}

} // namespace

NextWords nextStep(const Verdict& v) {
    const auto* read = v.next.as<ReadStep>();
    const int more = read != nullptr ? read->readings : 0;
    const auto* temper = v.next.as<TemperStep>();
    switch (v.next.act) {
    case Act::nothing:
        return {};
    case Act::takeReadings:
        return {tr("Take reading %1").arg(v.taken + 1), {}};
    case Act::readAgain:
        return more == 1   ? NextWords{tr("Read once more"), tr("on a new spot")}
               : more == 2 ? NextWords{tr("Read twice more"), tr("on new spots")}
                           : NextWords{tr("Read %1 times more").arg(more), tr("on new spots")};
    case Act::mapReadings:
        return {tr("Map the blade"), tr("clean it, read heel to tip")};
    case Act::verifyTester:
        return {tr("Verify the tester"), tr("on a block, then read again")};
    case Act::logTemper:
        if (temper == nullptr) return {tr("Log a temper"), {}};
        if (temper->advised)
            return {tr("Temper %1 at %2").arg(temper->done + 1).arg(degrees(temper->advised->temperature_c)),
                    temperDetail(*temper)};
        return {tr("Log temper %1").arg(temper->done + 1), tr("%1 needed before a Pass").arg(temper->needed)};
    case Act::temperAgain:
        if (temper != nullptr && temper->advised)
            return {tr("Temper again at %1").arg(degrees(temper->advised->temperature_c)), temperDetail(*temper)};
        return {tr("Temper again"), tr("a little hotter, then read")};
    case Act::takeShot:
        return {tr("Take a shot"), tr("on bare, clean metal; three are better")};
    case Act::reassign:
        if (const auto* to = v.next.as<GradeStep>())
            return {tr("Take it for %1").arg(QString::fromStdString(to->grade)),
                    tr("%1 by all evidence; or return the bar").arg(percent(to->share))};
        return {tr("Return the bar"), tr("no grade fits; or add one to the library")};
    case Act::markBlade:
        return {tr("Mark it in the oven"), tr("and as it leaves")};
    case Act::startHeat:
        return {tr("Start the heat"), tr("oven, set point, soak")};
    case Act::breakCoupon:
        return {tr("Break a coupon"),
                tr("that soaked %1 min, before finishing")
                    .arg(v.next.as<CouponStep>() != nullptr ? minutes(v.next.as<CouponStep>()->minutes) : QString())};
    case Act::falseSoftness:
        return {tr("Read on clean metal"), tr("soft again: re-harden, other use, scrap")};
    case Act::makerDecides:
        if (v.gate != Gate::quench && v.gate != Gate::temper)
            return {tr("You decide"), tr("keep it, another use, or scrap")};
        return {tr("You decide"),
                v.has(Fact::filesStay) ? tr("these files cannot settle it") : tr("this tester cannot settle it")};
    case Act::acceptOrReturn:
        return {tr("Keep or send back"), tr("another use, ask the seller")};
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
    case Act::takeRung:
        return v.next.as<EdgeLoadStep>() != nullptr
                   ? NextWords{tr("Take a rung"), rung(*v.next.as<EdgeLoadStep>())}
                   : NextWords{tr("Flex it on the rod"), tr("by hand, at its sharpening angle")};
    case Act::noteEdge:
        return {tr("Measure the edge"), tr("thickness behind it, angle per side")};
    case Act::measureDamage:
        return {tr("Measure the damage"), tr("its depth from the apex, with a loupe")};
    case Act::lookAtHeat:
        return {tr("Look at the heat"), tr("coupon, hardness, re-harden")};
    case Act::fileEdge:
        return {tr("File the edge"), tr("or read it, then say that it is cleared")};
    case Act::sign:
        return {tr("Sign for it"), tr("every gate is answered")};
    case Act::answerGates:
        return {tr("Answer the open gates"), tr("or sign over, with the reason")};
    case Act::countGrain:
        return {tr("Count more lines"), tr("on its fracture; F12 is the grain")};
    case Act::hardenFiner: {
        const auto* anneal = v.next.as<AnnealStep>();
        if (anneal == nullptr || anneal->normalise)
            return {tr("Normalize, harden again"), tr("or another use, or scrap")};
        if (!anneal->anneal_c.known())
            return {tr("Have it annealed"), tr("then harden again; or another use, or scrap")};
        return {tr("Anneal, harden again"), tr("full anneal at %1 to %2; never normalize %3")
                                                .arg(degrees(*anneal->anneal_c.low), degrees(*anneal->anneal_c.high),
                                                     QString::fromStdString(anneal->grade))};
    }
    case Act::reharden:
        return {tr("Harden again"), tr("look for cracks first; the round is counted")};
    case Act::coldTreat:
        return {tr("Treat one blade cold"), tr("within the hour; then read it again")};
    case Act::repairDamage:
        return {tr("Repair it"), tr("then look again, or accept it with the reason")};
    case Act::addGrade:
        return {tr("Add the grade"), tr("from this shot; the library has none that fits")};
    case Act::returnBar:
        return {tr("Return the bar"), tr("it is no blade steel")};
    case Act::otherUse:
        if (const auto* use = v.next.as<UseStep>())
            return {tr("Put it to another use"), QString::fromStdString(use->purpose)};
        return {tr("Put it to another use"), {}};
    case Act::scrap:
        return {tr("Scrap it"), tr("or your own decision, with the reason")};
    case Act::tellApart: {
        const auto* apart = v.next.as<TellApartStep>();
        if (apart == nullptr) return {tr("Tell the grades apart"), {}};
        // The act is what is done; which of the two it is said below, with what it would show in the findings.
        const QString which = tr("%1 or %2?").arg(QString::fromStdString(apart->a), QString::fromStdString(apart->b));
        switch (apart->how.test) {
        case TellApart::Test::carbon:
            return {tr("Carbon by OES"), which};
        case TellApart::Test::coupon:
            return {tr("Harden a coupon"), which};
        default:
            return {tr("Sparks beside bars"), which};
        }
    }
    case Act::lookIntoSurprise:
        return {tr("Look into it"), tr("was the temper run? oven, reading, steel; then say what it was")};
    case Act::tryFiles: {
        const auto* file = v.next.as<FileStep>();
        return file != nullptr && file->file_hrc > 0
                   ? NextWords{tr("Try the file of %1").arg(hardness(file->file_hrc)), tr("it would settle it")}
                   : NextWords{tr("Try the files"), tr("on bare, clean metal, softest first")};
    }
    case Act::chooseSet:
        return {tr("Choose a tester"), tr("whose readings stand")};
    case Act::clearCrack:
        return {tr("Clear the crack"), tr("ground out or inspected, with the reason; or it is out")};
    case Act::backUpRebound:
        return {tr("Back up the strikes"), tr("a bench reading, or files on the blade")};
    case Act::runTrial:
        return {tr("Run a trial"), tr("on a piece that stands for the others")};
    case Act::done:
        return {tr("Done at this gate"), {}};
    case Act::out:
        return {tr("Nothing to do"), {}};
    }
    return {};
}

QString rulesText(const Batch& batch) {
    QStringList all;
    if (batch.rule == DecisionRule::chance) all << tr("Passes when it is inside with 90 % or more.");
    if (batch.rule == DecisionRule::plain) all << tr("Judged by the mean alone.");
    if (batch.rule == DecisionRule::allowance)
        all << (batch.allowance
                    ? tr("Judged with allowance: a mean outside by at most %1 HRC passes.")
                          .arg(hardness(*batch.allowance))
                    : tr("Judged with allowance: a mean outside by at most the tester's allowed error passes."));
    if (batch.uncorrected) all << tr("Judged as read, the tester's error in U.");
    if (batch.verify_every == VerifyEvery::week) all << tr("The tester is verified every week.");
    if (batch.verify_every == VerifyEvery::month) all << tr("The tester is verified every month.");
    for (const Gate gate : {Gate::quench, Gate::temper}) {
        if (batch.planOf(gate).by_files) all << tr("%1 is answered by files, known to 1.5 HRC.").arg(gateName(gate));
    }
    return all.join(QLatin1Char(' '));
}

QString zoneName(const std::string& zone) {
    switch (named<Zone>(zone).value_or(Zone::edge)) {
    case Zone::edge:
        return tr("edge");
    case Zone::spine:
        return tr("spine");
    case Zone::tang:
        return tr("tang");
    case Zone::ricasso:
        return tr("ricasso");
    case Zone::skin:
        return tr("skin");
    case Zone::core:
        return tr("core");
    case Zone::cladding:
        return tr("cladding");
    case Zone::patch:
        return tr("patch");
    }
    return {};
}

QString recorded(const std::string& text) {
    return QCoreApplication::translate("record", text.c_str());
}

QString taskText(const QString& mark, const NextStep& next) {
    switch (next.act) {
    case Act::takeReadings:
        return tr("read %1").arg(mark);
    case Act::readAgain:
        return tr("read %1 again").arg(mark);
    case Act::mapReadings:
        return tr("map %1").arg(mark);
    case Act::readThicker:
        return tr("read %1 where it is thicker").arg(mark);
    case Act::clearConflict:
        return tr("%1: clear the conflict").arg(mark);
    case Act::verifyTester:
        return tr("read %1 with a verified tester").arg(mark);
    case Act::verifyOnHarderBlock:
        return tr("verify the tester for %1").arg(mark);
    case Act::logTemper:
        return tr("temper %1").arg(mark);
    case Act::temperAgain:
        return tr("temper %1 again").arg(mark);
    case Act::falseSoftness:
        return tr("%1 is soft: read on clean metal").arg(mark);
    case Act::backToSteel:
        return tr("%1: back to Steel").arg(mark);
    case Act::setWindow:
        return tr("%1: set the limits").arg(mark);
    case Act::takeShot:
        return tr("shoot the steel of %1").arg(mark);
    case Act::reassign:
        return tr("%1 is not its grade: decide").arg(mark);
    case Act::startHeat:
        return tr("start the heat of %1").arg(mark);
    case Act::markBlade:
        return tr("%1 through the heat").arg(mark);
    case Act::breakCoupon:
        return tr("%1 soaked long: break a coupon").arg(mark);
    case Act::takeRung:
        return tr("flex %1 on the rod").arg(mark);
    case Act::noteEdge:
        return tr("measure the edge of %1").arg(mark);
    case Act::measureDamage:
        return tr("measure the damage of %1").arg(mark);
    case Act::lookAtHeat:
        return tr("%1: look at its heat").arg(mark);
    case Act::fileEdge:
        return tr("file the edge of %1").arg(mark);
    case Act::tellApart:
        return tr("%1: tell its steel").arg(mark);
    case Act::lookIntoSurprise:
        return tr("%1: look into its surprise").arg(mark);
    case Act::tryFiles:
        return tr("try files on %1").arg(mark);
    case Act::chooseSet:
        return tr("%1: whose readings stand?").arg(mark);
    case Act::clearCrack:
        return tr("%1 is cracked: clear it, or it is out").arg(mark);
    case Act::backUpRebound:
        return tr("%1: bench reading or files").arg(mark);
    case Act::runTrial:
        return tr("run a trial with %1").arg(mark);
    case Act::countGrain:
        return tr("count more lines on %1").arg(mark);
    case Act::hardenFiner:
        return next.as<AnnealStep>() == nullptr || next.as<AnnealStep>()->normalise
                   ? tr("%1 is coarse: normalize, harden again").arg(mark)
                   : tr("%1 is coarse: anneal, harden again").arg(mark);
    case Act::reharden:
        return tr("harden %1 again").arg(mark);
    case Act::coldTreat:
        return tr("treat %1 cold").arg(mark);
    case Act::repairDamage:
        return tr("repair %1, then look again").arg(mark);
    case Act::addGrade:
        return tr("%1: add its grade").arg(mark);
    case Act::returnBar:
        return tr("%1: return the bar").arg(mark);
    case Act::otherUse:
        return tr("put %1 to another use").arg(mark);
    case Act::scrap:
        return tr("scrap %1").arg(mark);
    case Act::sign:
        return tr("sign for %1").arg(mark);
    case Act::answerGates:
        return tr("%1: answer its open gates").arg(mark);
    case Act::makerDecides:
        return tr("%1: you decide").arg(mark);
    case Act::acceptOrReturn:
        return tr("%1: keep it or send it back").arg(mark);
    case Act::nothing:
    case Act::done:
    case Act::out:
        return tr("%1 has nothing left to do").arg(mark);
    }
    return mark;
}

QString cautionText(Caution caution) {
    switch (caution) {
    case Caution::glassHard:
        return tr("Glass-hard: do not drop or flex. Face shield, nobody in line, temper today.");
    case Caution::hotWork:
        return tr("Hot oven, hot steel: dry tongs, gloves. The oven's manual and local codes come first.");
    case Caution::quenchOil:
        return tr("Oil %1 below its flash point, lid and extinguisher at hand, never water. Face shield.")
            .arg(degreesApart(50));
    case Caution::clampedStack:
        return tr("Never clamp an untempered blade. A clamped stack is a spring: no galvanised clamps.");
    case Caution::xrays:
        return tr("An XRF gun is an X-ray source: licensed operators, nobody in the beam, local radiation rules.");
    case Caution::torch:
        return tr("Torch: nothing that burns near it, edge in water or wet sand, eyes shielded.");
    case Caution::sharpEdge:
        return tr("A bare edge: grip that cannot slip, cut away from hands, nobody within reach.");
    case Caution::rope:
        return tr("Rope: clear swing, nobody in front or beside, the blade ends low and away from legs.");
    case Caution::chop:
        return tr("Chopping: wood held fast, free hand and legs out of the swing, eye protection, no bystanders.");
    case Caution::bend:
        return tr("Before the bend: face shield, guard up, nobody in line. Long lever, pull slowly: blades break and "
                  "throw pieces.");
    case Caution::impact:
        return tr("Blows: hard steel throws splinters. Face and hands shielded, hammer softer than the spine, nobody "
                  "in line.");
    case Caution::nail:
        return tr("Nail: edge and nail fly in pieces. Face shield, gloves, nobody in line.");
    case Caution::dust:
        return tr("Grinding: dust of steel, of laminates and of some woods harms the lungs. Respirator and extraction, "
                  "eyes shielded, no sparks into wood dust.");
    case Caution::overhang:
        return tr("Long blade: support the overhang, it tilts on the anvil.");
    }
    return {};
}

QString stepCautionText(StepCaution caution) {
    switch (caution) {
    case StepCaution::glassHard:
        return tr("Glass-hard: do not drop or flex it, temper it today.");
    case StepCaution::brittleRange:
        return tr("This temper is in the range that makes the grade brittle: prove it on the rod or a broken coupon.");
    case StepCaution::overHump:
        return tr("Over the hump: toughness or rust resistance is lost, and it takes two tempers there.");
    case StepCaution::quenchOil:
        return tr("Hot oil: %1 below its flash point, lid and extinguisher at hand, never water.")
            .arg(degreesApart(50));
    case StepCaution::coldBurns:
        return tr("Cold burns, and its gas suffocates: gloves, air the room, never seal the vessel.");
    case StepCaution::crackFirst:
        return tr("Look for cracks first: a cracked blade is not hardened again.");
    }
    return {};
}

QString errorText(const Error& error) {
    return QString::fromStdString(error.message());
}

} // namespace rollcall::words

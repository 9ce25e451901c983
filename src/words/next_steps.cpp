// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/phrases.h"
#include "words/words.h"

// What is to be done next, on the button and in the Now line.
namespace rollcall::words {

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

} // namespace rollcall::words

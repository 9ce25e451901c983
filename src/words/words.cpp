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

QString passText(const Batch& batch) {
    const QString mean = batch.uncorrected ? tr("the mean as read, with the tester's error in its U")
                                           : tr("the mean, corrected by the tester's error");
    switch (batch.rule) {
    case DecisionRule::guarded:
        return tr("A piece passes when %1, lies inside with the whole of its U.").arg(mean);
    case DecisionRule::plain:
        return tr("A piece passes when %1, lies inside.").arg(mean);
    case DecisionRule::chance:
        return tr("A piece passes when %1, is inside with a chance of 90 % or more.").arg(mean);
    case DecisionRule::allowance:
        return batch.allowance ? tr("A piece passes when %1, lies inside, or outside by at most %2 HRC.")
                                     .arg(mean, hardness(*batch.allowance))
                               : tr("A piece passes when %1, lies inside, or outside by at most the error that the "
                                    "tester is allowed.")
                                     .arg(mean);
    }
    return {};
}

QString rulesText(const Batch& batch) {
    QStringList all;
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

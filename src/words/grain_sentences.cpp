// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/phrases.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>

// What is said of the grain of broken pieces, and of whom it speaks for.
namespace rollcall::words {

namespace {

QString g(double value) {
    return QString::number(value, 'f', 1);
}

bool isGrain(const Reason& r) {
    return text(r, 1) == QLatin1String("grain");
}

QString sized(const Reason& r) {
    const QString interval = tr("%1, %2 to %3").arg(g(number(r, 0)), g(number(r, 1)), g(number(r, 2)));
    return text(r, 0) == QLatin1String("rated") ? tr("Rated %1").arg(interval) : tr("G %1 counted").arg(interval);
}

} // namespace

QString zoneText(FractureZone zone) {
    switch (zone) {
    case FractureZone::edge:
        return tr("edge");
    case FractureZone::middle:
        return tr("middle");
    case FractureZone::spine:
        return tr("spine");
    case FractureZone::skin:
        return tr("skin");
    }
    return {};
}

QString grainSentence(const Reason& r) {
    const auto zone = [&](std::size_t i) {
        return zoneText(named<FractureZone>(text(r, i).toStdString()).value_or(FractureZone::middle));
    };
    switch (r.fact) {
    case Fact::grainFine:
        return tr("%1: fine enough, %2 is asked").arg(sized(r)).arg(number(r, 3));
    case Fact::grainBetween:
        return tr("%1: whether it is as fine as the %2 asked is open").arg(sized(r)).arg(number(r, 3));
    case Fact::grainCoarse:
        return tr("%1: coarser than the %2 asked").arg(sized(r)).arg(number(r, 3));
    case Fact::grainOpen:
        return number(r, 0) <= 0 ? tr("A fair count wants crossings more: %1").arg(std::lround(number(r, 1)))
                                 : tr("A fair count wants lines more: %1, crossings: %2")
                                       .arg(std::lround(number(r, 0)))
                                       .arg(std::lround(number(r, 1)));
    case Fact::grainUnseen:
        return tr("Facets under 10 pixels: this photo shows nothing finer than G %1. Photograph it closer")
            .arg(g(number(r, 0)));
    case Fact::grainUneven:
        return tr("Uneven: %1 G %2, %3 G %4").arg(zone(0), g(number(r, 0)), zone(1), g(number(r, 1)));
    case Fact::grainTempered:
        return tr("Broken after a temper: compare and count fractures of fully hardened, untempered pieces");
    case Fact::grainDisagrees:
        return tr("Counted G %1, rated %2: look again").arg(g(number(r, 0)), g(number(r, 1)));
    case Fact::grainRatedBadly:
        return tr("The two blind looks are more than one apart: the rating does not count");
    case Fact::grainCost: {
        const QString hours = number(r, 0) > 0
                                  ? tr("about %1 h by its recipe").arg(std::max(1L, std::lround(number(r, 0))))
                                  : tr("hours: no recipe is noted");
        return number(r, 1) > number(r, 2)
                   ? tr("Normalising and hardening again would be round %1, over the shop's limit of %2; %3, and more "
                        "skin is lost")
                         .arg(std::lround(number(r, 1)))
                         .arg(std::lround(number(r, 2)))
                         .arg(hours)
                   : tr("Normalising and hardening again: round %1 of %2, %3, and some skin is lost to decarburisation")
                         .arg(std::lround(number(r, 1)))
                         .arg(std::lround(number(r, 2)))
                         .arg(hours);
    }
    case Fact::pieceSpeaksFor:
        return isGrain(r) ? tr("%1 is fine and soaked as long: it speaks for it").arg(text(r, 0)) : QString();
    case Fact::pieceSpeaksInPart:
        return isGrain(r) ? (text(r, 2) == QLatin1String("undecided")
                                 ? tr("%1, which soaked as long, may be too coarse").arg(text(r, 0))
                                 : tr("%1 is fine: it speaks for it, but").arg(text(r, 0)))
                          : QString();
    case Fact::pieceSpeaksAgainst:
        return isGrain(r) ? tr("%1 is coarse and soaked no longer than this one").arg(text(r, 0)) : QString();
    case Fact::pieceAgainstInPart:
        return isGrain(r) ? tr("%1 is coarse: it speaks against this one, but").arg(text(r, 0)) : QString();
    case Fact::pieceDoesNotSpeak:
        if (!isGrain(r)) return {};
        return text(r, 2) == QLatin1String("failed") ? tr("%1 is coarse, but does not speak of it").arg(text(r, 0))
                                                     : tr("%1 is fine, but does not speak for it").arg(text(r, 0));
    default:
        return {};
    }
}

QString grainHeadline(const Reason& r) {
    switch (r.fact) {
    case Fact::grainFine:
        return tr("The grain is fine.");
    case Fact::grainBetween:
        return tr("The grain may be too coarse.");
    case Fact::grainCoarse:
        return tr("The grain is too coarse.");
    case Fact::grainOpen:
        return tr("The count is not fair yet.");
    case Fact::grainUnseen:
        return tr("This photo is not sharp enough.");
    case Fact::grainUneven:
        return tr("The grain is uneven.");
    case Fact::grainDisagrees:
        return tr("Count and rating disagree.");
    case Fact::pieceSpeaksAgainst:
        return isGrain(r) ? tr("Coarse, by %1.").arg(text(r, 0)) : QString();
    case Fact::pieceAgainstInPart:
        return isGrain(r) ? tr("Perhaps coarse, by %1.").arg(text(r, 0)) : QString();
    case Fact::pieceSpeaksInPart:
        return isGrain(r) && text(r, 2) == QLatin1String("undecided") ? tr("Perhaps coarse, by %1.").arg(text(r, 0))
                                                                      : QString();
    default:
        return {};
    }
}

} // namespace rollcall::words

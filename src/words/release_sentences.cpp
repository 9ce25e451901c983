// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/release_judge.h"
#include "words/phrases.h"
#include "words/words.h"

#include <cmath>

// What is said at the Release gate, and of blades that were not read.
namespace rollcall::words {

namespace {

QString disposition(const Reason& r, std::size_t at) {
    return dispositionName(named<Disposition>(text(r, at).toStdString()).value_or(Disposition::hold));
}

QString gate(const Reason& r, std::size_t at) {
    const std::optional<Gate> known = gateNamed(text(r, at).toStdString());
    return known ? gateName(*known) : text(r, at);
}

QString because(const QString& reason) {
    return reason.isEmpty() ? QString() : QStringLiteral(": ") + reason;
}

} // namespace

QString dispositionName(Disposition one) {
    switch (one) {
    case Disposition::release:
        return tr("Release");
    case Disposition::temperAgain:
        return tr("Temper again");
    case Disposition::reharden:
        return tr("Re-harden");
    case Disposition::otherPurpose:
        return tr("Other purpose");
    case Disposition::hold:
        return tr("Hold");
    case Disposition::scrap:
        return tr("Scrap");
    case Disposition::sendBack:
        return tr("Send back");
    }
    return {};
}

QString releaseSentence(const Reason& r) {
    switch (r.fact) {
    case Fact::gateMissing: {
        const auto state = static_cast<State>(std::lround(number(r, 1)));
        return tr("%1: %2").arg(gate(r, 0), stateName(state).toLower());
    }
    case Fact::allAnswered:
        return tr("Every gate that is asked is answered");
    case Fact::signedFor:
        return tr("%1, signed by %2%3").arg(disposition(r, 0), text(r, 1), because(text(r, 2)));
    case Fact::signedOver:
        return tr("Signed over by %1%2").arg(text(r, 0), because(text(r, 1)));
    case Fact::signatureStale:
        return tr("Signed by %1 when %2 was %3; it is %4 now")
            .arg(text(r, 0), gate(r, 1), text(r, 2).isEmpty() ? tr("not judged") : text(r, 2),
                 text(r, 3).isEmpty() ? tr("not judged") : text(r, 3));
    case Fact::suggested:
        return text(r, 1).isEmpty() ? tr("Suggested: %1").arg(disposition(r, 0).toLower())
               : text(r, 0) == QLatin1String(nameOf(Disposition::reharden))
                   ? tr("Suggested: re-harden, round %1; its gates open anew, marks ground off leave the map")
                         .arg(text(r, 1))
                   : tr("Suggested: another purpose, such as %1").arg(text(r, 1).toLower());
    case Fact::sampled:
        return tr("Not read: %1 that all unread ones are inside, by %2 blades read; one accident cannot be excluded")
            .arg(percent(number(r, 1)))
            .arg(std::lround(number(r, 2)));
    case Fact::sampleTooWeak:
        return tr("Not read: %1 that all unread ones are inside, %2 asked")
            .arg(percent(number(r, 1)), percent(number(r, 3)));
    case Fact::sampleNotCovers:
        return text(r, 0) == QLatin1String("soak")        ? tr("The sample does not cover its soak")
               : text(r, 0) == QLatin1String("thickness") ? tr("The sample does not cover its thickness")
               : text(r, 0) == QLatin1String("files")
                   ? tr("Not read, and no files that leave room for the window were tried on bare metal")
               : text(r, 0) == QLatin1String("treatment")
                   ? tr("Tempered or hardened otherwise than the blades read: the sample does not cover it")
               : text(r, 0) == QLatin1String("excused") ? tr("Excused at a gate before: the sample does not cover it")
                                                        : tr("Damaged: the sample does not cover it");
    default:
        return {};
    }
}

QString releaseHeadline(const Verdict& verdict) {
    if (verdict.has(Fact::signatureStale)) return tr("Signed for something else.");
    for (const Reason& reason : verdict.reasons) {
        if (reason.fact == Fact::signedOver) return tr("Released, signed over.");
        if (reason.fact == Fact::signedFor && verdict.state == State::pass) return tr("Released.");
        if (reason.fact == Fact::signedFor) return disposition(reason, 0) + QLatin1Char('.');
    }
    if (verdict.has(Fact::allAnswered)) return tr("May go; to sign.");
    int open = 0;
    for (const Reason& reason : verdict.reasons) open += reason.fact == Fact::gateMissing ? 1 : 0;
    return open == 1 ? tr("One gate is open.") : tr("%1 gates are open.").arg(open);
}

} // namespace rollcall::words

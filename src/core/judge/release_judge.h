// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gates.h"

#include <string>
#include <vector>

namespace rollcall {

/// What a signature rests on: every judged gate with its verdict, mean, U and readings, "quench=pass 65.30 U0.61 n3;
/// temper=pass 62.00 U0.58 n3" (E56). Older ones end with the mean.
std::string releaseBasis(const BladeVerdicts& verdicts);

/// What has become of a gate since a signature.
struct BasisChange {
    std::string gate;
    std::string was; ///< "pass 62.0"; empty: not judged then
    std::string is;
};
std::vector<BasisChange> changedSince(const std::string& basis, const std::string& now);

/// What the record suggests for a blade, before anyone has decided.
struct Suggestion {
    Disposition disposition = Disposition::hold;
    Gate gate = Gate::temper; ///< that speaks for it
    std::string purpose;      ///< of otherPurpose: one whose window holds its hardness
    int next_round = 0;       ///< of reharden: the round it would be in
};

/// A gate that keeps a blade from going.
struct OpenGate {
    Gate gate = Gate::temper;
    State state = State::notYet;
    NextStep next;
};

/// Everything about one blade at Release.
struct ReleaseAnswer {
    std::vector<OpenGate> open; ///< asked gates that are not Pass or Excused, in working order
    Suggestion suggestion;
    const Signature* signature = nullptr; ///< the last one of this round; null when there is none
    std::vector<BasisChange> changed;     ///< since the signature; it is stale when there are any
    bool cracked = false;                 ///< and nobody has cleared it (E12)
    bool damaged = false;                 ///< and neither repaired nor accepted (E47)
    bool untempered = false;              ///< glass-hard
    bool struck = false;                  ///< readings were struck out that would change a verdict (E58)
    bool out = false;                     ///< the blade is out of the batch

    /// Nothing speaks against letting it go.
    bool sound() const { return !cracked && !damaged && !untempered && open.empty(); }
    /// Every asked gate is answered and nobody has signed for what is so now; nothing that needs a reason.
    bool maySign() const { return !out && sound() && !struck && (signature == nullptr || !changed.empty()); }
    /// Out, or signed for as it is: nobody has anything left to say.
    bool decided() const { return out || (signature != nullptr && changed.empty()); }
    /// Released, and nothing has changed since.
    bool released() const {
        return signature != nullptr && changed.empty() && !cracked && !damaged && !untempered &&
               signature->disposition == Disposition::release;
    }
    /// E58. Whether signing so needs a reason: letting a blade go over a gate that is not passed, damage, or readings
    /// struck out that would change a verdict; holding and scrapping do not.
    bool needsReason(Disposition disposition) const {
        return disposition == Disposition::release && (!sound() || struck);
    }
};
ReleaseAnswer releaseAnswer(const Batch& batch, std::size_t blade, const BladeVerdicts& verdicts, const Tables& tables);

/// The Release gate: Pass when it was released and nothing has changed since, Fail when scrapped, Borderline when held
/// or when the signature is stale; else Not yet, with what is missing in working order.
Verdict judgeRelease(const Batch& batch, std::size_t blade, const BladeVerdicts& verdicts, const Tables& tables);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/judge/gates.h"
#include "core/judge/heat_book.h"
#include "core/judge/sampling.h"
#include "core/judge/verdict.h"

#include <optional>
#include <vector>

namespace rollcall {

/// Why an unread blade is not covered by the sample (M18).
enum class SampleGap { soak, thickness, files, damaged, treatment, excused };
template<>
inline constexpr std::array namesOf<SampleGap>{"soak", "thickness", "files", "damaged", "treatment", "excused"};

/// M18 for a batch: which blades were read at Temper, which were not, and what may be said of those.
struct SampleState {
    std::vector<std::size_t> read;
    std::vector<std::size_t> unread;
    std::optional<SampleChance> chance; ///< none for fewer than three blades read, or when nothing is left unread
    struct Uncovered {
        std::size_t blade;
        SampleGap gap;
    };
    std::vector<Uncovered> uncovered; ///< outside the sample's range of soak or thickness, or without files
    std::vector<std::size_t> next;    ///< blades to read so that the sample is fair: first and last out, then between
    bool holds = false;               ///< a chance is asked and reached

    bool covers(std::size_t blade) const;
};

/// verdicts: of the Temper gate, in the order of the batch; none where there is none.
SampleState sampleState(const Batch& batch, const BatchVerdicts& verdicts, const HeatBook& heats);

/// Excuses at Temper the blades that were not read, where the sample covers them and reaches what is asked; of the
/// others it says why not.
void sayWhatWasSampled(const Batch& batch, const SampleState& sample, BatchVerdicts& verdicts);

} // namespace rollcall

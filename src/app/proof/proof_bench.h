// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/paged_bench.h"
#include "app/shared/seams.h"

namespace rollcall {

class TrialPage;

/// The Proof gate: trials run step by step, for whom a piece speaks, cuts compared, studies, the protocols themselves.
class ProofBench : public PagedBench {
    Q_OBJECT

public:
    enum class Page { trial, speaks, cuts, study, protocols };

    ProofBench(Document& document, const Seams& seams, const Look& look, QWidget* parent = nullptr);

    std::optional<Gate> gate() const override { return Gate::proof; }
    void openPage(Page page) { openPageAt(static_cast<int>(page)); }
    /// Opens the blade's running trial over the whole window; false when it has none.
    bool runTrial();
    /// Back from the whole window; the trial waits.
    void leaveTrial();

private:
    TrialPage* m_trial;
};

} // namespace rollcall

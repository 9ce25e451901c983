// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/proof_bench.h"

#include "app/proof/cuts_page.h"
#include "app/proof/protocol_page.h"
#include "app/proof/speaks_page.h"
#include "app/proof/study_page.h"
#include "app/proof/trial_page.h"

namespace rollcall {

ProofBench::ProofBench(Document& document, const Seams& seams, const Look& look, QWidget* parent)
    : PagedBench(document, look, parent), m_trial(new TrialPage(document, seams, look)) {
    setObjectName(QStringLiteral("proof-bench"));
    auto* cuts = new CutsPage(document, look);
    for (Bench* page :
         std::initializer_list<Bench*>{m_trial, new SpeaksPage(document, look), cuts, new StudyPage(document, look),
                                       new ProtocolPage(document, seams, look)})
        addPage(page);
    connect(m_trial, &TrialPage::speaksWanted, this, [this] { openPage(Page::speaks); });
    connect(cuts, &CutsPage::trialWanted, this, [this] {
        openPage(Page::trial);
        m_trial->begin();
    });
}

bool ProofBench::runTrial() {
    openPage(Page::trial);
    return m_trial->resume();
}

void ProofBench::leaveTrial() {
    m_trial->leave();
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/proof_ledger.h"
#include "core/ledger/shop_series.h"
#include "core/ledger/study_read.h"
#include "core/ledger/temper_ledger.h"
#include "core/ledger/what_if.h"
#include "plot/ledger_chart.h"
#include "report/batch_table.h"

namespace rollcall {

/// A blade or a batch that a row of the ledger stands for.
struct LedgerPlace {
    std::string batch; ///< id
    std::string blade; ///< id; empty: the batch
};

/// What the ledger says to one question: in words with how sure that is, as a picture, and as a table whose rows lead
/// to their batches. For the window, paper, export and rollcallctl alike.
struct LedgerView {
    QString word;                ///< the answer in two or three words
    QString sub;                 ///< in one sentence
    State state = State::notYet; ///< Pass: nothing to look at; Borderline: something; Not yet: too little is known
    struct Line {
        Tone tone = Tone::note;
        QString text;
        QString rule;
    };
    std::vector<Line> lines; ///< how sure, what it rests on, what would tell more
    LedgerChart chart;
    ReportTable table;
    std::vector<std::vector<LedgerPlace>> places; ///< by row of the table
    std::vector<Tone> tones;                      ///< by row, where the rows are sentences; else empty
    int strip = -1;                               ///< column that is drawn as a small rule too; -1: none
    int strip_u = -1;                             ///< column with what is known of it, plus or minus; -1: none
};

LedgerView temperView(const TemperLedger& ledger);
/// grade: whose heats; empty for all.
LedgerView compareView(const Comparisons& comparisons, Factor factor, Response response);
LedgerView seriesView(const ShopSeries& series, const SeriesSays& says, bool cumulative);
LedgerView yieldView(const YieldLedger& ledger);
/// property: the one that is drawn.
LedgerView proofView(const ProofLedger& ledger, ProofBy by, std::size_t property);
LedgerView whatIfView(const WhatIfAnswer& answer, const WhatIf& wish, const std::optional<YieldForecast>& forecast);
LedgerView planView(const Result<StudyPlan>& plan);
/// What came of a study, against its plan; batch: its pieces.
LedgerView studyView(const StudyPlan& plan, const StudyRead& read, const LedgerBatch& batch);
LedgerView weekView(const Week& week);

/// The five sentences of the week, each with how it is meant.
std::vector<LedgerView::Line> weekSentences(const Week& week);

QString factorName(Factor factor);
QString measuredName(Measured measured);
QString responseName(Response response);
QString proofByName(ProofBy by);
QString seriesName(const ShopSeries& series);
QString propertyName(const ProofProperty& property);
QString runRuleText(RunRule rule);

/// Rows put together by what stands in a column: how many each stands for, and the mean of every column of numbers.
LedgerView groupedBy(const LedgerView& view, int column);

} // namespace rollcall

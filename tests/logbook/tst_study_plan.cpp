// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/proof.h"
#include "logbook/logbook_check.h"
#include "logbook/transfer/merge.h"
#include "logbook/transfer/package.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

// A study before it is done is part of the record: with its batch, through packages and merges, and in the check.
class tst_StudyPlan : public QObject {
    Q_OBJECT

    static StudyPlan wish() {
        StudyPlan plan;
        plan.name = "Soak study";
        plan.factor = "soak, with a comma";
        plan.levels = {"5 min", "15 min"};
        plan.measured = Measured::quenched;
        plan.difference = 1.5;
        plan.sd = 0.4;
        plan.seed = 4000000000u; // more than a signed number of 32 bits holds
        return plan;
    }
    static std::string batchOf(Logbook& logbook, const StudyPlan& plan, int without = 0) {
        BatchDraft draft;
        draft.name = "Study batch " + std::to_string(without);
        draft.grade = "115CrV3";
        draft.purpose = "study";
        draft.plan[indexOf(Gate::quench)] = {true, 3};
        const auto marks = marksOf(planned(plan).value());
        for (std::size_t i = 0; i + static_cast<std::size_t>(without) < marks.size(); ++i)
            draft.blades.push_back({marks[i], BladeShape::knife(60, 25, 3), "3"});
        return addBatch(logbook, draft).value();
    }

private slots:
    void keptAndRead() {
        TempLogbook log;
        const std::string batch = batchOf(*log, wish());
        const auto id = keepStudyPlan(*log, wish(), batch);
        QVERIFY(id);
        QVERIFY(log.reopen());
        const std::vector<StudyPlan> plans = log->shop()->plans;
        QCOMPARE(plans.size(), std::size_t(1));
        const StudyPlan& plan = plans.front();
        QCOMPARE(plan.id, *id);
        QCOMPARE(plan.batch, batch);
        QCOMPARE(plan.factor, wish().factor);
        QCOMPARE(plan.levels, wish().levels);
        QCOMPARE(plan.measured, Measured::quenched);
        QCOMPARE(plan.seed, wish().seed);
        QCOMPARE(plan.pieces, planned(wish())->pieces);
        // The order that was drawn is the order that is read.
        QCOMPARE(marksOf(plan), marksOf(planned(wish()).value()));
    }
    void refused() {
        TempLogbook log;
        StudyPlan none = wish();
        none.name.clear();
        QCOMPARE(keepStudyPlan(*log, none, "x").error().place, std::string("name"));
        const std::string batch = batchOf(*log, wish(), 1);
        const auto missing = keepStudyPlan(*log, wish(), batch);
        QVERIFY(!missing);
        QCOMPARE(missing.error().kind, ErrorKind::refused);
        QVERIFY(log->shop()->plans.empty());
        QVERIFY(!keepStudyPlan(*log, wish(), "no such batch"));
    }
    void undoneIsGone() {
        TempLogbook log;
        const std::string batch = batchOf(*log, wish());
        QVERIFY(keepStudyPlan(*log, wish(), batch));
        log.close();
        // Nobody changes a plan afterwards: the database refuses.
        QVERIFY(TempLogbook::meddle(log.path(), "UPDATE study_plan SET difference=0.1").contains("append-only"));
        QVERIFY(TempLogbook::meddle(log.path(), "DELETE FROM study_plan").contains("append-only"));
    }
    void comesAlongInAPackageAndAMerge() {
        TempLogbook log;
        const std::string batch = batchOf(*log, wish());
        QVERIFY(keepStudyPlan(*log, wish(), batch));
        log.close();
        QTemporaryDir folder;
        const QString package = folder.filePath("shop.zip");
        QVERIFY(exportPackage(log.path(), package));
        const QString back = folder.filePath("back.rollcall");
        QVERIFY(importPackage(back, package));
        {
            auto opened = Logbook::open(back, Logbook::Access::read);
            QVERIFY(opened);
            QCOMPARE((*opened)->shop()->plans.size(), std::size_t(1));
            QCOMPARE((*opened)->shop()->plans.front().levels, wish().levels);
        }
        TempLogbook other;
        QVERIFY(mergeLogbook(*other, log.path(), false));
        QCOMPARE(other->shop()->plans.size(), std::size_t(1));
        QCOMPARE(other->shop()->plans.front().batch, batch);
        const auto problems = other->check();
        QVERIFY(problems && problems->empty());
    }
    // In a copy without names a plan keeps its numbers; what somebody wrote is told to be there.
    void withoutNames() {
        TempLogbook log;
        const std::string batch = batchOf(*log, wish());
        QVERIFY(keepStudyPlan(*log, wish(), batch));
        QTemporaryDir folder;
        const QString copy = folder.filePath("copy.rollcall");
        QVERIFY(copyWithoutNames(*log, copy));
        auto opened = Logbook::open(copy, Logbook::Access::read);
        QVERIFY(opened);
        const StudyPlan plan = (*opened)->shop()->plans.front();
        QVERIFY2(plan.name.find("Soak") == std::string::npos, plan.name.c_str());
        QVERIFY2(plan.factor.find("comma") == std::string::npos, plan.factor.c_str());
        QCOMPARE(plan.difference, wish().difference);
        QCOMPARE(plan.measured, Measured::quenched);
    }
};

QTEST_MAIN(tst_StudyPlan)
#include "tst_study_plan.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/look.h"
#include "report/ledger_paper.h"
#include "report/ledger_view.h"
#include "tests/support/paper_words.h"

#include <QtTest>

using namespace rollcall;
using fixtures::wordsOf;

// What the ledger says in words, of facts that are made up: the sentence fits the numbers, and nothing is called better
// than it is known.
class tst_LedgerView : public QObject {
    Q_OBJECT

    static Level level(const char* name, const std::vector<double>& values, const LedgerBatch& batch) {
        Level one;
        one.name = name;
        one.values = values;
        one.batches.assign(values.size(), &batch);
        one.blades.assign(values.size(), "b");
        one.pieces = static_cast<int>(values.size()) * 3;
        return one;
    }
    static QString lines(const LedgerView& view) {
        QStringList texts;
        for (const LedgerView::Line& line : view.lines) texts << line.text;
        return texts.join('\n');
    }

    LedgerBatch m_batch;

private slots:
    void initTestCase() {
        QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts")));
        m_batch.id = "id-1";
        m_batch.name = "Orchard 1";
    }

    void twoThatDiffer() {
        const Comparisons found = compareLevels(
            {level("Old oven", {-1.1, -0.9, -1.0, -1.2}, m_batch), level("New oven", {0.1, -0.1, 0.0, 0.2}, m_batch)});
        const LedgerView view = compareView(found, Factor::oven, Response::tempered);
        QCOMPARE(view.word, QString("They differ"));
        QCOMPARE(view.state, State::borderline);
        QVERIFY2(view.sub.contains("1.1 softer than New oven") || view.sub.contains("1.1 harder than Old oven"),
                 qPrintable(view.sub));
        QVERIFY2(lines(view).contains("not assigned by lot"), qPrintable(lines(view)));
        QCOMPARE(view.table.rows.size(), std::size_t(2));
        QCOMPARE(view.places[0].size(), std::size_t(4));
        QCOMPARE(view.places[0][0].batch, std::string("id-1"));
        QCOMPARE(view.chart.names, (QStringList{"Old oven", "New oven"}));
        QCOMPARE(view.chart.points.size(), std::size_t(10)); // each heat, and two means
    }
    void twoThatMayNot() {
        const Comparisons found =
            compareLevels({level("HB", {-0.4, 0.5, 0.1}, m_batch), level("RW", {0.3, -0.2, 0.6}, m_batch)});
        const LedgerView view = compareView(found, Factor::person, Response::quenched);
        QCOMPARE(view.word, QString("No difference shown"));
        QVERIFY2(lines(view).contains("heats of each would tell"), qPrintable(lines(view)));
        QVERIFY(!lines(view).contains("p 0.000"));
    }
    void oneAlone() {
        QCOMPARE(compareView(compareLevels({level("HB", {0.1, 0.2}, m_batch)}), Factor::person, Response::tempered).sub,
                 QString("There is one person alone."));
        QCOMPARE(compareView(Comparisons(), Factor::lot, Response::tempered).sub,
                 QString("No heat says which bar or lot it was."));
    }

    void aSeriesThatJumps() {
        ShopSeries series;
        series.kind = ShopSeries::Kind::oven;
        series.name = "Oven 1";
        for (int i = 0; i < 24; ++i) {
            series.days.push_back(20000 + i);
            series.values.push_back(i < 23 ? 0.1 * (i % 3) : 3);
            series.batches.push_back(&m_batch);
            series.blades.push_back("b");
        }
        series.per_ten_degrees = -0.6;
        const SeriesSays says = saysOf(series);
        const LedgerView view = seriesView(series, says, false);
        QCOMPARE(view.word, QString("Something changed"));
        QVERIFY2(view.sub.contains("beyond the limits"), qPrintable(view.sub));
        QCOMPARE(view.table.rows.back()[3].toString(), QString("beyond the limits"));
        QCOMPARE(view.chart.points.back().tone, LedgerChart::Tone::alarm);
        QVERIFY2(lines(view).contains("As if the oven were"), qPrintable(lines(view)));
        const LedgerView summed = seriesView(series, says, true);
        QCOMPARE(summed.chart.points.size(), std::size_t(48));
        series.values.resize(8);
        series.days.resize(8);
        QCOMPARE(seriesView(series, saysOf(series), false).word, QString("Too few"));
    }

    void aYield() {
        YieldLedger ledger;
        ledger.gates[indexOf(Gate::temper)] = Share::from(8, 10);
        ledger.gates[indexOf(Gate::release)] = Share::from(1, 1);
        ledger.months = {{2026, 1, Share::from(3, 4), 1, {}}, {2026, 2, Share::from(5, 6), 0, {&m_batch}}};
        ledger.all = Share::from(8, 10);
        ledger.rehardenings = 1;
        ledger.spare_hours = 2;
        ledger.spare_tempers = 1;
        const LedgerView view = yieldView(ledger);
        QCOMPARE(view.word, QString("80 % at once"));
        QVERIFY2(view.sub.contains("8 of 10") && view.sub.contains("44 to 97 %"), qPrintable(view.sub)); // by tables
        QVERIFY2(lines(view).contains("1 hardenings again, 1 oven loads of further tempers, 2 h"),
                 qPrintable(lines(view)));
        QCOMPARE(view.table.rows.size(), std::size_t(3)); // Temper and two months; Release is a signature
        QCOMPARE(view.places[2].front().batch, std::string("id-1"));
        QCOMPARE(yieldView({}).word, QString("Nothing decided"));
    }

    // Rows together: as many as there were, the mean of each column of numbers, and points that lead to the group.
    void rowsTogether() {
        LedgerView view;
        view.table = {"t", {"Batch", "HRC", "Note"}, {}};
        const std::vector<std::tuple<const char*, double, const char*>> rows{
            {"A", 60, "x"}, {"B", 62, "y"}, {"A", 61, "x"}, {"A", 65, ""}};
        for (const auto& [batch, hrc, note] : rows) {
            const int row = static_cast<int>(view.table.rows.size());
            view.table.rows.push_back({QString(batch), hrc, QString(note)});
            view.places.push_back({{batch, std::to_string(row)}});
            view.chart.points.push_back({double(row), hrc, std::nullopt, row, LedgerChart::Tone::plain, {}});
        }
        const LedgerView byBatch = groupedBy(view, 0);
        QCOMPARE(byBatch.table.head, (QStringList{"Batch", "Rows", "HRC, mean"}));
        QCOMPARE(byBatch.table.rows.size(), std::size_t(2));
        QCOMPARE(byBatch.table.rows[0], (QVariantList{"A", 3, 62.0}));
        QCOMPARE(byBatch.table.rows[1], (QVariantList{"B", 1, 62.0}));
        QCOMPARE(byBatch.places[0].size(), std::size_t(3));
        QCOMPARE(byBatch.chart.points[1].row, 1);
        QCOMPARE(byBatch.chart.points[3].row, 0);
        QCOMPARE(groupedBy(view, 2).table.rows.size(), std::size_t(3)); // what is not said is a group too
        QCOMPARE(groupedBy(view, 9).table.rows.size(), rows.size());
    }

    void aPlanAndItsLabels() {
        StudyPlan wish;
        wish.name = "Soak study";
        wish.factor = "soak at temperature";
        wish.levels = {"5 min", "10 min", "15 min"};
        wish.difference = 1.5;
        wish.sd = 0.5;
        const auto plan = planned(wish);
        QVERIFY(plan);
        const LedgerView view = planView(plan);
        QCOMPARE(view.word, QStringLiteral("%1 of each").arg(plan->pieces));
        QCOMPARE(view.table.rows.size(), std::size_t(3 * plan->pieces));
        QVERIFY(view.chart.lines.front().points.size() > 4);
        const QString labels = wordsOf([&](Paper& paper) { return drawStudyLabels(paper, *plan); });
        for (const std::string& mark : marksOf(*plan)) QVERIFY(labels.contains(QString::fromStdString(mark)));
        QCOMPARE(labels.count("15 min"), plan->pieces);
        QCOMPARE(planView(Error{ErrorKind::argument, "name", "a study needs a name"}).word, QString("Not planned"));
    }
    void aStudyHalfDone() {
        StudyPlan plan;
        plan.name = "Soak study";
        plan.factor = "soak";
        plan.levels = {"5 min", "15 min"};
        plan.pieces = 4;
        plan.difference = 1;
        plan.sd = 0.3;
        const LedgerView half = studyView(plan, readStudy(plan, {{61, 61.1, 60.9}, {63, 63.1}}), m_batch);
        QCOMPARE(half.word, QString("Not done"));
        QCOMPARE(half.state, State::notYet);
        QVERIFY2(half.sub.contains("3 of 8"), qPrintable(half.sub));
        QVERIFY2(lines(half).contains("finds differences by chance"), qPrintable(lines(half)));
        const LedgerView done = studyView(plan, readStudy(plan, {{61, 61.1, 60.9, 61}, {63, 63.1, 62.9, 63}}), m_batch);
        QCOMPARE(done.word, QString("They differ"));
        QVERIFY2(done.sub.contains("100 of 100"), qPrintable(done.sub));
    }

    void theWeekInFiveSentences() {
        Week week;
        week.last_day = 20785;
        QCOMPARE(weekSentences(week).size(), std::size_t(5));
        QCOMPARE(weekView(week).word, QString("A quiet week"));
        week.worked = {&m_batch};
        week.blades = 6;
        week.readings = 18;
        week.passed = Share::from(2, 6);
        week.before = Share::from(70, 72);
        week.chance = 0.0004;
        week.drifting = {{"Bench 1", 3, true, 0.02, 9.0}};
        week.overdue = {{"Bench 2", 12, false, 0, std::nullopt}, {"Bench 3", std::nullopt, false, 0, std::nullopt}};
        week.blocks = {{"62.6", 1.5}};
        const LedgerView view = weekView(week);
        QCOMPARE(view.word, QString("3 things"));
        const auto sentence = [&](std::size_t i) { return view.table.rows[i].front().toString(); };
        QVERIFY2(sentence(0).contains("One batch was worked on: 6 blades"), qPrintable(sentence(0)));
        QVERIFY2(sentence(1).contains("2 of 6") && sentence(1).contains("more than chance does (p below 0.001)"),
                 qPrintable(sentence(1)));
        QVERIFY(sentence(2).contains("No oven"));
        QVERIFY2(sentence(3).contains("about 9 weeks") && sentence(3).contains("12 days ago") &&
                     sentence(3).contains("never verified"),
                 qPrintable(sentence(3)));
        QVERIFY2(sentence(4).contains("62.6 (1.5 months left)"), qPrintable(sentence(4)));
        const QString paper = wordsOf([&](Paper& p) { return drawLedgerPages(p, view, "Orchard tools", {}); });
        QVERIFY2(paper.contains("3 things") && paper.contains("Orchard tools"), qPrintable(paper));
        for (const LedgerView::Line& line : weekSentences(week)) // broken into lines there
            QVERIFY(QString(paper).replace('\n', ' ').contains(line.text.left(30)));
    }
    // A long table goes on on further pages, with its head on each.
    void manyRowsOnPaper() {
        LedgerView view;
        view.table = {"Many", {"Batch", "HRC"}, {}};
        for (int i = 0; i < 300; ++i) {
            view.table.rows.push_back({QStringLiteral("Batch %1").arg(i), 60.0 + i % 5});
            view.places.push_back({});
        }
        int pages = 0;
        const QString words = wordsOf([&](Paper& paper) { return pages = drawLedgerPages(paper, view, {}, {}); });
        QVERIFY(pages >= 5 && pages <= 8);
        QCOMPARE(words.count("HRC"), pages);
        QVERIFY(words.contains("Batch 299"));
    }
};

QTEST_MAIN(tst_LedgerView)
#include "tst_ledger_view.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/ledger_bench.h"
#include "app/ledger/what_if_page.h"
#include "app/shared/paged_bench.h"
#include "tests/support/demo.h"
#include "tests/support/ledger.h"

#include <QAbstractItemView>
#include <QClipboard>
#include <QComboBox>
#include <QHeaderView>
#include <QtTest>

using namespace rollcall;
using fixtures::WindowDriver;

// The ledger of the demo's shop, asked through the window.
class tst_LedgerBench : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    QString m_demo;

    // The page in sight, when all batches are gone through and it has its answer.
    static LedgerPage& page(WindowDriver& d) {
        LedgerPage* in_sight = fixtures::ledgerPage(d);
        if (in_sight == nullptr) qFatal("the ledger is not in sight");
        return *in_sight;
    }
    static LedgerTable& table(WindowDriver& d) { return *page(d).findChild<LedgerTable*>(); }
    static LedgerChartView& chart(WindowDriver& d) { return *page(d).findChild<LedgerChartView*>(); }
    static void choose(WindowDriver& d, const char* field, const QString& text) {
        auto* box = page(d).findChild<QComboBox*>(QLatin1String(field));
        if (box == nullptr || box->findText(text) < 0) qFatal("%s cannot be chosen", qPrintable(text));
        box->setFocus();
        // As a hand does: the list opens, the row is gone to, Enter takes it.
        box->showPopup();
        box->view()->setCurrentIndex(box->model()->index(box->findText(text), 0));
        QTest::keyClick(box->view(), Qt::Key_Return);
        page(d);
    }
    // One of the two buttons under the primary one.
    static void side(WindowDriver& d, const QString& text) {
        for (auto* button : d.window().findChildren<SideButton*>()) {
            if (button->isVisible() && button->text() == text) {
                QTest::mouseClick(button, Qt::LeftButton);
                return d.settle();
            }
        }
        qFatal("no button %s", qPrintable(text));
    }
    static QStringList column(const LedgerTable& table, int column) {
        QStringList texts;
        for (int i = 0; i < table.model()->rowCount(); ++i) texts << table.model()->index(i, column).data().toString();
        return texts;
    }
    QString copy(const char* name) {
        const QString path = m_dir.filePath(QLatin1String(name));
        QFile::copy(m_demo, path);
        return path;
    }

private slots:
    void initTestCase() {
        m_demo = m_dir.filePath("demo.rollcall");
        fixtures::putDemo(m_demo);
    }
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    void emptyLogbook() {
        WindowDriver d;
        if (QApplication::activeModalWidget() != nullptr) d.press(Qt::Key_Escape);
        d.press(Qt::Key_L, Qt::ControlModifier);
        QCOMPARE(page(d).title(), QString("Week"));
        QVERIFY2(column(table(d), 0).front().contains("Nothing was read"), qPrintable(column(table(d), 0).join('\n')));
        for (const auto& [key, word] : std::vector<std::pair<Qt::Key, QString>>{{Qt::Key_2, "Too little"},
                                                                                {Qt::Key_3, "Too little"},
                                                                                {Qt::Key_4, "Too little"},
                                                                                {Qt::Key_5, "Nothing decided"},
                                                                                {Qt::Key_6, "Nothing tried"},
                                                                                {Qt::Key_7, "Nothing read"},
                                                                                {Qt::Key_8, "Not planned"}}) {
            d.press(key);
            page(d);
            QCOMPARE(d.word(), word);
        }
    }

    // Hardness over temper: the points are the heats of the record, a frame picks them, a double click opens one.
    void tempers() {
        WindowDriver d(copy("tempers.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_2);
        LedgerPage& shown = page(d);
        QCOMPARE(shown.title(), QString("Tempers"));
        const int rows = table(d).model()->rowCount();
        QVERIFY(rows > 12);
        QVERIFY2(d.word().contains("harder"), qPrintable(d.word()));
        QVERIFY2(d.reasons().contains("95 %"), qPrintable(d.reasons()));
        // No number of the table is cut, whenever its rows came in.
        for (int column = 0; column < table(d).model()->columnCount(); ++column) {
            for (int row = 0; row < rows; ++row) {
                const QModelIndex cell = table(d).model()->index(row, column);
                QVERIFY(table(d).itemDelegate()->sizeHint({}, cell).width() <= table(d).columnWidth(column));
            }
        }
        // Sorted by a click on the head, softest heat first, then hardest.
        QHeaderView* head = table(d).horizontalHeader();
        const auto click = [&](int section) {
            QTest::mouseClick(head->viewport(), Qt::LeftButton, {},
                              {head->sectionViewportPosition(section) + 8, head->height() / 2});
        };
        click(3);
        QStringList values = column(table(d), 3);
        const auto number = [](const QString& text) { return text.toDouble(); };
        QVERIFY(std::is_sorted(values.begin(), values.end(),
                               [&](const QString& a, const QString& b) { return number(a) < number(b); }));
        click(3);
        QVERIFY(number(column(table(d), 3).front()) > number(column(table(d), 3).back()));
        // A frame over the whole picture picks all, Esc none.
        LedgerChartView& picture = chart(d);
        QTest::mousePress(&picture, Qt::LeftButton, {}, {4, 4});
        QTest::mouseMove(&picture, {picture.width() / 2, picture.height() / 2});
        QMouseEvent move(QEvent::MouseMove, QPointF(picture.width() - 2, picture.height() - 2),
                         picture.mapToGlobal(QPointF(picture.width() - 2, picture.height() - 2)), Qt::NoButton,
                         Qt::LeftButton, {});
        QCoreApplication::sendEvent(&picture, &move);
        QTest::mouseRelease(&picture, Qt::LeftButton, {}, {picture.width() - 2, picture.height() - 2});
        QCOMPARE(static_cast<int>(table(d).chosen().size()), rows);
        QVERIFY2(d.reasons().contains(QStringLiteral("%1 rows picked out").arg(rows)), qPrintable(d.reasons()));
        d.press(Qt::Key_Escape);
        QVERIFY(table(d).chosen().empty() && picture.chart().chosen.empty());
        // The row in hand is marked in the picture, and Enter opens its batch with the blade in hand.
        d.press(Qt::Key_Down);
        d.press(Qt::Key_Down);
        const int row = table(d).current();
        QVERIFY(row >= 0 && picture.chart().chosen.count(row) == 1);
        const std::string batch = shown.view().places[static_cast<std::size_t>(row)].front().batch;
        const std::string blade = shown.view().places[static_cast<std::size_t>(row)].front().blade;
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().batch().id, batch);
        QCOMPARE(d.document().blade()->id, blade);
        QCOMPARE(d.document().gate(), Gate::temper);
    }

    // Each row of the curve's table says what the batch's own verdicts say.
    void tempersAreTheRecords() {
        WindowDriver d(copy("record.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_2);
        LedgerPage& shown = page(d);
        int looked = 0;
        for (std::size_t row = 0; row < shown.view().table.rows.size() && looked < 3; ++row) {
            const QVariantList line = shown.view().table.rows[row];
            if (!line[0].toString().startsWith("Grove")) continue;
            ++looked;
            d.document().selectBatch(shown.view().places[row].front().batch);
            d.settle();
            double sum = 0;
            int blades = 0;
            for (std::size_t i = 0; i < d.document().batch().blades.size(); ++i) {
                const Verdict* verdict = d.document().verdict(static_cast<int>(i), Gate::temper);
                if (verdict == nullptr || !verdict->measurement) continue;
                sum += verdict->measurement->corrected_mean;
                ++blades;
            }
            QCOMPARE(line[7].toInt(), blades);
            QVERIFY2(std::abs(line[3].toDouble() - sum / blades) < 0.06, qPrintable(line[0].toString()));
        }
        QCOMPARE(looked, 3);
    }

    void groupsAndColumns() {
        WindowDriver d(copy("groups.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_2);
        const int rows = table(d).model()->rowCount();
        side(d, "Together by");
        QVERIFY(d.dialogText().contains("Blades"));
        d.type("2"); // the number of the temper
        page(d);
        QVERIFY(table(d).model()->rowCount() < rows);
        int sum = 0;
        for (const QString& count : column(table(d), 1)) sum += count.toInt();
        QCOMPARE(sum, rows);
        // A click on a point of the picture finds the group that it went into.
        QVERIFY(!chart(d).chart().points.empty());
        for (const auto& point : chart(d).chart().points) QVERIFY(point.row < table(d).model()->rowCount());
        side(d, "Together by");
        d.type("0");
        page(d);
        QCOMPARE(table(d).model()->rowCount(), rows);
        // A column goes, also from what is copied, and comes back.
        const auto copied = [&] {
            d.press(Qt::Key_C, Qt::ControlModifier);
            return QGuiApplication::clipboard()->text().section('\n', 0, 0);
        };
        QVERIFY(copied().contains("Softest"));
        side(d, "Columns");
        d.type("6");
        QVERIFY(table(d).isColumnHidden(5));
        QVERIFY(!copied().contains("Softest"));
        side(d, "Columns");
        d.type("6");
        QVERIFY(copied().contains("Softest"));
    }

    void against() {
        WindowDriver d(copy("against.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_3);
        page(d);
        choose(d, "factor", "Tester");
        choose(d, "grade", "115CrV3");
        QVERIFY(column(table(d), 0).contains("Bench 1"));
        choose(d, "response", "as quenched");
        QVERIFY2(page(d).view().table.title.contains("as quenched"), qPrintable(page(d).view().table.title));
        QVERIFY2(!d.reasons().isEmpty() || d.word() == "Too little", qPrintable(d.word()));
    }

    // The tester of the demo drifts, and both charts say so.
    void drift() {
        WindowDriver d(copy("drift.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_4);
        page(d);
        QCOMPARE(page(d).findChild<QComboBox*>("series")->currentText(), QString("Bench 1 on block 62.6"));
        QCOMPARE(d.word(), QString("Something changed"));
        QVERIFY2(d.reasons().contains("slow drift is likely"), qPrintable(d.reasons()));
        int diamonds = 0;
        for (const auto& point : chart(d).chart().points) diamonds += point.tone == LedgerChart::Tone::alarm;
        QVERIFY(diamonds > 0);
        choose(d, "kind", "summed up");
        QVERIFY(chart(d).chart().y_title.contains("sums"));
        QCOMPARE(static_cast<int>(chart(d).chart().points.size()), 2 * table(d).model()->rowCount());
        // As many runs as the record has on that block.
        int runs = 0;
        for (const Verification& run : d.document().state().runs()) runs += run.block == "62.6" ? 1 : 0;
        QCOMPARE(table(d).model()->rowCount(), runs);
        // Too few for limits are drawn all the same, one by one.
        choose(d, "series", "115CrV3 after temper");
        QCOMPARE(d.word(), QString("Too few"));
        QVERIFY(chart(d).chart().points.empty());
        choose(d, "kind", "one by one");
        QCOMPARE(static_cast<int>(chart(d).chart().points.size()), table(d).model()->rowCount());
    }

    // The yield of a grade is what its batches' matrices show.
    void yield() {
        WindowDriver d(copy("yield.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_5);
        page(d);
        choose(d, "grade", "115CrV3");
        int passed = 0;
        int of = 0;
        for (const BatchSummary& summary : d.document().state().batches()) {
            if (summary.grade != "115CrV3") continue;
            d.document().selectBatch(summary.id);
            d.settle();
            for (std::size_t i = 0; i < d.document().batch().blades.size(); ++i) {
                const Verdict* verdict = d.document().verdict(static_cast<int>(i), Gate::quench);
                if (verdict == nullptr) continue;
                if (verdict->state == State::excused || verdict->state == State::notYet) continue;
                ++of;
                passed += verdict->state == State::pass && d.document().batch().blades[i].round == 1;
            }
        }
        page(d);
        const int quench = static_cast<int>(column(table(d), 0).indexOf("Quench"));
        QVERIFY(quench >= 0);
        QCOMPARE(column(table(d), 1)[quench].toInt(), passed);
        QCOMPARE(column(table(d), 2)[quench].toInt(), of);
    }

    void tried() {
        WindowDriver d(copy("tried.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_6);
        page(d);
        QVERIFY(column(table(d), 0).contains("51CrV4"));
        choose(d, "by", "by purpose");
        QVERIFY(page(d).view().table.title.contains("by purpose"));
        choose(d, "by", "by hardness");
        QVERIFY2(column(table(d), 0).front().contains("HRC"), qPrintable(column(table(d), 0).join(',')));
        QVERIFY(d.reasons().contains("nothing is ranked over all of them"));
    }

    // What if the window were another: live while it is dragged, and what it says is what changing the limits does.
    void whatIf() {
        WindowDriver d(copy("what-if.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_7);
        page(d);
        QCOMPARE(d.word(), QString("As it is"));
        auto* low = page(d).findChild<DragNumber*>("low-by");
        auto* slider = low->findChild<QSlider*>();
        slider->setFocus();
        for (int i = 0; i < 6; ++i) QTest::keyClick(slider, Qt::Key_Right);
        QVERIFY(std::abs(low->value() - 0.6) < 1e-9);
        page(d);
        QVERIFY2(d.word().endsWith("change"), qPrintable(d.word()));
        const LedgerView told = page(d).view();
        // The same on one batch of the record, by changing its limits.
        for (const BatchSummary& summary : d.document().state().batches()) {
            if (summary.name == "Grove 10") d.document().selectBatch(summary.id);
        }
        d.settle();
        Batch batch = d.document().batch();
        QCOMPARE(batch.name, std::string("Grove 10"));
        std::map<QString, QString> would;
        for (const QVariantList& row : told.table.rows) {
            if (row[0] == "Grove 10") would[row[1].toString()] = row[7].toString();
        }
        *batch.window.low += 0.6;
        const BatchVerdicts anew = judgeBatch(batch, d.document().tables(), d.document().now());
        for (std::size_t i = 0; i < batch.blades.size(); ++i) {
            const State then = anew.at(i, Gate::temper)->state;
            const QString mark = QString::fromStdString(batch.blades[i].mark);
            const QString word = then == State::pass ? "Pass" : then == State::borderline ? "Borderline" : "Fail";
            if (then == d.document().verdict(static_cast<int>(i), Gate::temper)->state)
                QVERIFY2(!would.contains(mark), qPrintable(mark));
            else
                QCOMPARE(would[mark], word);
        }
        // A grade alone, with what a next batch may give; then all back.
        choose(d, "grade", "115CrV3");
        QVERIFY2(d.reasons().contains("A next batch in 61.6 to 63.0"), qPrintable(d.reasons()));
        d.run("ledger-what-if.back");
        page(d);
        QCOMPARE(low->value(), 0.0);
        QVERIFY(d.word() == "As it is");
    }

    // From a plan to a batch of its pieces, read and set against the plan.
    void aStudy() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_8);
        page(d);
        QCOMPARE(d.act(), QString("Plan a study"));
        d.press(Qt::Key_Return);
        d.fill("name", "Soak study");
        d.fill("levels", "5 min");
        d.fill("factor", "soak at temperature");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("two levels"), qPrintable(d.formMessage()));
        d.fill("levels", "5 min, 15 min");
        d.fill("difference", "1,5");
        d.fill("sd", "0.4");
        d.fill("measured", "hardness as quenched, HRC");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        const LedgerView plan = page(d).view();
        // 3 of each: Student's t with 4 degrees of freedom and 1.5 / 0.4 apart has 0.94, with 2 of each 0.64.
        QCOMPARE(d.word(), QString("3 of each"));
        QCOMPARE(static_cast<int>(plan.table.rows.size()), 6);
        QVERIFY(page(d).unsaved().contains("not kept yet"));
        d.run("ledger-plan.labels");
        QVERIFY2(d.now().contains("1 pages of labels") || d.now().contains("labels"), qPrintable(d.now()));
        QCOMPARE(d.act(), QString("Begin it"));
        d.press(Qt::Key_Return);
        page(d);
        QCOMPARE(d.act(), QString("Open its batch"));
        QCOMPARE(d.document().state().shop().plans.size(), std::size_t(1));
        QVERIFY(page(d).unsaved().isEmpty());
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().batch().name, std::string("Soak study"));
        QStringList marks;
        for (const Blade& blade : d.document().batch().blades) marks << QString::fromStdString(blade.mark);
        for (std::size_t i = 0; i < plan.table.rows.size(); ++i) // in the order that was drawn
            QCOMPARE(marks[static_cast<int>(i)], plan.table.rows[i][1].toString());
        d.press(Qt::Key_F4);
        d.verifyTester();
        for (const QString& mark : marks) {
            d.document().selectBlade(d.document().indexOfMark(mark.toStdString()));
            d.settle();
            d.type(mark.startsWith('A') ? "640\n641\n639\n" : "655\n656\n654\n");
        }
        d.press(Qt::Key_L, Qt::ControlModifier);
        page(d);
        QVERIFY2(d.word() == "They differ", qPrintable(d.word() + d.reasons()));
        const LedgerView read = page(d).view();
        QCOMPARE(read.table.rows.size(), std::size_t(2));
        QCOMPARE(read.table.rows[0][1].toInt(), 3);
        QVERIFY(std::abs(read.table.rows[1][3].toDouble() - read.table.rows[0][3].toDouble() - 1.5) < 1e-6);
        // It is in the record: another start knows it.
        d.restart();
        QCOMPARE(d.document().state().shop().plans.front().levels, (std::vector<std::string>{"5 min", "15 min"}));
    }

    // The week in sentences: on paper too, and each leads where it is about.
    void theWeek() {
        WindowDriver d(copy("week.rollcall"));
        d.press(Qt::Key_L, Qt::ControlModifier);
        page(d);
        const QStringList sentences = column(table(d), 0);
        QCOMPARE(sentences.size(), 5);
        QVERIFY(sentences[0].contains("batches were worked on"));
        QVERIFY2(sentences[3].contains("Bench 1 drifts"), qPrintable(sentences[3]));
        QVERIFY(d.word().contains("thing"));
        const QString paper = m_dir.filePath("week.pdf");
        d.chooseFile(paper);
        side(d, "As a file");
        QVERIFY(QFile(paper).size() > 5000);
        side(d, "Print it");
        QVERIFY2(d.now().contains("with the printer"), qPrintable(d.now()));
        for (int i = 0; i < 4; ++i) d.press(Qt::Key_Down);
        QCOMPARE(d.act(), QString("Testers"));
        d.press(Qt::Key_Return);
        QVERIFY(d.window().findChild<QWidget*>("testers-bench")->isVisible());
    }

    // What is logged meanwhile is in the ledger the next time it is looked at.
    void itKeepsUp() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_L, Qt::ControlModifier);
        d.press(Qt::Key_5);
        page(d);
        QCOMPARE(d.word(), QString("Nothing decided"));
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n654\n653\n");
        d.press(Qt::Key_L, Qt::ControlModifier);
        page(d);
        const int quench = static_cast<int>(column(table(d), 0).indexOf("Quench"));
        QVERIFY(quench >= 0);
        QCOMPARE(column(table(d), 2)[quench].toInt(), 1);
        d.press(Qt::Key_Z, Qt::ControlModifier); // the last reading is struck out after a question
        if (d.dialog() != nullptr) d.type("1");
        page(d);
        QVERIFY(column(table(d), 0).indexOf("Quench") < 0);
    }

    // All of it by mouse: pages, choices, wheel on the picture, a double click on a row.
    void byMouse() {
        WindowDriver d(copy("mouse.rollcall"));
        d.run("ledger");
        page(d);
        auto* tabs = d.window().findChild<LedgerBench*>()->findChild<PageTabs*>();
        QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(1).center());
        LedgerPage& shown = page(d);
        QCOMPARE(shown.title(), QString("Tempers"));
        LedgerChartView& picture = chart(d);
        QVERIFY(picture.stretch().whole());
        const QPointF middle = picture.rect().center();
        QWheelEvent wheel(middle, picture.mapToGlobal(middle), {}, {0, 240}, Qt::NoButton, {}, Qt::NoScrollPhase,
                          false);
        QCoreApplication::sendEvent(&picture, &wheel);
        QVERIFY(!picture.stretch().whole());
        QTest::mouseDClick(&picture, Qt::LeftButton, {}, {picture.width() - 5, 5});
        const QModelIndex first = table(d).model()->index(0, 0);
        const QPoint at = table(d).visualRect(first).center();
        QTest::mouseClick(table(d).viewport(), Qt::LeftButton, {}, at);
        QCOMPARE(table(d).current(), 0);
        QTest::mouseDClick(table(d).viewport(), Qt::LeftButton, {}, at);
        d.settle();
        QCOMPARE(d.document().batch().id, shown.view().places[0].front().batch);
    }
};

QTEST_MAIN(tst_LedgerBench)
#include "tst_ledger_bench.moc"

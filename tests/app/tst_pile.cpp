// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/pile/pile_bench.h"
#include "tests/support/window_driver.h"

#include <QHeaderView>
#include <QTableView>

using namespace rollcall;
using fixtures::WindowDriver;

// Finished knives, each sold as its own steel: from two files to the one page, by keys and by mouse.
class tst_Pile : public QObject {
    Q_OBJECT

    static QByteArray knives() {
        // Eight knives of eight steels with a window each; two readings of one tester.
        QByteArray text = "batch,blade,gate,value,tester,grade,purpose,window_low,window_high,finished\n";
        const struct {
            const char* mark;
            const char* grade;
            double low;
            double hrc;
        } pile[] = {{"K-1", "X50CrMoV15", 55, 56.2}, {"K-2", "1095", 60, 61.1}, {"K-3", "X46Cr13", 54, 55.1},
                    {"K-4", "80CrV2", 58, 59.2},     {"K-5", "440C", 58, 53.0}, {"K-6", "115CrV3", 61, 62.2},
                    {"K-7", "D2", 59, 60.0},         {"K-8", "52100", 60, 64.6}};
        for (const auto& knife : pile) {
            for (const double off : {-0.1, 0.0, 0.1})
                text += QByteArray("Pile,") + knife.mark + ",temper," + QByteArray::number(knife.hrc + off, 'f', 1) +
                        ",Bench 1," + knife.grade + ",kitchen," + QByteArray::number(knife.low) + "," +
                        QByteArray::number(knife.low + 2) + ",yes\n";
        }
        return text;
    }
    static QTableView* table(WindowDriver& d) { return d.window().findChild<QTableView*>("pile"); }
    static QString cell(WindowDriver& d, int row, int column) {
        return table(d)->model()->index(row, column).data().toString();
    }

    // The shop with a verified tester and the pile taken in.
    static void takeIn(WindowDriver& d) {
        d.makeBatch();
        d.verifyTester();
        d.drop(d.writeFile("knives.csv", knives()));
        for (int i = 0; i < 3 && d.dialog() != nullptr; ++i) d.press(Qt::Key_Return);
        d.settle();
    }

private slots:
    void eachKnifeKeepsItsOwnClaim() {
        WindowDriver d;
        takeIn(d);
        const Batch& batch = d.document().batch();
        QCOMPARE(QString::fromStdString(batch.name), QStringLiteral("Pile"));
        QCOMPARE(batch.blades.size(), std::size_t(8));
        QCOMPARE(batch.claimOf(batch.blades[1]).grade, std::string("1095"));
        QCOMPARE(batch.claimOf(batch.blades[6]).window->high.value(), 61.0);
        QVERIFY(batch.isFinished(batch.blades[4]));
        // The track names the knife in hand, not the pile's first.
        d.document().selectBlade(4);
        QCOMPARE(d.document().claim().grade, std::string("440C"));
        // Soft for what it was sold as: no temper, no hardening is offered.
        d.press(Qt::Key_F5);
        QVERIFY2(!d.reasons().contains("emper again") && !d.act().contains("emper again"), qPrintable(d.act()));
    }

    void theOnePage() {
        WindowDriver d;
        takeIn(d);
        d.run("pile");
        QCOMPARE(table(d)->model()->rowCount(), 8);
        QCOMPARE(cell(d, 4, PileModel::soldAs), QStringLiteral("440C"));
        QCOMPARE(cell(d, 4, PileModel::zone), QStringLiteral("off"));
        QCOMPARE(cell(d, 0, PileModel::zone), QStringLiteral("inside"));
        // A heading sorts, by number where it is one.
        QHeaderView* head = table(d)->horizontalHeader();
        const QPoint at(head->sectionPosition(PileModel::hardness) + 20, head->height() / 2);
        QTest::mouseClick(head->viewport(), Qt::LeftButton, {}, at);
        QCOMPARE(cell(d, 0, PileModel::piece), QStringLiteral("K-5"));
        QTest::mouseClick(head->viewport(), Qt::LeftButton, {}, at);
        QCOMPARE(cell(d, 0, PileModel::piece), QStringLiteral("K-8"));
        // A row is the knife in hand.
        table(d)->setFocus();
        QTest::mouseClick(table(d)->viewport(), Qt::LeftButton, {},
                          table(d)->visualRect(table(d)->model()->index(0, 0)).center());
        d.settle();
        QCOMPARE(d.document().blade()->mark, std::string("K-8"));
        // Written in the order in sight, as a table, a page and a picture.
        const QString csv = d.writeFile("page.csv", {});
        d.chooseFile(csv);
        d.run("pile.csv");
        QFile written(csv);
        QVERIFY(written.open(QIODevice::ReadOnly));
        const QList<QByteArray> lines = written.readAll().trimmed().split('\n');
        QCOMPARE(lines.size(), 9);
        QVERIFY2(lines[1].startsWith("K-8,52100,"), lines[1]);
        const QString pdf = d.writeFile("page.pdf", {});
        d.chooseFile(pdf);
        d.press(Qt::Key_Return);
        QFile page(pdf);
        QVERIFY(page.open(QIODevice::ReadOnly));
        QVERIFY(page.read(5) == "%PDF-");
        const QString png = d.writeFile("page.png", {});
        d.chooseFile(png);
        d.run("pile.png");
        QVERIFY(QImage(png).width() > 1000);
    }

    // A shot is of the knife in hand; taken for another steel, only this knife is.
    void aShotAndAnotherGrade() {
        WindowDriver d;
        takeIn(d);
        d.document().selectBlade(2);
        d.press(Qt::Key_F2);
        d.run("steel.type");
        QVERIFY2(d.dialogText().contains("A shot at K-3"), qPrintable(d.dialogText()));
        d.fill("values", "Cr 0.3; Mn 0.4; Si 0.3; Mo <0.05; V <0.05");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().shots.front().blade, d.document().blade()->id);
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        d.document().selectBlade(3);
        d.settle();
        QCOMPARE(d.document().verdictAt(Gate::steel).state, State::notYet);
        // In two keys a grade of the shop's own from what was read.
        d.document().selectBlade(2);
        d.settle();
        d.run("steel.own");
        QCOMPARE(d.formValue("name"), QStringLiteral("X46Cr13 as shot"));
        QVERIFY2(d.formValue("composition").contains("Cr 0.27-0.33"), qPrintable(d.formValue("composition")));
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().state().shop().own_grades.size(), std::size_t(1));
    }

    // One knife's claim by hand: the form says what the batch's is, a blank field is the batch's.
    void aClaimByHand() {
        WindowDriver d;
        d.makeBatch("Finished knives: hardness only");
        d.document().selectBlade(1);
        d.run("claim");
        QVERIFY2(d.dialogText().contains("115CrV3"), qPrintable(d.dialogText()));
        d.fill("sold_as", "1095");
        d.fill("window", "58");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const Batch& batch = d.document().batch();
        QCOMPARE(batch.claimOf(batch.blades[1]).grade, std::string("1095"));
        QCOMPARE(batch.claimOf(batch.blades[1]).window->low.value(), 58.0);
        QVERIFY(!batch.claimOf(batch.blades[1]).window->high);
        QVERIFY(batch.isFinished(batch.blades[1]));
        QVERIFY(!batch.blades[0].own);
        d.press(Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!d.document().batch().blades[1].own);
        d.press(Qt::Key_Y, Qt::ControlModifier);
        QVERIFY(d.document().batch().blades[1].own.has_value());
    }
};

QTEST_MAIN(tst_Pile)
#include "tst_pile.moc"

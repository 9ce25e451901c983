// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/command_bar.h"
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
        if (!d.document().hasBatch()) d.makeBatch();
        d.verifyTester();
        d.drop(d.writeFile("knives.csv", knives()));
        for (int i = 0; i < 3 && d.dialog() != nullptr; ++i) d.press(Qt::Key_Return);
        d.settle();
    }

private slots:
    void eachKnifeKeepsItsOwnClaim() {
        WindowDriver d;
        d.makeBatch();
        const std::string first = d.document().batch().id;
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
        const auto offersTemper = [&d] {
            const auto* button = d.window().findChild<CommandBar*>()->findChild<QAbstractButton*>("do-temper");
            return button != nullptr && !button->isHidden();
        };
        QVERIFY(!offersTemper());
        d.document().selectBatch(first);
        d.settle();
        d.press(Qt::Key_F5);
        QVERIFY(!d.document().batch().isFinished(*d.document().blade()) && offersTemper());
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

    // From two files to the page: readings with each knife's claim, then a table of shots; by mouse where there is
    // something to click, and in no more acts than a hand takes in a few minutes.
    void fromTwoFilesToThePage() {
        WindowDriver d;
        QSettings().remove(QStringLiteral("xrf")); // as on a new computer
        takeIn(d);                                 // verified, the first file dropped and taken
        int acts = 0;
        const auto did = [&](const char* id) {
            ++acts;
            d.run(id);
        };
        ++acts;
        d.press(Qt::Key_F2);
        ++acts;
        d.drop(d.writeFile("shots.csv", "Knife,Cr [%],Cr +/-,Mo [%],Mo +/-,V [%],V +/-,Mn [%],Mn +/-,Si [%],Si +/-\n"
                                        "K-1,14.4,0.1,0.58,0.02,0.14,0.01,0.42,0.03,0.38,0.05\n"
                                        "K-2,0.21,0.02,<LOD,0.01,<LOD,0.01,0.41,0.03,0.22,0.05\n"
                                        "K-3,13.2,0.1,0.05,0.01,<LOD,0.02,0.45,0.03,0.36,0.05\n"
                                        "K-4,0.57,0.02,<LOD,0.01,0.19,0.01,0.44,0.03,0.29,0.05\n"
                                        "K-5,13.1,0.1,<LOD,0.01,<LOD,0.02,0.48,0.03,0.41,0.05\n"
                                        "K-6,0.62,0.02,<LOD,0.01,0.09,0.01,0.32,0.03,0.24,0.05\n"
                                        "K-7,11.8,0.1,0.81,0.02,0.86,0.02,0.31,0.03,0.32,0.05\n"
                                        "K-9,1.5,0.1,0.02,0.01,<LOD,0.02,0.3,0.03,0.3,0.05\n"));
        QVERIFY2(d.dialogText().contains("What does the analyser print"), qPrintable(d.dialogText()));
        ++acts;
        d.type("2");
        QVERIFY2(d.dialogText().contains("What stands beside <LOD"), qPrintable(d.dialogText()));
        ++acts;
        d.type("1");
        QVERIFY2(d.now().contains("7 shots") && d.now().contains("K-9"), qPrintable(d.now()));
        const Batch& batch = d.document().batch();
        QCOMPARE(batch.shots.size(), std::size_t(7));
        for (const SteelShot& shot : batch.shots) QVERIFY(!shot.blade.empty());
        QVERIFY(std::abs(*batch.shots.front().composition.elements.front().sigma - 0.05) < 1e-12); // 0.1 of two sigma
        did("pile");
        // 440C without molybdenum is decided by it; who was not shot is not looked at; each by its own grade.
        QCOMPARE(cell(d, 4, PileModel::steel), QStringLiteral("no"));
        QVERIFY2(cell(d, 4, PileModel::decidedBy).contains("r 13.1"), qPrintable(cell(d, 4, PileModel::decidedBy)));
        QCOMPARE(cell(d, 7, PileModel::steel), QStringLiteral("not looked at"));
        for (const int good : {1, 3, 5})
            QVERIFY2(cell(d, good, PileModel::steel) != QLatin1String("no"),
                     qPrintable(cell(d, good, PileModel::soldAs)));
        // A double click on what decides opens it.
        ++acts;
        const QRect at = table(d)->visualRect(table(d)->model()->index(4, PileModel::steel));
        QTest::mouseClick(table(d)->viewport(), Qt::LeftButton, {}, at.center());
        QTest::mouseDClick(table(d)->viewport(), Qt::LeftButton, {}, at.center());
        d.settle();
        QCOMPARE(d.document().blade()->mark, std::string("K-5"));
        QCOMPARE(d.document().gate(), Gate::steel);
        did("pile");
        const QString pdf = d.writeFile("page.pdf", {});
        d.chooseFile(pdf);
        did("pile.pdf");
        QVERIFY(QFileInfo(pdf).size() > 2000);
        QVERIFY2(acts <= 40, qPrintable(QString::number(acts)));
        // Asked once.
        d.document().selectBlade(7);
        d.settle();
        d.press(Qt::Key_F2);
        d.drop(d.writeFile("one.csv", "element,percent,error\nCr,1.45,0.04\nMn,0.33,0.03\nSi,0.25,0.05\n"));
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        QCOMPARE(d.document().batch().shots.back().blade, d.document().blade()->id);
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
        QVERIFY2(d.formValue("composition").contains("Cr 0.21-0.39; Mn "), qPrintable(d.formValue("composition")));
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

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/window_driver.h"

#include <QDir>

using namespace rollcall;
using fixtures::WindowDriver;

class tst_Release : public QObject {
    Q_OBJECT

    // Three blades hardened and tempered, all read but the last at Temper.
    static void prepared(WindowDriver& d) {
        d.makeBatch();
        d.verifyTester();
        for (int i = 0; i < 3; ++i) {
            d.document().selectBlade(i);
            d.window().openGate(Gate::quench);
            d.type("652\n653\n651\n");
        }
        d.document().selectBlade(0);
        for (int temper = 0; temper < 2; ++temper) {
            d.type("t");
            d.fill("temperature", "205");
            d.fill("hours", "2");
            d.press(Qt::Key_Return, Qt::ControlModifier);
        }
        for (int i = 0; i < 2; ++i) {
            d.document().selectBlade(i);
            d.window().openGate(Gate::temper);
            d.type("622\n621\n623\n");
        }
        d.document().selectBlade(0);
        d.press(Qt::Key_F8);
        QCOMPARE(d.window().place(), QStringLiteral("release-bench"));
    }
    static const Blade& blade(WindowDriver& d, std::size_t i) { return d.document().batch().blades[i]; }

private slots:
    void init() { QSettings().clear(); }

    // Those that may go are signed for at once; the third is held with a reason, then scrapped.
    void signedHeldScrapped() {
        WindowDriver d;
        prepared(d);
        QCOMPARE(d.act(), QStringLiteral("Sign for 2 blades"));
        QCOMPARE(d.column().below.front().text, QStringLiteral("Left: Temper GK-3"));
        QVERIFY(d.reasons().contains("Every gate that is asked is answered"));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 0).signatures.size(), std::size_t(1));
        QCOMPARE(blade(d, 1).signatures.size(), std::size_t(1));
        QVERIFY(blade(d, 2).signatures.empty());
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY(d.reasons().contains("signed by HB"));
        d.type("++");
        QVERIFY2(d.reasons().contains("Temper: not yet"), qPrintable(d.reasons()));
        d.press(Qt::Key_Return); // nothing may go: decide on this one
        d.type("5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("why"));
        d.fill("reason", "waits for the block");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 2).signatures.back().disposition, Disposition::hold);
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        d.type("*6");
        d.fill("reason", "bent");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(blade(d, 2).fate.has_value());
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        d.restart(); // on disk
        QCOMPARE(blade(d, 0).signatures.back().by, std::string("HB"));
    }
    // A reading struck out after signing: the signature is stale, in the column and on the certificate's table.
    void aStaleSignature() {
        WindowDriver d;
        prepared(d);
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_F5);
        d.type("/1");
        d.press(Qt::Key_F8);
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QVERIFY2(d.reasons().contains("Signed by HB when Temper was pass 62"), qPrintable(d.reasons()));
        d.chooseFile(d.path() + ".csv");
        d.type("i6");
        QFile table(d.path() + ".csv");
        QVERIFY(table.open(QIODevice::ReadOnly));
        QVERIFY(table.readAll().contains("Release (stale)"));
    }
    // The third left unread by a declared sample: too few were read, and it says which would make it fair.
    void aSampleIsDeclared() {
        WindowDriver d;
        prepared(d);
        d.run("release.sample");
        d.fill("chance", "200");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("per cent"));
        d.fill("chance", "90");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(*d.document().batch().sample_asked, 0.9);
        d.document().selectBlade(2);
        d.press(Qt::Key_F5);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QVERIFY2(d.reasons().contains("no files that leave room"), qPrintable(d.reasons()));
    }
    // Re-hardened, with the old marks ground off: a new round, and the first spot is free again.
    void reHardenedWithItsMarksGroundOff() {
        WindowDriver d;
        prepared(d);
        d.press(Qt::Key_F5);
        const auto before = blade(d, 0).readings.front().spot;
        QVERIFY(before.has_value());
        d.press(Qt::Key_F8);
        d.type("h");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("reason"));
        d.fill("reason", "warped");
        d.fill("marks", "ground off: they leave the map");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 0).round, 2);
        QCOMPARE(blade(d, 0).surface, 1);
        d.press(Qt::Key_F4);
        d.type("652\n");
        const Reading& fresh = blade(d, 0).readings.back();
        QCOMPARE(fresh.round, 2);
        QVERIFY(fresh.spot && distance(*fresh.spot, *before) < 0.5); // where the first mark was
        d.press(Qt::Key_G, Qt::ControlModifier);
        QVERIFY2(d.dialogText().contains("marks leave the map"), qPrintable(d.dialogText()));
        d.type("1");
        QCOMPARE(blade(d, 0).surface, 2);
        d.press(Qt::Key_G, Qt::ControlModifier);
        QVERIFY2(d.now().contains("Nothing was read on GK-1 as it is"), qPrintable(d.now()));
    }
    // Asked for in the moment in which another batch comes in hand: it is that one's, and the page, which still shows
    // the one before, reads nothing that is gone.
    void aCertificateWhileAnotherBatchComes() {
        WindowDriver d;
        prepared(d);
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier); // two of three
        BatchDraft draft;
        draft.name = "Hedge 2";
        draft.window = {58, 60};
        draft.plan[indexOf(Gate::quench)] = {true, 2};
        for (const char* mark : {"H-1", "H-2", "H-3", "H-4"})
            draft.blades.push_back({mark, BladeShape::knife(58, 16, 2.4), "2.4"});
        std::string other;
        d.document().perform([&](Logbook& logbook) -> Result<Done> {
            const auto id = addBatch(logbook, draft);
            if (id) other = *id;
            return id ? Result<Done>(Done{}) : Result<Done>(id.error());
        });
        d.settle();
        QVERIFY(!other.empty());
        d.run("release.certificate");
        QVERIFY2(d.dialogText().contains("The 2 released"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        const Commands all = d.window().commands();
        const auto certificate =
            std::find_if(all.begin(), all.end(), [](const Command& c) { return c.id == "release.certificate"; });
        d.document().selectBatch(other);
        certificate->run();
        d.window().openGate(Gate::quench); // the page is out of sight, and stays as it was
        d.settle();
        QCOMPARE(d.document().batch().name, std::string("Hedge 2"));
        // None of its four is released: there is nothing to choose between.
        QVERIFY2(!d.dialogText().contains("released"), qPrintable(d.dialogText()));
        d.chooseFile(d.path() + ".pdf");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_Return);
        QVERIFY(QFile(d.path() + ".pdf").size() > 5000);
    }
    // PDF, workbook, and the whole logbook as a package while it is open.
    void whatLeavesTheShop() {
        WindowDriver d;
        prepared(d);
        const QString base = d.path();
        d.chooseFile(base + ".pdf");
        d.run("release.certificate");
        d.fill("shop", "Orchard tools");
        d.fill("mark", base); // no picture
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("no picture"));
        d.fill("mark", "");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.dialogText().contains("page 1 of 1"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        QVERIFY2(d.now().contains("pages"), qPrintable(d.now()));
        QVERIFY(QFile(base + ".pdf").size() > 10000);
        d.run("release.certificate");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.type("p");
        QVERIFY2(d.now().contains("with the printer"), qPrintable(d.now()));
        for (const char* paper : {"1", "2", "3"}) {
            d.chooseFile(base + paper + ".pdf");
            d.run("release.papers");
            d.type(QLatin1String(paper));
            d.press(Qt::Key_Return, Qt::ControlModifier);
            d.press(Qt::Key_Return);
            QVERIFY2(d.now().contains("1 pages"), qPrintable(d.now()));
            QVERIFY(QFile(base + paper + ".pdf").size() > 8000);
        }
        d.chooseFile(base + ".xlsx");
        d.type("i6");
        QVERIFY(QFile(base + ".xlsx").size() > 4000);
        d.chooseFile(base + ".txt");
        d.type("i6");
        QVERIFY2(d.now().contains("csv or xlsx"), qPrintable(d.now()));
        d.chooseFile(base + ".svg");
        d.type("i7");
        QFile svg(base + ".svg");
        QVERIFY(svg.open(QIODevice::ReadOnly));
        const QByteArray drawn = svg.readAll();
        QVERIFY(drawn.contains("<svg") && drawn.contains("Disposition")); // drawn, with its words as words
    }
};

QTEST_MAIN(tst_Release)
#include "tst_release.moc"

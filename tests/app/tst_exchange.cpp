// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/csv.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/package.h"
#include "tests/support/window_driver.h"

#include <QClipboard>
#include <QDropEvent>
#include <QMimeData>
#include <QProgressBar>
#include <QSettings>
#include <QTableWidget>

using namespace rollcall;
using fixtures::WindowDriver;

class tst_Exchange : public QObject {
    Q_OBJECT

    static const std::vector<BatchSummary>& batches(WindowDriver& d) { return d.document().state().batches(); }
    static QString label(WindowDriver& d, const char* name) {
        return d.dialog()->findChild<QLabel*>(QLatin1String(name))->text();
    }
    // A shop's own table as a spreadsheet in German writes it: mark, CRLF, semicolons, decimal commas.
    static constexpr const char* pile = "\xEF\xBB\xBFKlinge;Charge;H\xC3\xA4rte 1;H\xC3\xA4rte 2;Datum;Schleifer\r\n"
                                        "K1;Hecke 7;62,1;62,3;24.11.2026;rot\r\n"
                                        "K2;Hecke 7;61,8;;24.11.2026;blau\r\n"
                                        "K3;Hecke 7;na\xC3\x9F;61,9;24.11.2026;\r\n";

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // as WindowDriver does
        QSettings().clear();
    }

    // A table that takes a while: how far it has come is said, Esc gives it up with nothing kept, and left alone it is
    // taken whole.
    void aLongTableIsGivenUpOrTaken() {
        WindowDriver d;
        d.makeBatch();
        const std::size_t before = batches(d).size();
        QByteArray csv = "batch,blade,gate,value\n";
        for (int i = 0; i < 60000; ++i)
            csv += QStringLiteral("Hedge %1,B%2,quench,64.5\n").arg(i / 600).arg(i / 10 % 60).toUtf8();
        const QString path = d.writeFile("long.csv", csv);
        QMimeData mime;
        mime.setUrls({QUrl::fromLocalFile(path)});
        QDragEnterEvent enter({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(&d.window(), &enter);
        QDropEvent fall({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(&d.window(), &fall); // as drop(), which would wait for its end
        QVERIFY(d.dialog() != nullptr && d.dialog()->objectName() == "waiting");
        auto* bar = d.dialog()->findChild<QProgressBar*>();
        QTRY_VERIFY_WITH_TIMEOUT(bar->value() > 20 && bar->value() < 100, 30000); // into the writing
        QVERIFY(d.dialogText().contains("Taking in long.csv"));
        QTest::keyClick(d.dialog(), Qt::Key_Escape);
        QVERIFY(d.dialogText().contains("Giving it up"));
        d.settle();
        QVERIFY2(d.dialogText().contains("given up; nothing of it was kept"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        QCOMPARE(batches(d).size(), before);
        d.drop(path);
        QVERIFY2(d.dialogText().contains("Readings taken: 60000. New blades: 6000. New batches: 100."),
                 qPrintable(d.dialogText()));
    }
    // The wizard: what each column is is guessed and shown, a correction is tried at once, the bad line is told with
    // its number, the good ones are taken, and the whole is taken back again.
    void theWizard() {
        WindowDriver d;
        d.makeBatch();
        const std::size_t before = batches(d).size();
        d.drop(d.writeFile("pile.csv", pile));
        QCOMPARE(d.formValue("is-0"), QStringLiteral("blade"));
        QCOMPARE(d.formValue("is-1"), QStringLiteral("batch"));
        QCOMPARE(d.formValue("is-2"), QStringLiteral("reading"));
        QCOMPARE(d.formValue("is-4"), QStringLiteral("date"));
        QCOMPARE(d.formValue("unit-4"), QStringLiteral("d.m.y"));
        QCOMPARE(d.formValue("is-5"), QStringLiteral("a note"));
        QCOMPARE(d.formValue("fixed-gate"), QStringLiteral("temper"));
        QVERIFY(!d.dialog()->findChild<QWidget*>("fixed-batch")->isEnabled()); // a column says it
        QCOMPARE(label(d, "answer"), QStringLiteral("4 readings, 3 new blades, 1 new batch, 1 line left out"));
        QVERIFY2(label(d, "problems").startsWith("Line 4: value: 'na"), qPrintable(label(d, "problems")));
        QCOMPARE(batches(d).size(), before); // nothing is stored before it is taken
        auto* table = d.dialog()->findChild<QTableWidget*>("preview");
        QCOMPARE(table->item(2, 2)->text(), QStringLiteral("62,1"));
        QVERIFY(table->item(4, 0)->toolTip().contains("is not a number")); // the bad line, shaded

        d.fill("is-0", "a note");
        d.settle();
        QVERIFY2(label(d, "answer").contains("which column is the blade"), qPrintable(label(d, "answer")));
        d.press(Qt::Key_Return); // takes nothing
        QCOMPARE(batches(d).size(), before);
        d.fill("is-0", "blade");
        d.fill("is-2", "left out");
        d.settle();
        QCOMPARE(label(d, "answer"), QStringLiteral("2 readings, 2 new blades, 1 new batch, 1 line left out"));
        d.fill("is-2", "reading");
        d.fill("fixed-gate", "quench");
        d.settle();
        d.press(Qt::Key_Return);
        QVERIFY2(d.dialogText().contains("Readings taken: 4. New blades: 3. New batches: 1."),
                 qPrintable(d.dialogText()));
        QVERIFY(d.dialogText().contains("Line 4 left out"));
        d.press(Qt::Key_Return);
        d.settle();
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Hecke 7"));
        const Blade& k1 = d.document().batch().blades[0];
        QCOMPARE(k1.readings.size(), std::size_t(2));
        QCOMPARE(k1.readings[0].value, 62.1);
        QCOMPARE(k1.readings[0].gate, Gate::quench);
        QCOMPARE(k1.readings[0].note, std::string("Schleifer: rot"));

        d.restart(); // on disk
        d.press(Qt::Key_Z, Qt::ControlModifier);
        QVERIFY2(d.dialogText().contains("Take back pile.csv?"), qPrintable(d.dialogText()));
        d.type("1");
        QCOMPARE(d.now(), QStringLiteral("The import is taken back."));
        QCOMPARE(QString::fromStdString(batches(d).back().name), QStringLiteral("Hecke 7 (taken back)"));
        d.press(Qt::Key_Z, Qt::ControlModifier);
        QVERIFY2(d.now().contains("cannot be undone"), qPrintable(d.now()));

        // The same header comes again: as it was said the last time, the gate too.
        d.drop(d.writeFile("more.csv", QByteArray(pile).replace("Hecke 7", "Hecke 8")));
        QVERIFY(d.dialogText().contains("as they were said the last time"));
        QCOMPARE(d.formValue("fixed-gate"), QStringLiteral("quench"));
        d.press(Qt::Key_Escape);
        QCOMPARE(batches(d).size(), before + 1);
    }
    void aTableIsPastedAndCopied() {
        WindowDriver d;
        d.makeBatch();
        QGuiApplication::clipboard()->setText("mark\thrc\nGK-1\t62.4\nGK-2\t61.9\n");
        d.press(Qt::Key_V, Qt::ControlModifier);
        d.fill("fixed-batch", "Orchard 13");
        d.settle();
        QCOMPARE(label(d, "answer"), QStringLiteral("2 readings"));
        d.press(Qt::Key_Return);
        d.type("1");
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(1));
        d.press(Qt::Key_F5);
        d.press(Qt::Key_C, Qt::ControlModifier);
        QVERIFY2(d.now().contains("2 lines copied"), qPrintable(d.now()));
        const QString text = QGuiApplication::clipboard()->text();
        QVERIFY2(text.startsWith("blade\tgate\t") && text.contains("\nGK-1\tTemper\t1\t"), qPrintable(text));
        d.press(Qt::Key_F9);
        d.press(Qt::Key_C, Qt::ControlModifier);
        QVERIFY(QGuiApplication::clipboard()->text().startsWith("blade\tsold as"));
        QGuiApplication::clipboard()->clear();
        d.press(Qt::Key_V, Qt::ControlModifier);
        QVERIFY(d.now().contains("no text"));
    }
    // Numbers from a card: each at its spot on the paper, one import, to be taken back like any.
    void aFilledCard() {
        WindowDriver d;
        d.makeBatch();
        d.type("i2");
        d.type("2"); // Temper
        d.fill("time", "in the evening");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("day and time"));
        d.fill("time", "2026-11-20 18:30");
        d.fill("blade-0", "621 62,3 wet");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("GK-1: type numbers"), qPrintable(d.formMessage()));
        d.fill("blade-0", "621 62,3 62.2");
        d.fill("blade-2", "- 618");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.dialogText().contains("Readings taken: 4. New blades: 0. New batches: 0."),
                 qPrintable(d.dialogText()));
        const Batch& batch = d.document().batch();
        const auto& first = batch.blades[0].readings;
        QCOMPARE(first.size(), std::size_t(3));
        QCOMPARE(first[0].value, 62.1);
        QCOMPARE(first[1].value, 62.3);
        QVERIFY(first[0].spot && first[1].spot && first[0].spot->x_mm < first[1].spot->x_mm); // from the heel
        QCOMPARE(batch.blades[1].readings.size(), std::size_t(0));
        QCOMPARE(batch.blades[2].readings.size(), std::size_t(1));
        QCOMPARE(batch.blades[2].readings[0].spot->x_mm, first[1].spot->x_mm); // its second spot
        QCOMPARE(batch.testers.size(), std::size_t(1));                        // the one in use, none made up
        d.type("2");                                                           // take it back
        d.type("1");
        QVERIFY(d.document().batch().blades[0].readings[0].struck.has_value());
        QVERIFY(!d.document().batch().blades[0].fate);
    }
    // More blades than a form shows at once: it scrolls, and the field in hand is always in sight.
    void aLongCard() {
        WindowDriver d;
        d.type("n");
        d.setUpShop();
        for (const auto& [field, text] :
             {std::pair("name", "Grove 6"), std::pair("count", "30"), std::pair("marks", "P-#"),
              std::pair("window", "58 to 60"), std::pair("planned", "2")})
            d.fill(field, text);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().blades.size(), std::size_t(30));
        d.type("i2");
        d.type("1"); // Quench
        QVERIFY(d.dialog()->height() <= d.window().height());
        for (int i = 0; i < 30; ++i) d.press(Qt::Key_Return); // down to the last field
        auto* last = d.dialog()->findChild<QLineEdit*>("blade-29");
        QVERIFY(last->hasFocus());
        const QRect seen = last->visibleRegion().boundingRect();
        QCOMPARE(seen.height(), last->height());
        d.type("651 652");
        d.press(Qt::Key_Return); // the last field takes them
        QVERIFY2(d.dialogText().contains("Readings taken: 2."), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().batch().blades[29].readings.size(), std::size_t(2));
        QVERIFY(!d.document().batch().blades[29].readings[0].spot); // no outline, no place
    }
    // Another bench's logbook: what it would bring is told before, and nothing happens when it is left.
    void anotherLogbookIsTakenIn() {
        WindowDriver d;
        d.makeBatch();
        const QString other = d.path() + "-north.rollcall";
        {
            const auto north = Logbook::create(other).value();
            const QByteArray csv("batch,blade,gate,value\nHedge 9,B1,temper,61\n");
            QVERIFY(importReadings(*north, fixtures::tables(), "r.csv", csv).ok());
        }
        d.chooseFile(other);
        d.type("i5");
        QVERIFY2(d.dialogText().contains("1 batches, 1 blades, 1 readings"), qPrintable(d.dialogText()));
        d.type("3");
        QVERIFY(QGuiApplication::clipboard()->text().startsWith("1 batches, 1 blades"));
        d.type("2"); // the list was copied, the question stands
        QCOMPARE(batches(d).size(), std::size_t(1));
        d.type("i5");
        d.type("1");
        QVERIFY(QTest::qWaitFor([&] { return batches(d).size() == 2; }, 5000));
        d.settle();
        d.type("i5");
        QVERIFY2(d.dialogText().contains("All of it is here already"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        // The same as a package: nothing new either.
        QVERIFY(exportPackage(other, d.path() + "-north.zip").ok());
        d.chooseFile(d.path() + "-north.zip");
        d.type("i5");
        QVERIFY2(d.dialogText().contains("All of it is here already"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        d.chooseFile(d.path());
        d.type("i5");
        QVERIFY(d.now().contains("logbook that is open"));
        d.chooseFile(d.writeFile("no.rollcall", "no logbook"));
        d.type("i5");
        QVERIFY(d.dialogText().contains("Nothing taken in"));
        d.press(Qt::Key_Return);
    }
    // Out as a package and a copy without names, and back from the package as a new logbook.
    void packagesAndCopies() {
        WindowDriver d;
        d.makeBatch();
        const QString base = d.path();
        d.chooseFile(base + ".zip");
        d.type("i8");
        QVERIFY2(d.now().contains("The package is"), qPrintable(d.now()));
        d.type("i8");
        QVERIFY2(d.now().contains("exists already"), qPrintable(d.now()));
        d.chooseFile(base + "-share.rollcall");
        d.type("i9");
        QVERIFY2(d.now().contains("left out"), qPrintable(d.now()));
        {
            const auto copy = Logbook::open(base + "-share.rollcall", Logbook::Access::read).value();
            QVERIFY(copy->check()->empty());
            QCOMPARE(copy->batches()->at(0).name, std::string("Batch 1"));
        }
        d.chooseFiles({base + ".zip", base + "-back.rollcall"});
        d.type("i0");
        QVERIFY(QTest::qWaitFor([&] { return d.document().path() == base + "-back.rollcall"; }, 5000));
        d.settle();
        QCOMPARE(d.document().batch().name, std::string("Orchard 13"));
    }
    // The verdict drawn away with the mouse takes a picture of the bench along; a click still asks why.
    void aPictureIsDrawnOut() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F5);
        auto* column = d.window().findChild<VerdictColumn*>();
        QTest::mousePress(column, Qt::LeftButton, {}, QPoint(60, 60));
        QTest::mouseMove(column, QPoint(20, 90));
        QTest::mouseRelease(column, Qt::LeftButton, {}, QPoint(20, 90));
        QVERIFY(d.dragged() != nullptr && d.dragged()->hasImage());
        const QImage file(d.dragged()->urls().value(0).toLocalFile());
        QCOMPARE(file.size(), qvariant_cast<QImage>(d.dragged()->imageData()).size());
        QVERIFY(file.width() > 400);
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        QTest::mouseClick(column, Qt::LeftButton, {}, QPoint(60, 60));
        QVERIFY(d.dialogText().contains("GK-1"));
        d.press(Qt::Key_Escape);
    }
    // A reader of codes types what is on a piece's card and presses Enter.
    void aCardsCode() {
        WindowDriver d;
        d.makeBatch();
        d.type("#GK-3@Orchard 13\n");
        QCOMPARE(d.document().bladeIndex(), 2);
        d.type("#GK-1\n");
        QCOMPARE(d.document().bladeIndex(), 0);
        d.type("#GK-9@Orchard 13\n");
        QVERIFY2(d.now().contains("no such piece"), qPrintable(d.now()));
        d.type("#n"); // not the letter's command
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        d.press(Qt::Key_Escape);
        QCOMPARE(d.document().bladeIndex(), 0);
    }
};

QTEST_MAIN(tst_Exchange)
#include "tst_exchange.moc"

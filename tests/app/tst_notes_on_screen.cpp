// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/batch_card.h"
#include "tests/support/window_driver.h"

#include <QListWidget>
#include <QtTest>

using namespace rollcall;
using fixtures::WindowDriver;

// A note from the window: typed, kept, found again, on the card when it is wished.
class tst_NotesOnScreen : public QObject {
    Q_OBJECT

private slots:
    void init() { QSettings().clear(); }

    void typedKeptAndFound() {
        WindowDriver d;
        d.makeBatch();
        d.type("+"); // GK-2 in hand
        d.run("note");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("Type the note"), qPrintable(d.formMessage()));
        d.fill("text", "the handle end rang dull");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.now().contains("note is kept"), qPrintable(d.now()));
        const Batch& batch = d.document().batch();
        QCOMPARE(batch.notes.size(), std::size_t(1));
        QCOMPARE(batch.notes[0].blade, batch.blades[1].id);
        QCOMPARE(batch.notes[0].by, std::string("HB"));

        d.press(Qt::Key_M, Qt::ControlModifier);
        d.fill("text", "oil at 58, one tin short");
        d.fill("on", "the batch");
        d.fill("card", "yes");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.document().batch().notes.at(1).on_card);
        QVERIFY(d.document().batch().notes.at(1).blade.empty());

        d.type("-");
        d.press(Qt::Key_F, Qt::ControlModifier);
        const auto type = [&](const QString& words) {
            d.dialog()->findChild<QLineEdit*>("sentence")->setText(words);
            d.settle();
        };
        auto* hits = d.dialog()->findChild<QListWidget*>("hits");
        type("RANG handle");
        QVERIFY(QTest::qWaitFor([&] { return hits->count() == 1; }, 3000));
        const QString note = hits->item(0)->data(Qt::AccessibleTextRole).toString();
        QVERIFY2(note.startsWith("GK-2, ") && note.contains("rang dull"), qPrintable(note));
        type("nobody wrote this");
        QVERIFY(QTest::qWaitFor([&] { return hits->count() == 0; }, 3000));
        type("rang");
        QVERIFY(QTest::qWaitFor([&] { return hits->count() == 1; }, 3000));
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().blade()->mark, std::string("GK-2"));
    }

    void onTheReadingInHand() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("652\n");
        d.run("note");
        d.fill("on", "GK-1, its reading 65.2");
        d.fill("text", "slipped on the anvil");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().notes.at(0).reading, d.document().batch().blades[0].readings[0].id);
    }

    // The card grows by a line for each note that goes onto it, and by none for the others.
    void onTheCardWhereWished() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        const auto drawn = [&] {
            QTemporaryDir folder;
            const QString path = folder.filePath("card.pdf");
            if (!writeBatchCard(path, batch, fixtures::tables(), false, fixtures::at(12)).ok()) qFatal("no card");
            return QFileInfo(path).size();
        };
        const qint64 without = drawn();
        batch.notes.push_back({"n1", "kept off the card", "", "", false, "HB", fixtures::at(9)});
        const qint64 off = drawn();
        batch.notes.push_back(
            {"n2", "straighten before the second temper", batch.blades[0].id, "", true, "HB", fixtures::at(9)});
        QVERIFY(std::abs(off - without) < 40); // but for the time it was made
        QVERIFY(drawn() > off + 40);
    }
};

QTEST_MAIN(tst_NotesOnScreen)
#include "tst_notes_on_screen.moc"

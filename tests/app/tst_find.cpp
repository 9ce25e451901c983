// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/mouse.h"

#include <QLabel>
#include <QListWidget>
#include <QtTest>

using namespace rollcall;
using fixtures::Mouse;
using fixtures::WindowDriver;

// Ctrl+F: what is known of a blade is typed, and what is found opens where its work is.
class tst_Find : public QObject {
    Q_OBJECT

    // Types a sentence and gives what is found, by title.
    static QStringList found(WindowDriver& d, const QString& sentence) {
        auto* field = d.dialog()->findChild<QLineEdit*>("sentence");
        field->clear();
        QTest::keyClicks(field, sentence);
        d.settle();
        // Where words were still to be gathered it looks again by itself.
        const auto gathered = [&] { return d.document().pending() == 0 && !understood(d).contains("still to be"); };
        if (!QTest::qWaitFor(gathered, 10000)) qFatal("the words are never gathered");
        QStringList titles;
        auto* list = d.dialog()->findChild<QListWidget*>("hits");
        for (int i = 0; i < list->count(); ++i) titles << list->item(i)->text();
        return titles;
    }
    static QString understood(WindowDriver& d) { return d.dialog()->findChild<QLabel*>("understood")->text(); }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    void asASentenceIsTyped() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n654\n653\n"); // Pass as quenched
        d.press(Qt::Key_PageDown);
        d.type("591\n\n593\n592\n"); // Fail, soft; the first is asked about
        QVERIFY2(d.word() == "Fail", qPrintable(d.word() + d.reasons()));
        d.press(Qt::Key_F, Qt::ControlModifier);
        QCOMPARE(found(d, "failed"), QStringList{"GK-2, Orchard 13"});
        QVERIFY2(understood(d).contains("verdict Fail"), qPrintable(understood(d)));
        QCOMPARE(found(d, "65.4"), QStringList{"GK-1, Orchard 13"});
        QCOMPARE(found(d, "orchard").size(), 4); // the batch and its three blades
        QCOMPARE(found(d, "115crv3, today").size(), 4);
        QVERIFY2(understood(d).startsWith("115CrV3; since "), qPrintable(understood(d)));
        QCOMPARE(found(d, "115crv3, yesterday"), QStringList());
        QVERIFY2(understood(d).contains("Nothing fits"), qPrintable(understood(d)));
        QCOMPARE(found(d, "80CrV2"), QStringList());
        // Down goes through what was found while the field keeps the keys; Enter opens it where its work is.
        QCOMPARE(found(d, "GK").size(), 3);
        auto* field = d.dialog()->findChild<QLineEdit*>("sentence");
        auto* list = d.dialog()->findChild<QListWidget*>("hits");
        while (list->currentItem()->text() != "GK-2, Orchard 13") {
            const int row = list->currentRow();
            QTest::keyClick(field, Qt::Key_Down);
            QVERIFY(list->currentRow() == row + 1);
        }
        d.press(Qt::Key_F9); // a key of the window does nothing here
        QTest::keyClick(field, Qt::Key_Return);
        d.settle();
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        QCOMPARE(d.document().blade()->mark, std::string("GK-2"));
        QCOMPARE(d.document().gate(), Gate::quench);
    }

    // A sentence that is looked for often is kept, for everybody who opens the logbook, and forgotten again.
    void sentencesAreKept() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F, Qt::ControlModifier);
        auto* keep = d.dialog()->findChild<QAbstractButton*>("keep");
        auto* list = d.dialog()->findChild<QListWidget*>("hits");
        QVERIFY(!keep->isVisible()); // nothing to keep
        QCOMPARE(found(d, "gk-2").size(), 1);
        QTest::mouseClick(keep, Qt::LeftButton);
        d.settle();
        QCOMPARE(keep->text(), QString("Forget it"));
        QCOMPARE(found(d, "gk-3, today").size(), 1);
        QTest::keyClick(d.dialog()->findChild<QLineEdit*>("sentence"), Qt::Key_S, Qt::ControlModifier);
        d.settle();
        d.press(Qt::Key_Escape);
        d.restart();
        d.press(Qt::Key_F, Qt::ControlModifier);
        QCOMPARE(found(d, "").mid(0, 2), (QStringList{"gk-3, today", "gk-2"}));
        list = d.dialog()->findChild<QListWidget*>("hits");
        auto* field = d.dialog()->findChild<QLineEdit*>("sentence");
        QTest::keyClick(field, Qt::Key_Down);
        QCOMPARE(list->currentRow(), 1);
        QTest::keyClick(field, Qt::Key_Return); // it is looked for, nothing is opened
        d.settle();
        QCOMPARE(field->text(), QString("gk-2"));
        QTRY_COMPARE(list->count(), 1);
        QTest::keyClick(field, Qt::Key_S, Qt::ControlModifier);
        d.settle();
        QCOMPARE(found(d, "").value(0), QString("gk-3, today"));
        QVERIFY(!found(d, "").contains("gk-2"));
    }

    // Who has no keyboard has its keys here too.
    void byTouch() {
        WindowDriver d;
        d.makeBatch();
        d.run("touch");
        Mouse mouse(d);
        mouse.act("seek");
        mouse.keys("GK-2");
        QCOMPARE(d.dialog()->findChild<QLineEdit*>("sentence")->text(), QStringLiteral("GK-2"));
        auto* list = d.dialog()->findChild<QListWidget*>("hits");
        QVERIFY(QTest::qWaitFor([&] { return list->count() == 1; }, 10000));
        mouse.keys("\n");
        QCOMPARE(d.document().blade()->mark, std::string("GK-2"));
    }

    // By the mouse, from another batch; and what was done since it was last looked for is found.
    void inAnotherBatch() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F, Qt::ControlModifier);
        QCOMPARE(found(d, "gk-3").size(), 1);
        d.press(Qt::Key_Escape);
        d.run("same-again");
        d.fill("name", "Hedge 9");
        d.fill("marks", "HB-#");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().name, std::string("Hedge 9"));
        d.press(Qt::Key_F, Qt::ControlModifier);
        QVERIFY(found(d, "hedge").contains("Hedge 9"));
        QCOMPARE(found(d, "gk-3").size(), 1);
        auto* list = d.dialog()->findChild<QListWidget*>("hits");
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(0)).center());
        d.settle();
        QCOMPARE(d.document().batch().name, std::string("Orchard 13"));
        QCOMPARE(d.document().blade()->mark, std::string("GK-3"));
    }
};

QTEST_MAIN(tst_Find)
#include "tst_find.moc"

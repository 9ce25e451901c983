// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/import.h"
#include "tests/support/window_driver.h"

#include <QDir>
#include <QSettings>

using namespace rollcall;
using fixtures::WindowDriver;

// Copies that the window keeps by itself, a second place for them, and the way back after a look.
class tst_Kept : public QObject {
    Q_OBJECT

    static QStringList in(const QString& folder) {
        QStringList all;
        for (const QFileInfo& file : QDir(folder).entryInfoList({"*.rollcall"}, QDir::Files, QDir::Name))
            all << file.fileName();
        return all;
    }
    static void rest(WindowDriver& d) {
        if (!QTest::qWaitFor([&] { return !d.window().keeper().busy(); }, 10000)) qFatal("no copy comes to an end");
        d.settle();
    }
    static void keep(WindowDriver& d) {
        d.window().keeper().keepNow();
        rest(d);
    }
    static void look(WindowDriver& d) {
        d.window().keeper().look();
        rest(d);
    }
    // A batch with a reading, of which a copy is kept.
    static void kept(WindowDriver& d, const QTemporaryDir& folder) {
        d.makeBatch();
        d.type("612\n");
        d.window().keeper().begin(folder.path());
        keep(d);
    }
    static constexpr std::int64_t hour = 3600000;

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // as WindowDriver does
        QSettings().clear();
    }

    // By itself: one at the first look, none while nothing is new or no hour is over, then another.
    void anHourApart() {
        const QTemporaryDir folder;
        WindowDriver d;
        d.makeBatch();
        CopyKeeper& keeper = d.window().keeper();
        QVERIFY(keeper.copies().empty());
        constexpr int look_ms = 20;
        keeper.begin(folder.path(), look_ms);
        const QString own = keeper.folder();
        QVERIFY(own.startsWith(folder.path() + "/shop-"));
        QTRY_COMPARE(in(own).size(), 1); // by the clock
        rest(d);
        d.type("612\n");
        look(d);
        QCOMPARE(in(own).size(), 1); // no hour is over
        d.passTime(hour + 1000);
        look(d);
        QCOMPARE(in(own).size(), 2);
        d.passTime(hour + 1000);
        look(d);
        QCOMPARE(in(own).size(), 2); // nothing is new
        auto copy = Logbook::open(keeper.copies().front().path, Logbook::Access::read);
        QVERIFY(copy.ok());
        QCOMPARE((*copy)->counts().value()["reading"], 1);
        QVERIFY((*copy)->check().value().empty());
    }

    // Without begin(), as in the demo, nothing is kept; at the end what is new is.
    void atTheEnd() {
        const QTemporaryDir folder;
        WindowDriver d;
        d.makeBatch();
        CopyKeeper& keeper = d.window().keeper();
        keeper.keepLast();
        QVERIFY(keeper.folder().isEmpty());
        QVERIFY(!d.now().contains("No copy"));
        keep(d);
        QVERIFY2(d.now().contains("No copy is kept"), qPrintable(d.now()));
        d.type("ik");
        QVERIFY2(!d.dialogText().contains("Keep one now"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        keeper.begin(folder.path());
        d.type("612\n");
        keeper.keepLast();
        QCOMPARE(in(keeper.folder()).size(), 1);
    }

    // A second place is chosen from the menu and remembered; where it is gone that is said, and nothing is made there.
    void aSecondPlace() {
        const QTemporaryDir folder;
        const QTemporaryDir stick;
        WindowDriver d;
        d.makeBatch();
        d.window().keeper().begin(folder.path());
        d.chooseFile(stick.filePath("any.rollcall"));
        d.type("ik");
        QVERIFY2(d.dialogText().contains("There is no second place"), qPrintable(d.dialogText()));
        d.type("s");
        QTRY_COMPARE(in(stick.path()).size(), 1);
        QVERIFY(QTest::qWaitFor([&] { return !d.window().keeper().busy(); }, 10000));
        QCOMPARE(in(d.window().keeper().folder()).size(), 1);
        QVERIFY(in(stick.path())[0].startsWith("shop 2"));
        QVERIFY(QDir(stick.path()).removeRecursively());
        d.type("612\n");
        d.passTime(hour);
        keep(d);
        QTRY_VERIFY2(d.now().contains("the folder is not there"), qPrintable(d.now()));
        QVERIFY(!QDir(stick.path()).exists());
        d.type("ik");
        QVERIFY(d.dialogText().contains(stick.path()));
        d.type("x");
        d.type("ik");
        QVERIFY(d.dialogText().contains("There is no second place"));
    }

    // The way back: what the copy holds is told beside what is open, then it goes on as a file of its own.
    void theWayBack() {
        const QTemporaryDir folder;
        WindowDriver d;
        kept(d, folder);
        d.passTime(hour);
        d.type("614\n615\n");
        const QString back = QFileInfo(d.path()).path() + "/back.rollcall";
        d.chooseFile(back);
        d.type("ik1");
        QTRY_VERIFY(d.dialogText().contains("It holds"));
        const QString told = d.dialogText();
        QVERIFY2(told.contains("readings 1.") && told.contains("readings 3."), qPrintable(told));
        QVERIFY2(told.contains("Later entries that it does not hold: 2."), qPrintable(told));
        QVERIFY2(told.contains("all is well"), qPrintable(told));
        QVERIFY(!QFile::exists(back));
        d.type("g");
        QTRY_COMPARE(d.document().path(), back);
        d.settle();
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(1));
        d.type("616\n");
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(2));
        // The other one stays as it was.
        auto before = Logbook::open(d.path(), Logbook::Access::read);
        QVERIFY(before.ok());
        QCOMPARE((*before)->counts().value()["reading"], 3);
    }

    // A merge is taken back by the copy from before it: Ctrl+Z says so, and it is first in the list.
    void aMergeIsTakenBack() {
        WindowDriver d;
        d.makeBatch();
        const QString other = QFileInfo(d.path()).path() + "/other.rollcall";
        {
            const auto north = Logbook::create(other).value();
            const QByteArray csv("batch,blade,gate,value\nHedge 9,B1,temper,61\n");
            QVERIFY(importReadings(*north, fixtures::tables(), "r.csv", csv).ok());
        }
        d.chooseFile(other);
        d.type("i5");
        d.type("1");
        d.settle();
        QCOMPARE(d.document().state().batches().size(), std::size_t(2));
        d.press(Qt::Key_Z, Qt::ControlModifier);
        QVERIFY2(d.now().contains("the copy from before it"), qPrintable(d.now()));
        const QString back = QFileInfo(d.path()).path() + "/back.rollcall";
        d.chooseFile(back);
        d.type("ik");
        QVERIFY2(d.dialogText().contains("before another logbook was taken in"), qPrintable(d.dialogText()));
        d.type("1");
        QTRY_VERIFY(d.dialogText().contains("It holds"));
        d.type("g");
        QTRY_COMPARE(d.document().path(), back);
        d.settle();
        QCOMPARE(d.document().state().batches().size(), std::size_t(1));
    }

    // A copy that was damaged says so when it is looked into.
    void aDamagedCopy() {
        const QTemporaryDir folder;
        WindowDriver d;
        kept(d, folder);
        QFile copy(d.window().keeper().copies().front().path);
        QVERIFY(copy.open(QIODevice::ReadWrite));
        QByteArray bytes = copy.readAll();
        const qsizetype at = bytes.lastIndexOf("61.2");
        QVERIFY(at > 0);
        copy.seek(at);
        copy.write("61.9");
        copy.close();
        d.type("ik1");
        QTRY_VERIFY2(d.dialogText().contains("Its check found") || d.dialogText().contains("cannot be read"),
                     qPrintable(d.dialogText()));
    }
};

QTEST_MAIN(tst_Kept)
#include "tst_kept.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/reading_row.h"
#include "tests/support/mouse.h"

#include <QCalendarWidget>
#include <QElapsedTimer>
#include <QSignalSpy>

using namespace rollcall;
using fixtures::Mouse;
using fixtures::WindowDriver;

// For hands that hold a blade: what is said and sounded, and days and times that are picked instead of typed.
class tst_Heard : public QObject {
    Q_OBJECT

    static void submit(WindowDriver& d) { d.press(Qt::Key_Return, Qt::ControlModifier); }
    // A button of the topmost dialog, clicked.
    static void clickIn(WindowDriver& d, const char* name) {
        auto* button = d.dialog()->findChild<QAbstractButton*>(QLatin1String(name));
        QVERIFY2(button != nullptr, name);
        QTest::mouseClick(button, Qt::LeftButton);
        d.settle();
    }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    // Nothing is said before it is wished; then the number that was logged, the blade that is next, and why one was
    // not taken.
    void theRollIsCalledAloud() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n");
        QCOMPARE(d.spoken(), QStringList());
        d.run("speech");
        QCOMPARE(d.spoken(), QStringList{"The roll is called aloud."});
        d.type("653\n");
        const QStringList read = d.spoken();
        QCOMPARE(read.size(), 1);
        QVERIFY2(read.first().startsWith("65.3") && read.first().contains("GK 1"), qPrintable(read.first()));
        d.press(Qt::Key_PageDown);
        QCOMPARE(d.spoken(), QStringList{"GK 2"}); // not: GK minus 2
        d.type("999\n");
        const QStringList refused = d.spoken();
        QVERIFY(!refused.isEmpty());
        QVERIFY2(refused.last().contains("20 to 70"), qPrintable(refused.last()));
        d.restart(); // it stays wished on this computer
        QVERIFY(!d.spoken().isEmpty());
        d.run("speech");
        d.spoken();
        d.press(Qt::Key_PageDown);
        QCOMPARE(d.spoken(), QStringList());
    }

    void aComputerWithoutAVoice() {
        WindowDriver d;
        d.makeBatch();
        d.loseVoice("This computer has no voice.");
        d.run("speech");
        QVERIFY2(d.now().contains("has no voice"), qPrintable(d.now()));
        d.spoken();
        d.press(Qt::Key_F4);
        d.press(Qt::Key_PageDown);
        QCOMPARE(d.spoken(), QStringList()); // and it is not tried again and again
    }

    // The dwell sounds when it was held as long as the test cycle asks, and only where that is wished.
    void theDwellSounds() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        const int asked = static_cast<int>(d.document().tables().testCycle().dwell_min_s * 1000);
        QSignalSpy over(d.window().findChild<ReadingRow*>(), &ReadingRow::dwellOver);
        d.press(Qt::Key_Space);
        QVERIFY(over.wait(10000));
        QVERIFY(d.sounded().empty());
        d.press(Qt::Key_Space);
        d.run("dwell-sound");
        QElapsedTimer held;
        held.start();
        d.press(Qt::Key_Space);
        QVERIFY(over.wait(10000));
        QVERIFY2(held.elapsed() >= asked, qPrintable(QString::number(held.elapsed()))); // not before
        QCOMPARE(d.sounded(), std::vector<Sound>{Sound::dwellOver});
    }

    // The sounds that ship are what the program asks for: mono, and short enough not to be in the way.
    void theSoundsAreThere() {
        for (const char* name : {"dwell-over", "oven-due"}) {
            QFile file(QStringLiteral(ROLLCALL_DATA_DIR "/sounds/%1.wav").arg(QLatin1String(name)));
            QVERIFY2(file.open(QIODevice::ReadOnly), name);
            const QByteArray bytes = file.readAll();
            QCOMPARE(bytes.left(4), QByteArray("RIFF"));
            QCOMPARE(bytes.mid(8, 4), QByteArray("WAVE"));
            QVERIFY(bytes.size() > 5000 && bytes.size() < 100000);
        }
    }

    // When a temper was is picked from a calendar and a clock, and stands in the field as somebody would type it.
    void aMomentIsPicked() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.type("t");
        d.fill("temperature", "205");
        d.fill("when", "2026-11-20 08:10");
        auto* when = d.dialog()->findChild<QLineEdit*>("when");
        QPointer<QDialog> form = d.dialog();
        QTest::mouseClick(when->findChild<QAbstractButton*>("calendar"), Qt::LeftButton);
        QDialog* sheet = d.dialog();
        QCOMPARE(sheet->objectName(), QStringLiteral("pick"));
        auto* calendar = sheet->findChild<QCalendarWidget*>();
        QCOMPARE(calendar->selectedDate(), QDate(2026, 11, 20)); // it opens at what was typed
        QCOMPARE(sheet->findChild<QComboBox*>("minute")->currentText(), QStringLiteral("10"));
        QTest::keyClick(calendar->findChild<QAbstractItemView*>(), Qt::Key_Left);
        sheet->findChild<QComboBox*>("hour")->setCurrentText("18");
        clickIn(d, "take");
        QCOMPARE(when->text(), QStringLiteral("2026-11-19 18:10"));
        QCOMPARE(d.dialog(), form.data()); // the form is still there
        submit(d);
        const Instant at = d.document().batch().blades[0].tempers.front().time.value();
        QCOMPARE(QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60)
                     .toString("yyyy-MM-dd HH:mm"),
                 QStringLiteral("2026-11-19 18:10"));
    }

    // A day alone, with the keys: Alt+Down, an arrow, Enter. What has not happened yet can be picked there.
    void aDayIsPickedWithKeys() {
        WindowDriver d;
        d.makeBatch();
        d.type("r");
        d.run("testers.blocks");
        d.type("1");
        auto* until = d.dialog()->findChild<QLineEdit*>("until");
        until->setText("2027-05-30");
        until->setFocus();
        QTest::keyClick(until, Qt::Key_Down, Qt::AltModifier);
        auto* calendar = d.dialog()->findChild<QCalendarWidget*>();
        auto* days = calendar->findChild<QAbstractItemView*>();
        const auto parts = calendar->findChildren<QWidget*>().size();
        QTest::keyClick(days, Qt::Key_3);
        QCOMPARE(calendar->findChildren<QWidget*>().size(), parts); // no field of Qt's own opens over the days
        QTest::keyClick(days, Qt::Key_Right);
        QTest::keyClick(days, Qt::Key_Return);
        d.settle();
        QCOMPARE(until->text(), QStringLiteral("2027-05-31"));
        submit(d);
        QCOMPARE(d.document().state().shop().blocks.front().certificate.until, std::string("2027-05-31"));
    }
};

QTEST_MAIN(tst_Heard)
#include "tst_heard.moc"

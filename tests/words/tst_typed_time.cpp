// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/typed_time.h"

#include <QDateTime>
#include <QtTest>

using namespace rollcall;

class tst_TypedTime : public QObject {
    Q_OBJECT

    // 2026-11-27 09:00 by a clock one hour ahead of UTC.
    static Instant nineInTheMorning() {
        return {QDateTime({2026, 11, 27}, {9, 0}, Qt::OffsetFromUTC, 3600).toMSecsSinceEpoch(), 60};
    }
    static QString text(const Instant& at) {
        return QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60)
            .toString("yyyy-MM-dd HH:mm");
    }

private slots:
    void asAMakerTypesIt_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<QString>("is");
        QTest::newRow("blank is now") << ""
                                      << "2026-11-27 09:00";
        QTest::newRow("earlier today") << "8:15"
                                       << "2026-11-27 08:15";
        QTest::newRow("now") << "9:00"
                             << "2026-11-27 09:00";
        QTest::newRow("later than now was yesterday") << "18:30"
                                                      << "2026-11-26 18:30";
        QTest::newRow("a day") << "2026-11-24 18:00"
                               << "2026-11-24 18:00";
        QTest::newRow("with a T") << "2026-11-24T07:05"
                                  << "2026-11-24 07:05";
        QTest::newRow("day first") << "24.11.2026 18:00"
                                   << "2026-11-24 18:00";
        QTest::newRow("blanks around") << "  24.11.2026   18:00 "
                                       << "2026-11-24 18:00";
    }
    void asAMakerTypesIt() {
        QFETCH(QString, typed);
        QFETCH(QString, is);
        const auto read = typedTime(typed, nineInTheMorning());
        QVERIFY(read.ok());
        QCOMPARE(text(*read), is);
        QCOMPARE(read->offset_minutes, 60);
    }
    void whatIsNoTime() {
        for (const char* none : {"tomorrow", "25:00", "2026-13-01 10:00", "18", "2026-11-24"}) {
            const auto read = typedTime(QString::fromLatin1(none), nineInTheMorning());
            QVERIFY2(!read.ok(), none);
            QCOMPARE(read.error().kind, ErrorKind::argument);
        }
    }
    void notIntoTheFuture() {
        const auto read = typedTime(QStringLiteral("2026-11-27 09:01"), nineInTheMorning());
        QVERIFY(!read.ok());
        QCOMPARE(read.error().kind, ErrorKind::range);
    }
};

QTEST_GUILESS_MAIN(tst_TypedTime)
#include "tst_typed_time.moc"

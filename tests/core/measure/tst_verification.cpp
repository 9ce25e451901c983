// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/verification.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Verification : public QObject {
    Q_OBJECT

private slots:
    // E18, HRC: up to 35 E 1.0 R 2.0; 35 to 60 E 1.0 R 1.5; from 60 E 0.5 R 1.0.
    void judgesRuns_data() {
        QTest::addColumn<double>("block");
        QTest::addColumn<QList<double>>("readings");
        QTest::addColumn<double>("error");
        QTest::addColumn<double>("spread");
        QTest::addColumn<bool>("ok");
        QTest::newRow("good") << 62.6 << QList<double>{62.4, 62.5} << -0.15 << 0.1 << true;
        QTest::newRow("error at its limit") << 62.6 << QList<double>{63.1, 63.1} << 0.5 << 0.0 << true;
        QTest::newRow("error over it") << 62.6 << QList<double>{63.2, 63.1} << 0.55 << 0.1 << false;
        QTest::newRow("spread over it") << 62.6 << QList<double>{62.0, 63.1} << -0.05 << 1.1 << false;
        QTest::newRow("softer band is wider") << 45.0 << QList<double>{45.9, 45.0} << 0.45 << 0.9 << true;
        QTest::newRow("from 57.5 the nearer band is the tight one")
            << 59.9 << QList<double>{60.5, 60.5} << 0.6 << 0.0 << false;
        QTest::newRow("band begins at 60") << 60.0 << QList<double>{60.6, 60.6} << 0.6 << 0.0 << false;
        QTest::newRow("just below 57.5") << 57.4 << QList<double>{58.0, 58.0} << 0.6 << 0.0 << true;
    }
    void judgesRuns() {
        QFETCH(double, block);
        QFETCH(QList<double>, readings);
        QFETCH(double, error);
        QFETCH(double, spread);
        const auto answer = verifyTester(tables(), "HRC", block, {readings.begin(), readings.end()});
        QVERIFY(answer.ok());
        QVERIFY(std::abs(answer->error - error) < 1e-9);
        QVERIFY(std::abs(answer->repeatability - spread) < 1e-9);
        QTEST(answer->ok, "ok");
    }

    void refusesWhatIsNoRun() {
        QCOMPARE(verifyTester(tables(), "HRC", 62.6, {62.5}).error().kind, ErrorKind::argument);
        QCOMPARE(verifyTester(tables(), "HRC", 92.6, {62.5, 62.5}).error().kind, ErrorKind::range);
        QCOMPARE(verifyTester(tables(), "HRC", 62.6, {62.5, std::nan("")}).error().kind, ErrorKind::range);
        QCOMPARE(verifyTester(tables(), "HRLW", 62.6, {62.5, 62.5}).error().kind, ErrorKind::argument);
    }

    // Of two readings the difference scatters by sqrt(2), their mean by 1/sqrt(2): both parts are 2(1 - Phi(2.357)).
    // Of five, the range is beyond 3.478 standard deviations one time in ten (tables of the studentized range).
    void aPerfectTesterIsRefusedByChance() {
        VerificationAnswer allowed;
        allowed.max_error = 0.5;
        allowed.max_repeatability = 1.0;
        QVERIFY(std::abs(chancePerfectRefused(0.3, 2, allowed) - 0.0365) < 0.0005);
        QVERIFY(std::abs(chancePerfectRefused(1 / 3.478, 5, allowed) - 0.100) < 0.001);
    }

    // M6: valid in the same band, or when the limits of the reading's band hold too.
    void coversOtherBandsOnlyWhenTight() {
        const auto tight = verifyTester(tables(), "HRC", 55.2, {55.4, 55.3}).value();
        const auto wide = verifyTester(tables(), "HRC", 55.2, {56.0, 55.9}).value();
        QVERIFY(tight.ok && wide.ok);
        QVERIFY(verificationCovers(tight, toleranceFor(tables(), "HRC", 57).value()));
        QVERIFY(verificationCovers(tight, toleranceFor(tables(), "HRC", 62).value()));
        QVERIFY(verificationCovers(wide, toleranceFor(tables(), "HRC", 57).value()));
        QVERIFY(!verificationCovers(wide, toleranceFor(tables(), "HRC", 62).value()));
    }
};

QTEST_APPLESS_MAIN(tst_Verification)
#include "tst_verification.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/typed_shop.h"

#include <QtTest>

using namespace rollcall;

// What is said of a bar when certificate, analyser, coupon and grade are put together, typed line by line.
class tst_TruthSteel : public QObject {
    Q_OBJECT

    fixtures::TypedShop m_shop;

    // The one blade of a bar sold as a grade, after these lines; each stands for the part behind 'batch': 'B'.
    QJsonObject blade(const QString& grade, const QStringList& lines) {
        m_shop.begin(
            QStringLiteral("%1-%2-%3").arg(QTest::currentTestFunction(), QTest::currentDataTag()).arg(++m_made));
        m_shop.line(
            QStringLiteral("{'do': 'batch', 'name': 'B', 'count': 1, 'marks': 'M-#', 'sold_as': '%1', 'window': "
                           "'54:62', 'gates': ['steel']}")
                .arg(grade));
        for (const QString& line : lines) m_shop.line(QStringLiteral("{'batch': 'B', %1}").arg(line));
        m_shown = m_shop.show("B");
        return m_shown["blades"].toArray()[0].toObject();
    }
    static QString state(const QJsonObject& blade) { return fixtures::TypedShop::state(blade, "steel"); }
    static QStringList facts(const QJsonObject& blade) { return fixtures::TypedShop::facts(blade, "steel"); }
    static QString sentences(const QJsonObject& blade) { return fixtures::TypedShop::sentences(blade, "steel"); }

    QJsonObject m_shown;
    int m_made = 0;

private slots:
    // The certificate alone knows the carbon; a shot that sees none does not make it good.
    void aShotDoesNotEraseTheCertificate() {
        const QString certificate = "'do': 'certificate', 'elements': {'C': 0.31, 'Cr': 13.4, 'Mn': 0.5}";
        const QString shot = "'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [13.4, 0.1], 'Mn': [0.5, 0.05]}";
        QCOMPARE(state(blade("X46Cr13", {certificate})), QStringLiteral("fail"));
        const QJsonObject both = blade("X46Cr13", {certificate, shot});
        QCOMPARE(state(both), QStringLiteral("fail"));
        QVERIFY2(sentences(both).contains("C 0.31"), qPrintable(sentences(both)));
        QCOMPARE(state(blade("X46Cr13", {shot})),
                 QStringLiteral("pass")); // without it nothing speaks against the claim
    }

    // Only what makes the grade answers for it: chromium and manganese are in every stainless.
    void theElementsThatMakeTheGradeAreAsked_data() {
        QTest::addColumn<QString>("elements");
        QTest::addColumn<QString>("state");
        QTest::addColumn<QString>("asked");
        QTest::newRow("two of four") << "'Cr': [14.5, 0.1], 'Mn': [0.5, 0.05]"
                                     << "borderline"
                                     << "measure Mo,";
        // Its least vanadium is no more than any stainless may have: it decides nothing.
        QTest::newRow("no vanadium") << "'Cr': [14.5, 0.1], 'Mo': [0.65, 0.02]"
                                     << "pass"
                                     << "";
        QTest::newRow("all") << "'Cr': [14.5, 0.1], 'Mo': [0.65, 0.02], 'V': [0.15, 0.02]"
                             << "pass"
                             << "";
    }
    void theElementsThatMakeTheGradeAreAsked() {
        QFETCH(QString, elements);
        QFETCH(QString, state);
        QFETCH(QString, asked);
        const QJsonObject one =
            blade("X50CrMoV15", {QStringLiteral("'do': 'shot', 'method': 'xrf', 'elements': {%1}").arg(elements)});
        QVERIFY2(tst_TruthSteel::state(one) == state, qPrintable(sentences(one)));
        QVERIFY2(sentences(one).contains(asked), qPrintable(sentences(one)));
    }

    // Residuals that really occur are no other steel.
    void residualsThatOccurAreNoOtherSteel_data() {
        QTest::addColumn<QString>("grade");
        QTest::addColumn<QString>("elements");
        QTest::newRow("M2 with cobalt") << "M2"
                                        << "'Cr': [4.1, 0.05], 'Mo': [5.0, 0.05], 'W': [6.2, 0.08], 'V': [1.9, 0.04], "
                                           "'Co': [0.5, 0.05], 'Mn': [0.3, "
                                           "0.03]";
        QTest::newRow("X46Cr13 with molybdenum")
            << "X46Cr13"
            << "'Cr': [13.4, 0.1], 'Mo': [0.17, 0.01], 'Mn': [0.5, 0.05], 'Ni': [0.4, 0.05]";
        QTest::newRow("L6 with vanadium")
            << "L6"
            << "'Cr': [0.9, 0.03], 'Ni': [1.6, 0.05], 'V': [0.18, 0.02], 'Mn': [0.6, 0.05]";
        QTest::newRow("1095 with chromium, nickel and copper")
            << "1095"
            << "'Mn': [0.4, 0.03], 'Cr': [0.15, 0.02], 'Ni': [0.2, 0.03], 'Cu': [0.25, 0.03]";
    }
    void residualsThatOccurAreNoOtherSteel() {
        QFETCH(QString, grade);
        QFETCH(QString, elements);
        const QJsonObject one =
            blade(grade, {QStringLiteral("'do': 'shot', 'method': 'xrf', 'elements': {%1}").arg(elements)});
        QVERIFY2(!facts(one).contains("steel_not_consistent"), qPrintable(sentences(one)));
        QVERIFY2(state(one) == "pass", qPrintable(sentences(one)));
    }

    // Silicon after bead blasting is glass, not steel: another shot, never another grade.
    void whatXrfSeesBadlyRejectsNothing() {
        const QJsonObject one =
            blade("1095", {"'do': 'shot', 'method': 'xrf', 'elements': {'Mn': [0.4, 0.03], 'Si': [0.95, 0.05]}"});
        QCOMPARE(state(one), QStringLiteral("borderline"));
        QVERIFY2(sentences(one).contains("repeat on ground, clean metal"), qPrintable(sentences(one)));
        QCOMPARE(one["next"].toObject()["act"].toString(), QStringLiteral("shot"));
        QVERIFY(!facts(one).contains("looks_more_like"));
        // By spark emission silicon is seen well, and counts.
        const QJsonObject seen = blade(
            "1095", {"'do': 'shot', 'method': 'oes', 'elements': {'C': 0.95, 'Mn': [0.4, 0.03], 'Si': [0.95, 0.05]}"});
        QCOMPARE(state(seen), QStringLiteral("fail"));
    }

    // A coupon of 56.3 fits 440A alone of the three that look alike to XRF: it is offered first.
    void theCouponCountsInTheRanking() {
        const QString shot = "'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [17.0, 0.1], 'Mo': [0.5, 0.02], 'Mn': "
                             "[0.5, 0.05]}";
        const auto best = [&](const QStringList& lines) {
            (void)blade("440C", lines);
            return m_shown["candidates"].toArray()[0].toObject()["grade"].toString();
        };
        const QString without = best({shot});
        QCOMPARE(best({shot, "'do': 'coupon', 'hrc': 56.3"}), QStringLiteral("440A"));
        QVERIFY(best({shot, "'do': 'coupon', 'hrc': 61"}) != QLatin1String("440A"));
        QVERIFY(!without.isEmpty());
    }

    // Certificate and analyser that differ are both shown, and nobody passes.
    void certificateAndShotThatDifferAreSaid() {
        const QJsonObject one = blade(
            "X50CrMoV15",
            {"'do': 'certificate', 'elements': {'C': 0.5, 'Cr': 14.5, 'Mo': 0.65, 'V': 0.15}",
             "'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [14.1, 0.05], 'Mo': [0.52, 0.01], 'V': [0.15, 0.02]}"});
        QVERIFY2(facts(one).contains("certificate_differs"), qPrintable(sentences(one)));
        QCOMPARE(state(one), QStringLiteral("borderline"));
    }

    // Where more than one may be it, the test that parts them comes before a name (E17).
    void rivalsAreToldApartFirst() {
        const QString shot = "'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [13.4, 0.1], 'Mn': [0.5, 0.05], 'Mo': "
                             "[0.03, 0.01], 'V': [0.02, 0.01]}";
        const QJsonObject one = blade("X50CrMoV15", {shot});
        QCOMPARE(state(one), QStringLiteral("fail"));
        QVERIFY2(facts(one).contains("several_fit"), qPrintable(sentences(one)));
        QCOMPARE(one["next"].toObject()["act"].toString(), QStringLiteral("shot"));
        double all = 0;
        for (const QJsonValue candidate : m_shown["candidates"].toArray())
            all += candidate.toObject()["share"].toDouble();
        QVERIFY2(all > 0.5 && all <= 1 + 1e-9, qPrintable(QString::number(all)));
    }

    // E14. 13 % of chromium alone leaves several; a blade that soaked as planned and read 57.0 can be no X20Cr13, and a
    // spark unlike X46Cr13's moves the shares the other way.
    void hardnessAndSparksMoveTheShares() {
        const QString shot = "'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [13.4, 0.1], 'Mn': [0.5, 0.05], 'Mo': "
                             "[0.03, 0.01], 'V': [0.02, 0.01]}";
        const auto share = [&](const QString& grade) {
            for (const QJsonValue one : m_shown["candidates"].toArray()) {
                if (one.toObject()["grade"].toString() == grade) return one.toObject()["share"].toDouble();
            }
            return 0.0;
        };
        blade("X46Cr13", {shot});
        const double before = share("X46Cr13");
        blade("X46Cr13", {shot, "'do': 'spark', 'agrees': false"});
        QVERIFY2(share("X46Cr13") < before, qPrintable(QStringLiteral("%1 %2").arg(before).arg(share("X46Cr13"))));
        blade("X46Cr13", {shot, "'do': 'coupon', 'hrc': 57.0"});
        QVERIFY(share("X20Cr13") < 0.01);
        QVERIFY(share("X46Cr13") > before);
    }

    // The button names a grade that all evidence allows, or none.
    void theButtonOffersOnlyWhatFits() {
        const QJsonObject odd =
            blade("X90CrMoV18",
                  {"'do': 'shot', 'method': 'xrf', 'elements': {'Cr': [15.0, 0.1], 'Mo': [1.0, 0.03], 'V': [4.0, "
                   "0.05], 'Mn': [0.5, 0.05]}"});
        QCOMPARE(state(odd), QStringLiteral("fail"));
        QVERIFY2(facts(odd).contains("no_grade_fits"), qPrintable(sentences(odd)));
        QVERIFY(!facts(odd).contains("looks_more_like"));
    }
};

QTEST_GUILESS_MAIN(tst_TruthSteel)
#include "tst_truth_steel.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/fixtures.h"
#include "words/words.h"

#include <QtTest>

using namespace rollcall;
using fixtures::read;

class tst_Words : public QObject {
    Q_OBJECT

    static Verdict verdict(const Batch& batch, Gate gate) {
        return *judgeBatch(batch, fixtures::tables(), std::nullopt).at(0, gate);
    }

private slots:
    // What limits a verdict most is said as advice, a whole sentence, whichever part it is.
    void everyPartOfTheUncertaintyHasAdvice() {
        using Source = BudgetPart::Source;
        for (int source = 0; source <= int(Source::aged); ++source) {
            Budget budget;
            budget.parts = {{Source::certificate, 0.1, 10}, {static_cast<Source>(source), 0.4, 10}};
            const QString hint = words::budgetHint(budget);
            QVERIFY2(hint.endsWith('.') && hint.contains("help") && hint.front().isUpper(), qPrintable(hint));
            QVERIFY(!words::budgetPartName(static_cast<Source>(source)).isEmpty());
        }
        QVERIFY(words::budgetHint({}).isEmpty());
    }

    void everyFactHasASentence() {
        for (int fact = 0; fact <= int(Fact::outBecause); ++fact) {
            const Reason reason{static_cast<Fact>(fact), Tone::note, "M1", {62.04, 61.0, 3.0}, {"a", "b"}};
            const QString sentence = words::sentence(reason);
            QVERIFY2(!sentence.isEmpty(), qPrintable(QString::number(fact)));
            QVERIFY2(!sentence.contains('%') || sentence.contains(" %"),
                     qPrintable(sentence)); // no place left unfilled
            QVERIFY2(!sentence.contains('!') && !sentence.contains("Invalid") && !sentence.contains("Error"),
                     qPrintable(sentence));
        }
    }

    void numbersAreShownHonestly() {
        QCOMPARE(words::hardness(-0.15), QStringLiteral("\u22120.2"));
        QCOMPARE(words::uncertainty(0.541), QStringLiteral("0.6"));
        QCOMPARE(words::percent(0.99999), QStringLiteral("99 %"));
        QCOMPARE(words::percent(0.0), QStringLiteral("1 %"));
        QCOMPARE(words::percent(0.684), QStringLiteral("68 %"));
        QCOMPARE(words::windowText({61, 62.5}), QStringLiteral("61.0 to 62.5"));
        QCOMPARE(words::windowText({64.5, std::nullopt}), QStringLiteral("64.5 or harder"));
    }

    void headlinesAndNextSteps() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        read(batch.blades[0], Gate::temper, {62.1, 62.2});
        QCOMPARE(words::headline(verdict(batch, Gate::temper)), QStringLiteral("One reading to go."));
        QCOMPARE(words::nextStep(verdict(batch, Gate::temper)).act, QStringLiteral("Take reading 3"));
        read(batch.blades[0], Gate::temper, {62.3});
        QCOMPARE(words::headline(verdict(batch, Gate::temper)), QStringLiteral("99 % inside."));
        batch.blades[0].readings.clear();
        read(batch.blades[0], Gate::temper, {59.1, 59.2, 59.3});
        QCOMPARE(words::headline(verdict(batch, Gate::temper)), QStringLiteral("Soft by 2.0."));
        batch.grade = "A2";
        QCOMPARE(words::headline(verdict(batch, Gate::temper)), QStringLiteral("Tempers missing: 1 of 2 logged"));
        QCOMPARE(words::nextStep(verdict(batch, Gate::temper)).act, QStringLiteral("Temper 2 at 205\u00A0°C"));
    }

    // The derivation shows the worked example's numbers with the inputs put in.
    void derivationShowsTheNumbers() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        batch.verifications[0].readings = {62.8, 62.8};
        read(batch.blades[0], Gate::temper, {62.1, 61.8, 61.9});
        const QString text = words::derivation(verdict(batch, Gate::temper), batch.window).join('\n');
        for (const char* part :
             {"61.933", "0.153", "0.200", "61.733", "0.3142", "28.4", "2.047", "0.643", "61.0 to 63.0", "(M15)"})
            QVERIFY2(text.contains(part), part);
    }
};

QTEST_GUILESS_MAIN(tst_Words)
#include "tst_words.moc"

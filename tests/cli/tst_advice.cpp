// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/typed_shop.h"

#include <QtTest>

using namespace rollcall;
using fixtures::TypedShop;

// E42 to E65. What the button says where a wrong row, damage or an odd state could ruin a blade or let one go.
class tst_Advice : public QObject {
    Q_OBJECT

    TypedShop m_shop;

    void line(const QString& text) { m_shop.line(text); }
    void verify(const char* time = "2026-11-25T08:00", const char* readings = "62.6, 62.7, 62.5, 62.6, 62.6") {
        line(QStringLiteral("{'do': 'verify', 'tester': 'B1', 'block': '62.6', 'readings': [%1], 'time': '%2'}")
                 .arg(QLatin1String(readings), QLatin1String(time)));
    }
    void batch(const char* name, const char* grade, const char* window, int blades, const char* gates,
               const char* more = "") {
        QStringList marks;
        for (int i = 1; i <= blades; ++i) marks << QStringLiteral("{'mark': 'M-%1', 'thickness': 2.4}").arg(i);
        line(QStringLiteral("{'do': 'batch', 'name': '%1', 'sold_as': '%2', 'window': '%3', 'gates': [%4], 'blades': "
                            "[%5]%6}")
                 .arg(QLatin1String(name), QLatin1String(grade), QLatin1String(window), QLatin1String(gates),
                      marks.join(QLatin1String(", ")), QLatin1String(more)));
    }
    void temper(const char* name, double at, const char* time = "2026-11-25T08:30", const char* blades = "'all'",
                const char* more = "") {
        line(QStringLiteral("{'do': 'temper', 'batch': '%1', 'blades': %2, 'temperature': %3, 'hours': 2, 'time': "
                            "'%4'%5}")
                 .arg(QLatin1String(name), QLatin1String(blades))
                 .arg(at)
                 .arg(QLatin1String(time), QLatin1String(more)));
    }
    void read(const char* name, const QString& mark, double mean, const char* gate = "temper",
              const char* time = "2026-11-25T09:00", const char* tester = "B1") {
        for (const double off : {-0.1, 0.0, 0.1})
            line(QStringLiteral("{'do': 'reading', 'batch': '%1', 'blade': '%2', 'gate': '%3', 'tester': '%4', "
                                "'value': %5, 'time': '%6'}")
                     .arg(QLatin1String(name), mark, QLatin1String(gate), QLatin1String(tester))
                     .arg(mean + off, 0, 'f', 1)
                     .arg(QLatin1String(time)));
    }
    QJsonObject blade(const char* name, int index = 0) {
        return m_shop.show(QLatin1String(name))["blades"].toArray().at(index).toObject();
    }
    static QString next(const QJsonObject& one) { return TypedShop::next(one); }
    static double degrees(const QJsonObject& one) { return one["next"].toObject()["temperature_c"].toDouble(); }

    // Three good runs of 52100 at 205 °C, on three days.
    void goodRuns() {
        const QStringList days{QStringLiteral("20"), QStringLiteral("21"), QStringLiteral("22")};
        for (const QString& day : days) {
            const auto at = [&](const char* hour) {
                return QStringLiteral("2026-11-%1T%2").arg(day, QLatin1String(hour)).toLatin1();
            };
            const QByteArray name = "good-" + day.toLatin1();
            verify(at("08:00"));
            batch(name, "52100", "59:61", 3, "'temper'");
            temper(name, 205, at("08:30"));
            for (int i = 1; i <= 3; ++i) read(name, QStringLiteral("M-%1").arg(i), 60.4, "temper", at("12:00"));
        }
        verify();
    }

private slots:
    void init() {
        m_shop.begin(QString::fromLatin1(QTest::currentTestFunction()) + QLatin1Char('-') +
                     QString::fromLatin1(QTest::currentDataTag()));
        line("{'do': 'tester', 'name': 'B1', 'kind': 'bench'}");
        line("{'do': 'tester', 'name': 'Files', 'kind': 'files', 'files': [40, 45, 50, 55, 60, 65]}");
        line("{'do': 'block', 'name': '62.6', 'certified': 62.6}");
    }

    // E42, E44: 400 was degrees Fahrenheit. The next bar of the grade goes where the good runs were.
    void oneWrongRunMovesNothing() {
        goodRuns();
        batch("bad", "52100", "59:61", 2, "'temper'");
        temper("bad", 400);
        read("bad", "M-1", 60.4);
        read("bad", "M-2", 60.4);
        batch("new", "52100", "59:61", 1, "'temper'");
        const QJsonObject one = blade("new");
        QCOMPARE(next(one), QStringLiteral("temper"));
        QVERIFY2(degrees(one) >= 195 && degrees(one) <= 225, qPrintable(QString::number(degrees(one))));
    }
    void aShopWithOnlyAWrongRunGoesByTheLibrary_data() {
        QTest::addColumn<double>("logged");
        QTest::addColumn<double>("read_hrc");
        QTest::newRow("Fahrenheit typed as Celsius") << 400.0 << 60.4;
        QTest::newRow("five points softer than any 150 °C leaves it") << 150.0 << 55.5;
    }
    void aShopWithOnlyAWrongRunGoesByTheLibrary() {
        QFETCH(const double, logged);
        QFETCH(const double, read_hrc);
        verify();
        batch("bad", "52100", "59:61", 2, "'temper'");
        temper("bad", logged);
        read("bad", "M-1", read_hrc);
        read("bad", "M-2", read_hrc);
        batch("new", "52100", "59:61", 1, "'temper'");
        const double at = degrees(blade("new"));
        QVERIFY2(at >= 150 && at <= 245, qPrintable(QString::number(at)));
    }
    // Asked once; what is said to be meant stands.
    void aTemperThatMakesSenseInFahrenheitIsAskedAbout() {
        verify();
        batch("B", "1084", "59:61", 1, "'temper'");
        temper("B", 400);
        const QJsonArray doubts = QJsonDocument::fromJson(m_shop.store().output).object()["doubts"].toArray();
        QCOMPARE(doubts.size(), 1);
        QVERIFY(QJsonDocument(doubts).toJson().contains("204"));
        batch("C", "1084", "59:61", 1, "'temper'");
        temper("C", 400, "2026-11-25T08:40", "'all'", ", 'sure': true");
        QVERIFY(QJsonDocument::fromJson(m_shop.store().output).object()["doubts"].toArray().isEmpty());
        batch("D", "D2", "59:61", 1, "'temper'"); // with a secondary hump 500 is a temper like any other
        temper("D", 500);
        QVERIFY(QJsonDocument::fromJson(m_shop.store().output).object()["doubts"].toArray().isEmpty());
    }
    // E43: no step is larger than what was read can carry.
    void aSecondTemperIsNoLeap() {
        verify();
        batch("B", "52100", "57:58", 1, "'temper'");
        temper("B", 150);
        read("B", "M-1", 63.4);
        const QJsonObject one = blade("B");
        QCOMPARE(next(one), QStringLiteral("temper"));
        QVERIFY2(degrees(one) <= 190, qPrintable(QString::number(degrees(one))));
    }

    // E47: whatever else passes, a damaged blade does not go.
    void damageHoldsABladeThatPassed_data() {
        QTest::addColumn<QString>("damage");
        QTest::newRow("chip") << "{'do': 'damage', 'batch': 'B', 'blade': 'M-1', 'kind': 'chip', 'size': 4}";
        QTest::newRow("tip") << "{'do': 'damage', 'batch': 'B', 'blade': 'M-1', 'kind': 'broken tip'}";
        QTest::newRow("bend") << "{'do': 'damage', 'batch': 'B', 'blade': 'M-1', 'kind': 'bend'}";
        QTest::newRow("crack on a rung") << "{'do': 'rung', 'batch': 'B', 'blade': 'M-1', 'force': 90, 'raise': 45, "
                                            "'outcome': 'crack'}";
    }
    void damageHoldsABladeThatPassed() {
        QFETCH(const QString, damage);
        verify();
        batch("B", "1084", "59:61", 1, "'temper', 'release'");
        temper("B", 205);
        read("B", "M-1", 60.0);
        QCOMPARE(next(blade("B")), QStringLiteral("sign"));
        line(damage);
        QCOMPARE(next(blade("B")), QStringLiteral("inspect"));
        QVERIFY(m_shop.refused("{'do': 'sign', 'batch': 'B', 'blade': 'M-1', 'decision': 'release', 'by': 'HB'}")
                    .contains(QLatin1String("reason")));
        line("{'do': 'cleared', 'batch': 'B', 'blade': 'M-1', 'reason': 'ground out and looked at'}");
        QCOMPARE(next(blade("B")), QStringLiteral("sign"));
    }
    // A crack is looked at before anything is advised for the hardness.
    void aCrackSpeaksBeforeAnythingElse() {
        verify();
        batch("B", "1084", "59:61", 1, "'quench', 'temper'");
        read("B", "M-1", 57, "quench");
        line("{'do': 'damage', 'batch': 'B', 'blade': 'M-1', 'kind': 'crack'}");
        QCOMPARE(next(blade("B")), QStringLiteral("inspect"));
    }

    // E45: harder than the grade can be is no reason to temper hotter.
    void harderThanTheGradeCanBeIsLookedInto() {
        verify();
        batch("B", "1084", "59:61", 3, "'temper'");
        temper("B", 205);
        for (const char* mark : {"M-1", "M-2", "M-3"}) read("B", QLatin1String(mark), 66.4);
        for (int i = 0; i < 3; ++i)
            QVERIFY2(next(blade("B", i)) != QLatin1String("temper"), qPrintable(next(blade("B", i))));
    }
    // E53: before the hump of a high-speed steel a hotter temper makes it harder.
    void belowTheHumpItIsTemperedOverIt() {
        verify();
        batch("B", "M2", "63:65", 1, "'temper'");
        temper("B", 260, "2026-11-25T08:10");
        temper("B", 260, "2026-11-25T08:30");
        read("B", "M-1", 61.0);
        const QJsonObject one = blade("B");
        QCOMPARE(next(one), QStringLiteral("temper"));
        QVERIFY2(degrees(one) >= 500 && degrees(one) <= 580, qPrintable(QString::number(degrees(one))));
    }
    // E54: soft after a hot soak, in a grade that keeps austenite: one blade is treated cold, none is hardened anew.
    void softFromRetainedAusteniteIsTreatedCold() {
        verify();
        batch("B", "D2", "59:61", 1, "'heat', 'quench'");
        line("{'do': 'heat', 'batch': 'B', 'as': 'h', 'oven': 'O', 'set': 1080, 'medium': 'plates'}");
        line("{'do': 'in_heat', 'heat': 'h', 'blade': 'M-1', 'in': 0, 'out': 1700, 'quenched': 1704}");
        read("B", "M-1", 58.0, "quench");
        const QJsonObject one = blade("B");
        QVERIFY(TypedShop::facts(one, "quench").join(' ').contains(QLatin1String("keeps_austenite")));
        QVERIFY2(next(one) != QLatin1String("reharden"), qPrintable(next(one)));
    }

    // E51: what has changed the metal starts the readings anew.
    void aColdTreatmentStartsTheReadingsAnew() {
        verify();
        batch("B", "D2", "59:61", 1, "'quench', 'temper'");
        read("B", "M-1", 58.3, "quench");
        line("{'do': 'cold', 'batch': 'B', 'blades': 'all', 'temperature': -80, 'hours': 2, 'time': "
             "'2026-11-25T10:00'}");
        QCOMPARE(next(blade("B")), QStringLiteral("read"));
        read("B", "M-1", 63.4, "quench", "2026-11-25T13:00");
        const QJsonObject quench = TypedShop::gate(blade("B"), "quench");
        QVERIFY2(std::abs(quench["mean"].toDouble() - 63.4) < 0.06,
                 qPrintable(QString::number(quench["mean"].toDouble())));
    }
    void coldAfterTheLastTemperAsksForOneMore() {
        verify();
        batch("B", "D2", "58:62", 1, "'temper', 'release'");
        temper("B", 205, "2026-11-25T08:10");
        temper("B", 205, "2026-11-25T08:30");
        read("B", "M-1", 60);
        line("{'do': 'cold', 'batch': 'B', 'blades': 'all', 'temperature': -80, 'hours': 2, 'time': "
             "'2026-11-25T10:00'}");
        QCOMPARE(next(blade("B")), QStringLiteral("temper"));
    }
    void aSkinThatIsGroundOffIsNotAveragedIn() {
        verify();
        batch("B", "1084", "59:61", 1, "'quench'");
        read("B", "M-1", 57, "quench");
        QCOMPARE(next(blade("B")), QStringLiteral("clean"));
        line("{'do': 'ground_off', 'batch': 'B', 'blade': 'M-1'}");
        QCOMPARE(next(blade("B")), QStringLiteral("read"));
        read("B", "M-1", 64.9, "quench", "2026-11-25T10:00");
        const QJsonObject one = blade("B");
        QVERIFY(std::abs(TypedShop::gate(one, "quench")["mean"].toDouble() - 64.9) < 0.06);
        QCOMPARE(TypedShop::state(one, "quench"), QStringLiteral("pass"));
    }
    // Soft on clean metal is soft: only then is it hardened again.
    void softOnCleanMetalIsHardenedAgain() {
        verify();
        batch("B", "1084", "59:61", 1, "'quench'");
        read("B", "M-1", 57, "quench");
        line("{'do': 'ground_off', 'batch': 'B', 'blade': 'M-1'}");
        read("B", "M-1", 57.1, "quench", "2026-11-25T10:00");
        QCOMPARE(next(blade("B")), QStringLiteral("reharden"));
    }

    // E52: each of these ends.
    void readBeforeTheTesterWasVerifiedIsReadAgainOnce() {
        batch("B", "1084", "59:61", 1, "'temper'");
        temper("B", 205, "2026-11-25T07:00");
        read("B", "M-1", 60, "temper", "2026-11-25T07:30");
        QCOMPARE(next(blade("B")), QStringLiteral("verify"));
        verify();
        QCOMPARE(next(blade("B")), QStringLiteral("read"));
        read("B", "M-1", 60);
        QCOMPARE(TypedShop::state(blade("B"), "temper"), QStringLiteral("pass"));
    }
    void aMapIsMappedOnce() {
        verify();
        batch("B", "1084", "59:61", 1, "'temper'");
        temper("B", 205, "2026-11-25T08:10");
        for (const double value : {58.0, 58.1, 61.5, 61.6, 58.0, 61.6})
            line(QStringLiteral("{'do': 'reading', 'batch': 'B', 'blade': 'M-1', 'gate': 'temper', 'tester': 'B1', "
                                "'value': %1, 'time': '2026-11-25T09:00'}")
                     .arg(value));
        QVERIFY2(next(blade("B")) != QLatin1String("map"), qPrintable(next(blade("B"))));
    }

    // E57: the run after the last reading failed and was not repeated: nothing goes on that day's numbers.
    void aFailedRunWithoutItsRepeatReleasesNothing() {
        verify();
        batch("B", "1084", "59:61", 1, "'temper', 'release'");
        temper("B", 205, "2026-11-25T08:10");
        read("B", "M-1", 60);
        verify("2026-11-25T10:00", "64.0, 64.1");
        const QJsonObject held = blade("B");
        QVERIFY(TypedShop::state(held, "temper") != QLatin1String("pass"));
        QVERIFY(next(held) != QLatin1String("sign"));
        verify("2026-11-25T10:10", "62.6, 62.7");
        QCOMPARE(TypedShop::state(blade("B"), "temper"), QStringLiteral("pass"));
    }
    // E58: over a Fail nothing is signed without a word.
    void signingOverAFailNeedsAReason() {
        verify();
        batch("B", "1084", "59:61", 1, "'temper', 'release'");
        temper("B", 205, "2026-11-25T08:10");
        read("B", "M-1", 56);
        const char* bare = "{'do': 'sign', 'batch': 'B', 'blade': 'M-1', 'decision': 'release', 'by': 'HB'}";
        QVERIFY(m_shop.refused(QLatin1String(bare)).contains(QLatin1String("reason")));
        line("{'do': 'sign', 'batch': 'B', 'blade': 'M-1', 'decision': 'release', 'by': 'HB', 'reason': 'a gift, sold "
             "as soft'}");
        QCOMPARE(m_shop.store().exit_code, 0);
    }
    // E56: with nothing added a signed verdict is the next morning what it was.
    void nothingAddedNothingChanged() {
        verify();
        batch("B", "1084", "59:61", 2, "'temper', 'release'");
        temper("B", 205, "2026-11-25T08:10");
        read("B", "M-1", 60.4);
        line("{'do': 'sign', 'batch': 'B', 'blade': 'M-1', 'decision': 'release', 'by': 'HB'}");
        const QJsonObject then = TypedShop::gate(blade("B"), "temper");
        verify("2026-11-26T08:00");
        read("B", "M-2", 60.5, "temper", "2026-11-26T09:00");
        const QJsonObject now = blade("B");
        QCOMPARE(TypedShop::gate(now, "temper")["state"], then["state"]);
        QCOMPARE(TypedShop::gate(now, "temper")["mean"], then["mean"]);
        QVERIFY(now["next"].toObject()["act"].toString() != QLatin1String("sign"));
    }

    // E65: a glass-hard blade meets no rod; one that did not harden joins no load.
    void glassHardIsTemperedBeforeAnythingElse() {
        verify();
        batch("B", "1084", "59:61", 1, "'quench', 'temper', 'edge', 'proof', 'release'");
        read("B", "M-1", 65, "quench");
        QCOMPARE(next(blade("B")), QStringLiteral("temper"));
        QVERIFY(!m_shop.refused("{'do': 'sign', 'batch': 'B', 'blade': 'M-1', 'decision': 'release', 'by': 'HB'}")
                     .isEmpty());
    }
    void whatDidNotHardenJoinsNoLoad() {
        verify();
        batch("B", "1084", "59:61", 3, "'quench', 'temper'");
        read("B", "M-1", 65, "quench");
        read("B", "M-2", 65, "quench");
        read("B", "M-3", 46, "quench");
        const QJsonArray load = blade("B")["next"].toObject()["load"].toArray();
        QVERIFY(load.contains(QLatin1String("M-1")) && load.contains(QLatin1String("M-2")));
        QVERIFY(!load.contains(QLatin1String("M-3")));
    }

    // Item 13. Hard, thin and chipped on the nail, alone: it is tempered first; the heat is asked about where others
    // chip.
    void hardAndChippedIsTemperedFirst() {
        verify();
        batch("B", "1084", "59:61", 1, "'temper', 'edge'");
        temper("B", 175);
        read("B", "M-1", 63.2);
        line("{'do': 'geometry', 'batch': 'B', 'blade': 'M-1', 'behind_edge': 0.25, 'angle': 15}");
        line("{'do': 'rung', 'batch': 'B', 'blade': 'M-1', 'outcome': 'chip', 'size': 0.5}");
        QCOMPARE(next(blade("B")), QStringLiteral("temper"));
        QVERIFY(degrees(blade("B")) > 175);
    }
    // Item 10, E59. Ten good blades of one's own, by the rule that is the usual one: read three times each, they go.
    void tenGoodBladesGo() {
        verify();
        batch("B", "1084", "59:61", 10, "'temper', 'release'");
        temper("B", 205);
        const std::vector<double> means{60.2, 59.9, 60.4, 59.7, 60.0, 60.3, 59.8, 60.1, 60.5, 59.6};
        for (std::size_t i = 0; i < means.size(); ++i) read("B", QStringLiteral("M-%1").arg(i + 1), means[i]);
        for (int i = 0; i < 10; ++i) QCOMPARE(next(blade("B", i)), QStringLiteral("sign"));
    }
    // E65. One reading passes nothing, unless a shop that goes by the mean alone plans no more than one.
    void oneReadingPassesWhereTheShopPlansOne_data() {
        QTest::addColumn<QString>("more");
        QTest::addColumn<bool>("passes");
        QTest::newRow("plain, one planned") << ", 'rule': 'plain', 'planned': 1" << true;
        QTest::newRow("plain, three planned") << ", 'rule': 'plain'" << false;
        QTest::newRow("guarded, one planned") << ", 'rule': 'guarded', 'planned': 1" << false;
        QTest::newRow("by chance, one planned") << ", 'rule': 'chance', 'planned': 1" << false;
    }
    void oneReadingPassesWhereTheShopPlansOne() {
        QFETCH(const QString, more);
        QFETCH(const bool, passes);
        verify();
        batch("B", "1084", "55:65", 1, "'temper'", more.toLatin1().constData());
        temper("B", 205);
        line("{'do': 'reading', 'batch': 'B', 'blade': 'M-1', 'gate': 'temper', 'tester': 'B1', 'value': 60.1, 'time': "
             "'2026-11-25T09:00'}");
        const QJsonObject one = blade("B");
        QCOMPARE(TypedShop::state(one, "temper") == QLatin1String("pass"), passes);
        QCOMPARE(TypedShop::facts(one, "temper").contains(QLatin1String("one_reading_only")), !passes);
    }

    // Item 12. By files: skated by 60 and bitten by 65 is a hardened 1084; its day ends in the oven.
    void filesThatSayHardenedAskForATemper() {
        batch("B", "1084", "59:61", 1, "'quench', 'temper'", ", 'evidence': {'quench': 'files', 'temper': 'files'}");
        line("{'do': 'files', 'batch': 'B', 'blade': 'M-1', 'gate': 'quench', 'skates': [55, 60], 'bites': [65]}");
        const QJsonObject one = blade("B");
        QVERIFY(TypedShop::facts(one, "quench").contains(QLatin1String("files_hardened")));
        QCOMPARE(next(one), QStringLiteral("temper"));
    }
    void filesThatContradictAreTriedAgain() {
        batch("B", "1084", "59:61", 1, "'quench', 'temper'", ", 'evidence': {'quench': 'files', 'temper': 'files'}");
        line("{'do': 'files', 'batch': 'B', 'blade': 'M-1', 'gate': 'quench', 'skates': [60], 'bites': [55]}");
        QCOMPARE(next(blade("B")), QStringLiteral("files"));
    }
    void aShopWithoutATesterIsNotSentToOne() {
        batch("B", "1084", "59:61", 1, "'quench'", ", 'evidence': {'quench': 'files'}");
        line("{'do': 'files', 'batch': 'B', 'blade': 'M-1', 'gate': 'quench', 'skates': [40], 'bites': [50]}");
        for (int i = 0; i < 2; ++i) {
            const QString act = next(blade("B"));
            QVERIFY2(act != QLatin1String("read") && act != QLatin1String("verify"), qPrintable(act));
            line("{'do': 'files', 'batch': 'B', 'blade': 'M-1', 'gate': 'quench', 'skates': [40], 'bites': [50]}");
        }
    }
    // Without a thermometer the colour of the edge is what is known of the heat.
    void aTemperByColourIsLogged() {
        batch("B", "1084", "59:61", 1, "'temper'", ", 'evidence': {'temper': 'files'}");
        line("{'do': 'temper', 'batch': 'B', 'blades': 'all', 'hours': 2, 'colour': 'straw', 'time': "
             "'2026-11-25T08:30'}");
        QCOMPARE(m_shop.store().exit_code, 0);
        QVERIFY(!TypedShop::facts(blade("B"), "temper").contains(QLatin1String("tempers_missing")));
    }
};

QTEST_MAIN(tst_Advice)
#include "tst_advice.moc"

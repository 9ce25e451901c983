// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/find/wanted.h"
#include "core/judge/gates.h"
#include "tests/support/fixtures.h"

#include <QDateTime>
#include <QtTest>

using namespace rollcall;

// A sentence is read part by part; what is no grade, temper, time or verdict is words.
class tst_Wanted : public QObject {
    Q_OBJECT

    // Wednesday, 25 November 2026, 15:40 by a clock one hour ahead of UTC.
    static Instant now() {
        return {QDateTime({2026, 11, 25}, {15, 40}, Qt::OffsetFromUTC, 3600).toMSecsSinceEpoch(), 60};
    }
    static Wanted from(const char* sentence) { return wantedFrom(sentence, fixtures::tables(), now()); }
    static QString day(const std::optional<std::int64_t>& ms) {
        return ms ? QDateTime::fromMSecsSinceEpoch(*ms, Qt::OffsetFromUTC, 3600).toString("yyyy-MM-dd HH:mm")
                  : QString();
    }
    static QStringList words(const Wanted& wanted) {
        QStringList all;
        for (const std::string& word : wanted.words) all << QString::fromStdString(word);
        return all;
    }

private slots:
    void everythingTogether() {
        const Wanted wanted = from("115crv3, tempered 200 to 210 \u00B0C, since spring, failed, tip bent");
        QCOMPARE(wanted.grade.value(), std::string("115CrV3"));
        QCOMPARE(wanted.tempered_c.value(), std::pair(200.0, 210.0));
        QCOMPARE(day(wanted.since_ms), QStringLiteral("2026-03-01 00:00"));
        QVERIFY(!wanted.before_ms);
        QCOMPARE(wanted.state.value(), State::fail);
        QCOMPARE(words(wanted), QStringList({"tip", "bent"}));
        QVERIFY(from("").everything() && from(" , ").everything());
    }

    void times_data() {
        QTest::addColumn<QString>("from");
        QTest::addColumn<QString>("to");
        const auto row = [](const char* typed, const char* since, const char* before) {
            QTest::newRow(typed) << QString::fromLatin1(since) << QString::fromLatin1(before);
        };
        row("since 2026-11-03", "2026-11-03", "");
        row("since 3.11.2026", "2026-11-03", "");
        row("since december", "2025-12-01", ""); // the last one that has begun
        row("since november", "2026-11-01", "");
        row("since autumn", "2026-09-01", "");
        row("since winter", "2025-12-01", "");
        row("since spring", "2026-03-01", "");
        row("in summer 2025", "2025-06-01", "2025-09-01");
        row("in fall 2025", "2025-09-01", "2025-12-01");
        row("in winter 2024", "2024-12-01", "2025-03-01"); // over the turn of the year
        row("since 2024", "2024-01-01", "");
        row("before 2024-02", "", "2024-02-01");
        row("in february 2024", "2024-02-01", "2024-03-01");
        row("in 2025", "2025-01-01", "2026-01-01");
        row("today", "2026-11-25", "2026-11-26");
        row("yesterday", "2026-11-24", "2026-11-25");
        row("this week", "2026-11-23", "2026-11-30"); // from Monday
        row("this month", "2026-11-01", "2026-12-01");
        row("this year", "2026-01-01", "2027-01-01");
    }
    void times() {
        QFETCH(QString, from);
        QFETCH(QString, to);
        const Wanted wanted = tst_Wanted::from(QTest::currentDataTag());
        QCOMPARE(day(wanted.since_ms), from.isEmpty() ? QString() : from + " 00:00");
        QCOMPARE(day(wanted.before_ms), to.isEmpty() ? QString() : to + " 00:00");
        QVERIFY(wanted.words.empty());
    }

    void temperatures() {
        QCOMPARE(from("tempered 205").tempered_c.value(), std::pair(200.0, 210.0));
        QCOMPARE(from("tempered 200-210").tempered_c.value(), std::pair(200.0, 210.0));
        const auto fahrenheit = from("tempered 392 to 410F").tempered_c.value();
        QVERIFY(std::abs(fahrenheit.first - 200) < 1e-9 && std::abs(fahrenheit.second - 210) < 1e-9);
        QCOMPARE(from("tempered 210 - 200 c").tempered_c.value(), std::pair(200.0, 210.0)); // whichever came first
        QCOMPARE(words(from("tempered 200 205 210")), QStringList({"tempered", "200", "205", "210"}));
    }

    // Half a sentence is no error: it is looked for as it stands.
    void whatIsStillBeingTyped() {
        QCOMPARE(words(from("since")), QStringList{"since"});
        QCOMPARE(words(from("since ma")), QStringList({"since", "ma"}));
        QCOMPARE(words(from("tempered")), QStringList{"tempered"});
        QCOMPARE(words(from("tempered hot")), QStringList({"tempered", "hot"}));
        QCOMPARE(words(from("since 31.2.2026")), QStringList({"since", "31.2.2026"}));
        QCOMPARE(words(from("115CrV3 tip")), QStringList({"115CrV3", "tip"})); // no comma: words
        QCOMPARE(words(from("this blade")), QStringList({"this", "blade"}));
        QCOMPARE(words(from("in the oven")), QStringList({"in", "the", "oven"}));
        QCOMPARE(words(from("in 2025 2026")), QStringList({"in", "2025", "2026"}));
        QCOMPARE(words(from("since oak 2025")), QStringList({"since", "oak", "2025"}));
        QCOMPARE(words(from("since 20255")), QStringList({"since", "20255"}));
        QCOMPARE(words(from("since 2025-13")), QStringList({"since", "2025-13"}));
        QCOMPARE(words(from("since may day")), QStringList({"since", "may", "day"}));
    }

    // A blade is found by a verdict at any of its gates; to have passed, it has passed them all.
    void verdicts() {
        QCOMPARE(from("passed").state.value(), State::pass);
        QCOMPARE(from("fail").state.value(), State::fail);
        QCOMPARE(from("borderline").state.value(), State::borderline);
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B"});
        fixtures::read(batch.blades[0], Gate::quench, {65.2, 65.3, 65.1});
        fixtures::read(batch.blades[0], Gate::temper, {62.2, 62.3, 62.1});
        fixtures::read(batch.blades[1], Gate::quench, {65.2, 65.3, 65.1});
        fixtures::read(batch.blades[1], Gate::temper, {59.2, 59.3, 59.1});
        batch.plan[indexOf(Gate::release)].required = false;
        const auto states = statesOf(batch, judgeBatch(batch, fixtures::tables(), std::nullopt));
        QVERIFY(hasVerdict(states.at("B"), State::fail) && !hasVerdict(states.at("A"), State::fail));
        QVERIFY(!hasVerdict(states.at("B"), State::pass));
        QVERIFY(!hasVerdict({}, State::pass));
    }
};

QTEST_APPLESS_MAIN(tst_Wanted)
#include "tst_wanted.moc"

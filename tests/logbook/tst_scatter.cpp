// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/undo.h"
#include "logbook/transfer/import.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <cmath>
#include <random>

using namespace rollcall;
using fixtures::TempLogbook;

// M9. A tester's scatter is kept from day to day; it must be what all readings together give.
class tst_Scatter : public QObject {
    Q_OBJECT

    static constexpr std::int64_t day_ms = 86400000;

    // The pooled deviation by its definition, from the batch's own readings: groups of a blade, gate and temper, struck
    // out ones left out, today's too.
    static std::optional<PooledScatter> byDefinition(Logbook& logbook, const std::string& tester) {
        std::map<std::string, std::vector<double>> groups;
        for (const BatchSummary& summary : logbook.batches().value()) {
            const Batch batch = logbook.batchAlone(summary.id).value();
            for (const Blade& blade : batch.blades) {
                for (const Reading& r : blade.readings) {
                    if (r.struck || r.tester != tester) continue;
                    if (r.time && r.time->localDay() >= logbook.now().localDay()) continue;
                    const std::string state = nameOf(r.gate) + std::to_string(r.after_temper.value_or(-1));
                    const std::string day = std::to_string(r.time ? r.time->localDay() : 0);
                    groups[blade.id + ' ' + state + ' ' + day].push_back(r.value);
                }
            }
        }
        double squares = 0;
        double dof = 0;
        for (const auto& [key, values] : groups) {
            if (values.size() < 2) continue;
            double mean = 0;
            for (const double value : values) mean += value / double(values.size());
            double own = 0;
            for (const double value : values) own += (value - mean) * (value - mean);
            if (own / double(values.size() - 1) > 3.5 * 3.5 * 0.3 * 0.3) continue; // uneven
            squares += own;
            dof += double(values.size() - 1);
        }
        if (dof < 8) return std::nullopt;
        return PooledScatter{std::sqrt(squares / dof), dof};
    }

    static std::optional<PooledScatter> learned(Logbook& logbook, const std::string& tester) {
        for (const Tester& one : logbook.shop().value().testers) {
            if (one.id == tester) return one.learned;
        }
        return std::nullopt;
    }

    static std::string testerId(Logbook& logbook, const char* name) {
        for (const Tester& one : logbook.shop().value().testers) {
            if (one.name == name) return one.id;
        }
        return {};
    }

private slots:
    // Forty days of readings, with groups that go on over midnight, strikes of today and of the past, and readings that
    // were made long before they were written down.
    void whatIsKeptIsWhatAllReadingsGive() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        std::mt19937 chance(7);
        std::normal_distribution<double> noise(0, 0.25);
        std::vector<std::string> ids;
        int compared = 0;
        for (int day = 0; day < 40; ++day) {
            log.passTime(day_ms);
            const auto known = learned(*log, log.tester());
            const auto right = byDefinition(*log, log.tester());
            QCOMPARE(known.has_value(), right.has_value());
            if (known) {
                ++compared;
                QVERIFY2(std::abs(known->sd - right->sd) < 1e-9, qPrintable(QString::number(day)));
                QCOMPARE(known->dof, right->dof);
            }
            for (int i = 0; i < 3; ++i) {
                const auto blade = static_cast<std::size_t>(day % 2);
                const auto id = logReading(*log, log.reading(batch, blade, 62 + noise(chance), 1 + day / 5));
                QVERIFY(id.ok());
                ids.push_back(*id);
            }
            if (day % 4 == 1) QVERIFY(strikeReading(*log, ids.back(), StrikeReason::seating, "").ok());
            if (day % 7 == 6) QVERIFY(strikeReading(*log, ids[ids.size() - 5], StrikeReason::edge, "").ok());
            if (day % 9 == 8) QVERIFY(log.reopen().ok());
        }
        QVERIFY(compared > 30);
    }

    // Kept for each thousand blades: what is struck out, undone or added in one of them, at whatever day, is known the
    // next time, and so is what an import brings of the past.
    void manyBladesAreKeptInParts() {
        TempLogbook log;
        const auto table = [](int first, int last) {
            QByteArray csv = "batch,blade,gate,value,time,tester\n";
            for (int i = first; i < last; ++i) {
                for (int j = 0; j < 3; ++j)
                    csv += QStringLiteral("Hedge %1,B%2,quench,%3,2026-01-0%4T09:00:0%5Z,Bench 7\n")
                               .arg(i / 50)
                               .arg(i % 50)
                               .arg(64 + i * 7 % 5 / 10.0 + (i + j) * 3 % 4 / 10.0)
                               .arg(1 + i % 3)
                               .arg(j)
                               .toUtf8();
            }
            return csv;
        };
        const auto import = [&](const QByteArray& csv) {
            return importReadings(*log, fixtures::tables(), "readings.csv", csv).ok();
        };
        const auto known = [&] { return log.reopen().ok() ? learned(*log, testerId(*log, "Bench 7")) : std::nullopt; };
        const auto isRight = [&] {
            const auto kept = known();
            const auto right = byDefinition(*log, testerId(*log, "Bench 7"));
            return kept && right && std::abs(kept->sd - right->sd) < 1e-9 && kept->dof == right->dof;
        };
        const auto readingOf = [&](const char* batchName, std::size_t blade) {
            for (const BatchSummary& summary : log->batches().value()) {
                if (summary.name == batchName)
                    return log->batchAlone(summary.id).value().blades[blade].readings.front().id;
            }
            return std::string();
        };
        QVERIFY(import(table(0, 2500)));
        QVERIFY(isRight());
        const auto dof = known()->dof;
        QVERIFY(strikeReading(*log, readingOf("Hedge 30", 7), StrikeReason::seating, "").ok());
        QVERIFY(isRight());
        QCOMPARE(known()->dof, dof - 1);
        const auto act = lastAct(*log).value();
        QVERIFY(act.has_value());
        QVERIFY(undo(*log, act->entry).ok());
        QVERIFY(isRight());
        QCOMPARE(known()->dof, dof);
        QVERIFY(redo(*log, act->entry).ok());
        QVERIFY(isRight());
        QVERIFY(import(table(2500, 2600)));
        QVERIFY(isRight());
        log.passTime(day_ms);
        QVERIFY(import(table(2600, 3100)));
        QVERIFY(isRight());
        QVERIFY(log->check().value().empty());
    }

    // An earlier Rollcall kept one sum for all.
    void whatAnEarlierRollcallKeptIsMadeAnew() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        for (int i = 0; i < 12; ++i) QVERIFY(logReading(*log, log.reading(batch, 0, 62 + 0.1 * (i % 3))).ok());
        log.passTime(day_ms);
        const auto known = learned(*log, log.tester());
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(), "DELETE FROM derived"), QString());
        QCOMPARE(TempLogbook::meddle(log.path(), "INSERT INTO derived VALUES ('scatter', '{\"before_ms\":1e12,"
                                                 "\"row\":12,\"testers\":{\"x\":{\"squares\":9,\"dof\":9}}}')"),
                 QString());
        QVERIFY(log.reopen().ok());
        QCOMPARE(learned(*log, log.tester())->sd, known->sd);
    }

    // What is kept can be thrown away at any time.
    void itIsMadeAnewWhenItIsGone() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        for (int i = 0; i < 12; ++i) QVERIFY(logReading(*log, log.reading(batch, 0, 62 + 0.1 * (i % 3))).ok());
        log.passTime(day_ms);
        const auto known = learned(*log, log.tester());
        QVERIFY(known.has_value());
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(), "DELETE FROM derived"), QString());
        QVERIFY(log.reopen().ok());
        QCOMPARE(learned(*log, log.tester())->sd, known->sd);
        QVERIFY(log->check().value().empty());
    }

    // A clock that is set back knows no more than the days before it.
    void aClockSetBackForgetsWhatLiesAhead() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        for (int i = 0; i < 12; ++i) QVERIFY(logReading(*log, log.reading(batch, 0, 62 + 0.1 * (i % 3))).ok());
        log.passTime(3 * day_ms);
        QVERIFY(learned(*log, log.tester()).has_value());
        log.passTime(-5 * day_ms);
        QVERIFY(log.reopen().ok());
        QVERIFY(!learned(*log, log.tester()).has_value());
    }
};

QTEST_GUILESS_MAIN(tst_Scatter)
#include "tst_scatter.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "logbook/logbook.h"

#include <QFile>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QTemporaryDir>
#include <QtTest>

namespace rollcall::fixtures {

/// A logbook in a folder of its own, with a clock that moves a second at every look and ids that count.
class TempLogbook {
public:
    TempLogbook() { create(); }

    QString path() const { return m_dir.filePath(QStringLiteral("shop.rollcall")); }
    Logbook& operator*() { return *m_logbook; }
    Logbook* operator->() { return m_logbook.get(); }

    LogbookSeams seams() {
        return {[this] { return Instant{m_clock += 1000, 60}; }, [this] { return "id-" + std::to_string(++m_ids); }};
    }
    /// Moves the clock on, or back.
    void passTime(std::int64_t ms) { m_clock += ms; }
    void close() { m_logbook.reset(); }
    Result<Done> reopen(Logbook::Access access = Logbook::Access::write) {
        m_logbook.reset();
        auto opened = Logbook::open(path(), access, seams());
        if (!opened) return opened.error();
        m_logbook = std::move(opened).value();
        return Done{};
    }

    /// Runs SQL on the closed file from outside, as someone with another tool would.
    static QString meddle(const QString& file, const QString& sql) {
        QString error;
        {
            QSqlDatabase db = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), QStringLiteral("outside"));
            db.setDatabaseName(file);
            if (!db.open()) return db.lastError().text();
            QSqlQuery query(db);
            for (const QString& part : sql.split(QStringLiteral(";;"))) {
                if (!query.exec(part)) error = query.lastError().text();
            }
        }
        QSqlDatabase::removeDatabase(QStringLiteral("outside"));
        return error;
    }

    /// A batch of two blades with a tester and a block; returns the batch as loaded.
    Batch withBatch() {
        Tester tester;
        tester.name = "Bench 1";
        tester.indenter = "cone";
        tester.anvil = "flat";
        m_tester = addTester(*m_logbook, tester).value();
        m_block = addBlock(*m_logbook, {"", "62.6", "HRC", 62.6, 0.3, 60, 3, 0, 0}).value();
        BatchDraft draft;
        draft.rule = DecisionRule::guarded; // which most tests reckon with
        draft.name = "Orchard";
        draft.grade = "115CrV3";
        draft.purpose = "grafting knife";
        draft.window = {61, 63};
        draft.window_text = "61:63";
        draft.plan[indexOf(Gate::quench)] = {true, 2};
        draft.plan[indexOf(Gate::temper)] = {true, 3};
        BladeShape shape = BladeShape::knife(58, 16, 2.4);
        shape.reading_line_mm = 2.6;
        draft.blades = {{"A-1", shape, "2.4"}, {"A-2", shape, "0.095in"}};
        return m_logbook->batch(addBatch(*m_logbook, draft).value()).value();
    }
    ReadingDraft reading(const Batch& batch, std::size_t blade, double value, int temper = 1) const {
        ReadingDraft draft;
        draft.blade = batch.blades[blade].id;
        draft.after_temper = temper;
        draft.value = value;
        draft.as_entered = std::to_string(value);
        draft.tester = m_tester;
        return draft;
    }
    const std::string& tester() const { return m_tester; }
    const std::string& block() const { return m_block; }

private:
    void create() { m_logbook = Logbook::create(path(), seams()).value(); }

    QTemporaryDir m_dir;
    std::unique_ptr<Logbook> m_logbook;
    std::string m_tester;
    std::string m_block;
    std::int64_t m_clock = 1795500000000;
    int m_ids = 0;
};

} // namespace rollcall::fixtures

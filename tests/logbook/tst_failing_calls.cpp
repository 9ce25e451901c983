// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/heat.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/merge.h"
#include "tests/support/failing_memory.h"
#include "tests/support/files.h"
#include "tests/support/fixtures.h"
#include "tests/support/recorded_disk.h"
#include "tests/support/temp_logbook.h"

#include <cerrno>

using namespace rollcall;
using fixtures::memory;
using fixtures::RecordedDisk;
using fixtures::TempLogbook;

// Calls to the disk, and requests for memory, that an act makes are made to fail, one after the other: the act
// says so and leaves nothing half, what was acknowledged stays, and the next act goes on as if nothing had been.
class tst_FailingCalls : public QObject {
    Q_OBJECT

    using Act = std::function<Result<Done>(Logbook&)>;

    QTemporaryDir m_dir{QDir::temp().filePath("rollcall-test-XXXXXX")};
    QString m_base;  ///< a logbook, closed
    QString m_other; ///< another, to be taken in
    std::string m_blade;
    std::string m_tester;
    std::string m_batch;
    int m_tried = 0;

    // ROLLCALL_EVERY_CALL=1: every one, which takes some minutes; else some of those of the long acts.
    static bool everyOne() { return qEnvironmentVariableIsSet("ROLLCALL_EVERY_CALL"); }
    static Result<Done> doneOr(const Result<std::string>& id) {
        return id ? Result<Done>(Done{}) : Result<Done>(id.error());
    }
    Result<Done> read(Logbook& logbook) const {
        ReadingDraft draft;
        draft.blade = m_blade;
        draft.tester = m_tester;
        draft.after_temper = 1;
        draft.value = 61.5;
        return doneOr(logReading(logbook, draft));
    }
    std::map<std::string, Act> acts() const {
        return {{"reading", [this](Logbook& logbook) { return read(logbook); }},
                {"temper",
                 [this](Logbook& logbook) {
                     TemperDraft temper;
                     temper.batch = m_batch;
                     temper.blades = {m_blade};
                     temper.temperature_c = 205;
                     temper.hours = 2;
                     temper.as_entered = "205 C 2 h";
                     return doneOr(logTemper(logbook, temper));
                 }},
                {"several at once",
                 [this](Logbook& logbook) {
                     return logbook.inOneTransaction([&]() -> Result<Done> {
                         for (int i = 0; i < 5; ++i) {
                             if (auto done = read(logbook); !done) return done;
                         }
                         return Done{};
                     });
                 }},
                {"import",
                 [](Logbook& logbook) -> Result<Done> {
                     QByteArray csv("batch,blade,gate,temper,value,scale,tester,time\n");
                     for (int i = 0; i < 40; ++i)
                         csv += "Hedge,1,temper,1,6" + QByteArray::number(i % 3) +
                                ".5,HRC,Bench 1,2026-11-20T10:" + QByteArray::number(10 + i) + "\n";
                     const auto report = importReadings(logbook, fixtures::tables(), "r.csv", csv);
                     return report ? Result<Done>(Done{}) : Result<Done>(report.error());
                 }},
                {"merge", [this](Logbook& logbook) -> Result<Done> {
                     const auto report = mergeLogbook(logbook, m_other, false);
                     return report ? Result<Done>(Done{}) : Result<Done>(report.error());
                 }}};
    }
    static std::map<std::string, int> rowsOf(const QString& path, QString& trouble) {
        auto opened = Logbook::open(path, Logbook::Access::read);
        if (!opened) {
            trouble = QString::fromStdString(opened.error().message());
            return {};
        }
        const auto problems = (*opened)->check();
        if (!problems || !problems->empty())
            trouble = problems ? QString::fromStdString(problems->front()) : QStringLiteral("cannot be checked");
        return (*opened)->counts().value();
    }
    // A copy of the base logbook in a folder of its own.
    QString work() const {
        const QString folder = m_dir.filePath("work");
        QDir(folder).removeRecursively();
        QDir(m_dir.path()).mkdir("work");
        const QString path = folder + "/shop.rollcall";
        return QFile::copy(m_base, path) ? path : QString();
    }

private slots:
    void initTestCase() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        m_blade = batch.blades.front().id;
        m_tester = log.tester();
        m_batch = batch.id;
        log.close();
        m_base = m_dir.filePath("base.rollcall");
        QVERIFY(QFile::copy(log.path(), m_base));
        TempLogbook other;
        other.passTime(5000);
        QVERIFY(addPerson(*other, "WS", "").ok());
        other.close();
        m_other = m_dir.filePath("other.rollcall");
        QVERIFY(QFile::copy(other.path(), m_other));
    }

    void theDisk_data() {
        QTest::addColumn<QString>("act");
        QTest::addColumn<int>("code");
        QTest::addColumn<bool>("lasts");
        for (const auto& [name, act] : acts()) {
            for (const auto& [what, code] : {std::pair("full", ENOSPC), std::pair("broken", EIO)}) {
                for (const bool lasts : {false, true})
                    QTest::addRow("%s, %s%s", name.c_str(), what, lasts ? " and stays so" : "")
                        << QString::fromStdString(name) << code << lasts;
            }
        }
    }
    void theDisk() {
        QFETCH(QString, act);
        QFETCH(int, code);
        QFETCH(bool, lasts);
        const Act does = acts().at(act.toStdString());
        QString trouble;
        const auto before = rowsOf(m_base, trouble);
        const QString whole = work();
        {
            auto logbook = Logbook::open(whole, Logbook::Access::write);
            QVERIFY(does(**logbook).ok());
        }
        const auto after = rowsOf(whole, trouble);
        QVERIFY2(trouble.isEmpty(), qPrintable(trouble));
        constexpr int anyNumber = 2000;
        const int step = everyOne() ? 1 : act == "merge" ? 41 : act == "import" ? 13 : 1;
        for (int call = 0; call < anyNumber; call += step) {
            const QString path = work();
            bool told = false;
            {
                auto logbook = Logbook::open(path, Logbook::Access::write);
                QVERIFY(logbook.ok());
                RecordedDisk disk(m_dir.filePath("work"));
                disk.failAt(call, code, lasts);
                const auto done = does(**logbook);
                const bool failed = disk.hasFailed();
                disk.failAt(-1, 0, false);
                if (!failed) {
                    QVERIFY(call > 3 && done.ok());
                    return;
                }
                ++m_tried;
                told = !done.ok();
                if (told) QVERIFY(!done.error().text.empty());
                // There is room again, the cable is in: it goes on, nothing of the failed act in its way.
                if (told) {
                    const auto again = does(**logbook);
                    QVERIFY2(again.ok(), again.ok() ? "" : again.error().message().c_str());
                }
            }
            const auto now = rowsOf(path, trouble);
            QVERIFY2(trouble.isEmpty(), qPrintable(QStringLiteral("call %1: %2").arg(call).arg(trouble)));
            // Told and done again, or done at once: the same is there.
            for (const auto& [table, rows] : after)
                QVERIFY2(now.at(table) == rows,
                         qPrintable(QStringLiteral("call %1, %2: %3 rows, %4 expected, %5 before")
                                        .arg(call)
                                        .arg(QString::fromStdString(table))
                                        .arg(now.at(table))
                                        .arg(rows)
                                        .arg(before.at(table))));
        }
        QFAIL("the act makes calls without end");
    }

    void theMemory_data() {
        QTest::addColumn<QString>("act");
        QTest::addColumn<bool>("lasts");
        for (const auto& [name, act] : acts()) {
            for (const bool lasts : {false, true})
                QTest::addRow("%s%s", name.c_str(), lasts ? ", and stays so" : "")
                    << QString::fromStdString(name) << lasts;
        }
    }
    void theMemory() {
        QFETCH(QString, act);
        QFETCH(bool, lasts);
        const Act does = acts().at(act.toStdString());
        const bool large = act == "import" || act == "merge";
        const int step = large ? 97 : everyOne() ? 1 : 3;
        constexpr int mostTried = 400;
        QString trouble;
        const QString path = work();
        auto logbook = Logbook::open(path, Logbook::Access::write);
        QVERIFY(logbook.ok());
        if (!large) QVERIFY(does(**logbook).ok()); // its statements are prepared
        const auto rows = [&] { return (*logbook)->counts().value().at("change"); };
        for (int tried = 0; tried < mostTried; ++tried) {
            const int before = rows();
            memory().failed = false;
            memory().lasts = lasts;
            memory().failIn = tried * step;
            const auto done = does(**logbook);
            memory().failIn = -1;
            if (!memory().failed) break;
            ++m_tried;
            const int entries = act == "several at once" ? 5 : 1;
            const bool nothingNew = large && done.ok() && rows() == before; // what it brings is there already
            QVERIFY2(nothingNew || rows() == before + (done.ok() ? entries : 0),
                     qPrintable(QStringLiteral("request %1: %2 entries, %3 before, %4")
                                    .arg(tried * step)
                                    .arg(rows())
                                    .arg(before)
                                    .arg(done.ok() ? QString() : QString::fromStdString(done.error().text))));
            if (!done) QVERIFY(!done.error().text.empty());
        }
        const auto last = does(**logbook); // what was imported or merged is there already
        QVERIFY2(last.ok() || large, last.ok() ? "" : last.error().message().c_str());
        logbook.value().reset();
        (void)rowsOf(path, trouble);
        QVERIFY2(trouble.isEmpty(), qPrintable(trouble));
    }

    void cleanupTestCase() { qInfo("%d calls and requests were made to fail", m_tried); }
};

int main(int argc, char** argv) {
    fixtures::takeMemory(); // before SQLite is used at all
    QCoreApplication application(argc, argv);
    tst_FailingCalls test;
    return QTest::qExec(&test, argc, argv);
}
#include "tst_failing_calls.moc"

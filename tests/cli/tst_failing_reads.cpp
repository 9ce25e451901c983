// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo.h"
#include "logbook/read/finder.h"
#include "logbook/read/history.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/package.h"
#include "tests/support/failing_memory.h"
#include "tests/support/fixtures.h"
#include "tests/support/in_short.h"

#include <fmt/format.h>
#include <QCoreApplication>
#include <QTemporaryDir>
#include <QtTest>

using namespace rollcall;
using fixtures::inShort;
using fixtures::memory;

namespace {

// What a read brought, in short; the same of the same logbook.
using Read = std::function<Result<std::string>(Logbook&)>;

Read sizeOf(const auto& read) {
    return [read](Logbook& logbook) -> Result<std::string> {
        const auto found = read(logbook);
        if (!found) return found.error();
        return fmt::format("{}", found->size());
    };
}

} // namespace

// SQLite out of memory at one request after the other while a logbook is read: what comes is whole, or it is said, and
// the next read brings it. An empty shop where the disk or the memory failed would be the worst of answers.
class tst_FailingReads : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    QString m_path;
    int m_refused = 0;

    QString at(const char* name) const { return m_dir.filePath(QLatin1String(name)); }

private slots:
    void initTestCase() {
        m_path = at("shop.rollcall");
        DemoOptions options;
        options.today = LogbookSeams::real().now();
        QVERIFY(writeDemo(m_path, fixtures::tables(), options).ok());
        auto logbook = Logbook::open(m_path, Logbook::Access::write).value();
        const auto report = importReadings(*logbook, fixtures::tables(), "r.csv",
                                           "batch,blade,gate,temper,value,scale,tester,time\n"
                                           "Hedge 5,H-1,temper,1,61.2,HRC,Bench 1,2026-11-20T10:10\n");
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
    }

    void whole_data() {
        QTest::addColumn<Read>("read");
        const auto row = [](const char* name, const Read& read) { QTest::newRow(name) << read; };
        row("shop", [](Logbook& logbook) -> Result<std::string> {
            const auto shop = logbook.shop();
            if (!shop) return shop.error();
            return fmt::format("{} {} {} {} {} {}", shop->people.size(), shop->testers.size(), shop->blocks.size(),
                               shop->ovens.size(), shop->studies.size(), shop->settings.size());
        });
        row("batches", sizeOf([](Logbook& logbook) { return logbook.batches(); }));
        row("gates asked", sizeOf([](Logbook& logbook) { return logbook.gatesAsked(); }));
        row("runs on blocks", sizeOf([](Logbook& logbook) { return logbook.verifications(); }));
        row("counts", sizeOf([](Logbook& logbook) { return logbook.counts(); }));
        row("recipes", sizeOf([](Logbook& logbook) { return logbook.recipes(); }));
        row("the day's plan", sizeOf([](Logbook& logbook) { return logbook.plannedRuns(); }));
        row("head", [](Logbook& logbook) { return logbook.head(); });
        row("paper held", [](Logbook& logbook) { return logbook.notHeld("3-0123456789abcdef"); });
        const auto each = [](const std::function<Result<std::string>(Logbook&, const Batch&)>& of) -> Read {
            return [of](Logbook& logbook) -> Result<std::string> {
                const auto batches = logbook.batches();
                if (!batches) return batches.error();
                std::string all;
                for (const BatchSummary& summary : *batches) {
                    const auto batch = logbook.batch(summary.id);
                    if (!batch) return batch.error();
                    const auto one = of(logbook, *batch);
                    if (!one) return one.error();
                    all += *one + '\n';
                }
                return all;
            };
        };
        row("batches, whole", each([](Logbook&, const Batch& batch) -> Result<std::string> { return inShort(batch); }));
        const auto known = std::make_shared<std::map<std::string, std::vector<TemperObservation>>>();
        row("what others gave after their tempers",
            each([known](Logbook& logbook, const Batch& batch) -> Result<std::string> {
                const auto history = temperHistory(logbook, fixtures::tables(), batch, *known);
                if (!history) return history.error();
                return std::to_string(history->size());
            }));
        row("what is looked for", [](Logbook& logbook) -> Result<std::string> {
            Finder finder(logbook);
            for (;;) {
                const auto more = finder.step();
                if (!more) return more.error();
                if (!*more) break;
            }
            Wanted wanted;
            wanted.words = {"hedge"};
            const auto hits = finder.find(wanted, 50);
            if (!hits) return hits.error();
            return std::to_string(hits->size());
        });
        row("what can be taken back", [](Logbook& logbook) -> Result<std::string> {
            const auto import = lastImport(logbook);
            if (!import) return import.error();
            return *import ? (*import)->file : std::string("none");
        });
        row("checked", [](Logbook& logbook) -> Result<std::string> {
            const auto problems = logbook.check();
            if (!problems) return problems.error();
            // A file that cannot be read to its end has that as its last problem.
            if (!problems->empty()) return Error{ErrorKind::disk, "", problems->back()};
            return std::string("sound");
        });
        const auto folder = std::make_shared<int>(0);
        row("exported", [this, folder](Logbook& logbook) -> Result<std::string> {
            const QString to = m_dir.filePath(QStringLiteral("package %1").arg(++*folder));
            const auto counts = exportTo(logbook, to);
            if (!counts) {
                // What is half there must not pass for a package.
                if (importPackage(to + QStringLiteral(".rollcall"), to).ok())
                    return std::string("half of it was taken for a package");
                return counts.error();
            }
            return std::to_string(counts->at("reading"));
        });
    }
    void whole() {
        QFETCH(Read, read);
        const auto open = [&] { return Logbook::open(m_path, Logbook::Access::read).value(); };
        // How often it asks, with its statements prepared anew: so it is made to fail at places all through it.
        constexpr int never = 1 << 30;
        auto logbook = open();
        memory().failIn = never;
        const auto expected = read(*logbook);
        const int requests = never - std::exchange(memory().failIn, -1);
        QVERIFY2(expected.ok(), expected.ok() ? "" : expected.error().message().c_str());
        QVERIFY(!expected->empty());
        constexpr int tries = 16;
        int refused = 0;
        for (int i = 0; i < tries; ++i) {
            logbook.reset();
            logbook = open();
            memory().failed = false;
            memory().failIn = static_cast<int>(static_cast<qint64>(requests) * i / tries);
            const auto got = read(*logbook);
            memory().failIn = -1;
            refused += got ? 0 : 1;
            if (!got) QVERIFY(!got.error().text.empty());
            if (got) QCOMPARE(*got, *expected);
            if (i % 6 != 0) continue;
            const auto again = read(*logbook);
            QVERIFY2(again.ok(), again.ok() ? "" : again.error().message().c_str());
            QCOMPARE(*again, *expected);
        }
        QVERIFY(refused > 0);
        m_refused += refused;
    }

    // What could not be gathered is gathered with the next step, and the search finds all there is.
    void theSearchGoesOn() {
        Wanted wanted;
        wanted.words = {"h"};
        constexpr int most = 1000;
        const auto gathered = [&](Finder& finder, int& failed) {
            for (;;) {
                const auto more = finder.step();
                failed += more ? 0 : 1;
                if (more && !*more) break;
            }
            return std::exchange(memory().failIn, -1);
        };
        int failed = 0;
        auto logbook = Logbook::open(m_path, Logbook::Access::read).value();
        constexpr int never = 1 << 30;
        memory().failIn = never;
        Finder undisturbed(*logbook);
        const int requests = never - gathered(undisturbed, failed);
        const std::size_t all = undisturbed.find(wanted, most)->size();
        QCOMPARE(failed, 0);
        QVERIFY(all > 10);
        constexpr int tries = 40;
        for (int i = 0; i < tries; ++i) {
            logbook.reset();
            logbook = Logbook::open(m_path, Logbook::Access::read).value();
            Finder finder(*logbook);
            memory().failIn = static_cast<int>(static_cast<qint64>(requests) * i / tries);
            (void)gathered(finder, failed);
            QCOMPARE(finder.find(wanted, most)->size(), all);
        }
        QVERIFY(failed > tries / 2);
    }

    void cleanupTestCase() { qInfo("%d reads were told that there was no memory", m_refused); }
};

int main(int argc, char** argv) {
    fixtures::takeMemory(); // before SQLite is used at all
    QCoreApplication application(argc, argv);
    tst_FailingReads test;
    return QTest::qExec(&test, argc, argv);
}
#include "tst_failing_reads.moc"

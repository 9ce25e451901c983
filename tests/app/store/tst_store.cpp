// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/document.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/steel.h"
#include "logbook/database.h"
#include "logbook/transfer/import.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <stdexcept>

using namespace rollcall;
using fixtures::TempLogbook;

// The storage thread and what is selected: order, errors, and that only what was touched is read and judged again.
class tst_Store : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    int m_files = 0;
    std::int64_t m_clock = fixtures::at(9).utc_ms;

    LogbookSeams seams() {
        return {[this] { return Instant{m_clock += 1000, 0}; }, [this] { return "id-" + std::to_string(++m_ids); }};
    }
    int m_ids = 0;

    // A logbook of this many batches of two blades, "B1" and on, with a tester.
    QString shop(int batches) {
        const QString path = m_dir.filePath(QStringLiteral("shop-%1.rollcall").arg(++m_files));
        auto logbook = Logbook::create(path, seams()).value();
        Tester tester;
        tester.name = "Bench 1";
        (void)addTester(*logbook, tester).value();
        for (int i = 1; i <= batches; ++i) (void)addBatch(*logbook, draft("B" + std::to_string(i))).value();
        return path;
    }
    static BatchDraft draft(const std::string& name) {
        BatchDraft batch;
        batch.name = name;
        batch.grade = "115CrV3";
        batch.window = {61, 63};
        batch.plan[indexOf(Gate::quench)] = {true, 2};
        batch.plan[indexOf(Gate::temper)] = {true, 3};
        batch.blades = {{name + "-1", BladeShape::knife(58, 16, 2.4), ""}, {name + "-2", {}, ""}};
        return batch;
    }
    static bool wait(const std::function<bool()>& so) { return QTest::qWaitFor(so, 10000); }

    struct Open {
        Document document;
        explicit Open(tst_Store& test, int batches)
            : document(Tables(fixtures::tables()), test.seams()), path(test.shop(batches)) {
            document.open(path, false);
            if (!wait([this] { return document.isOpen() && document.quiet(); })) qFatal("not opened");
        }
        std::string idOf(const std::string& name) const {
            for (const BatchSummary& batch : document.state().batches()) {
                if (batch.name == name) return batch.id;
            }
            qFatal("no batch %s", name.c_str());
        }
        void settle() {
            if (!wait([this] { return document.quiet(); })) qFatal("not answered");
        }
        QString path;
    };

    static Store::Act readOn(const Document& document, double value) {
        ReadingDraft reading;
        reading.blade = document.blade()->id;
        reading.gate = Gate::quench;
        reading.after_temper = 0;
        reading.value = value;
        reading.tester = document.tester()->id;
        return [reading](Logbook& logbook) -> Result<Done> {
            const auto id = logReading(logbook, reading);
            if (!id) return id.error();
            return Done{};
        };
    }

private slots:
    // Closed while the ledger and the words are still gathered, step by step: each step then finds nothing to do.
    void isClosedWhileItStillGathers() {
        for (int i = 0; i < 5; ++i) {
            Open open(*this, 30);
            bool asked = false;
            open.document.ledger([&](const LedgerNow& now) { asked = now.left > 0; });
            QVERIFY(wait([&] { return asked; }));
        }
    }

    // The whole is looked through between acts once it is open; what is found ends the writing, and is said.
    void theWholeIsCheckedBehind() {
        Open shop(*this, 1);
        QVERIFY(!shop.document.isChecked());
        QVERIFY(wait([&] { return shop.document.isChecked(); }));
        QVERIFY(shop.document.readOnlyReasons().isEmpty());
        bool stored = false;
        shop.document.perform(readOn(shop.document, 64.0), [&](const Result<Done>& done) { stored = done.ok(); });
        shop.settle();
        QVERIFY(stored);
    }
    void whatTheWholeCheckFinds() {
        const QString path = shop(1);
        {
            auto logbook = Logbook::open(path, Logbook::Access::write, seams()).value();
            for (int i = 0; i < 60; ++i) (void)addPerson(*logbook, "P" + std::to_string(i), "").value();
        }
        // Longer ago than the look at opening reaches.
        QCOMPARE(TempLogbook::meddle(path, "UPDATE tester SET name='another'"), QString());
        Document document(Tables(fixtures::tables()), seams());
        document.open(path, false);
        QVERIFY(wait([&] { return document.isOpen() && document.quiet(); }));
        QVERIFY(document.readOnlyReasons().isEmpty());
        QVERIFY(wait([&] { return !document.readOnlyReasons().isEmpty(); }));
        const QString why = document.readOnlyReasons().join(QStringLiteral("; "));
        QVERIFY2(why.contains("name is not what the change log says"), qPrintable(why));
        QVERIFY(!document.isChecked());
        Result<Done> refused = Done{};
        document.perform(readOn(document, 64.0), [&](const Result<Done>& done) { refused = done; });
        QVERIFY(wait([&] { return !refused.ok(); }));
        QCOMPARE(refused.error().kind, ErrorKind::refused);
    }

    void answersComeInTheOrderOfTheAsking() {
        Open shop(*this, 1);
        QStringList order;
        for (int i = 0; i < 20; ++i) {
            const QString name = QString::number(i);
            if (i % 3 == 0)
                shop.document.query<int>([](Logbook&) { return Result<int>(1); },
                                         [&order, name](const Result<int>&) { order << name; });
            else
                shop.document.perform([](Logbook&) { return Result<Done>(Done{}); },
                                      [&order, name](const Result<Done>&) { order << name; });
        }
        QCOMPARE(shop.document.pending(), 20);
        shop.settle();
        for (int i = 0; i < 20; ++i) QCOMPARE(order[i], QString::number(i));
    }

    // The batch that is asked for comes into hand with its own snapshot; until then the one in sight is in hand.
    void theBatchInSightStaysInHandUntilTheOtherIsRead() {
        Open shop(*this, 2);
        Document& document = shop.document;
        document.selectBatch(shop.idOf("B1"));
        shop.settle();
        document.selectBlade(1);
        const std::string blade = document.blade()->id;
        QCOMPARE(document.blade()->mark, std::string("B1-2"));
        document.selectBatch(shop.idOf("B2"));
        QCOMPARE(document.batch().name, std::string("B1")); // nothing is read yet
        QCOMPARE(document.blade()->id, blade);
        document.perform(readOn(document, 65.0)); // a reading in that gap
        shop.settle();
        QCOMPARE(document.batch().name, std::string("B2"));
        QCOMPARE(document.bladeIndex(), 0);
        QVERIFY(document.batch().blades[0].readings.empty());
        document.selectBatch(shop.idOf("B1"));
        shop.settle();
        QCOMPARE(document.batch().blades[1].readings.size(), std::size_t(1));
        QVERIFY(document.batch().blades[0].readings.empty());
    }

    void aBatchThatIsNotThereLeavesTheOneInHand() {
        Open shop(*this, 1);
        QSignalSpy failed(&shop.document, &Document::failed);
        bool told = false;
        shop.document.selectBatch("nowhere", [&](const Result<Done>& done) { told = !done.ok(); });
        shop.settle();
        QVERIFY(told);
        QCOMPARE(failed.size(), 1);
        QCOMPARE(shop.document.batch().name, std::string("B1"));
    }

    void onlyWhatChangedIsTold() {
        Open shop(*this, 2);
        QSignalSpy changed(&shop.document, &Document::changed);
        shop.document.query<std::vector<BatchSummary>>([](Logbook& logbook) { return logbook.batches(); },
                                                       [](const Result<std::vector<BatchSummary>>&) {});
        shop.document.perform([](Logbook&) { return Result<Done>(Done{}); });
        shop.settle();
        QCOMPARE(changed.size(), 0);
        shop.document.perform(readOn(shop.document, 65.1), [&](const Result<Done>&) {
            shop.document.selectGate(Gate::quench); // what those who waited change is told with it
            shop.document.selectBlade(1);
        });
        shop.settle();
        QCOMPARE(changed.size(), 1);
    }

    // A batch that is not touched is not read again: its part of the snapshot is the same one.
    void whatIsNotTouchedIsShared() {
        Open shop(*this, 2);
        Document& document = shop.document;
        const BatchView* before = document.state().inHand();
        const auto* batches = &document.state().batches();
        document.perform([](Logbook& logbook) -> Result<Done> {
            const auto id = addPerson(logbook, "HB", "");
            if (!id) return id.error();
            return Done{};
        });
        shop.settle();
        QCOMPARE(document.state().shop().people.size(), std::size_t(1));
        QCOMPARE(&document.state().batches(), batches);
        QVERIFY(document.state().inHand() != before); // testers and grades may be others: judged anew
        const BatchView* judged = document.state().inHand();
        const std::string other = shop.idOf(document.batch().name == "B1" ? "B2" : "B1");
        document.perform([other](Logbook& logbook) { return changeLimits(logbook, other, {60, 62}, "60:62", {}); });
        shop.settle();
        QCOMPARE(document.state().inHand(), judged);
    }

    // A read that fails is told, and what was shown stays; it is not an empty shop.
    void aFailedReadIsToldAndShowsNoEmptyShop() {
        Open shop(*this, 1);
        Document& document = shop.document;
        document.perform([](Logbook& logbook) -> Result<Done> {
            if (auto done = addPerson(logbook, "HB", ""); !done) return done.error();
            return logbook.database().run(QStringLiteral("ALTER TABLE setting RENAME TO setting_away"));
        });
        shop.settle();
        QVERIFY(document.hasBatch());
        QCOMPARE(document.state().batches().size(), std::size_t(1));
        QVERIFY(!document.trouble().isEmpty());
        // Mended, the next act shows everything, that before it too.
        document.perform([](Logbook& logbook) {
            return logbook.database().run(QStringLiteral("ALTER TABLE setting_away RENAME TO setting"));
        });
        shop.settle();
        QCOMPARE(document.trouble(), QString());
        QCOMPARE(document.state().shop().people.size(), std::size_t(1));
    }

    void noExceptionEndsTheProgram() {
        Open shop(*this, 1);
        QString said;
        shop.document.perform([](Logbook&) -> Result<Done> { throw std::out_of_range("map::at"); },
                              [&](const Result<Done>& done) { said = QString::fromStdString(done.error().message()); });
        shop.settle();
        QVERIFY(said.contains("map::at"));
        shop.document.perform(readOn(shop.document, 65.0));
        shop.settle();
        QCOMPARE(shop.document.blade()->readings.size(), std::size_t(1));
    }

    void acts_WithoutALogbookAreRefused() {
        Document document(Tables(fixtures::tables()), seams());
        QString said;
        document.perform([](Logbook&) { return Result<Done>(Done{}); },
                         [&](const Result<Done>& done) { said = QString::fromStdString(done.error().text); });
        QVERIFY(wait([&] { return document.pending() == 0; }));
        QCOMPARE(said, QStringLiteral("no logbook is open"));
        QVERIFY(!document.hasBatch());
        // Nor is there a batch to take in hand; what stands is left, the tables above all, which everything draws by.
        document.selectBatch("none",
                             [&](const Result<Done>& done) { said = QString::fromStdString(done.error().text); });
        said.clear();
        QVERIFY(wait([&] { return document.pending() == 0; }));
        QCOMPARE(said, QStringLiteral("no logbook is open"));
        QVERIFY(!document.hasBatch() && document.state().tables() != nullptr);
        QVERIFY(!document.tables().grades().empty());
    }

    // What is next in other batches follows what is done to them, an import and its taking back too.
    void whatIsNextElsewhereIsKeptUp() {
        Open shop(*this, 2);
        Document& document = shop.document;
        document.selectBatch(shop.idOf("B1"));
        shop.settle();
        const auto elsewhere = [&] {
            QStringList texts;
            for (const Elsewhere& other : document.state().elsewhere())
                texts << QString::fromStdString(other.batch + " " + other.mark);
            return texts.join(", ");
        };
        QCOMPARE(elsewhere(), QStringLiteral("B2 B2-1"));
        const QByteArray csv = "batch,blade,gate,value\nB2,B2-1,quench,65.1\nB2,B2-1,quench,65.2\n";
        document.perform([csv](Logbook& logbook) -> Result<Done> {
            const auto taken = importReadings(logbook, fixtures::tables(), "r.csv", csv);
            if (!taken) return taken.error();
            return Done{};
        });
        shop.settle();
        // Unverified, the readings are Borderline at best and the blade still asks; its sibling is read first.
        QCOMPARE(document.state().elsewhere().size(), std::size_t(1));
        QCOMPARE(document.state().elsewhere().front().task.next.act, Act::verifyTester);
        document.perform(
            [](Logbook& logbook) -> Result<Done> { return takeBackImport(logbook, lastImport(logbook).value()->id); });
        shop.settle();
        QCOMPARE(document.state().elsewhere().front().task.next.act, Act::takeReadings);
    }

    void theGradesInUseStayAliveWhileTheyAreHeld() {
        Open shop(*this, 1);
        const std::shared_ptr<const Tables> held = shop.document.state().tables();
        const std::size_t grades = held->grades().size();
        shop.document.perform([](Logbook& logbook) {
            return keepOwnGrade(logbook, {{"name", "Orchard steel"}, {"based_on", "O1"}});
        });
        shop.settle();
        QVERIFY(shop.document.tables().grade("Orchard steel") != nullptr);
        QVERIFY(held->grade("Orchard steel") == nullptr);
        QCOMPARE(held->grades().size(), grades);
    }

    // Everything asked before the end is stored.
    void theEndWaitsForWhatWasAsked() {
        QString path;
        {
            Open shop(*this, 1);
            path = shop.path;
            for (int i = 0; i < 30; ++i) shop.document.perform(readOn(shop.document, 64.0 + 0.1 * (i % 9)));
        }
        auto logbook = Logbook::open(path, Logbook::Access::read, seams()).value();
        QCOMPARE(logbook->counts().value()["reading"], 30);
        QVERIFY(logbook->check().value().empty());
    }
};

QTEST_GUILESS_MAIN(tst_Store)
#include "tst_store.moc"

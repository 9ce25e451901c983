// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/oven_link.h"
#include "app/proof/speaks_page.h"
#include "app/shared/form_dialog.h"
#include "demo/demo.h"
#include "logbook/actions/heat.h"
#include "logbook/database.h"
#include "tests/support/window_driver.h"
#include "words/words.h"

#include <QListView>
#include <QTableView>
#include <set>

using namespace rollcall;
using fixtures::WindowDriver;

// What a hand may do without losing a number, and what the window says of every act.
class tst_Hands : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    // The real window on the demo.
    QString demo() {
        const QString path = m_dir.filePath(QStringLiteral("demo-%1.rollcall").arg(++m_demos));
        DemoOptions options;
        options.today = LogbookSeams::real().now();
        if (!writeDemo(path, fixtures::tables(), options)) qFatal("no demo");
        return path;
    }
    int m_demos = 0;

private slots:
    // After a temper is logged at Quench the next numbers are readings of the tempered blade, at Temper.
    void readingsAfterATemperLoggedAtQuenchAreKept() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("652\n653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.type("t");
        d.fill("temperature", "110"); // far from what is advised, and no temper for this window
        d.fill("hours", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("was advised"), qPrintable(d.formMessage()));
        d.fill("temperature", "205"); // the library's own, if hotter than what is advised to a shop that is new to it
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().gate(), Gate::temper);
        const Blade* blade = d.document().blade();
        QCOMPARE(blade->mark, std::string("GK-1"));
        const std::size_t before = blade->readings.size();
        d.type("620\n621\n619\n");
        QCOMPARE(d.document().batch().blades[0].readings.size(), before + 3);
        for (std::size_t i = before; i < before + 3; ++i) {
            QCOMPARE(d.document().batch().blades[0].readings[i].gate, Gate::temper);
            QCOMPARE(d.document().batch().blades[0].readings[i].after_temper, std::optional<int>(1));
        }
    }

    // A number that the blade does not expect stays in sight until it is logged or cleared.
    void aNumberTooManyStaysUntilItIsDecided() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("652\n653\n651\n");
        const auto count = [&] { return d.document().batch().blades[0].readings.size(); };
        QCOMPARE(count(), std::size_t(3));
        d.type("654\n");
        QCOMPARE(count(), std::size_t(3));
        QCOMPARE(d.document().blade()->mark, std::string("GK-1")); // Enter did not go on to another blade
        QCOMPARE(d.window().station().typed(), QStringLiteral("654"));
        QVERIFY(d.window().station().message().contains("not logged"));
        QCOMPARE(d.act(), QStringLiteral("654 is not logged")); // the button says no other act than Enter does
        QCOMPARE(d.column().key, QString());
        d.type("*");
        QCOMPARE(d.act(), QStringLiteral("Take reading 4"));
        d.type("\n");
        QCOMPARE(count(), std::size_t(4));
        QCOMPARE(d.document().batch().blades[0].readings.back().value, 65.4);
        d.type("655");
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().station().typed(), QString());
        QCOMPARE(count(), std::size_t(4));
    }

    // One more on a blade that is done with: the button says that it is read, not what its verdict would have next.
    void oneMoreIsWhatTheButtonSays() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("500\n\n501\n502\n"); // the first is far from the window, and said twice
        QCOMPARE(d.document().verdict()->state, State::fail);
        const QString next = d.act();
        QVERIFY2(!next.startsWith("Take reading"), qPrintable(next));
        d.type("*");
        QCOMPARE(d.act(), QStringLiteral("Take reading 4"));
        d.press(Qt::Key_Escape);
    }

    // What an unverified tester has read stays Borderline: verified, it is read again, and the button says so.
    void theButtonSaysToReadAgainOnceVerified() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_F4);
        d.type("652\n653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QCOMPARE(d.act(), QStringLiteral("Verify the tester"));
        d.verifyTester();
        QCOMPARE(d.act(), QStringLiteral("Read it again"));
        QVERIFY2(d.column().detail.contains("is verified now"), qPrintable(d.column().detail));
        d.type("652\n"); // the first of three, where the number is typed at once
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(4));
        QVERIFY2(d.act().startsWith("Take reading"), qPrintable(d.act()));
        d.type("653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
    }

    // Harder than the grade can be, by a tester whose block is softer than that: a harder block comes first.
    void theButtonAsksForAHarderBlock() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester(); // at 62.6
        d.press(Qt::Key_F4);
        d.type("690\n\n691\n690\n");
        QVERIFY2(d.document().verdict()->has(Fact::aboveGradeMaximum), qPrintable(d.reasons()));
        QCOMPARE(d.act(), QStringLiteral("Verify the tester"));
        QCOMPARE(d.column().detail, QStringLiteral("on a block near this hardness"));
        d.press(Qt::Key_Return);
        QCOMPARE(d.window().station().mode(), ReadingStation::Mode::block);
    }

    // A number typed where none is read is not dropped without a word.
    void aNumberTypedElsewhereIsAnswered() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.run("overview");
        QVERIFY(d.window().overviewOpen());
        d.type("6");
        QVERIFY2(d.now().contains("No number is typed here"), qPrintable(d.now()));
        d.press(Qt::Key_F4);
        QVERIFY2(!d.now().contains("No number is typed here"), qPrintable(d.now()));
        d.type("6");
        QCOMPARE(d.window().station().typed(), QStringLiteral("6"));
        QVERIFY2(!d.now().contains("No number is typed here"), qPrintable(d.now()));
    }

    void aNumberTypedForAnotherBladeIsSaidToBeGone() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("65");
        d.press(Qt::Key_PageDown);
        QCOMPARE(d.document().blade()->mark, std::string("GK-2"));
        QVERIFY2(d.now().contains("65 was typed for another blade"), qPrintable(d.now()));
    }

    // Each profile asks for what its name says.
    void profilesAskForTheirGates_data() {
        QTest::addColumn<QString>("profile");
        QTest::addColumn<QStringList>("gates");
        QTest::newRow("two") << "Quench and Temper" << QStringList{"quench", "temper"};
        QTest::newRow("three") << "Heat, Quench and Temper" << QStringList{"heat", "quench", "temper"};
        QTest::newRow("all") << "Steel to Release"
                             << QStringList{"steel", "heat", "quench", "temper", "edge", "proof", "release"};
        QTest::newRow("to proof") << "Steel to Proof"
                                  << QStringList{"steel", "heat", "quench", "temper", "edge", "proof"};
        QTest::newRow("finished") << "Finished knives: steel and hardness" << QStringList{"steel", "temper"};
    }
    void profilesAskForTheirGates() {
        QFETCH(QString, profile);
        QFETCH(QStringList, gates);
        WindowDriver d;
        d.makeBatch(profile);
        QStringList asked;
        for (const Gate gate : allGates) {
            if (d.document().batch().planOf(gate).required) asked << nameOf(gate);
        }
        QCOMPARE(asked, gates);
    }

    // Whatever is next, the Now line says it; 'you decide' is for what the maker decides.
    void everyActHasItsOwnWords() {
        QSet<QString> seen;
        for (int i = 0; i <= static_cast<int>(Act::out); ++i) {
            const auto act = static_cast<Act>(i);
            const QString text = words::taskText("BH-1", {act});
            QVERIFY2(text.contains("BH-1"), qPrintable(text));
            QCOMPARE(text.contains("you decide"), act == Act::makerDecides);
            seen << text;
        }
        QVERIFY(seen.size() > 25);
    }
    void theNowLineNamesATrial() {
        WindowDriver d(demo());
        d.type("b");
        QVERIFY(d.dialog() != nullptr);
        d.press(Qt::Key_Escape);
        QVERIFY2(!d.now().contains("you decide") || d.document().tasks().front().next.act == Act::makerDecides,
                 qPrintable(d.now()));
    }

    // What is chosen in a form is known by its key, in whatever language it is shown.
    void choicesAreKnownByTheirKeys() {
        QWidget parent;
        const Look look;
        auto* form = new FormDialog("A form", "Keep it",
                                    {{"sound", "Heard", {}, "no", {{"no", "nein"}, {"yes", "ja"}}, false},
                                     {"kind", "What", {}, "chip", {{"chip", "Ausbruch"}, {"roll", "Rolle"}}, true},
                                     {"free", "Note", {}, "as typed", {}, false}},
                                    look, &parent);
        QCOMPARE(form->values()["sound"], QStringLiteral("no"));
        QCOMPARE(form->findChild<QComboBox*>("kind")->currentText(), QStringLiteral("Ausbruch"));
        QCOMPARE(form->values()["kind"], QStringLiteral("chip"));
        form->findChild<QComboBox*>("sound")->setCurrentText("ja");
        form->findChild<QComboBox*>("kind")->setEditText("Rolle");
        QCOMPARE(form->values()["sound"], QStringLiteral("yes"));
        QCOMPARE(form->values()["kind"], QStringLiteral("roll"));
        form->findChild<QComboBox*>("kind")->setEditText("something of my own");
        QCOMPARE(form->values()["kind"], QStringLiteral("something of my own"));
        QCOMPARE(form->values()["free"], QStringLiteral("as typed"));
        delete form;
    }
    void aFateIsStoredInTheRecordsOwnWords() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.type("x");
        d.type("3");
        d.settle();
        QCOMPARE(d.document().batch().blades[0].fate->reason, std::string("used as a coupon"));
        QCOMPARE(d.document().batch().blades[0].fate->fate, Fate::coupon);
    }

    // What decides is never half a line: reasons and the Now line show whole rows and parts, and count the rest.
    void nothingIsSeenByHalf() {
        WindowDriver d(demo());
        d.window().show();
        auto* reasons = d.window().findChild<QListView*>("reasons");
        auto* now = d.window().findChild<Footer*>();
        QVERIFY(reasons != nullptr && now != nullptr);
        int more = 0;
        for (const QSize& size : {QSize(1280, 720), QSize(1280, 800), QSize(1920, 1080)}) {
            d.window().resize(size);
            for (const auto& [place, commands] : d.window().everyCommand()) {
                if (place.isEmpty()) continue;
                d.window().open(place);
                d.settle();
                const int end = reasons->viewport()->height();
                for (int row = 1; row < reasons->model()->rowCount(); ++row) {
                    const QRect at = reasons->visualRect(reasons->model()->index(row, 0));
                    QVERIFY2(at.top() >= end || at.bottom() < end, qPrintable(place + ": " + QString::number(row)));
                    if (at.top() >= end) ++more;
                }
                const QString said = now->inSight(now->nowWidth() - 32).text;
                QVERIFY2(!said.contains(QChar(0x2026)), qPrintable(said));
                QVERIFY2(now->text().startsWith(said.section("   ·   and ", 0, 0)), qPrintable(said));
            }
        }
        QVERIFY(more > 0); // else nothing was tried
    }

    // That nothing is stored any more, and why, is seen whole: on two lines where one does not hold it.
    void whatKeepsItFromStoringIsSeenWhole() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.press(Qt::Key_F4);
        QVERIFY(QFile::remove(d.path() + QStringLiteral("-wal")));
        d.type("652\n");
        QVERIFY(d.document().batch().blades[0].readings.empty());
        QCOMPARE(d.window().station().typed(), QStringLiteral("652")); // it stays typed
        auto* now = d.window().findChild<Footer*>();
        for (const QSize& size : {QSize(1024, 640), QSize(1280, 800)}) {
            d.window().resize(size);
            const Footer::Seen seen = now->inSight(now->nowWidth() - 32);
            QVERIFY(seen.size >= 15 && seen.size < 20);
            QVERIFY2(seen.text.endsWith("open the logbook again"), qPrintable(seen.text));
            QVERIFY2(seen.text.contains("-wal"), qPrintable(seen.text));
        }
        const QString whole = now->text() + QString(600, QLatin1Char('x')).replace(5, 1, QLatin1Char(' '));
        now->say(whole, true);
        QVERIFY(now->inSight(now->nowWidth() - 32).text.endsWith(QChar(0x2026)));
        QCOMPARE(now->findChild<QAbstractButton*>("now")->toolTip().contains(QStringLiteral("xxxx")), true);
    }

    // Many blades: the rows keep their height and scroll.
    void standsForScrolls() {
        WindowDriver d(demo());
        d.document().selectBatch([&] {
            for (const BatchSummary& batch : d.document().state().batches()) {
                if (batch.name == "Hedge 5") return batch.id;
            }
            return std::string();
        }());
        d.settle();
        d.press(Qt::Key_F7);
        d.type("2");
        auto* table = d.window().findChild<QTableView*>(QStringLiteral("speech-table"));
        QVERIFY(table != nullptr && table->isVisible());
        QCOMPARE(table->model()->rowCount(), static_cast<int>(d.document().batch().blades.size()));
        QVERIFY(table->model()->columnCount() >= 1);
        QCOMPARE(table->rowHeight(0), 44);
        d.window().resize(1280, 640);
        QCoreApplication::processEvents();
        QCOMPARE(table->rowHeight(0), 44);
        // Only whole rows, and nothing under them is covered.
        QCOMPARE(table->height() % 44, 0);
        QVERIFY(table->height() <= 44 * table->model()->rowCount());
        // Every row can be reached by keys and by clicking, and is the blade in hand then.
        for (int row = 0; row < table->model()->rowCount(); ++row) {
            table->scrollTo(table->model()->index(row, 0));
            QTest::mouseClick(table->viewport(), Qt::LeftButton, {},
                              table->visualRect(table->model()->index(row, 0)).center());
            QCOMPARE(d.document().bladeIndex(), row);
        }
        const QString spoken = table->model()->index(0, 0).data(Qt::AccessibleTextRole).toString();
        QVERIFY2(spoken.contains(QString::fromStdString(d.document().batch().blades[0].mark)), qPrintable(spoken));
    }

    // Samples of an oven wait until the logbook has them, and what came last is stored at the end.
    void ovenSamplesAreKeptUntilTheyAreStored() {
        const QString path = demo();
        std::string run;
        {
            WindowDriver d(path);
            HeatDraft heat;
            heat.batch = d.document().batch().id;
            heat.set_c = 800;
            d.document().perform([&](Logbook& logbook) -> Result<Done> {
                heat.oven = logbook.shop().value().ovens.front().id;
                const auto begun = startHeat(logbook, heat);
                if (!begun) return begun.error();
                run = *begun;
                return Done{};
            });
            d.settle();
            OvenLink& oven = d.window().links().oven;
            Instant zero = d.document().now();
            zero.utc_ms -= 60000;
            oven.record(run, zero);
            const auto sample = [&](double c) {
                DeviceLine line;
                line.value = c;
                emit oven.wire().reading(line);
                d.passTime(1000);
            };
            for (const double c : {790.0, 795.0, 799.0}) sample(c);
            QCOMPARE(oven.fresh().size(), std::size_t(3));
            // A disk that cannot be written: nothing is stored, nothing is lost.
            const auto writable = [&](bool can) {
                d.document().perform([can](Logbook& logbook) {
                    return logbook.database().run(can ? QStringLiteral("PRAGMA query_only=OFF")
                                                      : QStringLiteral("PRAGMA query_only=ON"));
                });
                d.settle();
            };
            writable(false);
            oven.flush();
            d.settle();
            QCOMPARE(oven.fresh().size(), std::size_t(3));
            writable(true);
            oven.flush();
            d.settle();
            QCOMPARE(oven.fresh().size(), std::size_t(1)); // the last one begins the next part
            sample(801);
            sample(802);
        } // the window is closed without a flush of its own
        auto logbook = Logbook::open(path, Logbook::Access::read).value();
        for (const BatchSummary& summary : logbook->batches().value()) {
            const Batch batch = logbook->batch(summary.id).value();
            for (const HeatRun& heat : batch.heat_runs) {
                if (heat.id != run) continue;
                QVERIFY(heat.trace != nullptr);
                std::set<double> moments; // a part begins with the last sample of the one before
                for (const TraceSample& one : heat.trace->samples()) moments.insert(one.s);
                QCOMPARE(moments.size(), std::size_t(5));
                QCOMPARE(heat.trace->samples().back().c, 802.0);
                return;
            }
        }
        QFAIL("the heat is gone");
    }

    // The clock of the window is the one passed in: midnight ends a verification, summer time does not, and a clock
    // that was set back knows of no run yet.
    void theClockIsTheOnePassedIn() {
        WindowDriver d;
        // To noon, so that an hour more or less stays on the day.
        const Instant now = d.document().now();
        constexpr std::int64_t hour = 3600000;
        const std::int64_t local = now.utc_ms + now.offset_minutes * std::int64_t{60000};
        d.passTime(12 * hour - local % (24 * hour));
        d.makeBatch("Quench only");
        d.verifyTester();
        d.press(Qt::Key_F4);
        const auto act = [&] {
            d.document().tell();
            d.settle();
            return d.act();
        };
        QCOMPARE(act(), QStringLiteral("Take reading 1"));
        d.passTime(0, 60); // summer time begins
        QCOMPARE(act(), QStringLiteral("Take reading 1"));
        d.passTime(0, -120); // and ends
        QCOMPARE(act(), QStringLiteral("Take reading 1"));
        d.passTime(0, 60);
        d.passTime(11 * hour + hour / 2); // half past eleven at night
        QCOMPARE(act(), QStringLiteral("Take reading 1"));
        d.passTime(hour); // past midnight
        QCOMPARE(act(), QStringLiteral("Verify the tester"));
        d.passTime(-12 * hour - hour / 2);
        QCOMPARE(act(), QStringLiteral("Take reading 1"));
        d.passTime(-hour); // set back to before the run
        QCOMPARE(act(), QStringLiteral("Verify the tester"));
        // What is logged then carries that clock.
        d.press(Qt::Key_F4);
        d.type("652\n");
        const Reading& reading = d.document().batch().blades[0].readings.back();
        QVERIFY(std::abs(reading.time->utc_ms - d.document().now().utc_ms) < 60000);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        // That the clock stands before the last entry is said, when something is logged and when the logbook is opened.
        QVERIFY2(d.now().contains("set the clock"), qPrintable(d.now()));
        d.type("653\n");
        QVERIFY2(!d.now().contains("set the clock"), qPrintable(d.now()));
        d.passTime(-hour);
        d.restart();
        QVERIFY2(d.now().contains("set the clock"), qPrintable(d.now()));
    }

    // A reading from a wire while another batch is on its way lands on the blade in sight.
    void aReadingInTheGapLandsOnTheBladeInSight() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        const std::string first = d.document().batch().id;
        d.type("s"); // another one
        d.fill("name", "Orchard 14");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        d.press(Qt::Key_F4);
        d.press(Qt::Key_PageDown);
        const std::string blade = d.document().blade()->id;
        d.document().selectBatch(first);
        d.window().station().receive(65.2, "65.2", "HRC");
        d.settle();
        QCOMPARE(d.document().batch().id, first);
        for (const Blade& other : d.document().batch().blades) QVERIFY(other.readings.empty());
        d.type("b");
        d.press(Qt::Key_Escape);
        auto found = std::make_shared<std::size_t>(0);
        d.document().query<std::vector<BatchSummary>>(
            [found, blade](Logbook& logbook) {
                for (const BatchSummary& summary : logbook.batches().value()) {
                    for (const Blade& one : logbook.batchAlone(summary.id).value().blades) {
                        if (one.id == blade) *found = one.readings.size();
                    }
                }
                return logbook.batches();
            },
            [](const Result<std::vector<BatchSummary>>&) {});
        d.settle();
        QCOMPARE(*found, std::size_t(1));
    }
};

QTEST_MAIN(tst_Hands)
#include "tst_hands.moc"

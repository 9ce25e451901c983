// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/large_shop.h"

#include "app/frame/main_window.h"
#include "app/ledger/ledger_bench.h"
#include "app/ledger/what_if_page.h"
#include "bench/require.h"
#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/logbook.h"

#include <functional>
#include <QApplication>
#include <QElapsedTimer>
#include <QFile>
#include <QKeyEvent>
#include <QThread>
#include <sys/resource.h>

namespace rollcall::bench {

namespace {

double since(const QElapsedTimer& clock) {
    return static_cast<double>(clock.nsecsElapsed()) / 1e6;
}

// Runs events until it is so, then until everything that follows from it is painted.
void until(const std::function<bool()>& so) {
    QElapsedTimer clock;
    clock.start();
    while (!so()) {
        require(clock.elapsed() < 900000, "the window does not come to rest");
        QCoreApplication::processEvents(QEventLoop::AllEvents);
        QThread::usleep(50);
    }
    QCoreApplication::processEvents(QEventLoop::AllEvents);
}

void press(QWidget& window, int key, const QString& text = {}) {
    QWidget* target = window.focusWidget() != nullptr ? window.focusWidget() : &window;
    QKeyEvent event(QEvent::KeyPress, key, Qt::NoModifier, text);
    QCoreApplication::sendEvent(target, &event);
}

} // namespace

LargeShop largeShop(const QString& path, int scale, const Tables& tables) {
    LargeShop shop;
    if (!QFile::exists(path)) {
        DemoOptions options;
        options.today = LogbookSeams::real().now();
        options.scale = scale;
        require(writeDemo(path, tables, options).ok(), "the shop was not written");
    }
    {
        auto opened = Logbook::open(path, Logbook::Access::write);
        require(opened.ok(), "the shop was not opened");
        shop.readings = (*opened)->counts().value()["reading"];
    }
    Document document(Tables(tables), LogbookSeams::real());
    MainWindow window(document, Look(), Seams::real());
    window.resize(1280, 800);
    QElapsedTimer clock;
    clock.start();
    window.show();
    document.open(path, false);
    until([&] { return document.isOpen() && document.hasBatch() && document.pending() == 0; });
    shop.opened_ms = since(clock);
    until([&] { return document.quiet(); });
    // A batch of its own, with readings that no limit stops.
    std::string batch;
    const Instant made = document.now();
    document.perform([&, made](Logbook& logbook) -> Result<Done> {
        BatchDraft draft;
        draft.name = "Bench " + std::to_string(made.utc_ms);
        draft.grade = "115CrV3";
        draft.purpose = "grafting knife";
        draft.window = {61, 63};
        draft.window_text = "61:63";
        draft.plan[indexOf(Gate::quench)] = {true, 20};
        BladeShape shape = BladeShape::knife(120, 24, 2.4);
        shape.reading_line_mm = 3;
        for (int i = 1; i <= 9; ++i) draft.blades.push_back({"B-" + std::to_string(i), shape, "2.4"});
        const auto id = addBatch(logbook, draft);
        if (!id) return id.error();
        batch = *id;
        return Done{};
    });
    until([&] { return document.pending() == 0 && !batch.empty(); });
    document.selectBatch(batch);
    until([&] { return document.hasBatch() && document.batch().id == batch && document.quiet(); });
    window.openGate(Gate::quench);
    for (int i = 0; i < 90; ++i) {
        document.selectBlade(i % 9);
        QCoreApplication::processEvents();
        for (const QChar digit : QString::number(650 + i % 7)) press(window, digit.unicode(), digit);
        QCoreApplication::processEvents();
        const int before = document.verdict()->taken + static_cast<int>(document.verdict()->left_out.size());
        clock.restart();
        press(window, Qt::Key_Return);
        until([&] {
            return document.pending() == 0 &&
                   document.verdict()->taken + static_cast<int>(document.verdict()->left_out.size()) > before;
        });
        shop.entered_ms.push_back(since(clock));
    }
    const std::vector<BatchSummary> batches = document.state().batches();
    for (std::size_t i = 0; i < 20; ++i) {
        const std::string& id = batches[(i * 7919) % batches.size()].id;
        clock.restart();
        document.selectBatch(id);
        until([&] { return document.pending() == 0 && document.batch().id == id; });
        shop.chosen_ms.push_back(since(clock));
        until([&] { return document.quiet(); });
    }
    std::size_t left = 1;
    clock.restart();
    while (left > 0) {
        document.find({}, 1, [&](const Result<Found>& found) {
            require(found.ok(), "nothing can be found");
            left = found->left;
        });
        until([&] { return document.pending() == 0; });
    }
    shop.gathered_ms = since(clock);
    for (const QString sentence : {"GK-7", "62.4 bench", "115CrV3, tempered 200 to 210, since spring", "orchard 12"}) {
        for (int typed = 1; typed <= sentence.size(); ++typed) {
            clock.restart();
            const Wanted wanted = wantedFrom(sentence.left(typed).toStdString(), document.tables(), document.now());
            document.find(wanted, 60, [](const Result<Found>& found) { require(found.ok(), "nothing can be found"); });
            until([&] { return document.pending() == 0; });
            shop.sought_ms.push_back(since(clock));
        }
    }
    // The ledger: gathered once, then each page as it is turned to, then a limit dragged.
    clock.restart();
    window.run(QStringLiteral("ledger"));
    const auto answered = [&] {
        for (const LedgerPage* page : window.findChildren<LedgerPage*>()) {
            if (page->isVisible()) return !page->busy() && document.pending() == 0;
        }
        return false;
    };
    until(answered);
    shop.booked_ms = since(clock);
    for (int page = 1; page < 7; ++page) {
        clock.restart();
        window.open(QStringLiteral("ledger-bench"), page);
        until(answered);
        shop.views_ms.emplace_back(window.findChild<LedgerBench*>()->title().toStdString(), since(clock));
    }
    auto* limit = window.findChild<DragNumber*>(QStringLiteral("low-by"));
    for (int step = 1; step <= 20; ++step) {
        clock.restart();
        limit->setValue(0.1 * step);
        until(answered);
        shop.what_if_ms.push_back(since(clock));
    }
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    shop.memory_mb = static_cast<double>(used.ru_maxrss) / 1024;
    return shop;
}

} // namespace rollcall::bench

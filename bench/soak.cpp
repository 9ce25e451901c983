// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/soak.h"

#include "app/frame/main_window.h"
#include "bench/require.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "sim/simulated_oven.h"
#include "sim/simulated_tester.h"

#include <algorithm>
#include <atomic>
#include <functional>
#include <malloc.h>
#include <memory>
#include <QApplication>
#include <QElapsedTimer>
#include <QFile>
#include <QSettings>
#include <QThread>
#include <sqlite3.h>
#include <unistd.h>

namespace rollcall::bench {

namespace {

constexpr double day_h = 8;
constexpr int blades = 9;
constexpr int readingsOfBlade = 20;

Memory memoryNow() {
    constexpr double mb = 1 << 20;
    QFile file(QStringLiteral("/proc/self/statm"));
    require(file.open(QIODevice::ReadOnly), "the memory in use cannot be read");
    Memory memory;
    memory.whole = file.readAll().split(' ').value(1).toDouble() * static_cast<double>(::sysconf(_SC_PAGESIZE)) / mb;
    memory.of_sqlite = static_cast<double>(sqlite3_memory_used()) / mb;
    const struct mallinfo2 heap = ::mallinfo2();
    memory.others = static_cast<double>(heap.uordblks + heap.hblkhd) / mb - memory.of_sqlite;
    return memory;
}

void wire(const QString& name, const QString& port, const QString& pattern) {
    QSettings settings;
    settings.setValue(name + QStringLiteral("/port"), port);
    settings.setValue(name + QStringLiteral("/pattern"), pattern);
}

// The window, its instruments, and a clock that runs ahead of the wall's.
class Day {
public:
    Day(const QString& folder, const Tables& tables, double minutes) : m_faster(day_h * 60 / minutes) {
        m_start = LogbookSeams::real().now();
        m_wall.start();
        LogbookSeams seams = LogbookSeams::real();
        // From another thread too: what is stored has its moment.
        seams.now = [this] {
            return Instant{m_start.utc_ms + m_slept_ms + static_cast<std::int64_t>(m_faster * m_wall.elapsed()),
                           m_start.offset_minutes};
        };
        const QString path = folder + QStringLiteral("/soak.rollcall");
        std::string tester;
        {
            auto logbook = std::move(Logbook::create(path, seams)).value();
            require(addPerson(*logbook, "HB", "").ok(), "nobody is at work");
            Tester bench;
            bench.name = "Bench 1";
            tester = addTester(*logbook, bench).value();
        }
        m_tester.link = folder + QStringLiteral("/tester");
        m_oven.link = folder + QStringLiteral("/oven");
        require(m_tester.plug().ok() && m_oven.plug().ok(), "there is no pseudo terminal");
        wire(QStringLiteral("line/") + QString::fromStdString(tester), m_tester.link,
             QStringLiteral(R"(^R\s+(?<seq>\d+)\s+(?<value>\d+\.\d)\s+(?<scale>HR\w+))"));
        wire(QStringLiteral("oven"), m_oven.link, QStringLiteral(R"(^T\s+(?<seq>\d+)\s+(?<value>-?\d+(\.\d+)?)\s+C)"));
        m_document = std::make_unique<Document>(Tables(tables), seams);
        m_window = std::make_unique<MainWindow>(*m_document, Look(), Seams::real());
        m_window->resize(1280, 800);
        m_window->show();
        m_document->open(path, false);
        until([&] { return m_document->isOpen() && m_document->quiet(); });
        nextBatch();
        waitForLine();
    }

    Soak run(double minutes) {
        const double all_ms = minutes * 60000;
        constexpr double line_ms = 40; // of each of the two instruments
        bool slept = false;
        for (double next = m_wall.elapsed(); next < all_ms; next += line_ms) {
            until([&] { return m_wall.elapsed() >= next; });
            if (m_inBatch == blades * readingsOfBlade) nextBatch();
            if (m_inBatch % readingsOfBlade == 0) m_document->selectBlade(m_inBatch / readingsOfBlade);
            say();
            m_result.most_waiting = std::max(m_result.most_waiting, m_window->station().waiting());
            const auto tenth = static_cast<std::size_t>(10 * m_wall.elapsed() / all_ms);
            if (tenth > m_result.memory.size()) m_result.memory.push_back(memoryNow());
            if (!slept && tenth >= 5) {
                slept = true;
                QThread::sleep(2); // lines wait in the wire meanwhile
                m_slept_ms += 3600000;
            }
        }
        settle();
        m_result.memory.resize(9, memoryNow());
        m_result.memory.push_back(memoryNow());
        m_result.minutes = minutes;
        m_result.midnights = static_cast<int>(m_document->now().localDay() - m_start.localDay());
        const QString path = m_document->path();
        m_window.reset();
        m_document.reset();
        auto logbook = std::move(Logbook::open(path, Logbook::Access::write)).value();
        m_result.stored = logbook->counts().value()["reading"];
        for (const std::string& problem : logbook->check().value())
            m_result.problems << QString::fromStdString(problem);
        return m_result;
    }

private:
    static void until(const std::function<bool()>& so) {
        QElapsedTimer clock;
        clock.start();
        while (!so()) {
            require(clock.elapsed() < 60000, "the window does not come to rest");
            QCoreApplication::processEvents(QEventLoop::AllEvents);
            QThread::usleep(200);
        }
    }
    // What was said has come, and is stored.
    void settle() {
        int stored = -1;
        until([&] {
            const int before = std::exchange(stored, readings());
            QCoreApplication::processEvents(QEventLoop::AllEvents, 300);
            return m_document->quiet() && m_window->station().waiting() == 0 && before == stored;
        });
    }
    void waitForLine() {
        until([&] { return m_window->links().tester.stateText().contains(QLatin1String("open")); });
    }
    int readings() const {
        int count = 0;
        for (const Blade& blade : m_document->batch().blades) count += static_cast<int>(blade.readings.size());
        return count;
    }

    void nextBatch() {
        if (m_result.batches > 0) settle();
        std::string made;
        m_document->perform([&](Logbook& logbook) -> Result<Done> {
            BatchDraft draft;
            draft.name = "Soak " + std::to_string(m_result.batches + 1);
            draft.grade = "115CrV3";
            draft.purpose = "grafting knife";
            draft.window = {61, 63};
            draft.window_text = "61:63";
            draft.plan[indexOf(Gate::quench)] = {true, 1000}; // never enough: all that comes belongs to the blade
            BladeShape shape = BladeShape::knife(120, 24, 2.4);
            shape.reading_line_mm = 3;
            for (int i = 1; i <= blades; ++i) draft.blades.push_back({"S-" + std::to_string(i), shape, "2.4"});
            const auto id = addBatch(logbook, draft);
            if (!id) return id.error();
            made = *id;
            return Done{};
        });
        until([&] { return m_document->pending() == 0 && !made.empty(); });
        m_document->selectBatch(made);
        until([&] { return m_document->hasBatch() && m_document->batch().id == made && m_document->quiet(); });
        m_window->openGate(Gate::quench);
        m_inBatch = 0;
        ++m_result.batches;
    }

    void say() {
        ++m_turn;
        require(m_oven.command(QStringLiteral("tick")).ok(), "the oven is silent");
        const auto tester = [&](const char* words) {
            require(m_tester.command(QLatin1String(words)).ok(), "the tester is silent");
        };
        const auto reading = [&] {
            ++m_result.said;
            ++m_inBatch;
        };
        if (m_turn % 1500 == 0) { // pulled out and put in again, each minute
            ++m_result.faults;
            settle();
            tester("unplug");
            until([&] { return m_window->links().tester.stateText().contains(QLatin1String("lost")); });
            tester("plug");
            waitForLine();
        } else if (m_turn % 331 == 0) {
            ++m_result.faults;
            tester("partial 65.1");
            tester("rest");
            reading();
        } else if (m_turn % 211 == 0 && m_turn > 211) {
            ++m_result.faults;
            tester("again");
        } else if (m_turn % 97 == 0) {
            ++m_result.faults;
            tester("garbage");
        } else {
            tester("read");
            reading();
        }
    }

    double m_faster;
    QElapsedTimer m_wall;
    Instant m_start;
    std::atomic<std::int64_t> m_slept_ms = 0;
    SimulatedTester m_tester{0.2, 7};
    SimulatedOven m_oven{7};
    std::unique_ptr<Document> m_document;
    std::unique_ptr<MainWindow> m_window;
    Soak m_result;
    int m_turn = 0;
    int m_inBatch = 0; ///< readings said in the batch in hand
};

} // namespace

Soak soak(const QString& folder, const Tables& tables, double minutes) {
    return Day(folder, tables, minutes).run(minutes);
}

} // namespace rollcall::bench

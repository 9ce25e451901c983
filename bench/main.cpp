// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"
#include "app/grain/count_page.h"
#include "app/grain/grain_bench.h"
#include "bench/imports.h"
#include "bench/large_shop.h"
#include "bench/require.h"
#include "bench/soak.h"
#include "core/heat/next_temper.h"
#include "core/heat/soak.h"
#include "core/judge/gates.h"
#include "core/judge/judged.h"
#include "core/steel/composition.h"
#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/logbook.h"

#include <algorithm>
#include <cstdio>
#include <fstream>
#include <functional>
#include <memory>
#include <QApplication>
#include <QElapsedTimer>
#include <QImage>
#include <QKeyEvent>
#include <QProcess>
#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QSqlRecord>
#include <QTemporaryDir>
#include <stdexcept>
#include <string>
#include <vector>

// Measures what must stay quick, each against its own baseline in the same run, and prints one table. Not a test:
// figures depend on the machine and are read by a person.

using namespace rollcall;

namespace {

struct Times {
    double least = 0;
    double median = 0;
    double most = 0;
};

// What others on the same host had of this machine's processors since it was made, in 100: figures taken while that is
// much are theirs as well (/proc/stat, proc(5); nought on a machine of one's own).
class Neighbours {
public:
    Neighbours() : m_begun(now()) {}
    double had() const {
        const Jiffies ended = now();
        const double all = ended.all - m_begun.all;
        return all > 0 ? 100 * (ended.stolen - m_begun.stolen) / all : 0;
    }

private:
    struct Jiffies {
        double all = 0;
        double stolen = 0;
    };
    static Jiffies now() {
        constexpr int stolen = 7; // behind user, nice, system, idle, iowait, irq and softirq; guests are in user
        Jiffies jiffies;
        std::ifstream stat("/proc/stat");
        std::string cpu;
        stat >> cpu;
        double one = 0;
        for (int i = 0; i <= stolen && stat >> one; ++i) {
            jiffies.all += one;
            if (i == stolen) jiffies.stolen = one;
        }
        return jiffies;
    }

    Jiffies m_begun;
};

double once(const std::function<void()>& work) {
    QElapsedTimer clock;
    clock.start();
    work();
    return static_cast<double>(clock.nsecsElapsed()) / 1e6;
}

Times summed(std::vector<double> ms) {
    std::sort(ms.begin(), ms.end());
    return {ms.front(), ms[ms.size() / 2], ms.back()};
}

// Each way in turn, so that what else the machine does meets them alike.
std::vector<Times> alternating(int runs, const std::vector<std::function<void()>>& ways) {
    std::vector<std::vector<double>> ms(ways.size());
    for (int i = 0; i < runs; ++i) {
        for (std::size_t way = 0; way < ways.size(); ++way) ms[way].push_back(once(ways[way]));
    }
    std::vector<Times> times;
    for (const std::vector<double>& one : ms) times.push_back(summed(one));
    return times;
}

Times timed(int runs, const std::function<void()>& work) {
    return alternating(runs, {work}).front();
}

void row(const char* what, const Times& t) {
    std::printf("%-64s %9.3f %9.3f %9.3f ms\n", what, t.least, t.median, t.most);
}

void require(bool ok, const QString& what) {
    bench::require(ok, what.toStdString());
}

// The three ways of one number, each run alternating with the others on the same disk: a bare row; the reading with its
// change log entry; the same, and its batch judged anew with the reading in it.
void durableReading(const QString& folder, const Tables& tables) {
    const QString path = folder + QStringLiteral("/durable.rollcall");
    DemoOptions options;
    options.today = LogbookSeams::real().now();
    require(writeDemo(path, tables, options).ok(), QStringLiteral("the demo was not written"));
    auto opened = Logbook::open(path, Logbook::Access::write);
    require(opened.ok(), QStringLiteral("the demo was not opened"));
    Logbook& logbook = *opened.value();
    Batch batch = logbook.batch(logbook.batches().value().back().id).value();
    ReadingDraft draft;
    draft.gate = Gate::quench;
    draft.after_temper = 0;
    draft.tester = batch.testers.front().id;
    int i = 0;
    const auto log = [&] {
        draft.blade = batch.blades[static_cast<std::size_t>(i) % batch.blades.size()].id;
        draft.value = 50.0 + 0.1 * (++i % 20);
        require(logReading(logbook, draft).ok(), QStringLiteral("a reading was not logged"));
    };
    // The same row into the same table with its indexes, in a copy of that logbook, by SQLite alone.
    require(logbook.backup(folder + QStringLiteral("/bare.db")).ok(), QStringLiteral("the demo was not copied"));
    QSqlDatabase db = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), QStringLiteral("bare"));
    db.setDatabaseName(folder + QStringLiteral("/bare.db"));
    require(db.open(), db.lastError().text());
    QSqlQuery query(db);
    for (const char* sql : {"PRAGMA journal_mode=WAL", "PRAGMA synchronous=FULL", "PRAGMA foreign_keys=ON",
                            "SELECT * FROM reading WHERE blade IS NOT NULL LIMIT 1"})
        require(query.exec(QLatin1String(sql)), query.lastError().text());
    require(query.next(), QStringLiteral("the demo has no reading"));
    QVariantList values;
    QStringList places;
    for (int column = 0; column < query.record().count(); ++column) {
        values << query.value(column);
        places << QStringLiteral("?");
    }
    query.prepare(QStringLiteral("INSERT INTO reading VALUES (%1)").arg(places.join(QLatin1Char(','))));
    const auto insert = [&] {
        values[0] = QString::fromStdString(LogbookSeams::real().newId());
        for (const QVariant& value : values) query.addBindValue(value);
        require(query.exec(), query.lastError().text());
    };
    // As the window does: what it knew of the batch before spares what the reading does not touch. The batch stays as
    // large as it is in the demo: the reading takes the place of the last one of its blade.
    std::unique_ptr<Judged> known;
    const auto judge = [&] {
        Blade& blade = batch.blades[static_cast<std::size_t>(i - 1) % batch.blades.size()];
        if (!blade.readings.empty()) blade.readings.back().value = draft.value;
        known = std::make_unique<Judged>(batch, tables, std::nullopt, known.get());
    };
    std::vector<std::function<void()>> ways{insert, log, [&] {
                                                log();
                                                judge();
                                            }};
    const std::vector<Times> times = alternating(3000, ways);
    row("bare insert of the same row, WAL, synchronous FULL", times[0]);
    row("one reading logged with its change log entry", times[1]);
    row("the same, and its batch judged", times[2]);
    std::printf("%-64s %9s %9.2f\n", "  logged, times the bare insert", "", times[1].median / times[0].median);
    std::printf("%-64s %9s %9.2f\n", "  logged and judged, times the bare insert (limit 2)", "",
                times[2].median / times[0].median);
}

void judgeThousand(const Tables& tables) {
    Batch batch;
    batch.grade = "115CrV3";
    batch.window = {61.0, 63.0};
    batch.plan[indexOf(Gate::temper)] = {true, 10};
    Tester tester;
    tester.id = "t";
    batch.testers.push_back(tester);
    Verification run;
    run.tester = "t";
    run.certified = 62.6;
    run.readings = {62.7, 62.9, 62.8, 62.8, 62.8};
    run.time = Instant{1000, 0};
    batch.verifications.push_back(run);
    for (int b = 0; b < 1000; ++b) {
        Blade blade;
        blade.shape = BladeShape::knife(120, 28, 2.4);
        blade.shape.reading_line_mm = 3;
        blade.tempers.push_back({"c", 1, 1, 205, 2, "", Instant{2000, 0}});
        for (int i = 0; i < 10; ++i) {
            Reading r;
            r.id = std::to_string(b * 10 + i);
            r.after_temper = 1;
            r.value = 61.5 + 0.1 * ((b + 3 * i) % 12);
            r.tester = "t";
            r.time = Instant{3000 + i, 0};
            r.spot = Spot{8.0 + 9.0 * i, 3.0};
            blade.readings.push_back(r);
        }
        batch.blades.push_back(blade);
    }
    row("judge 1000 blades of 10 readings (limit 20)", timed(30, [&] { judgeBatch(batch, tables, std::nullopt); }));
}

Times started(const QString& program, const QStringList& arguments) {
    return timed(20, [&] {
        QProcess process;
        process.start(program, arguments);
        require(process.waitForFinished(20000) && process.exitCode() == 0, program + QStringLiteral(" did not end"));
    });
}

void firstPaint(const QString& folder, const Tables& tables) {
    const QString path = folder + QStringLiteral("/start.rollcall");
    DemoOptions options;
    options.today = LogbookSeams::real().now();
    require(writeDemo(path, tables, options).ok(), QStringLiteral("the demo was not written"));
    started(QStringLiteral(EMPTY_WINDOW), {}); // warms the cache
    const Times empty = started(QStringLiteral(EMPTY_WINDOW), {});
    const Times demo = started(QStringLiteral(ROLLCALL_PROGRAM), {path, QStringLiteral("--first-paint")});
    row("start to first paint, an empty window with the same libraries", empty);
    row("start to first paint of the demo logbook", demo);
    std::printf("%-64s %9.1f ms\n", "  more than the empty window (limit 150)", demo.median - empty.median);
}

} // namespace

// A logger's file of a million samples, read and integrated; and the next temper worked out anew with 60 readings of
// the batch and 300 of the shop behind it.
void heat(const Tables& tables) {
    std::string text = "seconds,celsius\n";
    for (int i = 0; i < 1000000; ++i) text += std::to_string(i) + ',' + std::to_string(780 + i % 40) + ".25\n";
    row("trace of 1,000,000 samples read and integrated (limit 1000)", timed(7, [&] {
            const auto file = readTrace(text);
            require(file.ok() && file->trace.samples().size() == 1000000, QStringLiteral("the trace was not read"));
            const double end = file->trace.end();
            require(soakAbove(file->trace, 800, 0, end).ok() && equivalentMinutes(file->trace, 800, 735, 0, end).ok(),
                    QStringLiteral("the trace was not integrated"));
        }));
    std::vector<Grade> library;
    while (library.size() < 2000) library.insert(library.end(), tables.grades().begin(), tables.grades().end());
    library.resize(2000);
    const auto shot =
        typedShot("Cr 13.5; Mn 0.47; Ni 0.14; Mo 0.05; V <0.05; Si 0.4; Cu 0.09; W <0.05; Co <0.1").value();
    row("ranking of a composition against 2000 grades (limit 10)", timed(50, [&] {
            require(rankGrades(shot.elements, library, tables, AnalysisMethod::xrf).ok(), QStringLiteral("no ranking"));
        }));
    const Grade& grade = *tables.grade("115CrV3");
    std::vector<TemperObservation> observations;
    for (int i = 0; i < 360; ++i)
        observations.push_back({i < 300 ? "h" + std::to_string(i / 10) : "now", "b" + std::to_string(i / 2),
                                6800.0 + 40 * (i % 9), 62.0 + 0.1 * (i % 7), 0.3});
    TemperAim aim;
    aim.window = {61, 63};
    row("next temper advised anew, 360 readings behind it (limit 5)", timed(100, [&] {
            const auto model = TemperModel::learn(grade, {}, observations);
            require(model.ok() && adviseTemper(*model, grade, {"now", "b150", {{185, 2}}}, aim).ok(),
                    QStringLiteral("no advice"));
        }));
}

// The longest that the interface thread is away from its events while a photo of 24 megapixels is opened, zoomed and
// moved in the real window.
void largePhoto(const QString& folder, const Tables& tables) {
    QImage image(6000, 4000, QImage::Format_RGB32);
    std::uint32_t noise = 1;
    for (int y = 0; y < image.height(); ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < image.width(); ++x) {
            noise = noise * 1664525 + 1013904223;
            const int grey = 90 + static_cast<int>((noise >> 27) + static_cast<unsigned>((x / 40 + y / 40) % 3) * 30);
            line[x] = qRgb(grey, grey, grey);
        }
    }
    const QString photo = folder + QStringLiteral("/large.jpg");
    require(image.save(photo, "JPG", 90), QStringLiteral("the photo was not written"));
    const QString path = folder + QStringLiteral("/photo.rollcall");
    DemoOptions options;
    options.today = LogbookSeams::real().now();
    require(writeDemo(path, tables, options).ok(), QStringLiteral("the demo was not written"));
    require(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts")), QStringLiteral("no typefaces"));
    Document document(Tables(tables), LogbookSeams::real());
    MainWindow window(document, Look(), Seams::real());
    window.resize(1280, 800);
    window.show();
    document.open(path, false);
    double longest = 0;
    QElapsedTimer since;
    const auto turn = [&] {
        QCoreApplication::processEvents(QEventLoop::AllEvents);
        longest = std::max(longest, static_cast<double>(since.nsecsElapsed()) / 1e6);
        since.start();
    };
    const auto until = [&](const std::function<bool()>& done) {
        QElapsedTimer clock;
        clock.start();
        while (!done()) {
            require(clock.elapsed() < 60000, QStringLiteral("the window does not come to rest"));
            turn();
            QThread::msleep(1);
        }
    };
    const auto grain = [&]() -> GrainBench& { return *window.findChild<GrainBench*>(); };
    const auto resting = [&] { return document.pending() == 0 && grain().photos().idle(); };
    since.start();
    until([&] { return document.hasBatch() && resting(); });
    window.open(QStringLiteral("grain-bench"));
    until(resting);
    longest = 0;
    since.start();
    QElapsedTimer opening;
    opening.start();
    grain().takeFile(photo);
    until([&] { return resting() && grain().count().photo() != nullptr; });
    grain().count().keepScale(900, QStringLiteral("900"));
    turn();
    until(resting);
    std::printf("%-64s %9s %9.0f ms\n", "photo of 24 megapixels taken in and shown", "", double(opening.elapsed()));
    std::printf("%-64s %9s %9.1f ms\n", "  longest gap of the interface thread (limit 100)", "", longest);
    longest = 0;
    for (int i = 0; i < 24; ++i) {
        grain().count().zoom(i < 12 ? 1.25 : 0.8);
        turn();
    }
    std::printf("%-64s %9s %9.1f ms\n", "  longest gap while zooming (limit 100)", "", longest);
    longest = 0;
    grain().count().zoom(6);
    for (int i = 0; i < 30; ++i) {
        QKeyEvent key(QEvent::KeyPress, i < 15 ? Qt::Key_Right : Qt::Key_Down, Qt::NoModifier);
        grain().count().key(&key);
        turn();
    }
    until(resting);
    std::printf("%-64s %9s %9.1f ms\n", "  longest gap while moving about (limit 100)", "", longest);
}

// A reading in a shop of a hundred thousand readings, and of a million, against the same in the demo.
void shops(const QString& folder, const Tables& tables, bool million) {
    struct Size {
        int scale;
        const char* name;
    };
    std::vector<Size> sizes{{1, "demo"}, {139, "100k"}};
    if (million) sizes.push_back({1389, "1m"});
    std::vector<bench::LargeShop> measured;
    for (const Size& size : sizes) {
        const Neighbours neighbours;
        const bench::LargeShop shop =
            bench::largeShop(folder + QStringLiteral("/%1.rollcall").arg(QLatin1String(size.name)), size.scale, tables);
        std::printf("a shop of %d readings; others had %.0f in 100 of the processors\n", shop.readings,
                    neighbours.had());
        const Times entered = summed(shop.entered_ms);
        std::vector<double> sorted = shop.entered_ms;
        std::sort(sorted.begin(), sorted.end());
        row("  Enter to painted result (limit 20 median)", entered);
        std::printf("%-64s %9s %9.3f ms\n", "    of 95 in 100 (limit 50)", "", sorted[sorted.size() * 95 / 100]);
        row("  another batch chosen to painted", summed(shop.chosen_ms));
        std::printf("%-64s %9s %9.1f ms\n", "  opened to painted", "", shop.opened_ms);
        std::printf("%-64s %9s %9.0f ms\n", "  all its words gathered, between acts", "", shop.gathered_ms);
        row("  each key of what is looked for, to what is found", summed(shop.sought_ms));
        std::vector<double> keys = shop.sought_ms;
        std::sort(keys.begin(), keys.end());
        std::printf("%-64s %9s %9.3f ms\n", "    of 95 in 100 (limit 50)", "", keys[keys.size() * 95 / 100]);
        std::printf("%-64s %9s %9.0f ms\n", "  all batches gone through for the ledger, between acts", "",
                    shop.booked_ms);
        for (const auto& [page, ms] : shop.views_ms)
            std::printf("%-64s %9s %9.0f ms\n", ("  ledger, " + page + " (limit 500)").c_str(), "", ms);
        std::vector<double> steps = shop.what_if_ms;
        std::sort(steps.begin(), steps.end());
        row("  what if, each step of a drag", summed(shop.what_if_ms));
        std::printf("%-64s %9s %9.1f ms\n", "    of 95 in 100 (limit 100)", "", steps[steps.size() * 95 / 100]);
        std::printf("%-64s %9s %9.0f MB\n", "  memory at its most", "", shop.memory_mb);
        if (!measured.empty()) {
            std::printf("%-64s %9s %9.2f\n", "    Enter, times the demo's (limit 1.5)", "",
                        entered.median / summed(measured.front().entered_ms).median);
            std::printf("%-64s %9s %9.1f ms\n", "    opened, more than the demo (limit 300)", "",
                        shop.opened_ms - measured.front().opened_ms);
        }
        measured.push_back(shop);
    }
}

void imports(const QString& folder, bool million) {
    for (const int lines : {1000, 10000, 100000, 1000000}) {
        if (lines == 1000000 && !million) break;
        const Neighbours neighbours;
        const bench::Imported cost = bench::imported(folder, lines);
        std::printf("%-64s %9.2f s, %.0f MB, %.0f bytes a reading in the file\n",
                    qPrintable(QStringLiteral("import of a table of %1 lines").arg(lines)), cost.seconds,
                    cost.memory_mb, cost.bytes);
        if (cost.shell_s > 0)
            std::printf("%-64s %9.2f s, %.1f times\n", "  the sqlite3 shell, the same rows into the same tables",
                        cost.shell_s, cost.seconds / cost.shell_s);
        std::printf("%-64s %9.2f s, %.0f MB\n", "  looked through whole", cost.checked_s, cost.checked_mb);
        std::printf("%-64s %9.0f in 100\n", "  others had of the processors", neighbours.had());
    }
}

void soak(const QString& folder, const Tables& tables, double minutes) {
    const bench::Soak day = bench::soak(folder, tables, minutes);
    std::printf("eight hours of a shop in %.1f minutes, %d lines a second, %d times past midnight\n", day.minutes, 50,
                day.midnights);
    std::printf("%-64s %9d\n", "  readings said by the tester", day.said);
    std::printf("%-64s %9d\n", "  of them in the logbook", day.stored);
    std::printf("%-64s %9d\n", "  rubbish, repetitions, halves and lines pulled out", day.faults);
    std::printf("%-64s %9d\n", "  batches read", day.batches);
    std::printf("%-64s %9d\n", "  readings that waited at the same time, at most", day.most_waiting);
    for (std::size_t i = 0; i < day.memory.size(); ++i)
        std::printf("  memory after %3d in 100: %9.1f MB whole, %9.1f SQLite's, %9.1f asked for by all else\n",
                    static_cast<int>(10 * (i + 1)), day.memory[i].whole, day.memory[i].of_sqlite, day.memory[i].others);
    for (const QString& problem : day.problems) std::printf("  %s\n", qPrintable(problem));
    require(day.said == day.stored && day.problems.isEmpty(), QStringLiteral("readings are lost"));
}

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    const QTemporaryDir folder;
    qputenv("ROLLCALL_DATA", ROLLCALL_DATA_DIR);
    qputenv("XDG_CONFIG_HOME", folder.path().toLocal8Bit());
    const QApplication application(argc, argv);
    try {
        const Tables tables = Tables::load(std::string(ROLLCALL_DATA_DIR) + "/tables").value();
        std::printf("%-64s %9s %9s %9s\n", "", "least", "median", "most");
        const QStringList asked = QCoreApplication::arguments();
        if (const qsizetype at = asked.indexOf(QStringLiteral("--soak")); at > 0) {
            soak(folder.path(), tables, std::max(0.5, asked.value(at + 1, QStringLiteral("20")).toDouble()));
            return 0;
        }
        if (asked.contains(QStringLiteral("--imports"))) {
            imports(folder.path(), asked.contains(QStringLiteral("--million")));
            return 0;
        }
        const int at = static_cast<int>(asked.indexOf(QStringLiteral("--shops")));
        if (at > 0) { // these alone, in a folder that keeps them
            shops(asked.value(at + 1, folder.path()), tables, asked.contains(QStringLiteral("--million")));
            return 0;
        }
        durableReading(folder.path(), tables);
        shops(folder.path(), tables, asked.contains(QStringLiteral("--million")));
        imports(folder.path(), asked.contains(QStringLiteral("--million")));
        judgeThousand(tables);
        heat(tables);
        firstPaint(folder.path(), tables);
        largePhoto(folder.path(), tables);
    } catch (const std::exception& trouble) {
        std::fprintf(stderr, "rollcall_bench: %s\n", trouble.what());
        return 1;
    }
    return 0;
}

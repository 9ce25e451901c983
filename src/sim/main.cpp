// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_oven.h"
#include "sim/simulated_scale.h"
#include "sim/simulated_tester.h"
#include "sim/simulated_xrf.h"

#include <cstdio>
#include <functional>
#include <memory>
#include <QCommandLineParser>
#include <QCoreApplication>
#include <QSocketNotifier>
#include <QTimer>
#include <unistd.h>

// Instruments that are none: they speak over a pseudo terminal as real ones would, with faults to order.
int main(int argc, char** argv) {
    QCoreApplication application(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral(
        "Simulated instruments for Rollcall. The path of the line is printed first; then commands are read from "
        "standard input, one a line: again, garbage, unplug, plug, quit; a tester: read [VALUE], partial, rest, "
        "overshoot, double, flood N; an oven: tick, set C, open, broken; a scale: tick, press N, let go, overload; an "
        "XRF: shoot, coated, rubbish, half, rest."));
    parser.addPositionalArgument(QStringLiteral("KIND"), QStringLiteral("tester, rebound, oven, scale or xrf"));
    const QCommandLineOption link(QStringLiteral("link"), QStringLiteral("A link that always leads to the line."),
                                  QStringLiteral("PATH"));
    const QCommandLineOption truth(QStringLiteral("truth"), QStringLiteral("True hardness, HRC."),
                                   QStringLiteral("HRC"), QStringLiteral("62.0"));
    const QCommandLineOption noise(QStringLiteral("noise"), QStringLiteral("Scatter of single readings, HRC."),
                                   QStringLiteral("SD"));
    const QCommandLineOption drift(QStringLiteral("drift"), QStringLiteral("Drift a reading, HRC."),
                                   QStringLiteral("HRC"), QStringLiteral("0"));
    const QCommandLineOption every(QStringLiteral("every"),
                                   QStringLiteral("Says a line by itself, so many milliseconds apart."),
                                   QStringLiteral("MS"));
    const QCommandLineOption seed(QStringLiteral("seed"), QStringLiteral("Seed of the scatter."), QStringLiteral("N"),
                                  QStringLiteral("1"));
    const QCommandLineOption set(QStringLiteral("set"), QStringLiteral("Set point of an oven, °C."),
                                 QStringLiteral("C"), QStringLiteral("800"));
    const QCommandLineOption start(QStringLiteral("start"), QStringLiteral("Where an oven begins, °C."),
                                   QStringLiteral("C"), QStringLiteral("800"));
    const QCommandLineOption folder(QStringLiteral("folder"), QStringLiteral("Folder of an XRF's shots."),
                                    QStringLiteral("DIR"), QStringLiteral("."));
    const QCommandLineOption steel(QStringLiteral("steel"), QStringLiteral("What an XRF looks at."),
                                   QStringLiteral("ELEMENTS"),
                                   QStringLiteral("Cr 13.4; Mn 0.45; Ni 0.14; Mo 0.04; V 0.02"));
    const QCommandLineOption unit(QStringLiteral("unit"), QStringLiteral("Unit of a scale: N, lbf or kgf."),
                                  QStringLiteral("UNIT"), QStringLiteral("N"));
    parser.addOptions({unit, link, truth, noise, drift, every, seed, set, start, folder, steel});
    parser.addHelpOption();
    parser.process(application);
    const QString kind = parser.positionalArguments().value(0);
    const quint64 seeded = parser.value(seed).toULongLong();
    std::unique_ptr<rollcall::SimulatedInstrument> instrument;
    std::unique_ptr<rollcall::SimulatedXrf> xrf;
    if (kind == QLatin1String("tester") || kind == QLatin1String("rebound")) {
        auto tester = std::make_unique<rollcall::SimulatedTester>(kind == QLatin1String("rebound") ? 0.8 : 0.2, seeded);
        tester->truth = parser.value(truth).toDouble();
        if (parser.isSet(noise)) tester->noise = parser.value(noise).toDouble();
        tester->drift = parser.value(drift).toDouble();
        instrument = std::move(tester);
    } else if (kind == QLatin1String("oven")) {
        auto oven = std::make_unique<rollcall::SimulatedOven>(seeded);
        oven->set_c = parser.value(set).toDouble();
        oven->now_c = parser.value(start).toDouble();
        if (parser.isSet(every)) oven->step_s = parser.value(every).toDouble() / 1000;
        instrument = std::move(oven);
    } else if (kind == QLatin1String("scale")) {
        auto scale = std::make_unique<rollcall::SimulatedScale>(seeded);
        scale->unit = parser.value(unit);
        instrument = std::move(scale);
    } else if (kind == QLatin1String("xrf")) {
        const auto typed = rollcall::typedShot(parser.value(steel).toStdString());
        if (!typed) {
            std::fprintf(stderr, "rollcall-sim: %s\n", typed.error().message().c_str());
            return 2;
        }
        xrf = std::make_unique<rollcall::SimulatedXrf>(parser.value(folder), *typed, seeded);
    } else {
        std::fprintf(stderr, "rollcall-sim: the kind is tester, rebound, oven, scale or xrf\n");
        return 2;
    }
    const auto obey = [&](const QString& words) { return xrf ? xrf->command(words) : instrument->command(words); };
    if (instrument) {
        instrument->link = parser.value(link);
        if (const auto plugged = instrument->plug(); !plugged) {
            std::fprintf(stderr, "rollcall-sim: %s\n", plugged.error().message().c_str());
            return 1;
        }
    }
    std::printf("%s\n", qPrintable(instrument ? instrument->path() : parser.value(folder)));
    std::fflush(stdout);

    QTimer timer;
    if (parser.isSet(every)) {
        QObject::connect(&timer, &QTimer::timeout, &timer,
                         [&] { (void)obey(instrument ? instrument->usualCommand() : QStringLiteral("shoot")); });
        timer.start(std::max(1, parser.value(every).toInt()));
    }
    QByteArray input;
    QSocketNotifier notifier(STDIN_FILENO, QSocketNotifier::Read);
    QObject::connect(&notifier, &QSocketNotifier::activated, &application, [&] {
        char buffer[4096];
        const ssize_t got = ::read(STDIN_FILENO, buffer, sizeof buffer);
        if (got <= 0) {
            notifier.setEnabled(false);
            if (!timer.isActive()) QCoreApplication::quit();
            return;
        }
        input.append(buffer, got);
        for (qsizetype end = input.indexOf('\n'); end >= 0; end = input.indexOf('\n')) {
            const QString line = QString::fromUtf8(input.left(end)).trimmed();
            input.remove(0, end + 1);
            if (line == QLatin1String("quit")) return QCoreApplication::quit();
            const auto done = obey(line);
            std::printf("%s\n", done ? "ok" : done.error().text.c_str());
            std::fflush(stdout);
        }
    });
    return QCoreApplication::exec();
}

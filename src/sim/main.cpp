// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_tester.h"

#include <cstdio>
#include <QCommandLineParser>
#include <QCoreApplication>
#include <QSocketNotifier>
#include <QTimer>
#include <unistd.h>

// A hardness tester that is none: it speaks over a pseudo terminal as a real one would, with faults to order.
int main(int argc, char** argv) {
    QCoreApplication application(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral(
        "Simulated instruments for Rollcall. The path of the line is printed first; then commands are read from "
        "standard "
        "input, one a line: read [VALUE], again, garbage, partial, rest, overshoot, double, flood N, unplug, plug, "
        "quit."));
    parser.addPositionalArgument(QStringLiteral("KIND"), QStringLiteral("tester or rebound"));
    const QCommandLineOption link(QStringLiteral("link"), QStringLiteral("A link that always leads to the line."),
                                  QStringLiteral("PATH"));
    const QCommandLineOption truth(QStringLiteral("truth"), QStringLiteral("True hardness, HRC."),
                                   QStringLiteral("HRC"), QStringLiteral("62.0"));
    const QCommandLineOption noise(QStringLiteral("noise"), QStringLiteral("Scatter of single readings, HRC."),
                                   QStringLiteral("SD"));
    const QCommandLineOption drift(QStringLiteral("drift"), QStringLiteral("Drift a reading, HRC."),
                                   QStringLiteral("HRC"), QStringLiteral("0"));
    const QCommandLineOption every(
        QStringLiteral("every"), QStringLiteral("Reads by itself, so many milliseconds apart."), QStringLiteral("MS"));
    const QCommandLineOption seed(QStringLiteral("seed"), QStringLiteral("Seed of the scatter."), QStringLiteral("N"),
                                  QStringLiteral("1"));
    parser.addOptions({link, truth, noise, drift, every, seed});
    parser.addHelpOption();
    parser.process(application);
    const QString kind = parser.positionalArguments().value(0);
    if (kind != QLatin1String("tester") && kind != QLatin1String("rebound")) {
        std::fprintf(stderr, "rollcall-sim: the kind is tester or rebound\n");
        return 2;
    }
    rollcall::SimulatedTester tester(kind == QLatin1String("rebound") ? 0.8 : 0.2, parser.value(seed).toULongLong());
    tester.truth = parser.value(truth).toDouble();
    if (parser.isSet(noise)) tester.noise = parser.value(noise).toDouble();
    tester.drift = parser.value(drift).toDouble();
    tester.link = parser.value(link);
    if (const auto plugged = tester.plug(); !plugged) {
        std::fprintf(stderr, "rollcall-sim: %s\n", plugged.error().message().c_str());
        return 1;
    }
    std::printf("%s\n", qPrintable(tester.path()));
    std::fflush(stdout);

    QTimer timer;
    if (parser.isSet(every)) {
        QObject::connect(&timer, &QTimer::timeout, &timer, [&] { (void)tester.command(QStringLiteral("read")); });
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
            const auto done = tester.command(line);
            std::printf("%s\n", done ? "ok" : done.error().text.c_str());
            std::fflush(stdout);
        }
    });
    return QCoreApplication::exec();
}

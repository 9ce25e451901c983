// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "words/data_folder.h"

#include <cstdio>
#include <cstring>
#include <memory>
#include <QGuiApplication>

int main(int argc, char** argv) {
    // Errors are one line of our own; what Qt has to say of its surroundings is not for standard error.
    qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});
    // Only what draws a page needs typefaces; it never needs a display.
    const bool draws = argc > 1 && std::strcmp(argv[1], "report") == 0;
    if (draws) qputenv("QT_QPA_PLATFORM", "offscreen");
    const std::unique_ptr<QCoreApplication> application =
        draws ? std::make_unique<QGuiApplication>(argc, argv) : std::make_unique<QCoreApplication>(argc, argv);
    const rollcall::cli::Answer answer =
        rollcall::cli::run(QCoreApplication::arguments().mid(1), rollcall::dataFolder() + QStringLiteral("/tables"));
    std::fwrite(answer.output.constData(), 1, static_cast<std::size_t>(answer.output.size()), stdout);
    std::fwrite(answer.error.constData(), 1, static_cast<std::size_t>(answer.error.size()), stderr);
    return answer.exit_code;
}

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "words/data_folder.h"

#include <cstdio>
#include <QCoreApplication>

int main(int argc, char** argv) {
    const QCoreApplication application(argc, argv);
    const rollcall::cli::Answer answer =
        rollcall::cli::run(QCoreApplication::arguments().mid(1), rollcall::dataFolder() + QStringLiteral("/tables"));
    std::fwrite(answer.output.constData(), 1, static_cast<std::size_t>(answer.output.size()), stdout);
    std::fwrite(answer.error.constData(), 1, static_cast<std::size_t>(answer.error.size()), stderr);
    return answer.exit_code;
}

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/logbook.h"

#include <cstdio>
#include <QCoreApplication>
#include <QString>

// Logs readings without end and prints the id of each once it is acknowledged. Meant to be killed.
int main(int argc, char** argv) {
    const QCoreApplication application(argc, argv);
    auto opened = rollcall::Logbook::open(QString::fromLocal8Bit(argv[1]), rollcall::Logbook::Access::write);
    if (!opened) {
        std::fprintf(stderr, "%s\n", opened.error().message().c_str());
        return 1;
    }
    rollcall::Logbook& logbook = **opened;
    const auto batches = logbook.batches();
    const auto batch = logbook.batch(batches->front().id);
    rollcall::ReadingDraft draft;
    draft.blade = batch->blades.front().id;
    draft.tester = batch->testers.front().id;
    draft.after_temper = 1;
    for (int i = 0;; ++i) {
        draft.value = 60.0 + 0.1 * (i % 30);
        const auto id = logReading(logbook, draft);
        if (!id) return 1;
        std::printf("%s\n", id->c_str());
        std::fflush(stdout);
    }
}

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/window_driver.h"

#include <cstdio>

using rollcall::fixtures::WindowDriver;

// Works in the real window of a logbook: types readings, takes a table in, writes a package and a backup, round after
// round, and prints how many readings it has seen acknowledged. Meant to be killed.
int main(int argc, char** argv) {
    const QApplication application(argc, argv);
    const QString path = QString::fromLocal8Bit(argv[1]);
    const QString folder = QFileInfo(path).absolutePath();
    WindowDriver d(path);
    const auto tell = [&] {
        std::size_t readings = 0;
        for (const rollcall::Blade& blade : d.document().batch().blades) readings += blade.readings.size();
        std::printf("%zu\n", readings);
        std::fflush(stdout);
    };
    const auto leave = [&] {
        while (QApplication::activeModalWidget() != nullptr) d.press(Qt::Key_Escape);
    };
    for (int round = 0; round < 4; ++round) {
        d.press(Qt::Key_F5); // Temper
        for (const char* keys : {"*621\n", "*623\n", "*622\n"}) {
            d.type(QLatin1String(keys));
            tell();
        }
        d.drop(d.writeFile(QStringLiteral("r%1.csv").arg(round),
                           QStringLiteral("batch,blade,gate,value\nHedge,R%1,temper,61.0\n").arg(round).toUtf8()));
        leave();
        d.document().selectBatch(d.document().state().batches().front().id);
        d.settle();
        for (const auto& [name, keys] : {std::pair("package%1.zip", "i8"), std::pair("backup%1.rollcall", "ib")}) {
            d.chooseFile(folder + QLatin1Char('/') + QString::fromLatin1(name).arg(round));
            d.type(QLatin1String(keys));
            leave();
        }
        tell();
    }
}

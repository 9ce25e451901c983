// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QTimer>
#include <QWidget>

int main(int argc, char** argv) {
    const QApplication application(argc, argv);
    QWidget window;
    window.resize(1280, 800);
    window.show();
    QTimer::singleShot(0, &window, [&] {
        window.repaint();
        QCoreApplication::quit();
    });
    return QApplication::exec();
}

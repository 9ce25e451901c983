// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"
#include "tests/support/ledger.h"
#include "tests/support/window_driver.h"

namespace rollcall::fixtures {

/// Texts as they are drawn: where each stands, and which were cut.
struct SeenTexts : TextWatcher {
    struct Text {
        QString text;
        QRectF place;
    };
    std::vector<Text> texts;
    QStringList cuts;
    SeenTexts() { watchText(this); }
    ~SeenTexts() override { watchText(nullptr); }
    void drawn(const QString& text, const QRectF& place) override { texts.push_back({text, place}); }
    void cut(const QString& whole) override { cuts << whole; }
    Q_DISABLE_COPY_MOVE(SeenTexts)
};

/// Where each gate's place and each page of it is looked at.
inline QStringList places() {
    return {"overview",
            "F2",
            "F3.0",
            "F3.1",
            "F3.2",
            "F3.3",
            "F3.4",
            "F3.5",
            "F4",
            "F5",
            "F6",
            "F7.0",
            "F7.1",
            "F7.2",
            "F7.3",
            "F7.4",
            "ledger-bench.0",
            "ledger-bench.1",
            "ledger-bench.2",
            "ledger-bench.3",
            "ledger-bench.4",
            "ledger-bench.5",
            "ledger-bench.6",
            "ledger-bench.7",
            "F8",
            "testers-bench",
            "grain-bench.0",
            "grain-bench.1",
            "grain-bench.2",
            "pile-bench"};
}
inline void goTo(WindowDriver& d, const QString& place) {
    const QString name = place.section('.', 0, 0);
    const int page = place.contains('.') ? place.section('.', 1).toInt() : -1;
    if (name == QLatin1String("overview"))
        d.window().openOverview();
    else if (name.startsWith('F')) {
        d.window().openGate(allGates[static_cast<std::size_t>(name.mid(1).toInt() - 2)]);
        if (page >= 0) d.window().open(d.window().place(), page);
    } else {
        d.window().open(name, page);
    }
    d.settle();
    ledgerPage(d);
}

} // namespace rollcall::fixtures

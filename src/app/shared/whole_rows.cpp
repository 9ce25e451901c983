// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/whole_rows.h"

#include <algorithm>

namespace rollcall {

void WholeRows::fit() {
    const int room = height() - 2 * frameWidth();
    int used = 0;
    for (int row = 0; row < count(); ++row) {
        const int high = sizeHintForRow(row) + 2 * spacing();
        if (used + high > room) break;
        used += high;
    }
    const bool all = used == 0 || count() * sizeHintForRow(0) < room;
    setViewportMargins(0, 0, 0, all ? 0 : std::max(0, room - used));
}

void WholeRows::resizeEvent(QResizeEvent* event) {
    QListWidget::resizeEvent(event);
    fit();
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QListWidget>

namespace rollcall {

/// A list that shows whole rows only: what is left of its height below the last one that fits stays empty.
class WholeRows : public QListWidget {
    Q_OBJECT

public:
    using QListWidget::QListWidget;
    /// After its rows have become others.
    void fit();

protected:
    void resizeEvent(QResizeEvent* event) override;
};

} // namespace rollcall

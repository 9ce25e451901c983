// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <functional>
#include <QDialog>
#include <QImage>
#include <vector>

class QLabel;

namespace rollcall {

class PrimaryButton;

/// The pages before they are written: looked at one by one, then written, printed, or left.
class PagePreview : public QDialog {
    Q_OBJECT

public:
    PagePreview(const QString& title, std::vector<QImage> pages, const Look& look, QWidget* parent);
    /// Shows it without blocking; write is called with whether the printer is wanted.
    void ask(std::function<void(bool printer)> write);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void turn(int by);
    void finish(bool printer);

    QString m_title;
    std::vector<QImage> m_pages;
    int m_page = 0;
    QLabel* m_heading;
    QLabel* m_picture;
    std::function<void(bool)> m_write;
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <functional>
#include <QDialog>
#include <vector>

class QLineEdit;
class QListWidget;

namespace rollcall {

/// Something that can be done, as the finder lists it.
struct Findable {
    QString id;
    QString place; ///< object name of the place that does it; empty: here, or everywhere
    QString text;
    QString help;
    QString key;
    QString where; ///< title of the place, for the eye
};

/// Type what you want: what can be done anywhere whose words hold all that is typed, with its key and its place; Enter
/// or a click does it.
class Finder : public QDialog {
    Q_OBJECT

public:
    Finder(std::vector<Findable> all, const Look& look, QWidget* parent);
    void ask(std::function<void(const Findable&)> run);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void filter();
    void choose();

    std::vector<Findable> m_all;
    std::vector<std::size_t> m_shown; ///< places in m_all, in the order listed
    QLineEdit* m_words;
    QListWidget* m_list;
    std::function<void(const Findable&)> m_run;
};

} // namespace rollcall

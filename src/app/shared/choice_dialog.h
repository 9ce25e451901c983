// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <functional>
#include <QDialog>
#include <QStringList>
#include <vector>

class QScrollArea;

namespace rollcall {

class RowButton;

/// One thing to choose, with the key that chooses it.
struct Choice {
    QString key; ///< one character shown and pressed; empty for none
    QString text;
    QString detail;
};

/// Asks one question: explaining lines, then choices to take by key, arrows and Enter, or mouse. With no
/// choices it is a notice that any of Enter, Esc and Space closes.
class ChoiceDialog : public QDialog {
    Q_OBJECT

public:
    ChoiceDialog(const QString& title, const QStringList& lines, std::vector<Choice> choices, const Look& look,
                 QWidget* parent);
    /// A drawing between the title and the lines; the dialog owns it.
    void showPicture(QWidget* picture);
    /// Which choice Enter takes at first; the first one where this is not called.
    void choose(std::size_t first);
    bool isNotice() const { return m_choices.empty(); }
    /// Shows it without blocking; the answer is the index of the choice. Esc gives no answer.
    void ask(std::function<void(int)> answer);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void answer(int index);

    std::vector<Choice> m_choices;
    std::vector<RowButton*> m_rows;
    std::size_t m_first = 0;
    std::function<void(int)> m_answer;
    QScrollArea* m_scroll = nullptr;
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "plot/look.h"

#include <QDialog>
#include <QTimer>

class QLabel;
class QLineEdit;
class QListWidget;

namespace rollcall {

/// Finds batches, blades and notes of the whole logbook as a sentence is typed. Enter or a click opens what was found
/// where it stands. The line under the field says how the sentence was understood.
class FindDialog : public QDialog {
    Q_OBJECT

public:
    FindDialog(Document& document, const Look& look, QWidget* parent);

signals:
    /// A batch was opened, and the blade of this mark in it where there is one.
    void opened(const QString& mark);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void look();
    void show(const Found& found);
    void openHit(int row);

    Document& m_document;
    QLineEdit* m_sentence;
    QLabel* m_understood;
    QListWidget* m_list;
    QTimer m_again;  ///< while the words are being gathered
    int m_asked = 0; ///< answers to earlier keys are out of date
    std::vector<Hit> m_hits;
};

} // namespace rollcall

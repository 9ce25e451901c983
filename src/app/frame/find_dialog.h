// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "plot/look.h"

#include <QDialog>
#include <QTimer>

class QLabel;
class QLineEdit;

namespace rollcall {

class WholeRows;

class SideButton;

/// Finds batches, blades and notes of the whole logbook as a sentence is typed. Enter or a click opens what was found
/// where it stands. The line under the field says how the sentence was understood. A sentence can be kept; those that
/// are stand in the list while the field is empty.
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
    void openRow(int row);
    void openHit(const Hit& hit);
    /// Sentences that this shop keeps, the last kept first.
    QStringList kept() const;
    /// Keeps the sentence in the field for everybody who opens the logbook, or no longer.
    void keep();
    void showKeep();

    Document& m_document;
    QLineEdit* m_sentence;
    SideButton* m_keep;
    QLabel* m_understood;
    WholeRows* m_list;
    QTimer m_again;        ///< while the words are being gathered
    int m_asked = 0;       ///< answers to earlier keys are out of date
    QStringList m_offered; ///< kept sentences in the first rows, where the field is empty
    std::vector<Hit> m_hits;
};

} // namespace rollcall

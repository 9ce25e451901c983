// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"

#include <QObject>
#include <QPointer>
#include <string>
#include <vector>

namespace rollcall {

/// A form or a question is about the blade that was in hand when it was opened. Where another comes in hand meanwhile
/// (another logbook was on its way, or a batch that had been chosen just before) it is left, and that is said: what is
/// typed for one blade must not land on another.
class OpenForms : public QObject {
    Q_OBJECT

public:
    OpenForms(const Document& document, QWidget* window);

signals:
    void left(const QString& sentence);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    struct Subject {
        QString logbook;
        std::string blade; ///< id; empty where none was in hand
    };
    struct Form {
        QPointer<QObject> dialog;
        Subject about;
    };
    Subject inHand() const;
    void look();

    const Document& m_document;
    std::vector<Form> m_forms;
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "logbook/transfer/kept_copies.h"

#include <QObject>
#include <QTimer>
#include <vector>

namespace rollcall {

/// Keeps copies of the open logbook against loss: an hour after the last one, where something is new, and when the
/// window is closed; in a folder of its own, and in a second place where the maker wishes (a stick, another disk).
/// Each copy is looked through beside the window before it counts. Nothing is kept before begin().
class CopyKeeper : public QObject {
    Q_OBJECT

public:
    explicit CopyKeeper(Document& document, QObject* parent = nullptr);

    /// From now on, in a folder for each logbook under this one. Looks every so often whether an hour is over.
    void begin(const QString& folder, int look_ms = 10 * 60 * 1000);
    /// The second place, remembered on this computer; empty for none.
    static QString second();
    static void setSecond(const QString& folder);
    /// What is kept of the open logbook, the newest first, of both places.
    std::vector<KeptCopy> copies() const;
    /// Where copies of the open logbook are kept; empty where it is too large for that, or nothing is kept.
    QString folder() const;
    /// Copies into both places where something is new, as somebody wishes; where that cannot be, failed() says why.
    void keepNow();
    /// The same where an hour is over and there is a place; says nothing where there is none.
    void look();
    /// The same at once, and waits for it: before the window's logbook is closed.
    void keepLast();
    bool busy() const { return m_busy > 0; }
    /// Whether begin() was called: of a demo nothing is kept.
    bool keeps() const { return !m_under.isEmpty(); }

signals:
    void kept();
    void failed(const QString& message);

private:
    /// Whether copies can be made of what is open.
    bool canKeep() const;
    void keepIn(const QString& folder);

    Document& m_document;
    QString m_under;
    QTimer m_timer;
    int m_busy = 0;
};

} // namespace rollcall

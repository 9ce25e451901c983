// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QSet>
#include <QTimer>

namespace rollcall {

/// The folder into which an analyser drops a CSV file for every shot; a fact of the computer, kept in its settings.
/// Each file is told once, when it has stopped growing.
class ShotFolder : public QObject {
    Q_OBJECT

public:
    explicit ShotFolder(QObject* parent = nullptr);

    const QString& path() const { return m_path; }
    /// Watches this folder from now on; an empty path none. What lies there already is not told. False when there is no
    /// such folder.
    bool watch(const QString& path);

signals:
    void arrived(const QString& file);

private:
    void look();

    QFileSystemWatcher m_watcher;
    QTimer m_settle;
    QString m_path;
    QSet<QString> m_known;
    QHash<QString, qint64> m_growing;
};

} // namespace rollcall

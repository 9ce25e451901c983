// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QSet>
#include <QStringList>
#include <QTimer>

namespace rollcall {

/// A folder into which an instrument drops files: an analyser its shots, a camera its photos. Which one is a fact of
/// the computer, kept in its settings. Each file is told once, when it has stopped growing.
class WatchedFolder : public QObject {
    Q_OBJECT

public:
    /// Watches the folder kept under this name of the settings for files of these patterns.
    WatchedFolder(const QString& settingsName, const QStringList& patterns, QObject* parent = nullptr);

    const QString& path() const { return m_path; }
    /// Watches this folder from now on; an empty path none. What lies there already is not told. False when there is no
    /// such folder.
    bool watch(const QString& path);

signals:
    void arrived(const QString& file);

private:
    void look();

    QString m_name;
    QStringList m_patterns;
    QFileSystemWatcher m_watcher;
    QTimer m_settle;
    QString m_path;
    QSet<QString> m_known;
    QHash<QString, qint64> m_growing;
};

} // namespace rollcall

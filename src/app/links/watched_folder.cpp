// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/watched_folder.h"

#include <QDir>
#include <QFileInfo>
#include <QSettings>

namespace rollcall {

WatchedFolder::WatchedFolder(const QString& settingsName, const QStringList& patterns, QObject* parent)
    : QObject(parent), m_name(settingsName), m_patterns(patterns) {
    m_settle.setInterval(200);
    connect(&m_watcher, &QFileSystemWatcher::directoryChanged, this, [this] { m_settle.start(); });
    connect(&m_settle, &QTimer::timeout, this, &WatchedFolder::look);
    watch(QSettings().value(m_name).toString());
}

bool WatchedFolder::watch(const QString& path) {
    if (!m_path.isEmpty()) m_watcher.removePath(m_path);
    m_path.clear();
    m_known.clear();
    m_growing.clear();
    QSettings().setValue(m_name, path);
    if (path.isEmpty()) return true;
    const QDir folder(path);
    if (!folder.exists() || !m_watcher.addPath(path)) return false;
    m_path = path;
    for (const QString& name : folder.entryList(m_patterns, QDir::Files)) m_known.insert(name);
    return true;
}

// A file is told when two looks a moment apart find it at one size: an analyser may still be writing it.
void WatchedFolder::look() {
    bool waiting = false;
    const QDir folder(m_path);
    for (const QString& name : folder.entryList(m_patterns, QDir::Files, QDir::Time | QDir::Reversed)) {
        if (m_known.contains(name)) continue;
        const qint64 size = QFileInfo(folder.filePath(name)).size();
        if (size == 0 || m_growing.value(name, -1) != size) {
            m_growing[name] = size;
            waiting = true;
            continue;
        }
        m_known.insert(name);
        m_growing.remove(name);
        emit arrived(folder.filePath(name));
    }
    if (!waiting) m_settle.stop();
}

} // namespace rollcall

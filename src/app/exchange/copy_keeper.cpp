// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/copy_keeper.h"

#include <algorithm>
#include <QCryptographicHash>
#include <QDir>
#include <QEventLoop>
#include <QFileInfo>
#include <QPointer>
#include <QSettings>

namespace rollcall {

namespace {

const QString secondPlace = QStringLiteral("copies-second-place");
// Up to 48 copies are kept without being asked for; of larger logbooks only where the maker names a place.
constexpr qint64 largestUnasked = qint64{60} << 20;
constexpr qint64 apart_s = 3600;

} // namespace

CopyKeeper::CopyKeeper(Document& document, QObject* parent) : QObject(parent), m_document(document) {
    connect(&m_timer, &QTimer::timeout, this, &CopyKeeper::look);
}

void CopyKeeper::begin(const QString& folder, int look_ms) {
    m_under = folder;
    m_timer.start(look_ms);
}

QString CopyKeeper::second() {
    return QSettings().value(secondPlace).toString();
}

void CopyKeeper::setSecond(const QString& folder) {
    QSettings().setValue(secondPlace, folder);
}

QString CopyKeeper::folder() const {
    const QFileInfo file(m_document.path());
    if (m_under.isEmpty() || !m_document.isOpen() || file.size() > largestUnasked) return {};
    // Two logbooks may have one name.
    const QByteArray place =
        QCryptographicHash::hash(file.absoluteFilePath().toUtf8(), QCryptographicHash::Sha256).toHex().left(8);
    return QDir(m_under).filePath(file.completeBaseName() + QLatin1Char('-') + QLatin1String(place));
}

std::vector<KeptCopy> CopyKeeper::copies() const {
    std::vector<KeptCopy> all;
    for (const QString& place : {folder(), second()}) {
        if (place.isEmpty()) continue;
        const std::vector<KeptCopy> there = keptCopies(place, m_document.path());
        all.insert(all.end(), there.begin(), there.end());
    }
    std::stable_sort(all.begin(), all.end(), [](const KeptCopy& a, const KeptCopy& b) { return a.made > b.made; });
    return all;
}

bool CopyKeeper::canKeep() const {
    return keeps() && m_document.isOpen() && m_document.readOnlyReasons().isEmpty() &&
           !(folder().isEmpty() && second().isEmpty());
}

void CopyKeeper::look() {
    if (!canKeep() || busy() || m_document.pending() > 0) return;
    const std::vector<KeptCopy> all = copies();
    if (all.empty() || all.front().made.secsTo(onTheWall(m_document.now())) >= apart_s) keepNow();
}

void CopyKeeper::keepNow() {
    if (busy()) return;
    if (!canKeep())
        return emit failed(tr("No copy is kept of what is only read, of a demo, or of more than 60 MB before a second "
                              "place is named (I, K)."));
    const QString own = folder();
    const QString other = second();
    if (!own.isEmpty()) keepIn(own);
    if (other.isEmpty()) return;
    if (QFileInfo(other).isDir())
        keepIn(other);
    else
        emit failed(tr("No copy is kept in %1: the folder is not there.").arg(other));
}

void CopyKeeper::keepIn(const QString& place) {
    ++m_busy;
    const QString path = m_document.path();
    const auto over = [here = QPointer(this), this](const std::optional<Error>& error) {
        if (!here) return; // the window was closed without waiting
        --m_busy;
        if (error) emit failed(tr("No copy was kept: %1.").arg(QString::fromStdString(error->message())));
        emit kept();
    };
    using Copy = std::optional<KeptCopy>;
    m_document.query<Copy>([path, place](Logbook& logbook) { return copyToKeep(logbook, path, place); },
                           [&document = m_document, path, over](const Result<Copy>& copy) {
                               if (!copy) return over(copy.error());
                               if (!*copy) return over({});
                               // Looking through all of it takes longer than making it, and nobody waits for that.
                               document.aside([made = **copy, path, over]() -> std::function<void()> {
                                   const auto sound = keepIfSound(made, path);
                                   return [over, error = sound ? std::optional<Error>()
                                                               : std::optional(sound.error())] { over(error); };
                               });
                           });
}

void CopyKeeper::keepLast() {
    if (!canKeep()) return;
    keepNow();
    QEventLoop wait;
    connect(this, &CopyKeeper::kept, &wait, [&] {
        if (!busy()) wait.quit();
    });
    if (busy()) wait.exec(QEventLoop::ExcludeUserInputEvents);
}

} // namespace rollcall

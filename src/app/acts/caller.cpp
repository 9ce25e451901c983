// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/caller.h"

#include <QRegularExpression>
#include <QSettings>

namespace rollcall {

namespace {

const QString wishedKey = QStringLiteral("speech");

// A mark is said as it is read: GK-12 is no difference.
QString spoken(QString text) {
    static const QRegularExpression joint(QStringLiteral("(?<=\\w)-(?=\\w)"));
    return text.replace(joint, QStringLiteral(" "));
}

} // namespace

Caller::Caller(const Document& document, const ReadingStation& station, const Seams& seams, QObject* parent)
    : QObject(parent), m_document(document), m_station(station), m_seams(seams) {
    connect(&document, &Document::changed, this, &Caller::followBlade);
    connect(&station, &ReadingStation::changed, this, &Caller::followStation);
    connect(&station, &ReadingStation::logged, this, &Caller::say);
}

bool Caller::wished() {
    return QSettings().value(wishedKey, false).toBool();
}

QString Caller::wish(bool on) {
    if (on) {
        if (const QString why = m_seams.speak(tr("The roll is called aloud.")); !why.isEmpty()) return why;
    }
    QSettings().setValue(wishedKey, on);
    return {};
}

void Caller::say(const QString& text) {
    if (wished() && !text.isEmpty()) m_seams.speak(spoken(text));
}

void Caller::followBlade() {
    const Blade* blade = m_document.blade();
    const std::string id = blade != nullptr ? blade->id : std::string();
    if (id == m_called) return;
    m_called = id;
    if (blade != nullptr) say(QString::fromStdString(blade->mark));
}

void Caller::followStation() {
    const QString refused = m_station.refused() ? m_station.message() : QString();
    if (refused == m_refused) return;
    m_refused = refused;
    say(refused);
}

} // namespace rollcall

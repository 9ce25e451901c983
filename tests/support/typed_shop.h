// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/cli.h"

#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStringList>
#include <QTemporaryDir>

namespace rollcall::fixtures {

/// A logbook that is written line by line through `rollcallctl log` and looked at with `show`, as somebody without a
/// window would. Lines are typed with single quotes for double ones.
class TypedShop {
public:
    /// A new logbook of this name in the folder of the test.
    void begin(const QString& name) {
        m_book = m_dir.filePath(name + QStringLiteral(".rollcall"));
        QFile::remove(m_book);
        m_lines.clear();
        if (run({"new", m_book}).exit_code != 0) qFatal("no logbook %s", qPrintable(m_book));
        line("{'do': 'person', 'initials': 'HB'}");
    }
    void line(const QString& text) { m_lines += QString(text).replace('\'', '"').toUtf8() + '\n'; }
    /// Stores what was typed; the answer tells what was refused.
    cli::Answer store() {
        QFile file(m_dir.filePath("lines.jsonl"));
        if (!file.open(QIODevice::WriteOnly)) qFatal("no file");
        file.write(std::exchange(m_lines, {}));
        file.close();
        return run({"log", m_book, file.fileName()});
    }
    /// What is said of a batch after everything typed so far.
    QJsonObject show(const QString& batch) {
        if (const cli::Answer stored = store(); stored.exit_code != 0) qFatal("%s", stored.error.constData());
        const cli::Answer answer = run({"show", m_book, batch});
        if (answer.exit_code != 0) qFatal("%s", answer.error.constData());
        return QJsonDocument::fromJson(answer.output).object();
    }

    /// What another command says of the logbook.
    QJsonObject ask(const QString& command, const QStringList& words) {
        const cli::Answer answer = run(QStringList{command, m_book} + words);
        if (answer.exit_code != 0) qFatal("%s", answer.error.constData());
        return QJsonDocument::fromJson(answer.output).object();
    }
    /// What one more line is refused with; nothing of it is stored.
    QString refused(const QString& text) {
        if (const cli::Answer stored = store(); stored.exit_code != 0) qFatal("%s", stored.error.constData());
        line(text);
        const cli::Answer answer = store();
        if (answer.exit_code == 0) qFatal("taken: %s", qPrintable(text));
        return QString::fromUtf8(answer.error);
    }
    /// The lines of a report of a batch that is written as a table.
    QStringList report(const QString& batch, const QString& option, const QString& name) {
        if (const cli::Answer stored = store(); stored.exit_code != 0) qFatal("%s", stored.error.constData());
        const QString path = m_dir.filePath(name);
        const cli::Answer answer = run({"report", m_book, batch, option, path});
        QFile file(path);
        if (answer.exit_code != 0 || !file.open(QIODevice::ReadOnly)) qFatal("%s", answer.error.constData());
        return QString::fromUtf8(file.readAll()).trimmed().split('\n');
    }
    const QString& path() const { return m_book; }

    static QJsonObject gate(const QJsonObject& blade, const char* name) {
        for (const QJsonValue one : blade["gates"].toArray()) {
            if (one.toObject()["gate"].toString() == QLatin1String(name)) return one.toObject();
        }
        return {};
    }
    static QString state(const QJsonObject& blade, const char* gateName) {
        return gate(blade, gateName)["state"].toString();
    }
    static QStringList facts(const QJsonObject& blade, const char* gateName) {
        return said(blade, gateName, QStringLiteral("fact"));
    }
    static QString sentences(const QJsonObject& blade, const char* gateName) {
        // a number is kept on one line with its unit; looked for with a plain blank
        return said(blade, gateName, QStringLiteral("sentence")).join('\n').replace(QChar(0xA0), QLatin1Char(' '));
    }
    static QString next(const QJsonObject& blade) { return blade["next"].toObject()["act"].toString(); }

private:
    static QStringList said(const QJsonObject& blade, const char* gateName, const QString& key) {
        QStringList all;
        for (const QJsonValue one : gate(blade, gateName)["findings"].toArray()) all << one.toObject()[key].toString();
        return all;
    }
    static cli::Answer run(const QStringList& arguments) {
        return cli::run(arguments, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
    }

    QTemporaryDir m_dir;
    QString m_book;
    QByteArray m_lines;
};

} // namespace rollcall::fixtures

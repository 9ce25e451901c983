// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/merge.h"

#include "core/base/protocol.h"
#include "logbook/actions/rows.h"
#include "logbook/kinds.h"
#include "logbook/rows.h"

#include <algorithm>
#include <functional>
#include <QFile>
#include <QHash>
#include <QJsonDocument>
#include <QJsonObject>

namespace rollcall {

namespace {

constexpr const char* leftOutText = "left out";

// A grade's sheet and a protocol keep what numbers rest on and lose the words about them.
QString withoutNotes(const QString& column, const QString& text) {
    if (column == QLatin1String("sheet") && text.startsWith(QLatin1Char('{'))) {
        QJsonObject sheet = QJsonDocument::fromJson(text.toUtf8()).object();
        for (const char* words : {"note", "confidence"}) sheet.remove(QLatin1String(words));
        return QString::fromUtf8(QJsonDocument(sheet).toJson(QJsonDocument::Compact));
    }
    const auto protocols = readProtocols(text.toStdString());
    if (!protocols || protocols->empty()) return {};
    Protocol bare = protocols->front();
    for (ProtocolStep& step : bare.steps) step.note.clear();
    return q(protocolText(bare));
}

class Anonymous {
public:
    Anonymous(Database& from, Database& to, std::function<std::string()> newId)
        : m_from(from), m_to(to), m_newId(std::move(newId)) {}

    Result<Done> copy() {
        if (auto begun = placeholder(); !begun) return begun;
        for (const Kind& kind : kinds()) {
            // Settings may hold anything; files are photos, certificates and imported tables; both logs name people.
            if (!kind.copied) continue;
            if (auto done = copyTable(kind); !done) return done;
        }
        return Done{};
    }

private:
    // What stands for every file, since rows point at one.
    Result<Done> placeholder() {
        const QString nothing = QStringLiteral("e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
        m_file = q(m_newId());
        auto done = m_to.run(QStringLiteral("INSERT INTO attachment_blob (sha256, bytes) VALUES (?,?)"),
                             {nothing, QByteArray("")});
        if (done)
            done = m_to.insert(
                "attachment",
                {{"id", m_file}, {"sha256", nothing}, {"name", leftOutText}, {"media_type", ""}, {"size", 0}});
        return done;
    }

    Result<Done> copyTable(const Kind& kind) {
        const QString name = QLatin1String(kind.table);
        const auto columns =
            m_from.select(QStringLiteral("SELECT i.name, i.type, (SELECT f.\"table\" FROM pragma_foreign_key_list(?) f "
                                         "WHERE f.\"from\"=i.name) FROM pragma_table_info(?) i"),
                          {name, name});
        if (!columns) return columns.error();
        QStringList names;
        for (const Row& column : *columns) names << column[0].toString();
        const auto rows =
            m_from.select(QStringLiteral("SELECT %1 FROM %2 ORDER BY rowid").arg(names.join(QLatin1Char(',')), name));
        if (!rows) return rows.error();
        for (const Row& row : *rows) {
            Fields fields;
            std::vector<QByteArray> held;
            for (const QString& column : names) held.push_back(column.toLatin1());
            for (std::size_t i = 0; i < row.size(); ++i) {
                const Row& column = (*columns)[i];
                const QString target = column[2].toString();
                const bool pointer = !target.isEmpty() || names[static_cast<qsizetype>(i)] == QLatin1String("id");
                QVariant value = row[i];
                if (target == QLatin1String("attachment"))
                    value = value.isNull() ? value : QVariant(m_file);
                else if (target == QLatin1String("attachment_blob"))
                    keepSamples(value.toString());
                else if (!pointer && column[1].toString() == QLatin1String("TEXT"))
                    value = shared(kind, held[i], value);
                fields.emplace_back(held[i].constData(), value);
            }
            if (m_failed) return *m_failed;
            if (auto done = m_to.insert(kind.table, fields); !done) return done;
        }
        return Done{};
    }

    QVariant shared(const Kind& kind, const QByteArray& column, const QVariant& value) {
        if (value.isNull() || value.toString().isEmpty()) return value;
        const auto words = std::find_if(kind.words.begin(), kind.words.end(),
                                        [&](const ColumnWords& one) { return column == one.column; });
        if (words == kind.words.end()) return QString(QLatin1String(""));
        switch (words->are) {
        case ColumnWords::Are::code:
            return value;
        case ColumnWords::Are::numbered:
            return numberedName(QLatin1String(words->as), value.toString());
        case ColumnWords::Are::marks: {
            QStringList marks;
            for (const QString& mark : value.toString().split(QLatin1Char(','), Qt::SkipEmptyParts))
                marks << numberedName(QStringLiteral("Piece"), mark.trimmed());
            return marks.join(QLatin1Char(','));
        }
        case ColumnWords::Are::hazard: { // that it was read is part of the trial
            const auto& hazards = cautionWords();
            const bool hazard = std::find(hazards.begin(), hazards.end(), s(value)) != hazards.end();
            return hazard ? value : QVariant(QString(QLatin1String("")));
        }
        case ColumnWords::Are::reason: // others are told to be there, not what they are
            return named<StrikeReason>(s(value)) && column == "reason" && kindIsStrikes(kind)
                       ? value
                       : QVariant(QString::fromLatin1(leftOutText));
        case ColumnWords::Are::sheet:
            return withoutNotes(QString::fromLatin1(column), value.toString());
        }
        return {};
    }

    static bool kindIsStrikes(const Kind& kind) { return std::string_view(kind.table) == "reading_mark"; }

    QString numberedName(const QString& kind, const QString& name) {
        QHash<QString, int>& known = m_numbers[kind];
        const int number = known.contains(name) ? known[name] : static_cast<int>(known.size()) + 1;
        known.insert(name, number);
        return QStringLiteral("%1 %2").arg(kind).arg(number);
    }

    // The samples of an oven's trace are numbers, though they are kept among the files.
    void keepSamples(const QString& sha) {
        const auto bytes = m_from.single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), {sha});
        const auto done = bytes
                              ? m_to.run(QStringLiteral("INSERT OR IGNORE INTO attachment_blob (sha256, bytes) VALUES "
                                                        "(?,?)"),
                                         {sha, bytes->toByteArray()})
                              : Result<Done>(bytes.error());
        if (!done) m_failed = done.error();
    }

    Database& m_from;
    Database& m_to;
    std::function<std::string()> m_newId;
    QString m_file;
    QHash<QString, QHash<QString, int>> m_numbers; ///< kind -> name -> number
    std::optional<Error> m_failed;
};

} // namespace

Result<Done> copyWithoutNames(Logbook& logbook, const QString& path) {
    return Logbook::make(path, logbook.seams(), [&](const QString& part) -> Result<Done> {
        const auto made = Logbook::open(part, Logbook::Access::write, logbook.seams());
        if (!made) return made.error();
        Logbook& copy = **made;
        return copy.transact("copy without names", [&]() -> Result<Done> {
            auto begun = copy.database().run(QStringLiteral("PRAGMA defer_foreign_keys=ON"));
            if (!begun) return begun;
            return Anonymous(logbook.database(), copy.database(), logbook.seams().newId).copy();
        });
    });
}

} // namespace rollcall

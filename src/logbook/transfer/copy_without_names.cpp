// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/merge.h"

#include "core/base/protocol.h"
#include "logbook/actions/rows.h"
#include "logbook/kinds.h"
#include "logbook/rows.h"

#include <algorithm>
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
    Anonymous(Database& from, Database& to, Database::Series& ids) : m_from(from), m_to(to), m_ids(ids) {}

    Result<Done> copy() {
        // Which identity became which is known to this connection alone, and gone with it.
        auto begun = m_to.run(QStringLiteral("CREATE TEMP TABLE made_anew (id TEXT PRIMARY KEY, anew TEXT NOT NULL) "
                                             "WITHOUT ROWID"));
        if (begun) begun = placeholder();
        if (!begun) return begun;
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
        m_file = m_ids.nextId();
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
        std::vector<QByteArray> held;
        std::vector<Is> are;
        for (const Row& column : *columns) {
            names << column[0].toString();
            held.push_back(names.back().toLatin1());
            are.push_back(whatIs(kind, column));
        }
        Result<Done> done = Done{};
        const auto read =
            m_from.each(QStringLiteral("SELECT %1 FROM %2 ORDER BY rowid").arg(names.join(QLatin1Char(',')), name), {},
                        [&](const Row& row) {
                            if (done) done = copyRow(kind, held, are, row);
                        });
        return done ? read : done;
    }

    /// What a column holds, and so how it leaves.
    enum class Is { identity, file, samples, words, number };

    static Is whatIs(const Kind& kind, const Row& column) {
        const QString name = column[0].toString();
        const QString target = column[2].toString();
        if (target == QLatin1String("attachment")) return Is::file;
        if (target == QLatin1String("attachment_blob")) return Is::samples;
        // Rows of one grinding have its identity, which is no row's.
        const bool grinding = std::string_view(kind.table) == "ground_off" && name == QLatin1String("grinding");
        if (!target.isEmpty() || name == QLatin1String("id") || grinding) return Is::identity;
        return column[1].toString() == QLatin1String("TEXT") ? Is::words : Is::number;
    }

    Result<Done> copyRow(const Kind& kind, const std::vector<QByteArray>& columns, const std::vector<Is>& are,
                         const Row& row) {
        Fields fields;
        for (std::size_t i = 0; i < row.size(); ++i) {
            QVariant value = row[i];
            if (!value.isNull() && are[i] == Is::file) {
                value = m_file;
            } else if (!value.isNull() && are[i] == Is::identity) {
                const auto anew = madeAnew(value);
                if (!anew) return anew.error();
                value = *anew;
            } else if (are[i] == Is::samples) {
                if (auto kept = keepSamples(value.toString()); !kept) return kept;
            } else if (are[i] == Is::words) {
                value = shared(kind, columns[i], value);
            }
            fields.emplace_back(columns[i].constData(), value);
        }
        return m_to.insert(kind.table, fields);
    }

    // By its identities a row of the copy could be found again in the logbook, or in another copy.
    Result<QVariant> madeAnew(const QVariant& id) {
        auto known = m_to.single(QStringLiteral("SELECT anew FROM made_anew WHERE id=?"), {id});
        if (!known || known->isValid()) return known;
        const QString anew = m_ids.nextId();
        if (auto kept = m_to.run(QStringLiteral("INSERT INTO made_anew VALUES (?,?)"), {id, anew}); !kept)
            return kept.error();
        return QVariant(anew);
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
    Result<Done> keepSamples(const QString& sha) {
        const auto bytes = m_from.single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), {sha});
        if (!bytes) return bytes.error();
        return m_to.run(QStringLiteral("INSERT OR IGNORE INTO attachment_blob (sha256, bytes) VALUES (?,?)"),
                        {sha, bytes->toByteArray()});
    }

    Database& m_from;
    Database& m_to;
    Database::Series& m_ids;
    QString m_file;
    QHash<QString, QHash<QString, int>> m_numbers; ///< kind -> name -> number
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
            Database::Series ids(copy.database(), q(logbook.seams().newId()));
            auto done = Anonymous(logbook.database(), copy.database(), ids).copy();
            return done ? ids.end() : done;
        });
    });
}

} // namespace rollcall

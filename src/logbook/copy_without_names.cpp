// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/protocol.h"
#include "logbook/chain_rows.h"
#include "logbook/schema.h"

#include <algorithm>
#include <functional>
#include <QFile>
#include <QHash>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSet>

namespace rollcall {

namespace {

// Texts that are codes or numbers, by table; all others are a maker's own words and stay behind, so that a column that
// comes later gives nothing away until it is named here.
const QHash<QString, QSet<QString>>& codes() {
    static const QHash<QString, QSet<QString>> list{
        {"tester", {"kind", "files"}},
        {"block", {"scale"}},
        {"grade", {"designation"}},
        {"purpose", {"window_text"}},
        {"batch", {"rule"}},
        {"gate_plan", {"gate", "extent"}},
        {"blade", {"outline", "thickness_text"}},
        {"verification", {"scale"}},
        {"reading", {"gate", "scale", "as_entered"}},
        {"reading_mark", {"kind"}},
        {"excuse", {"gate"}},
        {"blade_fate", {"fate", "gate"}},
        {"signature", {"gate", "decision", "verdict", "basis"}},
        {"file_test", {"gate", "skates", "bites", "touches", "surface"}},
        {"recipe", {"grade"}},
        {"recipe_stage", {"kind", "cooling"}},
        {"heat_run", {"surface"}},
        {"heat_mark", {"kind"}},
        {"planned_mark", {"kind"}},
        {"warp", {"high"}},
        {"temper_colour", {"zone", "colour", "surface"}},
        {"lot_value", {"element"}},
        {"steel_shot", {"method"}},
        {"steel_value", {"element"}},
        {"steel_note", {"kind"}},
        {"own_grade", {"name"}}, // what the grade is, not whose
        {"edge_geometry", {"grind"}},
        {"edge_rung", {"outcome"}},
        {"edge_ask", {"purpose", "school"}},
        {"damage", {"kind"}},
        {"own_protocol", {"name"}}, // how it is done: numbers mean nothing without it
        {"trial_event", {"act"}},
        {"study", {"factor"}},
        {"fracture_line", {"zone", "crossings"}},
        {"disposition", {"decision", "basis"}},
        {"ground_off", {"grinding"}},
    };
    return list;
}

// Names that tell things apart: each gets a number of its own instead. Parts of a tester are told apart too: another
// one ends its verification.
const QHash<QString, QHash<QString, QString>>& numbered() {
    static const QHash<QString, QString> parts{{"indenter", "Indenter"}, {"anvil", "Anvil"}};
    static const QHash<QString, QHash<QString, QString>> list{
        {"person", {{"initials", "P"}}}, {"tester", {{"name", "Tester"}, {"indenter", "Indenter"}, {"anvil", "Anvil"}}},
        {"verification", parts},         {"reading", parts},
        {"block", {{"name", "Block"}}},  {"lot", {{"name", "Lot"}}},
        {"batch", {{"name", "Batch"}}},  {"blade", {{"mark", "Piece"}}},
        {"oven", {{"name", "Oven"}}},    {"recipe", {{"name", "Recipe"}}},
        {"study", {{"name", "Study"}}},
    };
    return list;
}

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
        for (const char* table : schema::recordedTables()) {
            const QString name = QLatin1String(table);
            // Settings may hold anything; files are photos, certificates and imported tables; both logs name people.
            if (name == QLatin1String("setting") || name == QLatin1String("attachment") ||
                name == QLatin1String("merge"))
                continue;
            if (auto done = copyTable(table); !done) return done;
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

    Result<Done> copyTable(const char* table) {
        const QString name = QLatin1String(table);
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
                    value = shared(name, names[static_cast<qsizetype>(i)], value);
                fields.emplace_back(held[i].constData(), value);
            }
            if (m_failed) return *m_failed;
            if (auto done = m_to.insert(table, fields); !done) return done;
        }
        return Done{};
    }

    QVariant shared(const QString& table, const QString& column, const QVariant& value) {
        if (value.isNull() || value.toString().isEmpty() || codes().value(table).contains(column)) return value;
        if (column == QLatin1String("person")) return numberedName(QStringLiteral("P"), value.toString());
        if (const QString kind = numbered().value(table).value(column); !kind.isEmpty())
            return numberedName(kind, value.toString());
        if (table == QLatin1String("steel_note") && column == QLatin1String("marks")) {
            QStringList marks;
            for (const QString& mark : value.toString().split(QLatin1Char(','), Qt::SkipEmptyParts))
                marks << numberedName(QStringLiteral("Piece"), mark.trimmed());
            return marks.join(QLatin1Char(','));
        }
        // That a hazard was read is part of the trial.
        const auto& hazards = cautionWords();
        if (table == QLatin1String("trial_event") &&
            std::find(hazards.begin(), hazards.end(), s(value)) != hazards.end())
            return value;
        if (column == QLatin1String("sheet") || column == QLatin1String("protocol"))
            return withoutNotes(column, value.toString());
        // Why a reading was struck out is one of a few words; other reasons are told to be there, not what they are.
        static const QSet<QString> strikes{"same spot", "edge", "scale", "seating", "overshoot", "other", "superseded"};
        if (column == QLatin1String("reason"))
            return table == QLatin1String("reading_mark") && strikes.contains(value.toString())
                       ? value.toString()
                       : QString::fromLatin1(leftOutText);
        return QString(QLatin1String(""));
    }

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

Result<Done> Logbook::copyWithoutNames(const QString& path) {
    Result<Done> done = Done{};
    {
        const auto made = create(path, m_seams);
        if (!made) return made.error();
        Logbook& copy = **made;
        done = copy.transact("copy without names", [&]() -> Result<Done> {
            auto begun = copy.m_database->run(QStringLiteral("PRAGMA defer_foreign_keys=ON"));
            if (!begun) return begun;
            return Anonymous(*m_database, *copy.m_database, m_seams.newId).copy();
        });
    }
    if (!done) QFile::remove(path); // nothing half made stays
    return done;
}

} // namespace rollcall

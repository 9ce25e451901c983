// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/merge.h"

#include "core/base/csv.h"
#include "logbook/actions/rows.h"
#include "logbook/change_log.h"
#include "logbook/kinds.h"
#include "logbook/rows.h"

#include <algorithm>
#include <fmt/format.h>
#include <QFileInfo>
#include <QHash>
#include <QSet>

namespace rollcall {

// Takes one logbook into another, row by row. Rows have identities of their own, so what both hold is known; what
// both changed is told apart from what one changed by the rows as they were when the two were one.
class LogbookMerge {
public:
    LogbookMerge(Logbook& ours, Logbook& theirs, const QString& file)
        : m_logbook(ours), m_ours(ours.database()), m_theirs(theirs.database()),
          m_name(QFileInfo(file).completeBaseName()) {}

    Result<MergeReport> run(bool trial) {
        m_trial = trial;
        const auto shared = sharedEntries(m_ours, m_theirs);
        if (!shared) return shared.error();
        const auto last = m_theirs.single(QStringLiteral("SELECT MAX(seq) FROM change"));
        if (!last) return last.error();
        if (*shared == last->toLongLong()) return m_report; // all of it is here
        QSet<QString> differing;
        for (const Kind& kind : kinds()) {
            if (auto found = findDiffering(kind.table, differing); !found) return found.error();
        }
        if (!differing.isEmpty()) {
            auto history = historyOf(m_ours, differing, *shared);
            if (!history) return history.error();
            m_shared = std::move(history).value();
        }
        Result<Done> met = Done{};
        const auto work = [&]() -> Result<Done> {
            // Rows come table by table, not in the order in which they point at each other.
            met = m_ours.run(QStringLiteral("PRAGMA defer_foreign_keys=ON"));
            if (met) met = takeFiles();
            for (const Kind& kind : kinds()) {
                const char* table = kind.table;
                if (met) met = takeTable(table);
            }
            if (met) met = tellDoubleTempers();
            if (met && !trial && !m_report.nothing()) met = keepHistory(*shared);
            return met;
        };
        const Error undone{ErrorKind::refused, "", "nothing is kept"};
        if (trial) {
            (void)m_logbook.inOneTransaction([&]() -> Result<Done> { return work() ? Result<Done>(undone) : met; });
            (void)m_ours.takeNotes();
            if (!met) return met.error();
            return m_report;
        }
        const auto done = m_logbook.transact(action, [&]() -> Result<Done> {
            if (auto worked = work(); !worked) return worked;
            return m_report.nothing() ? Result<Done>(undone) : Result<Done>(Done{});
        });
        if (!done && !(met && m_report.nothing())) return done.error();
        return m_report;
    }

private:
    static constexpr const char* action = "logbook taken in";

    struct Table {
        QString name;
        QStringList columns;
        std::vector<QStringList> unique; ///< sets of columns that no two rows share
    };

    Result<Table> describe(const char* name) {
        Table table;
        table.name = QLatin1String(name);
        const auto columns = m_ours.select(QStringLiteral("SELECT name FROM pragma_table_info(?)"), {table.name});
        if (!columns) return columns.error();
        for (const Row& row : *columns) table.columns << row[0].toString();
        const auto indexes = m_ours.select(
            QStringLiteral("SELECT name FROM pragma_index_list(?) WHERE \"unique\"=1 AND origin='u'"), {table.name});
        if (!indexes) return indexes.error();
        for (const Row& index : *indexes) {
            const auto parts = m_ours.select(QStringLiteral("SELECT name FROM pragma_index_info(?)"), {index[0]});
            if (!parts) return parts.error();
            QStringList set;
            for (const Row& part : *parts) set << part[0].toString();
            table.unique.push_back(set);
        }
        if (const Kind* kind = kindOf(name); kind != nullptr && !kind->one_each.empty())
            table.unique.emplace_back(kind->one_each.begin(), kind->one_each.end());
        return table;
    }

    Result<Done> takeFiles() {
        const auto hashes = m_theirs.select(QStringLiteral("SELECT sha256 FROM attachment_blob"));
        if (!hashes) return hashes.error();
        for (const Row& row : *hashes) {
            const auto known =
                m_ours.single(QStringLiteral("SELECT COUNT(*) FROM attachment_blob WHERE sha256=?"), row);
            if (!known) return known.error();
            if (known->toInt() > 0) continue;
            const auto bytes = m_theirs.single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), row);
            if (!bytes) return bytes.error();
            if (auto kept = keepBytes(m_logbook, row[0].toString(), bytes->toByteArray()); !kept) return kept;
        }
        return Done{};
    }

    static QString selected(const Table& table, const char* which) {
        return QStringLiteral("SELECT %1 FROM %2 %3")
            .arg(table.columns.join(QLatin1Char(',')), table.name, QLatin1String(which));
    }
    Result<std::vector<Row>> hereOf(const Table& table, const Row& there) {
        const auto id = static_cast<std::size_t>(table.columns.indexOf(QStringLiteral("id")));
        return m_ours.select(selected(table, "WHERE id=?"), {there[id]});
    }

    // Rows that both hold and that are not the same: only of these is asked what they were.
    Result<Done> findDiffering(const char* name, QSet<QString>& differing) {
        const auto table = describe(name);
        if (!table) return table.error();
        Result<Done> done = Done{};
        const auto read = m_theirs.each(selected(*table, "ORDER BY rowid"), {}, [&](const Row& row) {
            if (!done) return;
            const auto here = hereOf(*table, row);
            if (!here)
                done = here.error();
            else if (!here->empty() && here->front() != row)
                differing.insert(text(*table, row, "id"));
        });
        return done ? read : done;
    }

    Result<Done> takeTable(const char* name) {
        const auto table = describe(name);
        if (!table) return table.error();
        Result<Done> done = Done{};
        const auto read = m_theirs.each(selected(*table, "ORDER BY rowid"), {}, [&](const Row& row) {
            if (done) done = takeRow(*table, row);
        });
        return done ? read : done;
    }

    Result<Done> takeRow(const Table& table, Row row) {
        constexpr qsizetype told = 200; // rows of one entry
        for (QVariant& value : row) {
            if (value.typeId() != QMetaType::QString) continue;
            if (const auto known = m_ids.constFind(value.toString()); known != m_ids.constEnd()) value = *known;
        }
        const auto here = hereOf(table, row);
        if (!here) return here.error();
        if (!here->empty() && here->front() == row) return Done{};
        auto done = here->empty() ? add(table, row) : reconcile(table, here->front(), row);
        if (!done || m_ours.noted() < told) return done;
        if (!m_trial) return m_logbook.tellSoFar(action);
        (void)m_ours.takeNotes();
        return done;
    }

    static QVariant& field(const Table& table, Row& row, const QString& column) {
        return row[static_cast<std::size_t>(table.columns.indexOf(column))];
    }
    static QString text(const Table& table, const Row& row, const char* column) {
        const qsizetype at = table.columns.indexOf(QLatin1String(column));
        return at < 0 ? QString() : row[static_cast<std::size_t>(at)].toString();
    }

    // The row here, if any, with which this one would share what must be unlike; and what that is.
    Result<std::pair<QString, QStringList>> rival(const Table& table, Row& row) {
        for (const QStringList& set : table.unique) {
            QStringList conditions;
            Row values;
            for (const QString& column : set) {
                conditions << column + QStringLiteral("=?");
                values.push_back(field(table, row, column));
            }
            values.push_back(field(table, row, QStringLiteral("id")));
            const auto found =
                m_ours.single(QStringLiteral("SELECT id FROM %1 WHERE %2 AND id<>? AND id NOT IN taken_back")
                                  .arg(table.name, conditions.join(QStringLiteral(" AND "))),
                              values);
            if (!found) return found.error();
            if (found->isValid()) return std::pair(found->toString(), set);
        }
        return std::pair(QString(), QStringList());
    }

    Result<Done> add(const Table& table, Row& row) {
        auto found = rival(table, row);
        if (!found) return found.error();
        const auto& [other, shared] = *found;
        if (!other.isEmpty() && (table.name == QLatin1String("person") || table.name == QLatin1String("grade"))) {
            m_ids.insert(text(table, row, "id"), other); // one person, one grade: known by what they are called
            return Done{};
        }
        if (!other.isEmpty()) {
            const QString naming = shared.contains(QStringLiteral("name"))   ? QStringLiteral("name")
                                   : shared.contains(QStringLiteral("mark")) ? QStringLiteral("mark")
                                                                             : QString();
            if (naming.isEmpty()) {
                m_report.conflicts.push_back(
                    fmt::format("{}: both logbooks say something; what stands here stays", whatOf(table, row)));
                return Done{};
            }
            if (auto named = rename(table, row, naming); !named) return named;
        }
        Fields fields;
        std::vector<QByteArray> names;
        for (const QString& column : table.columns) names.push_back(column.toLatin1());
        for (std::size_t i = 0; i < row.size(); ++i) fields.emplace_back(names[i].constData(), row[i]);
        ++m_report.added[s(table.name)];
        return m_ours.insert(table.name.toLatin1().constData(), fields);
    }

    // Two testers of one name are two machines until someone says otherwise: mixing them would mix their errors.
    Result<Done> rename(const Table& table, Row& row, const QString& column) {
        QVariant& value = field(table, row, column);
        const QString before = value.toString();
        QString& known = m_renamed[table.name + QLatin1Char('\x1f') + before];
        const bool first = known.isEmpty() || column == QLatin1String("mark");
        for (int number = 1; first || number == 1; ++number) {
            if (first)
                known = number == 1 ? QStringLiteral("%1 (%2)").arg(before, m_name)
                                    : QStringLiteral("%1 (%2 %3)").arg(before, m_name).arg(number);
            value = known;
            const auto again = rival(table, row);
            if (!again) return again.error();
            if (again->first.isEmpty()) break;
        }
        const std::string sentence =
            fmt::format("{} {} of the other logbook is here as {}", wordOf(table.name), s(before), s(known));
        if (first) m_report.renamed.push_back(sentence);
        return Done{};
    }

    Result<Done> reconcile(const Table& table, const Row& here, Row& there) {
        const QString id = text(table, here, "id");
        const auto rows = m_shared.logged.rows.find(table.name);
        const QJsonObject* before = nullptr;
        QJsonObject whole;
        if (m_shared.logged.inSeries(table.name, id)) { // as it stands here, without what was changed since
            for (std::size_t i = 0; i < here.size(); ++i)
                whole.insert(table.columns[static_cast<qsizetype>(i)], jsonOf(here[i]));
            if (const auto changed = m_shared.since.before.find(table.name); changed != m_shared.since.before.end()) {
                const QJsonObject was = changed->second.count(id) > 0 ? changed->second.at(id) : QJsonObject();
                for (auto field = was.begin(); field != was.end(); ++field) whole.insert(field.key(), field.value());
            }
            before = &whole;
        } else if (rows != m_shared.logged.rows.end()) {
            if (const auto row = rows->second.find(id); row != rows->second.end()) before = &row->second;
        }
        // A row is one statement: the low end of one window and the high end of another would be nobody's window.
        const auto changedSince = [&](const Row& row) {
            for (std::size_t i = 0; before != nullptr && i < row.size(); ++i) {
                const QString& column = table.columns[static_cast<qsizetype>(i)];
                if (before->contains(column) && before->value(column) != jsonOf(row[i])) return true;
            }
            return before == nullptr;
        };
        const bool theirsAlone = before != nullptr && !changedSince(here);
        if (before != nullptr && !changedSince(there)) return Done{}; // changed here only
        Row merged = here;
        std::vector<std::size_t> taken;
        for (std::size_t i = 0; i < here.size(); ++i) {
            if (jsonOf(here[i]) == jsonOf(there[i])) continue;
            if (theirsAlone) {
                merged[i] = there[i];
                taken.push_back(i);
                continue;
            }
            if (here[i].toString().startsWith(there[i].toString() + QStringLiteral(" ("))) continue; // renamed before
            tellConflict(table, here, table.columns[static_cast<qsizetype>(i)], here[i], there[i]);
        }
        if (taken.empty()) return Done{};
        const auto found = rival(table, merged);
        if (!found) return found.error();
        if (!found->first.isEmpty()) {
            for (const std::size_t i : taken)
                tellConflict(table, here, table.columns[static_cast<qsizetype>(i)], here[i], there[i]);
            return Done{};
        }
        Fields fields;
        std::vector<QByteArray> names;
        for (const std::size_t i : taken) names.push_back(table.columns[static_cast<qsizetype>(i)].toLatin1());
        for (std::size_t k = 0; k < taken.size(); ++k) fields.emplace_back(names[k].constData(), merged[taken[k]]);
        ++m_report.changed;
        return m_ours.update(table.name.toLatin1().constData(), id, fields);
    }

    void tellConflict(const Table& table, const Row& row, const QString& column, const QVariant& ours,
                      const QVariant& theirs) {
        const auto shown = [](const QVariant& value) { return value.isNull() ? std::string("nothing") : s(value); };
        QString words = column;
        m_report.conflicts.push_back(
            fmt::format("{}, {}: here {}, there {}; what stands here stays", whatOf(table, row),
                        s(words.replace(QLatin1Char('_'), QLatin1Char(' '))), shown(ours), shown(theirs)));
    }

    // A temper that both benches logged for one blade would count twice.
    Result<Done> tellDoubleTempers() {
        if (m_report.added.find("cycle_blade") == m_report.added.end()) return Done{};
        const auto rows = m_ours.select(QStringLiteral(
            "SELECT b.mark, cb.number FROM cycle_blade cb JOIN blade b ON b.id=cb.blade WHERE cb.cycle NOT IN (SELECT "
            "cycle FROM cycle_mark WHERE id NOT IN taken_back) AND cb.cycle NOT IN taken_back GROUP BY cb.blade, "
            "cb.round, cb.number HAVING COUNT(*)>1"));
        if (!rows) return rows.error();
        for (const Row& row : *rows)
            m_report.conflicts.push_back(fmt::format(
                "{}: temper {} is logged in both; if it happened once, strike one out", s(row[0]), s(row[1])));
        return Done{};
    }

    // What the other logbook's own change log says of what came in, hash by hash, is kept as files.
    Result<Done> keepHistory(qint64 after) {
        constexpr qsizetype most = 8 << 20; // bytes of one file
        static const QByteArray header = "seq,at_ms,at_offset,person,action,payload,previous,hash\n";
        QByteArray text = header;
        QString last;
        int parts = 0;
        Result<Done> kept = Done{};
        const auto keep = [&] {
            const QString which = ++parts > 1 ? QStringLiteral(", part %1").arg(parts) : QString();
            kept = keepPart(QStringLiteral("change log of %1%2.csv").arg(m_name, which), text, last);
            text = header;
        };
        const auto read = eachChange(m_theirs, after, [&](const ChangeEntry& e) {
            if (!kept) return;
            for (const QString& part :
                 {QString::number(e.seq), QString::number(e.at.utc_ms), QString::number(e.at.offset_minutes), e.person,
                  e.action, e.payload, e.previous})
                text += QByteArray::fromStdString(csvField(part.toStdString())) + ',';
            text += e.stored_hash.toLatin1() + '\n';
            last = e.stored_hash;
            if (text.size() >= most) keep();
        });
        if (!read) return read;
        if (kept && text.size() > header.size()) keep();
        return kept;
    }

    Result<Done> keepPart(const QString& name, const QByteArray& text, const QString& lastHash) {
        const auto attachment = insertAttachment(m_logbook, name, "text/csv", text);
        if (!attachment) return attachment.error();
        return m_ours.insert("merge", stamped({{"id", q(m_logbook.newId())},
                                               {"name", m_name},
                                               {"attachment", q(*attachment)},
                                               {"last_hash", lastHash}},
                                              m_logbook.now(), m_logbook.person()));
    }

    static std::string wordOf(const QString& table) {
        QString word = table;
        return s(word.replace(QLatin1Char('_'), QLatin1Char(' ')));
    }

    // "reading of GK-4", "batch Orchard 12"
    std::string whatOf(const Table& table, const Row& row) {
        const std::string word = wordOf(table.name);
        for (const char* naming : {"name", "mark", "initials", "designation"}) {
            if (const QString own = text(table, row, naming); !own.isEmpty()) return word + " " + s(own);
        }
        const auto nameIn = [&](const char* sql, const QString& id) {
            const auto name = m_ours.single(QLatin1String(sql), {id});
            return name ? name->toString() : QString();
        };
        QString owner;
        if (const QString blade = text(table, row, "blade"); !blade.isEmpty())
            owner = nameIn("SELECT mark FROM blade WHERE id=?", blade);
        if (const QString batch = text(table, row, "batch"); owner.isEmpty() && !batch.isEmpty())
            owner = nameIn("SELECT name FROM batch WHERE id=?", batch);
        return owner.isEmpty() ? word + " " + s(text(table, row, "id")) : word + " of " + s(owner);
    }

    Logbook& m_logbook;
    Database& m_ours;
    Database& m_theirs;
    QString m_name;
    bool m_trial = false;
    SharedHistory m_shared;
    MergeReport m_report;
    QHash<QString, QString> m_ids;        ///< theirs -> ours, of what both know by another identity
    std::map<QString, QString> m_renamed; ///< table and name -> name here
};

Result<MergeReport> mergeLogbook(Logbook& logbook, const QString& other, bool trial) {
    if (logbook.readOnly())
        return refused("logbook", "this logbook is open for reading only: " + logbook.readOnlyReason());
    auto opened = Logbook::open(other, Logbook::Access::read, logbook.seams());
    if (!opened) return opened.error();
    if ((*opened)->schemaVersion() != logbook.schemaVersion())
        return refused(other.toStdString(), "it was written by a newer Rollcall");
    const auto problems = (*opened)->check();
    if (!problems) return problems.error();
    if (!problems->empty()) return refused(other.toStdString(), "it does not pass its own check: " + problems->front());
    // A file of ours that is damaged would keep theirs, which is whole, from coming in.
    const auto files = logbook.database().select(QStringLiteral("SELECT sha256 FROM attachment_blob"));
    if (!files) return files.error();
    for (const Row& file : *files) {
        const auto damaged = logbook.damagedFile(s(file[0]));
        if (!damaged) return damaged.error();
        if (!damaged->empty())
            return refused("logbook", damaged->front() + "; nothing is taken in before that is mended");
    }
    if (!trial) {
        // What a merge changes in many places is mended at once by going back to the file before it.
        if (auto kept = logbook.backupBeside("before-merge"); !kept) return kept.error();
    }
    auto report = LogbookMerge(logbook, **opened, other).run(trial);
    logbook.forgetLearned();
    return report;
}

} // namespace rollcall

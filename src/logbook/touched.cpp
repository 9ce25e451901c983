// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/touched.h"

#include "logbook/database.h"
#include "logbook/kinds.h"

#include <algorithm>
#include <QJsonArray>
#include <QJsonObject>

namespace rollcall {

namespace {

constexpr qsizetype followed = 1000; // rows of one entry

// The table that a column of a row points into.
const char* tableBehind(std::string_view column) {
    return column == "run"    ? "heat_run"
           : column == "shot" ? "steel_shot"
           : column == "rung" ? "edge_rung"
           : column == "line" ? "fracture_line"
                              : nullptr; // of the column's own name
}

// Walks from a row to its batch; empty where it leads to none, as a reading on a block does.
QString batchOfRow(Database& database, const Kind* kind, const QString& id) {
    while (kind != nullptr) {
        if (std::string_view(kind->table) == "undone") { // of the row that it hides
            const auto hidden = database.single(QStringLiteral("SELECT kind FROM undone WHERE id=?"), {id});
            return hidden ? batchOfRow(database, kindOf(hidden->toString().toStdString()), id) : QString();
        }
        const std::string_view owner = kind->owner;
        if (owner.empty()) return {};
        if (owner == "id") return id;
        if (owner == kind->table) { // a lot, a purpose: batches point at it
            const auto batch = database.single(
                QStringLiteral("SELECT id FROM batch WHERE %1=?").arg(QLatin1String(kind->table)), {id});
            return batch ? batch->toString() : QString();
        }
        const auto next = database.single(
            QStringLiteral("SELECT %1 FROM %2 WHERE id=?").arg(QLatin1String(kind->owner), QLatin1String(kind->table)),
            {id});
        if (!next || next->isNull()) return {};
        if (owner == "batch") return next->toString();
        const char* behind = tableBehind(owner);
        return batchOfRow(database, kindOf(behind != nullptr ? behind : kind->owner), next->toString());
    }
    return {};
}

} // namespace

void Touched::add(const Touched& more) {
    shop = shop || more.shop;
    runs = runs || more.runs;
    list = list || more.list;
    everything = everything || more.everything;
    batches.insert(more.batches.begin(), more.batches.end());
}

Touched touchedBy(const QJsonArray& notes, Database& database) {
    Touched touched;
    const bool series = std::any_of(notes.begin(), notes.end(), [](const QJsonValue note) {
        return note.toObject().contains(QStringLiteral("series"));
    });
    if (series || notes.size() > followed) {
        touched.everything = true;
        return touched;
    }
    for (const QJsonValue value : notes) {
        const QJsonObject note = value.toObject();
        const Kind* kind = kindOf(note[QStringLiteral("table")].toString().toStdString());
        if (kind == nullptr || kind->reach == Reach::none) continue;
        if (kind->reach == Reach::shop) {
            touched.shop = true;
            continue;
        }
        if (kind->reach == Reach::runs) {
            touched.runs = true;
            continue;
        }
        if (kind->reach == Reach::list) touched.list = true;
        const QString id = note.contains(QStringLiteral("id"))
                               ? note[QStringLiteral("id")].toString()
                               : note[QStringLiteral("row")].toObject()[QStringLiteral("id")].toString();
        const QString batch = batchOfRow(database, kind, id);
        if (batch.isEmpty() && std::string_view(kind->table) == "undone") continue; // the entry itself
        if (batch.isEmpty())
            touched.runs = true; // what was read on a block belongs to no batch
        else
            touched.batches.insert(batch.toStdString());
    }
    return touched;
}

} // namespace rollcall

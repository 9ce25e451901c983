// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/rows.h"
#include <array>
#include <QJsonDocument>
#include <QJsonObject>

// Lots, shots, notes on the steel, re-assigned and own grades in the record.
namespace rollcall {

namespace {

GradeSheet sheetIn(const QString& text) {
    GradeSheet sheet;
    const QJsonObject object = QJsonDocument::fromJson(text.toUtf8()).object();
    for (auto field = object.begin(); field != object.end(); ++field)
        sheet[field.key().toStdString()] = field.value().toString().toStdString();
    return sheet;
}

} // namespace

Result<std::vector<GradeSheet>> Logbook::ownGrades() {
    const auto rows = m_database->select(QStringLiteral(
        "SELECT sheet FROM own_grade o WHERE NOT EXISTS (SELECT 1 FROM own_grade n WHERE n.name=o.name AND (n.at_ms, "
        "n.rowid) > (o.at_ms, o.rowid)) ORDER BY o.rowid"));
    if (!rows) return rows.error();
    std::vector<GradeSheet> sheets;
    for (const Row& row : *rows) sheets.push_back(sheetIn(row[0].toString()));
    return sheets;
}

Result<Done> Logbook::loadSteel(Batch& batch) {
    batch.claimed = batch.grade;
    const auto lot = m_database->select(
        QStringLiteral(
            "SELECT l.id, l.name, l.supplier, l.heat_number FROM batch b JOIN lot l ON l.id=b.lot WHERE b.id=?"),
        {q(batch.id)});
    if (!lot) return lot.error();
    if (!lot->empty()) {
        const Row& row = lot->front();
        batch.lot = s(row[1]);
        batch.supplier = s(row[2]);
        batch.heat_number = s(row[3]);
        const auto values =
            m_database->select(QStringLiteral("SELECT element, percent FROM lot_value v WHERE v.lot=? AND NOT EXISTS "
                                              "(SELECT 1 FROM lot_value n WHERE n.lot=v.lot AND n.element=v.element "
                                              "AND (n.at_ms, n.rowid) > (v.at_ms, v.rowid)) ORDER BY v.rowid"),
                               {row[0]});
        if (!values) return values.error();
        for (const Row& value : *values) batch.certificate.push_back({s(value[0]), value[1].toDouble(), {}, {}});
    }
    const auto assigned =
        rowsOf("grade_assignment", batch.id,
               "SELECT g.designation FROM grade_assignment a JOIN grade g ON g.id=a.grade WHERE a.batch=? AND a.id NOT "
               "IN taken_back ORDER BY a.at_ms DESC, a.rowid DESC LIMIT 1");
    if (!assigned) return assigned.error();
    if (!assigned->empty()) batch.grade = s(assigned->front()[0]);
    const auto shots = rowsOf("steel_shot", batch.id,
                              "SELECT s.id, COALESCE(s.blade, ''), s.method, s.piece, s.at_ms, s.at_offset,"
                              " EXISTS (SELECT 1 FROM steel_shot_mark m WHERE m.shot=s.id) FROM steel_shot "
                              "s WHERE s.batch=? ORDER BY s.at_ms, s.rowid");
    if (!shots) return shots.error();
    for (const Row& row : *shots) {
        SteelShot shot;
        shot.id = s(row[0]);
        shot.blade = s(row[1]);
        shot.method = storedAs<AnalysisMethod>(row[2]);
        shot.piece = s(row[3]);
        shot.at = instantOf(row[4], row[5]);
        shot.struck = row[6].toBool();
        const auto values = m_database->select(
            QStringLiteral("SELECT element, percent, lod, sigma FROM steel_value WHERE shot=? ORDER BY rowid"),
            {row[0]});
        if (!values) return values.error();
        for (const Row& value : *values)
            shot.composition.elements.push_back(
                {s(value[0]), numberOrNone(value[1]), numberOrNone(value[2]), numberOrNone(value[3])});
        batch.shots.push_back(std::move(shot));
    }
    const auto notes = rowsOf("steel_note", batch.id,
                              "SELECT kind, text, hrc, agrees, marks, at_ms, at_offset FROM "
                              "steel_note WHERE batch=? ORDER BY at_ms, rowid");
    if (!notes) return notes.error();
    for (const Row& row : *notes) {
        SteelNote note;
        note.kind = storedAs<SteelNoteKind>(row[0]);
        note.text = s(row[1]);
        note.hrc = numberOrNone(row[2]);
        if (!row[3].isNull()) note.agrees = row[3].toBool();
        note.marks = split(s(row[4]), ',');
        note.at = instantOf(row[5], row[6]);
        batch.steel_notes.push_back(std::move(note));
    }
    return Done{};
}

} // namespace rollcall

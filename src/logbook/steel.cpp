// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/chain_rows.h"

#include <array>
#include <QJsonDocument>
#include <QJsonObject>

// Lots, shots, notes on the steel, re-assigned and own grades in the record.
namespace rollcall {

namespace {

QString sheetText(const GradeSheet& sheet) {
    QJsonObject object;
    for (const auto& [field, text] : sheet) object.insert(q(field), q(text));
    return QString::fromUtf8(QJsonDocument(object).toJson(QJsonDocument::Compact));
}

GradeSheet sheetIn(const QString& text) {
    GradeSheet sheet;
    const QJsonObject object = QJsonDocument::fromJson(text.toUtf8()).object();
    for (auto field = object.begin(); field != object.end(); ++field)
        sheet[field.key().toStdString()] = field.value().toString().toStdString();
    return sheet;
}

std::string joined(const std::vector<std::string>& parts) {
    std::string text;
    for (const std::string& part : parts) text += (text.empty() ? "" : ",") + part;
    return text;
}

} // namespace

Result<std::string> Logbook::lotOf(const std::string& batch) {
    const Result<QVariant> lot = m_database->single(QStringLiteral("SELECT lot FROM batch WHERE id=?"), {q(batch)});
    if (!lot) return lot.error();
    if (lot->isNull()) return refused("lot", "the batch names no grade, so it has no lot yet");
    return s(*lot);
}

Result<Done> Logbook::changeLot(const std::string& batch, const std::string& name, const std::string& supplier,
                                const std::string& heat_number) {
    const Result<std::string> lot = lotOf(batch);
    if (!lot) return lot.error();
    return transact("lot changed", [&] {
        return m_database->update("lot", q(*lot),
                                  {{"name", q(name)}, {"supplier", q(supplier)}, {"heat_number", q(heat_number)}});
    });
}

Result<Done> Logbook::addCertificate(const std::string& batch, const std::vector<ElementReading>& values,
                                     const QString& fileName, const QByteArray& file) {
    const Result<std::string> lot = lotOf(batch);
    if (!lot) return lot.error();
    if (values.empty()) return refused("certificate", "the certificate names no element");
    return transact("certificate added", [&]() -> Result<Done> {
        QVariant attachment;
        if (!file.isEmpty()) {
            const Result<std::string> kept = insertAttachment(fileName, "application/octet-stream", file);
            if (!kept) return kept.error();
            attachment = q(*kept);
        }
        for (const ElementReading& value : values) {
            if (!value.percent) continue;
            auto done = m_database->insert("lot_value", stamped({{"id", q(m_seams.newId())},
                                                                 {"lot", q(*lot)},
                                                                 {"element", q(value.element)},
                                                                 {"percent", *value.percent},
                                                                 {"attachment", attachment}},
                                                                m_seams.now(), m_person));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<std::string> Logbook::addShot(const ShotDraft& draft) {
    if (draft.composition.elements.empty()) return refused("shot", "the shot holds no element");
    const std::string id = m_seams.newId();
    return idOr(transact("shot added",
                         [&]() -> Result<Done> {
                             QVariant attachment;
                             if (!draft.file.isEmpty()) {
                                 const Result<std::string> kept =
                                     insertAttachment(draft.file_name, "text/csv", draft.file);
                                 if (!kept) return kept.error();
                                 attachment = q(*kept);
                             }
                             auto done = m_database->insert(
                                 "steel_shot", stamped({{"id", q(id)},
                                                        {"batch", q(draft.batch)},
                                                        {"blade", draft.blade.empty() ? QVariant() : q(draft.blade)},
                                                        {"method", nameOf(draft.method)},
                                                        {"piece", q(draft.piece)},
                                                        {"attachment", attachment}},
                                                       m_seams.now(), m_person));
                             for (const ElementReading& value : draft.composition.elements) {
                                 if (!done) return done;
                                 done = m_database->insert("steel_value", {{"id", q(m_seams.newId())},
                                                                           {"shot", q(id)},
                                                                           {"element", q(value.element)},
                                                                           {"percent", orNull(value.percent)},
                                                                           {"lod", orNull(value.lod)},
                                                                           {"sigma", orNull(value.sigma)}});
                             }
                             return done;
                         }),
                id);
}

Result<Done> Logbook::strikeShot(const std::string& shot, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return transact("shot struck out", [&] {
        return m_database->insert(
            "steel_shot_mark",
            stamped({{"id", q(m_seams.newId())}, {"shot", q(shot)}, {"reason", q(reason)}}, m_seams.now(), m_person));
    });
}

Result<Done> Logbook::addSteelNote(const std::string& batch, const SteelNote& note) {
    return transact("steel noted", [&] {
        return m_database->insert("steel_note",
                                  stamped({{"id", q(m_seams.newId())},
                                           {"batch", q(batch)},
                                           {"kind", nameOf(note.kind)},
                                           {"text", q(note.text)},
                                           {"hrc", orNull(note.hrc)},
                                           {"agrees", note.agrees ? QVariant(*note.agrees ? 1 : 0) : QVariant()},
                                           {"marks", q(joined(note.marks))}},
                                          m_seams.now(), m_person));
    });
}

Result<Done> Logbook::assignGrade(const std::string& batch, const std::string& grade, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    if (trimmed(grade).empty()) return refused("grade", "a grade is needed");
    return transact("grade re-assigned", [&]() -> Result<Done> {
        const Result<std::string> id = gradeId(grade);
        if (!id) return id.error();
        return m_database->insert(
            "grade_assignment",
            stamped({{"id", q(m_seams.newId())}, {"batch", q(batch)}, {"grade", q(*id)}, {"reason", q(reason)}},
                    m_seams.now(), m_person));
    });
}

Result<Done> Logbook::keepOwnGrade(const GradeSheet& sheet) {
    const auto name = sheet.find("name");
    if (name == sheet.end() || trimmed(name->second).empty()) return refused("name", "a grade needs a name");
    return transact("own grade kept", [&] {
        return m_database->insert("own_grade", stamped({{"id", q(m_seams.newId())},
                                                        {"name", q(std::string(trimmed(name->second)))},
                                                        {"sheet", sheetText(sheet)}},
                                                       m_seams.now(), m_person));
    });
}

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
    const Result<QVariant> assigned =
        m_database->single(QStringLiteral("SELECT g.designation FROM grade_assignment a JOIN grade g ON g.id=a.grade "
                                          "WHERE a.batch=? ORDER BY a.at_ms DESC, a.rowid DESC LIMIT 1"),
                           {q(batch.id)});
    if (!assigned) return assigned.error();
    if (!assigned->isNull()) batch.grade = s(*assigned);
    const auto shots =
        m_database->select(QStringLiteral("SELECT s.id, COALESCE(s.blade, ''), s.method, s.piece, s.at_ms, s.at_offset,"
                                          " EXISTS (SELECT 1 FROM steel_shot_mark m WHERE m.shot=s.id) FROM steel_shot "
                                          "s WHERE s.batch=? ORDER BY s.at_ms, s.rowid"),
                           {q(batch.id)});
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
    const auto notes = m_database->select(QStringLiteral("SELECT kind, text, hrc, agrees, marks, at_ms, at_offset FROM "
                                                         "steel_note WHERE batch=? ORDER BY at_ms, rowid"),
                                          {q(batch.id)});
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

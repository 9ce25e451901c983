// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/steel.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

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

std::string joined(const std::vector<std::string>& parts) {
    std::string text;
    for (const std::string& part : parts) text += (text.empty() ? "" : ",") + part;
    return text;
}

} // namespace

Result<std::string> lotOf(Logbook& logbook, const std::string& batch) {
    const Result<QVariant> lot =
        logbook.database().single(QStringLiteral("SELECT lot FROM batch WHERE id=?"), {q(batch)});
    if (!lot) return lot.error();
    if (lot->isNull()) return refused("lot", "the batch names no grade, so it has no lot yet");
    return s(*lot);
}

Result<Done> changeLot(Logbook& logbook, const std::string& batch, const std::string& name, const std::string& supplier,
                       const std::string& heat_number) {
    const Result<std::string> lot = lotOf(logbook, batch);
    if (!lot) return lot.error();
    return logbook.transact("lot changed", [&] {
        return logbook.database().update(
            "lot", q(*lot), {{"name", q(name)}, {"supplier", q(supplier)}, {"heat_number", q(heat_number)}});
    });
}

Result<Done> addCertificate(Logbook& logbook, const std::string& batch, const std::vector<ElementReading>& values,
                            const QString& fileName, const QByteArray& file) {
    const Result<std::string> lot = lotOf(logbook, batch);
    if (!lot) return lot.error();
    if (values.empty()) return refused("certificate", "the certificate names no element");
    return logbook.transact("certificate added", [&]() -> Result<Done> {
        QVariant attachment;
        if (!file.isEmpty()) {
            const Result<std::string> kept = insertAttachment(logbook, fileName, "application/octet-stream", file);
            if (!kept) return kept.error();
            attachment = q(*kept);
        }
        for (const ElementReading& value : values) {
            if (!value.percent) continue;
            auto done = logbook.database().insert("lot_value", stamped({{"id", q(logbook.newId())},
                                                                        {"lot", q(*lot)},
                                                                        {"element", q(value.element)},
                                                                        {"percent", *value.percent},
                                                                        {"attachment", attachment}},
                                                                       logbook.now(), logbook.person()));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<std::string> addShot(Logbook& logbook, const ShotDraft& draft) {
    if (draft.composition.elements.empty()) return refused("shot", "the shot holds no element");
    const std::string id = logbook.newId();
    return idOr(
        logbook.transact("shot added",
                         [&]() -> Result<Done> {
                             QVariant attachment;
                             if (!draft.file.isEmpty()) {
                                 const Result<std::string> kept =
                                     insertAttachment(logbook, draft.file_name, "text/csv", draft.file);
                                 if (!kept) return kept.error();
                                 attachment = q(*kept);
                             }
                             auto done = logbook.database().insert(
                                 "steel_shot", stamped({{"id", q(id)},
                                                        {"batch", q(draft.batch)},
                                                        {"blade", draft.blade.empty() ? QVariant() : q(draft.blade)},
                                                        {"method", nameOf(draft.method)},
                                                        {"piece", q(draft.piece)},
                                                        {"attachment", attachment}},
                                                       logbook.now(), logbook.person()));
                             for (const ElementReading& value : draft.composition.elements) {
                                 if (!done) return done;
                                 done = logbook.database().insert("steel_value", {{"id", q(logbook.newId())},
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

Result<Done> strikeShot(Logbook& logbook, const std::string& shot, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return logbook.transact("shot struck out", [&] {
        return logbook.database().insert("steel_shot_mark",
                                         stamped({{"id", q(logbook.newId())}, {"shot", q(shot)}, {"reason", q(reason)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> addSteelNote(Logbook& logbook, const std::string& batch, const SteelNote& note) {
    return logbook.transact("steel noted", [&] {
        return logbook.database().insert("steel_note",
                                         stamped({{"id", q(logbook.newId())},
                                                  {"batch", q(batch)},
                                                  {"kind", nameOf(note.kind)},
                                                  {"text", q(note.text)},
                                                  {"hrc", orNull(note.hrc)},
                                                  {"agrees", note.agrees ? QVariant(*note.agrees ? 1 : 0) : QVariant()},
                                                  {"marks", q(joined(note.marks))}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> assignGrade(Logbook& logbook, const std::string& batch, const std::string& grade,
                         const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    if (trimmed(grade).empty()) return refused("grade", "a grade is needed");
    return logbook.transact("grade re-assigned", [&]() -> Result<Done> {
        const Result<std::string> id = gradeId(logbook, grade);
        if (!id) return id.error();
        return logbook.database().insert(
            "grade_assignment",
            stamped({{"id", q(logbook.newId())}, {"batch", q(batch)}, {"grade", q(*id)}, {"reason", q(reason)}},
                    logbook.now(), logbook.person()));
    });
}

Result<Done> keepOwnGrade(Logbook& logbook, const GradeSheet& sheet) {
    const auto name = sheet.find("name");
    if (name == sheet.end() || trimmed(name->second).empty()) return refused("name", "a grade needs a name");
    return logbook.transact("own grade kept", [&] {
        return logbook.database().insert("own_grade", stamped({{"id", q(logbook.newId())},
                                                               {"name", q(std::string(trimmed(name->second)))},
                                                               {"sheet", sheetText(sheet)}},
                                                              logbook.now(), logbook.person()));
    });
}

Result<Done> nameSteelPart(Logbook& logbook, const std::string& batch, const SteelPart& part) {
    if (trimmed(part.place).empty()) return refused("place", "say where it lies: cladding, core, second layer");
    return logbook.transact("steel named", [&] {
        return logbook.database().insert(
            "steel_part",
            stamped(
                {{"id", q(logbook.newId())}, {"batch", q(batch)}, {"grade", q(part.grade)}, {"place", q(part.place)}},
                logbook.now(), logbook.person()));
    });
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/actions/blades.h"
#include "logbook/actions/proof.h"

/// Rows that several acts write, each inside the transaction of its act.
namespace rollcall {

Result<std::string> gradeId(Logbook& logbook, const std::string& designation);
Result<Done> insertBlade(Logbook& logbook, const std::string& batch, const std::string& id, const BladeDraft& draft,
                         int position);
/// The row of a reading, in no zone.
Fields readingFields(const std::string& id, const ReadingDraft& draft, const Tester& tester,
                     const std::optional<Instant>& time, const std::string& verification, const std::string& import,
                     const std::string& identity, const std::string& person);
Result<Done> insertReading(Logbook& logbook, const std::string& id, const ReadingDraft& draft, const Tester& tester,
                           const std::optional<Instant>& time, const std::string& verification,
                           const std::string& import, const std::string& identity);
/// A blade in a temper: in which hardening round, and as its how manieth there.
struct TemperedBlade {
    std::string id;
    int round = 1;
    int number = 1;
};
/// Logs a temper of these blades, in place of the draft's own.
Result<Done> insertTemper(Logbook& logbook, const std::string& id, const TemperDraft& draft,
                          const std::vector<TemperedBlade>& blades);
/// Refuses a mark that stands already, by a statement that counts those of this id.
Result<Done> notYetMarked(Logbook& logbook, const char* sql, const std::string& id, const char* otherwise);
Result<Tester> testerById(Logbook& logbook, const std::string& id);
Result<Done> keepBytes(Logbook& logbook, const QString& sha, const QByteArray& bytes);
/// Keeps a file and gives the id of its attachment.
Result<std::string> insertAttachment(Logbook& logbook, const QString& name, const char* mediaType,
                                     const QByteArray& bytes);
Result<std::string> lotOf(Logbook& logbook, const std::string& batch);
/// Keeps a file where there is one and gives the id of its attachment; null for none.
Result<QVariant> attached(Logbook& logbook, const AttachedFile& file);

/// Whether a row of this table has this value in this column: two would be known by one name. Errors: disk, damaged.
Result<bool> isTaken(Logbook& logbook, const char* table, const char* column, const std::string& value);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/heat.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

#include <array>
#include <cstring>
#include <fmt/format.h>
#include <QCryptographicHash>
#include <QtEndian>

// Ovens, recipes, heats, the schedule, warp and colours in the record.
namespace rollcall {

namespace {

QVariant msOrNull(const std::optional<Instant>& at) {
    return at ? QVariant::fromValue<qint64>(at->utc_ms) : QVariant();
}

QVariant offsetOrNull(const std::optional<Instant>& at) {
    return at ? QVariant(at->offset_minutes) : QVariant();
}

Fields fieldsOf(const Oven& oven) {
    return {{"id", q(oven.id)},
            {"name", q(oven.name)},
            {"step_c", oven.step_c},
            {"checked_ms", msOrNull(oven.checked)},
            {"checked_offset", offsetOrNull(oven.checked)}};
}

// Little-endian doubles, seconds and degrees by turns.
QByteArray packed(const Trace& trace) {
    QByteArray bytes(static_cast<qsizetype>(trace.samples().size() * 16), Qt::Uninitialized);
    char* at = bytes.data();
    for (const TraceSample& sample : trace.samples()) {
        qToLittleEndian(sample.s, at);
        qToLittleEndian(sample.c, at + 8);
        at += 16;
    }
    return bytes;
}

} // namespace

Result<Done> keepBytes(Logbook& logbook, const QString& sha, const QByteArray& bytes) {
    return logbook.database().run(QStringLiteral("INSERT OR IGNORE INTO attachment_blob (sha256, bytes) VALUES (?,?)"),
                                  {sha, bytes});
}

Result<std::string> insertAttachment(Logbook& logbook, const QString& name, const char* mediaType,
                                     const QByteArray& bytes) {
    const QString sha = QString::fromLatin1(QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex());
    if (auto done = keepBytes(logbook, sha, bytes); !done) return done.error();
    const std::string id = logbook.newId();
    return idOr(
        logbook.database().insert(
            "attachment",
            {{"id", q(id)}, {"sha256", sha}, {"name", name}, {"media_type", mediaType}, {"size", bytes.size()}}),
        id);
}

Result<std::string> addOven(Logbook& logbook, const Oven& oven) {
    if (trimmed(oven.name).empty()) return refused("name", "an oven needs a name");
    if (!(oven.step_c > 0 && oven.step_c <= 50)) return refused("step", "an oven's step lies between 0 and 50 °C");
    const Result<QVariant> known =
        logbook.database().single(QStringLiteral("SELECT id FROM oven WHERE name=?"), {q(oven.name)});
    if (!known) return known.error();
    if (!known->isNull()) return refused("name", fmt::format("there is an oven {} already", oven.name));
    Oven added = oven;
    added.id = logbook.newId();
    return idOr(logbook.transact("oven added", [&] { return logbook.database().insert("oven", fieldsOf(added)); }),
                added.id);
}

Result<Done> changeOven(Logbook& logbook, const Oven& oven) {
    return logbook.transact("oven changed",
                            [&] { return logbook.database().update("oven", q(oven.id), fieldsOf(oven)); });
}

Result<std::string> addRecipe(Logbook& logbook, const Recipe& recipe) {
    if (trimmed(recipe.name).empty()) return refused("name", "a recipe needs a name");
    if (recipe.stages.empty()) return refused("stages", "a recipe needs at least one stage");
    const std::string id = logbook.newId();
    return idOr(logbook.transact("recipe added",
                                 [&]() -> Result<Done> {
                                     const Result<QVariant> last = logbook.database().single(
                                         QStringLiteral("SELECT COALESCE(MAX(version), 0) FROM recipe WHERE name=?"),
                                         {q(recipe.name)});
                                     if (!last) return last.error();
                                     auto done =
                                         logbook.database().insert("recipe", stamped({{"id", q(id)},
                                                                                      {"name", q(recipe.name)},
                                                                                      {"version", last->toInt() + 1},
                                                                                      {"grade", q(recipe.grade)}},
                                                                                     logbook.now(), logbook.person()));
                                     int position = 0;
                                     for (const RecipeStage& stage : recipe.stages) {
                                         if (!done) return done;
                                         done = logbook.database().insert("recipe_stage",
                                                                          {{"id", q(logbook.newId())},
                                                                           {"recipe", q(id)},
                                                                           {"position", position++},
                                                                           {"kind", nameOf(stage.kind)},
                                                                           {"temperature_c", stage.temperature_c},
                                                                           {"minutes", stage.minutes},
                                                                           {"max_minutes", orNull(stage.max_minutes)},
                                                                           {"tolerance_c", stage.tolerance_c},
                                                                           {"cooling", q(stage.cooling)},
                                                                           {"as_entered", q(stage.as_entered)}});
                                     }
                                     return done;
                                 }),
                id);
}

Result<Done> useRecipe(Logbook& logbook, const std::string& batch, const std::string& recipe) {
    return logbook.transact("recipe chosen", [&] {
        return logbook.database().insert(
            "batch_recipe", stamped({{"id", q(logbook.newId())}, {"batch", q(batch)}, {"recipe", q(recipe)}},
                                    logbook.now(), logbook.person()));
    });
}

Result<std::string> startHeat(Logbook& logbook, const HeatDraft& draft) {
    if (!(draft.set_c >= 100 && draft.set_c <= 1400))
        return refused("set point", "the set point lies between 100 and 1400 °C");
    if (draft.min_minutes && draft.max_minutes && *draft.min_minutes > *draft.max_minutes)
        return refused("soak", "the shortest soak is longer than the longest");
    const std::string id = logbook.newId();
    const Instant zero = draft.zero.value_or(logbook.now());
    return idOr(logbook.transact("heat started",
                                 [&] {
                                     return logbook.database().insert(
                                         "heat_run", {{"id", q(id)},
                                                      {"batch", q(draft.batch)},
                                                      {"oven", q(draft.oven)},
                                                      {"set_c", draft.set_c},
                                                      {"near_c", draft.near_c},
                                                      {"min_minutes", orNull(draft.min_minutes)},
                                                      {"max_minutes", orNull(draft.max_minutes)},
                                                      {"surface", nameOf(draft.surface)},
                                                      {"medium", q(draft.medium)},
                                                      {"medium_c", orNull(draft.medium_c)},
                                                      {"medium_tolerance_c", draft.medium_tolerance_c},
                                                      {"edge_mm", orNull(draft.edge_mm)},
                                                      {"as_entered", q(draft.as_entered)},
                                                      {"zero_ms", QVariant::fromValue<qint64>(zero.utc_ms)},
                                                      {"zero_offset", zero.offset_minutes},
                                                      {"person", q(logbook.person())}});
                                 }),
                id);
}

Result<Done> strikeHeat(Logbook& logbook, const std::string& run, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return logbook.transact("heat struck out", [&] {
        return logbook.database().insert("heat_run_mark",
                                         stamped({{"id", q(logbook.newId())}, {"run", q(run)}, {"reason", q(reason)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> addTrace(Logbook& logbook, const TraceDraft& draft) {
    if (draft.trace.empty()) return refused("trace", "the trace holds no samples");
    return logbook.transact("trace added", [&]() -> Result<Done> {
        QVariant attachment;
        if (!draft.file.isEmpty()) {
            const Result<std::string> kept = insertAttachment(logbook, draft.name, "text/csv", draft.file);
            if (!kept) return kept.error();
            attachment = q(*kept);
        }
        const QByteArray samples = packed(draft.trace);
        const QString sha = QString::fromLatin1(QCryptographicHash::hash(samples, QCryptographicHash::Sha256).toHex());
        if (auto done = keepBytes(logbook, sha, samples); !done) return done;
        return logbook.database().insert("trace_part", stamped({{"id", q(logbook.newId())},
                                                                {"run", q(draft.run)},
                                                                {"attachment", attachment},
                                                                {"name", draft.name},
                                                                {"fresh", draft.fresh ? 1 : 0},
                                                                {"samples", sha},
                                                                {"shift_s", draft.shift_s}},
                                                               logbook.now(), logbook.person()));
    });
}

Result<Done> markHeat(Logbook& logbook, const std::string& run, const std::string& blade, int round, HeatMoment moment,
                      double clock_s) {
    return logbook.transact("blade marked in a heat", [&] {
        return logbook.database().insert("heat_mark", stamped({{"id", q(logbook.newId())},
                                                               {"run", q(run)},
                                                               {"blade", q(blade)},
                                                               {"round", round},
                                                               {"kind", nameOf(moment)},
                                                               {"clock_s", clock_s}},
                                                              logbook.now(), logbook.person()));
    });
}

Result<Done> noteHeat(Logbook& logbook, const HeatNoteDraft& note) {
    return logbook.transact("heat noted", [&] {
        return logbook.database().insert("heat_note", stamped({{"id", q(logbook.newId())},
                                                               {"run", q(note.run)},
                                                               {"blade", q(note.blade)},
                                                               {"round", note.round},
                                                               {"transfer_s", orNull(note.transfer_s)},
                                                               {"quenchant_c", orNull(note.quenchant_c)},
                                                               {"noted_c", orNull(note.noted_c)},
                                                               {"noted_minutes", orNull(note.noted_minutes)},
                                                               {"note", q(note.note)},
                                                               {"as_entered", q(note.as_entered)}},
                                                              logbook.now(), logbook.person()));
    });
}

Result<std::string> planRun(Logbook& logbook, const PlannedRun& run, const std::string& as_entered) {
    if (!(run.hours > 0 && run.hours <= 48)) return refused("hours", "a run takes more than 0 and at most 48 hours");
    const Result<std::vector<PlannedRun>> day = logbook.plannedRuns();
    if (!day) return day.error();
    if (const auto other = clash(*day, run)) {
        const PlannedRun& taken = (*day)[*other];
        return refused("oven",
                       fmt::format("{} is taken then: {} of {}", taken.oven_name, taken.what, taken.batch_name));
    }
    const std::string id = logbook.newId();
    return idOr(logbook.transact("cycle planned",
                                 [&] {
                                     return logbook.database().insert(
                                         "planned_cycle",
                                         stamped({{"id", q(id)},
                                                  {"batch", q(run.batch)},
                                                  {"oven", q(run.oven)},
                                                  {"what", q(run.what)},
                                                  {"temperature_c", run.temperature_c},
                                                  {"hours", run.hours},
                                                  {"warm_minutes", run.warm_minutes},
                                                  {"cool_minutes", run.cool_minutes},
                                                  {"as_entered", q(as_entered)},
                                                  {"start_ms", QVariant::fromValue<qint64>(run.start_ms)},
                                                  {"start_offset", logbook.now().offset_minutes}},
                                                 logbook.now(), logbook.person()));
                                 }),
                id);
}

Result<Done> markPlanned(Logbook& logbook, const std::string& planned, const char* kind) {
    return logbook.transact("planned cycle marked", [&] {
        return logbook.database().insert("planned_mark",
                                         stamped({{"id", q(logbook.newId())}, {"planned", q(planned)}, {"kind", kind}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> logWarp(Logbook& logbook, const std::string& blade, int round, int after_temper, const Warp& warp,
                     const std::string& as_entered) {
    if (!(warp.mm >= 0 && warp.mm <= 50)) return refused("warp", "a warp lies between 0 and 50 mm");
    return logbook.transact("warp logged", [&] {
        return logbook.database().insert("warp", stamped({{"id", q(logbook.newId())},
                                                          {"blade", q(blade)},
                                                          {"round", round},
                                                          {"after_cycle", after_temper},
                                                          {"mm", warp.mm},
                                                          {"as_entered", q(as_entered)},
                                                          {"high", warp.high == WarpSide::left ? "left" : "right"}},
                                                         logbook.now(), logbook.person()));
    });
}

Result<Done> logColour(Logbook& logbook, const std::string& blade, const ColourNote& note) {
    return logbook.transact("temper colour logged", [&] {
        return logbook.database().insert("temper_colour", stamped({{"id", q(logbook.newId())},
                                                                   {"blade", q(blade)},
                                                                   {"round", note.round},
                                                                   {"after_cycle", note.after_temper},
                                                                   {"zone", q(note.zone)},
                                                                   {"colour", q(note.colour)},
                                                                   {"surface", nameOf(note.surface)},
                                                                   {"torch", note.torch ? 1 : 0}},
                                                                  logbook.now(), logbook.person()));
    });
}

} // namespace rollcall

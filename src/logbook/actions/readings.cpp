// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"

#include "core/base/number.h"
#include "core/judge/gates.h"
#include "logbook/actions/rows.h"
#include "logbook/database.h"
#include "logbook/rows.h"

#include <fmt/format.h>

// Readings on blades: logged, struck out, moved, accepted, put aside for another set.
namespace rollcall {

Fields readingFields(const std::string& id, const ReadingDraft& draft, const Tester& tester,
                     const std::optional<Instant>& time, const std::string& verification, const std::string& import,
                     const std::string& identity, const std::string& person) {
    const auto text = [](const std::string& value) { return value.empty() ? QVariant() : QVariant(q(value)); };
    return {{"id", q(id)},
            {"blade", text(draft.blade)},
            {"verification", text(verification)},
            {"gate", verification.empty() ? storedName(draft.gate) : "block"},
            {"round", draft.round},
            {"after_cycle", orNull(draft.after_temper)},
            {"scale", q(draft.scale)},
            {"value", draft.value},
            {"as_entered", q(draft.as_entered)},
            {"resolution", draft.resolution},
            {"at_ms", time ? QVariant::fromValue<qint64>(time->utc_ms) : QVariant()},
            {"at_offset", time ? QVariant(time->offset_minutes) : QVariant()},
            {"tester", q(tester.id)},
            {"indenter", q(tester.indenter)},
            {"anvil", q(tester.anvil)},
            {"x_mm", draft.spot ? QVariant(draft.spot->x_mm) : QVariant()},
            {"y_mm", draft.spot ? QVariant(draft.spot->y_mm) : QVariant()},
            {"convex_radius_mm", orNull(draft.convex_radius_mm)},
            {"series", text(draft.series)},
            {"import", text(import)},
            {"identity", q(identity)},
            {"note", q(draft.note)},
            {"person", q(person)}};
}

Result<Done> insertReading(Logbook& logbook, const std::string& id, const ReadingDraft& draft, const Tester& tester,
                           const std::optional<Instant>& time, const std::string& verification,
                           const std::string& import, const std::string& identity) {
    const auto done = logbook.database().insert(
        "reading", readingFields(id, draft, tester, time, verification, import, identity, logbook.person()));
    if (!done || draft.zone == Zone::edge) return done;
    return logbook.database().insert("reading_zone",
                                     {{"id", q(logbook.newId())}, {"reading", q(id)}, {"zone", nameOf(draft.zone)}});
}

Result<std::string> logReading(Logbook& logbook, const ReadingDraft& draft) {
    const Result<Tester> tester = testerById(logbook, draft.tester);
    if (!tester) return tester.error();
    const std::string id = logbook.newId();
    return idOr(logbook.transact("reading logged",
                                 [&] { return insertReading(logbook, id, draft, *tester, logbook.now(), {}, {}, {}); }),
                id);
}

Result<Done> logSeries(Logbook& logbook, const SeriesDraft& series) {
    if (series.strikes.empty()) return refused("strikes", "no strike was typed");
    const Result<Tester> tester = testerById(logbook, series.strikes.front().tester);
    if (!tester) return tester.error();
    return logbook.transact("series of strikes logged", [&]() -> Result<Done> {
        const std::string id = logbook.newId();
        auto done =
            logbook.database().insert("strike_series", stamped({{"id", q(id)},
                                                                {"blade", q(series.strikes.front().blade)},
                                                                {"instrument_mean", orNull(series.instrument_mean)},
                                                                {"support", q(series.support)}},
                                                               logbook.now(), logbook.person()));
        for (ReadingDraft strike : series.strikes) {
            if (!done) return done;
            strike.series = id;
            done = insertReading(logbook, logbook.newId(), strike, *tester, logbook.now(), {}, {}, {});
        }
        return done;
    });
}

// One that was taken back may be set again.
Result<Done> notYetMarked(Logbook& logbook, const char* sql, const std::string& id, const char* otherwise) {
    const Result<QVariant> standing = logbook.database().single(QString::fromLatin1(sql), {q(id)});
    if (!standing) return standing.error();
    if (standing->toInt() > 0) return refused("reason", otherwise);
    return Done{};
}

namespace {

constexpr const char* marksOut =
    "SELECT COUNT(*) FROM reading_mark WHERE reading=? AND kind<>'accepted' AND id NOT IN taken_back";

} // namespace

Result<Done> strikeReading(Logbook& logbook, const std::string& reading, StrikeReason reason, const std::string& note) {
    if (auto free = notYetMarked(logbook, marksOut, reading, "it is struck out already"); !free) return free;
    return logbook.transact("reading struck out", [&] {
        return logbook.database().insert("reading_mark", stamped({{"id", q(logbook.newId())},
                                                                  {"reading", q(reading)},
                                                                  {"kind", "struck"},
                                                                  {"reason", nameOf(reason)},
                                                                  {"note", q(note)},
                                                                  {"replaced_by", QVariant()}},
                                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> moveReading(Logbook& logbook, const Batch& batch, const std::string& reading, const std::string& to) {
    const Blade* target = nullptr;
    const Reading* moved = nullptr;
    for (const Blade& blade : batch.blades) {
        if (blade.id == to) target = &blade;
        for (const Reading& one : blade.readings) {
            if (one.id == reading) moved = &one;
        }
    }
    if (target == nullptr) return refused("blade", "there is no such blade in this batch");
    if (moved == nullptr || moved->struck) return refused("reading", "only a reading that stands can be moved");
    const Result<Tester> tester = testerById(logbook, moved->tester);
    if (!tester) return tester.error();
    ReadingDraft draft;
    draft.blade = to;
    draft.gate = moved->gate;
    draft.round = target->round;
    draft.after_temper = moved->gate == Gate::quench ? 0 : lastTemper(*target);
    draft.scale = moved->scale;
    draft.value = moved->value;
    draft.as_entered = fmt::format("{:g}", moved->value);
    draft.resolution = moved->resolution;
    draft.zone = moved->zone;
    draft.convex_radius_mm = moved->convex_radius_mm;
    draft.tester = moved->tester;
    draft.note = moved->note;
    return logbook.transact("reading moved", [&]() -> Result<Done> {
        auto done = strikeReading(logbook, reading, StrikeReason::typingSlip, "made on " + target->mark);
        return done ? insertReading(logbook, logbook.newId(), draft, *tester, moved->time, {}, {}, {}) : done;
    });
}

Result<Done> supersedeReadings(Logbook& logbook, const std::vector<std::string>& readings, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return logbook.transact("readings superseded", [&]() -> Result<Done> {
        for (const std::string& reading : readings) {
            auto done = logbook.database().insert("reading_mark", stamped({{"id", q(logbook.newId())},
                                                                           {"reading", q(reading)},
                                                                           {"kind", "superseded"},
                                                                           {"reason", nameOf(StrikeReason::superseded)},
                                                                           {"note", q(reason)},
                                                                           {"replaced_by", QVariant()}},
                                                                          logbook.now(), logbook.person()));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<Done> acceptReading(Logbook& logbook, const std::string& reading, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    if (auto free = notYetMarked(logbook,
                                 "SELECT COUNT(*) FROM reading_mark WHERE reading=? AND kind='accepted' AND id NOT IN "
                                 "taken_back",
                                 reading, "it is accepted already");
        !free)
        return free;
    return logbook.transact("reading accepted", [&] {
        return logbook.database().insert("reading_mark", stamped({{"id", q(logbook.newId())},
                                                                  {"reading", q(reading)},
                                                                  {"kind", "accepted"},
                                                                  {"reason", q(reason)},
                                                                  {"note", ""},
                                                                  {"replaced_by", QVariant()}},
                                                                 logbook.now(), logbook.person()));
    });
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/chain_rows.h"

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

std::vector<TraceSample> unpacked(const QByteArray& bytes, double shift_s) {
    std::vector<TraceSample> samples;
    samples.reserve(static_cast<std::size_t>(bytes.size() / 16));
    for (qsizetype i = 0; i + 16 <= bytes.size(); i += 16)
        samples.push_back({qFromLittleEndian<double>(bytes.constData() + i) + shift_s,
                           qFromLittleEndian<double>(bytes.constData() + i + 8)});
    return samples;
}

} // namespace

Result<Done> Logbook::keepBytes(const QString& sha, const QByteArray& bytes) {
    return m_database->run(QStringLiteral("INSERT OR IGNORE INTO attachment_blob (sha256, bytes) VALUES (?,?)"),
                           {sha, bytes});
}

Result<std::string> Logbook::insertAttachment(const QString& name, const char* mediaType, const QByteArray& bytes) {
    const QString sha = QString::fromLatin1(QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex());
    if (auto done = keepBytes(sha, bytes); !done) return done.error();
    const std::string id = m_seams.newId();
    return idOr(
        m_database->insert(
            "attachment",
            {{"id", q(id)}, {"sha256", sha}, {"name", name}, {"media_type", mediaType}, {"size", bytes.size()}}),
        id);
}

Result<std::string> Logbook::addOven(const Oven& oven) {
    if (trimmed(oven.name).empty()) return refused("name", "an oven needs a name");
    if (!(oven.step_c > 0 && oven.step_c <= 50)) return refused("step", "an oven's step lies between 0 and 50 °C");
    const Result<QVariant> known =
        m_database->single(QStringLiteral("SELECT id FROM oven WHERE name=?"), {q(oven.name)});
    if (!known) return known.error();
    if (!known->isNull()) return refused("name", fmt::format("there is an oven {} already", oven.name));
    Oven added = oven;
    added.id = m_seams.newId();
    return idOr(transact("oven added", [&] { return m_database->insert("oven", fieldsOf(added)); }), added.id);
}

Result<Done> Logbook::changeOven(const Oven& oven) {
    return transact("oven changed", [&] { return m_database->update("oven", q(oven.id), fieldsOf(oven)); });
}

Result<std::vector<Oven>> Logbook::ovens() {
    const auto rows = m_database->select(
        QStringLiteral("SELECT id, name, step_c, checked_ms, checked_offset FROM oven ORDER BY rowid"));
    if (!rows) return rows.error();
    std::vector<Oven> ovens;
    for (const Row& row : *rows)
        ovens.push_back({s(row[0]), s(row[1]), row[2].toDouble(), instantOrNone(row[3], row[4])});
    return ovens;
}

Result<std::vector<Recipe>> Logbook::recipes() {
    const auto rows = m_database->select(
        QStringLiteral("SELECT id, name, version, grade, person FROM recipe ORDER BY name, version DESC"));
    if (!rows) return rows.error();
    std::vector<Recipe> recipes;
    for (const Row& row : *rows) {
        Recipe recipe{s(row[0]), s(row[1]), row[2].toInt(), s(row[3]), {}, s(row[4])};
        const auto stages = m_database->select(
            QStringLiteral("SELECT kind, temperature_c, minutes, max_minutes, tolerance_c, cooling, as_entered"
                           " FROM recipe_stage WHERE recipe=? ORDER BY position"),
            {row[0]});
        if (!stages) return stages.error();
        for (const Row& stage : *stages)
            recipe.stages.push_back({storedAs<StageKind>(stage[0]), stage[1].toDouble(), stage[2].toDouble(),
                                     numberOrNone(stage[3]), stage[4].toDouble(), s(stage[5]), s(stage[6])});
        recipes.push_back(std::move(recipe));
    }
    return recipes;
}

Result<std::string> Logbook::addRecipe(const Recipe& recipe) {
    if (trimmed(recipe.name).empty()) return refused("name", "a recipe needs a name");
    if (recipe.stages.empty()) return refused("stages", "a recipe needs at least one stage");
    const std::string id = m_seams.newId();
    return idOr(transact("recipe added",
                         [&]() -> Result<Done> {
                             const Result<QVariant> last = m_database->single(
                                 QStringLiteral("SELECT COALESCE(MAX(version), 0) FROM recipe WHERE name=?"),
                                 {q(recipe.name)});
                             if (!last) return last.error();
                             auto done = m_database->insert("recipe", stamped({{"id", q(id)},
                                                                               {"name", q(recipe.name)},
                                                                               {"version", last->toInt() + 1},
                                                                               {"grade", q(recipe.grade)}},
                                                                              m_seams.now(), m_person));
                             int position = 0;
                             for (const RecipeStage& stage : recipe.stages) {
                                 if (!done) return done;
                                 done = m_database->insert("recipe_stage", {{"id", q(m_seams.newId())},
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

Result<Done> Logbook::useRecipe(const std::string& batch, const std::string& recipe) {
    return transact("recipe chosen", [&] {
        return m_database->insert(
            "batch_recipe",
            stamped({{"id", q(m_seams.newId())}, {"batch", q(batch)}, {"recipe", q(recipe)}}, m_seams.now(), m_person));
    });
}

Result<std::string> Logbook::startHeat(const HeatDraft& draft) {
    if (!(draft.set_c >= 100 && draft.set_c <= 1400))
        return refused("set point", "the set point lies between 100 and 1400 °C");
    if (draft.min_minutes && draft.max_minutes && *draft.min_minutes > *draft.max_minutes)
        return refused("soak", "the shortest soak is longer than the longest");
    const std::string id = m_seams.newId();
    const Instant zero = draft.zero.value_or(m_seams.now());
    return idOr(transact("heat started",
                         [&] {
                             return m_database->insert("heat_run",
                                                       {{"id", q(id)},
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
                                                        {"person", q(m_person)}});
                         }),
                id);
}

Result<Done> Logbook::strikeHeat(const std::string& run, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return transact("heat struck out", [&] {
        return m_database->insert(
            "heat_run_mark",
            stamped({{"id", q(m_seams.newId())}, {"run", q(run)}, {"reason", q(reason)}}, m_seams.now(), m_person));
    });
}

Result<Done> Logbook::addTrace(const TraceDraft& draft) {
    if (draft.trace.empty()) return refused("trace", "the trace holds no samples");
    return transact("trace added", [&]() -> Result<Done> {
        QVariant attachment;
        if (!draft.file.isEmpty()) {
            const Result<std::string> kept = insertAttachment(draft.name, "text/csv", draft.file);
            if (!kept) return kept.error();
            attachment = q(*kept);
        }
        const QByteArray samples = packed(draft.trace);
        const QString sha = QString::fromLatin1(QCryptographicHash::hash(samples, QCryptographicHash::Sha256).toHex());
        if (auto done = keepBytes(sha, samples); !done) return done;
        return m_database->insert("trace_part", stamped({{"id", q(m_seams.newId())},
                                                         {"run", q(draft.run)},
                                                         {"attachment", attachment},
                                                         {"name", draft.name},
                                                         {"fresh", draft.fresh ? 1 : 0},
                                                         {"samples", sha},
                                                         {"shift_s", draft.shift_s}},
                                                        m_seams.now(), m_person));
    });
}

Result<Done> Logbook::markHeat(const std::string& run, const std::string& blade, int round, HeatMoment moment,
                               double clock_s) {
    return transact("blade marked in a heat", [&] {
        return m_database->insert("heat_mark", stamped({{"id", q(m_seams.newId())},
                                                        {"run", q(run)},
                                                        {"blade", q(blade)},
                                                        {"round", round},
                                                        {"kind", nameOf(moment)},
                                                        {"clock_s", clock_s}},
                                                       m_seams.now(), m_person));
    });
}

Result<Done> Logbook::noteHeat(const HeatNoteDraft& note) {
    return transact("heat noted", [&] {
        return m_database->insert("heat_note", stamped({{"id", q(m_seams.newId())},
                                                        {"run", q(note.run)},
                                                        {"blade", q(note.blade)},
                                                        {"round", note.round},
                                                        {"transfer_s", orNull(note.transfer_s)},
                                                        {"quenchant_c", orNull(note.quenchant_c)},
                                                        {"noted_c", orNull(note.noted_c)},
                                                        {"noted_minutes", orNull(note.noted_minutes)},
                                                        {"note", q(note.note)},
                                                        {"as_entered", q(note.as_entered)}},
                                                       m_seams.now(), m_person));
    });
}

Result<std::string> Logbook::planRun(const PlannedRun& run, const std::string& as_entered) {
    if (!(run.hours > 0 && run.hours <= 48)) return refused("hours", "a run takes more than 0 and at most 48 hours");
    const Result<std::vector<PlannedRun>> day = plannedRuns();
    if (!day) return day.error();
    if (const auto other = clash(*day, run)) {
        const PlannedRun& taken = (*day)[*other];
        return refused("oven",
                       fmt::format("{} is taken then: {} of {}", taken.oven_name, taken.what, taken.batch_name));
    }
    const std::string id = m_seams.newId();
    return idOr(transact("cycle planned",
                         [&] {
                             return m_database->insert("planned_cycle",
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
                                                                {"start_offset", m_seams.now().offset_minutes}},
                                                               m_seams.now(), m_person));
                         }),
                id);
}

Result<Done> Logbook::markPlanned(const std::string& planned, const char* kind) {
    return transact("planned cycle marked", [&] {
        return m_database->insert(
            "planned_mark",
            stamped({{"id", q(m_seams.newId())}, {"planned", q(planned)}, {"kind", kind}}, m_seams.now(), m_person));
    });
}

Result<std::vector<PlannedRun>> Logbook::plannedRuns() {
    constexpr std::int64_t day_ms = 86400000;
    const auto rows = m_database->select(QStringLiteral(
        "SELECT p.id, p.batch, b.name, p.oven, o.name, p.what, p.temperature_c, p.hours, p.warm_minutes, "
        "p.cool_minutes, p.start_ms,"
        " (SELECT at_ms FROM planned_mark m WHERE m.planned=p.id AND m.kind='started'),"
        " (SELECT at_ms FROM planned_mark m WHERE m.planned=p.id AND m.kind='out'),"
        " EXISTS (SELECT 1 FROM planned_mark m WHERE m.planned=p.id AND m.kind='cancelled')"
        " FROM planned_cycle p JOIN batch b ON b.id=p.batch JOIN oven o ON o.id=p.oven ORDER BY p.start_ms, p.rowid"));
    if (!rows) return rows.error();
    std::vector<PlannedRun> runs;
    const std::int64_t now = m_seams.now().utc_ms;
    for (const Row& row : *rows) {
        PlannedRun run;
        run.id = s(row[0]);
        run.batch = s(row[1]);
        run.batch_name = s(row[2]);
        run.oven = s(row[3]);
        run.oven_name = s(row[4]);
        run.what = s(row[5]);
        run.temperature_c = row[6].toDouble();
        run.hours = row[7].toDouble();
        run.warm_minutes = row[8].toDouble();
        run.cool_minutes = row[9].toDouble();
        run.start_ms = row[10].toLongLong();
        run.started = !row[11].isNull();
        // Once it is in, its end counts from when it really went in.
        if (run.started) run.start_ms = row[11].toLongLong();
        run.out = !row[12].isNull();
        run.cancelled = row[13].toBool();
        if (!run.open() && run.freeAt() < now - day_ms) continue;
        runs.push_back(std::move(run));
    }
    return runs;
}

Result<Done> Logbook::logWarp(const std::string& blade, int round, int after_temper, const Warp& warp,
                              const std::string& as_entered) {
    if (!(warp.mm >= 0 && warp.mm <= 50)) return refused("warp", "a warp lies between 0 and 50 mm");
    return transact("warp logged", [&] {
        return m_database->insert("warp", stamped({{"id", q(m_seams.newId())},
                                                   {"blade", q(blade)},
                                                   {"round", round},
                                                   {"after_cycle", after_temper},
                                                   {"mm", warp.mm},
                                                   {"as_entered", q(as_entered)},
                                                   {"high", warp.high == WarpSide::left ? "left" : "right"}},
                                                  m_seams.now(), m_person));
    });
}

Result<Done> Logbook::logColour(const std::string& blade, const ColourNote& note) {
    return transact("temper colour logged", [&] {
        return m_database->insert("temper_colour", stamped({{"id", q(m_seams.newId())},
                                                            {"blade", q(blade)},
                                                            {"round", note.round},
                                                            {"after_cycle", note.after_temper},
                                                            {"zone", q(note.zone)},
                                                            {"colour", q(note.colour)},
                                                            {"surface", nameOf(note.surface)},
                                                            {"torch", note.torch ? 1 : 0}},
                                                           m_seams.now(), m_person));
    });
}

Result<std::shared_ptr<const Trace>> Logbook::traceOf(const std::string& run, std::string& name) {
    const auto parts = m_database->select(
        QStringLiteral("SELECT fresh, samples, shift_s, name FROM trace_part WHERE run=? ORDER BY at_ms, rowid"),
        {q(run)});
    if (!parts) return parts.error();
    std::size_t first = 0;
    for (std::size_t i = 0; i < parts->size(); ++i) {
        if ((*parts)[i][0].toBool()) first = i;
    }
    std::string key;
    for (std::size_t i = first; i < parts->size(); ++i)
        key += s((*parts)[i][1]) + fmt::format("@{}/", (*parts)[i][2].toDouble());
    if (key.empty()) return std::shared_ptr<const Trace>();
    name = s((*parts)[first][3]);
    if (const auto known = m_traces.find(key); known != m_traces.end()) return known->second;
    std::vector<TraceSample> samples;
    for (std::size_t i = first; i < parts->size(); ++i) {
        const Result<QVariant> bytes =
            m_database->single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), {(*parts)[i][1]});
        if (!bytes) return bytes.error();
        for (const TraceSample& sample : unpacked(bytes->toByteArray(), (*parts)[i][2].toDouble()))
            samples.push_back(sample);
    }
    Result<Trace> trace = Trace::of(std::move(samples));
    // A trace that cannot be read is shown as none; its bytes stay, and check() says when they were altered.
    std::shared_ptr<const Trace> kept = trace ? std::make_shared<const Trace>(std::move(trace).value()) : nullptr;
    m_traces[key] = kept;
    return kept;
}

Result<Done> Logbook::loadHeats(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto runs = m_database->select(
        QStringLiteral("SELECT r.id, o.name, o.checked_ms, o.checked_offset, r.set_c, r.near_c, r.min_minutes, "
                       "r.max_minutes, r.surface, r.medium,"
                       " r.medium_c, r.medium_tolerance_c, r.edge_mm, r.zero_ms, r.zero_offset FROM heat_run r JOIN "
                       "oven o ON o.id=r.oven"
                       " WHERE r.batch=? AND r.id NOT IN (SELECT run FROM heat_run_mark) ORDER BY r.rowid"),
        {q(batch.id)});
    if (!runs) return runs.error();
    for (const Row& row : *runs) {
        HeatRun run;
        run.id = s(row[0]);
        run.oven = s(row[1]);
        run.oven_checked = instantOrNone(row[2], row[3]);
        run.set_c = row[4].toDouble();
        run.near_c = row[5].toDouble();
        run.min_minutes = numberOrNone(row[6]);
        run.max_minutes = numberOrNone(row[7]);
        run.surface = storedAs<HeatSurface>(row[8]);
        run.medium = s(row[9]);
        run.medium_c = numberOrNone(row[10]);
        run.medium_tolerance_c = row[11].toDouble();
        run.edge_mm = numberOrNone(row[12]);
        run.zero = instantOf(row[13], row[14]);
        Result<std::shared_ptr<const Trace>> trace = traceOf(run.id, run.trace_name);
        if (!trace) return trace.error();
        run.trace = *trace;
        batch.heat_runs.push_back(std::move(run));
    }
    // One entry for a blade and run, in the order of the runs.
    const auto entry = [&](const Row& row) -> BladeHeat& {
        std::vector<BladeHeat>& heats = batch.blades[index.at(s(row[0]))].heats;
        for (BladeHeat& heat : heats) {
            if (heat.run == s(row[1]) && heat.round == row[2].toInt()) return heat;
        }
        heats.emplace_back();
        heats.back().run = s(row[1]);
        heats.back().round = row[2].toInt();
        return heats.back();
    };
    const QString standing = QStringLiteral(
        " WHERE b.batch=? AND m.run NOT IN (SELECT run FROM heat_run_mark) ORDER BY r.rowid, m.at_ms, m.rowid");
    const auto marks =
        m_database->select(QStringLiteral("SELECT m.blade, m.run, m.round, m.kind, m.clock_s FROM heat_mark m"
                                          " JOIN blade b ON b.id=m.blade JOIN heat_run r ON r.id=m.run") +
                               standing,
                           {q(batch.id)});
    if (!marks) return marks.error();
    for (const Row& row : *marks) {
        BladeHeat& heat = entry(row);
        const double at = row[4].toDouble();
        switch (storedAs<HeatMoment>(row[3])) {
        case HeatMoment::in: // in again: what came after it belongs to the time before
            heat.in_s = at;
            heat.out_s.reset();
            heat.quenched_s.reset();
            break;
        case HeatMoment::out:
            heat.out_s = at;
            heat.quenched_s.reset();
            break;
        case HeatMoment::quenched:
            heat.quenched_s = at;
            break;
        }
    }
    const auto notes = m_database->select(
        QStringLiteral("SELECT m.blade, m.run, m.round, m.transfer_s, m.quenchant_c, m.noted_c, m.noted_minutes, m.note"
                       " FROM heat_note m JOIN blade b ON b.id=m.blade JOIN heat_run r ON r.id=m.run") +
            standing,
        {q(batch.id)});
    if (!notes) return notes.error();
    for (const Row& row : *notes) {
        BladeHeat& heat = entry(row);
        const auto newer = [&](std::optional<double>& field, std::size_t column) {
            if (!row[column].isNull()) field = row[column].toDouble();
        };
        newer(heat.noted_transfer_s, 3);
        newer(heat.quenchant_c, 4);
        newer(heat.noted_c, 5);
        newer(heat.noted_minutes, 6);
        if (!s(row[7]).empty()) heat.note = s(row[7]);
    }
    const auto warps = m_database->select(
        QStringLiteral("SELECT w.blade, w.round, w.after_cycle, w.mm, w.high, w.at_ms, w.at_offset FROM warp w"
                       " JOIN blade b ON b.id=w.blade WHERE b.batch=? ORDER BY w.at_ms, w.rowid"),
        {q(batch.id)});
    if (!warps) return warps.error();
    for (const Row& row : *warps)
        batch.blades[index.at(s(row[0]))].warps.push_back({row[1].toInt(), row[2].toInt(), row[3].toDouble(),
                                                           s(row[4]) == "left" ? WarpSide::left : WarpSide::right,
                                                           instantOf(row[5], row[6])});
    const auto colours = m_database->select(
        QStringLiteral(
            "SELECT c.blade, c.round, c.after_cycle, c.zone, c.colour, c.surface, c.torch, c.at_ms, c.at_offset"
            " FROM temper_colour c JOIN blade b ON b.id=c.blade WHERE b.batch=? ORDER BY c.at_ms, c.rowid"),
        {q(batch.id)});
    if (!colours) return colours.error();
    for (const Row& row : *colours)
        batch.blades[index.at(s(row[0]))].colours.push_back({row[1].toInt(), row[2].toInt(), s(row[3]), s(row[4]),
                                                             storedAs<OxideSurface>(row[5]), row[6].toBool(),
                                                             instantOf(row[7], row[8])});
    const Result<QVariant> chosen = m_database->single(
        QStringLiteral("SELECT recipe FROM batch_recipe WHERE batch=? ORDER BY at_ms DESC, rowid DESC LIMIT 1"),
        {q(batch.id)});
    if (!chosen) return chosen.error();
    if (chosen->isNull()) return Done{};
    const Result<std::vector<Recipe>> all = recipes();
    if (!all) return all.error();
    for (const Recipe& recipe : *all) {
        if (recipe.id == s(*chosen)) batch.recipe = recipe;
    }
    return Done{};
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/heat.h"
#include "core/base/number.h"
#include "logbook/rows.h"
#include <array>
#include <cstring>
#include <fmt/format.h>
#include <QCryptographicHash>
#include <QtEndian>

// Ovens, recipes, heats, the schedule, warp and colours in the record.
namespace rollcall {

namespace {

std::vector<TraceSample> unpacked(const QByteArray& bytes, double shift_s) {
    std::vector<TraceSample> samples;
    samples.reserve(static_cast<std::size_t>(bytes.size() / 16));
    for (qsizetype i = 0; i + 16 <= bytes.size(); i += 16)
        samples.push_back({qFromLittleEndian<double>(bytes.constData() + i) + shift_s,
                           qFromLittleEndian<double>(bytes.constData() + i + 8)});
    return samples;
}

} // namespace

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
        const Result<QByteArray> bytes = fileOf(s((*parts)[i][1]));
        if (!bytes && bytes.error().kind == ErrorKind::disk) return bytes.error();
        if (!bytes) samples.clear();
        if (!bytes) break; // not what was put in
        for (const TraceSample& sample : unpacked(*bytes, (*parts)[i][2].toDouble())) samples.push_back(sample);
    }
    Result<Trace> trace = Trace::of(std::move(samples));
    std::shared_ptr<const Trace> kept = trace ? std::make_shared<const Trace>(std::move(trace).value()) : nullptr;
    m_traces[key] = kept;
    return kept;
}

Result<Done> Logbook::loadHeats(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto runs =
        rowsOf("heat_run", batch.id,
               "SELECT r.id, o.name, o.checked_ms, o.checked_offset, r.set_c, r.near_c, r.min_minutes, "
               "r.max_minutes, r.surface, r.medium,"
               " r.medium_c, r.medium_tolerance_c, r.edge_mm, r.zero_ms, r.zero_offset FROM heat_run r JOIN "
               "oven o ON o.id=r.oven"
               " WHERE r.batch=? AND r.id NOT IN (SELECT run FROM heat_run_mark) ORDER BY r.rowid");
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
        run.trace_damaged = !run.trace && !run.trace_name.empty();
        batch.heat_runs.push_back(std::move(run));
    }
    // One entry for a blade and run, in the order of the runs.
    const auto entry = [&](const Row& row) -> BladeHeat* {
        Blade* blade = bladeOf(batch, index, row);
        if (blade == nullptr) return nullptr;
        std::vector<BladeHeat>& heats = blade->heats;
        for (BladeHeat& heat : heats) {
            if (heat.run == s(row[1]) && heat.round == row[2].toInt()) return &heat;
        }
        heats.emplace_back();
        heats.back().run = s(row[1]);
        heats.back().round = row[2].toInt();
        return &heats.back();
    };
    const auto marks =
        rowsOf("heat_mark", batch.id,
               "SELECT m.blade, m.run, m.round, m.kind, m.clock_s FROM heat_mark m JOIN blade b ON b.id=m.blade JOIN "
               "heat_run r ON r.id=m.run WHERE b.batch=? AND m.run NOT IN (SELECT run FROM heat_run_mark) ORDER BY "
               "r.rowid, m.at_ms, m.rowid");
    if (!marks) return marks.error();
    for (const Row& row : *marks) {
        BladeHeat* its = entry(row);
        if (its == nullptr) continue;
        BladeHeat& heat = *its;
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
    const auto notes = rowsOf(
        "heat_note", batch.id,
        "SELECT m.blade, m.run, m.round, m.transfer_s, m.quenchant_c, m.noted_c, m.noted_minutes, m.note FROM "
        "heat_note m JOIN blade b ON b.id=m.blade JOIN heat_run r ON r.id=m.run WHERE b.batch=? AND m.run NOT IN "
        "(SELECT run FROM heat_run_mark) ORDER BY r.rowid, m.at_ms, m.rowid");
    if (!notes) return notes.error();
    for (const Row& row : *notes) {
        BladeHeat* its = entry(row);
        if (its == nullptr) continue;
        BladeHeat& heat = *its;
        const auto newer = [&](std::optional<double>& field, std::size_t column) {
            if (!row[column].isNull()) field = row[column].toDouble();
        };
        newer(heat.noted_transfer_s, 3);
        newer(heat.quenchant_c, 4);
        newer(heat.noted_c, 5);
        newer(heat.noted_minutes, 6);
        if (!s(row[7]).empty()) heat.note = s(row[7]);
    }
    const auto warps = rowsOf("warp", batch.id,
                              "SELECT w.blade, w.round, w.after_cycle, w.mm, w.high, w.at_ms, w.at_offset FROM warp w"
                              " JOIN blade b ON b.id=w.blade WHERE b.batch=? ORDER BY w.at_ms, w.rowid");
    if (!warps) return warps.error();
    for (const Row& row : *warps) {
        if (Blade* blade = bladeOf(batch, index, row))
            blade->warps.push_back({row[1].toInt(), row[2].toInt(), row[3].toDouble(),
                                    s(row[4]) == "left" ? WarpSide::left : WarpSide::right, instantOf(row[5], row[6])});
    }
    const auto colours =
        rowsOf("temper_colour", batch.id,
               "SELECT c.blade, c.round, c.after_cycle, c.zone, c.colour, c.surface, c.torch, c.at_ms, c.at_offset"
               " FROM temper_colour c JOIN blade b ON b.id=c.blade WHERE b.batch=? ORDER BY c.at_ms, c.rowid");
    if (!colours) return colours.error();
    for (const Row& row : *colours) {
        if (Blade* blade = bladeOf(batch, index, row))
            blade->colours.push_back({row[1].toInt(), row[2].toInt(), s(row[3]), s(row[4]),
                                      storedAs<OxideSurface>(row[5]), row[6].toBool(), instantOf(row[7], row[8])});
    }
    const auto chosen = rowsOf("batch_recipe", batch.id,
                               "SELECT recipe FROM batch_recipe WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms "
                               "DESC, rowid DESC LIMIT 1");
    if (!chosen) return chosen.error();
    if (chosen->empty()) return Done{};
    const Result<std::vector<Recipe>> all = recipes();
    if (!all) return all.error();
    for (const Recipe& recipe : *all) {
        if (recipe.id == s(chosen->front()[0])) batch.recipe = recipe;
    }
    return Done{};
}

} // namespace rollcall

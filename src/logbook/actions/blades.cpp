// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"

#include "core/base/number.h"
#include "core/judge/gates.h"
#include "logbook/actions/rows.h"
#include "logbook/database.h"
#include "logbook/rows.h"
#include "logbook/shape_text.h"

#include <fmt/format.h>
#include <set>

// Batches, blades, their tempers and what becomes of them. Each act checks its facts first, then writes rows in one
// transaction.
namespace rollcall {

Result<bool> isTaken(Logbook& logbook, const char* table, const char* column, const std::string& value) {
    const auto known = logbook.database().single(
        QStringLiteral("SELECT 1 FROM %1 WHERE %2=?").arg(QLatin1String(table), QLatin1String(column)), {q(value)});
    if (!known) return known.error();
    return known->isValid();
}

Result<std::string> addPerson(Logbook& logbook, const std::string& initials, const std::string& name) {
    if (trimmed(initials).empty()) return refused("initials", "initials are needed");
    const auto taken = isTaken(logbook, "person", "initials", initials);
    if (!taken) return taken.error();
    if (*taken) return refused("initials", fmt::format("somebody is {} already", initials));
    const std::string id = logbook.newId();
    return idOr(logbook.transact("person added",
                                 [&] {
                                     return logbook.database().insert(
                                         "person", {{"id", q(id)}, {"initials", q(initials)}, {"name", q(name)}});
                                 }),
                id);
}

Result<Done> changeSetting(Logbook& logbook, const std::string& key, const std::string& value) {
    return logbook.transact("setting changed", [&]() -> Result<Done> {
        const Result<QVariant> known =
            logbook.database().single(QStringLiteral("SELECT id FROM setting WHERE id=?"), {q(key)});
        if (!known) return known.error();
        if (known->isNull()) return logbook.database().insert("setting", {{"id", q(key)}, {"value", q(value)}});
        return logbook.database().update("setting", q(key), {{"value", q(value)}});
    });
}

Result<std::string> gradeId(Logbook& logbook, const std::string& designation) {
    const Result<QVariant> known =
        logbook.database().single(QStringLiteral("SELECT id FROM grade WHERE designation=?"), {q(designation)});
    if (!known) return known.error();
    if (!known->isNull()) return s(*known);
    const std::string id = logbook.newId();
    return idOr(logbook.database().insert("grade", {{"id", q(id)}, {"designation", q(designation)}}), id);
}

namespace {

Result<Done> insertClaim(Logbook& logbook, const std::string& blade, const BladeClaim& claim) {
    const auto textOrNull = [](const std::string& text) { return text.empty() ? QVariant() : QVariant(q(text)); };
    const Window window = claim.window.value_or(Window{});
    return logbook.database().insert("blade_claim", stamped({{"id", q(logbook.newId())},
                                                             {"blade", q(blade)},
                                                             {"claimed", textOrNull(claim.claimed)},
                                                             {"grade", textOrNull(claim.grade)},
                                                             {"purpose", textOrNull(claim.purpose)},
                                                             {"own_window", claim.window ? 1 : 0},
                                                             {"window_low", orNull(window.low)},
                                                             {"window_high", orNull(window.high)},
                                                             {"quench_minimum", orNull(claim.quench_minimum)},
                                                             {"minimum_tempers", orNull(claim.minimum_tempers)}},
                                                            logbook.now(), logbook.person()));
}

std::optional<Error> wrongClaim(const BladeClaim& claim) {
    const Window window = claim.window.value_or(Window{});
    if (window.low && window.high && *window.low > *window.high)
        return Error{ErrorKind::refused, "window", "the lower limit is above the upper one"};
    for (const std::optional<double>& hrc : {window.low, window.high, claim.quench_minimum}) {
        if (hrc && !(*hrc >= 20 && *hrc <= 70))
            return Error{ErrorKind::refused, "window", "a limit lies between 20 and 70 HRC"};
    }
    if (claim.minimum_tempers && *claim.minimum_tempers < 0)
        return Error{ErrorKind::refused, "tempers", "tempers are 0 or more"};
    return std::nullopt;
}

} // namespace

Result<Done> insertBlade(Logbook& logbook, const std::string& batch, const std::string& id, const BladeDraft& draft,
                         int position) {
    const double thickness = draft.shape.thickness_mm;
    auto done = logbook.database().insert("blade", {{"id", q(id)},
                                                    {"batch", q(batch)},
                                                    {"mark", q(draft.mark)},
                                                    {"position", position},
                                                    {"outline", outlineText(draft.shape)},
                                                    {"thickness_mm", thickness > 0 ? QVariant(thickness) : QVariant()},
                                                    {"thickness_text", q(draft.thickness_text)},
                                                    {"reading_line_mm", draft.shape.reading_line_mm}});
    if (done && draft.own) done = insertClaim(logbook, id, *draft.own);
    if (!done) return done;
    return logbook.database().insert("hardening_round", {{"id", q(logbook.newId())},
                                                         {"blade", q(id)},
                                                         {"number", 1},
                                                         {"quenched_ms", QVariant()},
                                                         {"quenched_offset", QVariant()},
                                                         {"reason", "first"},
                                                         {"person", q(logbook.person())}});
}

namespace {

// A rule as the tables of before hold it: those know no chance.
const char* ruleOfBefore(DecisionRule rule) {
    return nameOf(rule == DecisionRule::chance ? DecisionRule::guarded : rule);
}

Result<Done> insertRules(Logbook& logbook, const std::string& batch, const BatchRules& rules) {
    auto done = logbook.database().insert(
        "batch_rule", stamped({{"id", q(logbook.newId())}, {"batch", q(batch)}, {"rule", nameOf(rules.rule)}},
                              logbook.now(), logbook.person()));
    if (!done) return done;
    return logbook.database().insert("batch_rules", stamped({{"id", q(logbook.newId())},
                                                             {"batch", q(batch)},
                                                             {"rule", ruleOfBefore(rules.rule)},
                                                             {"allowance", orNull(rules.allowance)},
                                                             {"uncorrected", rules.uncorrected ? 1 : 0},
                                                             {"verify_every", nameOf(rules.verify_every)},
                                                             {"rehardening_limit", rules.rehardening_limit},
                                                             {"spacing_mm", rules.spacing.min_spacing_mm},
                                                             {"edge_mm", rules.spacing.min_edge_mm}},
                                                            logbook.now(), logbook.person()));
}

Result<Done> insertMeans(Logbook& logbook, const std::string& batch, Gate gate, bool by_files) {
    return logbook.database().insert("gate_means", stamped({{"id", q(logbook.newId())},
                                                            {"batch", q(batch)},
                                                            {"gate", storedName(gate)},
                                                            {"by_files", by_files ? 1 : 0}},
                                                           logbook.now(), logbook.person()));
}

} // namespace

Result<std::string> addBatch(Logbook& logbook, const BatchDraft& draft) {
    if (trimmed(draft.name).empty()) return refused("name", "a batch needs a name");
    if (draft.blades.empty()) return refused("blades", "a batch needs at least one blade");
    std::set<std::string> marks;
    for (const BladeDraft& blade : draft.blades) {
        if (trimmed(blade.mark).empty()) return refused("mark", "a blade needs a mark");
        if (!marks.insert(blade.mark).second)
            return refused("mark", fmt::format("two blades are marked {}", blade.mark));
        if (blade.own) {
            if (const auto wrong = wrongClaim(*blade.own)) return *wrong;
        }
    }
    const Window& window = draft.window;
    if (window.low && window.high && *window.low > *window.high)
        return refused("window", "the lower limit is above the upper one");
    const Result<QVariant> known =
        logbook.database().single(QStringLiteral("SELECT id FROM batch WHERE name=?"), {q(draft.name)});
    if (!known) return known.error();
    if (!known->isNull()) return refused("name", fmt::format("there is a batch {} already", draft.name));

    const std::string id = logbook.newId();
    // The shop's rules for batches to come, where they were ever set; what the draft says itself goes before.
    const Result<BatchRules> shop = shopRules(logbook);
    if (!shop) return shop.error();
    const Result<QVariant> chosen =
        logbook.database().single(QStringLiteral("SELECT value FROM setting WHERE id='rule'"), {});
    if (!chosen) return chosen.error();
    BatchRules rules = *shop;
    if (draft.rule || draft.allowance) {
        rules.rule = draft.rule.value_or(rules.rule);
        rules.allowance = draft.allowance;
    } else if (chosen->isNull()) {
        rules.rule = draft.minimum_tempers == 0 ? DecisionRule::guarded : DecisionRule::chance;
    }
    rules.uncorrected = rules.uncorrected || draft.uncorrected;
    const BatchRules plainest;
    const bool ownRules = rules.rule == DecisionRule::chance || shop->rule != plainest.rule || shop->allowance ||
                          shop->uncorrected || shop->verify_every != plainest.verify_every ||
                          shop->rehardening_limit != plainest.rehardening_limit || shop->spacing.min_spacing_mm > 0 ||
                          shop->spacing.min_edge_mm > 0;
    return idOr(logbook.transact("batch added",
                                 [&]() -> Result<Done> {
                                     QVariant lot;
                                     if (!draft.grade.empty()) {
                                         const Result<std::string> grade = gradeId(logbook, draft.grade);
                                         if (!grade) return grade.error();
                                         lot = q(logbook.newId());
                                         auto done = logbook.database().insert("lot", {{"id", lot},
                                                                                       {"grade", q(*grade)},
                                                                                       {"name", q(draft.lot)},
                                                                                       {"supplier", ""},
                                                                                       {"heat_number", ""}});
                                         if (!done) return done;
                                     }
                                     const std::string purpose = logbook.newId();
                                     auto done =
                                         logbook.database().insert("purpose", {{"id", q(purpose)},
                                                                               {"name", q(draft.purpose)},
                                                                               {"window_low", orNull(window.low)},
                                                                               {"window_high", orNull(window.high)},
                                                                               {"window_text", q(draft.window_text)}});
                                     const Instant now = logbook.now();
                                     if (done) {
                                         done = logbook.database().insert(
                                             "batch", {{"id", q(id)},
                                                       {"name", q(draft.name)},
                                                       {"lot", lot},
                                                       {"purpose", q(purpose)},
                                                       {"rule", ruleOfBefore(rules.rule)},
                                                       {"allowance", orNull(draft.allowance)},
                                                       {"uncorrected", draft.uncorrected ? 1 : 0},
                                                       {"quench_minimum", orNull(draft.quench_minimum)},
                                                       {"minimum_tempers", orNull(draft.minimum_tempers)},
                                                       {"created_ms", QVariant::fromValue<qint64>(now.utc_ms)},
                                                       {"created_offset", now.offset_minutes}});
                                     }
                                     for (const Gate gate : allGates) {
                                         const GatePlan& plan = draft.plan[indexOf(gate)];
                                         if (done) {
                                             done = logbook.database().insert(
                                                 "gate_plan", {{"id", q(logbook.newId())},
                                                               {"batch", q(id)},
                                                               {"gate", storedName(gate)},
                                                               {"required", plan.required ? 1 : 0},
                                                               {"extent", "all"},
                                                               {"planned", std::max(1, plan.planned_readings)}});
                                         }
                                     }
                                     for (const Gate gate : {Gate::quench, Gate::temper}) {
                                         if (done && draft.plan[indexOf(gate)].by_files)
                                             done = insertMeans(logbook, id, gate, true);
                                     }
                                     if (done && ownRules) done = insertRules(logbook, id, rules);
                                     int position = 0;
                                     for (const BladeDraft& blade : draft.blades) {
                                         if (done) done = insertBlade(logbook, id, logbook.newId(), blade, position++);
                                     }
                                     return done;
                                 }),
                id);
}

Result<Done> changePlan(Logbook& logbook, const std::string& batch, Gate gate, const GatePlan& plan) {
    const Result<QVariant> id = logbook.database().single(
        QStringLiteral("SELECT id FROM gate_plan WHERE batch=? AND gate=?"), {q(batch), storedName(gate)});
    if (!id) return id.error();
    return logbook.transact("plan changed", [&] {
        return logbook.database().update("gate_plan", id->toString(),
                                         {{"required", plan.required ? 1 : 0}, {"planned", plan.planned_readings}});
    });
}

Result<Done> changeZoneWindow(Logbook& logbook, const std::string& batch, Zone zone, const Window& window) {
    if (zone == Zone::edge) return refused("zone", "the edge is judged by the batch's own window");
    if (window.low && window.high && *window.low > *window.high)
        return refused("window", "the lower limit is above the upper one");
    return logbook.transact("zone window changed", [&] {
        return logbook.database().insert("zone_window", stamped({{"id", q(logbook.newId())},
                                                                 {"batch", q(batch)},
                                                                 {"zone", nameOf(zone)},
                                                                 {"low", orNull(window.low)},
                                                                 {"high", orNull(window.high)}},
                                                                logbook.now(), logbook.person()));
    });
}

Result<Done> changeMeans(Logbook& logbook, const std::string& batch, Gate gate, bool by_files) {
    if (gate != Gate::quench && gate != Gate::temper)
        return refused("gate", "only Quench and Temper can be asked by files");
    return logbook.transact("means changed", [&] { return insertMeans(logbook, batch, gate, by_files); });
}

Result<Done> changeRules(Logbook& logbook, const std::string& batch, const BatchRules& rules, bool forLater) {
    if (rules.allowance && !(*rules.allowance >= 0 && *rules.allowance <= 3))
        return refused("allowance", "an allowance lies between 0 and 3 HRC");
    for (const double mm : {rules.spacing.min_spacing_mm, rules.spacing.min_edge_mm}) {
        if (!(mm >= 0 && mm <= 50)) return refused("spacing", "a distance lies between 0 and 50 mm");
    }
    if (rules.rehardening_limit < 0) return refused("rehardening_limit", "the limit is 0 or more");
    return logbook.inOneTransaction([&]() -> Result<Done> {
        auto done = logbook.transact("rules changed", [&] { return insertRules(logbook, batch, rules); });
        if (!done || !forLater) return done;
        const std::string allowance = rules.allowance ? fmt::format("{:g}", *rules.allowance) : std::string();
        for (const auto& [key, value] : {std::pair<const char*, std::string>{"rule", nameOf(rules.rule)},
                                         {"allowance", allowance},
                                         {"uncorrected", rules.uncorrected ? "1" : "0"},
                                         {"verify_every", nameOf(rules.verify_every)},
                                         {"rehardening_limit", std::to_string(rules.rehardening_limit)},
                                         {"spacing_mm", fmt::format("{:g}", rules.spacing.min_spacing_mm)},
                                         {"edge_mm", fmt::format("{:g}", rules.spacing.min_edge_mm)}}) {
            done = changeSetting(logbook, key, value);
            if (!done) return done;
        }
        return done;
    });
}

Result<BatchRules> shopRules(Logbook& logbook) {
    const auto rows = logbook.database().select(QStringLiteral("SELECT id, value FROM setting"));
    if (!rows) return rows.error();
    const auto setting = [&](const char* key) {
        for (const Row& row : *rows) {
            if (row[0].toString() == QLatin1String(key)) return s(row[1]);
        }
        return std::string();
    };
    BatchRules rules;
    rules.rule = named<DecisionRule>(setting("rule")).value_or(rules.rule);
    if (const auto allowance = parseNumber(setting("allowance"))) rules.allowance = *allowance;
    rules.uncorrected = setting("uncorrected") == "1";
    rules.verify_every = named<VerifyEvery>(setting("verify_every")).value_or(rules.verify_every);
    if (const auto limit = parseNumber(setting("rehardening_limit")))
        rules.rehardening_limit = static_cast<int>(*limit);
    if (const auto mm = parseNumber(setting("spacing_mm"))) rules.spacing.min_spacing_mm = *mm;
    if (const auto mm = parseNumber(setting("edge_mm"))) rules.spacing.min_edge_mm = *mm;
    return rules;
}

Result<Done> changeLimits(Logbook& logbook, const std::string& batch, const Window& window, const std::string& text,
                          std::optional<double> quench_minimum) {
    if (window.low && window.high && *window.low > *window.high)
        return refused("window", "the lower limit is above the upper one");
    const Result<QVariant> purpose =
        logbook.database().single(QStringLiteral("SELECT purpose FROM batch WHERE id=?"), {q(batch)});
    if (!purpose) return purpose.error();
    return logbook.transact("limits changed", [&]() -> Result<Done> {
        auto done = logbook.database().update(
            "purpose", purpose->toString(),
            {{"window_low", orNull(window.low)}, {"window_high", orNull(window.high)}, {"window_text", q(text)}});
        return done ? logbook.database().update("batch", q(batch), {{"quench_minimum", orNull(quench_minimum)}}) : done;
    });
}

Result<Done> changeClaim(Logbook& logbook, const std::string& blade, const BladeClaim& claim) {
    if (const auto wrong = wrongClaim(claim)) return *wrong;
    return logbook.transact("claim changed", [&] { return insertClaim(logbook, blade, claim); });
}

Result<Done> takeFor(Logbook& logbook, const Batch& batch, const Blade& blade, const std::string& grade) {
    if (trimmed(grade).empty()) return refused("grade", "say which grade it is taken for");
    BladeClaim own = blade.own.value_or(BladeClaim{});
    own.claimed = batch.claimOf(blade).claimed;
    own.grade = grade;
    return changeClaim(logbook, blade.id, own);
}

Result<std::string> addBlade(Logbook& logbook, const std::string& batch, const BladeDraft& draft) {
    if (trimmed(draft.mark).empty()) return refused("mark", "a blade needs a mark");
    if (draft.own) {
        if (const auto wrong = wrongClaim(*draft.own)) return *wrong;
    }
    const Result<QVariant> taken = logbook.database().single(
        QStringLiteral("SELECT id FROM blade WHERE mark=? AND batch=? AND id NOT IN taken_back"),
        {q(draft.mark), q(batch)});
    if (!taken) return taken.error();
    if (!taken->isNull()) return refused("mark", fmt::format("another blade of this batch is marked {}", draft.mark));
    const Result<QVariant> last =
        logbook.database().single(QStringLiteral("SELECT MAX(position) FROM blade WHERE batch=?"), {q(batch)});
    if (!last) return last.error();
    const std::string id = logbook.newId();
    return idOr(
        logbook.transact("blade added", [&] { return insertBlade(logbook, batch, id, draft, last->toInt() + 1); }), id);
}

Result<Done> changeShape(Logbook& logbook, const std::string& blade, const BladeShape& shape,
                         const std::string& thickness_text) {
    const double thickness = shape.thickness_mm;
    if (thickness < 0 || thickness > 50) return refused("thickness", "a thickness lies between 0 and 50 mm");
    return logbook.transact("blade measured anew", [&] {
        return logbook.database().update("blade", q(blade),
                                         {{"outline", outlineText(shape)},
                                          {"thickness_mm", thickness > 0 ? QVariant(thickness) : QVariant()},
                                          {"thickness_text", q(thickness_text)},
                                          {"reading_line_mm", shape.reading_line_mm}});
    });
}

Result<Done> renameBatch(Logbook& logbook, const std::string& batch, const std::string& name) {
    if (trimmed(name).empty()) return refused("name", "a batch needs a name");
    const Result<QVariant> taken =
        logbook.database().single(QStringLiteral("SELECT id FROM batch WHERE name=? AND id<>?"), {q(name), q(batch)});
    if (!taken) return taken.error();
    if (!taken->isNull()) return refused("name", fmt::format("there is a batch {} already", name));
    return logbook.transact("batch renamed", [&] {
        return logbook.database().update("batch", q(batch), {{"name", q(name)}});
    });
}

Result<Done> renameBlade(Logbook& logbook, const std::string& blade, const std::string& mark) {
    if (trimmed(mark).empty()) return refused("mark", "a blade needs a mark");
    const Result<QVariant> taken =
        logbook.database().single(QStringLiteral("SELECT id FROM blade WHERE mark=? AND id<>? AND id NOT IN taken_back "
                                                 "AND batch=(SELECT batch FROM blade WHERE id=?)"),
                                  {q(mark), q(blade), q(blade)});
    if (!taken) return taken.error();
    if (!taken->isNull()) return refused("mark", fmt::format("another blade of this batch is marked {}", mark));
    return logbook.transact("blade renamed", [&] {
        return logbook.database().update("blade", q(blade), {{"mark", q(mark)}});
    });
}

Result<Done> insertTemper(Logbook& logbook, const std::string& id, const TemperDraft& draft,
                          const std::vector<TemperedBlade>& blades) {
    auto done = logbook.database().insert(
        "cycle", {{"id", q(id)},
                  {"batch", q(draft.batch)},
                  {"temperature_c", orNull(draft.temperature_c)},
                  {"hours", orNull(draft.hours)},
                  {"as_entered", q(draft.as_entered)},
                  {"at_ms", draft.time ? QVariant::fromValue<qint64>(draft.time->utc_ms) : QVariant()},
                  {"at_offset", draft.time ? QVariant(draft.time->offset_minutes) : QVariant()},
                  {"person", q(logbook.person())}});
    for (const TemperedBlade& blade : blades) {
        if (!done) return done;
        done = logbook.database().insert("cycle_blade", {{"id", q(logbook.newId())},
                                                         {"cycle", q(id)},
                                                         {"blade", q(blade.id)},
                                                         {"round", blade.round},
                                                         {"number", blade.number}});
    }
    return done;
}

namespace {

// Where a blade stands: its round, and the temper that is next in it.
Result<TemperedBlade> nextTemperOf(Logbook& logbook, const std::string& blade) {
    const Result<QVariant> round =
        logbook.database().single(QStringLiteral("SELECT MAX(number) FROM hardening_round WHERE blade=?"), {q(blade)});
    if (!round) return round.error();
    const Result<QVariant> last = logbook.database().single(
        QStringLiteral("SELECT COALESCE(MAX(number), 0) FROM cycle_blade WHERE blade=? AND "
                       "round=? AND cycle NOT IN (SELECT cycle FROM cycle_mark WHERE id NOT IN taken_back) AND cycle "
                       "NOT IN taken_back"),
        {q(blade), *round});
    if (!last) return last.error();
    return TemperedBlade{blade, round->toInt(), last->toInt() + 1};
}

} // namespace

Result<std::string> logTemper(Logbook& logbook, const TemperDraft& draft) {
    if (draft.blades.empty()) return refused("blades", "no blade went through this temper");
    const std::string id = logbook.newId();
    return idOr(logbook.transact("temper cycle logged",
                                 [&]() -> Result<Done> {
                                     std::vector<TemperedBlade> blades;
                                     for (const std::string& blade : draft.blades) {
                                         auto next = nextTemperOf(logbook, blade);
                                         if (!next) return next.error();
                                         blades.push_back(std::move(next).value());
                                     }
                                     return insertTemper(logbook, id, draft, blades);
                                 }),
                id);
}

Result<Done> meanTemper(Logbook& logbook, const std::string& temper) {
    return logbook.transact("temper meant", [&] {
        return logbook.database().insert("temper_meant", stamped({{"id", q(logbook.newId())}, {"cycle", q(temper)}},
                                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> logCold(Logbook& logbook, const Batch& batch, const std::vector<std::string>& blades, double temperature_c,
                     double hours, const Instant& at) {
    if (blades.empty()) return refused("blades", "say which blades");
    if (!(temperature_c >= -200 && temperature_c < 0)) return refused("temperature", "cold lies between -200 and 0 °C");
    if (!(hours > 0 && hours <= 72)) return refused("hours", "the time lies within 72 hours");
    return logbook.transact("cold treatment logged", [&]() -> Result<Done> {
        for (const Blade& blade : batch.blades) {
            if (std::find(blades.begin(), blades.end(), blade.id) == blades.end()) continue;
            auto done = logbook.database().insert("cold", stamped({{"id", q(logbook.newId())},
                                                                   {"blade", q(blade.id)},
                                                                   {"round", blade.round},
                                                                   {"after_cycle", lastTemper(blade)},
                                                                   {"temperature_c", temperature_c},
                                                                   {"hours", hours}},
                                                                  at, logbook.person()));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<Done> strikeTemper(Logbook& logbook, const std::string& temper, const std::string& reason) {
    if (auto free = notYetMarked(logbook, "SELECT COUNT(*) FROM cycle_mark WHERE cycle=? AND id NOT IN taken_back",
                                 temper, "it is struck out already");
        !free)
        return free;
    return logbook.transact("temper cycle struck out", [&] {
        return logbook.database().insert(
            "cycle_mark", stamped({{"id", q(logbook.newId())}, {"cycle", q(temper)}, {"reason", q(reason)}},
                                  logbook.now(), logbook.person()));
    });
}

Result<std::string> reharden(Logbook& logbook, const std::string& blade, const std::string& reason,
                             const std::optional<Instant>& quenched) {
    const Result<QVariant> last =
        logbook.database().single(QStringLiteral("SELECT MAX(number) FROM hardening_round WHERE blade=?"), {q(blade)});
    if (!last) return last.error();
    const std::string id = logbook.newId();
    return idOr(logbook.transact(
                    "hardening round begun",
                    [&] {
                        return logbook.database().insert(
                            "hardening_round",
                            {{"id", q(id)},
                             {"blade", q(blade)},
                             {"number", last->toInt() + 1},
                             {"quenched_ms", quenched ? QVariant::fromValue<qint64>(quenched->utc_ms) : QVariant()},
                             {"quenched_offset", quenched ? QVariant(quenched->offset_minutes) : QVariant()},
                             {"reason", q(reason)},
                             {"person", q(logbook.person())}});
                    }),
                id);
}

Result<Done> grindOff(Logbook& logbook, const std::string& blade) {
    const auto readings = logbook.database().select(
        QStringLiteral(
            "SELECT id FROM reading WHERE blade=? AND id NOT IN (SELECT reading FROM ground_off) ORDER BY rowid"),
        {q(blade)});
    if (!readings) return readings.error();
    if (readings->empty()) return refused("blade", "nothing was read on the metal as it is");
    const std::string grinding = logbook.newId();
    const Instant at = logbook.now();
    return logbook.transact("marks ground off", [&]() -> Result<Done> {
        for (const Row& reading : *readings) {
            auto done = logbook.database().insert(
                "ground_off", stamped({{"id", q(logbook.newId())}, {"reading", reading[0]}, {"grinding", q(grinding)}},
                                      at, logbook.person()));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<Done> lookInto(Logbook& logbook, const Blade& blade, int after_temper, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "say what was looked at, and what was found");
    return logbook.transact("surprise looked into", [&] {
        return logbook.database().insert("surprise_look", stamped({{"id", q(logbook.newId())},
                                                                   {"blade", q(blade.id)},
                                                                   {"round", blade.round},
                                                                   {"after_temper", after_temper},
                                                                   {"reason", q(reason)}},
                                                                  logbook.now(), logbook.person()));
    });
}

Result<Done> excuse(Logbook& logbook, const std::string& blade, Gate gate, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return logbook.transact("blade excused", [&] {
        return logbook.database().insert("excuse", stamped({{"id", q(logbook.newId())},
                                                            {"blade", q(blade)},
                                                            {"gate", storedName(gate)},
                                                            {"reason", q(reason)},
                                                            {"stands_in", QVariant()}},
                                                           logbook.now(), logbook.person()));
    });
}

Result<Done> takeOut(Logbook& logbook, const std::string& blade, Fate fate, Gate gate, const std::string& reason) {
    if (auto free = notYetMarked(logbook, "SELECT COUNT(*) FROM blade_fate WHERE blade=? AND id NOT IN taken_back",
                                 blade, "it is out already");
        !free)
        return free;
    return logbook.transact("blade taken out", [&] {
        return logbook.database().insert("blade_fate", stamped({{"id", q(logbook.newId())},
                                                                {"blade", q(blade)},
                                                                {"fate", nameOf(fate)},
                                                                {"gate", storedName(gate)},
                                                                {"reason", q(reason)}},
                                                               logbook.now(), logbook.person()));
    });
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/proof.h"

#include "core/base/number.h"
#include "core/judge/gate_case.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

#include <array>
#include <functional>

// Edges, rod tests, trials, damage, protocols and studies in the record.
namespace rollcall {

Result<Done> measureEdge(Logbook& logbook, const std::string& blade, const EdgeGeometry& edge,
                         const std::string& as_entered) {
    if (!(edge.behind_edge_mm > 0 && edge.behind_edge_mm <= 10))
        return refused("behind", "the thickness behind the edge lies between 0 and 10 mm");
    if (!(edge.angle_per_side_deg >= 1 && edge.angle_per_side_deg <= 45))
        return refused("angle", "the angle per side lies between 1 and 45 degrees");
    return logbook.transact("edge measured", [&] {
        return logbook.database().insert("edge_geometry",
                                         stamped({{"id", q(logbook.newId())},
                                                  {"blade", q(blade)},
                                                  {"behind_edge_mm", edge.behind_edge_mm},
                                                  {"angle_deg", edge.angle_per_side_deg},
                                                  {"grind", nameOf(edge.grind)},
                                                  {"finish", q(edge.finish)},
                                                  {"before_hardening_mm", orNull(edge.before_hardening_mm)},
                                                  {"as_entered", q(as_entered)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<std::string> logRung(Logbook& logbook, const std::string& blade, const EdgeRung& rung,
                            const std::string& as_entered) {
    const std::string id = logbook.newId();
    return idOr(logbook.transact("rung logged",
                                 [&] {
                                     return logbook.database().insert("edge_rung",
                                                                      stamped({{"id", q(id)},
                                                                               {"blade", q(blade)},
                                                                               {"round", rung.round},
                                                                               {"after_cycle", rung.after_temper},
                                                                               {"force_n", orNull(rung.force_n)},
                                                                               {"raise_deg", orNull(rung.raise_deg)},
                                                                               {"contact_mm", orNull(rung.contact_mm)},
                                                                               {"outcome", nameOf(rung.outcome)},
                                                                               {"size_mm", orNull(rung.size_mm)},
                                                                               {"place_mm", orNull(rung.place_mm)},
                                                                               {"sound", rung.sound ? 1 : 0},
                                                                               {"as_entered", q(as_entered)}},
                                                                              logbook.now(), logbook.person()));
                                 }),
                id);
}

Result<Done> strikeRung(Logbook& logbook, const std::string& rung, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return logbook.transact("rung struck out", [&] {
        return logbook.database().insert("edge_rung_mark",
                                         stamped({{"id", q(logbook.newId())}, {"rung", q(rung)}, {"reason", q(reason)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> noteGrinding(Logbook& logbook, const std::string& blade, const GrindingNote& note) {
    return logbook.transact("grinding noted", [&] {
        return logbook.database().insert("grinding_note", stamped({{"id", q(logbook.newId())},
                                                                   {"blade", q(blade)},
                                                                   {"colour", note.colour ? 1 : 0},
                                                                   {"cleared", note.cleared ? 1 : 0},
                                                                   {"text", q(note.text)}},
                                                                  logbook.now(), logbook.person()));
    });
}

Result<Done> askEdge(Logbook& logbook, const std::string& batch, const EdgeAsk& ask) {
    if (!(ask.rung.force_n > 0 && ask.rung.force_n <= 1000 && ask.rung.raise_deg > 0 && ask.rung.raise_deg < 90))
        return refused("force", "a rung lies between 0 and 1000 N, 0 and 90 degrees");
    return logbook.transact("edge asked for", [&] {
        return logbook.database().insert("edge_ask", stamped({{"id", q(logbook.newId())},
                                                              {"batch", q(batch)},
                                                              {"purpose", q(ask.purpose)},
                                                              {"school", q(ask.school)},
                                                              {"by_hand", ask.by_hand ? 1 : 0},
                                                              {"force_n", ask.rung.force_n},
                                                              {"raise_deg", ask.rung.raise_deg}},
                                                             logbook.now(), logbook.person()));
    });
}

Result<QVariant> attached(Logbook& logbook, const AttachedFile& file) {
    if (file.bytes.isEmpty()) return QVariant();
    const Result<std::string> kept = insertAttachment(logbook, file.name, "application/octet-stream", file.bytes);
    if (!kept) return kept.error();
    return QVariant(q(*kept));
}

Result<Done> markDamage(Logbook& logbook, const std::string& blade, const DamageMark& mark, const AttachedFile& photo) {
    if (trimmed(mark.kind).empty()) return refused("kind", "say what the damage is");
    return logbook.transact("damage marked", [&]() -> Result<Done> {
        const Result<QVariant> attachment = attached(logbook, photo);
        if (!attachment) return attachment.error();
        return logbook.database().insert("damage", stamped({{"id", q(logbook.newId())},
                                                            {"blade", q(blade)},
                                                            {"kind", q(mark.kind)},
                                                            {"place_mm", orNull(mark.place_mm)},
                                                            {"size_mm", orNull(mark.size_mm)},
                                                            {"note", q(mark.note)},
                                                            {"attachment", *attachment}},
                                                           logbook.now(), logbook.person()));
    });
}

Result<Done> clearDamage(Logbook& logbook, const std::string& damage, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    const auto cleared =
        logbook.database().single(QStringLiteral("SELECT COUNT(*) FROM damage_clear WHERE damage=?"), {q(damage)});
    if (!cleared) return cleared.error();
    if (cleared->toInt() > 0) return refused("damage", "it is cleared already");
    return logbook.transact("damage cleared", [&] {
        return logbook.database().insert(
            "damage_clear", stamped({{"id", q(logbook.newId())}, {"damage", q(damage)}, {"reason", q(reason)}},
                                    logbook.now(), logbook.person()));
    });
}

Result<Done> clearCrack(Logbook& logbook, const Blade& blade, const std::string& reason) {
    const std::optional<OpenCrack> crack = openCrack(blade);
    if (!crack) return refused("blade", "no crack of it is open");
    if (!crack->damage.empty()) return clearDamage(logbook, crack->damage, reason);
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    const std::string id = logbook.newId();
    return logbook.transact("damage cleared", [&]() -> Result<Done> {
        auto done = logbook.database().insert("damage", stamped({{"id", q(id)},
                                                                 {"blade", q(blade.id)},
                                                                 {"kind", "crack"},
                                                                 {"place_mm", orNull(crack->place_mm)},
                                                                 {"size_mm", QVariant()},
                                                                 {"note", "seen on the rod"},
                                                                 {"attachment", QVariant()}},
                                                                logbook.now(), logbook.person()));
        if (!done) return done;
        return logbook.database().insert("damage_clear",
                                         stamped({{"id", q(logbook.newId())}, {"damage", q(id)}, {"reason", q(reason)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> keepProtocol(Logbook& logbook, const Protocol& protocol) {
    if (trimmed(protocol.name).empty()) return refused("name", "a protocol needs a name");
    if (protocol.steps.empty()) return refused("steps", "a protocol needs a step");
    for (const ProtocolStep& step : protocol.steps) {
        if (const std::string fault = stepFault(step); !fault.empty()) return refused(step.name, fault);
    }
    return logbook.transact("protocol kept", [&] {
        return logbook.database().insert(
            "own_protocol",
            stamped({{"id", q(logbook.newId())}, {"name", q(protocol.name)}, {"sheet", q(protocolText(protocol))}},
                    logbook.now(), logbook.person()));
    });
}

Result<std::string> beginTrial(Logbook& logbook, const std::string& blade, int round, int after_temper,
                               const Protocol& protocol) {
    if (protocol.steps.empty()) return refused("protocol", "the protocol has no step");
    const std::string id = logbook.newId();
    return idOr(logbook.transact("trial begun",
                                 [&] {
                                     return logbook.database().insert("trial",
                                                                      stamped({{"id", q(id)},
                                                                               {"blade", q(blade)},
                                                                               {"round", round},
                                                                               {"after_cycle", after_temper},
                                                                               {"protocol", q(protocolText(protocol))}},
                                                                              logbook.now(), logbook.person()));
                                 }),
                id);
}

Result<Done> trialEvent(Logbook& logbook, const std::string& trial, const TrialEvent& event,
                        const AttachedFile& photo) {
    return logbook.transact("trial", [&]() -> Result<Done> {
        const Result<QVariant> attachment = attached(logbook, photo);
        if (!attachment) return attachment.error();
        return logbook.database().insert("trial_event", stamped({{"id", q(logbook.newId())},
                                                                 {"trial", q(trial)},
                                                                 {"act", nameOf(event.act)},
                                                                 {"value", event.value},
                                                                 {"second", event.second},
                                                                 {"third", event.third},
                                                                 {"text", q(event.text)},
                                                                 {"attachment", *attachment}},
                                                                logbook.now(), logbook.person()));
    });
}

Result<std::string> addStudy(Logbook& logbook, const Study& study) {
    if (trimmed(study.name).empty()) return refused("name", "a study needs a name");
    if (study.blades.size() < 2) return refused("pieces", "a study needs two pieces at least");
    const std::string id = logbook.newId();
    return idOr(logbook.transact(
                    "study begun",
                    [&]() -> Result<Done> {
                        auto done = logbook.database().insert(
                            "study", stamped({{"id", q(id)}, {"name", q(study.name)}, {"factor", q(study.factor)}},
                                             logbook.now(), logbook.person()));
                        for (const std::string& blade : study.blades) {
                            if (!done) return done;
                            done = logbook.database().insert(
                                "study_piece", {{"id", q(logbook.newId())}, {"study", q(id)}, {"blade", q(blade)}});
                        }
                        return done;
                    }),
                id);
}

Result<std::string> keepStudyPlan(Logbook& logbook, const StudyPlan& wish, const std::string& batch) {
    const Result<StudyPlan> plan = planned(wish);
    if (!plan) return plan.error();
    const auto rows =
        logbook.database().select(QStringLiteral("SELECT mark FROM blade WHERE batch=? ORDER BY position"), {q(batch)});
    if (!rows) return rows.error();
    for (const std::string& mark : marksOf(*plan)) {
        if (std::none_of(rows->begin(), rows->end(), [&](const Row& row) { return s(row[0]) == mark; }))
            return refused("batch", "its batch has no piece " + mark);
    }
    QStringList levels;
    for (const std::string& level : plan->levels) levels << q(level);
    const std::string id = logbook.newId();
    return idOr(logbook.transact("study planned",
                                 [&] {
                                     return logbook.database().insert(
                                         "study_plan", stamped({{"id", q(id)},
                                                                {"batch", q(batch)},
                                                                {"name", q(plan->name)},
                                                                {"factor", q(plan->factor)},
                                                                {"levels", levels.join(QLatin1Char('\n'))},
                                                                {"measured", nameOf(plan->measured)},
                                                                {"difference", plan->difference},
                                                                {"sd", plan->sd},
                                                                {"power", plan->power},
                                                                {"pieces", plan->pieces},
                                                                {"seed", plan->seed}},
                                                               logbook.now(), logbook.person()));
                                 }),
                id);
}

} // namespace rollcall

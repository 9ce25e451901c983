// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/rows.h"
#include <array>
#include <functional>

// Edges, rod tests, trials, damage, protocols and studies in the record.
namespace rollcall {

namespace {

// A protocol as it is stored; one that a damaged file holds reads as a protocol without steps.
Protocol protocolIn(const std::string& text) {
    const auto read = readProtocols(text);
    return read ? read->front() : Protocol{};
}

} // namespace

Result<std::string> Logbook::batchOf(const std::string& blade) {
    const Result<QVariant> batch = m_database->single(QStringLiteral("SELECT batch FROM blade WHERE id=?"), {q(blade)});
    if (!batch) return batch.error();
    if (batch->isNull()) return Error{ErrorKind::argument, "", "there is no such blade"};
    return s(*batch);
}

Result<std::vector<Protocol>> Logbook::ownProtocols() {
    const auto rows = m_database->select(
        QStringLiteral("SELECT sheet FROM own_protocol o WHERE NOT EXISTS (SELECT 1 FROM own_protocol n WHERE "
                       "n.name=o.name AND (n.at_ms, n.rowid) > (o.at_ms, o.rowid)) ORDER BY o.rowid"));
    if (!rows) return rows.error();
    std::vector<Protocol> protocols;
    for (const Row& row : *rows) protocols.push_back(protocolIn(s(row[0])));
    return protocols;
}

Result<std::vector<Study>> Logbook::studies() {
    const auto rows = m_database->select(QStringLiteral("SELECT id, name, factor FROM study ORDER BY rowid"));
    if (!rows) return rows.error();
    std::vector<Study> studies;
    for (const Row& row : *rows) {
        Study study{s(row[0]), s(row[1]), s(row[2]), {}};
        const auto pieces =
            m_database->select(QStringLiteral("SELECT blade FROM study_piece WHERE study=? ORDER BY rowid"), {row[0]});
        if (!pieces) return pieces.error();
        for (const Row& piece : *pieces) study.blades.push_back(s(piece[0]));
        studies.push_back(std::move(study));
    }
    return studies;
}

Result<std::vector<StudyPlan>> Logbook::plannedStudies() {
    const auto rows = m_database->select(
        QStringLiteral("SELECT id, batch, name, factor, levels, measured, difference, sd, power, pieces, seed FROM "
                       "study_plan WHERE id NOT IN taken_back ORDER BY rowid"));
    if (!rows) return rows.error();
    std::vector<StudyPlan> plans;
    for (const Row& row : *rows) {
        StudyPlan plan;
        plan.id = s(row[0]);
        plan.batch = s(row[1]);
        plan.name = s(row[2]);
        plan.factor = s(row[3]);
        for (const QString& level : row[4].toString().split(QLatin1Char('\n')))
            plan.levels.push_back(level.toStdString());
        plan.measured = named<Measured>(s(row[5])).value_or(Measured::tempered);
        plan.difference = row[6].toDouble();
        plan.sd = row[7].toDouble();
        plan.power = row[8].toDouble();
        plan.pieces = row[9].toInt();
        plan.seed = row[10].toUInt();
        plans.push_back(std::move(plan));
    }
    return plans;
}

Result<Done> Logbook::loadProof(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto each = [&](const char* table, const char* sql,
                          const std::function<void(Blade&, const Row&)>& take) -> Result<Done> {
        const auto rows = rowsOf(table, batch.id, sql);
        if (!rows) return rows.error();
        for (const Row& row : *rows) {
            if (Blade* blade = bladeOf(batch, index, row)) take(*blade, row);
        }
        return Done{};
    };
    auto done = each("edge_geometry",
                     "SELECT e.blade, e.behind_edge_mm, e.angle_deg, e.grind, e.finish, e.before_hardening_mm, "
                     "e.at_ms, e.at_offset FROM "
                     "edge_geometry e JOIN blade b ON b.id=e.blade WHERE b.batch=? ORDER BY e.at_ms, e.rowid",
                     [](Blade& blade, const Row& row) {
                         blade.edges.push_back({row[1].toDouble(), row[2].toDouble(), storedAs<EdgeGrind>(row[3]),
                                                s(row[4]), numberOrNone(row[5]), instantOf(row[6], row[7])});
                     });
    if (done)
        done = each("edge_rung",
                    "SELECT r.blade, r.id, r.round, r.force_n, r.raise_deg, r.contact_mm, r.outcome, r.size_mm, "
                    "r.place_mm, r.sound, EXISTS (SELECT 1 FROM edge_rung_mark m WHERE m.rung=r.id), r.after_cycle, "
                    "r.at_ms, r.at_offset"
                    " FROM edge_rung r JOIN blade b ON b.id=r.blade WHERE b.batch=? ORDER BY r.at_ms, r.rowid",
                    [](Blade& blade, const Row& row) {
                        EdgeRung rung;
                        rung.id = s(row[1]);
                        rung.round = row[2].toInt();
                        rung.force_n = numberOrNone(row[3]);
                        rung.raise_deg = numberOrNone(row[4]);
                        rung.contact_mm = numberOrNone(row[5]);
                        rung.outcome = storedAs<EdgeOutcome>(row[6]);
                        rung.size_mm = numberOrNone(row[7]);
                        rung.place_mm = numberOrNone(row[8]);
                        rung.sound = row[9].toBool();
                        rung.struck = row[10].toBool();
                        rung.after_temper = row[11].toInt();
                        rung.at = instantOf(row[12], row[13]);
                        blade.rungs.push_back(std::move(rung));
                    });
    if (done)
        done =
            each("grinding_note",
                 "SELECT g.blade, g.colour, g.cleared, g.text, g.at_ms, g.at_offset FROM grinding_note g JOIN blade "
                 "b ON b.id=g.blade WHERE b.batch=? ORDER BY g.at_ms, g.rowid",
                 [](Blade& blade, const Row& row) {
                     blade.grinding.push_back({row[1].toBool(), row[2].toBool(), s(row[3]), instantOf(row[4], row[5])});
                 });
    if (done)
        done = each(
            "damage",
            "SELECT d.blade, d.kind, d.place_mm, d.size_mm, d.note, COALESCE(a.name, ''), d.at_ms, d.at_offset, d.id, "
            "COALESCE(c.reason, ''), COALESCE(c.person, '') FROM damage d JOIN blade b ON b.id=d.blade LEFT JOIN "
            "attachment a ON a.id=d.attachment LEFT JOIN damage_clear c ON c.damage=d.id WHERE "
            "b.batch=? ORDER BY d.at_ms, d.rowid",
            [](Blade& blade, const Row& row) {
                blade.damage.push_back({s(row[8]), s(row[1]), numberOrNone(row[2]), numberOrNone(row[3]), s(row[4]),
                                        s(row[5]), instantOf(row[6], row[7]), s(row[9]), s(row[10])});
            });
    std::map<std::string, std::size_t> place; // of a trial among its blade's
    if (done)
        done = each(
            "trial",
            "SELECT t.blade, t.id, t.round, t.protocol, t.at_ms, t.at_offset, t.after_cycle FROM trial t JOIN blade b "
            "ON "
            "b.id=t.blade WHERE b.batch=? ORDER BY t.at_ms, t.rowid",
            [&](Blade& blade, const Row& row) {
                place[s(row[1])] = blade.trials.size();
                blade.trials.push_back(
                    {s(row[1]), row[2].toInt(), row[6].toInt(), protocolIn(s(row[3])), {}, instantOf(row[4], row[5])});
            });
    if (done && !place.empty())
        done = each("trial",
                    "SELECT t.blade, e.trial, e.act, e.value, e.second, e.third, e.text, e.at_ms, e.at_offset FROM "
                    "trial_event e JOIN trial t ON t.id=e.trial JOIN blade b ON b.id=t.blade WHERE b.batch=? ORDER BY "
                    "e.rowid",
                    [&](Blade& blade, const Row& row) {
                        blade.trials[place.at(s(row[1]))].events.push_back(
                            {storedAs<TrialAct>(row[2]), row[3].toDouble(), row[4].toDouble(), row[5].toDouble(),
                             s(row[6]), instantOf(row[7], row[8])});
                    });
    if (!done) return done;
    const auto asked = rowsOf("edge_ask", batch.id,
                              "SELECT purpose, school, by_hand, force_n, raise_deg FROM "
                              "edge_ask WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms DESC, rowid "
                              "DESC LIMIT 1");
    if (!asked) return asked.error();
    if (!asked->empty()) {
        const Row& row = asked->front();
        batch.edge_ask = EdgeAsk{s(row[0]), s(row[1]), row[2].toBool(), {row[3].toDouble(), row[4].toDouble()}};
    }
    return Done{};
}

} // namespace rollcall

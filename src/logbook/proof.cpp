// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/chain_rows.h"

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

Result<Done> Logbook::measureEdge(const std::string& blade, const EdgeGeometry& edge, const std::string& as_entered) {
    if (!(edge.behind_edge_mm > 0 && edge.behind_edge_mm <= 10))
        return refused("behind", "the thickness behind the edge lies between 0 and 10 mm");
    if (!(edge.angle_per_side_deg >= 1 && edge.angle_per_side_deg <= 45))
        return refused("angle", "the angle per side lies between 1 and 45 degrees");
    return transact("edge measured", [&] {
        return m_database->insert("edge_geometry", stamped({{"id", q(m_seams.newId())},
                                                            {"blade", q(blade)},
                                                            {"behind_edge_mm", edge.behind_edge_mm},
                                                            {"angle_deg", edge.angle_per_side_deg},
                                                            {"grind", nameOf(edge.grind)},
                                                            {"finish", q(edge.finish)},
                                                            {"before_hardening_mm", orNull(edge.before_hardening_mm)},
                                                            {"as_entered", q(as_entered)}},
                                                           m_seams.now(), m_person));
    });
}

Result<std::string> Logbook::logRung(const std::string& blade, const EdgeRung& rung, const std::string& as_entered) {
    const std::string id = m_seams.newId();
    return idOr(transact("rung logged",
                         [&] {
                             return m_database->insert("edge_rung", stamped({{"id", q(id)},
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
                                                                            m_seams.now(), m_person));
                         }),
                id);
}

Result<Done> Logbook::strikeRung(const std::string& rung, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "a reason is needed");
    return transact("rung struck out", [&] {
        return m_database->insert(
            "edge_rung_mark",
            stamped({{"id", q(m_seams.newId())}, {"rung", q(rung)}, {"reason", q(reason)}}, m_seams.now(), m_person));
    });
}

Result<Done> Logbook::noteGrinding(const std::string& blade, const GrindingNote& note) {
    return transact("grinding noted", [&] {
        return m_database->insert("grinding_note", stamped({{"id", q(m_seams.newId())},
                                                            {"blade", q(blade)},
                                                            {"colour", note.colour ? 1 : 0},
                                                            {"cleared", note.cleared ? 1 : 0},
                                                            {"text", q(note.text)}},
                                                           m_seams.now(), m_person));
    });
}

Result<Done> Logbook::askEdge(const std::string& batch, const EdgeAsk& ask) {
    if (!(ask.rung.force_n > 0 && ask.rung.force_n <= 1000 && ask.rung.raise_deg > 0 && ask.rung.raise_deg < 90))
        return refused("force", "a rung lies between 0 and 1000 N, 0 and 90 degrees");
    return transact("edge asked for", [&] {
        return m_database->insert("edge_ask", stamped({{"id", q(m_seams.newId())},
                                                       {"batch", q(batch)},
                                                       {"purpose", q(ask.purpose)},
                                                       {"school", q(ask.school)},
                                                       {"by_hand", ask.by_hand ? 1 : 0},
                                                       {"force_n", ask.rung.force_n},
                                                       {"raise_deg", ask.rung.raise_deg}},
                                                      m_seams.now(), m_person));
    });
}

Result<QVariant> Logbook::attached(const AttachedFile& file) {
    if (file.bytes.isEmpty()) return QVariant();
    const Result<std::string> kept = insertAttachment(file.name, "application/octet-stream", file.bytes);
    if (!kept) return kept.error();
    return QVariant(q(*kept));
}

Result<Done> Logbook::markDamage(const std::string& blade, const DamageMark& mark, const AttachedFile& photo) {
    if (trimmed(mark.kind).empty()) return refused("kind", "say what the damage is");
    return transact("damage marked", [&]() -> Result<Done> {
        const Result<QVariant> attachment = attached(photo);
        if (!attachment) return attachment.error();
        return m_database->insert("damage", stamped({{"id", q(m_seams.newId())},
                                                     {"blade", q(blade)},
                                                     {"kind", q(mark.kind)},
                                                     {"place_mm", orNull(mark.place_mm)},
                                                     {"size_mm", orNull(mark.size_mm)},
                                                     {"note", q(mark.note)},
                                                     {"attachment", *attachment}},
                                                    m_seams.now(), m_person));
    });
}

Result<Done> Logbook::keepProtocol(const Protocol& protocol) {
    if (trimmed(protocol.name).empty()) return refused("name", "a protocol needs a name");
    if (protocol.steps.empty()) return refused("steps", "a protocol needs a step");
    for (const ProtocolStep& step : protocol.steps) {
        if (const std::string fault = stepFault(step); !fault.empty()) return refused(step.name, fault);
    }
    return transact("protocol kept", [&] {
        return m_database->insert(
            "own_protocol",
            stamped({{"id", q(m_seams.newId())}, {"name", q(protocol.name)}, {"sheet", q(protocolText(protocol))}},
                    m_seams.now(), m_person));
    });
}

Result<std::string> Logbook::beginTrial(const std::string& blade, int round, int after_temper,
                                        const Protocol& protocol) {
    if (protocol.steps.empty()) return refused("protocol", "the protocol has no step");
    const std::string id = m_seams.newId();
    return idOr(transact("trial begun",
                         [&] {
                             return m_database->insert("trial", stamped({{"id", q(id)},
                                                                         {"blade", q(blade)},
                                                                         {"round", round},
                                                                         {"after_cycle", after_temper},
                                                                         {"protocol", q(protocolText(protocol))}},
                                                                        m_seams.now(), m_person));
                         }),
                id);
}

Result<Done> Logbook::trialEvent(const std::string& trial, const TrialEvent& event, const AttachedFile& photo) {
    return transact("trial", [&]() -> Result<Done> {
        const Result<QVariant> attachment = attached(photo);
        if (!attachment) return attachment.error();
        return m_database->insert("trial_event", stamped({{"id", q(m_seams.newId())},
                                                          {"trial", q(trial)},
                                                          {"act", nameOf(event.act)},
                                                          {"value", event.value},
                                                          {"second", event.second},
                                                          {"third", event.third},
                                                          {"text", q(event.text)},
                                                          {"attachment", *attachment}},
                                                         m_seams.now(), m_person));
    });
}

Result<std::string> Logbook::addStudy(const Study& study) {
    if (trimmed(study.name).empty()) return refused("name", "a study needs a name");
    if (study.blades.size() < 2) return refused("pieces", "a study needs two pieces at least");
    const std::string id = m_seams.newId();
    return idOr(transact("study begun",
                         [&]() -> Result<Done> {
                             auto done = m_database->insert(
                                 "study", stamped({{"id", q(id)}, {"name", q(study.name)}, {"factor", q(study.factor)}},
                                                  m_seams.now(), m_person));
                             for (const std::string& blade : study.blades) {
                                 if (!done) return done;
                                 done = m_database->insert(
                                     "study_piece",
                                     {{"id", q(m_seams.newId())}, {"study", q(id)}, {"blade", q(blade)}});
                             }
                             return done;
                         }),
                id);
}

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

Result<Done> Logbook::loadProof(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto each = [&](const char* sql, const std::function<void(Blade&, const Row&)>& take) -> Result<Done> {
        const auto rows = m_database->select(QString::fromLatin1(sql), {q(batch.id)});
        if (!rows) return rows.error();
        for (const Row& row : *rows) take(batch.blades[index.at(s(row[0]))], row);
        return Done{};
    };
    auto done = each("SELECT e.blade, e.behind_edge_mm, e.angle_deg, e.grind, e.finish, e.before_hardening_mm FROM "
                     "edge_geometry e JOIN blade b ON b.id=e.blade WHERE b.batch=? ORDER BY e.at_ms, e.rowid",
                     [](Blade& blade, const Row& row) {
                         blade.edges.push_back({row[1].toDouble(), row[2].toDouble(), storedAs<EdgeGrind>(row[3]),
                                                s(row[4]), numberOrNone(row[5])});
                     });
    if (done)
        done = each("SELECT r.blade, r.id, r.round, r.force_n, r.raise_deg, r.contact_mm, r.outcome, r.size_mm, "
                    "r.place_mm, r.sound, EXISTS (SELECT 1 FROM edge_rung_mark m WHERE m.rung=r.id), r.after_cycle"
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
                        blade.rungs.push_back(std::move(rung));
                    });
    if (done)
        done =
            each("SELECT g.blade, g.colour, g.cleared, g.text, g.at_ms, g.at_offset FROM grinding_note g JOIN blade "
                 "b ON b.id=g.blade WHERE b.batch=? ORDER BY g.at_ms, g.rowid",
                 [](Blade& blade, const Row& row) {
                     blade.grinding.push_back({row[1].toBool(), row[2].toBool(), s(row[3]), instantOf(row[4], row[5])});
                 });
    if (done)
        done = each("SELECT d.blade, d.kind, d.place_mm, d.size_mm, d.note, COALESCE(a.name, ''), d.at_ms, d.at_offset "
                    "FROM damage d JOIN blade b ON b.id=d.blade LEFT JOIN attachment a ON a.id=d.attachment WHERE "
                    "b.batch=? ORDER BY d.at_ms, d.rowid",
                    [](Blade& blade, const Row& row) {
                        blade.damage.push_back({s(row[1]), numberOrNone(row[2]), numberOrNone(row[3]), s(row[4]),
                                                s(row[5]), instantOf(row[6], row[7])});
                    });
    std::map<std::string, std::size_t> place; // of a trial among its blade's
    if (done)
        done = each(
            "SELECT t.blade, t.id, t.round, t.protocol, t.at_ms, t.at_offset, t.after_cycle FROM trial t JOIN blade b "
            "ON "
            "b.id=t.blade WHERE b.batch=? ORDER BY t.at_ms, t.rowid",
            [&](Blade& blade, const Row& row) {
                place[s(row[1])] = blade.trials.size();
                blade.trials.push_back(
                    {s(row[1]), row[2].toInt(), row[6].toInt(), protocolIn(s(row[3])), {}, instantOf(row[4], row[5])});
            });
    if (done && !place.empty())
        done = each("SELECT t.blade, e.trial, e.act, e.value, e.second, e.third, e.text, e.at_ms, e.at_offset FROM "
                    "trial_event e JOIN trial t ON t.id=e.trial JOIN blade b ON b.id=t.blade WHERE b.batch=? ORDER BY "
                    "e.rowid",
                    [&](Blade& blade, const Row& row) {
                        blade.trials[place.at(s(row[1]))].events.push_back(
                            {storedAs<TrialAct>(row[2]), row[3].toDouble(), row[4].toDouble(), row[5].toDouble(),
                             s(row[6]), instantOf(row[7], row[8])});
                    });
    if (!done) return done;
    const auto asked = m_database->select(QStringLiteral("SELECT purpose, school, by_hand, force_n, raise_deg FROM "
                                                         "edge_ask WHERE batch=? ORDER BY at_ms DESC, rowid "
                                                         "DESC LIMIT 1"),
                                          {q(batch.id)});
    if (!asked) return asked.error();
    if (!asked->empty()) {
        const Row& row = asked->front();
        batch.edge_ask = EdgeAsk{s(row[0]), s(row[1]), row[2].toBool(), {row[3].toDouble(), row[4].toDouble()}};
    }
    return Done{};
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Edges, rod tests, damage, trials, studies. Each act is one transaction with its entry in
/// the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

/// A picture or other file to be kept with an entry; empty bytes for none.
struct AttachedFile {
    QString name;
    QByteArray bytes;
};

Result<Done> measureEdge(Logbook& logbook, const std::string& blade, const EdgeGeometry& edge,
                         const std::string& as_entered);
/// Logs a rung; its id is given here.
Result<std::string> logRung(Logbook& logbook, const std::string& blade, const EdgeRung& rung,
                            const std::string& as_entered);
/// Errors (refused): no reason.
Result<Done> strikeRung(Logbook& logbook, const std::string& rung, const std::string& reason);
Result<Done> noteGrinding(Logbook& logbook, const std::string& blade, const GrindingNote& note);
Result<Done> askEdge(Logbook& logbook, const std::string& batch, const EdgeAsk& ask);
Result<Done> markDamage(Logbook& logbook, const std::string& blade, const DamageMark& mark,
                        const AttachedFile& photo = {});
/// E47. Clears the open crack of a blade; one that was seen on the rod is marked first. Errors (refused): none is open,
/// no reason.
Result<Done> clearCrack(Logbook& logbook, const Blade& blade, const std::string& reason);
/// E12, E47: ground out, repaired, inspected or accepted, so that it no longer holds the blade back. Errors (refused):
/// no reason, cleared already.
Result<Done> clearDamage(Logbook& logbook, const std::string& damage, const std::string& reason);
/// A protocol of the shop's own, in its next version. Errors (refused): no name, no step, a step that cannot be.
Result<Done> keepProtocol(Logbook& logbook, const Protocol& protocol);
Result<std::string> beginTrial(Logbook& logbook, const std::string& blade, int round, int after_temper,
                               const Protocol& protocol);
Result<Done> trialEvent(Logbook& logbook, const std::string& trial, const TrialEvent& event,
                        const AttachedFile& photo = {});
/// Errors (refused): no name, fewer than two pieces.
Result<std::string> addStudy(Logbook& logbook, const Study& study);
/// Keeps a plan with the batch that its pieces are. Errors: as planned(); refused: the batch has not all its marks.
Result<std::string> keepStudyPlan(Logbook& logbook, const StudyPlan& plan, const std::string& batch);

} // namespace rollcall

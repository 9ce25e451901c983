// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Lots, certificates, shots of an analyser, what else was found out, grades. Each act is one transaction with its
/// entry in the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

/// A shot of an analyser as it came.
struct ShotDraft {
    std::string batch;
    std::string blade; ///< id; empty: the bar
    AnalysisMethod method = AnalysisMethod::xrf;
    std::string piece;
    CompositionShot composition;
    QString file_name;
    QByteArray file; ///< as given; empty when typed
};

/// Supplier and heat number of a batch's lot. Errors (refused): a batch without a grade has no lot.
Result<Done> changeLot(Logbook& logbook, const std::string& batch, const std::string& name, const std::string& supplier,
                       const std::string& heat_number);
/// The mill's values of a batch's lot, with the certificate as a file where there is one. Later values of an
/// element take the place of earlier ones. Errors as changeLot.
Result<Done> addCertificate(Logbook& logbook, const std::string& batch, const std::vector<ElementReading>& values,
                            const QString& fileName, const QByteArray& file);
/// Errors (refused): no element.
Result<std::string> addShot(Logbook& logbook, const ShotDraft& draft);
Result<Done> strikeShot(Logbook& logbook, const std::string& shot, const std::string& reason);
Result<Done> addSteelNote(Logbook& logbook, const std::string& batch, const SteelNote& note);
/// What the batch is taken for from now on; what it was sold as stays. Errors (refused): no reason.
Result<Done> assignGrade(Logbook& logbook, const std::string& batch, const std::string& grade,
                         const std::string& reason);
/// A grade of the shop's own, in its next version. Errors (refused): no name.
Result<Done> keepOwnGrade(Logbook& logbook, const GradeSheet& sheet);

/// E39. Another steel of the blades, and where it lies; no grade takes the one at that place back. Errors (refused): no
/// place.
Result<Done> nameSteelPart(Logbook& logbook, const std::string& batch, const SteelPart& part);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/actions/proof.h"

/// Fractures: photos, scale, counted lines, ratings. Each act is one transaction with its entry in
/// the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

/// A photo of a broken blade.
struct FractureDraft {
    std::string blade;
    int round = 1;
    int after_temper = 0; ///< number of the last temper before it was broken
    AttachedFile photo;
    int width = 0; ///< pixels, upright
    int height = 0;
};

/// Keeps a photo of a broken blade as given. Errors (refused): no file, no pixels.
Result<std::string> addFracture(Logbook& logbook, const FractureDraft& draft);
/// Errors (refused): no reason.
Result<Done> strikeFracture(Logbook& logbook, const std::string& fracture, const std::string& reason);
/// A later scale takes the place of an earlier one. Errors (refused): outside 1 to 10 000 pixels per mm.
Result<Done> scaleFracture(Logbook& logbook, const std::string& fracture, double px_per_mm,
                           const std::string& as_entered);
/// Keeps a counted line; its id is given here. Errors (refused): no length, crossings that are none.
Result<std::string> countLine(Logbook& logbook, const std::string& fracture, const CountedLine& line);
/// Errors (refused): no reason.
Result<Done> strikeLine(Logbook& logbook, const std::string& line, const std::string& reason);
/// Errors (refused): a rating outside 1 to 10.
Result<Done> rateFracture(Logbook& logbook, const std::string& fracture, const FractureRating& rating);
/// The least grain size that a batch asks from now on. Errors (refused): outside 1 to 12.
Result<Done> askGrain(Logbook& logbook, const std::string& batch, double least);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/grain.h"

#include "core/base/number.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

#include <fmt/format.h>
#include <QCryptographicHash>

// Photos of fractures, what was counted on them and how they were rated.
namespace rollcall {

namespace {

std::string crossingsText(const std::vector<Crossing>& crossings) {
    std::string text;
    for (const Crossing& crossing : crossings)
        text += fmt::format("{}{:.6f} {:g}", text.empty() ? "" : "; ", crossing.part, crossing.weight);
    return text;
}

} // namespace

Result<std::string> addFracture(Logbook& logbook, const FractureDraft& draft) {
    if (draft.photo.bytes.isEmpty() || draft.width < 1 || draft.height < 1)
        return refused("photo", "the photo holds no picture");
    const std::string id = logbook.newId();
    return idOr(logbook.transact("fracture photographed",
                                 [&]() -> Result<Done> {
                                     const Result<QVariant> photo = attached(logbook, draft.photo);
                                     if (!photo) return photo.error();
                                     return logbook.database().insert("fracture",
                                                                      stamped({{"id", q(id)},
                                                                               {"blade", q(draft.blade)},
                                                                               {"round", draft.round},
                                                                               {"after_cycle", draft.after_temper},
                                                                               {"attachment", *photo},
                                                                               {"width", draft.width},
                                                                               {"height", draft.height}},
                                                                              logbook.now(), logbook.person()));
                                 }),
                id);
}

Result<Done> strikeFracture(Logbook& logbook, const std::string& fracture, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "say why");
    return logbook.transact("fracture struck out", [&] {
        return logbook.database().insert(
            "fracture_mark", stamped({{"id", q(logbook.newId())}, {"fracture", q(fracture)}, {"reason", q(reason)}},
                                     logbook.now(), logbook.person()));
    });
}

Result<Done> scaleFracture(Logbook& logbook, const std::string& fracture, double px_per_mm,
                           const std::string& as_entered) {
    if (!(px_per_mm >= 1 && px_per_mm <= 10000))
        return refused("scale", "a scale lies between 1 and 10 000 pixels per mm");
    return logbook.transact("fracture scaled", [&] {
        return logbook.database().insert("fracture_scale", stamped({{"id", q(logbook.newId())},
                                                                    {"fracture", q(fracture)},
                                                                    {"px_per_mm", px_per_mm},
                                                                    {"as_entered", q(as_entered)}},
                                                                   logbook.now(), logbook.person()));
    });
}

Result<std::string> countLine(Logbook& logbook, const std::string& fracture, const CountedLine& line) {
    if (!(line.line.length() >= 1)) return refused("line", "a line needs a length");
    for (const Crossing& crossing : line.crossings) {
        const bool weighed = crossing.weight == 0.5 || crossing.weight == 1 || crossing.weight == 1.5;
        if (!(crossing.part >= 0 && crossing.part <= 1) || !weighed)
            return refused("crossings", "a crossing lies on its line and counts a half, one or one and a half");
    }
    const std::string id = logbook.newId();
    return idOr(logbook.transact("line counted",
                                 [&] {
                                     return logbook.database().insert(
                                         "fracture_line", stamped({{"id", q(id)},
                                                                   {"fracture", q(fracture)},
                                                                   {"zone", nameOf(line.zone)},
                                                                   {"circle", line.line.circle ? 1 : 0},
                                                                   {"ax", line.line.a.x},
                                                                   {"ay", line.line.a.y},
                                                                   {"bx", line.line.b.x},
                                                                   {"by", line.line.b.y},
                                                                   {"crossings", q(crossingsText(line.crossings))}},
                                                                  logbook.now(), logbook.person()));
                                 }),
                id);
}

Result<Done> strikeLine(Logbook& logbook, const std::string& line, const std::string& reason) {
    if (trimmed(reason).empty()) return refused("reason", "say why");
    return logbook.transact("line struck out", [&] {
        return logbook.database().insert("fracture_line_mark",
                                         stamped({{"id", q(logbook.newId())}, {"line", q(line)}, {"reason", q(reason)}},
                                                 logbook.now(), logbook.person()));
    });
}

Result<Done> rateFracture(Logbook& logbook, const std::string& fracture, const FractureRating& rating) {
    for (const double value : {rating.first, rating.second}) {
        if (!(value >= 1 && value <= 10)) return refused("rating", "a rating lies between 1 and 10");
    }
    return logbook.transact("fracture rated", [&] {
        return logbook.database().insert("fracture_rating", stamped({{"id", q(logbook.newId())},
                                                                     {"fracture", q(fracture)},
                                                                     {"first", rating.first},
                                                                     {"second", rating.second}},
                                                                    logbook.now(), logbook.person()));
    });
}

Result<Done> askGrain(Logbook& logbook, const std::string& batch, double least) {
    if (!(least >= 1 && least <= 12)) return refused("least", "the least grain size asked lies between 1 and 12");
    return logbook.transact("grain asked for", [&] {
        return logbook.database().insert("grain_ask",
                                         stamped({{"id", q(logbook.newId())}, {"batch", q(batch)}, {"least", least}},
                                                 logbook.now(), logbook.person()));
    });
}

} // namespace rollcall

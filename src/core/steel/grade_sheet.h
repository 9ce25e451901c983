// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/steel/composition.h"

#include <map>
#include <string>
#include <vector>

namespace rollcall {

/// A grade of the shop's own as it is written down: fields by name, as text. What is left blank is taken from the grade
/// it is based on. Fields: name, based_on, aliases, composition, austenitise, soak, as_quenched, quench, embrittle,
/// curve, confidence, note.
using GradeSheet = std::map<std::string, std::string>;

/// The fields of a sheet in their usual order.
const std::vector<std::string>& gradeSheetFields();

/// The grade of a sheet. composition is "C 0.95-1.05; Cr -0.30; V 0.15-"; austenitise and embrittle are "790-820" in °C
/// (F is understood), soak "5-10" in minutes, as_quenched "62 64 66" in HRC, curve "150:2=64 200:2=61.5" as °C, hours
/// and HRC, at least four points. Errors (argument): the field and what is wrong with it; without a base every field of
/// these but embrittle and note is needed.
Result<Grade> gradeFromSheet(const GradeSheet& sheet, const Tables& tables);

/// The library with these own grades in front of it, each may be based on one before it. A sheet that is no grade is
/// left out: none is kept that was not one.
Tables withSheets(const Tables& shipped, const std::vector<GradeSheet>& sheets);

/// A grade written down, to begin an own one with or to leave with.
GradeSheet sheetOf(const Grade& grade);

/// A sheet of what was shot: each element from a tenth below to a tenth above what it read, or three of its errors
/// where that is more; what was not seen, up to its detection limit. Heat and curve are those of the nearest grade,
/// which a sheet with low confidence says; without one they are left to be typed. An estimate to begin with, not a
/// standard.
GradeSheet sheetOfShot(const std::vector<ElementReading>& measured, const Grade* nearest, const std::string& name);

/// Grades whose name or alias holds this text, names first; all for an empty text.
std::vector<const Grade*> searchGrades(const std::vector<Grade>& grades, std::string_view text);

} // namespace rollcall

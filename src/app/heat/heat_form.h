// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"

/// The fields in which a heat is typed, and what is read from them.
namespace rollcall {

/// A number for a field; blank for none.
QString shown(const std::optional<double>& value);
/// What was typed in a field; none when it is blank or not understood.
std::optional<double> typed(const FormValues& v, const char* field, Quantity quantity);
/// Of a field that may stay blank: the sentence when it is no number between low and high.
FormFault faultIn(const FormValues& v, const char* field, double low, double high, const QString& sentence);

/// What a recipe, or else the library, says of the heat.
HeatDraft usualHeat(const Batch& batch, const Grade* grade);
/// Oven, set point, shortest and longest soak.
std::vector<FormField> heatFields(const HeatDraft& usual, const Shop& shop);
FormFault heatFault(const FormValues& v);
/// The draft with what stands in those fields.
HeatDraft heatTyped(HeatDraft heat, const FormValues& v);

} // namespace rollcall

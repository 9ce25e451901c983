// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/form_dialog.h"
#include "core/base/tables.h"
#include "logbook/actions/blades.h"
#include "logbook/logbook.h"

namespace rollcall {

/// The fields of the new-batch form; like an earlier batch when one is given ('same again').
std::vector<FormField> batchFields(const Tables& tables, const Batch* like, const std::vector<BatchSummary>& known);

/// A batch from the form, or the first fault. Pure; asks no one.
struct BatchAnswer {
    BatchDraft draft;
    FormFault fault;
};
BatchAnswer batchFromForm(const FormValues& values, const Tables& tables, const std::vector<BatchSummary>& known);

/// A window from text: "61 to 63", "61:63", "61-63", "64.5" alone as a minimum. Fault sentence when it is none.
struct WindowAnswer {
    Window window;
    QString fault;
};
WindowAnswer windowFromText(const QString& text);

} // namespace rollcall

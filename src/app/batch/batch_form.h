// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/form_dialog.h"
#include "core/base/tables.h"
#include "logbook/actions/blades.h"
#include "logbook/logbook.h"

namespace rollcall {

/// The fields of the new-batch form; like an earlier batch when one is given ('same again').
/// A shop that has files and no tester is asked by files.
std::vector<FormField> batchFields(const Tables& tables, const Batch* like, const std::vector<BatchSummary>& known,
                                   const std::vector<Tester>& testers = {});

/// A batch from the form, or the first fault. Pure; asks no one.
struct BatchAnswer {
    BatchDraft draft;
    FormFault fault;
};
BatchAnswer batchFromForm(const FormValues& values, const Tables& tables, const std::vector<BatchSummary>& known);

/// E38. The window that is usual for the purpose and grade in the form, by judgement; empty where none is. For the
/// maker to take or not.
QString usualWindowOf(const FormValues& values, const Tables& tables);

/// What a form that asks for a window says while it is filled: where a proposed window comes from (E38), which means
/// this shop's tester could pass (E36) or its files confirm (E37), a quench minimum that is no use. tester may be null.
QString windowNote(const FormValues& values, const Tables& tables, const Tester* tester,
                   const std::vector<Tester>& testers);

/// A window from text: "61 to 63", "61:63", "61-63", "64.5" alone as a minimum. Fault sentence when it is none.
struct WindowAnswer {
    Window window;
    QString fault;
};
WindowAnswer windowFromText(const QString& text);

} // namespace rollcall

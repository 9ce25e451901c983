// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/form_dialog.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace rollcall {

/// What is wrong with the field "folder" of a form that asks which folder to watch; blank is none.
inline FormFault folderFault(const FormValues& values) {
    if (values["folder"].isEmpty() || QFileInfo(values["folder"]).isDir()) return {};
    return {QStringLiteral("folder"), QCoreApplication::translate("folder form", "There is no such folder.")};
}

} // namespace rollcall

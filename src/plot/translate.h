// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCoreApplication>
#include <QString>

namespace rollcall {

/// Text of functions that belong to no class, in the interface language. Its context is the namespace's name, as
/// the tools that collect texts take it to be.
inline QString tr(const char* text) {
    return QCoreApplication::translate("rollcall", text);
}

} // namespace rollcall

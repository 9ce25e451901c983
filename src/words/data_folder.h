// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

namespace rollcall {

/// The folder of the data that ships with Rollcall (tables, fonts): ROLLCALL_DATA from the environment, else
/// the one beside the installed program, else the one of the source tree it was built from.
QString dataFolder();

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/data_folder.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace rollcall {

QString dataFolder() {
    const QString wished = qEnvironmentVariable("ROLLCALL_DATA");
    if (!wished.isEmpty()) return wished;
    const QString installed = QCoreApplication::applicationDirPath() + QStringLiteral("/../share/rollcall");
    if (QFileInfo::exists(installed + QStringLiteral("/tables"))) return installed;
    return QStringLiteral(ROLLCALL_SOURCE_DATA);
}

} // namespace rollcall

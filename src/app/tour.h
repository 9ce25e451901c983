// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

namespace rollcall {

class Document;
class MainWindow;

/// Writes one picture of each main view, from the demo logbook that the document has open, into a folder.
/// Returns false when a picture could not be written.
bool writeTour(MainWindow& window, Document& document, const QString& folder);

} // namespace rollcall

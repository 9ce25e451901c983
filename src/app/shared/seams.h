// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <optional>
#include <QString>

class QMimeData;
class QWidget;

namespace rollcall {

struct Paper;

/// Tones that tell what happened to who does not look.
enum class Sound { dwellOver, ovenDue };

/// Questions to the desktop that a test answers itself.
struct Seams {
    /// A file to open, or to make when making is true; empty when the question was given up.
    std::function<QString(QWidget* parent, const QString& title, const QString& filter, bool making)> chooseFile;

    /// Asks for a printer and prints pages on it: their number, or none when it was given up.
    std::function<std::optional<int>(QWidget* parent, const QString& title, bool letter,
                                     const std::function<int(Paper&)>& draw)>
        print;

    /// Lets something be drawn out of the window; takes it over.
    std::function<void(QWidget* from, QMimeData* what)> drag;

    /// Says a text aloud. Empty, or why that cannot be.
    std::function<QString(const QString& text)> speak;

    /// Sounds a tone.
    std::function<void(Sound sound)> sound;

    static Seams real();
};

} // namespace rollcall

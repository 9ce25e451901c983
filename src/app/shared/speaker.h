// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/seams.h"

#include <memory>

namespace rollcall {

/// The computer's voice and loudspeaker. Neither is looked for before the first word or tone is asked of it, so that
/// who wishes none waits for none.
class Speaker {
public:
    Speaker();
    ~Speaker();

    /// Says a text at once; what was being said is broken off. Empty, or why this computer has no voice.
    QString say(const QString& text);
    /// A tone from data/sounds; the desktop's own bell where there is no loudspeaker.
    void sound(Sound sound);

private:
    struct Parts;
    std::unique_ptr<Parts> m_parts;
};

} // namespace rollcall

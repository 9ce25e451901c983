// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace rollcall::fuzz {

/// Something that reads what comes from outside: typed, from a file, over a wire.
struct Parser {
    const char* name;
    /// Reads it; throws std::logic_error where what was read does not hold what it promises.
    void (*read)(std::string_view text);
    std::vector<std::string> seeds; ///< what it is meant for, to begin with
    int tries = 1500;               ///< in a test; fewer of what makes files each time
};

const std::vector<Parser>& parsers();

} // namespace rollcall::fuzz

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/fuzz/parsers.h"

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <fstream>

// The parser named in ROLLCALL_PARSER under libFuzzer; ./check --fuzz runs each for its share of the time. With
// ROLLCALL_SEEDS it writes what each parser is meant for into that folder, name by name, and ends.
extern "C" int LLVMFuzzerInitialize(int*, char***) {
    const char* seeds = std::getenv("ROLLCALL_SEEDS");
    if (seeds == nullptr) return 0;
    for (const rollcall::fuzz::Parser& parser : rollcall::fuzz::parsers()) {
        std::printf("%s\n", parser.name);
        for (std::size_t i = 0; i < parser.seeds.size(); ++i)
            std::ofstream(std::string(seeds) + "/" + parser.name + "-" + std::to_string(i)) << parser.seeds[i];
    }
    std::exit(0);
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const rollcall::fuzz::Parser* const chosen = [] {
        const char* name = std::getenv("ROLLCALL_PARSER");
        for (const rollcall::fuzz::Parser& parser : rollcall::fuzz::parsers()) {
            if (name != nullptr && std::strcmp(parser.name, name) == 0) return &parser;
        }
        std::fprintf(stderr, "ROLLCALL_PARSER names no parser\n");
        std::exit(2);
    }();
    chosen->read({reinterpret_cast<const char*>(data), size});
    return 0;
}

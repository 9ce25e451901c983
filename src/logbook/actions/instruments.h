// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Testers, blocks, runs on blocks, files. Each act is one transaction with its entry in
/// the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

Result<std::string> addTester(Logbook& logbook, const Tester& tester);
/// New settings of a tester. Another indenter or anvil ends its verification; earlier readings keep theirs.
Result<Done> changeTester(Logbook& logbook, const Tester& tester);
Result<std::string> addBlock(Logbook& logbook, const Block& block);
Result<Done> changeBlock(Logbook& logbook, const Block& block);
/// Begins a run on a block with a tester as it is set up now.
Result<std::string> startVerification(Logbook& logbook, const std::string& tester, const std::string& block);
Result<std::string> logBlockReading(Logbook& logbook, const std::string& verification, double value,
                                    const std::string& as_entered);
/// Logs what a set of files did on a blade; the test's own id, person and time are given here.
/// Errors (refused): no file tried.
Result<std::string> logFileTest(Logbook& logbook, const std::string& blade, const std::string& set,
                                const FileTest& test);

} // namespace rollcall

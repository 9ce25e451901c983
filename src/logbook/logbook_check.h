// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <deque>
#include <functional>
#include <memory>
#include <QtGlobal>
#include <string>
#include <vector>

namespace rollcall {

class Logbook;
class ChainReader;

/// Looks through a whole logbook in short steps, so that acts can come between them: the file, what its rows point at,
/// its numbers, the files in it, the chain of its change log, and each row against what the log says of it.
class LogbookCheck {
public:
    /// othersWait: asked while a step takes long; it is left then, and done another time.
    explicit LogbookCheck(Logbook& logbook, std::function<bool()> othersWait = {});
    ~LogbookCheck();

    /// The next step; false when there is none left. Errors: disk, damaged (the rest cannot be read).
    Result<bool> step();
    /// Sentences about everything found wrong so far.
    const std::vector<std::string>& problems() const { return m_problems; }

private:
    using Question = std::function<Result<std::vector<std::string>>()>; ///< sentences about what is wrong
    void add(Question question) {
        m_steps.push_back([this, question = std::move(question)] { return ask(question); });
    }
    Result<Done> ask(const Question& question);
    void look(std::vector<std::string> found) { m_problems.insert(m_problems.end(), found.begin(), found.end()); }
    Result<Done> followChain(bool toTheEnd);
    Result<Done> compare(const char* table, qint64 after);
    Result<Done> compareSeries(std::size_t series);

    Logbook& m_logbook;
    std::deque<std::function<Result<Done>()>> m_steps;
    std::unique_ptr<ChainReader> m_chain;
    std::function<bool()> m_othersWait;
    std::vector<std::string> m_problems;
};

} // namespace rollcall

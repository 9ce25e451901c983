// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/find/wanted.h"
#include "logbook/logbook.h"

#include <deque>
#include <set>

namespace rollcall {

/// Something that was found.
struct Hit {
    enum class Kind { batch, blade, note };

    Kind kind = Kind::batch;
    std::string batch_id;
    std::string batch; ///< name
    std::string blade; ///< id; empty of a batch, and of a note on one
    std::string mark;
    std::string grade;
    Instant made;     ///< when the batch was made, or the note written
    std::string text; ///< the words around what fits; of a note all of it
};

template<>
inline constexpr std::array namesOf<Hit::Kind>{"batch", "blade", "note"};

/// Looks for batches, blades and notes by what was written about them: names, marks, grades, lots and their
/// certificates, purposes, people, testers, readings, tempers, media, notes, damage, decisions and their reasons.
///
/// The words stand in an index that SQLite keeps in a temporary file of its own: nothing of it goes into the logbook,
/// one that can only be read can be searched too, and it is gone with the program. It is made step by step, the
/// oldest batch first, and what an act has touched is read anew.
class Finder {
public:
    explicit Finder(Logbook& logbook);

    /// Reads some more batches; false when there are none left. Errors: as the logbook's.
    Result<bool> step();
    void touched(const Touched& touched);
    /// Batches that are to be read still, and all.
    std::pair<std::size_t, std::size_t> left() const { return {m_left.size(), m_batches}; }

    /// What fits, what was written last first, at most so many; a wish for a verdict is left to who judges. Of what
    /// has not been read yet nothing is found.
    Result<std::vector<Hit>> find(const Wanted& wanted, int most);

private:
    Result<Done> begin();
    Result<Done> listBatches();
    Result<Done> read(const std::string& batch);

    Logbook& m_logbook;
    bool m_begun = false;
    std::deque<std::string> m_left;
    std::set<std::string> m_known; ///< of those in the index or to be read
    std::size_t m_batches = 0;
};

} // namespace rollcall

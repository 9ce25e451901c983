// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace rollcall {

/// What a file of known hardness does on a cleaned, bare spot.
enum class FileTouch {
    skates, ///< slides off: the blade is harder
    bites,  ///< cuts: the blade is softer
    touches ///< barely catches: about as hard
};

struct FileTrial {
    double file_hrc = 0; ///< the file's own hardness, known to about filesThemselves
    FileTouch touch = FileTouch::skates;
};

/// HRC, either way: how well a file's hardness is known, and how near a touching file is to the blade.
inline constexpr double filesThemselves = 1.5;

/// Why the trials cannot all be true.
enum class FileConflict {
    none,
    oneFileDidBoth,   ///< the same file skated and bit
    softerBit,        ///< a softer file bit where a harder one skated
    touchDoesNotMatch ///< a file that barely catches lies outside the bracket of the others
};

/// M12. Bracket of the blade's hardness: from the hardest file that skates to the softest that bites, within 1.5 of
/// any that barely catches. A side that no file bounds is none; both are none when the trials contradict each other.
struct FileBracket {
    std::optional<double> lower;
    std::optional<double> upper;
    FileConflict conflict = FileConflict::none;
    double skating = 0; ///< with a conflict: the files that are at odds
    double biting = 0;
};

/// The file to try next: of those not tried yet the one inside the bracket that lies nearest its middle, so that either
/// answer halves it; before any try the middle one. None where no file of the set narrows it, or the trials contradict
/// each other.
std::optional<double> nextFile(const std::vector<double>& files, const std::vector<FileTrial>& trials);

/// E37. What a set of files, softest first, can confirm at all; each is known to filesThemselves.
struct FilesReach {
    double narrowest = 0; ///< HRC, of a window; infinite with fewer than two files
    double highest = 0;   ///< HRC, of a minimum alone
};
FilesReach filesReach(const std::vector<double>& files);
/// Whether they can confirm this window: a minimum by one file that skates, a window by two files that fit into it.
bool filesConfirm(const std::vector<double>& files, const std::optional<double>& low,
                  const std::optional<double>& high);

/// M12. Skates 55 and 60, bites 65, touches 60 gives 60 to 61.5. The order of the trials does not matter.
FileBracket fileBracket(const std::vector<FileTrial>& trials);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/temper_ledger.h"

namespace rollcall {

/// In what heats may differ that are set side by side.
enum class Factor { recipe, oven, medium, person, tester, lot };
template<>
inline constexpr std::array namesOf<Factor>{"recipe", "oven", "medium", "person", "tester", "lot"};
inline constexpr std::array allFactors{Factor::recipe, Factor::oven,   Factor::medium,
                                       Factor::person, Factor::tester, Factor::lot};

/// What a batch was at a factor; empty where it is not noted.
std::string levelOf(const LedgerBatch& batch, Factor factor);

/// What is compared: hardness after the last temper less what the library expects there, or as quenched less the
/// grade's typical value.
enum class Response { tempered, quenched };
template<>
inline constexpr std::array namesOf<Response>{"after temper", "as quenched"};

/// One of the things compared. Its heats are the sample: blades of a heat are not independent of each other.
struct Level {
    std::string name;
    std::vector<double> values; ///< one a heat, HRC from what is expected
    std::vector<const LedgerBatch*> batches;
    std::vector<std::string> blades; ///< id of a blade of each
    int pieces = 0;
    double mean = 0;
    std::optional<double> sd;      ///< between heats
    std::optional<Interval> known; ///< 95 % interval of the mean, by Student's t
};

/// Two of them against each other.
struct LevelPair {
    std::size_t a = 0;
    std::size_t b = 0;
    double difference = 0; ///< mean of a less mean of b
    Interval known;        ///< 95 % interval, B. L. Welch, Biometrika 34 (1947)
    double p = 1;          ///< two-sided
    double adjusted = 1;   ///< p with all pairs counted (S. Holm, Scand. J. Statist. 6 (1979))
    bool differ = false;   ///< adjusted below 0.05
    /// Heats of each that would show a difference like this with 80 % power at 5 %; none where it is under 0.05 HRC.
    std::optional<int> heats_to_tell;
};

struct Comparisons {
    std::vector<Level> levels;    ///< those with most heats first, eight at most
    std::vector<LevelPair> pairs; ///< of the levels with two heats or more, the clearest first
    /// p that all levels scatter alike (M. B. Brown, A. B. Forsythe, J. Am. Statist. Assoc. 69 (1974)); none where
    /// fewer than two levels have three heats.
    std::optional<double> scatter_p;
    int unnamed = 0; ///< heats of which it is not known
    int more = 0;    ///< levels beyond the eight
};

/// Heats set side by side; a grade of its own is compared with itself: values are taken from the mean of their grade
/// where there are several.
Comparisons compareLevels(const Ledger& ledger, const std::vector<const Grade*>& grades, Factor factor,
                          Response response);

/// The same of values that are at hand: the levels need name and values.
Comparisons compareLevels(std::vector<Level> levels);

/// Pieces of each of so many levels that show a difference between the lowest and the highest with this power, where
/// pieces scatter by sd; two-sided at 5 % for two levels (non-central t), else by the F test with the others in the
/// middle. None beyond 1,000. Valid for sd > 0, difference > 0, power in 0.5 to 0.999, levels from 2 to 12.
std::optional<int> piecesToTell(double difference, double sd, int levels, double power);
/// The power that so many pieces of each level have; 0 to 1.
double powerOf(double difference, double sd, int levels, int pieces);

} // namespace rollcall

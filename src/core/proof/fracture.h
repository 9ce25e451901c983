// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/names.h"
#include "core/proof/crossings.h"
#include "core/proof/grain.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// Part of a fracture's section that a line lies in.
enum class FractureZone { edge, middle, spine, skin };
template<>
inline constexpr std::array namesOf<FractureZone>{"edge", "middle", "spine", "skin"};
inline constexpr int fractureZones = static_cast<int>(namesOf<FractureZone>.size());

/// Where a line crosses a boundary between facets.
struct Crossing {
    double part = 0;   ///< of the line's length, 0 to 1
    double weight = 1; ///< end on a boundary a half, touch one, triple point one and a half
};

/// A line counted on a photo. Never changed: it is struck out and counted anew.
struct CountedLine {
    std::string id;
    FractureZone zone = FractureZone::middle;
    TestLine line; ///< in pixels of the photo as it is seen upright
    std::vector<Crossing> crossings;
    bool struck = false;

    double count() const;
};

/// A rating by comparison with drawn fractures, made twice without seeing the numbers.
struct FractureRating {
    double first = 0; ///< 1 coarse to 10 fine; halves lie between two
    double second = 0;
    Instant at;
};

/// A photo of a broken piece.
struct FracturePhoto {
    std::string id;
    std::string name;
    std::string sha256; ///< of the file as given
    int width = 0;      ///< pixels, upright
    int height = 0;
    std::optional<double> px_per_mm; ///< none until its scale is set
    int round = 1;                   ///< hardening round of the piece
    int after_temper = 0;            ///< number of the last temper before it was broken; 0: untempered
    std::vector<CountedLine> lines;
    std::vector<FractureRating> ratings; ///< the last one counts
    Instant at;
};

/// Facets smaller than this many pixels are not seen apart.
inline constexpr double leastPixels = 10;
/// The finest grain that a photo of this scale shows: 200 pixels per mm (5 µm each) show nothing finer than G 5.4.
double finestSeen(double px_per_mm);

/// What the fractures of a piece say, all its photos with a scale taken together.
struct FractureReading {
    enum class Says { nothing, counting, tooCoarseAPhoto, counted, rated };
    Says says = Says::nothing;
    double g = 0; ///< counted, or the rating, which runs about with it (closest from 4 to 8)
    std::pair<double, double>
        low_high; ///< what is known of it: the count's t interval, no narrower than such a count is worth
    std::optional<GrainSize> size; ///< of all lines; none when nothing is counted
    int lines = 0;
    double crossings = 0;
    struct Zone {
        FractureZone zone;
        GrainSize size;
        int lines = 0;
    };
    std::vector<Zone> zones; ///< those with lines
    /// Two zones a whole number or more apart whose intervals do not meet; the coarser first.
    std::optional<std::pair<Zone, Zone>> uneven;
    std::optional<double> rating;      ///< mean of the two looks; none when they are more than one apart
    bool rating_repeats_badly = false; ///< they are
    bool count_and_rating_differ = false;
    bool tempered = false;             ///< broken after a temper: the ratings hold for untempered fractures
    std::optional<double> finest_seen; ///< of the sharpest photo
};

/// Lines and crossings that still miss to a count worth ± 0.3 G.
struct LinesWanted {
    int lines = 0;
    double crossings = 0;
};
inline constexpr int fairLines = 5;
inline constexpr double fairCrossings = 250;
LinesWanted linesWanted(int lines, double crossings);

/// What a count is worth at best, ± G: 0.3 from 250 crossings on five lines, 0.9 at 50, in between by a straight line
/// over logarithms; none with fewer than 3 lines or 50 crossings. By judgement, after M30.
std::optional<double> countWorth(int lines, double crossings);

/// M30. Reads the photos of a piece.
FractureReading readFractures(const std::vector<FracturePhoto>& photos);

/// How a grain size stands to the least that is asked.
enum class GrainStands { open, fine, between, coarse };
GrainStands standsTo(const FractureReading& reading, double least);

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/fracture.h"

#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace rollcall {

double CountedLine::count() const {
    double sum = 0;
    for (const Crossing& crossing : crossings) sum += crossing.weight;
    return sum;
}

double finestSeen(double px_per_mm) {
    return gOfIntercept(leastPixels / px_per_mm);
}

LinesWanted linesWanted(int lines, double crossings) {
    return {std::max(0, fairLines - lines), std::max(0.0, fairCrossings - crossings)};
}

std::optional<double> countWorth(int lines, double crossings) {
    constexpr double few = 50;
    constexpr double fairWorth = 0.3;
    constexpr double fewWorth = 0.9;
    if (lines < 3 || crossings < few) return std::nullopt;
    if (lines < fairLines) return fewWorth;
    const double part = std::log(std::min(crossings, fairCrossings) / few) / std::log(fairCrossings / few);
    return fewWorth * std::pow(fairWorth / fewWorth, part);
}

namespace {

FractureReading::Says countOf(const std::vector<FracturePhoto>& photos, FractureReading& reading) {
    std::vector<InterceptLine> all;
    std::vector<std::vector<InterceptLine>> byZone(fractureZones);
    double pixels = 0;
    for (const FracturePhoto& photo : photos) {
        if (!photo.px_per_mm) continue;
        for (const CountedLine& line : photo.lines) {
            if (line.struck) continue;
            const InterceptLine one{line.line.length() / *photo.px_per_mm, line.count()};
            all.push_back(one);
            byZone[static_cast<std::size_t>(line.zone)].push_back(one);
            pixels += line.line.length();
            ++reading.lines;
            reading.crossings += one.crossings;
        }
    }
    if (all.empty()) return FractureReading::Says::nothing;
    const auto size = grainSize(all);
    if (!size) return FractureReading::Says::counting;
    if (pixels / reading.crossings < leastPixels - limitTolerance) return FractureReading::Says::tooCoarseAPhoto;
    reading.size = *size;
    for (int zone = 0; zone < fractureZones; ++zone) {
        const auto& lines = byZone[static_cast<std::size_t>(zone)];
        if (const auto one = grainSize(lines))
            reading.zones.push_back({static_cast<FractureZone>(zone), *one, static_cast<int>(lines.size())});
    }
    std::stable_sort(reading.zones.begin(), reading.zones.end(),
                     [](const auto& a, const auto& b) { return a.size.g < b.size.g; });
    if (reading.zones.size() > 1) {
        const auto& coarse = reading.zones.front();
        const auto& fine = reading.zones.back();
        if (coarse.size.interval && fine.size.interval && fine.size.g - coarse.size.g >= 1 &&
            coarse.size.interval->second < fine.size.interval->first)
            reading.uneven = std::pair(coarse, fine);
    }
    const std::optional<double> worth = countWorth(reading.lines, reading.crossings);
    if (!worth) return FractureReading::Says::counting;
    reading.g = size->g;
    reading.low_high = {size->g - *worth, size->g + *worth};
    if (size->interval)
        reading.low_high = {std::min(reading.low_high.first, size->interval->first),
                            std::max(reading.low_high.second, size->interval->second)};
    return FractureReading::Says::counted;
}

} // namespace

FractureReading readFractures(const std::vector<FracturePhoto>& photos) {
    FractureReading reading;
    std::optional<FractureRating> last;
    for (const FracturePhoto& photo : photos) {
        reading.tempered = reading.tempered || photo.after_temper > 0;
        if (photo.px_per_mm) {
            const double seen = finestSeen(*photo.px_per_mm);
            reading.finest_seen = std::max(reading.finest_seen.value_or(seen), seen);
        }
        for (const FractureRating& rating : photo.ratings) {
            if (!last || rating.at.utc_ms >= last->at.utc_ms) last = rating;
        }
    }
    reading.says = countOf(photos, reading);
    if (!last) return reading;
    const double apart = std::abs(last->first - last->second);
    if (apart > 1 + limitTolerance) {
        reading.rating_repeats_badly = true;
        return reading;
    }
    reading.rating = (last->first + last->second) / 2;
    // A rating names the nearer of whole numbers: half a number to each side, and half of what the two looks differ by.
    const double half = 0.5 + apart / 2;
    if (reading.says == FractureReading::Says::counted) {
        reading.count_and_rating_differ = *reading.rating + half < reading.low_high.first - 0.5 ||
                                          *reading.rating - half > reading.low_high.second + 0.5;
    } else {
        reading.says = FractureReading::Says::rated;
        reading.g = *reading.rating;
        reading.low_high = {*reading.rating - half, *reading.rating + half};
    }
    return reading;
}

GrainStands standsTo(const FractureReading& reading, double least) {
    if (reading.says != FractureReading::Says::counted && reading.says != FractureReading::Says::rated)
        return GrainStands::open;
    if (atLeast(reading.low_high.first, least)) return GrainStands::fine;
    return reading.low_high.second < least ? GrainStands::coarse : GrainStands::between;
}

} // namespace rollcall

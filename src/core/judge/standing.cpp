// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/standing.h"

#include "core/base/number.h"
#include "core/measure/comparison.h"
#include "core/measure/convex.h"
#include "core/measure/indent.h"
#include "core/measure/statistics.h"
#include "core/measure/uncertainty.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace rollcall {

namespace {

struct Indent {
    const Reading* reading;
    double diameter;
};

// Diameters of all marks on the blade that have a place; struck-out readings leave marks too.
std::vector<Indent> indentsOn(const Blade& blade, const Tables& tables) {
    std::vector<Indent> indents;
    indents.reserve(blade.readings.size());
    for (const Reading& reading : blade.readings) {
        if (!reading.spot) continue;
        const Result<double> d = indentDiameter(tables, reading.scale, reading.value);
        if (d) indents.push_back({&reading, *d});
    }
    return indents;
}

class Checker {
public:
    Checker(const Batch& batch, const Blade& blade, const VerificationBook& book, const Tables& tables)
        : m_batch(batch), m_blade(blade), m_book(book), m_tables(tables), m_indents(indentsOn(blade, tables)) {}

    ReadingSet run(const std::vector<const Reading*>& candidates, double alloy_percent) {
        checkScales(candidates);
        checkSpacing();
        checkRebound();
        if (!m_set.rebound) checkThickness(); // the table is for indents pressed in
        correctConvex();
        keepVerified();
        convert(alloy_percent);
        checkVerification();
        return std::move(m_set);
    }

private:
    void say(Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
             std::vector<std::string> texts = {}) {
        m_set.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }

    // Takes a reading that breaks a rule out of the mean, unless someone accepted it with a reason.
    bool leaveOut(const Reading* reading) {
        if (!reading->accepted_because.empty()) {
            say(Fact::acceptedReading, Tone::caution, "record", {reading->value}, {reading->accepted_because});
            return false;
        }
        m_set.left_out.push_back(reading);
        std::erase(m_set.standing, reading);
        return true;
    }

    bool isRebound(const Reading* reading) const {
        const Tester* tester = m_batch.tester(reading->tester);
        return tester != nullptr && tester->kind == TesterKind::rebound;
    }

    // M11. A strike needs mass behind it; a thin blade gives way and reads differently.
    void checkRebound() {
        m_set.rebound = !m_set.standing.empty() && std::all_of(m_set.standing.begin(), m_set.standing.end(),
                                                               [&](const Reading* r) { return isRebound(r); });
        if (!m_set.rebound) return;
        constexpr double enough_mm = 10;
        const double thickness = m_blade.shape.thickness_mm;
        if (thickness > 0 && !atLeast(thickness, enough_mm)) {
            say(Fact::reboundThin, Tone::caution, "M11", {thickness, enough_mm});
        }
    }

    void checkScales(const std::vector<const Reading*>& candidates) {
        m_set.standing = candidates;
        for (const Reading* reading : candidates) {
            const Result<RockwellScale> scale = m_tables.scale(reading->scale);
            if (scale && inRange(*scale, reading->value)) continue;
            leaveOut(reading);
            say(Fact::outsideScale, Tone::caution, "M1", {reading->value}, {reading->scale});
        }
        if (m_set.standing.empty()) return;
        const auto differs = [&](auto member) {
            return std::any_of(m_set.standing.begin(), m_set.standing.end(),
                               [&](const Reading* r) { return r->*member != m_set.standing.front()->*member; });
        };
        if (differs(&Reading::scale)) {
            say(Fact::mixedScales, Tone::caution, "M8");
        }
    }

    void checkSpacing() {
        std::optional<double> nearest;
        double needed = 0;
        bool allPlaced = true;
        for (const Reading* reading : std::vector<const Reading*>(m_set.standing)) {
            const auto own =
                std::find_if(m_indents.begin(), m_indents.end(), [&](const Indent& i) { return i.reading == reading; });
            if (own == m_indents.end()) {
                allPlaced = false;
                continue;
            }
            // The later of two marks is the bad one: it lies in metal the earlier has worked.
            std::optional<double> closest;
            double closestNeeds = 0;
            for (auto other = m_indents.begin(); other != own; ++other) {
                if (other->reading->surface != reading->surface) continue; // ground off before this one was made
                const double d = distance(*other->reading->spot, *reading->spot);
                const double marks = minSpacing(std::max(own->diameter, other->diameter));
                // Far from it whatever the tester, and not the nearest: nothing to look up.
                if (d > std::max({marks, betweenStrikes_mm, m_batch.shop_spacing.min_spacing_mm}) && closest &&
                    d >= *closest)
                    continue;
                const bool strikes = isRebound(reading) && isRebound(other->reading);
                const double limit = std::max(strikes ? betweenStrikes_mm : marks, m_batch.shop_spacing.min_spacing_mm);
                if (!closest || d < *closest) {
                    closest = d;
                    closestNeeds = limit;
                }
                if (atLeast(d, limit)) continue;
                if (leaveOut(reading))
                    say(Fact::spacingBroken, Tone::caution, "M3", {d, limit, reading->value},
                        {strikes ? "strike" : "indent"});
                break;
            }
            if (std::find(m_set.standing.begin(), m_set.standing.end(), reading) == m_set.standing.end()) continue;
            if (closest && (!nearest || *closest < *nearest)) { // of those that count
                nearest = closest;
                needed = closestNeeds;
            }
            if (m_blade.shape.outline.size() < 3) continue;
            const double edge = edgeDistance(m_blade.shape, *reading->spot);
            const double limit = std::max(minEdgeDistance(own->diameter), m_batch.shop_spacing.min_edge_mm);
            if (!atLeast(edge, limit) && leaveOut(reading)) {
                say(Fact::spacingBroken, Tone::caution, "M3", {edge, limit, reading->value}, {"edge"});
            }
        }
        if (m_set.standing.empty()) return;
        if (!allPlaced)
            say(Fact::spacingNotLookedAt, Tone::unseen, "M3");
        else if (nearest)
            say(Fact::spacingGood, Tone::good, "M3", {*nearest, needed});
    }

    void checkThickness() {
        if (m_set.standing.empty() || !(m_blade.shape.thickness_mm > 0)) return;
        std::vector<double> values;
        for (const Reading* r : m_set.standing) values.push_back(r->value);
        const std::string scale = m_set.standing.front()->scale;
        const double mean = meanOf(values);
        const Result<ThicknessAnswer> answer = minThickness(m_tables, scale, mean);
        if (!answer) return;
        const double thickness = m_blade.shape.thickness_mm;
        if (thickEnough(*answer, thickness)) {
            say(Fact::thicknessGood, Tone::good, "M4", {thickness, answer->min_thickness_mm});
            if (!atLeast(thickness, answer->ten_depths_mm))
                say(Fact::belowTenDepths, Tone::note, "M4", {thickness, answer->ten_depths_mm});
            return;
        }
        say(Fact::tooThin, Tone::caution, "M4", {thickness, answer->min_thickness_mm},
            lighterScales(m_tables, scale, mean, thickness));
        for (const Reading* reading : std::vector<const Reading*>(m_set.standing)) leaveOut(reading);
    }

    // M5. What each reading on a convex surface is corrected by; one that cannot be corrected is left out.
    void correctConvex() {
        double most = 0;
        double radius = 0;
        for (const Reading* reading : std::vector<const Reading*>(m_set.standing)) {
            if (!reading->convex_radius_mm) continue;
            const Result<double> correction =
                convexCorrection(m_tables, reading->scale, reading->value, *reading->convex_radius_mm);
            if (!correction) {
                if (leaveOut(reading))
                    say(Fact::convexRefused, Tone::caution, "M5", {reading->value, *reading->convex_radius_mm},
                        {correction.error().text});
                continue;
            }
            if (*correction > 0) m_set.convex_u = convexUncertainty;
            m_convex[reading] = *correction;
            most = std::max(most, *correction);
            radius = *reading->convex_radius_mm;
        }
        if (most > 0) say(Fact::convexCorrected, Tone::note, "M5", {most, radius});
    }

    // Once enough was read by the verified tester, what was read before its run, or before another good one since, is
    // not mixed with it.
    void keepVerified() {
        if (m_set.standing.empty()) return;
        std::vector<const Reading*> kept;
        std::vector<const Reading*> before;
        bool anyVerified = false;
        for (const Reading* reading : m_set.standing) {
            const StandingRun run = m_book.standingFor(*reading);
            const bool verified = run.standing == RunStanding::good;
            anyVerified = anyVerified || verified;
            m_set.verified_readings += verified ? 1 : 0;
            (verified || (anyVerified && !run.good_since) ? kept : before).push_back(reading);
        }
        const int planned = std::max(1, m_batch.planOf(m_set.standing.front()->gate).planned_readings);
        if (m_set.verified_readings < planned || before.empty()) return;
        say(Fact::readBeforeVerified, Tone::note, "M6", {double(before.size())}, {testerName()});
        m_set.left_out.insert(m_set.left_out.end(), before.begin(), before.end());
        m_set.standing = std::move(kept);
    }

    std::string testerName() const {
        const Tester* tester = m_batch.tester(m_set.standing.front()->tester);
        return tester != nullptr ? tester->name : std::string();
    }

    void convert(double alloy_percent) {
        if (m_set.standing.empty()) return;
        double slope = 1;
        for (const Reading* reading : m_set.standing) {
            const double value = reading->value + (reading->convex_radius_mm ? m_convex[reading] : 0.0);
            if (reading->scale == "HRC") {
                m_set.hrc.push_back(value);
                continue;
            }
            const Result<Converted> hrc = convertHardness(m_tables, reading->scale, value, "HRC");
            const Result<double> points =
                hrc ? pointsPerHrc(m_tables, reading->scale, hrc->value) : Result<double>(hrc.error());
            if (!points) {
                // Outside the conversion table nothing is guessed: the whole set is left without a mean.
                say(Fact::outsideScale, Tone::caution, "M8", {reading->value}, {reading->scale});
                m_set.left_out.insert(m_set.left_out.end(), m_set.standing.begin(), m_set.standing.end());
                m_set.standing.clear();
                m_set.hrc.clear();
                return;
            }
            m_set.hrc.push_back(hrc->value);
            m_set.conversion_u = conversionUncertainty(alloy_percent);
            slope = *points;
        }
        m_set.convex_u /= slope;
        if (m_set.conversion_u > 0) say(Fact::converted, Tone::note, "M8", {}, {m_set.standing.front()->scale});

        if (const Tester* tester = m_batch.tester(m_set.standing.front()->tester)) {
            const auto& at = m_set.standing.back()->time;
            m_set.tester = modelOf(*tester, at ? std::optional(at->localDay()) : std::nullopt);
            if (m_set.conversion_u > 0) { // its own scatter is known in HRC
                const TesterModel usual = m_set.tester.rebound ? TesterModel::reboundTester() : TesterModel::bench();
                m_set.tester.pooled_sd = usual.pooled_sd;
                m_set.tester.pooled_dof = usual.pooled_dof;
            }
        }
        m_set.tester.resolution = 0;
        for (const Reading* r : m_set.standing)
            m_set.tester.resolution = std::max(m_set.tester.resolution, r->resolution);
        m_slope = slope;
    }

    void checkVerification() {
        if (m_set.standing.empty()) return;
        using Standing = VerificationBook::Standing;
        VerificationBook::Found found;
        const Reading* foundFor = m_set.standing.front();
        Standing worst = Standing::good;
        bool goodSince = true;
        bool cleared = false;
        bool allSince = true;
        int failedLast = 0;
        for (const Reading* reading : m_set.standing) {
            const VerificationBook::Found one = m_book.standingFor(*reading);
            if (one.run != nullptr) {
                found = one;
                foundFor = reading;
            }
            goodSince = goodSince && (one.standing == Standing::good || one.good_since);
            cleared = cleared || one.cleared;
            allSince = allSince && one.good_since;
            failedLast = std::max(failedLast, one.failed_last);
            if (one.standing != Standing::good && (worst == Standing::good || one.standing > worst))
                worst = one.standing;
        }
        const std::string name = testerName();
        m_set.verified = worst == Standing::good;
        m_set.verified_since = allSince;
        constexpr int stopped = 2; // M6: the run is repeated once
        if (!m_set.verified && goodSince)
            say(Fact::readBeforeVerified, Tone::caution, "M6",
                {double(m_set.standing.size()) - double(m_set.verified_readings)}, {name});
        else if (!m_set.verified && failedLast >= stopped)
            say(Fact::testerStopped, Tone::caution, "M6", {double(failedLast)}, {name});
        if (m_set.verified && cleared) say(Fact::heldCleared, Tone::note, "E57", {}, {name});
        const std::optional<ErrorHistory> history =
            errorHistory(m_book.earlierErrors(*foundFor, found), m_set.tester.pooled_sd);
        if (found.run != nullptr && (worst == Standing::good || worst == Standing::otherBand)) {
            m_set.bias = errorOf(found, history);
            m_set.verification = found.run->id;
            if (m_set.conversion_u == 0 && found.across == nullptr) m_set.block_hrc = found.run->certified;
        } else {
            m_set.usual = history;
        }
        if (m_set.bias && found.days_before > 0) {
            m_set.aged_u = driftSince(found, history) / m_slope;
            say(Fact::verificationAged, Tone::note, "E35", {double(found.days_before), m_set.aged_u * m_slope}, {name});
        }
        m_set.tester = m_set.tester.perPoint(m_slope);
        const double mean = meanOf(m_set.hrc);
        switch (worst) {
        case Standing::good:
            say(Fact::testerVerified, Tone::good, "M6",
                {found.answer.error, found.answer.repeatability, found.run->certified, m_set.bias->error * m_slope},
                {name});
            if (m_set.block_hrc && found.awayFrom(mean) > nearBlock) {
                // Asked once: a shop that has verified since has no nearer block.
                const bool asks = found.awayFrom(mean) > farBlock && !allSince;
                say(Fact::blockFarOff, asks ? Tone::caution : Tone::note, "E2", {found.run->certified, mean});
            }
            sayCertificate(*found.run);
            break;
        case Standing::none:
            say(Fact::testerNotVerified, Tone::caution, "M6", {}, {name});
            break;
        case Standing::otherBand:
            say(Fact::verificationOtherBand, Tone::caution, "M6", {found.run->certified, mean}, {name});
            break;
        case Standing::failed:
            say(Fact::testerFailed, Tone::caution, "M6", {}, {name});
            break;
        case Standing::held:
            say(Fact::readingsHeld, Tone::caution, "E57", {}, {name});
            break;
        case Standing::suspect:
            say(Fact::readingsSuspect, Tone::caution, "M6", {}, {name});
            break;
        }
    }

    // E63. A certificate says how well its block is known for a time; a year before its end it is said.
    void sayCertificate(const Verification& run) {
        if (!run.valid_until) return;
        constexpr int year = 365;
        const auto left = *run.valid_until - run.time->localDay();
        if (left < 0)
            say(Fact::blockRunOut, Tone::caution, "E63", {static_cast<double>(-left)}, {run.block});
        else if (left < year)
            say(Fact::blockEndsSoon, Tone::note, "E63", {static_cast<double>(left)}, {run.block});
    }

    // E35. What the error may have moved since its run: as it moves from run to run by its own history, else by what
    // E18 allows in a month.
    static double driftSince(const StandingRun& found, const std::optional<ErrorHistory>& history) {
        if (history) return std::sqrt(2.0) * history->between_sd;
        constexpr double month = 30;
        return found.answer.max_error / std::sqrt(3.0) * std::sqrt(std::min(1.0, found.days_before / month));
    }

    // The day's error, drawn towards the tester's usual one, or between the blocks on either side; in points of HRC.
    BlockBias errorOf(const StandingRun& found, const std::optional<ErrorHistory>& history) {
        const double sd = m_set.tester.pooled_sd;
        m_set.tester.block_uncertainty = found.run->block_uncertainty;
        BlockBias bias{found.answer.error, static_cast<int>(found.run->readings.size())};
        if (found.across != nullptr) {
            const BlockBias other{found.across_error, static_cast<int>(found.across->readings.size())};
            std::vector<double> values;
            for (const Reading* reading : m_set.standing) values.push_back(reading->value);
            const double at = meanOf(values);
            const double share = (at - found.run->certified) / (found.across->certified - found.run->certified);
            bias = interpolated(found.run->certified, bias, found.across->certified, other, at, sd);
            const double near = (1 - share) * found.run->block_uncertainty;
            const double far = share * found.across->block_uncertainty;
            // E63. Blocks of one laboratory carry its error both.
            const std::string& laboratory = found.run->certified_by;
            const bool together = !laboratory.empty() && laboratory == found.across->certified_by;
            m_set.tester.block_uncertainty = together ? std::abs(near + far) : std::hypot(near, far);
        } else if (history) {
            bias = drawnTowards(*history, bias, sd);
        }
        bias.error /= m_slope;
        if (bias.u) *bias.u /= m_slope;
        return bias;
    }

    const Batch& m_batch;
    const Blade& m_blade;
    const VerificationBook& m_book;
    const Tables& m_tables;
    std::vector<Indent> m_indents;
    std::map<const Reading*, double> m_convex; ///< points to add; flat ones are not in it or zero
    double m_slope = 1;
    ReadingSet m_set;
};

} // namespace

std::optional<PooledScatter> Tester::learnedBefore(std::int64_t day) const {
    if (learned_by_day == nullptr) return learned;
    const auto after = std::lower_bound(learned_by_day->begin(), learned_by_day->end(), day,
                                        [](const ScatterDay& one, std::int64_t limit) { return one.day < limit; });
    return after == learned_by_day->begin() ? std::nullopt : std::prev(after)->known;
}

TesterModel modelOf(const Tester& tester, std::optional<std::int64_t> day) {
    TesterModel model = tester.kind == TesterKind::rebound ? TesterModel::reboundTester() : TesterModel::bench();
    if (const auto learned = day ? tester.learnedBefore(*day) : tester.learned) {
        model.pooled_sd = learned->sd;
        model.pooled_dof = learned->dof;
    }
    model.resolution = tester.resolution;
    return model;
}

std::vector<double> filesAtHand(const std::vector<Tester>& testers) {
    std::vector<double> files;
    for (const Tester& tester : testers) {
        if (tester.kind == TesterKind::files) files.insert(files.end(), tester.files.begin(), tester.files.end());
    }
    std::sort(files.begin(), files.end());
    files.erase(std::unique(files.begin(), files.end()), files.end());
    return files;
}

std::optional<double> inHrc(const Tables& tables, const Reading& reading) {
    if (reading.scale == "HRC") return reading.value;
    const Result<Converted> hrc = convertHardness(tables, reading.scale, reading.value, "HRC");
    return hrc ? std::optional<double>(hrc->value) : std::nullopt;
}

namespace {

// A tester's own set on a blade, with what its mean is worth.
struct TesterSet {
    ReadingSet set;
    std::string name;
    double mean = 0;
    double u = 0; ///< standard uncertainty
};

TesterSet testerSet(const Batch& batch, ReadingSet set) {
    TesterSet one{std::move(set), {}, 0, std::numeric_limits<double>::infinity()};
    if (one.set.hrc.empty()) return one;
    const Tester* tester = batch.tester(one.set.standing.front()->tester);
    one.name = tester != nullptr ? tester->name : std::string();
    one.mean = meanOf(one.set.hrc) - (one.set.bias ? one.set.bias->error : 0.0);
    const auto budget =
        uncertaintyBudget(one.set.tester, static_cast<int>(one.set.hrc.size()), sampleSd(one.set.hrc), one.set.bias);
    if (budget)
        one.u = std::hypot(budget->standard_uncertainty, std::hypot(one.set.conversion_u, one.set.convex_u),
                           one.set.aged_u);
    return one;
}

// E7. Testers are never averaged: the better known set is judged, the others stand beside it, and where they are
// further apart than they explain a person says which set stands.
ReadingSet besideEachOther(const Batch& batch, const Tables& tables, std::vector<ReadingSet> sets) {
    std::vector<TesterSet> all;
    for (ReadingSet& set : sets) all.push_back(testerSet(batch, std::move(set)));
    std::stable_sort(all.begin(), all.end(), [](const TesterSet& a, const TesterSet& b) {
        if (a.set.verified != b.set.verified) return a.set.verified;
        return a.u < b.u;
    });
    ReadingSet judged = all.front().set;
    std::vector<double> means;
    std::vector<double> us;
    std::vector<std::string> unverified;
    Reason reason{Fact::testersAgree, Tone::note, "E7", {}, {}};
    for (const TesterSet& one : all) {
        if (!std::isfinite(one.u)) continue;
        // A set of which no run tells the error may be off by what E18 allows.
        const auto allowed = toleranceFor(tables, "HRC", one.mean);
        const double unknown = one.set.bias || !allowed ? 0.0 : allowed->max_error / std::sqrt(3.0);
        means.push_back(one.mean);
        us.push_back(std::hypot(one.u, unknown));
        reason.numbers.push_back(one.mean);
        reason.numbers.push_back(2 * us.back());
        reason.texts.push_back(one.name);
        unverified.push_back(one.set.verified ? "" : setNotVerified);
    }
    reason.texts.insert(reason.texts.end(), unverified.begin(), unverified.end());
    for (std::size_t i = 1; i < all.size(); ++i) {
        judged.beside.insert(judged.beside.end(), all[i].set.standing.begin(), all[i].set.standing.end());
        judged.left_out.insert(judged.left_out.end(), all[i].set.left_out.begin(), all[i].set.left_out.end());
    }
    const Result<Consensus> consensus = consensusOf(means, us);
    if (!consensus) return judged;
    reason.numbers.push_back(consensus->mean);
    reason.numbers.push_back(2 * consensus->u);
    reason.numbers.insert(reason.numbers.end(), consensus->apart.begin(), consensus->apart.end());
    const bool apart = std::any_of(consensus->apart.begin(), consensus->apart.end(), [](double e) { return e > 1; });
    if (apart) {
        reason.fact = Fact::mixedTesters;
        reason.tone = Tone::caution;
    }
    judged.reasons.push_back(std::move(reason));
    return judged;
}

} // namespace

ReadingSet standingReadings(const Batch& batch, const Blade& blade, const std::vector<const Reading*>& candidates,
                            const VerificationBook& book, const Tables& tables, double alloy_percent) {
    const auto run = [&](const std::vector<const Reading*>& some) {
        return Checker(batch, blade, book, tables).run(some, alloy_percent);
    };
    std::vector<std::pair<std::string, std::vector<const Reading*>>> byTester;
    for (const Reading* reading : candidates) {
        auto own = std::find_if(byTester.begin(), byTester.end(),
                                [&](const auto& one) { return one.first == reading->tester; });
        if (own == byTester.end()) own = byTester.insert(own, {reading->tester, {}});
        own->second.push_back(reading);
    }
    if (byTester.empty()) return {};
    if (byTester.size() == 1) return run(candidates);
    std::vector<ReadingSet> sets;
    for (const auto& [tester, own] : byTester) sets.push_back(run(own));
    return besideEachOther(batch, tables, std::move(sets));
}

} // namespace rollcall

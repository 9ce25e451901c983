// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/standing.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <string_view>
#include <tuple>

// Which runs on blocks bear on a reading, and how they stand for it.
namespace rollcall {

namespace {

int daysOf(VerifyEvery every) {
    return every == VerifyEvery::day ? 0 : every == VerifyEvery::week ? 7 : 31;
}

} // namespace

std::vector<Verification> runsInReach(const Batch& batch, const std::vector<Verification>& all) {
    std::optional<std::int64_t> first_ms;
    std::int64_t last_ms = 0;
    std::set<std::string_view> testers;
    for (const Blade& blade : batch.blades) {
        for (const Reading& reading : blade.readings) {
            testers.insert(reading.tester);
            if (!reading.time) continue;
            last_ms = first_ms ? std::max(last_ms, reading.time->utc_ms) : reading.time->utc_ms;
            first_ms = std::min(first_ms.value_or(reading.time->utc_ms), reading.time->utc_ms);
        }
    }
    if (first_ms && batch.created) first_ms = std::min(*first_ms, batch.created->utc_ms);
    // A local day begins at most 36 hours before any moment of it, wherever its clock stood.
    const std::int64_t reach_ms = std::int64_t{36} * 3600000 + daysOf(batch.verify_every) * std::int64_t{86400000};
    std::int64_t newest_ms = 0;
    for (const Verification& run : all) {
        if (run.time) newest_ms = std::max(newest_ms, run.time->utc_ms);
    }
    std::vector<char> reaches(all.size(), 0);
    constexpr int lookBack = 16;
    std::map<std::string_view, int> before;
    for (std::size_t i = all.size(); i-- > 0 && first_ms;) { // the latest first
        const Verification& run = all[i];
        if (!run.time || run.time->utc_ms >= *first_ms - reach_ms) continue;
        if (testers.contains(run.tester) && ++before[run.tester] <= lookBack) reaches[i] = 1;
    }
    constexpr int tell = 2; // runs after a reading that make it suspect (M6)
    std::map<std::tuple<std::string_view, std::string_view, std::string_view, std::string_view>, int> after;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Verification& run = all[i];
        if (!run.time) continue;
        const std::int64_t at_ms = run.time->utc_ms;
        if (at_ms >= newest_ms - reach_ms) reaches[i] = 1;
        if (!first_ms || at_ms < *first_ms - reach_ms) continue;
        int& later = after[{run.tester, run.indenter, run.anvil, run.scale}];
        if (at_ms <= last_ms || later < tell) reaches[i] = 1;
        if (at_ms > last_ms && run.readings.size() >= 2) ++later; // of one reading nothing is known yet
    }
    std::vector<Verification> runs;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (reaches[i] != 0) runs.push_back(all[i]);
    }
    return runs;
}

VerificationBook::VerificationBook(const Batch& batch, const Tables& tables)
    : m_tables(tables), m_days(daysOf(batch.verify_every)) {
    for (const Verification& run : batch.verifications) {
        if (!run.time) continue;
        Result<VerificationAnswer> answer = verifyTester(tables, run.scale, run.certified, run.readings);
        if (!answer) continue;
        const auto same = std::find_if(m_settings.begin(), m_settings.end(), [&](const Setting& setting) {
            const Verification& other = *setting.front().run;
            return other.tester == run.tester && other.scale == run.scale && other.indenter == run.indenter &&
                   other.anvil == run.anvil;
        });
        Setting& setting = same != m_settings.end() ? *same : m_settings.emplace_back();
        setting.push_back({&run, std::move(answer).value()});
    }
    for (Setting& setting : m_settings) {
        std::stable_sort(setting.begin(), setting.end(),
                         [](const Run& a, const Run& b) { return a.run->time->utc_ms < b.run->time->utc_ms; });
    }
}

const VerificationBook::Setting* VerificationBook::settingOf(const Reading& reading) const {
    if (!reading.time) return nullptr;
    const auto setting = std::find_if(m_settings.begin(), m_settings.end(), [&](const Setting& runs) {
        const Verification& run = *runs.front().run;
        return run.tester == reading.tester && run.scale == reading.scale && run.indenter == reading.indenter &&
               run.anvil == reading.anvil;
    });
    return setting == m_settings.end() ? nullptr : &*setting;
}

VerificationBook::Setting::const_iterator VerificationBook::after(const Setting& setting, const Reading& reading) {
    return std::upper_bound(setting.begin(), setting.end(), reading.time->utc_ms,
                            [](std::int64_t ms, const Run& run) { return ms < run.run->time->utc_ms; });
}

std::vector<BlockBias> VerificationBook::earlierErrors(const Reading& reading, const Found& found) const {
    std::vector<BlockBias> errors;
    const Setting* setting = settingOf(reading);
    if (setting == nullptr) return errors;
    const auto end = after(*setting, reading);
    errors.reserve(static_cast<std::size_t>(end - setting->begin()));
    for (auto run = setting->begin(); run != end; ++run) {
        const bool before = found.run == nullptr || (run->run->time->localDay() < found.run->time->localDay() &&
                                                     std::abs(run->run->certified - found.run->certified) <= nearBlock);
        if (run->answer.ok && before)
            errors.push_back({run->answer.error, static_cast<int>(run->run->readings.size())});
    }
    return errors;
}

VerificationBook::Found VerificationBook::standingFor(const Reading& reading) const {
    Found found;
    const Setting* setting = settingOf(reading);
    if (setting == nullptr) return found;
    const auto after = VerificationBook::after(*setting, reading);

    // Backwards through the last day that counts; of each block only its last run counts.
    std::vector<const Run*> today;
    for (auto run = after; run != setting->begin();) {
        --run;
        const auto day = run->run->time->localDay();
        if (reading.time->localDay() - day > m_days || (!today.empty() && day != today.front()->run->time->localDay()))
            break;
        const bool later = std::any_of(today.begin(), today.end(),
                                       [&](const Run* other) { return other->run->block == run->run->block; });
        if (!later) today.push_back(&*run);
    }
    const Result<ToleranceBand> band = toleranceFor(m_tables, reading.scale, reading.value);
    const Run* best = today.empty() ? nullptr : today.front();
    bool covered = false;
    // A failed last run counts against all blocks; of the good ones that hold here the nearest to the reading speaks.
    for (const Run* run : today) {
        if (!today.front()->answer.ok || !band || !verificationCovers(run->answer, *band)) continue;
        const auto away = [&](const Run* r) { return std::abs(r->run->certified - reading.value); };
        if (!covered || away(run) < away(best)) best = run;
        covered = true;
    }
    if (best != nullptr) {
        found.run = best->run;
        found.days_before = static_cast<int>(reading.time->localDay() - best->run->time->localDay());
        found.answer = best->answer;
        for (const Run* run : today) { // E2
            if (covered && run->answer.ok &&
                (run->run->certified - reading.value) * (best->run->certified - reading.value) < 0 &&
                (found.across == nullptr ||
                 std::abs(run->run->certified - reading.value) < std::abs(found.across->certified - reading.value))) {
                found.across = run->run;
                found.across_error = run->answer.error;
            }
        }
    }

    // Of one reading on a block nothing is known yet.
    std::vector<const Run*> since;
    for (auto run = after; run != setting->end(); ++run) {
        if (run->run->readings.size() >= 2) since.push_back(&*run);
    }
    std::size_t failedAfter = 0;
    while (failedAfter < since.size() && !since[failedAfter]->answer.ok) ++failedAfter;
    found.cleared = failedAfter == 1 && since.size() > 1;
    found.good_since =
        !since.empty() && since.back()->answer.ok && band && verificationCovers(since.back()->answer, *band);
    for (auto run = setting->rbegin(); run != setting->rend() && !run->answer.ok; ++run) ++found.failed_last;
    if (failedAfter >= 2)
        found.standing = Standing::suspect;
    else if (failedAfter == 1 && since.size() == 1)
        found.standing = Standing::held;
    else if (best == nullptr)
        found.standing = Standing::none;
    else if (!best->answer.ok)
        found.standing = Standing::failed;
    else
        found.standing = covered ? Standing::good : Standing::otherBand;
    return found;
}

} // namespace rollcall

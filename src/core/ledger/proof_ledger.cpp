// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/proof_ledger.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace rollcall {

namespace {

struct Tried {
    const LedgerBatch* batch;
    const LedgerBlade* blade;
};

struct Key {
    std::string name;
    double low = 0;
    double high = 0;
    bool operator<(const Key& other) const { return std::tie(low, name) < std::tie(other.low, other.name); }
};

std::optional<double> hardnessOf(const LedgerBlade& blade) {
    if (blade.piece && blade.piece->facts.hrc) return blade.piece->facts.hrc;
    return blade.tempered ? std::optional(blade.tempered->mean) : std::nullopt;
}

std::optional<Key> keyOf(const LedgerBlade& blade, ProofBy by) {
    const auto band = [](double value, double wide) {
        const double low = std::floor(value / wide) * wide;
        return Key{{}, low, low + wide};
    };
    if (by == ProofBy::grade) return blade.grade.empty() ? std::nullopt : std::optional(Key{blade.grade});
    if (by == ProofBy::purpose) return blade.purpose.empty() ? std::nullopt : std::optional(Key{blade.purpose});
    if (by == ProofBy::hardness) {
        const auto hrc = hardnessOf(blade);
        return hrc ? std::optional(band(*hrc, 2)) : std::nullopt;
    }
    const auto angle = blade.piece ? blade.piece->facts.angle_deg : std::nullopt;
    return angle ? std::optional(band(*angle, 5)) : std::nullopt;
}

// The properties that any of the blades was tried at, in a steady order.
std::vector<ProofProperty> propertiesOf(const std::vector<Tried>& all) {
    using Kind = ProofProperty::Kind;
    std::map<std::tuple<Kind, std::string, std::string>, std::string> found; // to the unit
    for (const Tried& tried : all) {
        if (tried.blade->grain) found[{Kind::grain, "", ""}];
        if (!tried.blade->piece) continue;
        const StudyPiece& piece = *tried.blade->piece;
        if (piece.held || piece.failed_as) found[{Kind::rod, "", ""}];
        for (const auto& trial : piece.trials) {
            if (trial.runs > 0) found[{Kind::trial, trial.protocol, ""}];
        }
        for (const auto& count : piece.counts) {
            if (count.runs > 0) found[{Kind::count, count.protocol, count.step}] = count.unit;
        }
    }
    std::vector<ProofProperty> properties;
    for (const auto& [key, unit] : found) {
        ProofProperty one;
        std::tie(one.kind, one.protocol, one.step) = key;
        one.unit = unit;
        properties.push_back(std::move(one));
    }
    return properties;
}

ProofProperty::Cell cellOf(const ProofProperty& property, const std::vector<Tried>& group) {
    ProofProperty::Cell cell;
    int passed = 0;
    double count = 0;
    std::vector<double> grains;
    for (const Tried& tried : group) {
        const LedgerBlade& blade = *tried.blade;
        if (property.kind == ProofProperty::Kind::grain && blade.grain) grains.push_back(*blade.grain);
        if (!blade.piece) continue;
        const StudyPiece& piece = *blade.piece;
        if (property.kind == ProofProperty::Kind::rod && (piece.held || piece.failed_as)) {
            ++cell.tried;
            passed += piece.failed_as ? 0 : 1;
        }
        for (const auto& trial : piece.trials) {
            if (property.kind != ProofProperty::Kind::trial || trial.protocol != property.protocol) continue;
            cell.tried += trial.runs;
            passed += trial.passed;
        }
        for (const auto& counted : piece.counts) {
            if (property.kind != ProofProperty::Kind::count || counted.protocol != property.protocol ||
                counted.step != property.step)
                continue;
            cell.tried += counted.runs;
            count += counted.count;
        }
    }
    switch (property.kind) {
    case ProofProperty::Kind::rod:
    case ProofProperty::Kind::trial:
        if (cell.tried > 0) cell.value = static_cast<double>(passed) / cell.tried;
        cell.known = knownShare(passed, cell.tried);
        break;
    case ProofProperty::Kind::count:
        if (cell.tried > 0) cell.value = count / cell.tried;
        cell.known = knownCount(count, cell.tried);
        break;
    case ProofProperty::Kind::grain: {
        cell.tried = static_cast<int>(grains.size());
        if (grains.empty()) break;
        cell.value = meanOf(grains);
        if (const auto sd = sampleSd(grains)) {
            const double n = cell.tried;
            const double half = tQuantile(0.975, n - 1) * *sd / std::sqrt(n);
            cell.known = Performed{cell.value - half, cell.value + half};
        }
        break;
    }
    }
    return cell;
}

} // namespace

ProofLedger proofLedger(const Ledger& ledger, const std::string& grade, ProofBy by) {
    std::map<Key, std::vector<Tried>> groups;
    std::vector<Tried> all;
    for (const LedgerBatch* batch : ledger.batches()) {
        for (const LedgerBlade& blade : batch->blades) {
            if ((!grade.empty() && blade.grade != grade) || (!blade.piece && !blade.grain)) continue;
            const auto key = keyOf(blade, by);
            if (!key) continue;
            groups[*key].push_back({batch, &blade});
            all.push_back({batch, &blade});
        }
    }
    std::vector<std::pair<Key, std::vector<Tried>>> sorted(groups.begin(), groups.end());
    if (by == ProofBy::grade || by == ProofBy::purpose)
        std::stable_sort(sorted.begin(), sorted.end(),
                         [](const auto& a, const auto& b) { return a.second.size() > b.second.size(); });
    ProofLedger answer;
    answer.properties = propertiesOf(all);
    for (const auto& [key, blades] : sorted) {
        ProofLedger::Group group{key.name, key.low, key.high, static_cast<int>(blades.size()), std::nullopt, {}};
        std::vector<double> hrc;
        for (const Tried& tried : blades) {
            if (const auto one = hardnessOf(*tried.blade)) hrc.push_back(*one);
            if (group.batches.empty() || group.batches.back() != tried.batch) group.batches.push_back(tried.batch);
        }
        if (!hrc.empty()) group.mean_hrc = meanOf(hrc);
        answer.groups.push_back(std::move(group));
        for (ProofProperty& property : answer.properties) property.cells.push_back(cellOf(property, blades));
    }
    // What most groups were tried at stands first.
    const auto groupsTried = [](const ProofProperty& property) {
        return std::count_if(property.cells.begin(), property.cells.end(),
                             [](const ProofProperty::Cell& cell) { return cell.tried > 0; });
    };
    std::stable_sort(answer.properties.begin(), answer.properties.end(),
                     [&](const ProofProperty& a, const ProofProperty& b) { return groupsTried(a) > groupsTried(b); });
    for (ProofProperty& property : answer.properties) {
        std::vector<std::optional<Performed>> known;
        for (const auto& cell : property.cells) known.push_back(cell.known);
        const auto places = placesOf(known, true); // held, passed, strokes to dullness, fineness: more is better
        for (std::size_t i = 0; i < places.size(); ++i) property.cells[i].place = places[i];
    }
    return answer;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/composition.h"

#include "core/base/csv.h"
#include "core/base/number.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <array>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <span>

namespace rollcall {

namespace {

constexpr double relativeLimit = 0.03; // of the limit: what the grade's own analysis may be off by
constexpr double apartFactor = 20;     // likelihoods nearer than this cannot be told apart

double phi(double x) {
    return std::exp(-x * x / 2) / std::sqrt(2 * 3.14159265358979323846);
}

double Phi(double x) {
    return 0.5 * std::erfc(-x / std::sqrt(2.0));
}

// Probability of a standard normal value between two, from <= to; of a tail taken from its own side, since one less a
// small number keeps nothing of it.
double normalBetween(double from, double to) {
    if (from > 0) return normalBetween(-to, -from);
    constexpr double beyondDouble = 8.3; // what lies further out is lost in one half or more
    const double below = from < -beyondDouble && to >= 0 ? 0 : Phi(from);
    return (to > beyondDouble ? 1 : Phi(to)) - below;
}

// E16. What may be in a steel whose standard does not name the element, by family.
struct Residual {
    std::string_view element;
    double percent;
};
constexpr std::array inStainless{Residual{"Mo", 0.30}, Residual{"V", 0.15},  Residual{"Ni", 0.60},
                                 Residual{"W", 0.10},  Residual{"Co", 0.10}, Residual{"Cu", 0.40}};
constexpr std::array inHighSpeed{Residual{"Co", 1.0}, Residual{"Ni", 0.75}, Residual{"Cu", 0.75}};
constexpr std::array inTool{Residual{"Ni", 0.75}, Residual{"Cu", 0.75}, Residual{"W", 0.30},
                            Residual{"Mo", 0.20}, Residual{"V", 0.15},  Residual{"Co", 0.10}};
constexpr std::array inCarbon{Residual{"Cr", 0.30}, Residual{"Ni", 0.30}, Residual{"Mo", 0.10}, Residual{"V", 0.05},
                              Residual{"Cu", 0.40}};
constexpr std::array inAny{Residual{"Cr", 0.30}, Residual{"Ni", 0.30}, Residual{"Cu", 0.40},
                           Residual{"Mo", 0.10}, Residual{"W", 0.10},  Residual{"Co", 0.10},
                           Residual{"V", 0.05},  Residual{"Nb", 0.03}, Residual{"N", 0.03}};
constexpr double residualOfOthers = 0.10;

// Chemical symbols, of one or two letters; most comparisons of a ranking are these.
bool sameSymbol(std::string_view a, std::string_view b) {
    return a.size() == b.size() && a.front() == b.front() && a.back() == b.back();
}

bool isToolSteel(const Grade& grade) {
    return grade.family.rfind("tool", 0) == 0;
}

std::span<const Residual> residualsOf(const Grade& grade) {
    if (grade.isStainless()) return inStainless;
    if (grade.isHighSpeed()) return inHighSpeed;
    return isToolSteel(grade) ? std::span<const Residual>(inTool) : std::span<const Residual>(inCarbon);
}

double residualLimit(const Grade& grade, std::span<const Residual> own, std::string_view element) {
    // L6 and the water-hardening W steels are made with a little vanadium to spare.
    if (element == "V" && (grade.name == "L6" || grade.name == "W1" || grade.name == "W2")) return 0.30;
    for (const std::span<const Residual> limits : {own, std::span<const Residual>(inAny)}) {
        for (const Residual& limit : limits) {
            if (sameSymbol(limit.element, element)) return limit.percent;
        }
    }
    return residualOfOthers;
}

// Up to how much an element says nothing of which grade it is: every steel has some manganese and silicon.
double usualIn(const Grade& grade, const std::string& element) {
    return element == "Mn" ? 0.9 : element == "Si" ? 0.6 : residualLimit(grade, residualsOf(grade), element);
}

constexpr double plainly = 1.0; // per cent of mass: no dirt or overlap makes so much

// E15. What an XRF gun sees badly on a shop's metal: light elements under dirt and grit, a little cobalt beside iron.
bool seenBadly(AnalysisMethod method, const ElementReading& reading) {
    if (method != AnalysisMethod::xrf) return false;
    const std::string& e = reading.element;
    return e == "Si" || e == "P" || e == "S" || e == "Al" || (e == "Co" && reading.percent.value_or(0) < 1);
}

struct Allowed {
    double low = 0;
    std::optional<double> high;
    bool residual = false;
};

// What a grade allows of each element; its family is looked at once.
class AllowedIn {
public:
    explicit AllowedIn(const Grade& grade) : m_grade(grade), m_residuals(residualsOf(grade)) {}

    Allowed of(std::string_view element) const {
        for (const ElementLimits& limits : m_grade.composition) {
            if (sameSymbol(limits.element, element)) return {limits.low.value_or(0.0), limits.high, false};
        }
        return {0.0, residualLimit(m_grade, m_residuals, element), true};
    }
    // E16. Nickel and copper of a tool or high speed steel may be 0.75 together where its standard names neither.
    bool countsNickelAndCopper() const {
        return (m_grade.isHighSpeed() || isToolSteel(m_grade)) && of("Ni").residual && of("Cu").residual;
    }

private:
    const Grade& m_grade;
    std::span<const Residual> m_residuals;
};

// E49. Silicon and cobalt part grades all the same where they are off by more than they are seen badly.
bool plainlyOutside(const ElementReading& reading, const Allowed& allowed) {
    const double x = reading.percent.value_or(reading.lod.value_or(0.0));
    return x < allowed.low - plainly || (reading.percent && allowed.high && x > *allowed.high + plainly);
}

double tableSigma(const Tables& tables, AnalysisMethod method, const ElementReading& reading) {
    const double at = reading.percent.value_or(reading.lod.value_or(0.0));
    const DetectionLimit* limit = tables.detection(method, reading.element, at);
    // An element of which the table knows nothing: a tenth of it, as a survey instrument gives.
    return limit != nullptr ? limit->sigma : std::max(0.01, 0.1 * at);
}

double sigmaOf(const Tables& tables, AnalysisMethod method, const ElementReading& reading) {
    if (reading.sigma && *reading.sigma > 0) return *reading.sigma;
    if (!reading.percent && reading.lod) return *reading.lod / 3.0;
    return tableSigma(tables, method, reading);
}

bool comparable(const Tables& tables, AnalysisMethod method, const ElementReading& reading) {
    return reading.element != "Fe" && tables.canSee(method, reading.element);
}

// How far a reading lies outside what is allowed, in standard uncertainties.
double distanceOutside(const ElementReading& reading, double sigma, const Allowed& allowed) {
    const auto outside = [&](double distance, double limit) {
        return distance / std::hypot(sigma, relativeLimit * limit);
    };
    const double x = reading.percent.value_or(reading.lod.value_or(0.0));
    if (x < allowed.low) return outside(allowed.low - x, allowed.low);
    if (reading.percent && allowed.high && x > *allowed.high) return outside(x - *allowed.high, *allowed.high);
    return 0;
}

// Counts the distances of all elements towards one answer.
class ClaimSum {
public:
    void add(double z, bool doubtful) {
        if (doubtful) z = std::min(z, 2.5); // asks for another shot, rejects nothing
        ++m_elements;
        m_sum += z * z;
        m_most = std::max(m_most, z);
    }
    Claim claim() const {
        if (m_most >= 3) return Claim::notConsistent;
        if (m_most >= 2) return Claim::undecidable;
        if (m_sum == 0) return Claim::consistent;
        const boost::math::chi_squared all(static_cast<double>(m_elements));
        return m_sum > boost::math::quantile(all, 0.95) ? Claim::undecidable : Claim::consistent;
    }

private:
    int m_elements = 0;
    double m_sum = 0;
    double m_most = 0;
};

// Likelihood of one element for a grade whose steels lie evenly between its limits.
double logLikelihood(const ElementReading& reading, double sigma, const Allowed& allowed) {
    const double a = allowed.low;
    // Without an upper limit the steels are taken to lie up to twice the lower one.
    const double b = std::max(allowed.high.value_or(2 * a), a + 1e-6);
    constexpr double never = 1e-300;
    if (reading.percent) {
        const double x = *reading.percent;
        const double s = std::hypot(sigma, relativeLimit * x);
        return std::log(std::max(never, normalBetween((x - b) / s, (x - a) / s) / (b - a)));
    }
    const double lod = reading.lod.value_or(0.0);
    const auto integral = [&](double t) {
        const double u = (lod - t) / sigma;
        return sigma * (u * Phi(u) + phi(u));
    };
    return std::log(std::max(never, (integral(a) - integral(b)) / (b - a)));
}

} // namespace

Result<CompositionShot> readShot(std::string_view text, const PrintedError& printed) {
    if (!(printed.sigmas >= 1 && printed.sigmas <= 3))
        return Error{ErrorKind::range, "", "an analyser prints 1, 2 or 3 sigma"};
    const Result<CsvText> csv = readCsv(text);
    if (!csv) return csv.error();
    const auto element = csv->column("element");
    const auto percent = csv->column("percent");
    const auto error = csv->column("error");
    if (!element || !percent) return Error{ErrorKind::input, "line 1", "the columns element and percent are needed"};
    CompositionShot shot;
    for (const CsvRow& row : csv->rows) {
        const auto field = [&](std::size_t i) {
            return i < row.fields.size() ? std::string(trimmed(row.fields[i])) : std::string();
        };
        const auto skip = [&](const char* why) { shot.skipped.push_back({row.line, why}); };
        ElementReading reading;
        reading.element = field(*element);
        const bool symbol = !reading.element.empty() && reading.element.size() <= 2 && reading.element[0] >= 'A' &&
                            reading.element[0] <= 'Z';
        if (!symbol) {
            skip("this is no chemical symbol");
            continue;
        }
        if (std::any_of(shot.elements.begin(), shot.elements.end(),
                        [&](const ElementReading& e) { return e.element == reading.element; })) {
            skip("this element is named twice");
            continue;
        }
        std::optional<double> stated;
        if (error) {
            const auto number = parseNumber(field(*error));
            if (number && *number > 0) stated = *number;
        }
        const std::string value = lowered(field(*percent));
        if (value.empty() || value == "nd" || value == "<lod" || value == "n.d." || value[0] == '<') {
            const auto limit = parseNumber(value.empty() || value[0] != '<' ? std::string() : value.substr(1));
            // "<LOD" alone: of a printed error the limit of detection is three sigma.
            if (printed.beside_lod == BesideLod::nothing) stated.reset();
            const double sigmas = printed.beside_lod == BesideLod::limit ? 3 : printed.sigmas;
            reading.lod = limit ? std::optional(*limit) : stated ? std::optional(*stated * 3 / sigmas) : std::nullopt;
            shot.elements.push_back(std::move(reading));
            continue;
        }
        const auto number = parseNumber(value.back() == '%' ? value.substr(0, value.size() - 1) : value);
        if (!number || *number < 0 || *number > 100) {
            skip("the percentage is not a number from 0 to 100");
            continue;
        }
        reading.percent = *number;
        if (stated) reading.sigma = *stated / printed.sigmas;
        shot.elements.push_back(std::move(reading));
    }
    if (shot.elements.empty()) return Error{ErrorKind::input, "", "no line holds an element and its percentage"};
    return shot;
}

Result<CompositionShot> typedShot(const std::string& text, double printed_sigmas) {
    std::string csv = "element;percent;error\n";
    std::vector<std::string> parts = split(text, ';');
    if (parts.size() == 1) parts = split(text, ',');
    for (const std::string& part : parts) {
        std::vector<std::string> words;
        for (const std::string& word : split(part, ' ')) {
            if (!word.empty()) words.push_back(word);
        }
        if (words.empty()) continue;
        if (words.size() < 2 || words.size() > 3)
            return Error{ErrorKind::argument, part, "an element is typed like Cr 13.6, or Cr 13.6 0.1 with its error"};
        const bool isNumber = parseNumber(words[1].substr(0, words[1].find('%'))).ok();
        if (!isNumber && words[1][0] != '<' && lowered(words[1]) != "nd")
            return Error{ErrorKind::argument, part, "the percentage is not a number from 0 to 100"};
        csv += words[0] + ";" + words[1] + ";" + (words.size() == 3 ? words[2] : std::string()) + "\n";
    }
    const Result<CompositionShot> shot = readShot(csv, printed_sigmas);
    if (!shot) return Error{ErrorKind::argument, "", "no element is typed: write them like Cr 13.6; Mo 0.05"};
    if (!shot->skipped.empty()) {
        const auto line = static_cast<std::size_t>(shot->skipped.front().line - 2);
        return Error{ErrorKind::argument, line < parts.size() ? parts[line] : std::string(),
                     shot->skipped.front().reason};
    }
    return shot;
}

Result<std::vector<ElementReading>> averageShots(const std::vector<CompositionShot>& shots, const Tables& tables,
                                                 AnalysisMethod method) {
    if (shots.empty()) return Error{ErrorKind::range, "", "there is no shot"};
    std::vector<std::string> order;
    std::map<std::string, std::vector<ElementReading>> seen;
    for (const CompositionShot& shot : shots) {
        for (const ElementReading& reading : shot.elements) {
            if (seen[reading.element].empty()) order.push_back(reading.element);
            seen[reading.element].push_back(reading);
        }
    }
    std::vector<ElementReading> means;
    for (const std::string& element : order) {
        std::vector<ElementReading> list = seen[element];
        for (ElementReading& reading : list) {
            if (reading.percent || reading.lod) continue;
            const DetectionLimit* limit = tables.detection(method, element, 0);
            reading.lod = limit != nullptr && limit->lod ? *limit->lod : 0.1;
        }
        const bool found =
            std::any_of(list.begin(), list.end(), [](const ElementReading& r) { return r.percent.has_value(); });
        ElementReading mean;
        mean.element = element;
        if (!found) {
            mean.lod = 0;
            for (const ElementReading& reading : list) mean.lod = std::max(*mean.lod, *reading.lod);
            means.push_back(mean);
            continue;
        }
        std::vector<double> values;
        double variance = 0;
        for (const ElementReading& reading : list) {
            values.push_back(reading.percent.value_or(reading.lod.value_or(0.0) / 2));
            const double sigma = sigmaOf(tables, method, reading);
            variance += sigma * sigma;
        }
        const double n = static_cast<double>(values.size());
        mean.percent = meanOf(values);
        const double scatter = sampleSd(values).value_or(0.0) / std::sqrt(n);
        mean.sigma = std::max(std::sqrt(variance) / n, scatter);
        means.push_back(mean);
    }
    return means;
}

std::vector<ShotsApart> shotsApart(const std::vector<CompositionShot>& shots, const Tables& tables,
                                   AnalysisMethod method) {
    std::map<std::string, std::vector<ElementReading>> seen;
    for (const CompositionShot& shot : shots) {
        for (const ElementReading& reading : shot.elements) seen[reading.element].push_back(reading);
    }
    std::vector<ShotsApart> apart;
    for (const auto& [element, list] : seen) {
        const bool badly =
            std::any_of(list.begin(), list.end(), [&](const ElementReading& r) { return seenBadly(method, r); });
        if (list.size() < 2 || element == "Fe" || badly || !tables.canSee(method, element)) continue;
        double weights = 0;
        double sum = 0;
        std::vector<std::pair<double, double>> values; // and their precision
        for (const ElementReading& reading : list) {
            const double x = reading.percent.value_or(reading.lod.value_or(0.0) / 2);
            const double u = std::hypot(sigmaOf(tables, method, reading), relativeLimit * x);
            values.emplace_back(x, 1 / (u * u));
            weights += values.back().second;
            sum += x * values.back().second;
        }
        double chi = 0;
        ShotsApart one{element, values.front().first, values.front().first};
        for (const auto& [x, precision] : values) {
            chi += precision * (x - sum / weights) * (x - sum / weights);
            one.lowest = std::min(one.lowest, x);
            one.highest = std::max(one.highest, x);
        }
        constexpr double rarely = 0.999;
        const boost::math::chi_squared usual(static_cast<double>(values.size() - 1));
        if (chi > boost::math::quantile(usual, rarely)) apart.push_back(std::move(one));
    }
    std::stable_sort(apart.begin(), apart.end(), [](const ShotsApart& a, const ShotsApart& b) {
        return a.highest - a.lowest > b.highest - b.lowest;
    });
    return apart;
}

std::optional<std::size_t> oddShot(const std::vector<CompositionShot>& shots, const Tables& tables,
                                   AnalysisMethod method) {
    std::optional<std::size_t> odd;
    for (std::size_t i = 0; shots.size() >= 3 && i < shots.size(); ++i) {
        std::vector<CompositionShot> others = shots;
        others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
        if (!shotsApart(others, tables, method).empty()) continue;
        if (odd) return std::nullopt; // either of two might be it
        odd = i;
    }
    return odd;
}

std::vector<std::string> foreignElements(const std::vector<ElementReading>& shot) {
    constexpr double trace = 0.2; // per cent
    std::vector<std::string> foreign;
    for (const ElementReading& reading : shot) {
        for (const char* element : {"Zn", "Sn", "Pb", "Cd", "Au", "Ag"}) {
            if (reading.element == element && reading.percent.value_or(0) > trace) foreign.push_back(element);
        }
    }
    return foreign;
}

std::vector<ShotWarning> shotWarnings(const std::vector<ElementReading>& shot) {
    std::vector<ShotWarning> warnings;
    const auto of = [&](const char* element) {
        for (const ElementReading& reading : shot) {
            if (reading.element == element) return reading.percent.value_or(0.0);
        }
        return 0.0;
    };
    if (of("Zn") > 0.3 || of("Ti") > 1.0 || of("Ni") > 20 || of("Sn") > 1) warnings.push_back(ShotWarning::coating);
    if (of("Ca") > 0.3 || of("Al") > 2.0 || of("Si") > 3.5) warnings.push_back(ShotWarning::scale);
    double sum = 0;
    for (const ElementReading& reading : shot) sum += reading.percent.value_or(0.0);
    if (of("Fe") > 0 && (sum < 90 || sum > 105)) warnings.push_back(ShotWarning::smallSpot);
    return warnings;
}

namespace {

// A reading that is compared, with its standard uncertainty.
struct Seen {
    ElementReading reading;
    double sigma;
    bool badly;

    bool doubtfulFor(const Allowed& allowed) const { return badly && !plainlyOutside(reading, allowed); }
};

// Each element from the first analysis that sees it.
std::vector<Seen> seenIn(const std::vector<Analysis>& known, const Tables& tables) {
    std::vector<Seen> seen;
    for (const Analysis& analysis : known) {
        for (const ElementReading& reading : analysis.elements) {
            const bool there = std::any_of(seen.begin(), seen.end(),
                                           [&](const Seen& one) { return one.reading.element == reading.element; });
            if (!there && comparable(tables, analysis.method, reading))
                seen.push_back(
                    {reading, sigmaOf(tables, analysis.method, reading), seenBadly(analysis.method, reading)});
        }
    }
    return seen;
}

// Nickel and copper as one, where both were found.
std::optional<Seen> nickelAndCopper(const std::vector<Seen>& seen) {
    Seen both{{"Ni + Cu", 0.0, std::nullopt, std::nullopt}, 0, false};
    int found = 0;
    for (const Seen& one : seen) {
        if ((one.reading.element != "Ni" && one.reading.element != "Cu") || !one.reading.percent) continue;
        *both.reading.percent += *one.reading.percent;
        both.sigma = std::hypot(both.sigma, one.sigma);
        ++found;
    }
    return found == 2 ? std::optional(both) : std::nullopt;
}
constexpr double nickelAndCopperMost = 0.75; // per cent

const Error nothingSeen{ErrorKind::range, "", "no element was measured that this method can see"};

// A coupon against what a grade can give: a normal tail above, a heavy one below.
double couponLikelihood(const Grade& grade, double hrc) {
    constexpr double u = 1.0; // HRC: a coupon's own scatter and the tester
    if (hrc > grade.as_quenched_max) return -0.5 * std::pow((hrc - grade.as_quenched_max) / u, 2);
    if (hrc < grade.as_quenched_min) return -std::log1p(std::pow((grade.as_quenched_min - hrc) / (2 * u), 2));
    return 0;
}

// Carbon in the middle of a grade's range, where it has one.
std::optional<double> middleCarbon(const Grade& grade) {
    for (const ElementLimits& limits : grade.composition) {
        if (limits.element == "C" && limits.low) return (*limits.low + limits.high.value_or(*limits.low + 0.2)) / 2;
    }
    return std::nullopt;
}

// A spark beside a bar whose carbon is this.
double sparkLikelihood(const Grade& grade, double bar_carbon, bool agrees) {
    const auto own = middleCarbon(grade);
    if (!own) return 0;
    constexpr double alike = 0.2;      // per cent of carbon
    constexpr double oftenRight = 0.8; // judgement, low confidence
    const bool looksAlike = std::abs(*own - bar_carbon) <= alike;
    return std::log(looksAlike == agrees ? oftenRight : 1 - oftenRight);
}

} // namespace

Result<CompositionMatch> matchGrade(const std::vector<Analysis>& known, const Grade& grade, const Tables& tables) {
    CompositionMatch match;
    ClaimSum sum;
    const std::vector<Seen> seen = seenIn(known, tables);
    const AllowedIn allowedIn(grade);
    for (const Seen& one : seen) {
        const Allowed allowed = allowedIn.of(one.reading.element);
        const double z = distanceOutside(one.reading, one.sigma, allowed);
        const bool doubtful = one.doubtfulFor(allowed);
        sum.add(z, doubtful);
        match.elements.push_back(
            {one.reading.element, one.reading, one.sigma, allowed.low, allowed.high, allowed.residual, z, doubtful});
    }
    if (match.elements.empty()) return nothingSeen;
    const auto both = nickelAndCopper(seen);
    if (both && allowedIn.countsNickelAndCopper()) {
        const Allowed allowed{0, nickelAndCopperMost, true};
        const double z = distanceOutside(both->reading, both->sigma, allowed);
        sum.add(z, false);
        match.elements.push_back({both->reading.element, both->reading, both->sigma, 0, allowed.high, true, z, false});
    }
    match.claim = sum.claim();
    // What XRF sees badly speaks last of those alike.
    std::stable_sort(match.elements.begin(), match.elements.end(), [](const ElementMatch& a, const ElementMatch& b) {
        return (a.doubtful ? std::min(a.z, 2.5) : a.z) > (b.doubtful ? std::min(b.z, 2.5) : b.z);
    });
    for (const ElementLimits& limits : grade.composition) {
        const bool measured = std::any_of(match.elements.begin(), match.elements.end(),
                                          [&](const ElementMatch& m) { return m.element == limits.element; });
        if (measured) continue;
        const bool visible = std::any_of(known.begin(), known.end(), [&](const Analysis& analysis) {
            return tables.canSee(analysis.method, limits.element);
        });
        (visible ? match.not_measured : match.unseen).push_back(limits.element);
        // Carbon is left to those who can measure it: an analyser is asked for the elements it sees.
        const bool makesIt = limits.low && *limits.low > usualIn(grade, limits.element);
        if (makesIt && limits.element != "C" && tables.canSee(known.front().method, limits.element))
            match.wanted.push_back(limits.element);
    }
    if (!match.wanted.empty() && match.claim == Claim::consistent) match.claim = Claim::undecidable;
    return match;
}

Result<CompositionMatch> matchGrade(const std::vector<ElementReading>& measured, const Grade& grade,
                                    const Tables& tables, AnalysisMethod method) {
    return matchGrade({{measured, method}}, grade, tables);
}

Result<std::vector<GradeCandidate>> rankGrades(const std::vector<Analysis>& known, const std::vector<double>& coupons,
                                               const std::vector<Grade>& grades, const Tables& tables,
                                               const std::optional<SparkSeen>& spark) {
    const std::vector<Seen> seen = seenIn(known, tables);
    if (seen.empty()) return nothingSeen;
    std::vector<const Grade*> all;
    for (const std::vector<Grade>* list : {&grades, &tables.otherSteels()}) {
        for (const Grade& grade : *list) all.push_back(&grade);
    }
    std::vector<GradeCandidate> candidates;
    candidates.reserve(all.size());
    std::vector<double> most(seen.size(), 0.1); // per cent that any grade of the library has
    const auto both = nickelAndCopper(seen);
    const Grade* bar = spark ? tables.grade(spark->grade) : nullptr;
    const auto bar_carbon = bar != nullptr ? middleCarbon(*bar) : std::nullopt;
    for (const Grade* one : all) {
        const Grade& grade = *one;
        const AllowedIn allowedIn(grade);
        GradeCandidate candidate{&grade, 0, 0, false, Claim::consistent};
        ClaimSum sum;
        for (std::size_t i = 0; i < seen.size(); ++i) {
            const Seen& found = seen[i];
            const Allowed allowed = allowedIn.of(found.reading.element);
            const bool doubtful = found.doubtfulFor(allowed);
            most[i] = std::max(most[i], allowed.high.value_or(2 * allowed.low));
            const bool counts = !found.badly || plainlyOutside(found.reading, allowed);
            if (counts) candidate.score += logLikelihood(found.reading, found.sigma, allowed);
            sum.add(distanceOutside(found.reading, found.sigma, allowed), doubtful);
        }
        if (both && allowedIn.countsNickelAndCopper())
            sum.add(distanceOutside(both->reading, both->sigma, {0, nickelAndCopperMost, true}), false);
        candidate.claim = sum.claim();
        for (const ElementLimits& limits : grade.composition) {
            const bool makesIt = limits.low && *limits.low > usualIn(grade, limits.element) && limits.element != "C" &&
                                 tables.canSee(known.front().method, limits.element);
            const bool measured = std::any_of(
                seen.begin(), seen.end(), [&](const Seen& found) { return found.reading.element == limits.element; });
            candidate.told = candidate.told && (!makesIt || measured);
        }
        if (bar_carbon) candidate.score += sparkLikelihood(grade, *bar_carbon, spark->agrees);
        for (const double hrc : coupons) {
            candidate.score += couponLikelihood(grade, hrc);
            constexpr double impossible = 3; // HRC above what the grade can give, u 1
            if (hrc > grade.as_quenched_max + impossible) candidate.claim = Claim::notConsistent;
        }
        candidates.push_back(candidate);
    }
    std::stable_sort(candidates.begin(), candidates.end(),
                     [](const GradeCandidate& a, const GradeCandidate& b) { return a.score > b.score; });
    if (candidates.empty()) return candidates;
    const double best = candidates.front().score;
    // E49. Where nobody has seen the carbon, a steel outside the library looks like those inside but for it.
    const bool carbonSeen =
        std::any_of(seen.begin(), seen.end(), [](const Seen& one) { return one.reading.element == "C"; });
    constexpr double fewAlloys = 5; // per cent: below, grades are told by their carbon
    const bool carbonDecides = !carbonSeen && candidates.front().grade->alloy_percent < fewAlloys;
    const double outsideTheLibrary = carbonDecides ? 0.20 : 0.05; // before anything is known
    double likely = 0;
    for (const GradeCandidate& candidate : candidates) likely += std::exp(candidate.score - best);
    const double count = static_cast<double>(all.size());
    const double asInside = best + std::log(likely / count);
    double anywhere = 0;
    for (const Seen& one : seen) {
        const std::size_t i = static_cast<std::size_t>(&one - seen.data());
        if (!one.badly) anywhere += logLikelihood(one.reading, one.sigma, {0, 1.5 * most[i], false});
    }
    const double other = std::log(outsideTheLibrary * count / (1 - outsideTheLibrary)) +
                         (carbonDecides ? std::max(anywhere, asInside) : anywhere);
    const double whole = std::exp(std::min(other - best, 700.0)) + likely;
    for (GradeCandidate& candidate : candidates) {
        candidate.score -= best;
        candidate.share = std::exp(candidate.score) / whole;
        candidate.cannot_be_told_apart = candidate.score >= -std::log(apartFactor);
    }
    return candidates;
}

Result<std::vector<GradeCandidate>> rankGrades(const std::vector<ElementReading>& measured,
                                               const std::vector<Grade>& grades, const Tables& tables,
                                               AnalysisMethod method) {
    return rankGrades({{measured, method}}, {}, grades, tables);
}

} // namespace rollcall

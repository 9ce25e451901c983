// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace rollcall {

/// One sample of a logger.
struct TraceSample {
    double s = 0; ///< seconds of the clock in use
    double c = 0; ///< degrees Celsius
};

/// What an oven or a piece was at, through time. Between samples it is taken to run straight.
class Trace {
public:
    Trace() = default;
    /// Errors (range): fewer than two samples, a number that is not finite, a temperature below absolute zero or above
    /// 2000 °C, time running backwards.
    static Result<Trace> of(std::vector<TraceSample> samples);

    bool empty() const { return m_samples.empty(); }
    const std::vector<TraceSample>& samples() const { return m_samples; }
    double start() const { return m_samples.empty() ? 0 : m_samples.front().s; }
    double end() const { return m_samples.empty() ? 0 : m_samples.back().s; }
    /// Temperature at a moment; before the first and after the last sample that sample's.
    double at(double s) const;
    /// The same trace on a clock that reads so many seconds more.
    Trace shifted(double seconds) const;
    /// The samples of a stretch, with its ends put in.
    std::vector<TraceSample> between(double from, double to) const;
    /// E25. The trace without its probe faults, which come into faults: single samples more than 100 °C off both their
    /// neighbours, which lie within two minutes and agree with each other.
    Trace withoutFaults(std::vector<TraceSample>& faults) const;
    /// E46. Stretches that it does not cover: more than a minute between two samples, and more than two and a half
    /// times what lies between its samples as a rule (a clock that jumped looks the same). From and to in seconds.
    std::vector<std::pair<double, double>> gaps() const;

private:
    std::vector<TraceSample> m_samples;
};

/// A trace from a file, with what could not be taken. Its seconds count from the first sample.
struct TraceFile {
    Trace trace;
    bool fahrenheit = false;        ///< the header said so; the trace itself is in Celsius
    std::optional<double> first_ms; ///< UTC of the first sample, milliseconds since 1970, when the times are dates with
                                    ///< an offset; of the local clock when they have none
    bool first_is_local = false;
    std::optional<double> first_clock_s; ///< time of day of the first sample, when the times are hh:mm:ss
    struct Skipped {
        int line = 0;
        std::string reason;
    };
    std::vector<Skipped> skipped;
    std::vector<TraceSample> faults; ///< of the probe: in the trace, left out where it is judged (E25)
    /// Gaps over five minutes.
    struct Gap {
        int line = 0; ///< of the sample after it
        double minutes = 0;
    };
    std::vector<Gap> gaps;
};

/// Reads a trace.csv: two columns, time (seconds, mm:ss, hh:mm:ss or ISO 8601) and temperature; a header may say C or
/// F, else Celsius. Lines that do not parse are skipped and named. Times of day may pass midnight once. Errors (input):
/// fewer than two samples; time running backwards, naming the line.
Result<TraceFile> readTrace(std::string_view text);

/// Seconds of "mm:ss", "hh:mm:ss" or plain seconds; error (argument) for anything else.
Result<double> parseClock(std::string_view text);

} // namespace rollcall

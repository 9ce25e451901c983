// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_shop.h"

#include "core/base/number.h"
#include "core/judge/release_judge.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"

#include <algorithm>

namespace rollcall {

void DemoShop::at(double daysAgo, double minutesBefore) {
    const std::int64_t end = m_options.today.utc_ms - static_cast<std::int64_t>(daysAgo * static_cast<double>(day_ms));
    const std::int64_t intoDay =
        ((m_options.today.utc_ms + m_options.today.offset_minutes * minute_ms) % day_ms + day_ms) % day_ms;
    // Early in the morning there are few minutes of today yet: the day's story is squeezed into them.
    const double squeeze = daysAgo > 0 ? 1.0 : std::min(1.0, static_cast<double>(intoDay) / (240.0 * minute_ms));
    m_now = {end - static_cast<std::int64_t>(minutesBefore * squeeze * minute_ms), m_options.today.offset_minutes};
}

double DemoShop::read(double truth, double scatter) {
    return roundToTenth(truth + m_testerError + scatter * m_chance.normal());
}

void DemoShop::verify(const std::string& tester, const std::string& block, std::vector<double> values) {
    const std::string run = must(startVerification(*m_logbook, tester, block));
    for (const double value : values) {
        must(logBlockReading(*m_logbook, run, value, tenthText(value)));
        pass(1);
    }
}

std::vector<DemoShop::Piece> DemoShop::addBatch(BatchDraft draft, const std::string& prefix, int count,
                                                const BladeShape& shape, const std::string& thickness) {
    if (!draft.rule) draft.rule = DecisionRule::guarded; // what this shop promises its customers
    for (int i = 1; i <= count; ++i) draft.blades.push_back({fmt::format("{}-{}", prefix, i), shape, thickness});
    m_batch = must(rollcall::addBatch(*m_logbook, draft));
    std::vector<Piece> pieces;
    for (const Blade& blade : must(m_logbook->batchAlone(m_batch)).blades)
        pieces.push_back({blade.id, blade.mark, blade.shape});
    return pieces;
}

std::string DemoShop::log(Piece& piece, Gate gate, int temper, double value, const std::string& tester) {
    ReadingDraft draft;
    draft.blade = piece.id;
    draft.gate = gate;
    draft.after_temper = temper;
    draft.value = value;
    draft.as_entered = tenthText(value);
    draft.tester = tester.empty() ? m_bench : tester;
    const double step = gate == Gate::quench ? 0.0 : 3.2 * temper;
    const double pitch = (piece.shape.length() - 16.0) / 3.0;
    const int row = piece.taken / 3;
    draft.spot = Spot{6.0 + step + pitch * (piece.taken % 3), piece.shape.reading_line_mm + 3.0 * row};
    ++piece.taken;
    pass(1);
    return must(logReading(*m_logbook, draft));
}

void DemoShop::readThree(Piece& piece, Gate gate, int temper, double truth, int count) {
    piece.taken = 0;
    for (int i = 0; i < count; ++i) log(piece, gate, temper, read(truth));
}

void DemoShop::temper(const std::vector<Piece>& pieces, double temperature_c, double hours) {
    TemperDraft temper;
    temper.batch = m_batch;
    for (const Piece& piece : pieces) temper.blades.push_back(piece.id);
    temper.temperature_c = temperature_c;
    temper.hours = hours;
    temper.as_entered = fmt::format("{:g} °C {:g} h", temperature_c, hours);
    temper.time = m_now;
    must(logTemper(*m_logbook, temper));
}

void DemoShop::shoot(const char* elements, int shots) {
    for (int i = 1; i <= shots; ++i) {
        ShotDraft draft;
        draft.batch = m_batch;
        draft.piece = fmt::format("shot {}", i);
        draft.composition = must(typedShot(elements));
        for (ElementReading& reading : draft.composition.elements) {
            if (reading.percent)
                *reading.percent =
                    std::max(0.001, *reading.percent + 0.5 * reading.sigma.value_or(0.01) * m_chance.normal());
        }
        must(addShot(*m_logbook, draft));
    }
}

Trace DemoShop::ovenTrace(double set_c, double in_s, double end_s, double fall_c) {
    std::vector<TraceSample> samples;
    for (double s = 0; s <= end_s; s += 5) {
        const double since = s - in_s;
        const double fall = since < 0 ? 0 : since < 60 ? fall_c * since / 60 : fall_c * std::exp(-(since - 60) / 200);
        samples.push_back({s, set_c - fall + 1.2 * std::sin(s / 37) + 0.15 * m_chance.normal()});
    }
    return must(Trace::of(std::move(samples)));
}

void DemoShop::plan(const std::string& oven, const char* what, double temperature_c, double hours,
                    double minutesFromNow, bool started) {
    PlannedRun temper;
    temper.batch = m_batch;
    temper.oven = oven;
    temper.what = what;
    temper.temperature_c = temperature_c;
    temper.hours = hours;
    temper.cool_minutes = 30;
    temper.start_ms = m_options.today.utc_ms + static_cast<std::int64_t>(minutesFromNow * minute_ms);
    const std::string id = must(planRun(*m_logbook, temper, ""));
    if (!started) return;
    m_now = {temper.start_ms, m_options.today.offset_minutes};
    must(markPlanned(*m_logbook, id, "started"));
}

void DemoShop::sign(const Piece& piece, Disposition disposition, const char* reason) {
    const Batch batch = must(m_logbook->batch(m_batch));
    const BatchVerdicts verdicts = judgeBatch(batch, m_tables, std::nullopt);
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        if (batch.blades[i].id != piece.id) continue;
        must(rollcall::sign(*m_logbook,
                            {{piece.id, {disposition, 1, releaseBasis(verdicts.blades[i]), reason, {}, {}}}}));
    }
}

Result<Done> writeDemo(const QString& path, const Tables& tables, const DemoOptions& options) {
    return Logbook::make(path, LogbookSeams::real(), [&](const QString& part) -> Result<Done> {
        try {
            DemoShop shop(part, tables, options);
            shop.logbook().forgetLearned(); // nobody follows what each of its acts touches
            return shop.logbook().inOneTransaction([&]() -> Result<Done> {
                try {
                    shop.write();
                } catch (const Failed& failed) {
                    return failed.error;
                }
                return Done{};
            });
        } catch (const Failed& failed) {
            return failed.error;
        }
    });
}

} // namespace rollcall

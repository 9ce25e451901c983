// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/trial.h"

#include "core/base/number.h"

#include <algorithm>

namespace rollcall {

namespace {

// The entries that count: what was taken back is gone, with the act that took it back.
std::vector<const TrialEvent*> effective(const Trial& trial) {
    std::vector<const TrialEvent*> events;
    for (const TrialEvent& event : trial.events) {
        if (event.act != TrialAct::takeBack) {
            events.push_back(&event);
            continue;
        }
        // A caution that was read and a photo that was taken stay so.
        const auto last = std::find_if(events.rbegin(), events.rend(), [](const TrialEvent* e) {
            return e->act != TrialAct::acknowledged && e->act != TrialAct::photo && e->act != TrialAct::note;
        });
        if (last != events.rend()) events.erase(std::next(last).base());
    }
    return events;
}

bool inside(const ProtocolStep& step, double value) {
    return (!step.least || atLeast(value, *step.least)) && (!step.most || atMost(value, *step.most));
}

class Run {
public:
    explicit Run(const Protocol& protocol) : m_protocol(protocol) { m_progress.steps.resize(protocol.steps.size()); }

    void take(const TrialEvent& event) {
        if (event.act == TrialAct::note) m_progress.notes.push_back(event.text);
        if (event.act == TrialAct::photo) {
            const std::size_t at = std::min(m_progress.current, m_progress.steps.size() - 1);
            ++m_progress.steps[at].photos;
        }
        if (event.act == TrialAct::acknowledged) m_progress.acknowledged.push_back(event.text);
        if (m_progress.outcome != TrialOutcome::running || m_progress.current >= m_progress.steps.size()) return;
        switch (event.act) {
        case TrialAct::note:
        case TrialAct::photo:
        case TrialAct::acknowledged:
        case TrialAct::takeBack:
            return;
        case TrialAct::giveUp:
            m_progress.outcome = TrialOutcome::givenUp;
            step().how = event.text;
            return;
        case TrialAct::touchUp:
            if (m_progress.touchUpForbidden(m_protocol)) m_progress.outcome = TrialOutcome::voided;
            return;
        case TrialAct::plan:
            step().thickness_mm = event.value;
            step().free_mm = event.second;
            step().lever_mm = event.third > 0 ? std::optional(event.third) : std::nullopt;
            return;
        case TrialAct::timer:
            step().timer = event.at;
            return;
        default:
            break;
        }
        if (event.act == TrialAct::fail && !failsSteel(event.text)) {
            m_progress.not_steel.push_back(event.text);
            return;
        }
        m_progress.begun = true;
        m_progress.destroyed = m_progress.destroyed || asked().destroys;
        switch (event.act) {
        case TrialAct::count:
            step().count += std::max(1.0, event.value);
            if (asked().least && atLeast(step().count, *asked().least)) return end(StepState::passed);
            if (asked().most && step().count > *asked().most + limitTolerance) end(StepState::failed);
            return;
        case TrialAct::cuts:
        case TrialAct::hesitates:
            step().count += event.value;
            step().looks.push_back(
                {step().count, event.act == TrialAct::cuts ? CutResult::passes : CutResult::hesitates});
            return;
        case TrialAct::bend:
            step().bends.push_back({event.value, event.second});
            return;
        case TrialAct::set:
            step().set_deg = event.value;
            return;
        case TrialAct::fail:
            step().how = event.text;
            if (asked().kind == StepKind::cuts) {
                // Going dull is the end of such a step; whether it lasted is what its limit asks.
                step().count += event.value;
                step().looks.push_back({step().count, CutResult::fails});
                double last = 0;
                for (const CutLook& look : step().looks) {
                    if (look.result != CutResult::fails) last = std::max(last, look.cuts);
                }
                step().value = last;
                return end(asked().least && !atLeast(last, *asked().least) ? StepState::failed : StepState::passed);
            }
            if (asked().kind == StepKind::bend && event.value > 0) step().value = event.value;
            return end(StepState::failed);
        case TrialAct::answer:
            if (asked().kind == StepKind::count)
                return end(inside(asked(), step().count) ? StepState::passed : StepState::failed);
            if (asked().kind == StepKind::cuts) { // stopped while it still cut
                step().value = step().count;
                return end(inside(asked(), step().count) ? StepState::passed : StepState::failed);
            }
            if (asked().kind == StepKind::yesNo) return end(StepState::passed);
            step().value = event.value;
            if (asked().kind == StepKind::bend) step().bends.push_back({event.value, event.second});
            return end(inside(asked(), event.value) ? StepState::passed : StepState::failed);
        default:
            return;
        }
    }

    TrialProgress progress() { return std::move(m_progress); }

private:
    StepProgress& step() { return m_progress.steps[m_progress.current]; }
    const ProtocolStep& asked() const { return m_protocol.steps[m_progress.current]; }

    void end(StepState state) {
        step().state = state;
        ++m_progress.done;
        m_failed = m_failed || state == StepState::failed;
        if (state == StepState::failed && asked().fail_ends) {
            m_progress.outcome = TrialOutcome::failed;
            return;
        }
        ++m_progress.current;
        if (m_progress.current == m_progress.steps.size())
            m_progress.outcome = m_failed ? TrialOutcome::failed : TrialOutcome::passed;
    }

    const Protocol& m_protocol;
    TrialProgress m_progress;
    bool m_failed = false;
};

} // namespace

bool failsSteel(const std::string& how) {
    return std::find(failures.begin() + steelFailures, failures.end(), how) == failures.end();
}

std::string TrialProgress::caution(const Protocol& protocol) const {
    if (outcome != TrialOutcome::running || current >= protocol.steps.size()) return {};
    const std::string& hazard = protocol.steps[current].caution;
    return std::find(acknowledged.begin(), acknowledged.end(), hazard) == acknowledged.end() ? hazard : std::string();
}

bool TrialProgress::touchUpForbidden(const Protocol& protocol) const {
    if (outcome != TrialOutcome::running) return false;
    bool before = false;
    bool after = false;
    for (std::size_t i = 0; i < protocol.steps.size(); ++i) {
        if (!protocol.steps[i].no_touch_up) continue;
        // The step in hand has begun once something was counted or looked at.
        if (i < current || (i == current && steps[i].count > 0)) before = true;
        if (i >= current) after = true;
    }
    return before && after;
}

TrialProgress progressOf(const Trial& trial) {
    Run run(trial.protocol);
    if (trial.protocol.steps.empty()) return run.progress();
    for (const TrialEvent* event : effective(trial)) run.take(*event);
    return run.progress();
}

} // namespace rollcall

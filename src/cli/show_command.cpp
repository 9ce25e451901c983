// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/judge/agenda.h"
#include "core/judge/judged.h"
#include "core/steel/grade_sheet.h"
#include "logbook/logbook.h"
#include "logbook/read/history.h"
#include "words/words.h"

#include <algorithm>
#include <QJsonArray>

// What a logbook answers about a batch: the same judgement as in the window.
namespace rollcall::cli {

namespace {

// A batch of a logbook, read and judged.
struct Shown {
    std::unique_ptr<Logbook> logbook;
    Tables tables;
    Batch batch;
};

Result<std::unique_ptr<Shown>> shownBatch(const Options& options, const Tables& shipped) {
    auto logbook = Logbook::open(options.word(0), Logbook::Access::read);
    if (!logbook) return logbook.error();
    const Result<Shop> shop = (*logbook)->shop();
    if (!shop) return shop.error();
    auto shown = std::unique_ptr<Shown>(new Shown{nullptr, withSheets(shipped, shop->own_grades), {}});
    const auto batches = (*logbook)->batches();
    if (!batches) return batches.error();
    const std::string name = options.word(1).toStdString();
    const auto summary =
        std::find_if(batches->begin(), batches->end(), [&](const BatchSummary& one) { return one.name == name; });
    if (summary == batches->end()) return Error{ErrorKind::argument, name, "there is no such batch in this logbook"};
    Result<Batch> batch = (*logbook)->batch(summary->id);
    if (!batch) return batch.error();
    shown->batch = std::move(batch).value();
    std::map<std::string, std::vector<TemperObservation>> known;
    auto history = temperHistory(**logbook, shown->tables, shown->batch, known);
    if (!history) return history.error();
    shown->batch.temper_history = std::move(history).value();
    shown->logbook = std::move(logbook).value();
    return shown;
}

QString codeOf(State state) {
    return state == State::notYet ? QStringLiteral("not_yet") : QString::fromLatin1(nameOf(state));
}

// The act in the words of the line log; null where nothing is left.
const char* actName(Act act) {
    switch (act) {
    case Act::takeReadings:
    case Act::readThicker:
        return "read";
    case Act::readAgain:
        return "read_more";
    case Act::mapReadings:
        return "map";
    case Act::chooseSet:
        return "choose_set";
    case Act::tryFiles:
        return "files";
    case Act::verifyTester:
    case Act::verifyOnHarderBlock:
        return "verify";
    case Act::logTemper:
    case Act::temperAgain:
        return "temper";
    case Act::falseSoftness:
    case Act::clearConflict:
    case Act::backUpRebound:
        return "clean";
    case Act::takeShot:
    case Act::tellApart:
    case Act::backToSteel:
        return "shot";
    case Act::reassign:
        return "take_for";
    case Act::startHeat:
    case Act::markBlade:
        return "heat";
    case Act::breakCoupon:
        return "coupon";
    case Act::takeRung:
        return "rung";
    case Act::noteEdge:
        return "geometry";
    case Act::measureDamage:
    case Act::lookAtHeat:
    case Act::clearCrack:
    case Act::fileEdge:
    case Act::lookIntoSurprise:
        return "inspect";
    case Act::runTrial:
        return "trial";
    case Act::countGrain:
        return "fracture";
    case Act::hardenFiner:
    case Act::reharden:
        return "reharden";
    case Act::coldTreat:
        return "cold";
    case Act::repairDamage:
        return "inspect";
    case Act::addGrade:
        return "add_grade";
    case Act::returnBar:
        return "return";
    case Act::otherUse:
        return "other_use";
    case Act::scrap:
        return "scrap";
    case Act::sign:
        return "sign";
    case Act::makerDecides:
    case Act::acceptOrReturn:
    case Act::setWindow:
    case Act::answerGates:
        return "decide";
    case Act::nothing:
    case Act::done:
    case Act::out:
        return nullptr;
    }
    return nullptr;
}

QJsonArray findingsOf(const Verdict& verdict) {
    QJsonArray findings;
    for (const Reason& reason : verdict.reasons) {
        QJsonArray numbers;
        for (const double number : reason.numbers) numbers.append(number);
        QJsonArray texts;
        for (const std::string& text : reason.texts) texts.append(q(text));
        findings.append(QJsonObject{{"fact", nameOf(reason.fact)},
                                    {"sentence", words::sentence(reason)},
                                    {"tone", toneName(reason.tone)},
                                    {"rule", QString::fromUtf8(reason.rule)},
                                    {"numbers", numbers},
                                    {"texts", texts}});
    }
    return findings;
}

QJsonObject gateObject(const Verdict& verdict, const Window& window, bool withDerivation) {
    QJsonArray reasons;
    for (const Reason& reason : verdict.reasons) reasons.append(reasonText(reason));
    const words::NextWords next = words::nextStep(verdict);
    QJsonObject object{{"gate", nameOf(verdict.gate)},
                       {"verdict", codeOf(verdict.state)},
                       {"state", codeOf(verdict.state)},
                       {"findings", findingsOf(verdict)},
                       {"n", verdict.taken},
                       {"mean", QJsonValue()},
                       {"corrected_mean", QJsonValue()},
                       {"expanded_uncertainty", QJsonValue()},
                       {"reasons", reasons},
                       {"next", next.detail.isEmpty() ? next.act : next.act + QStringLiteral(": ") + next.detail}};
    if (verdict.measurement) {
        object["mean"] = verdict.measurement->mean;
        object["corrected_mean"] = verdict.measurement->corrected_mean;
        object["expanded_uncertainty"] = verdict.measurement->decided_uncertainty;
        object["probability_inside"] = verdict.measurement->probability_inside;
    }
    if (withDerivation) object["derivation"] = QJsonArray::fromStringList(words::derivation(verdict, window));
    return object;
}

// What is suggested for a finished knife that is not as it was sold.
const char* finishedAct(Disposition disposition) {
    return disposition == Disposition::otherPurpose ? "other_use"
           : disposition == Disposition::sendBack   ? "return"
                                                    : "decide";
}

QJsonObject temperObject(const NextTemper& temper) {
    return {{"temperature_c", temper.temperature_c},
            {"hours", temper.hours},
            {"expected_hrc", temper.expect.hrc},
            {"probability_inside", temper.chance_inside},
            {"probability_too_soft", temper.chance_soft}};
}

QJsonValue nextObject(const std::vector<Task>& tasks, std::size_t blade, const Judged& judged) {
    const auto task = std::find_if(tasks.begin(), tasks.end(), [&](const Task& one) { return one.blade == blade; });
    if (task == tasks.end()) return QJsonValue();
    const Suggestion& suggestion = judged.release(blade).suggestion;
    Gate gate = task->gate;
    NextStep step = task->next;
    const Verdict& steel = judged.verdict(blade, Gate::steel);
    if (step.act == Act::backToSteel && steel.state == State::fail) { // what is to be done there
        step = steel.next;
        gate = Gate::steel;
    }
    const char* act = actName(step.act);
    if (step.act == Act::acceptOrReturn) act = finishedAct(suggestion.disposition);
    if (act == nullptr) return QJsonValue();
    const Verdict& verdict = judged.verdict(blade, gate);
    QJsonObject next{{"act", act}, {"gate", nameOf(gate)}, {"why", words::headline(verdict)}};
    if (step.act == Act::acceptOrReturn && !suggestion.purpose.empty()) next["purpose"] = q(suggestion.purpose);
    if (const auto* grade = step.as<GradeStep>()) {
        next["grade"] = q(grade->grade);
        next["share"] = grade->share;
    }
    if (const auto* apart = step.as<TellApartStep>()) {
        next["grades"] = QJsonArray{q(apart->a), q(apart->b)};
        if (apart->how.test == TellApart::Test::coupon) next["act"] = "coupon";
        if (apart->how.test == TellApart::Test::spark) next["act"] = "spark";
    }
    if (const auto* use = step.as<UseStep>()) next["purpose"] = q(use->purpose);
    if (const auto* read = step.as<ReadStep>()) next["readings"] = read->readings;
    if (const auto* file = step.as<FileStep>(); file != nullptr && file->file_hrc > 0)
        next["file_hrc"] = file->file_hrc;
    if (const auto* coupon = step.as<CouponStep>()) next["soaked_minutes"] = coupon->minutes;
    if (const auto* rung = step.as<EdgeLoadStep>()) {
        next["force_n"] = rung->force_n;
        next["raise_deg"] = rung->raise_deg;
    }
    if (const auto* temper = step.as<TemperStep>(); temper != nullptr && temper->advised) {
        const QJsonObject advised = temperObject(*temper->advised);
        for (auto one = advised.begin(); one != advised.end(); ++one) next[one.key()] = one.value();
        QJsonArray load;
        for (const std::string& mark : temper->load) load.append(q(mark));
        if (!load.isEmpty()) next["load"] = load;
    }
    QStringList cautions;
    for (const StepCaution caution : step.cautions) cautions << words::stepCautionText(caution);
    if (!cautions.isEmpty()) next["caution"] = cautions.join(QLatin1Char(' '));
    return next;
}

QJsonObject windowObject(const Window& window) {
    return {{"low", orNull(window.low)}, {"high", orNull(window.high)}};
}

} // namespace

const char* toneName(Tone tone) {
    switch (tone) {
    case Tone::good:
        return "good";
    case Tone::note:
        return "note";
    case Tone::caution:
        return "caution";
    case Tone::bad:
        return "bad";
    case Tone::open:
        return "open";
    case Tone::unseen:
        return "unseen";
    }
    return "";
}

Result<QJsonObject> show(const Options& options, const Tables& shipped) {
    const auto opened = shownBatch(options, shipped);
    if (!opened) return opened.error();
    const Shown& shown = **opened;
    const Batch& batch = shown.batch;
    const Judged judged(batch, shown.tables, shown.logbook->now());
    const std::vector<Task> tasks = agenda(batch, judged.verdicts());
    QJsonArray blades;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        QJsonArray gates;
        for (const Gate gate : allGates) {
            if (const auto& verdict = judged.verdicts().at(i, gate))
                gates.append(gateObject(*verdict, windowOf(batch, blade, gate, shown.tables), options.has("explain")));
        }
        const bool out = blade.fate.has_value();
        const BladeClaim claim = batch.claimOf(blade);
        blades.append(QJsonObject{{"mark", q(blade.mark)},
                                  {"sold_as", claim.claimed.empty() ? q(claim.grade) : q(claim.claimed)},
                                  {"taken_for", q(claim.grade)},
                                  {"purpose", q(claim.purpose)},
                                  {"window", windowObject(*claim.window)},
                                  {"finished", batch.isFinished(blade)},
                                  {"out", out ? QJsonValue(nameOf(blade.fate->fate)) : QJsonValue()},
                                  {"next", out ? QJsonValue() : nextObject(tasks, i, judged)},
                                  {"gates", gates}});
    }
    QJsonArray loads; // each load once, as its first blade tells it
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const auto* temper = judged.verdict(i, Gate::temper).next.as<TemperStep>();
        if (temper == nullptr || !temper->advised || temper->load.empty() ||
            temper->load.front() != batch.blades[i].mark)
            continue;
        QJsonArray marks;
        for (const std::string& mark : temper->load) marks.append(q(mark));
        loads.append(QJsonObject{
            {"temperature_c", temper->advised->temperature_c}, {"hours", temper->advised->hours}, {"blades", marks}});
    }
    QJsonArray candidates;
    for (const GradeCandidate& one : judged.bar().candidates)
        candidates.append(QJsonObject{{"grade", q(one.grade->name)}, {"score", one.score}, {"share", one.share}});
    if (!candidates.isEmpty()) candidates.append(QJsonObject{{"grade", "other"}, {"share", judged.bar().otherShare()}});
    return QJsonObject{{"name", q(batch.name)}, {"blades", blades}, {"candidates", candidates}, {"next_load", loads}};
}

Result<QJsonObject> ladder(const Options& options, const Tables& shipped) {
    const auto opened = shownBatch(options, shipped);
    if (!opened) return opened.error();
    const Batch& batch = (*opened)->batch;
    const std::string mark = options.word(2).toStdString();
    const auto blade =
        std::find_if(batch.blades.begin(), batch.blades.end(), [&](const Blade& one) { return one.mark == mark; });
    if (blade == batch.blades.end()) return Error{ErrorKind::argument, mark, "there is no such blade in this batch"};
    const Judged judged(batch, (*opened)->tables, (*opened)->logbook->now());
    QJsonArray tempers;
    for (const Temper& temper : blade->tempers) {
        if (temper.round != blade->round) continue;
        tempers.append(QJsonObject{{"number", temper.number},
                                   {"temperature_c", orNull(temper.temperature_c)},
                                   {"hours", orNull(temper.hours)}});
    }
    const auto place = static_cast<std::size_t>(blade - batch.blades.begin());
    const BladeClaim claim = batch.claimOf(*blade);
    QJsonObject answer{{"blade", q(mark)},        {"grade", q(claim.grade)},  {"window", windowObject(*claim.window)},
                       {"tempers", tempers},      {"expected", QJsonValue()}, {"advice", QJsonValue()},
                       {"cautious", QJsonValue()}};
    if (const auto expected = judged.tempers(place).expected(*blade)) {
        answer["expected"] =
            QJsonObject{{"hrc", expected->hrc}, {"interval", QJsonArray{expected->low, expected->high}}};
    }
    const auto* step = judged.verdict(place, Gate::temper).next.as<TemperStep>();
    if (const auto advice = judged.tempers(place).advice(*blade)) {
        // What the button says goes before: there it goes in with the others.
        if (step != nullptr && step->advised)
            answer["advice"] = temperObject(*step->advised);
        else if (advice->best)
            answer["advice"] = temperObject(*advice->best);
        if (advice->cautious) answer["cautious"] = temperObject(*advice->cautious);
    }
    return answer;
}

} // namespace rollcall::cli

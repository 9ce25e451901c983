// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/find/wanted.h"
#include "core/heat/trace.h"
#include "core/judge/heat_book.h"
#include "core/steel/grade_sheet.h"
#include "demo/demo.h"
#include "logbook/actions/heat.h"
#include "logbook/logbook.h"
#include "logbook/read/finder.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/kept_copies.h"
#include "logbook/transfer/salvage.h"
#include "words/words.h"

#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>

// The commands that read or write a logbook.
namespace rollcall::cli {

namespace {

Result<std::unique_ptr<Logbook>> openFor(const Options& options, Logbook::Access access) {
    return Logbook::open(options.word(0), access);
}

Result<QJsonObject> infoOf(Logbook& logbook) {
    const auto counts = logbook.counts();
    if (!counts) return counts.error();
    QJsonObject numbers;
    for (const auto& [table, count] : *counts) numbers[q(table)] = count;
    const auto head = logbook.head();
    if (!head) return head.error();
    return QJsonObject{{"schema", logbook.schemaVersion()}, {"counts", numbers}, {"head", q(*head)}};
}

} // namespace

QString reasonText(const Reason& reason) {
    return QStringLiteral("%1 (%2)").arg(words::sentence(reason), QString::fromUtf8(reason.rule));
}

void explain(const Options& options, QJsonObject& answer, const QStringList& derivation) {
    if (options.has("explain")) answer["derivation"] = QJsonArray::fromStringList(derivation);
}

Result<QJsonObject> newLogbook(const Options& options, const Tables&) {
    auto logbook = Logbook::create(options.word(0));
    if (!logbook) return logbook.error();
    return infoOf(**logbook);
}

Result<QJsonObject> info(const Options& options, const Tables&) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    return infoOf(**logbook);
}

Result<QJsonObject> check(const Options& options, const Tables&) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    auto problems = (*logbook)->check();
    if (!problems) return problems.error();
    if (options.has("head")) {
        const auto missing = (*logbook)->notHeld(options.text("head"));
        if (!missing) return missing.error();
        if (!missing->empty()) problems.value().push_back(*missing);
    }
    QJsonArray sentences;
    for (const std::string& problem : *problems) sentences.append(q(problem));
    return QJsonObject{{"ok", sentences.isEmpty()}, {"problems", sentences}};
}

Result<QJsonObject> backup(const Options& options, const Tables&) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    if (auto done = (*logbook)->backup(options.word(1)); !done) return done.error();
    return QJsonObject{{"written", options.word(1)}};
}

Result<QJsonObject> keepACopy(const Options& options, const Tables&) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    const auto kept = keepCopy(**logbook, options.word(0), options.word(1));
    if (!kept) return kept.error();
    return QJsonObject{{"written", kept->made ? QJsonValue(kept->made->path) : QJsonValue()},
                       {"kept", kept->kept},
                       {"removed", kept->removed}};
}

Result<QJsonObject> salvageLogbook(const Options& options, const Tables&) {
    const auto saved = salvage(options.word(0), options.word(1), LogbookSeams::real());
    if (!saved) return saved.error();
    QJsonObject rows;
    for (const auto& [table, count] : saved->rows) rows.insert(q(table), count);
    QJsonArray left;
    for (const std::string& sentence : saved->left) left.append(q(sentence));
    return QJsonObject{{"written", options.word(1)},         {"rows", rows},
                       {"from_log", saved->from_log},        {"unproved", saved->unproved},
                       {"last_entry", q(saved->last_entry)}, {"left", left}};
}

namespace {

Result<Batch> batchNamed(Logbook& logbook, const std::string& name) {
    const auto batches = logbook.batches();
    if (!batches) return batches.error();
    for (const BatchSummary& summary : *batches) {
        if (summary.name == name) return logbook.batch(summary.id);
    }
    return Error{ErrorKind::argument, name, "there is no such batch in this logbook"};
}

// A trace goes to the batch's last heat that has none; else a new heat begins with it.
Result<QJsonObject> importTrace(const Options& options) {
    QFile file(q(options.text("trace")));
    if (!file.open(QIODevice::ReadOnly))
        return Error{ErrorKind::input, options.text("trace"), "this file cannot be read"};
    const Result<std::string> batchName = options.required("batch");
    if (!batchName) return batchName.error();
    const QByteArray bytes = file.readAll();
    const auto read = readTrace(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!read)
        return Error{ErrorKind::input,
                     options.text("trace") + (read.error().place.empty() ? "" : " " + read.error().place),
                     read.error().text};
    auto logbook = openFor(options, Logbook::Access::write);
    if (!logbook) return logbook.error();
    Result<Batch> batch = batchNamed(**logbook, *batchName);
    if (!batch) return batch.error();
    TraceDraft draft;
    draft.name = QFileInfo(file).fileName();
    draft.file = bytes;
    draft.trace = read->trace;
    const bool waiting = !batch->heat_runs.empty() && batch->heat_runs.back().trace == nullptr;
    if (waiting) {
        draft.run = batch->heat_runs.back().id;
        draft.shift_s = clockShift(batch->heat_runs.back(), *read);
    } else {
        HeatDraft heat;
        heat.batch = batch->id;
        const Result<std::string> set = options.required("set");
        if (!set) return set.error();
        const Result<double> degrees = parseQuantity(*set, Quantity::temperature);
        if (!degrees) return Error{ErrorKind::argument, "--set", degrees.error().text};
        heat.set_c = *degrees;
        heat.as_entered = *set;
        heat.zero = traceBegan(*read, (*logbook)->now());
        const std::string ovenName = options.text("oven", "Oven 1");
        const Result<Shop> shop = (*logbook)->shop();
        if (!shop) return shop.error();
        for (const Oven& oven : shop->ovens) {
            if (oven.name == ovenName) heat.oven = oven.id;
        }
        if (heat.oven.empty()) {
            const auto oven = addOven(**logbook, {"", ovenName, 5, {}});
            if (!oven) return oven.error();
            heat.oven = *oven;
        }
        const auto run = startHeat(**logbook, heat);
        if (!run) return run.error();
        draft.run = *run;
    }
    if (const auto added = addTrace(**logbook, draft); !added) return added.error();
    QJsonArray skipped;
    for (const auto& line : read->skipped) skipped.append(QJsonObject{{"line", line.line}, {"reason", q(line.reason)}});
    return QJsonObject{{"batch", q(*batchName)},
                       {"samples", static_cast<int>(read->trace.samples().size())},
                       {"new_heat", !waiting},
                       {"skipped", skipped}};
}

} // namespace

Result<QJsonObject> importCsv(const Options& options, const Tables& tables) {
    if (options.has("trace")) return importTrace(options);
    const Result<std::string> name = options.required("csv");
    if (!name) return name.error();
    QFile file(q(*name));
    if (!file.open(QIODevice::ReadOnly)) return Error{ErrorKind::input, *name, "this file cannot be read"};
    auto logbook = openFor(options, Logbook::Access::write);
    if (!logbook) return logbook.error();
    const auto report = importReadings(**logbook, tables, QFileInfo(file).fileName(), file.readAll());
    if (!report) return report.error();
    QJsonArray rejected;
    for (const auto& bad : report->rejected)
        rejected.append(QJsonObject{{"line", bad.line}, {"reason", q(bad.reason)}});
    return QJsonObject{{"batches", report->batches},
                       {"blades", report->blades},
                       {"readings", report->readings},
                       {"already_there", report->already_there},
                       {"rejected", rejected}};
}

Result<QJsonObject> find(const Options& options, const Tables& tables) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    const Result<double> most = options.number("most", 100);
    if (!most) return most.error();
    if (!(*most >= 1 && *most <= 100000)) return Error{ErrorKind::argument, "most", "1 to 100000 can be shown"};
    const auto shop = (*logbook)->shop();
    if (!shop) return shop.error();
    const Tables own = withSheets(tables, shop->own_grades);
    const Wanted wanted = wantedFrom(options.word(1).toStdString(), own, (*logbook)->now());
    Finder finder(**logbook);
    for (;;) {
        const Result<bool> more = finder.step();
        if (!more) return more.error();
        if (!*more) break;
    }
    const auto hits = finder.find(wanted, wanted.state ? 100000 : static_cast<int>(*most));
    if (!hits) return hits.error();
    QJsonArray found;
    std::string judged; // the batch whose verdicts these are: hits of a batch stand together
    std::map<std::string, std::vector<State>> states;
    for (const Hit& hit : *hits) {
        if (found.size() >= *most) break;
        if (wanted.state) {
            if (judged != hit.batch_id) {
                const Result<Batch> batch = (*logbook)->batch(hit.batch_id);
                if (!batch) return batch.error();
                states = statesOf(*batch, judgeBatch(*batch, own, (*logbook)->now()));
                judged = hit.batch_id;
            }
            if (!hasVerdict(states[hit.blade], *wanted.state)) continue;
        }
        QJsonObject one{
            {"kind", nameOf(hit.kind)}, {"batch", q(hit.batch)}, {"grade", q(hit.grade)}, {"text", q(hit.text)}};
        if (!hit.mark.empty()) one.insert(QStringLiteral("blade"), q(hit.mark));
        found.append(one);
    }
    return QJsonObject{{"found", found}};
}

Result<QJsonObject> list(const Options& options, const Tables&) {
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    const auto batches = (*logbook)->batches();
    if (!batches) return batches.error();
    auto asked = (*logbook)->gatesAsked();
    if (!asked) return asked.error();
    QJsonArray array;
    for (const BatchSummary& batch : *batches) {
        QJsonArray gates;
        for (const Gate gate : asked.value()[batch.id]) gates.append(nameOf(gate));
        array.append(QJsonObject{
            {"name", q(batch.name)}, {"grade", q(batch.grade)}, {"blades", batch.blades}, {"gates", gates}});
    }
    return QJsonObject{{"batches", array}};
}

Result<QJsonObject> demo(const Options& options, const Tables& tables) {
    DemoOptions wishes;
    const Result<double> seed = options.number("seed", 1);
    if (!seed) return seed.error();
    const Result<double> scale = options.number("scale", 1);
    if (!scale) return scale.error();
    if (!(*scale >= 1 && *scale <= 10000))
        return Error{ErrorKind::argument, "--scale", "a number from 1 to 10000 is needed"};
    if (!(*seed >= 0 && *seed <= 1e15)) return Error{ErrorKind::argument, "--seed", "a whole number is needed"};
    wishes.seed = static_cast<std::uint64_t>(*seed);
    wishes.scale = static_cast<int>(*scale);
    QDateTime today = QDateTime::currentDateTime();
    if (options.has("today")) {
        const QDate date = QDate::fromString(q(options.text("today")), Qt::ISODate);
        if (!date.isValid()) return Error{ErrorKind::argument, "--today", "a date is written like 2026-11-24"};
        today = QDateTime(date, QTime(15, 30));
    }
    wishes.today = {today.toMSecsSinceEpoch(), today.offsetFromUtc() / 60};
    if (const auto written = writeDemo(options.word(0), tables, wishes); !written) return written.error();
    auto logbook = openFor(options, Logbook::Access::read);
    if (!logbook) return logbook.error();
    return infoOf(**logbook);
}

} // namespace rollcall::cli

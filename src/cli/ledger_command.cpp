// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/steel/grade_sheet.h"
#include "logbook/logbook.h"
#include "logbook/read/ledger_judge.h"
#include "report/export_picture.h"
#include "report/ledger_paper.h"

#include <QJsonArray>

// What all batches of a logbook say together: the same questions as on the pages of the ledger.
namespace rollcall::cli {

namespace {

struct Gathered {
    Ledger ledger;
    std::shared_ptr<const Tables> tables;
    Shop shop;
    std::shared_ptr<const std::vector<Verification>> runs;
    Instant now;
};

Result<std::unique_ptr<Gathered>> gathered(const QString& file, const Tables& shipped) {
    auto logbook = Logbook::open(file, Logbook::Access::read);
    if (!logbook) return logbook.error();
    auto shop = (*logbook)->shop();
    if (!shop) return shop.error();
    auto runs = (*logbook)->verifications();
    if (!runs) return runs.error();
    auto all = std::unique_ptr<Gathered>(
        new Gathered{{},
                     std::make_shared<const Tables>(withSheets(shipped, shop->own_grades)),
                     std::move(shop).value(),
                     std::make_shared<const std::vector<Verification>>(std::move(runs).value()),
                     (*logbook)->now()});
    const auto batches = (*logbook)->batches();
    if (!batches) return batches.error();
    if (auto done = (*logbook)->expectMany(); !done) return done.error();
    LedgerJudge judge(all->ledger);
    for (const BatchSummary& summary : *batches) {
        Result<Batch> batch = (*logbook)->batchAlone(summary.id);
        if (!batch) return batch.error();
        batch.value().testers = all->shop.testers;
        judge.take(std::move(batch).value(), all->runs, all->tables, all->now);
    }
    judge.finish();
    return all;
}

// One of the words of an enum.
template<class Enum>
Result<Enum> word(const Options& options, const char* name, Enum otherwise) {
    if (!options.has(name)) return otherwise;
    if (const auto known = named<Enum>(options.text(name))) return *known;
    std::string words;
    for (const char* one : namesOf<Enum>) words += (words.empty() ? "" : ", ") + std::string(one);
    return Error{ErrorKind::argument, name, "one of these is needed: " + words};
}

Result<const Grade*> gradeOf(const Options& options, const Gathered& all) {
    std::string name = options.text("grade");
    if (name.empty() && !all.ledger.grades().empty()) name = all.ledger.grades().front();
    const Grade* grade = all.tables->grade(name);
    if (grade == nullptr) return Error{ErrorKind::argument, "grade", "\"" + name + "\" is not in the library"};
    return grade;
}

Result<LedgerView> againstView(const Options& options, const Gathered& all) {
    const auto factor = word(options, "factor", Factor::recipe);
    if (!factor) return factor.error();
    const auto response = word(options, "response", Response::tempered);
    if (!response) return response.error();
    std::vector<const Grade*> grades;
    if (options.has("grade")) {
        const auto grade = gradeOf(options, all);
        if (!grade) return grade.error();
        grades.push_back(*grade);
    } else {
        for (const std::string& name : all.ledger.grades()) {
            if (const Grade* grade = all.tables->grade(name)) grades.push_back(grade);
        }
    }
    return compareView(compareLevels(all.ledger, grades, *factor, *response), *factor, *response);
}

Result<LedgerView> driftView(const Options& options, const Gathered& all) {
    std::string there;
    for (const ShopSeries& series : shopSeries(all.ledger, *all.tables, all.shop.testers, *all.runs, all.now)) {
        const std::string name = seriesName(series).toStdString();
        if (options.text("series").empty() || options.text("series") == name)
            return seriesView(series, saysOf(series), options.has("summed"));
        there += (there.empty() ? "" : ", ") + name;
    }
    return Error{ErrorKind::argument, "series",
                 there.empty() ? "nothing has four values yet" : "one of these is needed: " + there};
}

Result<LedgerView> whatIfViewOf(const Options& options, const Gathered& all) {
    WhatIf wish;
    wish.grade = options.text("grade");
    for (const auto& [name, into] : {std::pair("low-by", &wish.low_by), std::pair("high-by", &wish.high_by),
                                     std::pair("error-by", &wish.error_by), std::pair("temper-by", &wish.temper_by)}) {
        const Result<double> number = options.number(name, 0);
        if (!number) return number.error();
        if (!(std::abs(*number) <= 100)) return Error{ErrorKind::argument, name, "a number from -100 to 100 is needed"};
        *into = *number;
    }
    if (options.has("rule")) {
        const auto rule = word(options, "rule", DecisionRule::guarded);
        if (!rule) return rule.error();
        wish.rule = *rule;
    }
    return whatIfView(whatIf(all.ledger, *all.tables, wish), wish,
                      forecastFor(all.ledger, *all.tables, wish, all.shop.ovenSteps()));
}

Result<LedgerView> studyViewOf(const Options& options, const Gathered& all) {
    const auto name = options.required("study");
    if (!name) return name.error();
    for (const StudyPlan& plan : all.shop.plans) {
        const LedgerBatch* batch = all.ledger.batch(plan.batch);
        if (plan.name == *name && batch != nullptr)
            return studyView(plan, readStudy(plan, valuesOf(plan, *batch)), *batch);
    }
    return Error{ErrorKind::argument, "study", "no study of this name is planned"};
}

Result<LedgerView> viewOf(const Options& options, const Gathered& all) {
    const QString& question = options.word(1);
    if (question == QLatin1String("week"))
        return weekView(weekOf(all.ledger, *all.tables, all.shop.testers, *all.runs, usesOf(all.shop.blocks), all.now));
    if (question == QLatin1String("tempers")) {
        const auto grade = gradeOf(options, all);
        if (!grade) return grade.error();
        const auto ledger = temperLedger(all.ledger, **grade, all.shop.ovenSteps());
        if (!ledger) return ledger.error();
        return temperView(*ledger);
    }
    if (question == QLatin1String("against")) return againstView(options, all);
    if (question == QLatin1String("drift")) return driftView(options, all);
    if (question == QLatin1String("yield")) return yieldView(yieldLedger(all.ledger, options.text("grade")));
    if (question == QLatin1String("tried")) {
        const auto by = word(options, "by", ProofBy::grade);
        if (!by) return by.error();
        return proofView(proofLedger(all.ledger, options.text("grade"), *by), *by, 0);
    }
    if (question == QLatin1String("what-if")) return whatIfViewOf(options, all);
    if (question == QLatin1String("study")) return studyViewOf(options, all);
    return Error{ErrorKind::argument, question.toStdString(),
                 "ask for week, tempers, against, drift, yield, tried, what-if or study"};
}

Result<Done> write(const Options& options, const LedgerView& view, const Instant& now) {
    if (options.has("csv")) {
        if (auto done = writeCsv(q(options.text("csv")), view.table); !done) return done;
    }
    if (options.has("svg")) {
        const auto done =
            savePicture(q(options.text("svg")), {960, 540}, view.table.title, Qt::white,
                        [&](QPainter& painter, const QRect& area) { drawLedgerChart(painter, area, view.chart, {}); });
        if (!done) return done;
    }
    if (options.has("pdf")) {
        const auto pages = writePdf(q(options.text("pdf")), options.has("letter"), view.table.title, [&](Paper& paper) {
            return drawLedgerPages(paper, view, q(options.text("shop")), now);
        });
        if (!pages) return pages.error();
    }
    return Done{};
}

} // namespace

Result<QJsonObject> ledger(const Options& options, const Tables& tables) {
    const auto all = gathered(options.word(0), tables);
    if (!all) return all.error();
    const auto view = viewOf(options, **all);
    if (!view) return view.error();
    if (auto written = write(options, *view, (*all)->now); !written) return written.error();
    QJsonArray lines;
    for (const LedgerView::Line& line : view->lines)
        lines.append(QJsonObject{{"tone", toneName(line.tone)}, {"text", line.text}, {"rule", line.rule}});
    QJsonArray rows;
    for (const QVariantList& row : view->table.rows) {
        QJsonArray cells;
        for (const QVariant& cell : row) cells.append(cell.isValid() ? QJsonValue::fromVariant(cell) : QJsonValue());
        rows.append(cells);
    }
    return QJsonObject{{"answer", view->word},
                       {"sentence", view->sub},
                       {"lines", lines},
                       {"title", view->table.title},
                       {"head", QJsonArray::fromStringList(view->table.head)},
                       {"rows", rows}};
}

} // namespace rollcall::cli

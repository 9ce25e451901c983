// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/plan_page.h"

#include "app/shared/drop_down.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/proof.h"
#include "report/ledger_paper.h"
#include "words/words.h"

#include <QPointer>
#include <QRandomGenerator>
#include <QSettings>

namespace rollcall {

namespace {

// What a form says, as a plan; not looked at yet.
StudyPlan wishedBy(const FormValues& v, std::uint32_t seed) {
    StudyPlan wish;
    wish.name = v["name"].toStdString();
    wish.factor = v["factor"].toStdString();
    for (const QString& level : v["levels"].split(QLatin1Char(','), Qt::SkipEmptyParts))
        wish.levels.push_back(level.simplified().toStdString());
    const int measured = std::clamp(v["measured"].toInt(), 0, static_cast<int>(allMeasured.size()) - 1);
    wish.measured = allMeasured[static_cast<std::size_t>(measured)];
    const auto number = [&](const char* field) {
        const auto typed = parseNumber(v[field].toStdString());
        return typed ? *typed : 0.0;
    };
    wish.difference = number("difference");
    wish.sd = number("sd");
    wish.power = number("power") / 100;
    wish.seed = seed;
    return wish;
}

} // namespace

PlanPage::PlanPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-plan"), m_seams(seams), m_which(addChoice("study", tr("Study"))) {}

const StudyPlan* PlanPage::plan() const {
    if (m_draft) return &*m_draft;
    const std::vector<StudyPlan>& plans = m_document.state().shop().plans;
    const int at = m_which->currentIndex();
    return at >= 0 && at < static_cast<int>(plans.size()) ? &plans[static_cast<std::size_t>(at)] : nullptr;
}

void PlanPage::offer(const LedgerNow&) {
    QStringList names;
    for (const StudyPlan& plan : m_document.state().shop().plans) names << QString::fromStdString(plan.name);
    m_which->setVisible(!names.isEmpty() && !m_draft); // another is chosen when this one is kept or given up
    if (fill(m_which, names)) m_which->setCurrentIndex(static_cast<int>(names.size()) - 1); // the last planned
}

LedgerPage::Question PlanPage::question() const {
    const StudyPlan* one = plan();
    if (one == nullptr)
        return [](const LedgerNow&) {
            return planView(Error{ErrorKind::argument, "", tr("Nothing is planned yet.").toStdString()});
        };
    return [plan = *one](const LedgerNow& now) {
        const LedgerBatch* batch = plan.batch.empty() ? nullptr : now.ledger->batch(plan.batch);
        if (batch != nullptr) {
            const auto values = valuesOf(plan, *batch);
            const bool any =
                std::any_of(values.begin(), values.end(), [](const auto& level) { return !level.empty(); });
            if (any) return studyView(plan, readStudy(plan, values), *batch);
        }
        LedgerView view = planView(plan);
        if (batch != nullptr) {
            for (std::vector<LedgerPlace>& places : view.places) places = {{batch->id, {}}};
        }
        return view;
    };
}

ColumnContent PlanPage::content() const {
    ColumnContent content = LedgerPage::content();
    const StudyPlan* one = plan();
    content.left = tr("Another plan");
    if (one == nullptr) {
        content.act = tr("Plan a study");
        content.detail = tr("factor, levels, the difference that matters");
        return content;
    }
    content.caption = QString::fromStdString(one->name);
    content.below.push_back(
        {Tone::note, tr("%1; %2").arg(QString::fromStdString(one->factor), measuredName(one->measured)), {}, false});
    if (one->batch.empty()) {
        content.act = tr("Begin it");
        content.detail = tr("makes a batch of its pieces");
    } else {
        content.act = tr("Open its batch");
        content.detail = tr("harden, temper and read them in their order");
    }
    return content;
}

void PlanPage::act() {
    const StudyPlan* one = plan();
    if (one == nullptr) return makePlan();
    if (one->batch.empty()) return keep();
    m_document.selectBatch(one->batch, [self = QPointer<PlanPage>(this)](const Result<Done>& done) {
        if (self == nullptr) return;
        if (!done) return emit self->said(words::errorText(done.error()), true);
        emit self->placeWanted(QStringLiteral("overview-bench"), 0);
    });
}

void PlanPage::leftAct() {
    makePlan();
}

void PlanPage::makePlan() {
    QStringList measured;
    for (const Measured one : allMeasured) measured << measuredName(one);
    // The order is drawn once for the form, so that what is looked at is what is kept.
    const std::uint32_t seed = QRandomGenerator::global()->generate();
    const QString grade = m_document.hasBatch() ? QString::fromStdString(m_document.batch().grade) : QString();
    auto* form = new FormDialog(
        tr("Plan a study"), tr("Look at it"),
        {{"name", tr("Name"), tr("a batch of this name is made"), {}, {}, false},
         {"factor", tr("What is varied"), tr("soak at temperature"), {}, {}, false},
         {"levels", tr("Levels"), tr("5 min, 10 min, 15 min"), {}, {}, false},
         {"measured", tr("What is measured"), {}, QStringLiteral("0"), numberedChoices(measured), false},
         {"difference", tr("Difference that matters"), tr("0.5"), QStringLiteral("0.5"), {}, false},
         {"sd", tr("Pieces scatter by"), tr("standard deviation within a level"), QStringLiteral("0.4"), {}, false},
         {"power", tr("To be seen, %"), tr("80: in 80 of 100 such studies"), QStringLiteral("80"), {}, false},
         {"grade", tr("Grade"), tr("of all pieces"), grade, {}, false}},
        m_look, window());
    form->note([seed](const FormValues& v) {
        const auto plan = planned(wishedBy(v, seed));
        return plan ? tr("%1 pieces of each level, %2 in all.")
                          .arg(plan->pieces)
                          .arg(plan->pieces * static_cast<int>(plan->levels.size()))
                    : QString();
    });
    form->ask(
        [seed](const FormValues& v) -> FormFault {
            if (v["factor"].isEmpty()) return {QStringLiteral("factor"), tr("Say what is varied.")};
            const auto plan = planned(wishedBy(v, seed));
            return plan ? FormFault{}
                        : FormFault{QString::fromStdString(plan.error().place), words::errorText(plan.error())};
        },
        [this, seed](const FormValues& v) {
            auto plan = planned(wishedBy(v, seed));
            if (!plan) return;
            m_draft = std::move(plan).value();
            m_grade = v["grade"];
            askAnew();
            emit changed();
        });
}

void PlanPage::keep() {
    if (!m_draft) return;
    const StudyPlan plan = *m_draft;
    BatchDraft draft;
    draft.name = plan.name;
    draft.grade = m_grade.toStdString();
    draft.purpose = "study";
    constexpr int readings = 3;
    draft.plan[indexOf(Gate::quench)] = {plan.measured == Measured::quenched, readings};
    draft.plan[indexOf(Gate::temper)] = {plan.measured == Measured::tempered, readings};
    draft.plan[indexOf(Gate::proof)] = {plan.measured == Measured::strokes || plan.measured == Measured::grain, 1};
    for (const std::string& mark : marksOf(plan)) {
        BladeDraft piece;
        piece.mark = mark;
        piece.shape = BladeShape::knife(60, 25, 3);
        piece.thickness_text = "3";
        draft.blades.push_back(std::move(piece));
    }
    m_document.perform(
        [draft, plan](Logbook& logbook) -> Result<Done> {
            const auto batch = addBatch(logbook, draft);
            if (!batch) return batch.error();
            if (auto kept = keepStudyPlan(logbook, plan, *batch); !kept) return kept.error();
            return Done{};
        },
        [self = QPointer<PlanPage>(this), name = plan.name](const Result<Done>& done) {
            if (self == nullptr || !done) return; // the document says what is wrong
            self->m_draft.reset();
            self->askAnew();
            emit self->said(tr("%1 is begun; its pieces are a batch.").arg(QString::fromStdString(name)), false);
            emit self->changed();
        });
}

void PlanPage::printLabels() {
    const StudyPlan* one = plan();
    if (one == nullptr) return;
    const bool letter = QSettings().value(QStringLiteral("shop/paper")).toString() == QLatin1String("Letter");
    const DrawPages labels = [plan = *one](Paper& paper) { return drawStudyLabels(paper, plan); };
    if (const auto printed =
            m_seams.print(window(), tr("Labels: %1").arg(QString::fromStdString(one->name)), letter, labels))
        emit said(tr("%1 pages of labels are with the printer.").arg(*printed), false);
}

QString PlanPage::unsaved() const {
    return m_draft ? tr("The planned study is not kept yet: Begin it keeps it.") : QString();
}

bool PlanPage::escape() {
    if (LedgerPage::escape()) return true;
    if (!m_draft) return false;
    m_draft.reset();
    emit said(tr("The plan is given up."), false);
    askAnew();
    return true;
}

Commands PlanPage::commands() {
    const auto none = [this] { return plan() == nullptr ? tr("Nothing is planned yet.") : QString(); };
    Commands all{{QStringLiteral("ledger-plan.new"), tr("Plan a study"),
                  tr("factor, levels, the difference that matters"), Verb::makeNew, [this] { makePlan(); }},
                 {QStringLiteral("ledger-plan.labels"), tr("Print labels"),
                  tr("one for each piece, in the order of work"), Verb::none, [this] { printLabels(); }, none}};
    for (Command& command : LedgerPage::commands()) all.push_back(std::move(command));
    return all;
}

HelpText PlanPage::help() const {
    return {tr("How many pieces must I make, and in which order, to know whether something matters?"),
            {{Pictogram::pen, tr("Say what is varied, its levels, what difference matters and how pieces scatter.")},
             {Pictogram::boxes, tr("The table is the order of work, drawn by lot; print its labels.")},
             {Pictogram::arrows, tr("Begin it: its pieces become a batch, and are hardened and read as any other.")},
             {Pictogram::question, tr("When they are read, this page sets the result against the plan.")}},
            {QStringLiteral("M31")},
            tr("Pieces of one oven load share its luck; vary what you vary piece by piece, or count loads.")};
}

} // namespace rollcall

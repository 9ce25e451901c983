// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/evidence_pages.h"

#include "app/shared/drop_down.h"
#include "words/words.h"

namespace rollcall {

namespace {

// What a question asks for that nothing is known of.
LedgerView nothing(const QString& why) {
    LedgerView view;
    view.word = LedgerPage::tr("Too little");
    view.sub = why;
    view.chart.empty = why;
    return view;
}

template<class Enum>
Enum chosenOf(const DropDown* field) {
    return static_cast<Enum>(std::max(0, field->currentIndex()));
}

} // namespace

WeekPage::WeekPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-week") {
    chart()->hide(); // sentences alone
}

LedgerPage::Question WeekPage::question() const {
    return [testers = m_document.state().shop().testers, runs = m_document.state().runs(),
            blocks = usesOf(m_document.state().shop().blocks), at = m_document.now()](const LedgerNow& now) {
        return weekView(weekOf(*now.ledger, *now.tables, testers, runs, blocks, at));
    };
}

bool WeekPage::aboutTesters() const {
    return table()->current() >= 3; // the last two of the five
}

ColumnContent WeekPage::content() const {
    ColumnContent content = LedgerPage::content();
    content.left = tr("Print it");
    content.right = tr("As a file");
    if (table()->current() < 0) content.detail = tr("choose a sentence");
    if (!aboutTesters()) return content;
    content.act = tr("Testers");
    content.detail = tr("and their blocks");
    return content;
}

void WeekPage::act() {
    if (aboutTesters()) return emit placeWanted(QStringLiteral("testers-bench"), 0);
    LedgerPage::act();
}

HelpText WeekPage::help() const {
    return {tr("What changed in the last seven days that I should know of?"),
            {{Pictogram::page, tr("Five sentences: the work, what passed at once, limits, testers, blocks.")},
             {Pictogram::question, tr("A triangle marks what wants a look.")},
             {Pictogram::arrows, tr("The other pages show what it rests on.")},
             {Pictogram::pen, tr("Print it from the menu, for the wall.")}},
            {QStringLiteral("E33"), QStringLiteral("M6"), QStringLiteral("M13")},
            tr("It counts a batch to the day of its last reading, and sees nothing that was not logged.")};
}

HardnessPage::HardnessPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-tempers"), m_grade(addChoice("grade", tr("Grade"))) {}

void HardnessPage::offer(const LedgerNow& now) {
    offerGrades(m_grade, now, {});
}

LedgerPage::Question HardnessPage::question() const {
    return [name = chosenGrade(m_grade), oven = m_document.state().shop().ovenSteps()](const LedgerNow& now) {
        const Grade* grade = now.tables->grade(name);
        if (grade == nullptr)
            return nothing(name.empty() ? tr("No batch yet.")
                                        : tr("%1 is not in the library.").arg(QString::fromStdString(name)));
        const auto ledger = temperLedger(*now.ledger, *grade, oven);
        return ledger ? temperView(*ledger) : nothing(words::errorText(ledger.error()));
    };
}

HelpText HardnessPage::help() const {
    return {
        tr("What does this grade give me at each temper?"),
        {{Pictogram::oven, tr("Every heat that was read after a temper is a point; its bar is softest to hardest.")},
         {Pictogram::trace, tr("The thick line is this shop's curve, its band a new heat (95 %).")},
         {Pictogram::boxes, tr("Draw a frame over points to see their batches.")},
         {Pictogram::question, tr("The column says where one more heat would teach most.")}},
        {QStringLiteral("M19"), QStringLiteral("M20")},
        tr("Only bench readings by a verified tester teach; files and unverified readings do not.")};
}

ComparePage::ComparePage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-against"), m_factor(addChoice("factor", tr("What is compared"))),
      m_grade(addChoice("grade", tr("Grade"))), m_response(addChoice("response", tr("Hardness"))) {
    for (const Factor factor : allFactors) {
        const QString name = factorName(factor);
        m_factor->addItem(name.left(1).toUpper() + name.mid(1));
    }
    for (const Response response : {Response::tempered, Response::quenched})
        m_response->addItem(responseName(response));
}

void ComparePage::offer(const LedgerNow& now) {
    offerGrades(m_grade, now, tr("All grades"));
    if (picked(m_factor) || now.left > 0) return;
    // To begin with what can be compared at all: two levels of two batches each. Cheap, since the window waits for it.
    for (const Factor factor : allFactors) {
        std::map<std::string, int> levels;
        for (const LedgerBatch* batch : now.ledger->batches()) ++levels[levelOf(*batch, factor)];
        levels.erase(std::string());
        const auto several =
            std::count_if(levels.begin(), levels.end(), [](const auto& one) { return one.second > 1; });
        if (several < 2) continue;
        m_factor->setCurrentIndex(static_cast<int>(factor));
        return;
    }
}

LedgerPage::Question ComparePage::question() const {
    return [factor = chosenOf<Factor>(m_factor), response = chosenOf<Response>(m_response),
            name = m_grade->currentIndex() > 0 ? chosenGrade(m_grade) : std::string()](const LedgerNow& now) {
        std::vector<const Grade*> grades;
        for (const std::string& one : now.ledger->grades()) {
            const Grade* grade = now.tables->grade(one);
            if (grade != nullptr && (name.empty() || one == name)) grades.push_back(grade);
        }
        return compareView(compareLevels(*now.ledger, grades, factor, response), factor, response);
    };
}

HelpText ComparePage::help() const {
    return {tr("Does one recipe, oven, person, tester or bar read differently from another, or scatter more?"),
            {{Pictogram::boxes, tr("Choose what is compared, the grade, and as quenched or after temper.")},
             {Pictogram::trace, tr("Each heat is a ring; the line beside them is the mean with what is known of it.")},
             {Pictogram::question, tr("The column gives each pair its difference, and how many heats would tell.")},
             {Pictogram::arrows, tr("All pairs are counted, so that none is called better by chance.")}},
            {QStringLiteral("M20")},
            tr("Heats were not assigned by lot; plan a study to know.")};
}

SeriesPage::SeriesPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-drift"), m_series(addChoice("series", tr("What is followed"))),
      m_kind(addChoice("kind", tr("How it is drawn"))) {
    m_kind->addItems({tr("one by one"), tr("summed up")});
}

LedgerPage::Question SeriesPage::question() const {
    return [wished = picked(m_series) ? m_series->currentText() : QString(), summed = m_kind->currentIndex() == 1,
            testers = m_document.state().shop().testers, runs = m_document.state().runs(), at = m_document.now(),
            followed = m_followed](const LedgerNow& now) {
        const std::vector<ShopSeries> all = shopSeries(*now.ledger, *now.tables, testers, runs, at);
        if (all.empty()) return nothing(tr("Nothing has four values yet."));
        const ShopSeries* chosen = nullptr;
        followed->names.clear();
        for (const ShopSeries& series : all) {
            followed->names << seriesName(series);
            if (followed->names.back() == wished) chosen = &series;
        }
        // To begin with what has changed.
        const auto changed = [](const SeriesSays& says) {
            return (says.chart && !says.chart->alarms.empty()) || (says.cumulative && says.cumulative->signal);
        };
        for (auto series = all.begin(); series != all.end() && chosen == nullptr; ++series) {
            if (changed(saysOf(*series))) chosen = &*series;
        }
        if (chosen == nullptr) chosen = &all.front();
        followed->shown = seriesName(*chosen);
        return seriesView(*chosen, saysOf(*chosen), summed);
    };
}

void SeriesPage::answered() {
    fill(m_series, m_followed->names);
    m_series->setCurrentText(m_followed->shown);
}

HelpText SeriesPage::help() const {
    return {tr("Is an oven, a grade or a tester moving away from what it was?"),
            {{Pictogram::trace, tr("One by one: each heat or run against limits from the first twenty.")},
             {Pictogram::arrows, tr("Summed up: a small shift that lasts adds up, and is seen sooner.")},
             {Pictogram::question, tr("Filled diamonds are what chance hardly does; the table says by which rule.")},
             {Pictogram::oven, tr("An oven's mean is told in degrees too, as an estimate.")}},
            {QStringLiteral("E41"), QStringLiteral("M20")},
            tr("What reads off may be oven, tester or steel; a known thermocouple and a block decide.")};
}

YieldPage::YieldPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-yield"), m_grade(addChoice("grade", tr("Grade"))) {}

void YieldPage::offer(const LedgerNow& now) {
    offerGrades(m_grade, now, tr("All grades"));
}

LedgerPage::Question YieldPage::question() const {
    return [name = m_grade->currentIndex() > 0 ? chosenGrade(m_grade) : std::string()](const LedgerNow& now) {
        return yieldView(yieldLedger(*now.ledger, name));
    };
}

HelpText YieldPage::help() const {
    return {tr("How many blades pass at the first go, and what does the rest cost?"),
            {{Pictogram::boxes, tr("Gates first, then months; the bars are what is known of each share (95 %).")},
             {Pictogram::oven, tr("Rework counts hardenings again and oven loads beyond the steel's own.")},
             {Pictogram::question, tr("The column lists what held blades back most often.")}},
            {QStringLiteral("E33")},
            tr("A blade hardened again counts at Quench, whatever it was hardened again for.")};
}

TriedPage::TriedPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-tried"), m_grade(addChoice("grade", tr("Grade"))),
      m_by(addChoice("by", tr("Put together"))), m_property(addChoice("property", tr("Property"))) {
    for (const ProofBy by : allProofBys) m_by->addItem(proofByName(by));
}

void TriedPage::offer(const LedgerNow& now) {
    offerGrades(m_grade, now, tr("All grades"));
    const std::string name = m_grade->currentIndex() > 0 ? chosenGrade(m_grade) : std::string();
    QStringList names;
    for (const ProofProperty& property : proofLedger(*now.ledger, name, chosenOf<ProofBy>(m_by)).properties)
        names << propertyName(property);
    fill(m_property, names);
}

LedgerPage::Question TriedPage::question() const {
    return [name = m_grade->currentIndex() > 0 ? chosenGrade(m_grade) : std::string(), by = chosenOf<ProofBy>(m_by),
            property = static_cast<std::size_t>(std::max(0, m_property->currentIndex()))](const LedgerNow& now) {
        return proofView(proofLedger(*now.ledger, name, by), by, property);
    };
}

HelpText TriedPage::help() const {
    return {tr("Which steel, edge and hardness stood what was done to them?"),
            {{Pictogram::rod, tr("Edges on the rod, trials, counted strokes and grain, each property alone.")},
             {Pictogram::boxes, tr("Put blades together by grade, purpose, hardness or edge angle.")},
             {Pictogram::question, tr("A place is given only as far as it is known: what overlaps is a tie.")}},
            {QStringLiteral("E33")},
            tr("Nothing is ranked over all properties, and hardness is no measure of a blade.")};
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/ledger_page.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/drop_down.h"
#include "app/shared/plain_text.h"
#include "core/base/number.h"
#include "report/ledger_paper.h"
#include "words/words.h"

#include <QAbstractSlider>
#include <QBoxLayout>
#include <QFileInfo>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <QPointer>
#include <QSettings>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int againMs = 250;
constexpr auto pickedProperty = "picked";

} // namespace

LedgerPage::LedgerPage(Document& document, const Seams& seams, const Look& look, const char* name)
    : Bench(document, look), m_seams(seams), m_choices(new QBoxLayout(QBoxLayout::LeftToRight)),
      m_chart(new LedgerChartView(look)), m_table(new LedgerTable(look)) {
    setObjectName(QString::fromLatin1(name));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(look.px(8));
    m_choices->setSpacing(look.px(12));
    m_choices->addStretch(1);
    column->addLayout(m_choices);
    column->addWidget(m_chart, 1);
    column->addWidget(m_table);
    m_again.setSingleShot(true);
    m_again.setInterval(againMs);
    connect(&m_again, &QTimer::timeout, this, &LedgerPage::fetch);
    connect(m_chart, &LedgerChartView::picked, m_table, &LedgerTable::choose);
    connect(m_chart, &LedgerChartView::opened, this, &LedgerPage::open);
    connect(m_table, &LedgerTable::opened, this, &LedgerPage::open);
    connect(m_table, &LedgerTable::roomChanged, this, &LedgerPage::fitTable);
    connect(m_table, &LedgerTable::chosenChanged, this, [this] {
        m_chart->choose(m_table->chosen());
        emit changed();
    });
}

DropDown* LedgerPage::addChoice(const char* name, const QString& what) {
    auto* field = new DropDown;
    field->setObjectName(QString::fromLatin1(name));
    field->setAccessibleName(what);
    field->setFont(m_look.font(18, true));
    field->setMinimumHeight(px(40));
    field->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    field->setMinimumWidth(px(90)); // less than its texts: the window may become small
    connect(field, &QComboBox::activated, this, [this, field] {
        field->setProperty(pickedProperty, true);
        m_group = -1;
        askAnew(); // what else can be chosen may hang on it
    });
    addControl(field);
    return field;
}

void LedgerPage::addControl(QWidget* control) {
    m_choices->insertWidget(m_choices->count() - 1, control);
}

void LedgerPage::addRow(QWidget* row) {
    static_cast<QVBoxLayout*>(layout())->insertWidget(1, row);
}

// What was picked stays where it is still there; else the first stands.
bool LedgerPage::fill(DropDown* field, const QStringList& names) {
    QStringList there;
    for (int i = 0; i < field->count(); ++i) there << field->itemText(i);
    if (there == names) return false;
    const QString chosen = field->currentText();
    field->clear();
    field->addItems(names);
    if (picked(field) && names.contains(chosen)) field->setCurrentText(chosen);
    return true;
}

void LedgerPage::offerGrades(DropDown* field, const LedgerNow& now, const QString& all) {
    QStringList names;
    if (!all.isEmpty()) names << all;
    for (const std::string& grade : now.ledger->grades()) names << QString::fromStdString(grade);
    fill(field, names);
}

// Until somebody picks, the first stands: it may become another while batches are still gone through.
bool LedgerPage::picked(const DropDown* field) {
    return field->property(pickedProperty).toBool();
}

// What stands for all of them is the first row, which has no grade.
std::string LedgerPage::chosenGrade(const DropDown* field) {
    return field->currentText().toStdString();
}

void LedgerPage::setInFront(bool inFront) {
    Bench::setInFront(inFront);
    if (inFront && m_stale) fetch();
}

void LedgerPage::refresh() {
    if (m_revision == m_document.revision()) return; // told by this page itself
    m_stale = true;
    if (m_inFront && !m_again.isActive()) m_again.start();
    update();
}

// What is shown until all batches are gone through is of those that are; it is asked again until nothing is left.
void LedgerPage::fetch() {
    m_stale = false;
    m_fetching = true;
    m_revision = m_document.revision();
    m_document.ledger([self = QPointer<LedgerPage>(this)](const LedgerNow& now) {
        if (self == nullptr) return;
        const bool news = self->m_now.ledger != now.ledger || self->m_now.tables != now.tables;
        self->m_fetching = false;
        self->m_now = now;
        self->m_left = now.left;
        if (now.left > 0 && self->m_inFront) self->m_again.start();
        if (news)
            self->ask();
        else
            emit self->changed();
    });
}

void LedgerPage::askAnew() {
    m_offeredFor.reset();
    ask();
}

void LedgerPage::ask() {
    if (!m_now.ledger) return;
    if (m_working) {
        m_waiting = true;
        return;
    }
    if (m_offeredFor != m_now.ledger) offer(m_now);
    m_offeredFor = m_now.ledger;
    m_working = true;
    const int asked = ++m_question;
    m_document.aside(
        [self = QPointer<LedgerPage>(this), asked, now = m_now, answer = question()]() -> std::function<void()> {
            return [self, asked, view = std::make_shared<LedgerView>(answer(now))] {
                if (self != nullptr) self->take(std::move(*view), asked);
            };
        });
}

void LedgerPage::take(LedgerView view, int asked) {
    m_working = false;
    if (asked != m_question) return;
    m_view = std::move(view);
    answered();
    show();
    if (std::exchange(m_waiting, false)) ask();
}

void LedgerPage::show() {
    LedgerView shown = m_group >= 0 ? groupedBy(m_view, m_group) : m_view;
    LedgerChart chart = shown.chart;
    m_table->show(std::move(shown));
    // The keys are the table's as soon as there is one.
    const bool first = !m_table->isVisibleTo(this);
    m_table->setVisible(m_table->ledger().rowCount() > 0);
    fitTable();
    if (first && m_inFront && !isAncestorOf(window()->focusWidget())) m_table->setFocus();
    m_chart->show(std::move(chart));
    m_chart->choose(m_table->chosen());
    emit changed();
}

void LedgerPage::paintEvent(QPaintEvent*) {
    QPainter(this).fillRect(rect(), palette().panel);
}

void LedgerPage::resizeEvent(QResizeEvent* event) {
    Bench::resizeEvent(event);
    fitTable();
}

// The table has whole rows, and two fifths of the page at most; choices that do not fit beside each other stand one
// under the other.
void LedgerPage::fitTable() {
    constexpr double share = 0.4;
    m_table->wish(m_table->rowsIn(qRound(height() * share)));
    int wide = 0;
    for (int i = 0; i < m_choices->count(); ++i) {
        if (QWidget* choice = m_choices->itemAt(i)->widget()) wide += choice->sizeHint().width() + m_choices->spacing();
    }
    m_choices->setDirection(wide > width() ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
}

ColumnContent LedgerPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    content.caption = title();
    content.state = m_view.state;
    content.word = m_view.word;
    content.sub = m_view.sub;
    if (m_left > 0)
        content.lines.push_back(
            {Tone::open, tr("%1 batches are still to be gone through").arg(m_left), QStringLiteral("record"), false});
    const std::set<int> chosen = m_table->chosen();
    if (chosen.size() > 1) {
        std::set<std::string> batches;
        for (const int row : chosen) {
            for (const LedgerPlace& place : m_table->ledger().view().places[static_cast<std::size_t>(row)])
                batches.insert(place.batch);
        }
        content.lines.push_back(
            {Tone::note, tr("%1 rows picked out, of %2 batches").arg(chosen.size()).arg(batches.size()), {}, false});
    }
    for (const LedgerView::Line& line : m_view.lines) content.lines.push_back({line.tone, line.text, line.rule, false});
    addLines(content);
    content.act = tr("Open it");
    const int row = m_table->current();
    const auto& places = m_table->ledger().view().places;
    const bool leads =
        row >= 0 && row < static_cast<int>(places.size()) && !places[static_cast<std::size_t>(row)].empty();
    content.detail = leads ? tr("the batch of the row in hand") : tr("choose a row that has a batch");
    content.left = tr("Together by");
    content.right = tr("Columns");
    return content;
}

void LedgerPage::act() {
    open(m_table->current());
}

void LedgerPage::open(int row) {
    const auto& places = m_table->ledger().view().places;
    if (row < 0 || row >= static_cast<int>(places.size()) || places[static_cast<std::size_t>(row)].empty())
        return emit said(tr("Choose a row that has a batch."), true);
    const LedgerPlace place = places[static_cast<std::size_t>(row)].back(); // of several the newest
    m_document.selectBatch(place.batch, [self = QPointer<LedgerPage>(this), place](const Result<Done>& done) {
        if (self == nullptr) return;
        if (!done) return emit self->said(words::errorText(done.error()), true);
        Document& document = self->m_document;
        const auto& blades = document.batch().blades;
        for (std::size_t i = 0; i < blades.size(); ++i) {
            if (blades[i].id == place.blade) document.selectBlade(static_cast<int>(i));
        }
        if (!place.blade.empty() && document.batch().planOf(Gate::temper).required)
            emit self->gateWanted(Gate::temper);
        else
            emit self->placeWanted(QStringLiteral("overview-bench"), 0);
    });
}

void LedgerPage::leftAct() {
    chooseGroup();
}

void LedgerPage::rightAct() {
    chooseColumns();
}

void LedgerPage::chooseGroup() {
    std::vector<Choice> choices{{QStringLiteral("0"), tr("Nothing: every row"), {}}};
    const QStringList& head = m_view.table.head;
    for (int i = 0; i < head.size() && i < 9; ++i) choices.push_back({QString::number(i + 1), head[i], {}});
    (new ChoiceDialog(tr("Put rows together by"), {}, choices, m_look, window()))
        ->ask([self = QPointer<LedgerPage>(this)](int choice) {
            if (self == nullptr) return;
            self->m_group = choice - 1;
            self->show();
        });
}

void LedgerPage::chooseColumns() {
    std::vector<Choice> choices;
    const QStringList& head = m_table->ledger().view().table.head;
    for (int i = 0; i < head.size() && i < 9; ++i)
        choices.push_back({QString::number(i + 1), head[i], m_table->isColumnHidden(i) ? tr("hidden") : tr("shown")});
    if (choices.empty()) return emit said(tr("There is no table yet."), true);
    (new ChoiceDialog(tr("Show or hide a column"), {}, choices, m_look, window()))
        ->ask([self = QPointer<LedgerPage>(this)](int column) {
            if (self == nullptr) return;
            const bool hide = !self->m_table->isColumnHidden(column);
            int shown = 0;
            for (int i = 0; i < self->m_table->ledger().columnCount(); ++i)
                shown += self->m_table->isColumnHidden(i) ? 0 : 1;
            if (hide && shown == 1) return emit self->said(tr("One column stays."), true);
            self->m_table->setColumnHidden(column, hide);
        });
}

void LedgerPage::print(bool file) {
    const bool letter = QSettings().value(QStringLiteral("shop/paper")).toString() == QLatin1String("Letter");
    const QString shop = QSettings().value(QStringLiteral("shop/name")).toString();
    LedgerView shown = m_table->ledger().view();
    shown.table = m_table->shownTable();
    const QString name = shown.table.title.isEmpty() ? title() : shown.table.title;
    const DrawPages pages = [shown, shop, now = m_document.now()](Paper& paper) {
        return drawLedgerPages(paper, shown, shop, now);
    };
    if (!file) {
        if (const auto printed = m_seams.print(window(), name, letter, pages))
            emit said(tr("%1: %2 pages are with the printer.").arg(name).arg(*printed), false);
        return;
    }
    const QString path = m_seams.chooseFile(window(), name, tr("PDF (*.pdf)"), true);
    if (path.isEmpty()) return;
    const auto written = writePdf(path, letter, name, pages);
    emit said(written ? tr("%1: %2 pages.").arg(QFileInfo(path).fileName()).arg(*written)
                      : words::errorText(written.error()),
              !written);
}

Commands LedgerPage::commands() {
    const QString place = objectName();
    const auto empty = [this] {
        return m_table->ledger().rowCount() == 0 ? tr("There is nothing on it yet.") : QString();
    };
    Commands all{
        {place + QStringLiteral(".print"), tr("Print this page"), tr("what is said, the picture, the table"),
         Verb::none, [this] { print(false); }, empty},
        {place + QStringLiteral(".pdf"), tr("Page as a file"), tr("PDF"), Verb::none, [this] { print(true); }, empty}};
    for (Command& command : m_chart->stretch().commands(place)) all.push_back(std::move(command));
    return all;
}

QStringList LedgerPage::movements() const {
    return {tr("Up and down   the rows; Shift picks out more"),
            tr("A click on the picture   its row; a frame   all in it"), tr("A click on a column's head   sorts")};
}

// The rows are gone through from wherever the keys are, but where a choice or a number has them.
bool LedgerPage::key(QKeyEvent* event) {
    const QWidget* focus = window()->focusWidget();
    const bool elsewhere =
        qobject_cast<const QComboBox*>(focus) != nullptr || qobject_cast<const QAbstractSlider*>(focus) != nullptr;
    if (elsewhere || !m_table->isVisible()) return false;
    const int page = std::max(1, m_table->rowsIn(m_table->height()));
    const int all = m_table->ledger().rowCount();
    const std::map<int, int> steps{{Qt::Key_Up, -1},         {Qt::Key_Down, 1},    {Qt::Key_PageUp, -page},
                                   {Qt::Key_PageDown, page}, {Qt::Key_Home, -all}, {Qt::Key_End, all}};
    const auto step = steps.find(event->key());
    if (step == steps.end()) return false;
    m_table->stepRows(step->second, event->modifiers() & Qt::ShiftModifier);
    return true;
}

bool LedgerPage::escape() {
    if (m_table->chosen().empty()) return false;
    m_table->choose({});
    return true;
}

std::vector<ReportTable> LedgerPage::tables() const {
    return {m_table->shownTable()};
}

} // namespace rollcall

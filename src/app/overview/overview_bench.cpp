// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/overview/overview_bench.h"

#include "app/acts/shop_actions.h"
#include "app/exchange/exchange_actions.h"
#include "core/judge/agenda.h"
#include "plot/glyphs.h"
#include "plot/rule.h"
#include "words/words.h"

#include <algorithm>
#include <QHeaderView>
#include <QKeyEvent>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int headHeight = 48;
constexpr int footHeight = 118;
constexpr int rowHeight = 56;

class MatrixDelegate : public QStyledItemDelegate {
public:
    MatrixDelegate(const MatrixModel& model, const Document& document, const Look& look, QObject* parent)
        : QStyledItemDelegate(parent), m_model(model), m_document(document), m_look(look) {}
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const auto px = [&](int v) { return m_look.px(v); };
        const QRect& r = option.rect;
        const Verdict* verdict = m_model.verdict(index);
        painter->fillRect(r, p.panel);
        painter->fillRect(r.left(), r.bottom(), r.width(), 1, p.hair);
        const bool current = option.state & QStyle::State_Selected;
        if (verdict != nullptr) {
            drawVerdictGlyph(*painter, r.left() + px(6), r.top() + px(18), px(20), verdict->state, m_look, p.panel);
            const QString text = index.data().toString();
            const bool judged = verdict->state == State::borderline || verdict->state == State::fail;
            drawFitted(*painter, r.left() + px(32), r.top() + px(34), text, r.width() - px(34), m_look, 16, judged,
                       p.number(verdict->state));
        }
        if (current) {
            painter->setRenderHint(QPainter::Antialiasing, false);
            painter->setPen(QPen(p.primary, 3));
            painter->setBrush(Qt::NoBrush);
            painter->drawRect(r.adjusted(1, 1, -2, -3));
        }
    }

private:
    const MatrixModel& m_model;
    const Document& m_document;
    const Look& m_look;
};

QString shortMark(const std::string& mark) {
    const std::size_t dash = mark.find_last_of("-_ ");
    return QString::fromStdString(dash == std::string::npos ? mark : mark.substr(dash + 1));
}

} // namespace

MatrixModel::MatrixModel(const Document& document, QObject* parent) : GrowingModel(parent), m_document(document) {}

void MatrixModel::refresh() {
    const int rows = m_document.hasBatch() ? static_cast<int>(m_document.batch().blades.size()) : 0;
    changeRows(m_rows, rows, [&] { m_rows = rows; });
}

int MatrixModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : m_rows;
}
int MatrixModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(gateCount);
}

const Verdict* MatrixModel::verdict(const QModelIndex& index) const {
    return m_document.verdict(index.row(), allGates[static_cast<std::size_t>(index.column())]);
}

QVariant MatrixModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const Verdict* v = verdict(index);
    const QString gate = words::gateName(allGates[static_cast<std::size_t>(index.column())]);
    if (v == nullptr) return role == Qt::AccessibleTextRole ? QVariant(tr("%1: not asked").arg(gate)) : QVariant();
    QString value =
        v->measurement && v->state != State::excused ? words::hardness(v->measurement->decided_mean) : QString();
    for (const Reason& reason : v->reasons) {
        if (reason.fact == Fact::soakGood || reason.fact == Fact::soakOver || reason.fact == Fact::soakUnder)
            value = QString::number(reason.numbers.front(), 'f', 1);
    }
    if (role == Qt::DisplayRole) return value;
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole) {
        return tr("%1 at %2: %3. %4")
            .arg(QString::fromStdString(m_document.batch().blades[static_cast<std::size_t>(index.row())].mark), gate,
                 words::stateName(v->state), words::headline(*v));
    }
    return {};
}

QVariant MatrixModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal) return {};
    return words::gateName(allGates[static_cast<std::size_t>(section)]);
}

OverviewBench::OverviewBench(Document& document, ShopActions& actions, ExchangeActions& exchange, const Look& look,
                             QWidget* parent)
    : Bench(document, look, parent), m_actions(actions), m_exchange(exchange), m_model(new MatrixModel(document, this)),
      m_table(new QTableView(this)) {
    setObjectName(QStringLiteral("overview-bench"));
    m_table->setObjectName(QStringLiteral("matrix"));
    m_table->setAccessibleName(tr("Blades by gates"));
    m_table->setModel(m_model);
    m_table->setItemDelegate(new MatrixDelegate(*m_model, document, look, this));
    m_table->setFrameShape(QFrame::NoFrame);
    m_table->setShowGrid(false);
    m_table->horizontalHeader()->hide();
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(look.px(rowHeight));
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    m_table->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    m_table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->setTabKeyNavigation(false);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(headHeight), look.px(24), look.px(footHeight));
    column->addWidget(m_table);
    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& current) {
        if (!m_refreshing && current.isValid()) m_document.selectBlade(current.row());
    });
    connect(m_table, &QTableView::doubleClicked, this, [this](const QModelIndex& index) {
        if (m_model->verdict(index) != nullptr) emit gateWanted(allGates[static_cast<std::size_t>(index.column())]);
    });
}

void OverviewBench::refresh() {
    m_refreshing = true;
    const int column = m_table->currentIndex().isValid() ? m_table->currentIndex().column()
                                                         : static_cast<int>(indexOf(m_document.gate()));
    m_model->refresh();
    m_table->setCurrentIndex(m_model->index(m_document.bladeIndex(), column));
    m_refreshing = false;
    m_table->setVisible(m_document.hasBatch());
    update();
}

ColumnContent OverviewBench::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    if (!m_document.hasBatch()) {
        content.caption = m_document.isOpen() ? tr("An empty logbook") : QString();
        content.act = tr("New batch");
        content.detail = tr("marks, window, thickness: a minute");
        content.left = tr("Import");
        content.left_key = QStringLiteral("I");
        return content;
    }
    const Batch& batch = m_document.batch();
    const std::vector<Task> tasks = m_document.tasks();
    content.caption = tr("%1 so far").arg(QString::fromStdString(batch.name));
    int inWindow = 0;
    int asked = 0;
    int failed = 0;
    int soon = 0;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Gate last = batch.planOf(Gate::temper).required ? Gate::temper : Gate::quench;
        const bool failedSomewhere = std::any_of(allGates.begin(), allGates.end(), [&](Gate gate) {
            const Verdict* at = m_document.verdict(static_cast<int>(i), gate);
            return at != nullptr && at->state == State::fail;
        });
        if (failedSomewhere) ++failed;
        const Verdict* v = m_document.verdict(static_cast<int>(i), last);
        if (v == nullptr || v->state == State::excused) continue;
        ++asked;
        if (v->state == State::pass) ++inWindow;
        if (v->state == State::notYet) ++soon;
    }
    content.state = tasks.empty() ? State::pass
                    : failed > 0  ? State::fail
                    : soon > 0    ? State::notYet
                                  : State::borderline;
    content.word = tasks.empty() ? tr("Answered") : soon > 0 ? tr("Not yet") : tr("To sort out");
    if (soon > 0) content.state = State::notYet;
    content.sub = tasks.empty()       ? tr("Every blade has passed or is excused.")
                  : tasks.size() == 1 ? tr("One blade left to do.")
                                      : tr("%1 blades left to do.").arg(tasks.size());
    content.numbers.push_back({tr("In window"), QString::number(inWindow), tr("of %1").arg(asked), false});
    content.numbers.push_back({tr("Failed"), QString::number(failed), {}, false});
    for (const Task& task : tasks) {
        const Verdict* verdict = m_document.verdict(static_cast<int>(task.blade), task.gate);
        const words::NextWords next = words::nextStep(*verdict);
        const Tone tone = task.state == State::fail     ? Tone::bad
                          : task.state == State::notYet ? Tone::open
                                                        : Tone::caution;
        content.lines.push_back(
            {tone,
             tr("%1, %2: %3")
                 .arg(QString::fromStdString(batch.blades[task.blade].mark), words::gateName(task.gate), next.act),
             {},
             false});
    }
    if (!tasks.empty()) {
        content.act = tr("Call %1").arg(QString::fromStdString(batch.blades[tasks.front().blade].mark));
        content.detail = tr("%1: %2").arg(
            words::gateName(tasks.front().gate),
            words::nextStep(*m_document.verdict(static_cast<int>(tasks.front().blade), tasks.front().gate)).act);
    } else {
        content.act = tr("Same again");
        content.detail = tr("a new batch like this one");
    }
    content.left = tr("Menu");
    content.left_key = QStringLiteral("F10");
    const bool pile = batch.isPile();
    content.right = pile ? tr("The pile") : tr("Log temper");
    if (!pile) content.right_key = QStringLiteral("T");
    return content;
}

void OverviewBench::act() {
    if (!m_document.hasBatch()) return m_actions.newBatch(false);
    const std::vector<Task> tasks = m_document.tasks();
    if (tasks.empty()) return m_actions.newBatch(true);
    m_document.selectBlade(static_cast<int>(tasks.front().blade));
    emit gateWanted(tasks.front().gate);
}

void OverviewBench::leftAct() {
    if (m_document.hasBatch())
        emit commandWanted(QStringLiteral("menu"));
    else
        m_exchange.importFromFile();
}

void OverviewBench::rightAct() {
    if (!m_document.hasBatch()) return;
    if (m_document.batch().isPile()) return emit commandWanted(QStringLiteral("pile"));
    m_actions.logTemper({});
}

QStringList OverviewBench::offers() const {
    if (!m_document.hasBatch())
        return {QStringLiteral("new-batch"), QStringLiteral("exchange"), QStringLiteral("testers"),
                QStringLiteral("open"), QStringLiteral("new-logbook")};
    if (m_document.batch().isPile())
        return {QStringLiteral("batches"), QStringLiteral("pile"),    QStringLiteral("claim"),
                QStringLiteral("limits"),  QStringLiteral("testers"), QStringLiteral("exchange"),
                QStringLiteral("second"),  QStringLiteral("why")};
    return {QStringLiteral("batches"), QStringLiteral("new-batch"), QStringLiteral("same-again"),
            QStringLiteral("temper"),  QStringLiteral("limits"),    QStringLiteral("day"),
            QStringLiteral("testers"), QStringLiteral("exchange"),  QStringLiteral("why")};
}

void OverviewBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    if (!m_document.hasBatch()) {
        drawText(painter, px(24), px(60), tr("No batch yet"), m_look.font(28, true), p.ink);
        const QStringList lines{tr("N   new batch: marks, window, thickness, then read"),
                                tr("I    import readings from a CSV file, or drop it here"), tr("F1  all keys")};
        int y = px(104);
        for (const QString& line : lines) {
            drawText(painter, px(24), y, line, m_look.font(18), p.ink);
            y += px(34);
        }
        return;
    }
    const double pitch = static_cast<double>(width() - px(48)) / static_cast<double>(gateCount);
    for (std::size_t i = 0; i < gateCount; ++i) {
        const bool asked = m_document.batch().planOf(allGates[i]).required;
        const int x = px(24) + qRound(pitch * static_cast<double>(i));
        drawFitted(painter, x + px(6), px(24), words::gateName(allGates[i]), qRound(pitch) - px(10), m_look, 16, asked,
                   asked ? p.ink : p.muted);
        // Only what is measured has a unit; Edge, Proof and Release show their verdict alone.
        const QString unit = allGates[i] == Gate::heat                                    ? tr("min")
                             : allGates[i] == Gate::quench || allGates[i] == Gate::temper ? QStringLiteral("HRC")
                                                                                          : QString();
        if (asked) drawText(painter, x + px(6), px(41), unit, m_look.font(14), p.muted);
    }
    painter.fillRect(px(24), px(headHeight) - 1, width() - px(48), 1, p.line);

    const int top = height() - px(footHeight);
    painter.fillRect(0, top, width(), 1, p.line);
    const Gate gate = m_document.batch().planOf(Gate::temper).required ? Gate::temper : Gate::quench;
    RuleData rule;
    if (!m_document.batch().isPile()) // there each has its own
        rule.window = windowOf(m_document.batch(), *m_document.blade(), gate, m_document.tables());
    rule.caption = gate == Gate::temper ? tr("After temper, by blade") : tr("As quenched, by blade");
    rule.compact = true;
    std::vector<double> values;
    for (std::size_t i = 0; i < m_document.batch().blades.size(); ++i) {
        const Verdict* v = m_document.verdict(static_cast<int>(i), gate);
        if (v == nullptr || !v->measurement || v->state == State::excused) continue;
        rule.readings.push_back({v->measurement->decided_mean, shortMark(m_document.batch().blades[i].mark)});
        values.push_back(v->measurement->decided_mean);
    }
    rule.axis = Axis::around(rule.window, values, 6);
    drawRule(painter, QRect(px(24), top + px(4), width() - px(48), px(footHeight) - px(6)), rule, m_look);
}

QWidget* OverviewBench::focusTarget() {
    return m_table;
}

HelpText OverviewBench::help() const {
    return {tr("Where does this batch stand, and what comes next?"),
            {{Pictogram::boxes,
              tr("Each line is a blade, each column a gate; marks and words say how it stands. A click opens it.")},
             {Pictogram::window, tr("Above them all means lie on one rule, against the window.")},
             {Pictogram::arrows, tr("The big button leads to the blade and gate that come first.")},
             {Pictogram::pen, tr("N makes a new batch, S one like this; B chooses another.")}},
            {QStringLiteral("M18"), QStringLiteral("M15")},
            tr("It shows what was logged. A gate that nobody asks for is not looked at.")};
}

} // namespace rollcall

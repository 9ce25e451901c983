// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/speaks_page.h"

#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "logbook/actions/blades.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>
#include <QHeaderView>
#include <QKeyEvent>
#include <QScrollBar>
#include <QStyledItemDelegate>
#include <QTableView>

namespace rollcall {

namespace {

constexpr int headHeight = 78;
constexpr int rowHeight = 44;
constexpr int markWidth = 90;
constexpr int belowHeight = 210; // why: a headline and up to five differences

class SpeechDelegate : public QStyledItemDelegate {
public:
    SpeechDelegate(const SpeechModel& model, const Look& look, QObject* parent)
        : QStyledItemDelegate(parent), m_model(model), m_look(look) {}
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const QRect& r = option.rect;
        const bool current = option.state & QStyle::State_Selected;
        const QColor ground = current ? p.paper : p.panel;
        painter->fillRect(r, ground);
        painter->fillRect(r.left(), r.bottom(), r.width(), 1, p.hair);
        const int middle = r.center().y();
        const auto state = m_model.state(index);
        if (state) drawVerdictGlyph(*painter, r.left(), middle - m_look.px(10), m_look.px(20), *state, m_look, ground);
        const int left = state ? m_look.px(28) : 0;
        drawFitted(*painter, r.left() + left, middle + m_look.px(6), index.data().toString(),
                   r.width() - left - m_look.px(6), m_look, 16, false, state ? p.ink : p.muted);
    }

private:
    const SpeechModel& m_model;
    const Look& m_look;
};

QString speechText(const EndedTest& ended, Speaks speaks) {
    return speaks == Speaks::no                 ? SpeaksPage::tr("no")
           : speaks == Speaks::withReservations ? SpeaksPage::tr("in part")
           : ended.passed                       ? SpeaksPage::tr("for it")
                                                : SpeaksPage::tr("against");
}

} // namespace

void SpeechModel::refresh() {
    const int rows = m_document.hasBatch() ? static_cast<int>(m_document.batch().blades.size()) : 0;
    const int columns = m_document.hasBatch() ? static_cast<int>(m_document.judged().ended().size()) : 0;
    if (columns > m_columns) beginInsertColumns({}, m_columns, columns - 1);
    if (columns < m_columns) beginRemoveColumns({}, columns, m_columns - 1);
    const int had = std::exchange(m_columns, columns);
    if (columns > had) endInsertColumns();
    if (columns < had) endRemoveColumns();
    changeRows(m_rows, rows, [&] { m_rows = rows; });
}

int SpeechModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : m_rows;
}

int SpeechModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : m_columns;
}

std::optional<State> SpeechModel::state(const QModelIndex& index) const {
    const EndedTest& ended = m_document.judged().ended()[static_cast<std::size_t>(index.column())];
    if (ended.blade == static_cast<std::size_t>(index.row())) return std::nullopt;
    const Speaks speaks = m_document.judged().speech(ended, static_cast<std::size_t>(index.row())).speaks;
    return speaks == Speaks::no                 ? State::excused
           : speaks == Speaks::withReservations ? State::borderline
           : ended.passed                       ? State::pass
                                                : State::fail;
}

QVariant SpeechModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const EndedTest& ended = m_document.judged().ended()[static_cast<std::size_t>(index.column())];
    const auto blade = static_cast<std::size_t>(index.row());
    const QString cell = ended.blade == blade ? SpeaksPage::tr("the piece")
                                              : speechText(ended, m_document.judged().speech(ended, blade).speaks);
    if (role == Qt::DisplayRole) return cell;
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole)
        return SpeaksPage::tr("%1 for %2, %3: %4")
            .arg(QString::fromStdString(m_document.batch().blades[ended.blade].mark),
                 QString::fromStdString(m_document.batch().blades[blade].mark), QString::fromStdString(ended.name()),
                 cell);
    return {};
}

QVariant SpeechModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || !m_document.hasBatch()) return {};
    const auto& blades = m_document.batch().blades;
    const std::size_t blade = orientation == Qt::Vertical
                                  ? static_cast<std::size_t>(section)
                                  : m_document.judged().ended()[static_cast<std::size_t>(section)].blade;
    return QString::fromStdString(blades[blade].mark);
}

SpeaksPage::SpeaksPage(Document& document, const Look& look)
    : Bench(document, look), m_model(new SpeechModel(document, this)), m_table(new QTableView(this)) {
    setObjectName(QStringLiteral("speaks-page"));
    tellUnder(this, m_told);
    m_table->setObjectName(QStringLiteral("speech-table"));
    m_table->setAccessibleName(tr("Blades by pieces that speak for them"));
    m_table->setModel(m_model);
    m_table->setItemDelegate(new SpeechDelegate(*m_model, look, this));
    m_table->setFrameShape(QFrame::NoFrame);
    m_table->setShowGrid(false);
    m_table->horizontalHeader()->hide();
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(look.px(rowHeight));
    m_table->setVerticalScrollMode(QAbstractItemView::ScrollPerItem); // no half rows
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->setTabKeyNavigation(false);
    setFocusProxy(m_table);
    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) {
        if (m_refreshing || !now.isValid()) return;
        m_piece = now.column();
        m_document.selectBlade(now.row());
        emit changed();
    });
    connect(m_table->verticalScrollBar(), &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
    connect(m_table->horizontalScrollBar(), &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
}

// As many whole rows as there are, or as leave room for why; the others scroll.
void SpeaksPage::layOut() {
    const int room = std::max(2, (height() - px(headHeight) - px(belowHeight)) / px(rowHeight));
    m_table->setGeometry(px(markWidth), px(headHeight), width() - px(markWidth),
                         std::min(room, m_model->rowCount()) * px(rowHeight));
}

void SpeaksPage::resizeEvent(QResizeEvent*) {
    layOut();
}

void SpeaksPage::refresh() {
    m_refreshing = true;
    m_model->refresh();
    layOut();
    const int pieces = m_model->columnCount();
    m_piece = std::clamp(m_piece, 0, std::max(0, pieces - 1));
    for (int i = 0; i < pieces; ++i)
        m_table->setColumnWidth(i, std::max(px(110), std::min(px(150), (width() - px(markWidth)) / pieces)));
    m_table->setCurrentIndex(m_model->index(m_document.bladeIndex(), m_piece));
    m_table->setVisible(pieces > 0);
    m_refreshing = false;
    setAccessibleName(content().sub);
    update();
}

void SpeaksPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    m_told.clear();
    painter.fillRect(rect(), p.panel);
    if (!anyEnded()) {
        drawText(painter, 0, px(60), tr("No trial has ended yet"), m_look.font(28, true), p.ink);
        drawText(painter, 0, px(100), tr("A piece speaks for blades that were treated no worse than it."),
                 m_look.font(18), p.ink);
        return;
    }
    const Batch& batch = m_document.batch();
    const auto& ended = m_document.judged().ended();
    for (std::size_t i = 0; i < ended.size(); ++i) {
        const int x = m_table->x() + m_table->columnViewportPosition(static_cast<int>(i));
        const int room = m_table->columnWidth(static_cast<int>(i)) - px(8);
        if (x < m_table->x() || x + room > width()) continue;
        const bool chosen = static_cast<int>(i) == m_piece;
        m_told.add({double(x), 0, double(room), double(px(headHeight))},
                   tr("%1 on %2: %3")
                       .arg(QString::fromStdString(ended[i].name()),
                            QString::fromStdString(batch.blades[ended[i].blade].mark),
                            ended[i].passed ? tr("passed") : tr("failed")));
        drawFitted(painter, x, px(22), QString::fromStdString(batch.blades[ended[i].blade].mark), room, m_look, 18,
                   true, chosen ? p.primary : p.ink);
        drawFitted(painter, x, px(44), QString::fromStdString(ended[i].name()), room, m_look, 14, false, p.muted);
        drawText(painter, x, px(64), ended[i].passed ? tr("passed") : tr("failed"), m_look.font(14, true),
                 ended[i].passed ? p.pass : p.fail);
        if (chosen) painter.fillRect(x, px(72), room - px(4), px(4), p.primary);
    }
    for (int b = 0; b < m_model->rowCount(); ++b) {
        const int y = m_table->rowViewportPosition(b);
        if (y < 0 || y + px(rowHeight) > m_table->height()) continue;
        const bool current = b == m_document.bladeIndex();
        const int top = m_table->y() + y;
        m_told.add({0, double(top), double(m_table->x()), double(px(rowHeight))},
                   tr("For %1: which pieces speak, in its row")
                       .arg(QString::fromStdString(batch.blades[static_cast<std::size_t>(b)].mark)));
        if (current) painter.fillRect(0, top, m_table->x(), px(rowHeight), p.paper);
        painter.fillRect(0, top + px(rowHeight) - 1, m_table->x(), 1, p.hair);
        drawFitted(painter, px(6), top + px(rowHeight) / 2 + px(6),
                   QString::fromStdString(batch.blades[static_cast<std::size_t>(b)].mark), px(markWidth - 10), m_look,
                   18, current, current ? p.primary : p.ink);
    }
    const auto& piece = ended[static_cast<std::size_t>(m_piece)];
    const auto blade = static_cast<std::size_t>(m_document.bladeIndex());
    int y = m_table->geometry().bottom() + px(34);
    const QString mark = QString::fromStdString(batch.blades[piece.blade].mark);
    if (piece.blade == blade)
        return drawText(painter, 0, y, tr("%1 is the piece itself.").arg(mark), m_look.font(18, true), p.ink);
    const Speech speech = m_document.judged().speech(piece, blade);
    const QString other = QString::fromStdString(batch.blades[blade].mark);
    drawText(painter, 0, y,
             speech.speaks == Speaks::yes  ? tr("%1 was treated no better than %2: it speaks.").arg(mark, other)
             : speech.speaks == Speaks::no ? tr("%1 does not speak for %2:").arg(mark, other)
                                           : tr("%1 speaks for %2, with reservations:").arg(mark, other),
             m_look.font(20, true), p.ink);
    for (const Difference& difference : speech.differences) {
        y += px(30);
        m_told.add({0, double(y - px(20)), double(width()), double(px(30))},
                   difference.known ? tr("They differ in this, as the record says")
                                    : tr("Whether they differ in this is not known"));
        drawToneGlyph(painter, 0, y - px(15), px(18), difference.known ? Tone::caution : Tone::unseen, m_look, p.panel);
        drawFitted(painter, px(28), y, words::differenceText(difference), width() - px(30), m_look, 18, false, p.ink);
    }
}

ColumnContent SpeaksPage::content() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return {};
    const Verdict& verdict = m_document.verdictAt(Gate::proof);
    ColumnContent content = columnOf(verdict, blade->mark);
    const bool open = verdict.state == State::borderline || verdict.state == State::notYet;
    content.act = open ? tr("Excuse %1").arg(QString::fromStdString(blade->mark)) : tr("Next blade");
    content.detail = open ? tr("with your reason, in your name") : QString();
    content.right = tr("Next piece");
    content.right_key = QStringLiteral("→");
    content.left = tr("Last piece");
    content.left_key = QStringLiteral("←");
    content.below.push_back(
        {Tone::note,
         tr("Same lot, recipe, heat, tempers, spine; soak, hardness, thickness no kinder to the piece."),
         {},
         false});
    return content;
}

void SpeaksPage::act() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const State state = m_document.verdictAt(Gate::proof).state;
    if (state != State::borderline && state != State::notYet) {
        const auto count = static_cast<int>(m_document.batch().blades.size());
        return m_document.selectBlade((m_document.bladeIndex() + 1) % count);
    }
    auto* form = new FormDialog(
        tr("Excuse %1 at Proof").arg(QString::fromStdString(blade->mark)), tr("Excuse it"),
        {{"reason", tr("Reason"), tr("why the piece is good enough for it, or no trial is needed"), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("Say why.")} : FormFault{};
        },
        [this, id = blade->id](const FormValues& v) {
            m_document.perform([id, reason = v["reason"].toStdString()](Logbook& logbook) {
                return rollcall::excuse(logbook, id, Gate::proof, reason);
            });
        });
}

void SpeaksPage::stepPiece(int by) {
    const int count = m_model->columnCount();
    if (count == 0) return;
    m_table->setCurrentIndex(m_model->index(m_document.bladeIndex(), (m_piece + by + count) % count));
}

QStringList SpeaksPage::movements() const {
    return {tr("Left and right   the piece")};
}

bool SpeaksPage::key(QKeyEvent* event) {
    if (event->key() != Qt::Key_Right && event->key() != Qt::Key_Left) return false;
    stepPiece(event->key() == Qt::Key_Right ? 1 : -1);
    return true;
}

HelpText SpeaksPage::help() const {
    return {tr("Which trial of which piece speaks for this blade?"),
            {{Pictogram::boxes, tr("Each line is a piece that was tried; each column something that must be alike.")},
             {Pictogram::arrows, tr("Left and right choose the piece.")},
             {Pictogram::question, tr("A mark says what is not known of either, or not alike.")},
             {Pictogram::pen, tr("Excuse the blade by it, with your reason and in your name.")}},
            {QStringLiteral("M32")},
            tr("It compares what was logged. Two blades of one lot and heat may still differ where nobody measured.")};
}

} // namespace rollcall

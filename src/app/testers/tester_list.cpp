// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/testers/tester_list.h"

#include "app/shared/local_time.h"
#include "app/shared/pointing.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>
#include <QDateTime>
#include <QLocale>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int listHeadHeight = 48;
constexpr int footHeight = 112;
constexpr int listRowHeight = 56;
constexpr int stripMiddle = 196; // zero error
constexpr int stripUnit = 40;    // the whole of what is allowed

class TesterDelegate : public QStyledItemDelegate {
public:
    TesterDelegate(const TesterListModel& model, const Document& document, const Look& look, QObject* parent)
        : QStyledItemDelegate(parent), m_model(model), m_document(document), m_look(look) {}
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {m_look.px(328), m_look.px(listRowHeight)};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const auto px = [&](int v) { return m_look.px(v); };
        const int row = index.row();
        const TesterHealth& health = m_model.health(row);
        const bool active = option.state & QStyle::State_Selected;
        const bool inUse = m_document.tester() != nullptr && m_document.tester()->id == m_model.tester(row).id;
        const QColor background = active ? p.panel : p.paper;
        painter->save();
        painter->translate(option.rect.topLeft());
        painter->fillRect(0, 0, option.rect.width(), option.rect.height(), background);
        painter->fillRect(px(stripMiddle - stripUnit), 0, px(2 * stripUnit), option.rect.height(), p.window);
        painter->fillRect(0, option.rect.height() - 1, option.rect.width(), 1, p.hair);
        if (active) painter->fillRect(0, 0, px(4), option.rect.height(), p.primary);
        drawVerdictGlyph(*painter, px(16), px(18), px(20), health.state, m_look, background);
        drawFitted(*painter, px(48), px(25), QString::fromStdString(m_model.tester(row).name), px(106), m_look, 18,
                   true, p.ink);
        drawFitted(*painter, px(48), px(45), m_model.word(row), px(106), m_look, 14, inUse,
                   inUse ? p.primary : p.muted);
        if (health.answer) {
            const double share = std::clamp(health.answer->error / health.answer->max_error, -1.6, 1.6);
            const QColor color = health.answer->ok ? (health.today ? p.ink : p.line) : p.fail;
            painter->fillRect(px(stripMiddle - 68), px(44), px(136), 1, p.line);
            painter->fillRect(px(stripMiddle) + qRound(share * px(stripUnit)) - 1, px(14), 3, px(30), color);
            drawText(*painter, px(316), px(25), words::hardness(health.answer->error), m_look.font(20, health.today),
                     health.today ? p.number(health.state) : p.muted, Qt::AlignRight);
            drawText(*painter, px(316), px(45), QString::fromStdString(health.last->scale), m_look.font(14), p.muted,
                     Qt::AlignRight);
        }
        painter->restore();
    }

private:
    const TesterListModel& m_model;
    const Document& m_document;
    const Look& m_look;
};

} // namespace

TesterListModel::TesterListModel(const Document& document, QObject* parent)
    : GrowingModel(parent), m_document(document) {}

void TesterListModel::refresh() {
    const auto& testers = m_document.state().shop().testers;
    std::vector<TesterHealth> health;
    const Instant now = m_document.now();
    for (const Tester& tester : testers)
        health.push_back(
            testerHealth(tester, m_document.state().runs(), m_document.tables(), now, m_blocks[tester.id]));
    changeRows(rowCount(), static_cast<int>(health.size()), [&] { m_health = std::move(health); });
}

int TesterListModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_health.size());
}

const Tester& TesterListModel::tester(int row) const {
    return m_document.state().shop().testers[static_cast<std::size_t>(row)];
}

QString TesterListModel::word(int row) const {
    const TesterHealth& h = health(row);
    const Tester& t = tester(row);
    if (t.kind == TesterKind::files)
        return t.files.empty() ? tr("no files yet")
                               : tr("%1, %2 to %3").arg(t.files.size()).arg(t.files.front()).arg(t.files.back());
    if (h.state == State::excused) return tr("needs no block");
    if (h.last == nullptr) return tr("never verified");
    if (h.other_setting) return tr("set-up changed");
    if (!h.today) return tr("not today");
    return QLocale().toString(localTime(*h.last->time), QStringLiteral("HH:mm"));
}

void TesterListModel::nextBlock(int row) {
    std::vector<std::string> blocks;
    for (const Verification& run : m_document.state().runs()) {
        if (run.tester == tester(row).id && std::find(blocks.begin(), blocks.end(), run.block) == blocks.end())
            blocks.push_back(run.block);
    }
    if (blocks.empty()) return;
    const auto now = std::find(blocks.begin(), blocks.end(), health(row).block);
    const bool last = now == blocks.end() || now + 1 == blocks.end();
    m_blocks[tester(row).id] = last ? blocks.front() : *(now + 1);
}

int TesterListModel::count(State state) const {
    return static_cast<int>(
        std::count_if(m_health.begin(), m_health.end(), [&](const TesterHealth& h) { return h.state == state; }));
}

QVariant TesterListModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const int row = index.row();
    if (role == Qt::DisplayRole) return QString::fromStdString(tester(row).name);
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole) {
        const TesterHealth& h = health(row);
        const QString error = h.answer ? tr(", error %1").arg(words::hardness(h.answer->error)) : QString();
        return tr("%1: %2, %3%4")
            .arg(QString::fromStdString(tester(row).name), words::stateName(h.state), word(row), error);
    }
    return {};
}

TesterList::TesterList(Document& document, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_look(look), m_model(new TesterListModel(document, this)),
      m_list(new QListView(this)) {
    setFixedWidth(look.px(328));
    tellUnder(this, [this](const QPoint& at) {
        return at.y() >= height() - m_look.px(footHeight)
                   ? tr("How many testers may be used today, by how they stand")
                   : tr("Error on the block, a mark each HRC, with nought in the middle");
    });
    m_list->setObjectName(QStringLiteral("testers"));
    m_list->setAccessibleName(tr("Testers of the shop"));
    m_list->setModel(m_model);
    m_list->setItemDelegate(new TesterDelegate(*m_model, document, look, this));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->setSelectionMode(QAbstractItemView::SingleSelection);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, look.px(listHeadHeight), 0, look.px(footHeight));
    column->addWidget(m_list);
    connect(m_list->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& current) {
        if (!m_refreshing && current.isValid()) select(current.row());
    });
}

void TesterList::select(int row) {
    m_current = row;
    emit currentChanged();
}

void TesterList::step(int by) {
    const int count = m_model->rowCount();
    if (count == 0) return;
    m_list->setCurrentIndex(m_model->index((m_current + by + count) % count));
}

void TesterList::nextBlock() {
    if (m_model->rowCount() == 0) return;
    m_model->nextBlock(m_current);
    emit currentChanged();
}

QWidget* TesterList::list() const {
    return m_list;
}

void TesterList::refresh() {
    m_refreshing = true;
    m_model->refresh();
    m_current = std::clamp(m_current, 0, std::max(0, m_model->rowCount() - 1));
    m_list->setCurrentIndex(m_model->index(m_current));
    m_refreshing = false;
    update();
}

void TesterList::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.paper);
    painter.fillRect(width() - 1, 0, 1, height(), p.hair);
    drawText(painter, px(16), px(34), tr("Testers"), m_look.font(16, true), p.ink);
    drawText(painter, px(stripMiddle), px(30), QStringLiteral("0"), m_look.font(14), p.muted, Qt::AlignHCenter);
    drawText(painter, px(316), px(34), tr("error"), m_look.font(14), p.muted, Qt::AlignRight);
    for (const int unit : {-1, 0, 1})
        painter.fillRect(px(stripMiddle + unit * stripUnit), px(listHeadHeight) - px(9), 1, px(8), p.line);
    painter.fillRect(0, px(listHeadHeight) - 1, width(), 1, p.line);

    const int top = height() - px(footHeight);
    painter.fillRect(0, top, width(), 1, p.line);
    const int usable = m_model->count(State::pass) + m_model->count(State::excused);
    drawText(painter, px(16), top + px(26), tr("%1 of %2 may be used").arg(usable).arg(m_model->rowCount()),
             m_look.font(18, true), p.ink);
    int y = top + px(52);
    for (const auto& [state, text] : {std::pair(State::pass, tr("good on its block today")),
                                      std::pair(State::notYet, tr("to be verified before it counts")),
                                      std::pair(State::fail, tr("not good: stop"))}) {
        drawVerdictGlyph(painter, px(16), y - px(13), px(16), state, m_look, p.paper);
        drawText(painter, px(44), y, QStringLiteral("%1  %2").arg(m_model->count(state)).arg(text), m_look.font(16),
                 m_model->count(state) > 0 ? p.ink : p.muted);
        y += px(22);
    }
}

} // namespace rollcall

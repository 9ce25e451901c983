// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/roll/roll.h"

#include "app/shared/accessible.h"
#include "app/shared/pointing.h"
#include "core/judge/agenda.h"
#include "core/judge/standing.h"
#include "core/measure/statistics.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <QKeyEvent>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int stripLeft = 128;
constexpr int stripWidth = 136;
constexpr int rollHeadHeight = 48;
constexpr int rollFootHeight = 112;
constexpr int rollRowHeight = 56;
constexpr int rollWidth = 328;
constexpr int narrowWidth = 148;

std::optional<double> meanAt(const Blade& blade, Gate gate, int temper) {
    std::vector<double> values;
    for (const Reading& r : blade.readings) {
        if (r.gate == gate && r.round == blade.round && !r.struck && r.scale == "HRC" &&
            (gate == Gate::quench || r.after_temper.value_or(0) == temper))
            values.push_back(r.value);
    }
    return values.empty() ? std::nullopt : std::optional<double>(meanOf(values));
}

Strip stripOf(const Tables& tables, const Blade& blade, Gate gate, const Verdict* verdict) {
    Strip strip;
    if (gate == Gate::temper) {
        strip.quenched = meanAt(blade, Gate::quench, 0);
        for (int temper = 1; temper < lastTemper(blade); ++temper) {
            if (const auto mean = meanAt(blade, Gate::temper, temper)) strip.earlier.push_back(*mean);
        }
    }
    if (verdict == nullptr) return strip;
    strip.state = verdict->state;
    for (const Reading& r : blade.readings) {
        if (std::find(verdict->standing.begin(), verdict->standing.end(), r.id) == verdict->standing.end()) continue;
        if (const auto hrc = inHrc(tables, r)) strip.readings.push_back(*hrc);
    }
    if (verdict->measurement) {
        strip.mean = verdict->measurement->decided_mean;
        strip.uncertainty = verdict->measurement->decided_uncertainty;
    }
    return strip;
}

// What the overview shows of a blade: its last gate, unless nothing is read there yet and the gate before is not
// passed.
Gate gateSoFar(const Document& document, int blade) {
    const Verdict* temper = document.verdict(blade, Gate::temper);
    const Verdict* quench = document.verdict(blade, Gate::quench);
    if (temper == nullptr) return Gate::quench;
    const bool stuck = quench != nullptr && quench->state != State::pass && quench->state != State::excused;
    return temper->state == State::notYet && temper->taken == 0 && stuck ? Gate::quench : Gate::temper;
}

QString fateName(Fate fate) {
    switch (fate) {
    case Fate::cracked:
        return QObject::tr("Cracked");
    case Fate::scrapped:
        return QObject::tr("Scrapped");
    case Fate::coupon:
        return QObject::tr("Coupon");
    case Fate::removed:
        return QObject::tr("Removed");
    }
    return {};
}

class RollDelegate : public QStyledItemDelegate {
public:
    RollDelegate(const RollModel& model, const Look& look, QObject* parent)
        : QStyledItemDelegate(parent), m_model(model), m_look(look) {}
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {m_look.px(narrowWidth), m_look.px(rollRowHeight)};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const auto px = [&](int v) { return m_look.px(v); };
        const RollRow& row = m_model.row(index.row());
        const QRect& r = option.rect;
        const bool active = option.state & QStyle::State_Selected;
        const QColor background = active ? p.panel : p.paper;
        painter->save();
        painter->translate(r.topLeft());
        painter->fillRect(0, 0, r.width(), r.height(), background);
        const bool narrow = r.width() < px(stripLeft + stripWidth);
        const auto [from, to] = windowSpan(m_model.axis(), row.window, px(stripLeft), px(stripWidth));
        if (!narrow && (row.window.low || row.window.high)) painter->fillRect(from, 0, to - from, r.height(), p.window);
        painter->fillRect(0, r.height() - 1, r.width(), 1, p.hair);
        if (active)
            painter->fillRect(0, 0, px(4), r.height(), p.primary);
        else
            painter->fillRect(r.width() - 1, 0, 1, r.height(), p.hair);
        const bool calling = active && row.state == State::notYet;
        drawVerdictGlyph(*painter, px(16), px(18), px(20), row.state, m_look, background, calling);
        drawFitted(*painter, px(48), px(25), row.mark, px(76), m_look, 18, true, p.ink);
        drawFitted(*painter, px(48), px(45), row.word, px(78), m_look, 14, calling, calling ? p.primary : p.muted);
        if (!narrow) drawStrip(*painter, px(stripLeft), px(stripWidth), px(44), m_model.axis(), row.strip, m_look);
        if (!narrow && row.strip.mean) {
            const QString value = words::hardness(*row.strip.mean);
            drawText(*painter, px(316), px(36), value, m_look.font(20, row.complete),
                     row.complete ? p.number(row.strip.state) : p.muted, Qt::AlignRight);
        }
        painter->restore();
    }

private:
    const RollModel& m_model;
    const Look& m_look;
};

// Digits and letters belong to the reading station, not to a search in the list.
class RollList : public QListView {
public:
    using QListView::QListView;

protected:
    void keyPressEvent(QKeyEvent* event) override {
        const bool moves = event->key() == Qt::Key_Up || event->key() == Qt::Key_Down ||
                           event->key() == Qt::Key_PageUp || event->key() == Qt::Key_PageDown;
        if (moves && !(event->modifiers() & Qt::KeypadModifier)) return QListView::keyPressEvent(event);
        event->ignore();
    }
};

} // namespace

RollModel::RollModel(const Document& document, QObject* parent) : GrowingModel(parent), m_document(document) {}

void RollModel::refresh(std::optional<Gate> gate) {
    std::vector<RollRow> rows;
    std::vector<double> values;
    if (m_document.hasBatch()) {
        const Batch& batch = m_document.batch();
        for (std::size_t i = 0; i < batch.blades.size(); ++i) {
            const int index = static_cast<int>(i);
            const Gate at = gate.value_or(gateSoFar(m_document, index));
            const Verdict* verdict = m_document.verdict(index, at);
            RollRow row;
            row.mark = QString::fromStdString(batch.blades[i].mark);
            row.window = windowOf(batch, batch.blades[i], gate == Gate::quench ? Gate::quench : Gate::temper,
                                  m_document.tables());
            for (const std::optional<double>& end : {row.window.low, row.window.high}) {
                if (end && batch.blades[i].own) values.push_back(*end);
            }
            // At gates that read no hardness the strip goes on showing it; the second line is the gate's own answer.
            const Gate hardness = at == Gate::quench || at == Gate::temper ? at : gateSoFar(m_document, index);
            row.strip = stripOf(m_document.tables(), batch.blades[i], hardness, m_document.verdict(index, hardness));
            if (verdict != nullptr) {
                row.state = verdict->state;
                row.word = words::stateName(verdict->state);
                if (verdict->state == State::fail && verdict->has(Fact::soft)) row.word = tr("Fail, soft");
                if (verdict->state == State::borderline && verdict->has(Fact::notYetDone)) row.word = tr("Hard");
                if (verdict->state == State::excused && isOutBefore(batch.blades[i], at))
                    row.word = fateName(batch.blades[i].fate->fate);
                row.complete = verdict->taken >= verdict->planned;
                for (const Reason& reason : verdict->reasons) {
                    if (reason.fact == Fact::soakGood || reason.fact == Fact::soakOver ||
                        reason.fact == Fact::soakUnder)
                        row.word = tr("soak %1").arg(reason.numbers.front(), 0, 'f', 1);
                    if (reason.fact == Fact::heatTreatmentAsked || reason.fact == Fact::geometryExplains)
                        row.word = QString::fromStdString(reason.texts.front());
                    if (reason.fact == Fact::pieceSpeaksFor)
                        row.word = tr("by %1").arg(QString::fromStdString(reason.texts.front()));
                    if (reason.fact == Fact::trialRunning) row.word = tr("on trial");
                }
            }
            for (const auto& list : {row.strip.readings, row.strip.earlier})
                values.insert(values.end(), list.begin(), list.end());
            if (row.strip.quenched) values.push_back(*row.strip.quenched);
            rows.push_back(std::move(row));
        }
    }
    m_axis = Axis::around(rows.empty() ? Window{} : rows.front().window, values, 8);
    changeRows(rowCount(), static_cast<int>(rows.size()), [&] { m_rows = std::move(rows); });
}

int RollModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_rows.size());
}

QVariant RollModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const RollRow& r = row(index.row());
    if (role == Qt::DisplayRole) return r.mark;
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole) {
        return r.strip.mean
                   ? tr("%1: %2, %3 ± %4")
                         .arg(r.mark, r.word, words::hardness(*r.strip.mean), words::uncertainty(r.strip.uncertainty))
                   : tr("%1: %2").arg(r.mark, r.word);
    }
    return {};
}

int RollModel::count(State state) const {
    return static_cast<int>(
        std::count_if(m_rows.begin(), m_rows.end(), [&](const RollRow& r) { return r.state == state; }));
}

Roll::Roll(Document& document, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_look(look), m_model(new RollModel(document, this)),
      m_list(new RollList(this)) {
    setRole(this, QAccessible::Pane);
    setAccessibleName(tr("Roll"));
    tellUnder(this, [this](const QPoint& at) {
        return at.y() >= height() - m_look.px(rollFootHeight)
                   ? tr("How many blades have answered at this gate, verdict by verdict")
                   : tr("The axis that the strips below share: hardness, HRC");
    });
    setFixedWidth(look.px(rollWidth));
    m_list->setObjectName(QStringLiteral("roll"));
    m_list->setAccessibleName(tr("Blades of the batch"));
    m_list->setModel(m_model);
    m_list->setItemDelegate(new RollDelegate(*m_model, look, this));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->setVerticalScrollMode(QAbstractItemView::ScrollPerItem); // no half rows at the top
    m_list->setSelectionMode(QAbstractItemView::SingleSelection);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, look.px(rollHeadHeight), 0, look.px(rollFootHeight));
    column->addWidget(m_list);
    connect(m_list->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& current) {
        if (!m_refreshing && current.isValid()) m_document.selectBlade(current.row());
    });
}

void Roll::refresh(std::optional<Gate> gate) {
    m_gate = gate;
    m_refreshing = true; // a row that becomes current because the model was reset is no choice of the maker's
    m_model->refresh(gate);
    const QModelIndex current = m_model->index(m_document.bladeIndex());
    m_list->setCurrentIndex(current);
    m_list->scrollTo(current);
    m_refreshing = false;
    update();
}

void Roll::setNarrow(bool narrow) {
    m_narrow = narrow;
    setFixedWidth(m_look.px(narrow ? narrowWidth : rollWidth));
}

void Roll::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.paper);
    painter.fillRect(width() - 1, 0, 1, height(), p.hair);
    drawText(painter, px(16), px(34), m_gate ? words::gateName(*m_gate) : tr("So far"), m_look.font(16, true), p.ink);
    if (!m_narrow) {
        drawText(painter, px(316), px(34), QStringLiteral("HRC"), m_look.font(14), p.muted, Qt::AlignRight);
        drawStripAxis(painter, px(stripLeft), px(stripWidth), px(rollHeadHeight) - 1, m_model->axis(), m_look);
    }
    painter.fillRect(0, px(rollHeadHeight) - 1, width(), 1, p.line);
    // Below the last row the window goes on to the foot.
    paintFoot(painter, height() - px(rollFootHeight));
}

void Roll::paintFoot(QPainter& painter, int top) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(0, top, width(), 1, p.line);
    const int asked = m_model->rowCount() - m_model->count(State::excused);
    const int answered = asked - m_model->count(State::notYet);
    const QString all =
        m_narrow ? tr("%1 of %2").arg(answered).arg(asked) : tr("%1 of %2 answered").arg(answered).arg(asked);
    drawText(painter, px(16), top + px(26), all, m_look.font(18, true), p.ink);
    constexpr std::array<State, 5> order{State::pass, State::fail, State::excused, State::borderline, State::notYet};
    for (std::size_t i = 0; i < order.size(); ++i) {
        const int x = px(i < 3 ? 16 : m_narrow ? 84 : 178);
        const int y = top + px(50 + static_cast<int>(i % 3) * 24);
        const int n = m_model->count(order[i]);
        drawVerdictGlyph(painter, x, y - px(13), px(16), order[i], m_look, p.paper);
        if (!m_narrow)
            drawFitted(painter, x + px(28), y, words::stateName(order[i]), px(i < 3 ? 80 : 90), m_look, 16, false,
                       n > 0 ? p.ink : p.muted);
        drawText(painter,
                 x + px(m_narrow ? 46
                        : i < 3  ? 128
                                 : 138),
                 y, QString::number(n), m_look.font(16, n > 0), n > 0 ? p.ink : p.muted, Qt::AlignRight);
    }
    if (m_narrow) return;
    const int y = top + px(98);
    painter.fillRect(px(184), y - px(12), 3, px(14), p.earlier);
    drawText(painter, px(194), y, tr("earlier"), m_look.font(14), p.muted);
    painter.fillRect(px(254), y - px(12), 2, px(14), p.quenched);
    drawText(painter, px(262), y, tr("quench"), m_look.font(14), p.muted);
}

} // namespace rollcall

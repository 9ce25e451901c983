// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/verdict_column.h"

#include "app/shared/accessible.h"
#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"
#include "app/shared/pointing.h"
#include "plot/glyphs.h"
#include "words/method.h"
#include "words/words.h"

#include <limits>
#include <QApplication>
#include <QMouseEvent>
#include <QScrollBar>
#include <QStandardItemModel>
#include <QStyledItemDelegate>

namespace rollcall {

namespace {

constexpr int toneRole = Qt::UserRole + 1;
constexpr int hazardRole = Qt::UserRole + 2;

class ReasonDelegate : public QStyledItemDelegate {
public:
    ReasonDelegate(const Look& look, QObject* parent) : QStyledItemDelegate(parent), m_look(look) {}

    // A number and its per cent stay on one line.
    static QString whole(QString text) { return text.replace(QStringLiteral(" %"), QStringLiteral("\u00A0%")); }
    QRect textRect(int width, const QString& text) const {
        return QFontMetrics(m_look.font(16))
            .boundingRect(QRect(0, 0, width - m_look.px(30), 10000), Qt::TextWordWrap, whole(text));
    }
    int widthOf(const QStyleOptionViewItem& option) const {
        return (option.widget != nullptr ? option.widget->width() : option.rect.width()) - m_look.px(10);
    }
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        // Room for the scroll bar is always kept, so that its coming does not change the heights.
        const int width = widthOf(option);
        return {width, std::max(m_look.px(26), textRect(width, index.data().toString()).height() + m_look.px(7))};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const int y = option.rect.top() + m_look.px(3);
        if (option.state & QStyle::State_HasFocus) painter->fillRect(option.rect, p.panel);
        const auto tone = static_cast<Tone>(index.data(toneRole).toInt());
        if (index.data(hazardRole).toBool())
            drawCautionGlyph(*painter, option.rect.left(), y, m_look.px(18), p.ink);
        else
            drawToneGlyph(*painter, option.rect.left(), y, m_look.px(18), tone, m_look, p.paper);
        painter->setFont(m_look.font(16));
        painter->setPen(tone == Tone::unseen ? p.muted : p.ink);
        const QRect text(option.rect.left() + m_look.px(28), option.rect.top() + m_look.px(1),
                         widthOf(option) - m_look.px(30), option.rect.height());
        painter->drawText(text, Qt::TextWordWrap, whole(index.data().toString()));
    }

private:
    const Look& m_look;
};

} // namespace

namespace {

QString toneMeaning(Tone tone) {
    switch (tone) {
    case Tone::good:
        return VerdictColumn::tr("Done, and good");
    case Tone::note:
        return VerdictColumn::tr("To know");
    case Tone::caution:
        return VerdictColumn::tr("Keeps it from a Pass, or wants a look");
    case Tone::bad:
        return VerdictColumn::tr("A failure");
    case Tone::open:
        return VerdictColumn::tr("Open: still to be done");
    case Tone::unseen:
        return VerdictColumn::tr("Nobody has looked at this");
    }
    return {};
}

// What the mark before a line means, and the rule that it comes from as docs/method.md has it.
QString tipOf(const ColumnContent::Line& line) {
    QString tip = line.hazard ? VerdictColumn::tr("A caution for hand and eye") : toneMeaning(line.tone);
    if (line.rule.isEmpty()) return tip;
    for (const MethodRule& rule : methodRules()) {
        if (!rule.names.contains(line.rule)) continue;
        return tip + QStringLiteral(". ") + line.rule + QStringLiteral(": ") + rule.what;
    }
    return tip + QStringLiteral(". ") + VerdictColumn::tr("Rule %1. W shows why").arg(line.rule);
}

QString stateMeaning(State state) {
    switch (state) {
    case State::pass:
        return VerdictColumn::tr("Tick: what is asked is met, with all that is not known counted in.");
    case State::borderline:
        return VerdictColumn::tr("Half a diamond: it cannot be said either way yet.");
    case State::fail:
        return VerdictColumn::tr("Cross: what is asked is surely not met.");
    case State::notYet:
        return VerdictColumn::tr("Ring: too little is known yet.");
    case State::excused:
        return VerdictColumn::tr("Bar: not asked of this one.");
    }
    return {};
}

} // namespace

ReasonList::ReasonList(const Look& look, QWidget* parent)
    : QListView(parent), m_look(look), m_model(new QStandardItemModel(this)) {
    setModel(m_model);
    setItemDelegate(new ReasonDelegate(look, this));
    setFrameShape(QFrame::NoFrame);
    setSelectionMode(QAbstractItemView::NoSelection);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setVerticalScrollMode(QAbstractItemView::ScrollPerItem);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setResizeMode(QListView::Adjust);
    setFocusPolicy(Qt::TabFocus);
}

void ReasonList::show(const std::vector<ColumnContent::Line>& lines) {
    m_heights.clear();
    m_model->clear();
    for (const ColumnContent::Line& line : lines) {
        auto* item = new QStandardItem(line.text);
        item->setData(static_cast<int>(line.tone), toneRole);
        item->setData(line.hazard, hazardRole);
        item->setToolTip(plainTip(tipOf(line)));
        m_model->appendRow(item);
    }
    scrollToTop();
}

void ReasonList::resizeEvent(QResizeEvent* event) {
    QListView::resizeEvent(event);
    doItemsLayout(); // heights depend on the width
}

int ReasonList::rows() const {
    return m_model->rowCount();
}

int ReasonList::rowHeight(int row, int width) const {
    if (width != m_heightsWidth || m_heights.empty()) { // wrapped anew only when text or width has changed
        const ReasonDelegate delegate(m_look, nullptr);
        m_heightsWidth = width;
        m_heights.clear();
        for (int i = 0; i < rows(); ++i)
            m_heights.push_back(
                std::max(m_look.px(26),
                         delegate.textRect(width - m_look.px(10), m_model->item(i)->text()).height() + m_look.px(7)));
    }
    return m_heights[static_cast<std::size_t>(row)];
}

int ReasonList::heightFor(int width) const {
    return wholeRows(width, std::numeric_limits<int>::max()).height;
}

ReasonList::Whole ReasonList::wholeRows(int width, int height, int from) const {
    Whole whole;
    while (from + whole.rows < rows()) {
        const int next = rowHeight(from + whole.rows, width);
        if (next > height - whole.height) break;
        whole.height += next;
        ++whole.rows;
    }
    return whole;
}

// From the heights alone: the view may not have laid out yet what it was given.
int ReasonList::rowsBelow() const {
    const int first = verticalScrollBar()->value(); // it scrolls by rows
    return rows() - first - wholeRows(width(), height(), first).rows;
}

VerdictColumn::VerdictColumn(const Look& look, QWidget* parent)
    : QWidget(parent), m_look(look), m_reasons(new ReasonList(look, this)), m_below(new ReasonList(look, this)),
      m_primary(new PrimaryButton(look, this)), m_left(new SideButton({}, {}, look, this)),
      m_right(new SideButton({}, {}, look, this)) {
    setRole(this, QAccessible::Pane);
    setObjectName(QStringLiteral("verdict-column"));
    m_reasons->setObjectName(QStringLiteral("reasons"));
    m_reasons->setAccessibleName(tr("Reasons"));
    m_below->setObjectName(QStringLiteral("below"));
    m_below->setAccessibleName(tr("Next and cautions"));
    m_left->setObjectName(QStringLiteral("left"));
    m_right->setObjectName(QStringLiteral("right"));
    setAccessibleDescription(tr("Click: why. Draw it out of the window: a picture of the bench."));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
    setNarrow(false);
    connect(m_primary, &QAbstractButton::clicked, this, &VerdictColumn::acted);
    connect(m_left, &QAbstractButton::clicked, this, &VerdictColumn::leftClicked);
    connect(m_right, &QAbstractButton::clicked, this, &VerdictColumn::rightClicked);
    connect(m_reasons, &QListView::clicked, this, &VerdictColumn::whyAsked);
    connect(m_reasons->verticalScrollBar(), &QScrollBar::valueChanged, this, &VerdictColumn::sayRest);
}

void VerdictColumn::setNarrow(bool narrow) {
    setFixedWidth(m_look.px(narrow ? 272 : 344));
}

void VerdictColumn::show(const ColumnContent& content) {
    m_content = content;
    const QString said = content.caption + QStringLiteral(": ") + content.word + QStringLiteral(". ") + content.sub;
    if (said != accessibleName()) announce(this, said);
    m_primary->show(content.act, content.detail, content.key);
    m_primary->setEnabled(content.act_enabled);
    const auto side = [](SideButton* button, const QString& text, const QString& key) {
        button->setText(text);
        button->setKey(key);
        button->setVisible(!text.isEmpty());
    };
    side(m_left, content.left, content.left_key);
    side(m_right, content.right, content.right_key);
    m_folded.reset();
    resizeEvent(nullptr);
    update();
}

int VerdictColumn::margin() const {
    return m_look.px(width() < m_look.px(300) ? 14 : 24);
}

// Where there is little height the head draws closer together, so that what to do stays in sight.
VerdictColumn::Head VerdictColumn::head() const {
    constexpr int littleHeight = 460;
    return height() < m_look.px(littleHeight) ? Head{22, 28, 32, 28, 56, 66, 18, 26, 46, 54}
                                              : Head{32, 44, 54, 40, 86, 106, 26, 40, 68, 84};
}

// The verdict's line wraps and pushes down what stands below it.
QRect VerdictColumn::lineArea() const {
    const int width = this->width() - 2 * margin();
    constexpr int anyHeight = 10000;
    const QRect text =
        QFontMetrics(m_look.font(18)).boundingRect(QRect(0, 0, width, anyHeight), Qt::TextWordWrap, m_content.sub);
    return {margin(), m_look.px(head().line), width, std::max(m_look.px(26), text.height())};
}

int VerdictColumn::headHeight() const {
    return lineArea().bottom() + m_look.px(m_content.numbers.empty() || m_numbersInList ? 18 : head().end + 18);
}

void VerdictColumn::resizeEvent(QResizeEvent*) {
    const auto px = [&](int v) { return m_look.px(v); };
    const int left = margin();
    const int width = this->width() - 2 * margin();
    // Cautions are shown whole where a few reasons stay in sight above them.
    constexpr int foldsBelow = 540;
    const bool fold = height() < px(foldsBelow);
    const int primaryHeight = m_primary->heightForWidth(width);
    // Two quiet buttons stand side by side where both are read whole, else one above the other; one has the width.
    const bool two = !m_content.left.isEmpty() && !m_content.right.isEmpty();
    const bool hasSides = !m_content.left.isEmpty() || !m_content.right.isEmpty();
    const int half = (width - px(8)) / 2;
    const bool stacked = two && std::max(m_left->leastWidth(), m_right->leastWidth()) > half;
    const int sidesHeight = stacked ? px(40 + 8 + 40) : px(40);
    // Where the numbers would come under the buttons they are lines of the list, which can be scrolled.
    m_numbersInList = false;
    const int least = headHeight() + primaryHeight + (hasSides ? sidesHeight + px(14) : 0) + px(10 + 30);
    m_numbersInList = fold && !m_content.numbers.empty() && least > height();
    if (const Folded now{fold, m_numbersInList}; m_folded != now) { // cautions follow the reasons in one list
        m_folded = now;
        std::vector<ColumnContent::Line> lines;
        for (const ColumnContent::Number& number : m_content.numbers) {
            const QString told = number.label + QStringLiteral(": ") + number.value + QLatin1Char(' ') + number.beside;
            if (m_numbersInList) lines.push_back({Tone::note, told.trimmed(), {}});
        }
        lines.insert(lines.end(), m_content.lines.begin(), m_content.lines.end());
        if (fold) lines.insert(lines.end(), m_content.below.begin(), m_content.below.end());
        m_reasons->show(lines);
        m_below->show(fold ? std::vector<ColumnContent::Line>() : m_content.below);
        m_below->setVisible(!fold);
    }
    const int reasons = std::min(px(122), m_reasons->heightFor(width));
    const int belowHeight =
        fold ? 0
             : std::clamp(m_below->heightFor(width), px(20),
                          std::max(px(60), height() - headHeight() - px(72 + 40 + 24 + 24) - reasons));
    const int below = height() - belowHeight - px(6);
    const int sides = below - sidesHeight - px(14);
    const int primary = (hasSides ? sides : below - px(4)) - primaryHeight - px(10);
    const bool hasPrimary = !m_content.act.isEmpty();
    m_below->setGeometry(left, below, width, belowHeight);
    const int one = two && !stacked ? half : width;
    m_left->setGeometry(left, sides, one, px(40));
    m_right->setGeometry(two && !stacked ? left + half + px(8) : left, stacked ? sides + px(48) : sides, one, px(40));
    m_primary->setGeometry(left, primary, width, primaryHeight);
    const int end = hasPrimary ? primary : hasSides ? sides : below;
    // Whole rows only: half a line reads as a line. What is further down is counted under them.
    const int room = std::max(px(30), end - headHeight() - px(8));
    const bool all = m_reasons->heightFor(width) <= room;
    ReasonList::Whole whole = m_reasons->wholeRows(width, all ? room : room - px(22));
    m_tellsRest = !all && whole.rows > 0;
    if (whole.rows == 0) whole = m_reasons->wholeRows(width, room); // without room to count the rest
    m_reasons->setGeometry(left, headHeight(), width, all || whole.rows == 0 ? room : whole.height);
    sayRest();
}

void VerdictColumn::sayRest() {
    const int rest = m_reasons->rowsBelow();
    m_rest = rest > 0 ? tr("and %1 more").arg(rest) : QString();
    update();
}

void VerdictColumn::mousePressEvent(QMouseEvent* event) {
    m_pressed = event->position().toPoint();
}

void VerdictColumn::mouseMoveEvent(QMouseEvent* event) {
    const bool away = (event->position().toPoint() - m_pressed.value_or(QPoint())).manhattanLength() >=
                      QApplication::startDragDistance();
    if (!m_pressed || !away) return;
    m_pressed.reset();
    emit draggedOut();
}

void VerdictColumn::mouseReleaseEvent(QMouseEvent*) {
    if (m_pressed) emit whyAsked();
    m_pressed.reset();
}

QString VerdictColumn::saysAt(const QPoint& at) const {
    const Head h = head();
    const QRect line = lineArea();
    const int under = line.bottom() + m_look.px(10);
    if (!m_content.word.isEmpty() && at.y() < line.top()) return stateMeaning(m_content.state);
    const bool atNumbers = at.y() > under && at.y() < under + m_look.px(h.end);
    if (!atNumbers || m_content.numbers.empty() || m_numbersInList)
        return tr("Click: why. Draw it out of the window: a picture of the bench.");
    const std::size_t which = at.x() < width() / 2 ? 0 : 1;
    if (which >= m_content.numbers.size()) return {};
    const ColumnContent::Number& number = m_content.numbers[which];
    const QString beside = number.beside.startsWith(QChar(0xB1))
                               ? tr("%1: the range it is known to, 95 %").arg(number.beside)
                               : number.beside;
    return QStringList{number.label, number.value, beside}.join(QStringLiteral(" ")).simplified();
}

void VerdictColumn::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.paper);
    painter.fillRect(0, 0, 1, height(), p.hair);
    const int left = margin();
    const int width = this->width() - 2 * margin();
    const Head h = head();
    drawFitted(painter, left, px(h.caption), m_content.caption, width, m_look, 16, false, p.muted);
    if (m_content.word.isEmpty()) return;
    drawVerdictGlyph(painter, left - 3, px(h.glyph), px(h.glyph_size), m_content.state, m_look, p.paper);
    const bool coloured =
        m_content.state == State::pass || m_content.state == State::borderline || m_content.state == State::fail;
    const int beside = px(h.glyph_size + 10);
    const int size = fittingSize(m_look, m_content.word, h.word_size, 16, width - beside, true);
    drawText(painter, left + beside, px(h.word), m_content.word, m_look.font(size, true),
             coloured ? p.of(m_content.state) : p.ink);
    if (m_tellsRest && !m_rest.isEmpty())
        drawText(painter, left + px(28), m_reasons->geometry().bottom() + px(18), m_rest, m_look.font(14), p.muted);
    const QRect line = lineArea();
    painter.setFont(m_look.font(18));
    painter.setPen(p.ink);
    painter.drawText(line, Qt::TextWordWrap, m_content.sub);
    const int under = line.bottom() + px(10);
    painter.fillRect(left, under, width, 1, p.hair);
    if (m_content.numbers.empty() || m_numbersInList) return;
    int x = left;
    for (const ColumnContent::Number& number : m_content.numbers) {
        const QColor color = number.coloured ? p.number(m_content.state) : p.ink;
        const int room = std::min(width / 2 - px(4), left + width - x);
        const int labelSize = fittingSize(m_look, number.label, 16, 12, room);
        drawText(painter, x, under + px(h.label), number.label, m_look.font(labelSize), p.muted);
        const int valueSize =
            fittingSize(m_look, number.value, h.value_size, 18, room - px(8) - m_look.width(number.beside, 16), true);
        drawText(painter, x, under + px(h.value), number.value, m_look.font(valueSize, true), color);
        drawText(painter, x + m_look.width(number.value, valueSize, true) + px(8), under + px(h.value), number.beside,
                 m_look.font(16), p.muted);
        x += width / 2 + px(8);
    }
    painter.fillRect(left, under + px(h.end), width, 1, p.hair);
}

} // namespace rollcall

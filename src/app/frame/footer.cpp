// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/footer.h"

#include "app/shared/accessible.h"
#include "app/shared/buttons.h"
#include "app/shared/local_time.h"
#include "app/shared/plain_text.h"
#include "app/shared/pointing.h"
#include "core/judge/agenda.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <QDateTime>
#include <QLocale>

namespace rollcall {

namespace {

constexpr int sizeOfOne = 20;
constexpr int sizeOfTwo = 15; // of a sentence on two lines

// Takes clicks and focus for what is painted under it.
class ClearButton : public QAbstractButton {
public:
    ClearButton(const Look& look, QWidget* parent) : QAbstractButton(parent), m_look(look) {
        setFocusPolicy(Qt::TabFocus);
        setCursor(Qt::PointingHandCursor);
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        paintFocus(painter, *this, m_look);
    }

private:
    const Look& m_look;
};

} // namespace

FooterButton::FooterButton(const QString& text, const QString& key, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_look(look), m_key(key) {
    setText(text);
    setFocusPolicy(Qt::TabFocus);
    setAttribute(Qt::WA_Hover);
}

QSize FooterButton::sizeHint() const {
    return {keyCapWidth(m_key, m_look) + m_look.width(text(), 14) + m_look.px(24), m_look.px(46)};
}

void FooterButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const int centre = height() / 2;
    if (underMouse()) painter.fillRect(rect().adjusted(0, 1, 0, 0), p.panel);
    const int cap = drawKeyCap(painter, m_look.px(8), centre, m_key, m_look, p.muted);
    drawText(painter, m_look.px(16) + cap, centre + m_look.px(5), text(), m_look.font(14), p.muted);
    paintFocus(painter, *this, m_look);
}

Footer::Footer(const Document& document, const DayClock& day, const Look& look, Message message)
    : m_document(document), m_day(day), m_look(look), m_nowButton(new ClearButton(look, this)),
      m_message(std::move(message)) {
    setObjectName(QStringLiteral("now-line"));
    setRole(this, QAccessible::StatusBar);
    setFixedHeight(look.px(48));
    m_nowButton->setObjectName(QStringLiteral("now"));
    connect(m_nowButton, &QAbstractButton::clicked, this, &Footer::nowClicked);
    const auto add = [&](const char* command, const QString& text, const QString& key) {
        auto* button = new FooterButton(text, key, look, this);
        button->setObjectName(QStringLiteral("foot-") + QLatin1String(command));
        connect(button, &QAbstractButton::clicked, this, [this, command] { emit wanted(QLatin1String(command)); });
        m_buttons.push_back(button);
        return button;
    };
    m_person = add("person", {}, QStringLiteral("F11"));
    m_person->setToolTip(plainTip(tr("who is at work")));
    add("menu", tr("menu"), QStringLiteral("F10"))->setToolTip(plainTip(tr("everything that can be done")));
    add("help", tr("help"), QStringLiteral("F1"))->setToolTip(plainTip(tr("what this place answers, and how")));
    m_clock.setInterval(20000);
    connect(&m_clock, &QTimer::timeout, this, qOverload<>(&QWidget::update));
    m_clock.start();
    tellUnder(this, [this](const QPoint& at) {
        if (at.x() < width() - m_look.px(24) - m_look.width(clockText(), 14)) return QString();
        QStringList lines{QLocale().toString(localTime(m_document.now()), QStringLiteral("dddd d MMMM yyyy, HH:mm"))};
        if (m_document.isChecked())
            lines << tr("the record was looked through and is sound");
        else if (m_document.isOpen() && m_document.readOnlyReasons().isEmpty())
            lines << (Store::looksThrough(m_document.path())
                          ? tr("the record is being looked through")
                          : tr("the record is too large to be looked through here: rollcallctl check does it"));
        return lines.join(QLatin1Char('\n'));
    });
}

QString Footer::clockText() const {
    return QLocale().toString(localTime(m_document.now()), QStringLiteral("ddd HH:mm"));
}

void Footer::arrange() {
    int x = width() - m_look.px(24) - m_look.width(clockText(), 14);
    for (auto button = m_buttons.rbegin(); button != m_buttons.rend(); ++button) {
        const QSize size = (*button)->sizeHint();
        x -= size.width();
        (*button)->setGeometry(x, height() - size.height(), size.width(), size.height());
    }
    m_nowButton->setGeometry(0, 0, x, height());
}

QStringList Footer::nowParts() const {
    if (!m_document.isOpen()) return {tr("No logbook is open. Ctrl+O opens one")};
    if (!m_document.unstored().isEmpty()) return {tr("The last entry is not stored: %1").arg(m_document.unstored())};
    if (!m_document.trouble().isEmpty()) return {tr("What is shown is old: %1").arg(m_document.trouble())};
    if (const QStringList& why = m_document.readOnlyReasons(); !why.isEmpty())
        return {tr("For reading only: %1").arg(why.mid(0, 2).join(QStringLiteral(": "))) +
                (why.size() > 2 ? tr(", and %1 more").arg(why.size() - 2) : QString())};
    if (!m_document.hasBatch()) return {tr("Now: press N for the first batch")};
    QStringList parts;
    const Batch& batch = m_document.batch();
    const std::vector<Task> tasks = m_document.tasks();
    // What is due in an oven comes before everything: it does not wait.
    bool due = false;
    const QString oven = m_day.nextText(&due);
    if (due) parts << tr("Now: %1").arg(oven);
    if (!tasks.empty()) {
        parts << (due ? tr("then %1") : tr("Now: %1"))
                     .arg(words::taskText(QString::fromStdString(batch.blades[tasks.front().blade].mark),
                                          tasks.front().next));
    } else if (!due) {
        parts << tr("Now: %1 has answered").arg(QString::fromStdString(batch.name));
    }
    if (!due && !oven.isEmpty()) parts << oven;
    for (const Elsewhere& other : m_document.state().elsewhere())
        parts << tr("%1: %2").arg(QString::fromStdString(other.batch),
                                  words::taskText(QString::fromStdString(other.mark), other.task.next));
    return parts;
}

Footer::Seen Footer::inSight(int width) const {
    const QFontMetrics metrics(m_look.font(sizeOfOne, true));
    if (metrics.horizontalAdvance(text()) <= width) return {text(), sizeOfOne};
    if (m_message.text.isEmpty()) {
        for (qsizetype shown = m_now.size() - 1; shown > 0; --shown) {
            const QString some =
                m_now.first(shown).join(between()) + between() + tr("and %1 more").arg(m_now.size() - shown);
            if (metrics.horizontalAdvance(some) <= width) return {some, sizeOfOne};
        }
        // Too narrow for the words: what is first, and how many wait behind it.
        if (m_now.size() > 1) {
            const QString first = m_now.front() + QStringLiteral("  +%1").arg(m_now.size() - 1);
            if (metrics.horizontalAdvance(first) <= width) return {first, sizeOfOne};
            if (metrics.horizontalAdvance(m_now.front()) <= width) return {m_now.front(), sizeOfOne};
        }
    }
    const QString sentence = m_message.text.isEmpty() ? m_now.front() : m_message.text;
    if (const int size = fittingSize(m_look, sentence, sizeOfOne, sizeOfTwo, width, true); size > sizeOfTwo)
        return {sentence, size};
    const QFont font = m_look.font(sizeOfTwo, true);
    const QFontMetrics small(font);
    constexpr int anyHeight = 10000;
    const auto lined = [&](const QString& text) {
        const QRect area = small.boundingRect(QRect(0, 0, width, anyHeight), Qt::TextWordWrap, text);
        return area.width() <= width && area.height() <= 2 * small.lineSpacing();
    };
    if (lined(sentence)) return {sentence, sizeOfTwo};
    const QString cut = elided(sentence, font, width * 9 / 5); // the pointer over it tells all
    return lined(cut) ? Seen{cut, sizeOfTwo} : Seen{elided(sentence, m_look.font(sizeOfOne, true), width), sizeOfOne};
}

void Footer::refresh() {
    m_now = nowParts();
    m_person->setText(m_document.person().isEmpty() ? tr("who?") : m_document.person());
    arrange();
    setAccessibleName(text());
    setAccessibleDescription(m_document.isChecked() ? tr("the record was looked through and is sound") : QString());
    m_nowButton->setAccessibleName(m_now.join(QStringLiteral("; ")));
    m_nowButton->setToolTip(plainTip(m_now.join(QLatin1Char('\n'))));
    update();
}

void Footer::say(const QString& message, bool trouble) {
    m_message = {message, trouble};
    m_nowButton->setToolTip(plainTip(message));
    announce(this, message);
    update();
}

void Footer::hush() {
    if (m_message.text.isEmpty()) return;
    m_message = {};
    refresh();
}

void Footer::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.paper);
    painter.fillRect(0, 0, width(), 1, p.line);
    const int centre = height() / 2;
    drawText(painter, width() - px(16), centre + px(5), clockText(), m_look.font(14), p.muted, Qt::AlignRight);
    // Over the clock, small: the whole record was looked through since it was opened, and is sound.
    if (m_document.isChecked()) drawToneGlyph(painter, width() - px(28), px(4), px(12), Tone::good, m_look, p.paper);
    const bool standing = !m_document.unstored().isEmpty() || !m_document.trouble().isEmpty();
    const bool trouble = m_message.text.isEmpty() ? standing : m_message.trouble;
    const Seen seen = inSight(nowWidth() - px(32));
    const QColor color = trouble ? p.fail : p.ink;
    const QFont font = m_look.font(seen.size, true);
    if (seen.size > sizeOfTwo) return drawText(painter, px(16), centre + px(7), seen.text, font, color);
    painter.setFont(font);
    painter.setPen(color);
    painter.drawText(QRect(px(16), 1, nowWidth() - px(32), height() - 1), Qt::TextWordWrap | Qt::AlignVCenter,
                     seen.text);
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/footer.h"

#include "app/shared/local_time.h"
#include "core/judge/agenda.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <QDateTime>
#include <QLocale>

namespace rollcall {

Footer::Footer(const Document& document, const DayClock& day, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_day(day), m_look(look) {
    setObjectName(QStringLiteral("now-line"));
    setFixedHeight(look.px(48));
    m_clock.setInterval(20000);
    connect(&m_clock, &QTimer::timeout, this, qOverload<>(&QWidget::update));
    m_clock.start();
}

QStringList Footer::nowParts() const {
    if (!m_document.isOpen()) return {tr("No logbook is open. F10, O: open one")};
    if (!m_document.trouble().isEmpty()) return {tr("What is shown is old: %1").arg(m_document.trouble())};
    if (!m_document.readOnlyReason().isEmpty()) return {tr("For reading only: %1").arg(m_document.readOnlyReason())};
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

QString Footer::inSight(int width) const {
    const QFont font = m_look.font(20, true);
    const QFontMetrics metrics(font);
    if (!m_message.isEmpty() || metrics.horizontalAdvance(text()) <= width) return elided(text(), font, width);
    for (qsizetype shown = m_now.size() - 1; shown > 0; --shown) {
        const QString some =
            m_now.first(shown).join(between()) + between() + tr("and %1 more").arg(m_now.size() - shown);
        if (metrics.horizontalAdvance(some) <= width) return some;
    }
    return elided(text(), font, width);
}

void Footer::refresh() {
    m_now = nowParts();
    setAccessibleName(text());
    setToolTip(m_now.join(QLatin1Char('\n')));
    update();
}

void Footer::say(const QString& message, bool trouble) {
    m_message = message;
    m_trouble = trouble;
    setAccessibleName(message);
    update();
}

void Footer::hush() {
    if (m_message.isEmpty()) return;
    m_message.clear();
    refresh();
}

void Footer::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.paper);
    painter.fillRect(0, 0, width(), 1, p.line);
    const int centre = height() / 2;
    int x = width() - px(16);
    const auto right = [&](const QString& text, const QString& key) {
        if (!text.isEmpty()) {
            drawText(painter, x, centre + px(5), text, m_look.font(14), p.muted, Qt::AlignRight);
            x -= m_look.width(text, 14) + px(8);
        }
        if (!key.isEmpty()) {
            x -= keyCapWidth(key, m_look);
            drawKeyCap(painter, x, centre, key, m_look, p.muted);
            x -= px(16);
        } else {
            x -= px(8);
        }
    };
    right(QLocale().toString(localTime(m_document.now()), QStringLiteral("ddd HH:mm")), {});
    right(tr("help"), QStringLiteral("F1"));
    right(tr("menu"), QStringLiteral("F10"));
    right(m_document.person().isEmpty() ? tr("who?") : m_document.person(), QStringLiteral("F11"));
    const bool trouble = !m_message.isEmpty() && m_trouble;
    const QFont font = m_look.font(20, true);
    drawText(painter, px(16), centre + px(7), inSight(x - px(32)), font, trouble ? p.fail : p.ink);
}

} // namespace rollcall

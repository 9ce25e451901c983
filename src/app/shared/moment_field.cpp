// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/moment_field.h"

#include "app/shared/buttons.h"
#include "app/shared/drop_down.h"
#include "app/shared/plain_text.h"
#include "words/typed_time.h"

#include <QCalendarWidget>
#include <QDialog>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QTextCharFormat>
#include <QToolButton>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int minuteStep = 5;

// Hours, or minutes, as two digits; what is typed between the steps stays among them.
DropDown* digits(const char* name, int most, int step, int chosen, const Look& look) {
    auto* box = new DropDown;
    box->setObjectName(QLatin1String(name));
    box->setFont(look.font(18));
    box->setMinimumHeight(look.px(40));
    for (int i = 0; i < most; ++i) {
        if (i % step == 0 || i == chosen) box->addItem(QStringLiteral("%1").arg(i, 2, 10, QLatin1Char('0')), i);
    }
    box->setCurrentIndex(box->findData(chosen));
    return box;
}

// A little sheet with its two rings and a grid of days.
class SheetButton : public QAbstractButton {
public:
    SheetButton(const Look& look, QWidget* parent) : QAbstractButton(parent), m_look(look) {
        setFocusPolicy(Qt::NoFocus);
        setCursor(Qt::ArrowCursor);
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(QPen(m_look.palette.ink, m_look.px(2) * 0.75));
        const double side = m_look.px(18);
        const QRectF sheet(QPointF(width() - side, height() - side) / 2, QSizeF(side, side));
        painter.drawRect(sheet);
        const double third = side / 3;
        painter.drawLine(sheet.topLeft() + QPointF(0, third), sheet.topRight() + QPointF(0, third));
        for (const double x : {third, 2 * third}) {
            painter.drawLine(sheet.topLeft() + QPointF(x, -third / 2), sheet.topLeft() + QPointF(x, third / 3));
            for (const double y : {third * 1.6, third * 2.4}) painter.drawPoint(sheet.topLeft() + QPointF(x, y));
        }
    }

private:
    const Look& m_look;
};

} // namespace

MomentField::MomentField(Picks picks, const QDateTime& now, const Look& look, QWidget* parent)
    : QLineEdit(parent), m_picks(picks), m_now(now), m_look(look), m_button(new SheetButton(look, this)) {
    auto* button = qobject_cast<QAbstractButton*>(m_button);
    button->setObjectName(QStringLiteral("calendar"));
    button->setAccessibleName(tr("pick it"));
    button->setToolTip(plainTip(tr("Pick it (Alt+Down)")));
    connect(button, &QAbstractButton::clicked, this, &MomentField::pick);
    setTextMargins(0, 0, look.px(44), 0);
}

void MomentField::resizeEvent(QResizeEvent* event) {
    QLineEdit::resizeEvent(event);
    m_button->setGeometry(width() - m_look.px(44), 0, m_look.px(44), height());
}

void MomentField::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down && (event->modifiers() & Qt::AltModifier)) return pick();
    QLineEdit::keyPressEvent(event);
}

QDateTime MomentField::typedOrNow() const {
    const Instant now{m_now.toMSecsSinceEpoch(), m_now.offsetFromUtc() / 60};
    if (m_picks == Picks::day) {
        const Result<std::string> day = typedDate(text());
        const QDate date = day ? QDate::fromString(QString::fromStdString(*day), Qt::ISODate) : QDate();
        return date.isValid() ? QDateTime(date, m_now.time()) : m_now;
    }
    if (m_picks == Picks::time) {
        const QTime time = QTime::fromString(text().trimmed(), QStringLiteral("H:mm"));
        return time.isValid() ? QDateTime(m_now.date(), time) : m_now;
    }
    const Result<Instant> at = typedTime(text(), now);
    return at ? QDateTime::fromMSecsSinceEpoch(at->utc_ms, Qt::OffsetFromUTC, at->offset_minutes * 60) : m_now;
}

void MomentField::pick() {
    const QDateTime begun = typedOrNow();
    auto* sheet = new QDialog(this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->setObjectName(QStringLiteral("pick"));
    sheet->setWindowTitle(m_picks == Picks::day ? tr("Which day?") : tr("When?"));
    auto* column = new QVBoxLayout(sheet);
    column->setSpacing(m_look.px(12));
    auto* calendar = new QCalendarWidget;
    calendar->setHidden(m_picks == Picks::time);
    calendar->setFont(m_look.font(16));
    calendar->setGridVisible(false);
    calendar->setVerticalHeaderFormat(QCalendarWidget::NoVerticalHeader);
    calendar->setDateEditEnabled(false); // digits belong into the field; Qt's own over the days is never taken down
    calendar->setSelectedDate(begun.date());
    if (m_picks == Picks::moment) calendar->setMaximumDate(m_now.date()); // what was done cannot lie ahead
    QTextCharFormat plain;                                                // not red: red is Fail here
    plain.setForeground(m_look.palette.ink);
    for (int day = Qt::Monday; day <= Qt::Sunday; ++day) // all of them: a day's colour is its head's too
        calendar->setWeekdayTextFormat(static_cast<Qt::DayOfWeek>(day), plain);
    QTextCharFormat head;
    head.setBackground(m_look.palette.panel);
    calendar->setHeaderTextFormat(head);
    for (auto* button : calendar->findChildren<QToolButton*>()) button->setFont(m_look.font(18, true));
    calendar->setMinimumSize(m_look.px(380), m_look.px(300));
    column->addWidget(calendar);
    QComboBox* hour = nullptr;
    QComboBox* minute = nullptr;
    if (m_picks != Picks::day) {
        auto* row = new QHBoxLayout;
        hour = digits("hour", 24, 1, begun.time().hour(), m_look);
        minute = digits("minute", 60, minuteStep, begun.time().minute(), m_look);
        hour->setAccessibleName(tr("hour"));
        minute->setAccessibleName(tr("minute"));
        row->addWidget(hour, 1);
        row->addWidget(minute, 1);
        column->addLayout(row);
    }
    auto* take = new PrimaryButton(m_look);
    take->setObjectName(QStringLiteral("take"));
    take->show(tr("Take it"), {}, QStringLiteral("Enter"));
    column->addWidget(take);
    const auto accept = [this, sheet, calendar, hour, minute] {
        QStringList parts;
        if (m_picks != Picks::time) parts << calendar->selectedDate().toString(Qt::ISODate);
        if (hour != nullptr) parts << hour->currentText() + QLatin1Char(':') + minute->currentText();
        setText(parts.join(QLatin1Char(' ')));
        setFocus();
        sheet->accept();
    };
    connect(take, &QAbstractButton::clicked, sheet, accept);
    connect(calendar, &QCalendarWidget::activated, sheet, accept); // Enter on a day, or a second click
    sheet->open();
    if (m_picks == Picks::time)
        hour->setFocus();
    else
        calendar->setFocus();
}

} // namespace rollcall

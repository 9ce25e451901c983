// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/reading_row.h"

#include "app/shared/accessible.h"
#include "app/shared/pointing.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <QMouseEvent>
#include <QSettings>

namespace rollcall {

namespace {

constexpr int cellWidth = 136; // of one reading
const QString habitsKey = QStringLiteral("dial-habits");

// Every way in which a verdict says where the files put a blade.
constexpr std::array answers{Fact::filesPass, Fact::filesSoft, Fact::filesHard, Fact::filesAcross, Fact::filesStay};

} // namespace

ReadingRow::ReadingRow(const Document& document, const ReadingStation& station, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_station(station), m_look(look) {
    setRole(this, QAccessible::EditableText);
    connect(&m_tick, &QTimer::timeout, this, [this] {
        const TestCycle& limits = m_document.tables().testCycle();
        const double seconds = static_cast<double>(m_dwell.elapsed()) / 1000;
        if (!m_sounded && seconds >= limits.dwell_min_s) {
            m_sounded = true;
            emit dwellOver();
        }
        if (!m_station.typed().isEmpty() || seconds > 3 * limits.dwell_max_s) { // the number is being typed
            m_dwell.invalidate();
            m_tick.stop();
        }
        update();
    });

    setObjectName(QStringLiteral("reading-row"));
    setFixedHeight(look.px(172));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

void ReadingRow::startDwell() {
    if (m_dwell.isValid()) {
        m_dwell.invalidate();
        m_tick.stop();
        return update();
    }
    m_sounded = false;
    m_dwell.start();
    m_tick.start(100);
    update();
}

// M7. Too short a dwell reads hard, too long reads soft: the seconds stand where the number will be typed.
void ReadingRow::paintDwell(QPainter& painter, const QRect& field) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const TestCycle& limits = m_document.tables().testCycle();
    const double seconds = static_cast<double>(m_dwell.elapsed()) / 1000;
    const bool early = seconds < limits.dwell_min_s;
    const bool late = seconds > limits.dwell_max_s;
    const QColor color = late ? p.borderline : early ? p.muted : p.primary;
    drawText(painter, field.left() + px(20), field.top() + px(96), QString::number(seconds, 'f', 1),
             m_look.font(56, true), color);
    const QString what = early  ? tr("hold")
                         : late ? tr("over %1 s: read again elsewhere").arg(limits.dwell_max_s)
                                : tr("release: %1 to %2 s").arg(limits.dwell_min_s).arg(limits.dwell_max_s);
    drawFitted(painter, field.left() + px(20), field.top() + px(124), what, field.width() - px(30), m_look, 16, true,
               color);
}

QRect ReadingRow::fieldArea() const {
    return {width() - m_look.px(280), m_look.px(4), m_look.px(280), m_look.px(136)};
}

void ReadingRow::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton && fieldArea().contains(event->pos())) emit fieldClicked();
}

bool ReadingRow::onDial() const {
    const Tester* tester = m_document.tester();
    constexpr double halfPoint = 0.5;
    return tester != nullptr && tester->kind == TesterKind::bench && tester->resolution >= halfPoint;
}

void ReadingRow::turnHabits() {
    QSettings settings;
    settings.setValue(habitsKey, !settings.value(habitsKey, true).toBool());
    update();
}

// What makes one dial reading like the next, in the order in which the hand does it.
void ReadingRow::paintHabits(QPainter& painter, const QRect& area) const {
    const Palette& p = m_look.palette;
    const QStringList habits{tr("Raised in one motion, small pointer on its mark; overshot: a new spot"),
                             tr("Big needle near twelve before the bezel is turned, else look at the seat"),
                             tr("Lever let go, never pushed; wait until it stands still"),
                             tr("The same small tap each time, then read at the major load off")};
    const int step = area.height() / static_cast<int>(habits.size());
    int y = area.top() + m_look.px(20);
    for (const QString& habit : habits) {
        painter.setPen(QPen(p.line, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(area.left() + 1, y - m_look.px(13), m_look.px(14), m_look.px(14));
        int size = 18;
        while (size > 14 && m_look.width(habit, size) > area.width() - m_look.px(26)) --size;
        drawFitted(painter, area.left() + m_look.px(26), y, habit, area.width() - m_look.px(26), m_look, size, false,
                   p.ink);
        y += step;
    }
}

void ReadingRow::refresh() {
    m_taken.clear();
    m_files.clear();
    m_number = 1;
    if (m_station.mode() == ReadingStation::Mode::block) {
        if (const Verification* run = m_station.run()) {
            for (const double value : run->readings)
                m_taken.push_back({tr("Block %1").arg(m_number++), words::hardness(value), {}, {}, {}});
        }
    } else if (const Blade* blade = m_document.blade()) {
        const Verdict* verdict = m_document.verdict();
        const int temper = lastTemper(*blade);
        for (const Reading& r : blade->readings) {
            if (r.gate != m_document.gate() || r.round != blade->round ||
                (r.gate == Gate::temper && r.after_temper.value_or(0) != temper))
                continue;
            const bool leftOut = verdict != nullptr && std::find(verdict->left_out.begin(), verdict->left_out.end(),
                                                                 r.id) != verdict->left_out.end();
            const auto take = [&](const QString& label, const QString& struck) {
                m_taken.push_back(
                    {label, words::hardness(r.value), struck, r.id, words::readingText(m_document.batch(), r)});
            };
            if (r.struck)
                take(words::strikeName(r.struck->reason), tr("struck out"));
            else if (leftOut)
                take(tr("left out"), tr("left out"));
            else if (r.zone != Zone::edge)
                take(words::zoneName(nameOf(r.zone)), {});
            else
                take(tr("Reading %1").arg(m_number++), {});
        }
        if (verdict != nullptr && verdict->planned == 0 && m_taken.empty()) listFiles(*blade, *verdict);
    }
    if (!m_files.isEmpty()) {
        QStringList said;
        for (const Taken& file : m_taken) said << file.value + QLatin1Char(' ') + file.label;
        said << m_files;
        setAccessibleName(tr("By the files: %1. %2").arg(said.join(QStringLiteral(", ")), m_station.message()));
        return update();
    }
    const QString state = m_station.typed().isEmpty() ? tr("nothing typed") : m_station.typed();
    setAccessibleName(tr("Reading %1: %2. %3").arg(m_number).arg(state, m_station.message()));
    update();
}

// E37. Where files answer, each that was tried stands in the place of a reading, and what the verdict makes of them all
// in the place of the digits.
void ReadingRow::listFiles(const Blade& blade, const Verdict& verdict) {
    m_files = tr("not tried");
    const FileTest* test = fileTestAt(blade, m_document.gate());
    if (test == nullptr) return;
    for (const FileTrial& trial : test->trials)
        m_taken.push_back({words::touchName(trial.touch), QString::number(trial.file_hrc), {}, {}, {}});
    m_files = tr("no answer");
    for (const Reason& reason : verdict.reasons) {
        if (std::ranges::find(answers, reason.fact) != answers.end())
            m_files = words::bracketText(reason.numbers.at(0), reason.numbers.at(1));
    }
}

std::size_t ReadingRow::firstShown() const {
    const auto room = static_cast<std::size_t>(std::max(1, (fieldArea().left() - m_look.px(8)) / m_look.px(cellWidth)));
    return m_taken.size() > room ? m_taken.size() - room : 0;
}

const ReadingRow::Taken* ReadingRow::takenAt(const QPoint& at) const {
    if (at.x() < 0 || at.x() >= fieldArea().left() || at.y() > m_look.px(136)) return nullptr;
    const std::size_t place = firstShown() + static_cast<std::size_t>(at.x() / m_look.px(cellWidth));
    return place < m_taken.size() ? &m_taken[place] : nullptr;
}

std::string ReadingRow::readingAt(const QPoint& at) const {
    const Taken* taken = takenAt(at);
    return taken != nullptr ? taken->id : std::string();
}

QString ReadingRow::saysAt(const QPoint& at) const {
    const Taken* taken = takenAt(at);
    if (taken != nullptr) return taken->says;
    if (!fieldArea().contains(at)) return {};
    return m_station.expectsReading() ? tr("What is typed, or comes over a wire: Enter logs it")
                                      : tr("The last reading, read back");
}

void ReadingRow::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    const QRect field = fieldArea();
    paintField(painter, field);
    const QColor color = m_station.refused() ? p.fail : p.borderline;
    const QString message = m_station.message();
    if (!message.isEmpty())
        drawFitted(painter, width(), px(162), message, width(), m_look, 18, true, color, Qt::AlignRight);

    if (m_dwell.isValid() && m_station.typed().isEmpty() && onDial() && QSettings().value(habitsKey, true).toBool())
        return paintHabits(painter, QRect(0, px(4), field.left() - px(24), px(136)));

    // The latest readings that fit, the oldest at the left.
    const int cell = px(cellWidth);
    const std::size_t first = firstShown();
    for (std::size_t i = first; i < m_taken.size(); ++i) {
        const int x = static_cast<int>(i - first) * cell;
        if (i > first) painter.fillRect(x - px(8), px(12), 1, px(120), p.hair);
        const Taken& taken = m_taken[i];
        const bool counts = taken.struck.isEmpty();
        drawFitted(painter, x, px(30), taken.label, cell - px(12), m_look, 16, false, p.muted);
        const int size = fittingSize(m_look, taken.value, 52, 24, std::min(cell, field.left() - x) - px(12));
        drawText(painter, x - px(2), px(106), taken.value, m_look.font(size), counts ? p.ink : p.muted);
        if (!counts) painter.fillRect(x, px(86), m_look.width(taken.value, size), px(3), p.fail);
    }
    if (first > 0) drawText(painter, 0, px(136), tr("and %1 before").arg(first), m_look.font(14), p.muted);
    if (m_taken.empty())
        drawText(painter, 0, px(80), m_files.isEmpty() ? tr("No readings yet") : tr("No file tried yet"),
                 m_look.font(18), p.muted);
}

// A number may still be typed where files answer; until then the place of the digits says what they told.
void ReadingRow::paintFiles(QPainter& painter, const QRect& field) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    drawText(painter, field.left() + px(16), field.top() + px(28), tr("By the files"), m_look.font(16, true), p.muted);
    drawText(painter, field.right() - px(16), field.top() + px(28), QStringLiteral("HRC"), m_look.font(16), p.muted,
             Qt::AlignRight);
    int size = 44;
    while (size > 18 && m_look.width(m_files, size) > field.width() - px(32)) size -= 2;
    drawText(painter, field.left() + px(16), field.top() + px(98), m_files, m_look.font(size), p.ink);
}

void ReadingRow::paintField(QPainter& painter, const QRect& field) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const bool byFiles = !m_files.isEmpty() && m_station.typed().isEmpty() && !m_dwell.isValid();
    const bool open = !byFiles && m_station.expectsReading();
    const QColor frame = m_station.refused() ? p.fail : open ? p.primary : p.line;
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(field, frame);
    const int border = open ? 3 : 1;
    painter.fillRect(field.adjusted(border, border, -border, -border), p.panel);
    if (byFiles) return paintFiles(painter, field);
    const QString label = m_station.mode() == ReadingStation::Mode::block ? tr("Block reading %1").arg(m_number)
                          : m_station.zone() != Zone::edge                ? words::zoneName(nameOf(m_station.zone()))
                                                                          : tr("Reading %1").arg(m_number);
    const QString scale = QString::fromStdString(m_station.scaleInUse());
    const bool converted = m_station.mode() == ReadingStation::Mode::blade && scale != QLatin1String("HRC");
    const QString unit = m_station.mode() == ReadingStation::Mode::blade && m_station.convexRadius()
                             ? tr("%1, radius %2").arg(scale).arg(*m_station.convexRadius())
                             : scale;
    drawText(painter, field.left() + px(16), field.top() + px(28), open ? label : tr("Read, last"),
             m_look.font(16, true), open ? frame : p.muted);
    drawText(painter, field.right() - px(16), field.top() + px(28), unit, m_look.font(16),
             converted ? p.borderline : p.muted, Qt::AlignRight);

    if (m_dwell.isValid() && m_station.typed().isEmpty()) return paintDwell(painter, field);
    const int baseline = field.top() + px(122);
    double x = field.left() + px(20);
    const QString typed = m_station.typed();
    // Smaller where more was typed than a reading has: what is wrong with it must be seen.
    constexpr int large = 104;
    const double room = field.right() - px(20) - x;
    const double wide = QFontMetricsF(m_look.font(large)).horizontalAdvance(typed);
    const QFont digits = m_look.font(static_cast<int>(large * std::min(1.0, room / std::max(1.0, wide))));
    if (!open && typed.isEmpty() && !m_taken.empty()) // the last number, read back large
        drawText(painter, x, baseline, m_taken.back().value, digits, p.muted);
    if (!typed.isEmpty()) drawText(painter, x, baseline, typed, digits, m_station.refused() ? p.fail : p.ink);
    if (!open || m_station.refused()) return;
    x += QFontMetricsF(digits).horizontalAdvance(typed) + (typed.isEmpty() ? 0 : px(4));
    painter.fillRect(qRound(x), baseline - px(70), 4, px(70), p.primary);
    // Bars where digits still go: two, a point and one.
    const int cells = std::max<int>(0, 3 - static_cast<int>(QString(typed).remove(QLatin1Char('.')).size()));
    int bar = qRound(x) + px(8);
    for (int i = 0; i < cells; ++i) {
        const bool decimal = i == cells - 1;
        if (decimal && !typed.contains(QLatin1Char('.')) && cells < 3) bar += px(14);
        const int width = std::min(px(56), field.right() - px(14) - bar);
        if (width > px(16)) painter.fillRect(bar, baseline, width, 4, i == 0 ? p.primary : p.line);
        bar += px(66);
        if (decimal) continue;
        if (i == cells - 2 && cells == 3) {
            painter.fillRect(bar, baseline - px(4), px(9), px(9), p.line);
            bar += px(20);
        }
    }
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/files_dialog.h"

#include "app/shared/buttons.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <array>
#include <limits>
#include <QKeyEvent>
#include <QPainter>
#include <utility>

namespace rollcall {

namespace {

constexpr int width_px = 760;
constexpr int rowHeight = 52;
constexpr int filesHeadHeight = 64;
constexpr int ruleHeight = 176;
constexpr std::array<FileTouch, 3> touches{FileTouch::skates, FileTouch::touches, FileTouch::bites};

} // namespace

TouchButton::TouchButton(const QString& text, const QString& key, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_look(look), m_key(key) {
    setText(text);
    setCheckable(true);
    setFocusPolicy(Qt::NoFocus); // keys go to the dialog: rows by arrows, touches by letter
}

QSize TouchButton::sizeHint() const {
    return {m_look.px(168), m_look.px(42)};
}

void TouchButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), isChecked() ? p.primary : p.panel);
    painter.setPen(isChecked() ? p.primary : p.line);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
    const QColor color = isChecked() ? p.on_primary : p.ink;
    drawText(painter, m_look.px(12), height() / 2.0 + m_look.px(6), text(), m_look.font(16, isChecked()), color);
    drawKeyCap(painter, width() - m_look.px(8) - keyCapWidth(m_key, m_look), height() / 2, m_key, m_look, color);
}

FilesDialog::FilesDialog(const QString& title, const std::vector<double>& files, const FileTest* before, RuleData rule,
                         const Look& look, QWidget* parent)
    : QDialog(parent), m_look(look), m_files(files), m_rule(std::move(rule)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("files"));
    setWindowTitle(title);
    const QStringList keys{QStringLiteral("S"), QStringLiteral("C"), QStringLiteral("B")};
    for (std::size_t row = 0; row < m_files.size(); ++row) {
        std::array<TouchButton*, 3> buttons{};
        for (std::size_t i = 0; i < touches.size(); ++i) {
            auto* button = new TouchButton(words::touchName(touches[i]), keys[static_cast<int>(i)], look, this);
            button->setObjectName(QStringLiteral("file%1-%2").arg(m_files[row]).arg(keys[static_cast<int>(i)]));
            button->setAccessibleName(tr("file of %1 %2").arg(m_files[row]).arg(words::touchName(touches[i])));
            button->setGeometry(look.px(180) + static_cast<int>(i) * look.px(180), top(row) + look.px(5), look.px(172),
                                look.px(42));
            connect(button, &QAbstractButton::clicked, this, [this, row, i] {
                select(static_cast<int>(row));
                touch(row, touches[i]);
            });
            buttons[i] = button;
        }
        m_buttons.push_back(buttons);
    }
    const QStringList surfaces{tr("bare metal"), tr("on scale"), tr("soft skin suspected")};
    const QStringList surfaceKeys{QStringLiteral("M"), QStringLiteral("O"), QStringLiteral("D")};
    const int y = top(m_files.size()) + look.px(8);
    for (std::size_t i = 0; i < m_surfaces.size(); ++i) {
        m_surfaces[i] = new TouchButton(surfaces[static_cast<int>(i)], surfaceKeys[static_cast<int>(i)], look, this);
        m_surfaces[i]->setObjectName(QStringLiteral("surface-") + surfaceKeys[static_cast<int>(i)]);
        m_surfaces[i]->setGeometry(look.px(24) + static_cast<int>(i) * look.px(240), y, look.px(232), look.px(42));
        m_surfaces[i]->setChecked(i == static_cast<std::size_t>(before != nullptr ? before->surface : Surface::bare));
        connect(m_surfaces[i], &QAbstractButton::clicked, this, [this, i] {
            for (std::size_t j = 0; j < 3; ++j) m_surfaces[j]->setChecked(i == j);
            refresh();
        });
    }
    if (before != nullptr) {
        for (const FileTrial& trial : before->trials) {
            for (std::size_t row = 0; row < m_files.size(); ++row) {
                if (m_files[row] == trial.file_hrc) m_touches[row] = trial.touch;
            }
        }
    }
    m_begun = m_touches;
    auto* log = new PrimaryButton(look, this);
    log->show(tr("Log it"), tr("2 and 8 go through the files, S C B say what each did, Del takes back"), tr("Enter"));
    const int bottom = y + look.px(56 + 40 + ruleHeight);
    log->setGeometry(look.px(24), bottom, look.px(width_px - 48), look.px(72));
    connect(log, &QAbstractButton::clicked, this, &FilesDialog::submit);
    setFixedSize(look.px(width_px), bottom + look.px(72 + 20));
    refresh();
    propose();
}

// The hand goes to the file that halves the bracket.
void FilesDialog::propose() {
    const auto next = nextFile(m_files, trials());
    for (std::size_t row = 0; next && row < m_files.size(); ++row) {
        if (m_files[row] == *next) m_row = static_cast<int>(row);
    }
    update();
}

int FilesDialog::top(std::size_t row) const {
    return m_look.px(filesHeadHeight + static_cast<int>(row) * rowHeight);
}

void FilesDialog::ask(std::function<void(const std::vector<FileTrial>&, Surface)> done) {
    m_done = std::move(done);
    open();
    setFocus();
}

std::vector<FileTrial> FilesDialog::trials() const {
    std::vector<FileTrial> list;
    for (const auto& [row, did] : m_touches) list.push_back({m_files[row], did});
    return list;
}

Surface FilesDialog::surface() const {
    return m_surfaces[1]->isChecked()   ? Surface::scale
           : m_surfaces[2]->isChecked() ? Surface::decarburised
                                        : Surface::bare;
}

void FilesDialog::touch(std::size_t row, FileTouch did) {
    m_touches[row] = did;
    refresh();
    propose();
}

void FilesDialog::select(int row) {
    const int count = static_cast<int>(m_files.size());
    if (count > 0) m_row = (row + count) % count;
    update();
}

void FilesDialog::refresh() {
    for (std::size_t row = 0; row < m_buttons.size(); ++row) {
        const auto did = m_touches.find(row);
        for (std::size_t i = 0; i < touches.size(); ++i)
            m_buttons[row][i]->setChecked(did != m_touches.end() && did->second == touches[i]);
    }
    const FileBracket bracket = fileBracket(trials());
    constexpr double open = std::numeric_limits<double>::infinity();
    m_contradicts = bracket.conflict != FileConflict::none;
    m_rule.bracket.reset();
    if (m_touches.empty()) {
        m_answer = tr("Tap what each file did. Either order; the same light force each time.");
    } else if (m_contradicts) {
        m_answer =
            words::sentence({Fact::filesContradict, Tone::caution, "M12", {bracket.skating, bracket.biting}, {}});
    } else {
        const Interval interval{bracket.lower.value_or(-open), bracket.upper.value_or(open)};
        m_answer =
            surface() == Surface::bare
                ? tr("The files say %1, each known to ± %2")
                          .arg(words::bracketText(interval.low, interval.high), words::hardness(filesThemselves)) +
                      nextText()
                : words::sentence({Fact::filesNotOnBareMetal,
                                   Tone::note,
                                   "M12",
                                   {},
                                   {surface() == Surface::scale ? "scale" : "decarburised"}});
        m_rule.bracket = interval;
    }
    setAccessibleName(windowTitle() + QStringLiteral(". ") + m_answer);
    update();
}

QString FilesDialog::nextText() const {
    const auto next = nextFile(m_files, trials());
    return next ? tr("; next the file of %1").arg(*next) : tr("; no file narrows it");
}

void FilesDialog::reject() {
    if (std::exchange(m_begun, m_touches) == m_touches) return QDialog::reject();
    m_answer = tr("What you tapped is not logged yet. Esc once more leaves it.");
    m_contradicts = true;
    update();
}

void FilesDialog::submit() {
    if (m_touches.empty()) {
        m_answer = tr("No file is tapped yet.");
        m_contradicts = true;
        return update();
    }
    if (m_done) m_done(trials(), surface());
    accept();
}

void FilesDialog::keyPressEvent(QKeyEvent* event) {
    const QString key = event->text().toLower();
    const auto row = static_cast<std::size_t>(m_row);
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return submit();
    if (event->key() == Qt::Key_Down || key == QLatin1String("2")) return select(m_row + 1);
    if (event->key() == Qt::Key_Up || key == QLatin1String("8")) return select(m_row - 1);
    if (key == QLatin1String("m")) return m_surfaces[0]->click();
    if (key == QLatin1String("o")) return m_surfaces[1]->click();
    if (key == QLatin1String("d")) return m_surfaces[2]->click();
    if (m_files.empty()) return QDialog::keyPressEvent(event);
    if (key == QLatin1String("s")) return touch(row, FileTouch::skates);
    if (key == QLatin1String("c")) return touch(row, FileTouch::touches);
    if (key == QLatin1String("b")) return touch(row, FileTouch::bites);
    if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) {
        m_touches.erase(row);
        return refresh();
    }
    QDialog::keyPressEvent(event);
}

void FilesDialog::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    painter.setPen(p.line);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
    drawText(painter, px(24), px(42), windowTitle(), m_look.font(24, true), p.ink);
    for (std::size_t row = 0; row < m_files.size(); ++row) {
        const bool active = static_cast<int>(row) == m_row;
        if (active) {
            painter.fillRect(px(12), top(row), width() - px(24), px(rowHeight), p.paper);
            painter.fillRect(px(12), top(row), px(4), px(rowHeight), p.primary);
        }
        drawText(painter, px(28), top(row) + px(37), QString::number(m_files[row]), m_look.font(28, true), p.ink);
        drawText(painter, px(84), top(row) + px(36), QStringLiteral("HRC"), m_look.font(14), p.muted);
    }
    const int under = top(m_files.size()) + px(8 + 42);
    drawFitted(painter, px(24), under + px(30), m_answer, width() - px(48), m_look, 18, true,
               m_contradicts ? p.borderline : p.ink);
    drawRule(painter, QRect(px(24), under + px(40), width() - px(48), px(ruleHeight)), m_rule, m_look);
}

} // namespace rollcall

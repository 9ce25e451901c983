// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"

#include "app/benches.h"
#include "app/exchange/exchange_actions.h"
#include "app/frame/command_bar.h"
#include "app/frame/footer.h"
#include "app/frame/gate_track.h"
#include "app/frame/long_press.h"
#include "app/frame/open_forms.h"
#include "app/frame/style.h"
#include "app/frame/verdict_column.h"
#include "app/roll/roll.h"
#include "app/shared/accessible.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QAbstractButton>
#include <QAbstractItemView>
#include <QApplication>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMenuBar>
#include <QMimeData>
#include <QSettings>
#include <QStackedWidget>
#include <QTabBar>
#include <QTimer>
#include <QVBoxLayout>

namespace rollcall {

namespace {
constexpr int wholeRoll = 1200; ///< least width of the window, at 100 per cent, for the whole of the roll
} // namespace

MainWindow::MainWindow(Document& document, Look look, Seams seams)
    : m_document(document), m_look(look), m_station(document), m_links(document), m_day(document), m_keeper(document),
      m_seams(std::move(seams)), m_caller(document, m_station, m_seams),
      m_actions(new ShopActions(document, m_station, m_look, m_seams, this)),
      m_exchange(new ExchangeActions(document, m_keeper, m_look, m_seams,
                                     {[this] { return tablesInView(); }, [this] { return m_stack->currentWidget(); }},
                                     this)) {
    installAccessibility();
    setObjectName(QStringLiteral("window"));
    setAcceptDrops(true);
    build();
    connect(&m_document, &Document::changed, this, &MainWindow::refresh);
    connect(new OpenForms(m_document, this), &OpenForms::left, this, [this](const QString& what) { say(what, true); });
    connect(&m_document, &Document::learnt, this, [this] { m_footer->refresh(); });
    connect(&m_document, &Document::failed, this, [this](const QString& message) { say(message, true); });
    connect(&m_station, &ReadingStation::changed, &m_document, &Document::tell);
    connect(&m_station, &ReadingStation::logged, this, [this](const QString& what) { say(what, false); });
    connect(&m_links.tester, &DeviceLink::changed, &m_document, &Document::tell);
    connect(m_actions, &ShopActions::said, this, &MainWindow::say);
    connect(m_actions, &ShopActions::gateWanted, this, &MainWindow::openGate);
    connect(m_actions, &ShopActions::temperLogged, this, [this] {
        // What is read next was tempered: at Quench its readings would be one too many.
        const bool atQuench = m_current->gate() == Gate::quench;
        if (atQuench && m_document.batch().planOf(Gate::temper).required) openGate(Gate::temper);
    });
    connect(m_exchange, &ExchangeActions::said, this, &MainWindow::say);
    connect(m_exchange, &ExchangeActions::logbookWanted, &m_document,
            [this](const QString& path) { m_document.open(path, false); });
    connect(&m_day, &DayClock::changed, this, [this] { m_footer->refresh(); });
    connect(&m_day, &DayClock::rang, this, [this] { m_seams.sound(Sound::ovenDue); });
    connect(new LongPress(this), &LongPress::asked, this, &MainWindow::showContext);
    qApp->installEventFilter(this);
}

MainWindow::~MainWindow() = default;

void MainWindow::build() {
    // Each place comes again at the page where it was left.
    std::map<QString, int> pages;
    for (const Bench* bench : m_benches) pages[bench->objectName()] = bench->pageIndex();
    const QString current = m_current != nullptr ? m_current->objectName() : QString();
    m_benches.clear();
    m_trail.clear();
    m_current = nullptr;
    const Footer::Message said = m_footer != nullptr ? m_footer->message() : Footer::Message();
    delete m_content;
    delete layout();
    // Not in the style sheet: a size there would take the place of every size set on a widget.
    qApp->setFont(m_look.font(16));
    qApp->setStyleSheet(rollcall::styleSheet(m_look));
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    m_content = new QWidget;
    outer->addWidget(m_content);
    auto* rows = new QVBoxLayout(m_content);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    m_menuBar = nullptr;
    if (QSettings().value(QStringLiteral("menu-bar"), false).toBool()) {
        rows->setMenuBar(m_menuBar = new QMenuBar);
        makeMenuBar();
    }
    m_track = new GateTrack(m_document, m_look);
    rows->addWidget(m_track);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    m_left = new QStackedWidget;
    m_roll = new Roll(m_document, m_look);
    m_left->addWidget(m_roll);
    m_stack = new QStackedWidget;
    m_column = new VerdictColumn(m_look);
    middle->addWidget(m_left);
    middle->addWidget(m_stack, 1);
    middle->addWidget(m_column);
    rows->addLayout(middle, 1);
    m_bar = new CommandBar(m_look);
    rows->addWidget(m_bar);
    m_footer = new Footer(m_document, m_day, m_look, said);
    rows->addWidget(m_footer);
    connect(m_footer, &Footer::nowClicked, this, &MainWindow::chooseTask);
    connect(m_footer, &Footer::wanted, this, &MainWindow::run);
    narrow();
    m_chartLook = fitted();
    m_benches =
        makeBenches({m_document, m_look, m_chartLook, m_seams, m_station, m_links, m_day, *m_actions, *m_exchange});
    for (Bench* bench : m_benches) {
        if (const auto page = pages.find(bench->objectName()); page != pages.end()) bench->openPageAt(page->second);
        m_stack->addWidget(bench);
        if (QWidget* side = bench->side()) m_left->addWidget(side);
        connectBench(bench);
    }
    m_current = current.isEmpty() ? m_benches.front() : benchNamed(current);
    m_current->setInFront(true);
    makeCommands();

    connect(m_track, &GateTrack::batchClicked, this, &MainWindow::openOverview);
    connect(m_track, &GateTrack::gateClicked, this, &MainWindow::openGate);
    connect(m_column, &VerdictColumn::acted, this, [this] { m_current->act(); });
    connect(m_column, &VerdictColumn::leftClicked, this, [this] { m_current->leftAct(); });
    connect(m_column, &VerdictColumn::rightClicked, this, [this] { m_current->rightAct(); });
    connect(m_column, &VerdictColumn::draggedOut, m_exchange, &ExchangeActions::dragPicture);
    connect(m_column, &VerdictColumn::whyAsked, m_actions, &ShopActions::why);
    connect(m_bar, &CommandBar::chosen, this, &MainWindow::run);
    refresh();
}

void MainWindow::connectBench(Bench* bench) {
    connect(bench, &Bench::said, this, &MainWindow::say);
    connect(bench, &Bench::changed, this, [this, bench] {
        if (m_current == bench) refresh();
    });
    connect(bench, &Bench::wanted, this, [this, bench] {
        const bool leadsBack = m_current->leadsBack();
        if (leadsBack) m_trail.push_back(m_current);
        open(bench, leadsBack);
    });
    connect(bench, &Bench::backWanted, this, [this, bench] {
        // At a gate the work goes on.
        if (!m_trail.empty() || !bench->gate()) goBack();
    });
    connect(bench, &Bench::gateWanted, this, &MainWindow::openGate);
    connect(bench, &Bench::placeWanted, this, qOverload<const QString&, int>(&MainWindow::open));
    connect(bench, &Bench::commandWanted, this, &MainWindow::run);
}

void MainWindow::orderTabs() {
    QWidget* last = nullptr;
    for (QWidget* area : std::initializer_list<QWidget*>{m_track, m_left, m_stack, m_column, m_bar, m_footer}) {
        std::vector<QWidget*> inside;
        for (QWidget* next = nextInFocusChain(); next != this; next = next->nextInFocusChain()) {
            if ((next->focusPolicy() & Qt::TabFocus) != 0 && (next == area || area->isAncestorOf(next)))
                inside.push_back(next);
        }
        for (QWidget* widget : inside) {
            if (last != nullptr) setTabOrder(last, widget);
            last = widget;
        }
    }
}

// A small screen, or a large text on it: first the roll narrows, then the verdict's column.
void MainWindow::narrow() {
    constexpr int wholeColumn = 1100;
    const int wide = qRound(width() / m_look.factor);
    m_roll->setNarrow(wide < wholeRoll);
    m_column->setNarrow(wide < wholeColumn);
}

void MainWindow::arrange() {
    narrow();
    const int wide = qRound(width() / m_look.factor);
    const QWidget* side = m_current->side();
    m_left->setFixedWidth(side != nullptr ? m_chartLook.px(328) : m_roll->width());
    m_track->setBatchWidth(std::max(m_roll->width(), m_look.px(wide < wholeRoll ? 200 : 328)));
}

// Charts and tables are drawn no larger than their room bears, which is what they have in a window of 1024 by 640 at
// 100 per cent: a text larger than that leaves is for what is read from afar, the frame, the verdict and the reading.
Look MainWindow::fitted() const {
    constexpr double leastWidth = 604;
    constexpr double leastHeight = 456;
    constexpr double step = 0.05; // the window is not laid out anew for each pixel
    constexpr double least = 0.8;
    const int framed = m_track->height() + m_bar->height() + m_footer->height();
    const double room =
        std::min((width() - m_roll->width() - m_column->width()) / leastWidth, (height() - framed) / leastHeight);
    Look look = m_look;
    look.factor = std::min(look.factor, std::max(least, std::floor(room / step + 1e-6) * step));
    return look;
}

void MainWindow::resizeEvent(QResizeEvent*) {
    if (m_current == nullptr) return;
    arrange();
    if (fitted().factor != m_chartLook.factor) setLook(nextLook());
}

// What would be lost is said first; closing again leaves it.
void MainWindow::fitScreen() {
    constexpr QSize designed(1280, 800);
    constexpr QSize frame(16, 48);
    const bool known = restoreGeometry(QSettings().value(QStringLiteral("geometry")).toByteArray());
    const QRect all = screen()->availableGeometry();
    resize((known ? size() : designed).boundedTo(all.size() - frame));
    // The screen it was left on may be gone, or be another one.
    if (known && !all.contains(geometry()))
        move(qBound(all.left(), x(), all.right() + 1 - width()), qBound(all.top(), y(), all.bottom() + 1 - height()));
}

void MainWindow::closeEvent(QCloseEvent* event) {
    const QString lost = m_current->unsaved();
    if (lost.isEmpty() || lost == m_lost) {
        QSettings().setValue(QStringLiteral("geometry"), saveGeometry());
        return event->accept();
    }
    m_lost = lost;
    say(tr("%1 Close once more to leave it.").arg(lost), true);
    event->ignore();
}

// Never at once: whoever asks may stand in what is taken away, as an entry of the menu bar does.
void MainWindow::setLook(const Look& look) {
    const bool waiting = m_nextLook.has_value();
    m_nextLook = look;
    if (!waiting) QTimer::singleShot(0, this, &MainWindow::takeLook);
}

void MainWindow::takeLook() {
    // What is being stored calls back to the benches that asked for it, and so does a form that is open: they must be
    // there still.
    const bool asking = QApplication::activeModalWidget() != nullptr || QApplication::activePopupWidget() != nullptr;
    if (asking || m_document.pending() > 0) {
        constexpr int soon_ms = 5;
        constexpr int later_ms = 100;
        return QTimer::singleShot(asking ? later_ms : soon_ms, this, &MainWindow::takeLook);
    }
    m_look = *std::exchange(m_nextLook, std::nullopt);
    build();
}

void MainWindow::say(const QString& message, bool trouble) {
    m_footer->say(message, trouble);
}

void MainWindow::refresh() {
    const Units units = m_document.state().shop().units();
    words::setUnits(units);
    if (m_look.units != units) { // everything is drawn anew, once nothing is under way
        Look look = nextLook();
        look.units = m_look.units = units;
        setLook(look);
        say(tr("A number without a unit is now in %1 or %2.")
                .arg(words::unit(Quantity::length), words::unit(Quantity::temperature)),
            false);
    }
    // Another logbook may have no batch: a bench without a blade has nothing to work on.
    const auto whyNot = [this] {
        const std::optional<Gate> gate = m_current->gate();
        return gate && m_document.hasBatch() ? m_current->whyNotAt(*gate) : QString();
    };
    if ((m_current->needsBlade() && m_document.blade() == nullptr) || !whyNot().isEmpty()) {
        Bench* left = std::exchange(m_current, m_benches.front());
        m_trail.clear();
        left->setInFront(false);
        m_current->setInFront(true);
    }
    const std::optional<Gate> gate = m_current->gate();
    setWindowTitle(m_document.hasBatch() ? tr("%1 – Rollcall").arg(QString::fromStdString(m_document.batch().name))
                                         : tr("Rollcall"));
    m_track->refresh(gate             ? GateTrack::Open::gate
                     : overviewOpen() ? GateTrack::Open::batch
                                      : GateTrack::Open::none,
                     gate.value_or(m_document.gate()), !m_trail.empty() && m_trail.back()->gate().has_value());
    m_roll->refresh(gate);
    QWidget* side = m_current->side();
    m_left->setCurrentWidget(side != nullptr ? side : m_roll);
    arrange();
    if (m_stack->currentWidget() != m_current || focusWidget() == nullptr) {
        m_stack->setCurrentWidget(m_current);
        m_current->focusTarget()->setFocus();
    }
    m_current->refresh();
    m_column->show(m_current->content());
    const bool all = m_current->wantsAll();
    m_track->setVisible(!all);
    m_left->setVisible(!all && !m_current->isRoll());
    m_column->setVisible(!all);
    // What has a button in the column already needs none in the row.
    const ColumnContent& column = m_column->content();
    Commands shown = m_current->commands();
    std::erase_if(shown, [&](const Command& command) {
        const QString key = command.keyText();
        const bool keyed = !key.isEmpty() && (key == column.left_key || key == column.right_key);
        return !command.in_row || (!all && (keyed || command.text == column.act || command.text == column.left ||
                                            command.text == column.right));
    });
    QStringList offers = all ? QStringList() : m_current->offers();
    if (!all && m_document.hasBatch()) offers << QStringLiteral("undo");
    for (const QString& id : offers) {
        for (const Command& command : m_everywhere) {
            if (command.id == id && !isNearer(command)) shown.push_back(command);
        }
    }
    if (m_bar->show(shown)) orderTabs();
    m_footer->refresh();
}

Bench* MainWindow::benchNamed(const QString& place) const {
    for (Bench* bench : m_benches) {
        if (bench->objectName() == place) return bench;
    }
    return m_benches.front();
}

bool MainWindow::open(Bench* bench, bool keepTrail, std::optional<Gate> gate) {
    if (bench->needsBlade() && !m_document.hasBatch()) {
        say(tr("Make a batch first."), true);
        return false;
    }
    if (!keepTrail) m_trail.clear();
    if (Bench* left = std::exchange(m_current, bench); left != bench) {
        left->setInFront(false);
        bench->setInFront(true);
    }
    if (!gate) gate = bench->gate();
    if (gate && *gate != m_document.gate())
        m_document.selectGate(*gate); // which shows it
    else
        refresh();
    return true;
}

void MainWindow::open(const QString& place, int page) {
    Bench* bench = benchNamed(place);
    // What lies outside the gates leads back to where one was.
    const bool aside = !bench->gate() && bench != m_benches.front();
    if (aside && bench != m_current) m_trail.push_back(m_current);
    if (open(bench, aside) && page >= 0) bench->openPageAt(page);
}

void MainWindow::openGate(Gate gate) {
    for (Bench* bench : m_benches) {
        if (!bench->serves(gate)) continue;
        if (const QString why = m_document.hasBatch() ? bench->whyNotAt(gate) : QString(); !why.isEmpty())
            return say(why, true);
        open(bench, false, gate);
        return;
    }
}

void MainWindow::goBack() {
    if (m_trail.empty()) return openOverview();
    Bench* before = m_trail.back();
    m_trail.pop_back();
    open(before, true);
}

void MainWindow::stepBlade(int by) {
    if (!m_document.hasBatch()) return;
    const int count = static_cast<int>(m_document.batch().blades.size());
    m_document.selectBlade((m_document.bladeIndex() + by + count) % count);
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress || QApplication::activeModalWidget() != nullptr ||
        QApplication::activePopupWidget() != nullptr)
        return QWidget::eventFilter(watched, event);
    auto* widget = qobject_cast<QWidget*>(watched);
    if (widget == nullptr || widget->window() != this) return QWidget::eventFilter(watched, event);
    return handleKey(static_cast<QKeyEvent*>(event)) || QWidget::eventFilter(watched, event);
}

bool MainWindow::handleKey(QKeyEvent* event) {
    // While a logbook is being opened the one before is still in sight, and no key is meant for it.
    if (!m_document.isOpen() && m_document.pending() > 0) return true;
    m_footer->hush();
    m_lost.clear();
    if (handleCode(event)) return true;
    // Num Lock off: the numpad's digits arrive as movements. Said, and nothing moves.
    const bool digitKey = event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9;
    const bool movement = (event->key() >= Qt::Key_Home && event->key() <= Qt::Key_PageDown) ||
                          event->key() == Qt::Key_Insert || event->key() == Qt::Key_Delete ||
                          event->key() == Qt::Key_Clear;
    if ((event->modifiers() & Qt::KeypadModifier) && movement && !digitKey) {
        say(tr("Num Lock is off. Press Num Lock, then type."), true);
        return true;
    }
    auto* button = qobject_cast<QAbstractButton*>(focusWidget());
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        button != nullptr ? button->click() : m_current->act();
        return true;
    }
    if (button != nullptr && event->key() == Qt::Key_Space) return false;
    // A list or tab that Tab has led to is moved in by its own keys.
    const bool arrow = event->key() >= Qt::Key_Left && event->key() <= Qt::Key_Down;
    QWidget* focus = focusWidget();
    const bool ownArrows = focus != nullptr && !m_current->isAncestorOf(focus) && focus != m_current &&
                           qobject_cast<QAbstractItemView*>(focus) != nullptr;
    if (arrow && (ownArrows || qobject_cast<QTabBar*>(focus) != nullptr)) return false;
    if (m_current->key(event)) return true;
    if (event->key() == Qt::Key_Escape) {
        if (!m_current->escape()) goBack();
        return true;
    }
    if (handleCommand(m_current->commands(), *event)) return true;
    if (m_current->wantsAll()) // nothing else may happen meanwhile
        return event->key() == Qt::Key_F1 ? handleCommand(m_everywhere, *event)
                                          : event->key() != Qt::Key_Tab && event->key() != Qt::Key_Backtab;
    if (event->key() == Qt::Key_PageDown || event->key() == Qt::Key_PageUp) {
        stepBlade(event->key() == Qt::Key_PageDown ? 1 : -1);
        return true;
    }
    if (handleCommand(m_everywhere, *event)) return true;
    if (!digitKey || (event->modifiers() & ~Qt::KeypadModifier) != 0) return false;
    say(tr("No number is typed here: readings belong to Quench (F4) and Temper (F5)."), true);
    return true;
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    for (const QUrl& url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        const QString ending = QFileInfo(path).suffix().toLower();
        if (ending == QLatin1String("rollcall"))
            m_document.open(path, false);
        else if (m_current->takeFile(path))
            continue;
        else if (ending == QLatin1String("csv") || ending == QLatin1String("txt") || ending == QLatin1String("tsv"))
            m_exchange->importFile(path);
        else
            say(tr("%1 is neither a CSV file nor a logbook.").arg(QFileInfo(path).fileName()), true);
    }
    event->acceptProposedAction();
}

} // namespace rollcall

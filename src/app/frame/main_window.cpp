// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"

#include "app/call/call_bench.h"
#include "app/edge/edge_bench.h"
#include "app/exchange/exchange_actions.h"
#include "app/frame/footer.h"
#include "app/frame/gate_track.h"
#include "app/frame/style.h"
#include "app/frame/verdict_column.h"
#include "app/grain/grain_bench.h"
#include "app/overview/overview_bench.h"
#include "app/proof/proof_bench.h"
#include "app/release/release_bench.h"
#include "app/roll/roll.h"
#include "app/shared/choice_dialog.h"
#include "app/steel/steel_bench.h"
#include "app/testers/tester_actions.h"
#include "app/testers/tester_list.h"
#include "app/testers/testers_bench.h"
#include "core/judge/agenda.h"
#include "words/words.h"

#include <QAbstractButton>
#include <QApplication>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMimeData>
#include <QSettings>
#include <QStackedWidget>
#include <QTimer>
#include <QVBoxLayout>

namespace rollcall {

namespace {

std::optional<Gate> gateOf(MainWindow::Place place) {
    switch (place) {
    case MainWindow::Place::steel:
        return Gate::steel;
    case MainWindow::Place::heat:
        return Gate::heat;
    case MainWindow::Place::edge:
        return Gate::edge;
    case MainWindow::Place::proof:
    case MainWindow::Place::grain: // what a fracture says is said at Proof
        return Gate::proof;
    case MainWindow::Place::release:
        return Gate::release;
    default:
        return std::nullopt;
    }
}

} // namespace

MainWindow::MainWindow(Document& document, Look look, Seams seams)
    : m_document(document), m_look(look), m_station(document), m_link(document), m_oven(document), m_day(document),
      m_shots(QStringLiteral("xrf/folder"), {QStringLiteral("*.csv")}),
      m_fractures(QStringLiteral("grain/folder"),
                  {QStringLiteral("*.png"), QStringLiteral("*.jpg"), QStringLiteral("*.jpeg"), QStringLiteral("*.tif"),
                   QStringLiteral("*.tiff")}),
      m_seams(seams), m_actions(new ShopActions(document, m_station, m_look, seams, this)),
      m_exchange(new ExchangeActions(document, m_look, m_seams,
                                     {[this] { return tablesInView(); }, [this] { return m_stack->currentWidget(); }},
                                     this)),
      m_testerActions(new TesterActions(document, m_link, m_look, std::move(seams), this)) {
    setObjectName(QStringLiteral("window"));
    setAcceptDrops(true);
    makeCommands();
    build();
    connect(&m_document, &Document::changed, this, &MainWindow::refresh);
    connect(&m_document, &Document::learnt, this, [this] { m_footer->refresh(); });
    connect(&m_station, &ReadingStation::changed, &m_document, &Document::tell);
    connect(&m_station, &ReadingStation::logged, this, [this](const QString& what) { m_footer->say(what, false); });
    connect(&m_document, &Document::failed, this, [this](const QString& message) { m_footer->say(message, true); });
    connect(m_actions, &ShopActions::said, this,
            [this](const QString& message, bool trouble) { m_footer->say(message, trouble); });
    connect(&m_link, &DeviceLink::reading, this, [this](const DeviceLine& line) {
        if (m_place != Place::call && m_document.hasBatch()) openGate(m_readingGate);
        m_station.receive(line.value, line.text, line.scale);
    });
    connect(&m_link, &DeviceLink::changed, &m_document, &Document::tell);
    connect(m_testerActions, &TesterActions::said, this,
            [this](const QString& message, bool trouble) { m_footer->say(message, trouble); });
    connect(m_exchange, &ExchangeActions::said, this,
            [this](const QString& message, bool trouble) { m_footer->say(message, trouble); });
    connect(m_exchange, &ExchangeActions::logbookWanted, m_actions,
            [this](const QString& path) { m_actions->openPath(path, false); });
    connect(m_actions, &ShopActions::temperLogged, this, [this] {
        // What is read next was tempered: at Quench its readings would be one too many.
        const bool atQuench = m_place == Place::call && m_document.gate() == Gate::quench;
        if (atQuench && m_document.batch().planOf(Gate::temper).required) openGate(Gate::temper);
    });
    connect(m_actions, &ShopActions::gateWanted, this, &MainWindow::openGate);
    connect(&m_day, &DayClock::changed, this, [this] { m_footer->refresh(); });
    connect(&m_shots, &WatchedFolder::arrived, this, [this](const QString& file) {
        if (!m_document.hasBatch()) return;
        if (m_place != Place::steel) openGate(Gate::steel);
        m_benches[Place::steel]->takeFile(file);
    });
    connect(&m_fractures, &WatchedFolder::arrived, this, [this](const QString& file) {
        if (m_document.blade() == nullptr) return;
        openGrain();
        m_grain->takeFile(file);
    });
    qApp->installEventFilter(this);
}

MainWindow::~MainWindow() = default;

void MainWindow::build() {
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
    m_track = new GateTrack(m_document, m_look);
    rows->addWidget(m_track);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    m_left = new QStackedWidget;
    m_roll = new Roll(m_document, m_look);
    m_testerList = new TesterList(m_document, m_look);
    m_left->addWidget(m_roll);
    m_left->addWidget(m_testerList);
    m_left->setFixedWidth(m_roll->width());
    m_stack = new QStackedWidget;
    m_overview = new OverviewBench(m_document, m_look);
    m_call = new CallBench(m_document, m_station, m_link, m_look);
    m_stack->addWidget(m_overview);
    m_stack->addWidget(m_call);
    m_testers = new TestersBench(m_document, *m_testerList, m_look);
    m_stack->addWidget(m_testers);
    const HeatBench::Page page = m_heat != nullptr ? m_heatPage : HeatBench::Page::soak;
    m_heat = new HeatBench(m_document, m_oven, m_day, m_seams, m_look);
    m_heat->openPage(page);
    m_proof = new ProofBench(m_document, m_seams, m_look);
    m_proof->openPageAt(m_proofPage);
    m_grain = new GrainBench(m_document, m_fractures, m_seams, m_look);
    m_grain->openPageAt(m_grainPage);
    addBench(Place::grain, m_grain);
    addBench(Place::steel, new SteelBench(m_document, m_shots, m_seams, m_look));
    addBench(Place::heat, m_heat);
    addBench(Place::edge, new EdgeBench(m_document, m_force, m_seams, m_look));
    addBench(Place::proof, m_proof);
    addBench(Place::release, new ReleaseBench(m_document, m_seams, m_look));
    m_column = new VerdictColumn(m_look);
    middle->addWidget(m_left);
    middle->addWidget(m_stack, 1);
    middle->addWidget(m_column);
    rows->addLayout(middle, 1);
    m_footer = new Footer(m_document, m_day, m_look);
    rows->addWidget(m_footer);

    connect(m_track, &GateTrack::batchClicked, this, &MainWindow::openOverview);
    connect(m_track, &GateTrack::gateClicked, this, &MainWindow::openGate);
    connect(m_overview, &OverviewBench::gateChosen, this, &MainWindow::openGate);
    connect(m_column, &VerdictColumn::acted, this, &MainWindow::act);
    connect(m_column, &VerdictColumn::draggedOut, m_exchange, &ExchangeActions::dragPicture);
    connect(m_column, &VerdictColumn::whyAsked, m_actions, &ShopActions::why);
    connect(m_column, &VerdictColumn::leftClicked, this, &MainWindow::leftAct);
    connect(m_column, &VerdictColumn::rightClicked, this, &MainWindow::rightAct);
    connect(m_heat, &HeatBench::temperWanted, m_actions, [this](double temperature_c, double hours) {
        m_actions->logTemper(TemperHeat{temperature_c, hours});
    });
    connect(m_testerList, &TesterList::currentChanged, this, [this] {
        if (m_testers->verifiable())
            m_document.chooseTester(m_testers->tester()->id); // the one looked at is the one in use
        else
            refresh();
    });
    refresh();
}

void MainWindow::addBench(Place place, Bench* bench) {
    m_benches[place] = bench;
    m_stack->addWidget(bench);
    connect(bench, &Bench::said, this,
            [this](const QString& message, bool trouble) { m_footer->say(message, trouble); });
    connect(bench, &Bench::changed, this, [this, place] {
        m_heatPage = m_heat->page();
        m_proofPage = m_proof->pageIndex();
        m_grainPage = m_grain->pageIndex();
        if (m_place == place) refresh();
    });
}

Bench* MainWindow::gateBench() const {
    const auto found = m_benches.find(m_place);
    return found == m_benches.end() ? nullptr : found->second;
}

void MainWindow::leftAct() {
    if (Bench* bench = gateBench()) return bench->leftAct();
    switch (m_place) {
    case Place::overview:
        return m_document.hasBatch() ? showMenu() : m_exchange->importFromFile();
    case Place::testers:
        if (m_testers->verifiable() && m_testerList->model().health(m_testerList->current()).state == State::pass)
            return verifyHere();
        return m_testerActions->edit(nullptr);
    default:
        if (m_station.mode() == ReadingStation::Mode::block) return m_station.leaveVerification();
        return m_station.askOneMore();
    }
}

void MainWindow::rightAct() {
    if (m_place == Place::overview) return m_actions->logTemper({});
    if (Bench* bench = gateBench()) return bench->rightAct();
    if (m_place == Place::testers) return m_testerActions->edit(m_testers->tester());
    m_actions->strikeLast();
}

void MainWindow::verifyHere() {
    m_verifyingFromTesters = true;
    m_actions->verify();
}

void MainWindow::setLook(const Look& look) {
    if (m_document.pending() > 0) {
        // What is being stored calls back to the benches that asked for it: they must be there still.
        constexpr int soon_ms = 5;
        return QTimer::singleShot(soon_ms, this, [this, look] { setLook(look); });
    }
    m_look = look;
    build();
}

void MainWindow::refresh() {
    // A run on a block is read in Call, wherever it was begun; one begun on the Testers bench leads back there.
    const bool onBlock = m_station.mode() == ReadingStation::Mode::block;
    if (onBlock) {
        m_place = Place::call;
    } else if (m_wasOnBlock && m_verifyingFromTesters) {
        m_verifyingFromTesters = false;
        m_place = Place::testers;
    }
    m_wasOnBlock = onBlock;
    // Another logbook may have no batch: a bench without a blade has nothing to work on.
    const bool onBench = m_place != Place::overview && m_place != Place::testers;
    if (onBench && !onBlock && m_document.blade() == nullptr) m_place = Place::overview;
    Bench* own = gateBench();
    const bool atGate = m_place == Place::call || own != nullptr;
    const Gate shown = gateOf(m_place).value_or(m_document.gate());
    const std::optional<Gate> gate = atGate ? std::optional<Gate>(shown) : std::nullopt;
    setWindowTitle(m_document.hasBatch() ? tr("%1 – Rollcall").arg(QString::fromStdString(m_document.batch().name))
                                         : tr("Rollcall"));
    m_track->refresh(atGate                       ? GateTrack::Open::gate
                     : m_place == Place::overview ? GateTrack::Open::batch
                                                  : GateTrack::Open::none,
                     shown, m_cameFrom == Place::call);
    m_roll->refresh(gate);
    m_testerList->refresh();
    m_left->setCurrentIndex(m_place == Place::testers ? 1 : 0);
    QWidget* bench = own != nullptr               ? static_cast<QWidget*>(own)
                     : m_place == Place::overview ? m_overview
                     : m_place == Place::testers  ? static_cast<QWidget*>(m_testers)
                                                  : m_call;
    if (m_stack->currentWidget() != bench || focusWidget() == nullptr) {
        m_stack->setCurrentWidget(bench);
        if (m_place == Place::testers)
            m_testerList->setFocus();
        else
            bench->setFocus();
    }
    if (own != nullptr) {
        own->refresh();
        m_column->show(own->content());
    } else if (m_place == Place::overview) {
        m_overview->refresh();
        m_column->show(m_overview->content());
    } else if (m_place == Place::testers) {
        m_testers->refresh();
        m_column->show(m_testers->content());
    } else {
        m_call->refresh();
        m_column->show(m_call->content());
    }
    const bool all = own != nullptr && own->wantsAll();
    m_track->setVisible(!all);
    m_left->setVisible(!all);
    m_column->setVisible(!all);
    m_footer->refresh();
}

void MainWindow::openTesters() {
    if (m_place != Place::testers) m_cameFrom = m_place;
    if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
    m_verifyingFromTesters = false;
    m_place = Place::testers;
    refresh();
}

void MainWindow::openGrain() {
    if (!m_document.hasBatch()) return m_footer->say(tr("Make a batch first."), true);
    if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
    m_verifyingFromTesters = false;
    m_place = Place::grain;
    m_document.selectGate(Gate::proof);
    refresh();
}

void MainWindow::openOverview() {
    if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
    m_verifyingFromTesters = false;
    m_place = Place::overview;
    refresh();
}

void MainWindow::openHeat(HeatBench::Page page) {
    if (!m_document.hasBatch()) return m_footer->say(tr("Make a batch first."), true);
    if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
    m_verifyingFromTesters = false;
    m_place = Place::heat;
    m_document.selectGate(Gate::heat);
    m_heat->openPage(page);
}

void MainWindow::openGate(Gate gate) {
    // The Heat bench serves batches that do not ask its gate too: their tempers are foretold there.
    if (gate == Gate::heat) return openHeat(m_heatPage);
    // So do the others that are not read on the tester: an edge may be tried that the plan does not ask for.
    for (const auto& [place, bench] : m_benches) {
        if (gateOf(place) != gate || !m_document.hasBatch()) continue;
        if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
        m_place = place;
        return m_document.selectGate(gate);
    }
    if (!m_document.hasBatch() || !m_document.batch().planOf(gate).required)
        return m_footer->say(tr("%1 is not asked in this batch.").arg(words::gateName(gate)), true);
    m_place = Place::call;
    m_readingGate = gate;
    m_document.selectGate(gate);
}

void MainWindow::stepBlade(int by) {
    if (!m_document.hasBatch()) return;
    const int count = static_cast<int>(m_document.batch().blades.size());
    m_document.selectBlade((m_document.bladeIndex() + by + count) % count);
}

void MainWindow::callNext() {
    const std::vector<Task> tasks = m_document.tasks();
    for (const Task& task : tasks) {
        const bool readable = task.next.act == Act::takeReadings || task.next.act == Act::readAgain ||
                              task.next.act == Act::verifyTester || task.next.act == Act::mapReadings;
        if (task.gate == m_document.gate() && readable && static_cast<int>(task.blade) != m_document.bladeIndex())
            return m_document.selectBlade(static_cast<int>(task.blade));
    }
    openOverview();
}

// The primary act of the screen: what Enter does when nothing is typed.
void MainWindow::act() {
    if (Bench* bench = gateBench()) return bench->act();
    if (m_place == Place::testers) {
        if (m_testers->tester() == nullptr) return m_testerActions->edit(nullptr);
        const State state = m_testerList->model().health(m_testerList->current()).state;
        if (state != State::pass && state != State::excused) return verifyHere();
        return m_cameFrom == Place::call ? openGate(m_document.gate()) : openOverview();
    }
    if (m_place == Place::overview) {
        if (!m_document.hasBatch()) return m_actions->newBatch(false);
        const std::vector<Task> tasks = m_document.tasks();
        if (tasks.empty()) return m_actions->newBatch(true);
        m_document.selectBlade(static_cast<int>(tasks.front().blade));
        if (tasks.front().gate == Gate::heat) return openHeat(HeatBench::Page::soak);
        return openGate(tasks.front().gate);
    }
    if (m_station.enter()) return;
    switch (m_station.act()) {
    case StationAct::typeReading:
        return m_footer->say(tr("Read the tester, type the number, then Enter."), false);
    case StationAct::verify:
        return m_actions->verify();
    case StationAct::finishVerification:
        return m_station.leaveVerification();
    case StationAct::repeatVerification:
        return m_station.beginVerification(Block(m_station.block()));
    case StationAct::logTemper:
    case StationAct::temperAgain:
        return m_actions->logTemper({});
    case StationAct::oneMore:
        return m_station.askOneMore();
    case StationAct::setLimits:
        return m_actions->changeLimits();
    case StationAct::reharden:
        return m_actions->reharden();
    case StationAct::callNext:
        return callNext();
    case StationAct::overview:
    case StationAct::nothing:
        return openOverview();
    }
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
    if (handleCode(event)) return true;
    // Num Lock off: the numpad's digits arrive as movements. Said, and nothing moves.
    const bool digitKey = event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9;
    const bool movement = (event->key() >= Qt::Key_Home && event->key() <= Qt::Key_PageDown) ||
                          event->key() == Qt::Key_Insert || event->key() == Qt::Key_Delete ||
                          event->key() == Qt::Key_Clear;
    if ((event->modifiers() & Qt::KeypadModifier) && movement && !digitKey) {
        m_footer->say(tr("Num Lock is off. Press Num Lock, then type."), true);
        return true;
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        if (auto* button = qobject_cast<QAbstractButton*>(focusWidget()))
            button->click();
        else
            act();
        return true;
    }
    if (m_place == Place::testers && handleTestersKey(event)) return true;
    if (m_place == Place::call && handleStationKey(event)) return true;
    if (Bench* bench = gateBench()) {
        if (bench->key(event)) return true;
        if (bench->wantsAll()) return false; // nothing else may happen meanwhile
        if (event->key() == Qt::Key_Escape) {
            openOverview();
            return true;
        }
    }
    if (event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier)) {
        for (const Command& command : m_commands) {
            if (command.modifiers == Qt::NoModifier || command.modifiers != event->modifiers() ||
                command.key != event->key())
                continue;
            command.run();
            return true;
        }
        return false;
    }
    if (event->key() == Qt::Key_PageDown || event->key() == Qt::Key_PageUp) {
        stepBlade(event->key() == Qt::Key_PageDown ? 1 : -1);
        return true;
    }
    for (const Command& command : m_commands) {
        const bool byKey =
            command.key != Qt::Key_unknown && command.modifiers == Qt::NoModifier && event->key() == command.key;
        const bool byLetter =
            !command.letter.isNull() && event->text().size() == 1 && event->text().at(0).toLower() == command.letter;
        if (!byKey && !byLetter) continue;
        command.run();
        return true;
    }
    return false;
}

bool MainWindow::handleTestersKey(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Escape:
        if (m_cameFrom == Place::call)
            openGate(m_document.gate());
        else
            openOverview();
        return true;
    case Qt::Key_Up:
    case Qt::Key_8:
        m_testerList->step(-1);
        return true;
    case Qt::Key_Down:
    case Qt::Key_2:
        m_testerList->step(1);
        return true;
    default:
        break;
    }
    if (event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier)) return false;
    if (event->key() == Qt::Key_Tab) {
        m_testerList->nextBlock();
        return true;
    }
    const QString key = event->text().toLower();
    const Tester* tester = m_testers->tester();
    if (key == QLatin1String("n"))
        m_testerActions->edit(nullptr);
    else if (key == QLatin1String("k"))
        m_testerActions->chooseBlockToEdit();
    else if (tester == nullptr)
        return false;
    else if (key == QLatin1String("*") && m_testers->verifiable())
        verifyHere();
    else if (key == QLatin1String("c"))
        m_testerActions->edit(tester);
    else if (key == QLatin1String("e"))
        m_testerActions->exportChart(m_testers->chart());
    else if (key == QLatin1String("s"))
        m_testerActions->listSuspect(*tester);
    else if (key == QLatin1String("l") && m_testers->verifiable())
        m_testerActions->line(*tester);
    else if (key == QLatin1String("f"))
        m_testerActions->whatIf(*tester, m_testerList->model().health(m_testerList->current()));
    else
        return false;
    return true;
}

bool MainWindow::handleStationKey(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 0.5;
    switch (event->key()) {
    case Qt::Key_Backspace:
        m_station.backspace();
        return true;
    case Qt::Key_Space:
        m_call->startDwell();
        return true;
    case Qt::Key_Escape:
        if (!m_station.typed().isEmpty() || !m_station.message().isEmpty() || m_station.waiting() > 0)
            m_station.clear();
        else if (m_station.mode() == ReadingStation::Mode::block)
            m_station.leaveVerification();
        else
            openOverview();
        return true;
    case Qt::Key_Left:
        m_station.moveSpot(-step, 0);
        return true;
    case Qt::Key_Right:
        m_station.moveSpot(step, 0);
        return true;
    case Qt::Key_Up:
        m_station.moveSpot(0, step);
        return true;
    case Qt::Key_Down:
        m_station.moveSpot(0, -step);
        return true;
    default:
        break;
    }
    return event->text().size() == 1 && m_station.type(event->text().at(0));
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    for (const QUrl& url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        const QString ending = QFileInfo(path).suffix().toLower();
        if (ending == QLatin1String("rollcall"))
            m_actions->openPath(path, false);
        else if (gateBench() != nullptr && gateBench()->takeFile(path))
            continue;
        else if (ending == QLatin1String("csv") || ending == QLatin1String("txt") || ending == QLatin1String("tsv"))
            m_exchange->importFile(path);
        else
            m_footer->say(tr("%1 is neither a CSV file nor a logbook.").arg(QFileInfo(path).fileName()), true);
    }
    event->acceptProposedAction();
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/exchange_actions.h"
#include "app/frame/find_dialog.h"
#include "app/frame/help_dialog.h"
#include "app/frame/main_window.h"
#include "app/frame/menu_dialog.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/key_row.h"
#include "app/shared/plain_text.h"
#include "logbook/actions/blades.h"
#include "words/words.h"

#include <algorithm>
#include <QAbstractItemView>
#include <QAction>
#include <QKeyEvent>
#include <QMenu>
#include <QMenuBar>
#include <QSettings>
#include <QStackedWidget>
#include <set>

// What can be done everywhere, and the ways to it: keys, buttons, menu, help.
namespace rollcall {

void MainWindow::makeCommands() {
    m_everywhere.clear();
    Group group = Group::help;
    const auto spoken = [&](const char* id, Verb verb, const QString& text, const QString& help,
                            std::function<void()> run) {
        m_everywhere.push_back(
            {QString::fromLatin1(id), text, help, verb, std::move(run), {}, Qt::Key_unknown, Qt::NoModifier, group});
    };
    const auto keyed = [&](const char* id, Qt::KeyboardModifiers modifiers, Qt::Key key, const QString& text,
                           const QString& help, std::function<void()> run) {
        m_everywhere.push_back(
            {QString::fromLatin1(id), text, help, Verb::none, std::move(run), {}, key, modifiers, group});
    };
    constexpr auto control = Qt::ControlModifier;
    keyed("help", {}, Qt::Key_F1, tr("Help"), tr("what this place answers, and how"), [this] { showHelp(); });
    spoken("help.sign", Verb::help, tr("Keys"), tr("all of them, here and everywhere"), [this] { showKeys(); });
    keyed("find", control, Qt::Key_K, tr("What do you want to do?"), tr("type it: key, place, and it is done"),
          [this] { showMenu(); });

    group = Group::batch;
    keyed("overview", {}, Qt::Key_F9, tr("Batch"), tr("the batch at a glance"), [this] { openOverview(); });
    for (std::size_t i = 0; i < gateCount; ++i) {
        const Gate gate = allGates[i];
        keyed((std::string("gate.") + nameOf(gate)).c_str(), {}, static_cast<Qt::Key>(Qt::Key_F2 + static_cast<int>(i)),
              tr("%1 gate").arg(words::gateName(gate)), tr("open this gate"), [this, gate] { openGate(gate); });
    }
    group = Group::blade;
    spoken("next", Verb::next, tr("Next blade"), tr("in the roll"), [this] { stepBlade(1); });
    spoken("previous", Verb::previous, tr("Blade before"), tr("in the roll"), [this] { stepBlade(-1); });
    for (Bench* bench : m_benches) {
        for (Command& door : bench->doors()) m_everywhere.push_back(std::move(door));
    }
    for (Command& command : m_actions->commands()) m_everywhere.push_back(std::move(command));

    group = Group::shop;
    keyed("seek", control, Qt::Key_F, tr("Find"), tr("batches, blades and notes, by what you know of them"),
          [this] { showFind(); });
    spoken("tasks", Verb::none, tr("What is next"), tr("here and in the other batches; go there"),
           [this] { chooseTask(); });
    keyed("person", {}, Qt::Key_F11, tr("Person"), tr("who is at work"), [this] { m_actions->choosePerson(); });
    spoken("units", Verb::none, tr("Inches and Fahrenheit, or mm and Celsius"),
           tr("what lengths and temperatures are shown and typed in; the record keeps mm and °C"), [this] {
               const Units other = m_document.state().shop().units() == Units::metric ? Units::inch : Units::metric;
               m_document.perform(
                   [other](Logbook& logbook) { return changeSetting(logbook, Shop::unitsSetting, nameOf(other)); });
           });

    group = Group::inAndOut;
    spoken("exchange", Verb::inAndOut, tr("In and out"),
           tr("import, cards, other logbooks, tables, pictures; or drop a file here"),
           [this] { m_exchange->choose(); });
    keyed("copy", control, Qt::Key_C, tr("Copy the table in view"), tr("for a spreadsheet"),
          [this] { m_exchange->copyTable(); });
    spoken("picture", Verb::none, tr("Picture of what is in view"), tr("PNG or SVG; or draw it out of the window"),
           [this] { m_exchange->savePicture(); });
    keyed("paste", control, Qt::Key_V, tr("Paste a table of readings"), tr("with any header"),
          [this] { m_exchange->paste(); });
    keyed("undo", control, Qt::Key_Z, tr("Undo"),
          tr("what was done last; a reading is struck out, an import taken back"),
          [this] { m_actions->undo([this] { m_exchange->takeBack(); }); });
    keyed("redo", control, Qt::Key_Y, tr("Do again"), tr("what was undone last"), [this] { m_actions->redo(); });
    keyed("print", control, Qt::Key_P, tr("Cards, table, certificate"), tr("on paper; at Release"), [this] {
        open(QStringLiteral("release-bench"));
        if (m_current->objectName() == QLatin1String("release-bench")) run(QStringLiteral("release.papers"));
    });
    spoken("take-back", Verb::none, tr("Take back the last import"), tr("after asking"),
           [this] { m_exchange->takeBack(); });

    keyed("quit", control, Qt::Key_Q, tr("Quit"), tr("everything logged is on the disk"), [this] { close(); });

    group = Group::look;
    keyed("dark", control, Qt::Key_D, tr("Dark or light"), {}, [this] {
        Look look = nextLook();
        look.palette = Palette::wished(!look.palette.dark, look.palette.contrast);
        QSettings().setValue(QStringLiteral("dark"), look.palette.dark);
        setLook(look);
    });
    spoken("contrast", Verb::none, tr("High contrast on or off"), tr("black on white, or white on black"), [this] {
        Look look = nextLook();
        look.palette = Palette::wished(look.palette.dark, !look.palette.contrast);
        QSettings().setValue(QStringLiteral("contrast"), look.palette.contrast);
        setLook(look);
    });
    keyed("text-size", control, Qt::Key_Plus, tr("Text size"), tr("80 to 150 per cent, round and round"), [this] {
        Look look = nextLook();
        look.factor = look.factor < 0.95 ? 1.0 : look.factor < 1.15 ? 1.25 : look.factor < 1.4 ? 1.5 : 0.8;
        QSettings().setValue(QStringLiteral("text-size"), look.factor);
        setLook(look);
    });
    spoken("touch", Verb::none, tr("Touch on or off"), tr("number keys on the screen wherever one is asked for"),
           [this] {
               KeyRow::wish(!KeyRow::wished());
               setLook(nextLook());
               say(KeyRow::wished() ? tr("Number keys stand where a number is asked for.")
                                    : tr("Number keys only where they are called."),
                   false);
           });
    spoken("menu-bar", Verb::none, tr("Menu bar on or off"), tr("all that can be done along the top"), [this] {
        QSettings settings;
        const QString wished = QStringLiteral("menu-bar");
        settings.setValue(wished, !settings.value(wished, false).toBool());
        setLook(nextLook());
    });
    spoken("dwell-sound", Verb::sound, tr("Dwell sound on or off"), tr("Space in Call times the dwell"), [this] {
        QSettings settings;
        const bool on = !settings.value(QStringLiteral("dwell-sound"), false).toBool();
        settings.setValue(QStringLiteral("dwell-sound"), on);
        say(on ? tr("The dwell timer sounds.") : tr("The dwell timer is silent."), false);
    });
    spoken("speech", Verb::none, tr("Call the roll aloud, or not"),
           tr("the next blade, the number read, what was refused"), [this] {
               const bool on = !Caller::wished();
               const QString why = m_caller.wish(on);
               if (why.isEmpty())
                   say(on ? tr("The roll is called aloud.") : tr("Nothing is said aloud."), false);
               else
                   say(why, true);
           });
    keyed("menu", {}, Qt::Key_F10, tr("Menu"), tr("everything that can be done"), [this] { showMenu(); });
}

Commands MainWindow::commands() const {
    Commands all = m_current->commands();
    all.insert(all.end(), m_everywhere.begin(), m_everywhere.end());
    return all;
}

std::map<QString, Commands> MainWindow::everyCommand() const {
    std::map<QString, Commands> all{{QString(), m_everywhere}};
    for (Bench* bench : m_benches) all[bench->objectName()] = bench->everyCommand();
    return all;
}

bool MainWindow::run(const QString& id) {
    for (const Command& command : commands()) {
        if (command.id != id) continue;
        perform(command);
        return true;
    }
    return false;
}

void MainWindow::perform(const Command& command) {
    const QString why = command.whyNot();
    if (why.isEmpty())
        command.run();
    else
        say(why, true);
}

bool MainWindow::handleCommand(const Commands& commands, const QKeyEvent& event) {
    for (const Command& command : commands) {
        if (!command.takes(event)) continue;
        perform(Command(command)); // a new look makes all commands anew while this one runs
        return true;
    }
    return false;
}

bool MainWindow::isNearer(const Command& command) const {
    const Commands here = m_current->commands();
    return command.verb != Verb::none && std::any_of(here.begin(), here.end(), [&](const Command& own) {
               return own.verb == command.verb && own.id != command.id;
           });
}

// What can be done here and everywhere, by what it is for; and, when words are typed, what can be done elsewhere too.
void MainWindow::showMenu() {
    std::vector<MenuEntry> all;
    std::set<QString> listed;
    const auto list = [&](const Command& command, const QString& place, const QString& where) {
        const bool itself = command.id == QLatin1String("find") || command.id == QLatin1String("menu");
        if (itself || !listed.insert(command.id).second) return;
        // A letter that means something nearer here is not this one's.
        const QString key = place.isEmpty() && isNearer(command) ? QString() : command.keyText();
        all.push_back({command, key, place, where});
    };
    for (const Command& command : commands()) list(command, {}, m_current->title());
    for (const auto& [place, own] : everyCommand()) {
        if (place.isEmpty()) continue;
        const Bench* bench = benchNamed(place);
        for (const Command& command : own)
            list(command, place, bench->gate() ? words::gateName(*bench->gate()) : bench->title());
    }
    (new MenuDialog(std::move(all), m_look, this))->ask([this](const MenuEntry& what) {
        if (what.place.isEmpty()) return void(run(what.command.id));
        open(what.place);
        constexpr int mostPages = 8;
        for (int page = 0; !run(what.command.id) && page < mostPages; ++page) open(what.place, page);
    });
}

// The same as a bar along the top, for who wishes it; each group is looked up when it is opened.
void MainWindow::makeMenuBar() {
    for (const Group group : allGroups) {
        QMenu* menu = m_menuBar->addMenu(groupName(group));
        menu->setObjectName(QStringLiteral("bar-%1").arg(static_cast<int>(group)));
        menu->setToolTipsVisible(true);
        connect(menu, &QMenu::aboutToShow, this, [this, menu, group] {
            menu->clear();
            for (const Command& command : commands()) {
                if (command.group == group) addTo(*menu, command);
            }
        });
    }
}

// On a blade of the roll: what can be done with it. In the middle: what this place does, then the blade, and the
// picture and table of what is in view.
void MainWindow::showContext(QWidget* widget, const QPoint& onScreen) {
    if (m_current->wantsAll()) return; // nothing else may happen meanwhile
    if (auto* view = qobject_cast<QAbstractItemView*>(widget->parentWidget())) {
        const QModelIndex under = view->indexAt(widget->mapFromGlobal(onScreen));
        if (under.isValid()) view->setCurrentIndex(under);
    }
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setToolTipsVisible(true);
    QMenu* blade = menu;
    const Commands all = commands();
    if (!m_left->isAncestorOf(widget)) {
        for (const Command& command : m_current->commandsAt(m_current->mapFromGlobal(onScreen)))
            connect(menu->addAction(command.text), &QAction::triggered, m_current, command.run);
        if (!menu->isEmpty()) menu->addSeparator();
        for (const Command& command : all) {
            if (command.group == Group::here) addTo(*menu, command);
        }
        menu->addSeparator();
        blade = menu->addMenu(groupName(Group::blade));
    }
    for (const Command& command : all) {
        if (command.group == Group::blade) addTo(*blade, command);
    }
    if (blade != menu) {
        for (const Command& command : all) {
            if (command.id == QLatin1String("copy") || command.id == QLatin1String("picture")) addTo(*menu, command);
        }
    }
    menu->popup(onScreen);
}

void MainWindow::addTo(QMenu& menu, const Command& command) {
    const QString key = isNearer(command) ? QString() : command.keyText();
    QAction* action = menu.addAction(key.isEmpty() ? command.text : command.text + QLatin1Char('\t') + key);
    const QString why = command.whyNot();
    action->setToolTip(plainTip(why.isEmpty() ? command.help : why));
    connect(action, &QAction::triggered, this, [this, id = command.id] { run(id); });
}

void MainWindow::showFind() {
    if (!m_document.isOpen()) return say(tr("No logbook is open. Ctrl+O opens one"), true);
    auto* dialog = new FindDialog(m_document, m_look, this);
    connect(dialog, &FindDialog::opened, this, [this](const QString& mark) {
        const int blade = mark.isEmpty() ? -1 : m_document.indexOfMark(mark.toStdString());
        if (blade < 0) return openOverview();
        m_document.selectBlade(blade);
        // Where something is left to do with it; else at a glance.
        for (const Task& task : m_document.tasks()) {
            if (static_cast<int>(task.blade) == blade) return openGate(task.gate);
        }
        openOverview();
    });
    dialog->open();
}

void MainWindow::chooseTask() {
    struct Place {
        std::string batch;
        std::string mark;
        Gate gate;
    };
    std::vector<Choice> choices;
    std::vector<Place> places;
    const auto add = [&](const std::string& name, const Place& place, const NextStep& next) {
        const QString key = choices.size() < 9 ? QString::number(choices.size() + 1) : QString();
        choices.push_back(
            {key, words::taskText(QString::fromStdString(place.mark), next), QString::fromStdString(name)});
        places.push_back(place);
    };
    if (m_document.hasBatch()) {
        const Batch& batch = m_document.batch();
        for (const Task& task : m_document.tasks())
            add(batch.name, {batch.id, batch.blades[task.blade].mark, task.gate}, task.next);
    }
    for (const Elsewhere& other : m_document.state().elsewhere())
        add(other.batch, {other.batch_id, other.mark, other.task.gate}, other.task.next);
    if (choices.empty()) return say(tr("Nothing is left to do."), false);
    (new ChoiceDialog(tr("What is next"), {}, choices, m_look, this))->ask([this, places](int i) {
        const Place& place = places[static_cast<std::size_t>(i)];
        const auto go = [this, place] {
            m_document.selectBlade(m_document.indexOfMark(place.mark));
            openGate(place.gate);
        };
        if (place.batch == m_document.batch().id) return go();
        m_document.selectBatch(place.batch, [go](const Result<Done>& done) {
            if (done) go();
        });
    });
}

namespace {

// "Arrows   move the next spot": what is pressed, and what it does.
KeyLine keyLine(const QString& movement) {
    return {movement.section(QStringLiteral("   "), 0, 0), movement.section(QStringLiteral("   "), 1), {}};
}

} // namespace

// The keys of the place in front: what moves and types there, and what it can do.
KeyLines MainWindow::keysHere() const {
    KeyLines here{tr("Keys here"), {{tr("Enter"), tr("the big button"), {}}}};
    for (const QString& movement : m_current->movements()) here.lines.push_back(keyLine(movement));
    for (const Command& command : m_current->commands()) {
        if (!command.keyText().isEmpty()) here.lines.push_back({command.keyText(), command.text, command.help});
    }
    return here;
}

void MainWindow::showHelp() {
    const HelpText text = m_current->help();
    (new HelpDialog(m_current->title(), &text, {keysHere()}, m_look, this))->open();
}

void MainWindow::showKeys() {
    KeyLines everywhere{
        tr("Everywhere"),
        {{tr("Tab"), tr("from one control to the next"), {}},
         {tr("Esc"), tr("clear what is typed, else back"), {}},
         {QStringLiteral("#"), tr("the code of a piece's card, then Enter: that piece comes into hand"), {}}}};
    for (const Command& command : m_everywhere) {
        if (!command.keyText().isEmpty()) everywhere.lines.push_back({command.keyText(), command.text, command.help});
    }
    KeyLines letters{tr("A letter means the same at every place"), {}};
    for (int i = 1; i <= static_cast<int>(Verb::zone); ++i)
        letters.lines.push_back({QString(keyOf(static_cast<Verb>(i))).toUpper(), meaningOf(static_cast<Verb>(i)), {}});
    (new HelpDialog(tr("Keys"), nullptr, {keysHere(), letters, everywhere}, m_look, this))->open();
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/call_bench.h"
#include "app/exchange/exchange_actions.h"
#include "app/frame/footer.h"
#include "app/frame/main_window.h"
#include "app/shared/choice_dialog.h"
#include "words/words.h"

#include <QSettings>

// The one list of what the window can do, and the two places that show it.
namespace rollcall {

void MainWindow::makeCommands() {
    ShopActions* a = m_actions;
    const auto fkey = [&](const char* id, Qt::Key key, const QString& shown, const QString& text, const QString& help,
                          std::function<void()> run, bool inMenu = false) {
        m_commands.push_back(
            {QString::fromLatin1(id), key, QChar(), Qt::NoModifier, shown, text, help, inMenu, std::move(run)});
    };
    const auto letter = [&](const char* id, char key, const QString& text, const QString& help,
                            std::function<void()> run, bool inMenu = true) {
        m_commands.push_back({QString::fromLatin1(id), Qt::Key_unknown, QLatin1Char(key), Qt::NoModifier,
                              QString(QLatin1Char(key)).toUpper(), text, help, inMenu, std::move(run)});
    };
    fkey("help", Qt::Key_F1, QStringLiteral("F1"), tr("Help"), tr("all keys; ? does the same"), [this] { showHelp(); });
    for (std::size_t i = 0; i < gateCount; ++i) {
        const Gate gate = allGates[i];
        fkey("gate", static_cast<Qt::Key>(Qt::Key_F2 + static_cast<int>(i)), QStringLiteral("F%1").arg(i + 2),
             tr("%1 gate").arg(words::gateName(gate)), tr("open this gate"), [this, gate] { openGate(gate); });
    }
    fkey("overview", Qt::Key_F9, QStringLiteral("F9"), tr("Batch"), tr("the batch at a glance"),
         [this] { openOverview(); });
    fkey("menu", Qt::Key_F10, QStringLiteral("F10"), tr("Menu"), tr("everything else"), [this] { showMenu(); });
    fkey("person", Qt::Key_F11, QStringLiteral("F11"), tr("Person"), tr("who is at work"), [a] { a->choosePerson(); });
    fkey("grain", Qt::Key_F12, QStringLiteral("F12"), tr("Grain"), tr("fractures counted, rated, compared"),
         [this] { openGrain(); });
    letter(
        "help2", '?', tr("Help"), tr("all keys"), [this] { showHelp(); }, false);
    letter(
        "one-more", '*', tr("One more reading"), tr("on the blade in hand"), [this] { m_station.askOneMore(); }, false);
    letter(
        "strike", '/', tr("Strike out the last reading"), tr("with its reason, by one key"), [a] { a->strikeLast(); },
        false);
    letter(
        "next", '+', tr("Next blade"), tr("in the roll"), [this] { stepBlade(1); }, false);
    letter(
        "previous", '-', tr("Previous blade"), tr("in the roll"), [this] { stepBlade(-1); }, false);
    letter("why", 'w', tr("Why"), tr("the numbers with their rules"), [a] { a->why(); });
    letter("files", 'f', tr("Files"), tr("which skate and which bite, on this blade"), [this] {
        if (m_place != Place::call) return m_footer->say(tr("Open a gate first: files are tried on a blade."), true);
        m_actions->tryFiles(m_call->rule());
    });
    letter("scale", 'k', tr("Scale and surface"), tr("thin stock, convex blades"), [a] { a->chooseScale(); });
    letter("series", 'q', tr("Series of strikes"), tr("rebound, with its own average"), [this, a] {
        if (m_place != Place::call) return m_footer->say(tr("Open a gate first: strikes are made on a blade."), true);
        a->logSeries();
    });
    letter("second", 'c', tr("Second opinions"), tr("two testers on the same blades"), [a] { a->secondOpinions(); });
    const auto control = [&](const char* id, Qt::Key key, const QString& shown, const QString& text,
                             const QString& help, std::function<void()> run) {
        m_commands.push_back(
            {QString::fromLatin1(id), key, QChar(), Qt::ControlModifier, shown, text, help, false, std::move(run)});
    };
    control("ground-off", Qt::Key_G, tr("Ctrl+G"), tr("The marks are ground off"), tr("they leave the blade's map"),
            [a] { a->grindOff(); });
    control("copy", Qt::Key_C, tr("Ctrl+C"), tr("Copy the table in view"), tr("for a spreadsheet"),
            [this] { m_exchange->copyTable(); });
    control("paste", Qt::Key_V, tr("Ctrl+V"), tr("Paste a table of readings"), tr("with any header"),
            [this] { m_exchange->paste(); });
    control("take-back", Qt::Key_Z, tr("Ctrl+Z"), tr("Take back the last import"), tr("after asking"),
            [this] { m_exchange->takeBack(); });
    letter("verify", 'v', tr("Verify the tester"), tr("readings on a block"), [a] { a->verify(); });
    letter("temper", 't', tr("Log a temper"), tr("temperature, time, blades"), [a] { a->logTemper({}); });
    letter("excuse", 'e', tr("Excuse the blade at this gate"), tr("with a reason"), [a] { a->excuse(); });
    letter("batches", 'b', tr("Batches"), tr("choose another"), [a] { a->chooseBatch(); });
    letter("new-batch", 'n', tr("New batch"), tr("marks, window, thickness"), [a] { a->newBatch(false); });
    letter("same-again", 's', tr("Same again"), tr("a new batch like this one"), [a] { a->newBatch(true); });
    letter("exchange", 'i', tr("In and out"),
           tr("import, cards, other logbooks, tables, pictures; or drop a file here"),
           [this] { m_exchange->choose(); });
    letter("limits", 'l', tr("Change window and minimum"), tr("everything is judged anew"), [a] { a->changeLimits(); });
    letter("planned", 'p', tr("Change the gate's plan"), tr("whether it is asked, how many readings"),
           [a] { a->changePlanned(); });
    letter("reharden", 'h', tr("Re-harden the blade"), tr("begins a new round at Quench"), [a] { a->reharden(); });
    letter("out", 'x', tr("The blade is out"), tr("cracked, scrapped, coupon, removed"), [a] { a->takeOut(); });
    letter("rename", 'm', tr("Rename the blade's mark"), {}, [a] { a->renameBlade(); });
    letter("accept", 'a', tr("Count a reading that was left out"), tr("with a reason"), [a] { a->acceptLeftOut(); });
    letter("strike-temper", 'u', tr("Strike out the last temper"), tr("logged by mistake"), [a] { a->strikeTemper(); });
    letter("testers", 'r', tr("Testers"), tr("verification, drift, blocks, the one in use"), [this] { openTesters(); });
    letter("day", 'y', tr("The ovens today"), tr("what runs, what is next, plan an oven run"),
           [this] { openHeat(HeatBench::Page::day); });
    letter("open", 'o', tr("Open a logbook"), {}, [a] { a->openLogbook(); });
    letter("new-logbook", 'g', tr("New logbook"), {}, [a] { a->newLogbook(); });
    letter("dark", 'd', tr("Dark or light"), {}, [this] {
        Look look = m_look;
        look.palette = look.palette.dark ? Palette::light() : Palette::darkOne();
        QSettings().setValue(QStringLiteral("dark"), look.palette.dark);
        setLook(look);
    });
    letter("dwell-sound", 'j', tr("Dwell sound on or off"), tr("Space in Call times the dwell"), [this] {
        QSettings settings;
        const bool on = !settings.value(QStringLiteral("dwell-sound"), false).toBool();
        settings.setValue(QStringLiteral("dwell-sound"), on);
        m_footer->say(on ? tr("The dwell timer sounds.") : tr("The dwell timer is silent."), false);
    });
    letter("text-size", 'z', tr("Text size"), tr("80 to 150 per cent, round and round"), [this] {
        Look look = m_look;
        look.factor = look.factor < 0.95 ? 1.0 : look.factor < 1.15 ? 1.25 : look.factor < 1.4 ? 1.5 : 0.8;
        QSettings().setValue(QStringLiteral("text-size"), look.factor);
        setLook(look);
    });
}

void MainWindow::showMenu() {
    std::vector<Choice> choices;
    std::vector<std::size_t> indices;
    for (std::size_t i = 0; i < m_commands.size(); ++i) {
        const Command& command = m_commands[i];
        if (!command.in_menu) continue;
        choices.push_back({command.shown, command.text, command.help});
        indices.push_back(i);
    }
    (new ChoiceDialog(tr("Menu"), {}, choices, m_look, this))->ask([this, indices](int i) {
        m_commands[indices[static_cast<std::size_t>(i)]].run();
    });
}

void MainWindow::showHelp() {
    QStringList lines{tr("Digits and Enter   log a reading; 621 is 62.1, point and comma are both decimal marks"),
                      tr("Arrows   move the next spot (Shift: finer); or click on the blade"),
                      tr("#   the code of a piece's card, then Enter: that piece comes into hand"),
                      tr("Esc   clear what is typed, leave the block, back to the batch")};
    for (const Command& command : m_commands) {
        if (command.id != QLatin1String("help2"))
            lines << QStringLiteral("%1   %2%3")
                         .arg(command.shown, command.text,
                              command.help.isEmpty() ? QString() : QStringLiteral(": ") + command.help);
    }
    (new ChoiceDialog(tr("Keys"), lines, {}, m_look, this))->ask({});
}

} // namespace rollcall

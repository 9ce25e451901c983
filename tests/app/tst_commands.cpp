// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/command_bar.h"
#include "app/frame/gate_track.h"
#include "app/frame/long_press.h"
#include "tests/support/window_driver.h"

#include <QCompleter>
#include <QListWidget>
#include <QMenuBar>
#include <QRegularExpression>
#include <QScrollArea>

#include <QTabBar>
#include <QtTest>
#include <set>

using namespace rollcall;
using fixtures::WindowDriver;

// Whatever can be done in the window stands in one registry, which keys, buttons, menu and help are made from.
class tst_Commands : public QObject {
    Q_OBJECT

    // A batch that asks every gate, so that every place can be opened.
    static void prepared(WindowDriver& d) {
        d.makeBatch();
        d.press(Qt::Key_F9);
    }
    static QStringList places(WindowDriver& d) {
        QStringList all;
        for (const auto& [place, commands] : d.window().everyCommand()) {
            if (!place.isEmpty()) all << place;
        }
        return all;
    }

private slots:
    void init() { QSettings().clear(); }

    void everyCommandIsWholeAndItsNameIsItsOwn() {
        WindowDriver d;
        prepared(d);
        QSet<QString> ids;
        int commands = 0;
        for (const auto& [place, own] : d.window().everyCommand()) {
            for (const Command& command : own) {
                ++commands;
                QVERIFY2(!ids.contains(command.id), qPrintable(command.id));
                ids.insert(command.id);
                QVERIFY2(!command.text.isEmpty() && command.run != nullptr, qPrintable(command.id));
                QVERIFY2(place.isEmpty() || place == "call-bench" || command.id.contains('.'), qPrintable(command.id));
            }
        }
        QVERIFY2(commands > 90, "nothing found to check");
    }

    // No letter stands for two meanings, no other key for two commands, and at one place no key does two things.
    void aKeyMeansOneThing() {
        std::set<QChar> letters;
        for (int i = 1; i <= static_cast<int>(Verb::help); ++i) {
            const auto verb = static_cast<Verb>(i);
            QVERIFY2(letters.insert(keyOf(verb)).second, qPrintable(meaningOf(verb)));
            QVERIFY(!meaningOf(verb).isEmpty());
        }
        WindowDriver d;
        prepared(d);
        const auto every = d.window().everyCommand();
        std::map<QString, QString> general;
        for (const Command& command : every.at({})) {
            if (!command.keyText().isEmpty())
                QVERIFY2(general.insert({command.keyText(), command.id}).second, qPrintable(command.id));
        }
        for (const QString& place : places(d)) {
            d.window().open(place);
            std::map<QString, QString> here;
            for (const Command& command : d.window().commands()) {
                if (command.keyText().isEmpty() || general.count(command.keyText())) continue;
                QVERIFY2(here.insert({command.keyText(), command.id}).second, qPrintable(command.id));
            }
        }
    }

    // What a key does a finger can do: whatever the registry holds has a line in the menu, which the row's last button
    // opens, and which the mouse hits; and its key stands in the help.
    void everyCommandCanBeClicked() {
        WindowDriver d;
        prepared(d);
        for (const QString& place : places(d)) {
            d.window().open(place);
            d.settle();
            const QString title = d.window().place();
            d.click("do-menu");
            for (const Command& command : d.window().commands()) {
                if (command.id == "menu" || command.id == "find") continue; // is what has been opened
                auto* row = d.dialog()->findChild<RowButton*>("menu-" + command.id);
                QVERIFY2(row != nullptr, qPrintable(title + ": " + command.id));
                auto* scroll = d.dialog()->findChild<QScrollArea*>();
                scroll->ensureWidgetVisible(row);
                QWidget* hit = d.dialog()->childAt(row->mapTo(d.dialog(), row->rect().center()));
                QVERIFY2(hit == row, qPrintable(title + ": " + command.id));
                QVERIFY2(row->height() >= 40, qPrintable(command.id));
            }
            d.press(Qt::Key_Escape);
            d.type("?");
            const QString help = d.dialogText();
            d.press(Qt::Key_Escape);
            for (const Command& command : d.window().commands()) {
                if (!command.keyText().isEmpty() && command.verb != Verb::help)
                    QVERIFY2(help.contains(command.text), qPrintable(title + ": " + command.text));
            }
        }
    }

    // The menu is parted by what a person has in mind, each part under its name; a bar along the top has the same.
    void theMenuIsParted() {
        WindowDriver d;
        prepared(d);
        d.press(Qt::Key_F10);
        const QString menu = d.dialogText();
        for (const Group group : allGroups) {
            QVERIFY2(menu.contains(group == Group::here ? "Batch" : groupName(group)), qPrintable(groupName(group)));
        }
        d.press(Qt::Key_Escape);
        QVERIFY(d.window().findChild<QMenuBar*>() == nullptr);
        d.run("menu-bar");
        auto* bar = d.window().findChild<QMenuBar*>();
        QVERIFY(bar != nullptr);
        QTRY_VERIFY(bar->isVisible());
        QStringList inBar;
        for (QAction* part : bar->actions()) {
            emit part->menu()->aboutToShow();
            for (QAction* action : part->menu()->actions()) inBar << action->text().section('\t', 0, 0);
        }
        for (const Command& command : d.window().commands())
            QVERIFY2(inBar.contains(command.text), qPrintable(command.text));
        // A line of it does what it says.
        QMenu* shop = bar->actions().at(static_cast<int>(Group::shop))->menu();
        for (QAction* action : shop->actions()) {
            if (action->text().startsWith("Testers")) action->trigger();
        }
        d.settle();
        QCOMPARE(d.window().place(), QStringLiteral("testers-bench"));
        d.run("menu-bar");
        QVERIFY(d.window().findChild<QMenuBar*>() == nullptr);
    }

    // What was said before the window was laid out anew stands in the new one; two wishes at once both count.
    void whatWasSaidStandsInTheWindowLaidOutAnew() {
        WindowDriver d;
        prepared(d);
        d.window().run("dark");
        d.window().run("text-size");
        d.window().run("touch");
        const bool dark = d.window().look().palette.dark;
        QVERIFY(d.now().startsWith("Number keys"));
        d.settle();
        QVERIFY2(d.now().startsWith("Number keys"), qPrintable(d.now()));
        QCOMPARE(d.window().look().palette.dark, !dark);
        QCOMPARE(d.window().look().factor, 1.25);
        d.run("touch");
    }

    // An entry of the menu bar that dresses the window anew takes the bar away, but not while Qt is still in its menu:
    // what Qt wrote there afterwards damaged the memory of whatever came to lie in its place.
    void anEntryOfTheMenuBarOutlivesItsClick_data() {
        QTest::addColumn<QString>("entry");
        for (const char* entry : {"Menu bar on or off", "Text size", "Touch on or off", "Dark or light"})
            QTest::addRow("%s", entry) << QString(entry);
    }
    void anEntryOfTheMenuBarOutlivesItsClick() {
        QFETCH(QString, entry);
        WindowDriver d;
        prepared(d);
        d.run("menu-bar");
        auto* bar = d.window().findChild<QMenuBar*>();
        QVERIFY(bar != nullptr);
        bool clicked = false;
        for (QAction* part : bar->actions()) {
            const QPointer menu = part->menu();
            menu->popup({0, 0});
            for (QAction* action : menu->actions()) {
                if (clicked || action->text().section('\t', 0, 0) != entry) continue;
                QTest::mouseClick(menu, Qt::LeftButton, {}, menu->actionGeometry(action).center());
                QVERIFY(menu != nullptr);
                clicked = true;
            }
            if (clicked) break;
            menu->hide();
        }
        QVERIFY(clicked);
        d.settle();
        auto* now = d.window().findChild<QMenuBar*>();
        QVERIFY(now != bar || now == nullptr); // and yet it is dressed anew
        if (now != nullptr) d.run("menu-bar");
    }

    // F1: every page of every place says what it answers, how in a few lines, and what it does not see; the rules it
    // names stand in docs/method.md, from which they are shown with their limits.
    void everyPlaceExplainsItself() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        QSet<QString> answers;
        int pages = 0;
        for (const QString& place : places(d)) {
            for (int page = 0; page < 8; ++page) {
                if (page > 0 && place == "call-bench") break; // one page for two gates
                d.window().open(place, page > 0 ? page : -1);
                d.settle();
                QCOMPARE(d.window().place(), place);
                const auto* bench = d.window().findChild<Bench*>(d.window().place());
                if (page > 0 && bench->pageIndex() != page) break;
                const HelpText help = bench->help();
                ++pages;
                QVERIFY2(help.answers.endsWith('?') && !answers.contains(help.answers), qPrintable(help.answers));
                answers.insert(help.answers);
                QVERIFY2(help.steps.size() >= 3 && help.steps.size() <= 5, qPrintable(help.answers));
                QVERIFY2(help.blind.endsWith('.'), qPrintable(help.answers));
                d.press(Qt::Key_F1);
                const QString shown = d.dialogText();
                d.press(Qt::Key_Escape);
                QVERIFY2(shown.contains(help.answers) && shown.contains(help.blind), qPrintable(shown));
                for (const HelpStep& step : help.steps) QVERIFY2(shown.contains(step.text), qPrintable(step.text));
                QFile file(ROLLCALL_DATA_DIR "/../docs/method.md");
                QVERIFY(file.open(QIODevice::ReadOnly));
                const QString method = QString::fromUtf8(file.readAll());
                for (const QString& name : help.rules) {
                    const QRegularExpression row("\n\\| ([^|]*\\b" + name +
                                                 "\\b[^|]*) \\| (.*) \\| [^|]* \\| (.*) \\|\n");
                    const auto found = row.match(method);
                    QVERIFY2(found.hasMatch(), qPrintable(name));
                    for (int part = 1; part <= 3; ++part)
                        QVERIFY2(shown.contains(WindowDriver::plain(found.captured(part))),
                                 qPrintable(found.captured(part)));
                }
                for (const Command& command : d.window().findChild<Bench*>(d.window().place())->commands()) {
                    if (!command.keyText().isEmpty()) QVERIFY2(shown.contains(command.text), qPrintable(command.text));
                }
            }
        }
        QCOMPARE(pages, 29);
    }

    // The right button, or a finger that rests: what can be done with the blade that lies there, and at this place.
    void whatLiesThereHasItsMenu() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        const auto menu = [] { return qobject_cast<QMenu*>(QApplication::activePopupWidget()); };
        const auto says = [](const QMenu* one, const QString& text) {
            for (QAction* action : one->actions()) {
                if (action->text().section('\t', 0, 0) == text) return action;
            }
            return static_cast<QAction*>(nullptr);
        };
        auto* list = d.window().findChild<QAbstractItemView*>("roll");
        const QPoint third = list->visualRect(list->model()->index(2, 0)).center();
        QContextMenuEvent right(QContextMenuEvent::Mouse, third, list->viewport()->mapToGlobal(third));
        QCoreApplication::sendEvent(list->viewport(), &right);
        d.settle();
        QCOMPARE(d.document().blade()->mark, std::string("GK-3"));
        QVERIFY(menu() != nullptr && says(menu(), "The blade itself") != nullptr);
        QVERIFY(says(menu(), "Strike out") == nullptr); // which is Call's
        QTest::mouseClick(menu(), Qt::LeftButton, {},
                          menu()->actionGeometry(says(menu(), "The blade itself")).center());
        d.settle();
        QVERIFY(d.dialog()->findChild<QLineEdit*>("mark") != nullptr);
        d.press(Qt::Key_Escape);

        BladeView* blade = d.bladeView();
        QTest::mousePress(blade, Qt::LeftButton, {}, blade->rect().center());
        QVERIFY(d.window().findChild<LongPress*>()->findChild<QTimer*>()->isActive());
        QVERIFY(QTest::qWaitFor([&] { return menu() != nullptr; }, 3000));
        QVERIFY(says(menu(), "Strike out") != nullptr && says(menu(), "Copy the table in view") != nullptr);
        QVERIFY(says(menu(), "This blade") != nullptr && says(menu(), "This blade")->menu() != nullptr);
        menu()->close();
        QTest::mouseRelease(blade, Qt::LeftButton, {}, blade->rect().center());
        // A finger that moves on asks nothing.
        QTest::mousePress(blade, Qt::LeftButton, {}, blade->rect().center());
        QTest::mouseMove(blade, blade->rect().center() + QPoint(40, 0));
        QVERIFY(!d.window().findChild<LongPress*>()->findChild<QTimer*>()->isActive());
        QVERIFY(menu() == nullptr);
        QTest::mouseRelease(blade, Qt::LeftButton, {}, blade->rect().center() + QPoint(40, 0));
    }

    // Buttons lie inside the row, beside one another, at every size of window and text.
    void theRowIsNeverCut() {
        WindowDriver d;
        prepared(d);
        d.window().show();
        for (const QSize& size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
            d.window().resize(size);
            for (const QString& place : places(d)) {
                d.window().open(place);
                d.settle();
                auto* bar = d.window().findChild<CommandBar*>();
                int right = 0;
                for (auto* button : bar->findChildren<QAbstractButton*>()) {
                    if (!button->isVisible()) continue;
                    QVERIFY2(bar->rect().contains(button->geometry()), qPrintable(place + button->text()));
                }
                QList<QRect> rects;
                for (auto* button : bar->findChildren<QAbstractButton*>()) {
                    if (button->isVisible()) rects << button->geometry();
                }
                std::sort(rects.begin(), rects.end(), [](const QRect& a, const QRect& b) { return a.x() < b.x(); });
                for (const QRect& rect : rects) {
                    QVERIFY2(rect.left() >= right, qPrintable(place));
                    right = rect.right();
                }
                QVERIFY(!rects.isEmpty());
            }
        }
    }

    // What cannot be done now says why, by click as by key.
    void whatCannotBeDoneSaysWhy() {
        WindowDriver d;
        d.makeBatch();
        d.window().open(QStringLiteral("heat-bench"), 2);
        d.settle();
        d.click("do-recipe.remove");
        QVERIFY2(d.now().contains("no recipe yet"), qPrintable(d.now()));
        d.press(Qt::Key_F9);
        d.window().open(QStringLiteral("heat-bench"), 2);
        d.type("x");
        QVERIFY2(d.now().contains("no recipe yet"), qPrintable(d.now()));
    }

    // N is always new: a batch on the overview, a shot at Steel, a tester among the testers.
    void aLetterTakesTheObjectOfItsPlace() {
        WindowDriver d;
        prepared(d);
        d.type("n");
        QVERIFY(d.dialog()->findChild<QLineEdit*>("marks") != nullptr);
        d.press(Qt::Key_Escape);
        d.press(Qt::Key_F2);
        d.type("n");
        QVERIFY(d.dialog() != nullptr && d.dialog()->findChild<QLineEdit*>("marks") == nullptr);
        d.press(Qt::Key_Escape);
        d.type("r");
        d.type("n");
        QVERIFY(d.dialog()->findChild<QLineEdit*>("indenter") != nullptr);
        d.press(Qt::Key_Escape);
    }

    // Tab goes through all that can be focused and comes round again; each has a name for those who do not see it.
    void tabReachesEveryControl_data() {
        QTest::addColumn<QString>("place");
        for (const char* place : {"overview-bench", "call-bench", "heat-bench", "steel-bench", "edge-bench",
                                  "proof-bench", "release-bench", "testers-bench"})
            QTest::newRow(place) << QString::fromLatin1(place);
    }
    void tabReachesEveryControl() {
        QFETCH(QString, place);
        WindowDriver d;
        prepared(d);
        d.window().show();
        d.window().open(place);
        d.settle();
        std::set<QWidget*> reached;
        for (int i = 0; i < 80; ++i) {
            d.press(Qt::Key_Tab);
            QWidget* focus = d.window().focusWidget();
            QVERIFY(focus != nullptr && focus->isVisible());
            reached.insert(focus);
        }
        int controls = 0;
        for (auto* button : d.window().findChildren<QAbstractButton*>()) {
            if (!button->isVisible() || !button->isEnabled() || qobject_cast<QTabBar*>(button->parentWidget()))
                continue;
            if (button->objectName().startsWith("qt_")) continue;
            ++controls;
            QVERIFY2(reached.count(button) > 0, qPrintable(button->objectName() + ' ' + button->text()));
            QVERIFY2(!button->text().isEmpty() || !button->accessibleName().isEmpty(),
                     qPrintable(button->objectName()));
        }
        QVERIFY(controls >= 5);
        QCOMPARE(d.window().place(), place); // and nothing happened on the way
        for (auto* tabs : d.window().findChildren<QTabBar*>()) {
            if (tabs->isVisible()) QVERIFY(reached.count(tabs) > 0);
        }
    }

    // What lies outside the gates leads back to where one was.
    void testersLeadBack() {
        WindowDriver d;
        prepared(d);
        d.press(Qt::Key_F5);
        d.type("r");
        QCOMPARE(d.window().place(), QStringLiteral("testers-bench"));
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().place(), QStringLiteral("call-bench"));
        d.type("r");
        d.type("v"); // the run is read in Call
        QCOMPARE(d.window().place(), QStringLiteral("call-bench"));
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().place(), QStringLiteral("testers-bench"));
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().place(), QStringLiteral("call-bench"));
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().place(), QStringLiteral("overview-bench"));
    }

    // Ctrl+K: type what you want, in any order and case; Enter does it, in its place.
    void theFinderDoesWhatIsTyped() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F4);
        const auto found = [&] { return d.dialog()->findChild<QListWidget*>("found"); };
        d.press(Qt::Key_K, Qt::ControlModifier);
        d.type("e");
        QVERIFY(found()->count() > 60); // of all places
        d.press(Qt::Key_Backspace);
        QVERIFY(!found()->isVisible()); // the groups again
        d.type("TEMPER log");
        QVERIFY2(found()->item(0)->text().startsWith("Log a temper   [T]"), qPrintable(found()->item(0)->text()));
        d.press(Qt::Key_Return);
        QVERIFY(d.dialog()->findChild<QWidget*>("temperature") != nullptr);
        d.press(Qt::Key_Escape);
        // Another place's act opens that place, and its page.
        d.press(Qt::Key_K, Qt::ControlModifier);
        d.type("load one note");
        QVERIFY2(found()->item(0)->text().contains("at Heat"), qPrintable(found()->item(0)->text()));
        QTest::mouseClick(found()->viewport(), Qt::LeftButton, {}, found()->visualItemRect(found()->item(0)).center());
        d.settle();
        QCOMPARE(d.window().place(), QStringLiteral("heat-bench"));
        QVERIFY(d.dialog()->findChild<QWidget*>("minutes") != nullptr);
        d.press(Qt::Key_Escape);
        // What there is not is an empty list, and Enter does nothing.
        d.press(Qt::Key_K, Qt::ControlModifier);
        d.type("fly");
        QCOMPARE(found()->count(), 0);
        d.press(Qt::Key_Return);
        QVERIFY(d.dialog() != nullptr && d.dialog()->objectName() == QLatin1String("menu"));
        d.press(Qt::Key_Escape);
    }

    // An error goes as soon as it is mended.
    void whatIsMendedIsNotBlamed() {
        WindowDriver d;
        d.makeBatch();
        d.type("t");
        d.fill("temperature", "20");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(!d.formMessage().isEmpty());
        d.fill("temperature", "205");
        QCOMPARE(d.formMessage(), QString());
        d.press(Qt::Key_Escape);
    }

    // Esc asks before anything typed is lost, and once only; what was proposed or left as it was is no loss.
    void escAsksBeforeSomethingIsLost() {
        WindowDriver d;
        d.makeBatch();
        const auto open = [] { return QApplication::activeModalWidget() != nullptr; };
        d.type("l"); // limits: filled with those of the batch
        d.press(Qt::Key_Escape);
        QVERIFY(!open());
        d.type("l");
        d.fill("window", "60 to 62");
        d.press(Qt::Key_Escape);
        QVERIFY2(d.formMessage().contains("not kept yet"), qPrintable(d.formMessage()));
        d.fill("window", "60 to 62.5"); // typed on: asked anew
        QCOMPARE(d.formMessage(), QString());
        d.press(Qt::Key_Escape);
        QVERIFY(open() && d.formMessage().contains("not kept yet"));
        d.press(Qt::Key_Escape);
        QVERIFY(!open());
        QCOMPARE(d.document().batch().window.high, 63.0);
    }

    // Neither does closing the window lose what is typed.
    void closingSaysWhatIsTyped() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.type("64");
        d.window().close();
        QVERIFY(d.window().isVisible());
        QVERIFY2(d.now().contains("64 is typed and not entered"), qPrintable(d.now()));
        d.press(Qt::Key_1); // typed on: said anew
        d.window().close();
        QVERIFY(d.window().isVisible());
        d.window().close();
        QVERIFY(!d.window().isVisible());
    }

    // Enter in a list that only completes what is typed goes on to the next field; what was chosen in it is taken.
    void aCompletionDoesNotSwallowEnter() {
        WindowDriver d;
        d.makeBatch();
        d.type("n");
        auto* grade = d.dialog()->findChild<QComboBox*>("grade");
        QVERIFY(grade != nullptr && grade->isEditable());
        const auto type = [&](const char* text) {
            grade->setFocus();
            grade->lineEdit()->selectAll();
            QTest::keyClicks(grade, text);
            QVERIFY(QTest::qWaitFor([&] { return grade->completer()->popup()->isVisible(); }, 2000));
        };
        type("115C");
        QTest::keyClick(grade->completer()->popup(), Qt::Key_Return); // nothing chosen: what is typed stays
        QVERIFY(!grade->completer()->popup()->isVisible());
        QCOMPARE(grade->currentText(), QStringLiteral("115C"));
        QVERIFY(d.dialog()->focusWidget() != grade);
        type("115C");
        QTest::keyClick(grade->completer()->popup(), Qt::Key_Down);
        QTest::keyClick(grade->completer()->popup(), Qt::Key_Return);
        QCOMPARE(grade->currentText(), QStringLiteral("115CrV3"));
        QVERIFY(d.dialog()->focusWidget() != grade);
        d.giveUp();
    }

    // A text longer than its field is read whole under it.
    void longTextIsSeenWhole() {
        WindowDriver d;
        d.makeBatch();
        d.run("rename-batch");
        const auto whole = [&] { return d.dialog()->findChild<QLabel*>("whole"); };
        QVERIFY(!whole()->isVisible());
        const QString longName =
            QStringLiteral("Orchard and hedgerow, autumn commission, second half, for the nursery");
        d.fill("name", longName);
        QVERIFY(whole()->isVisible());
        QCOMPARE(whole()->text(), longName);
        d.fill("name", "Orchard 14");
        QVERIFY(!whole()->isVisible());
        d.press(Qt::Key_Escape);
    }
};

QTEST_MAIN(tst_Commands)
#include "tst_commands.moc"

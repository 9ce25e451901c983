// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/accessible.h"
#include "tests/support/ledger.h"
#include "tests/support/window_driver.h"

#include <QAccessible>
#include <QMetaEnum>
#include <QRegularExpression>

using namespace rollcall;
using fixtures::WindowDriver;

// What a screen reader is told: each place as the tree of what is in sight there, and what is said at once.
class tst_ScreenReader : public QObject {
    Q_OBJECT

    struct Node {
        QAccessibleInterface* it;
        int depth;
    };
    static void collect(QAccessibleInterface* one, int depth, std::vector<Node>& nodes) {
        if (one == nullptr || !one->isValid() || one->state().invisible) return;
        nodes.push_back({one, depth});
        for (int i = 0; i < one->childCount(); ++i) collect(one->child(i), depth + 1, nodes);
    }
    static std::vector<Node> tree(WindowDriver& d) {
        std::vector<Node> nodes;
        collect(QAccessible::queryAccessibleInterface(&d.window()), 0, nodes);
        return nodes;
    }
    static QString line(const Node& node) {
        QStringList told;
        for (const auto text : {QAccessible::Name, QAccessible::Value, QAccessible::Description}) {
            const QString part = node.it->text(text).replace('\n', QLatin1String(" / "));
            if (!part.isEmpty() && !told.contains(part)) told << part;
        }
        const auto roles = QMetaEnum::fromType<QAccessible::Role>();
        return QString(2 * node.depth, ' ') + roles.valueToKey(node.it->role()) + ' ' + told.join(" | ");
    }
    // A batch that asks every gate, one blade read, nothing in it that hangs on the day.
    static void prepare(WindowDriver& d) {
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n653\n654\n");
    }
    // Every page of every place, each shown in the window.
    static void everywhere(WindowDriver& d, const std::function<void(const QString&)>& look) {
        for (const auto& [place, own] : d.window().everyCommand()) {
            if (place.isEmpty()) continue;
            for (int page = 0; page < 8; ++page) {
                if (page > 0 && place == "call-bench") break; // one page for two gates
                d.window().open(place, page > 0 ? page : -1);
                d.settle();
                fixtures::ledgerPage(d);
                const auto* bench = d.window().findChild<Bench*>(place);
                if (page > 0 && bench->pageIndex() != page) break;
                look(place + '.' + bench->title());
            }
        }
    }

private slots:
    void init() { QSettings().clear(); }

    // What can be pressed, chosen or typed into, and what is only shown, has a name; a button can be pressed without a
    // hand, and whatever is in sight is in the tree.
    void nothingIsNamelessOrOutOfReach() {
        WindowDriver d;
        prepare(d);
        int controls = 0;
        everywhere(d, [&](const QString& place) {
            std::set<QObject*> told;
            for (const Node& node : tree(d)) {
                QAccessibleInterface* it = node.it;
                told.insert(it->object());
                const QString where = place + ": " + line(node);
                const bool leaf = it->childCount() == 0;
                const bool shows = it->rect().width() > 0 && it->rect().height() > 0;
                if (leaf && shows && it->role() != QAccessible::Pane)
                    QVERIFY2(!it->text(QAccessible::Name).trimmed().isEmpty(), qPrintable(where));
                if (leaf && shows) QVERIFY2(it->role() != QAccessible::Client, qPrintable(where));
                if (it->role() != QAccessible::Button) continue;
                ++controls;
                QVERIFY2(it->actionInterface() != nullptr, qPrintable(where));
                QVERIFY2(it->actionInterface()->actionNames().contains(QAccessibleActionInterface::pressAction()),
                         qPrintable(where));
            }
            for (auto* button : d.window().findChildren<QAbstractButton*>()) {
                if (!button->isVisible() || button->objectName().startsWith("qt_")) continue;
                if (qobject_cast<QTabBar*>(button->parentWidget()) != nullptr) continue;
                QVERIFY2(told.contains(button), qPrintable(place + ": " + button->text()));
            }
        });
        QVERIFY(controls > 200);
    }

    // Each place is told with what it shows as a table, pictures too.
    void aPlaceIsToldAsItsTable() {
        WindowDriver d;
        prepare(d);
        const auto told = [&](const char* place) {
            return QAccessible::queryAccessibleInterface(d.window().findChild<Bench*>(place))
                ->text(QAccessible::Description);
        };
        QVERIFY2(told("call-bench").contains("65.2"), qPrintable(told("call-bench")));
        d.window().open("heat-bench", 1);
        d.settle();
        const QString ladder = told("ladder-page");
        QVERIFY2(ladder.contains("Temperature, °C") && ladder.contains("Chance too soft"), qPrintable(ladder));
        QCOMPARE(ladder.count('\n'), 11); // a row for each ten degrees, fifty to either side
    }

    // A button is pressed as a screen reader presses it.
    void aButtonIsPressedWithoutAHand() {
        WindowDriver d;
        prepare(d);
        const auto press = [&](const QString& name) {
            for (const Node& node : tree(d)) {
                if (node.it->role() != QAccessible::Button || node.it->text(QAccessible::Name) != name) continue;
                node.it->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
                d.settle();
                fixtures::ledgerPage(d);
                return;
            }
            qFatal("no button %s", qPrintable(name));
        };
        press("Heat"); // the button shows that it is pressed, and then it acts
        QTRY_COMPARE(d.window().place(), QStringLiteral("heat-bench"));
        press("menu");
        QTRY_VERIFY(d.dialog() != nullptr && d.dialog()->objectName() == "menu");
        d.press(Qt::Key_Escape);
        press("help");
        QTRY_VERIFY(d.dialog() != nullptr && d.dialog()->objectName() == "help");
        d.press(Qt::Key_Escape);
    }

    // What was logged and what the verdict became is said at once.
    void whatHappensIsSaid() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        QStringList alerts;
        listenTo([&](const QString& text) { alerts << text; });
        d.type("652\n653\n654\n");
        listenTo({});
        const QString all = alerts.join('\n');
        QVERIFY2(all.contains("Not yet") && all.contains("Pass"), qPrintable(all));
        QVERIFY2(all.contains("65.4"), qPrintable(all));
        QVERIFY2(all.indexOf("Not yet") < all.indexOf(": Pass"), qPrintable(all));
    }

    // Tab goes as the eye does: gates, roll, the middle, the column, the row under it, the foot.
    void tabFollowsTheEye() {
        WindowDriver d;
        prepare(d);
        const auto area = [&](QWidget* widget) {
            const QRect at(widget->mapTo(&d.window(), QPoint()), widget->size());
            const auto* bench = d.window().findChild<Bench*>(d.window().place());
            const QRect middle(bench->mapTo(&d.window(), QPoint()), bench->size());
            if (at.bottom() <= middle.top()) return 0;
            if (at.top() >= middle.bottom()) return at.top() >= d.window().height() - 50 ? 5 : 4;
            return at.right() <= middle.left() ? 1 : at.left() >= middle.right() ? 3 : 2;
        };
        everywhere(d, [&](const QString& place) {
            std::vector<int> areas;
            for (QWidget* next = d.window().nextInFocusChain(); next != &d.window(); next = next->nextInFocusChain()) {
                if (!(next->focusPolicy() & Qt::TabFocus) || !next->isVisible() || !next->isEnabled()) continue;
                if (next->window() == &d.window()) areas.push_back(area(next));
            }
            QStringList order;
            for (const int one : areas) order << QString::number(one);
            QVERIFY2(std::is_sorted(areas.begin(), areas.end()), qPrintable(place + ": " + order.join(' ')));
        });
    }

    // The whole tree of every page as it was looked at; ROLLCALL_WRITE_TREES=1 writes it anew, to be read again.
    void everyTreeIsAsItWasLookedAt() {
        WindowDriver d;
        prepare(d);
        QStringList lines;
        everywhere(d, [&](const QString& place) {
            lines << "== " + place;
            for (const Node& node : tree(d)) {
                static const QRegularExpression moment(
                    "\\d{4}-\\d\\d-\\d\\d(T[\\d:]+Z?)?( "
                    "\\d\\d:\\d\\d)?|\\b\\d\\d:\\d\\d\\b|\\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun)\\b|"
                    "\\b\\d{1,2} (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\\b");
                QString text = line(node).replace(moment, "(moment)");
                text.remove(" | the record was looked through and is sound"); // once that is done
                if (!text.trimmed().contains(' ')) continue;                  // a box around others
                lines << text;
            }
        });
        QFile file(ROLLCALL_SOURCE_DIR "/tests/app/screen_reader.txt");
        if (qEnvironmentVariableIsSet("ROLLCALL_WRITE_TREES")) {
            QVERIFY(file.open(QIODevice::WriteOnly));
            file.write(lines.join('\n').toUtf8() + '\n');
            return;
        }
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QStringList before = QString::fromUtf8(file.readAll()).trimmed().split('\n');
        for (qsizetype i = 0; i < std::max(lines.size(), before.size()); ++i) QCOMPARE(lines.value(i), before.value(i));
    }
};

QTEST_MAIN(tst_ScreenReader)
#include "tst_screen_reader.moc"

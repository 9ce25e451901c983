// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/blade_view.h"
#include "app/call/reading_row.h"
#include "app/call/rule_view.h"
#include "app/edge/edge_bench.h"
#include "app/heat/ladder_page.h"
#include "tests/support/mouse.h"
#include "words/words.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QToolTip>

using namespace rollcall;
using fixtures::WindowDriver;

// What lies under the pointer is told beside it and can be acted on; what is too fine to see is brought closer.
class tst_Pointing : public QObject {
    Q_OBJECT

    static void submit(WindowDriver& d) { d.press(Qt::Key_Return, Qt::ControlModifier); }
    // Three readings on the first blade.
    static void readABlade(WindowDriver& d) {
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n650\n654\n");
    }
    // The first place along a line through a widget where something of this is said; none: (-1, -1).
    template<typename W>
    static QPoint placeSaying(const W* widget, const QString& text, const std::function<QString(QPoint)>& says) {
        for (int y = 2; y < widget->height(); y += 3) {
            for (int x = 0; x < widget->width(); x += 2) {
                if (says({x, y}).contains(text)) return {x, y};
            }
        }
        return {-1, -1};
    }
    // What the pointer is told at a place; empty for nothing.
    static QString tip(QWidget* widget, const QPoint& at) {
        QToolTip::hideText();
        QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
        QApplication::sendEvent(widget, &move);
        QHelpEvent help(QEvent::ToolTip, at, widget->mapToGlobal(at));
        QApplication::sendEvent(widget, &help);
        return QToolTip::text();
    }
    static void wheel(QWidget* widget, const QPoint& at, int notches, Qt::KeyboardModifiers keys = {}) {
        QWheelEvent event(at, widget->mapToGlobal(at), {}, {0, 120 * notches}, Qt::NoButton, keys, Qt::NoScrollPhase,
                          false);
        QApplication::sendEvent(widget, &event);
    }

private slots:
    // The column says what its mark, its numbers and each line's mark and rule mean; Release what its letters are.
    void columnAndRelease() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n654\n653\n");
        auto* column = d.window().findChild<VerdictColumn*>();
        QVERIFY2(tip(column, {40, 60}).startsWith("Tick:"), qPrintable(tip(column, {40, 60})));
        QString numbers;
        for (int y = 60; y < 320 && !numbers.contains("65."); y += 6) numbers = tip(column, {60, y});
        QVERIFY2(numbers.contains("65."), qPrintable(numbers));
        auto* reasons = column->findChild<QAbstractItemView*>("reasons");
        bool rule = false;
        for (int i = 0; i < reasons->model()->rowCount(); ++i) {
            const QString says = reasons->model()->index(i, 0).data(Qt::ToolTipRole).toString();
            QVERIFY(!says.isEmpty());
            rule = rule || says.contains("M15");
        }
        QVERIFY(rule);
        d.press(Qt::Key_F8);
        auto* release = d.window().findChild<QWidget*>("release-bench");
        QString letter;
        for (int x = release->width() / 2; x < release->width() && !letter.contains("at this gate"); x += 8)
            letter = tip(release, {x, 20});
        QVERIFY2(letter.contains("at this gate"), qPrintable(letter));
    }

    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    // A number, its needle and its indent each say whose reading they are.
    void aReadingSaysWhereItComesFrom() {
        WindowDriver d;
        readABlade(d);
        auto* row = d.window().findChild<ReadingRow*>();
        const QPoint second = placeSaying(row, "65.0", [&](QPoint at) { return row->saysAt(at); });
        QVERIFY2(row->saysAt(second).startsWith("65.0 HRC, Bench"), qPrintable(row->saysAt(second)));
        QVERIFY2(row->saysAt(second).endsWith("HB"), qPrintable(row->saysAt(second)));
        auto* rule = d.window().findChild<RuleView*>();
        const QPoint needle = placeSaying(rule, "reading 3", [&](QPoint at) { return rule->saysAt(at); });
        QVERIFY2(rule->saysAt(needle).contains("reading 3: 65.4"), qPrintable(rule->saysAt(needle)));
        const QPoint mean = placeSaying(rule, "mean", [&](QPoint at) { return rule->saysAt(at); });
        QVERIFY2(rule->saysAt(mean).contains("mean 65.0 ±"),
                 qPrintable(rule->saysAt(mean))); // 65.2 less 0.2 of the block
        auto* blade = d.window().findChild<BladeView*>();
        const Reading& first = d.document().blade()->readings.front();
        const QPoint indent = blade->pixelOf(first.spot.value()).toPoint();
        QVERIFY2(blade->saysAt(indent).startsWith("65.2 HRC"), qPrintable(blade->saysAt(indent)));
        QCOMPARE(blade->saysAt({2, 2}), QString());
        // It is told as the pointer comes there, and gone when it leaves.
        QMouseEvent there(QEvent::MouseMove, QPointF(second), QPointF(row->mapToGlobal(second)), Qt::NoButton,
                          Qt::NoButton, Qt::NoModifier);
        QApplication::sendEvent(row, &there);
        QVERIFY2(QToolTip::text().contains("65.0 HRC"), qPrintable(QToolTip::text()));
    }

    // The small marks of a gate say which blades they stand for.
    void aGateSaysWhoHasAnswered() {
        WindowDriver d;
        readABlade(d);
        const QString tip = d.window().findChild<QWidget*>("gate-quench")->toolTip();
        QVERIFY2(tip.startsWith("1 of 3 have answered\nPass: GK-1\nNot yet: GK-2, GK-3"), qPrintable(tip));
        QVERIFY(d.window().findChild<QWidget*>("gate-edge")->toolTip().contains("is not asked"));
    }

    // A cell of the edge's ladder says its force and angle, and what it told when it was taken.
    void aRungSaysWhatItTold() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F6);
        auto* page = d.window().findChild<EdgeBench*>();
        const auto says = [&](QPoint at) { return page->saysAt(at); };
        d.press(Qt::Key_Return); // the edge is measured first
        d.fill("behind", "0.3");
        d.fill("angle", "15");
        submit(d);
        const QPoint cell = placeSaying(page, "45 N at 25", says);
        QVERIFY2(says(cell).contains("not taken yet; depth"), qPrintable(says(cell)));
        QTest::mouseClick(page, Qt::LeftButton, {}, cell);
        d.press(Qt::Key_Return);
        d.type("1");
        QVERIFY2(!says(cell).contains("not taken"), qPrintable(says(cell)));
        QVERIFY2(says(cell).endsWith(words::outcomeName(EdgeOutcome::held)), qPrintable(says(cell)));
    }

    // A row of the steel says its element under the pointer as it says it to a screen reader.
    void aRowSaysWhatItIs() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F2);
        d.type("n");
        d.fill("values", "Cr 0.62; V 0.09; Mn 0.3");
        submit(d);
        auto* rows = d.window().findChild<QAbstractItemView*>("elements");
        QVERIFY(rows->model()->rowCount() >= 2);
        const QModelIndex first = rows->model()->index(0, 0);
        const QString tip = first.data(Qt::ToolTipRole).toString();
        QVERIFY2(!tip.isEmpty() && tip == first.data(Qt::AccessibleTextRole).toString(), qPrintable(tip));
    }

    // What lies there can be struck out, with a reason, whichever of the readings it is.
    void aReadingIsStruckWhereItStands() {
        WindowDriver d;
        readABlade(d);
        auto* row = d.window().findChild<ReadingRow*>();
        const QPoint first = placeSaying(row, "65.0", [&](QPoint at) { return row->saysAt(at); }); // of those in sight
        QContextMenuEvent right(QContextMenuEvent::Mouse, first, row->mapToGlobal(first));
        QApplication::sendEvent(row, &right);
        QPointer<QMenu> menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        QVERIFY(menu != nullptr);
        QCOMPARE(menu->actions().first()->text(), QStringLiteral("Strike out 65.0"));
        QTest::mouseClick(menu, Qt::LeftButton, {}, menu->actionGeometry(menu->actions().first()).center());
        d.settle();
        QVERIFY2(d.dialogText().contains("65.0"), qPrintable(d.dialogText()));
        d.type("1");
        const auto& readings = d.document().blade()->readings;
        QVERIFY(readings[1].struck.has_value());
        QVERIFY(!readings[0].struck && !readings[2].struck);
        QVERIFY2(row->saysAt(first).contains("struck out"), qPrintable(row->saysAt(first)));
        // What is struck out already is not offered again.
        QApplication::sendEvent(row, &right);
        menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        QVERIFY(menu != nullptr && !menu->actions().first()->text().startsWith("Strike out 65"));
        menu->close();
    }

    // The curve is read where the pointer is, and brought closer by the wheel: the same place then lies cooler apart.
    void theLadderIsReadAndBroughtCloser() {
        WindowDriver d;
        readABlade(d);
        d.press(Qt::Key_F3);
        d.press(Qt::Key_Tab, Qt::ControlModifier);
        auto* page = d.window().findChild<LadderPage*>();
        QVERIFY(page->isVisible());
        const auto says = [&](QPoint at) { return page->saysAt(at); };
        const auto degreesAt = [&](int x) {
            static const QRegularExpression number("^(\\d+)\\D");
            const auto found = number.match(says({x, page->height() - 120}));
            return found.hasMatch() ? found.captured(1).toInt() : -1;
        };
        const int left = page->width() * 6 / 10;
        const int right = page->width() * 8 / 10;
        const int apart = degreesAt(right) - degreesAt(left);
        QVERIFY2(apart > 5, qPrintable(says({left, page->height() - 120})));
        const auto hrc = [&](int x) {
            static const QRegularExpression number(": (\\d\\d\\.\\d) expected");
            return number.match(says({x, page->height() - 120})).captured(1).toDouble();
        };
        QVERIFY(hrc(left) > hrc(right)); // hotter is softer
        wheel(page, {(left + right) / 2, page->height() / 2}, 2);
        const int closer = degreesAt(right) - degreesAt(left);
        QVERIFY2(closer < apart * 0.6 && closer > 0, qPrintable(QString::number(closer)));
        d.run("ladder.whole");
        QVERIFY(std::abs(degreesAt(right) - degreesAt(left) - apart) <= 1);
        d.run("ladder.wider");
        QVERIFY2(d.now().contains("in view"), qPrintable(d.now())); // there is no more of it
        d.run("ladder.closer");
        const int begun = degreesAt(left);
        d.run("ladder.later");
        QVERIFY(degreesAt(left) > begun);
        wheel(page, {left, page->height() / 2}, 1, Qt::ShiftModifier);
        QVERIFY(degreesAt(left) < begun + (apart + 1)); // and back along
    }
};

QTEST_MAIN(tst_Pointing)
#include "tst_pointing.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/places.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QScreen>

using namespace rollcall;
using fixtures::WindowDriver;

// Two screens of a workshop, the left one small and plain, the right one large with half as fine pixels again: the
// window opens where there is room, goes over to the other, comes back, and is not lost with a screen that is gone.
class tst_Screens : public QObject {
    Q_OBJECT

    static QScreen* named(const QString& name) {
        for (QScreen* screen : QGuiApplication::screens()) {
            if (screen->name() == name) return screen;
        }
        return nullptr;
    }
    static QScreen* small() { return named("small"); }
    static QScreen* large() { return named("large"); }
    static QRect frameOf(const MainWindow& window) { return window.frameGeometry(); }
    // What of the window's texts is cut, place by place, where it is now.
    static QStringList cutsNow(WindowDriver& d) {
        QStringList cuts;
        for (const QString& place : {QStringLiteral("F4"), QStringLiteral("F5"), QStringLiteral("F2")}) {
            fixtures::goTo(d, place);
            fixtures::SeenTexts seen;
            d.window().grab();
            cuts << seen.cuts;
        }
        return cuts;
    }

private slots:
    void initTestCase() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QCOMPARE(QGuiApplication::screens().size(), 2);
        QCOMPARE(small()->geometry(), QRect(0, 0, 1024, 700));
        QCOMPARE(large()->devicePixelRatio(), 1.5);
    }
    void init() { QSettings().clear(); }

    // The first time no part of the window lies off the screen it opens on.
    void itFitsTheScreenItOpensOn() {
        WindowDriver d;
        d.window().fitScreen();
        d.settle();
        QVERIFY(small()->availableGeometry().contains(QRect(QPoint(0, 0), d.window().size())));
        QVERIFY(d.window().height() <= 700 - 48);
    }

    // Over on the other screen it is drawn in that one's pixels, nothing of it is cut, and back again neither.
    void itGoesOverAndComesBack() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n654\n653\n");
        const double read = d.document().blade()->readings.back().value;
        d.window().move(large()->geometry().topLeft() + QPoint(40, 40));
        d.window().resize(1500, 900);
        d.settle();
        QCOMPARE(d.window().screen(), large());
        const QPixmap there = d.window().grab();
        QCOMPARE(there.devicePixelRatio(), 1.5);
        QCOMPARE(there.size(), QSize(2250, 1350));
        QVERIFY2(cutsNow(d).isEmpty(), qPrintable(cutsNow(d).join('\n')));
        // What is clicked there is what lies there: the second blade of the roll.
        d.press(Qt::Key_F4);
        QWidget* roll = d.window().findChild<Roll*>();
        const QAbstractItemView* view = roll->findChild<QAbstractItemView*>();
        if (view == nullptr) view = qobject_cast<QAbstractItemView*>(roll);
        QVERIFY(view != nullptr);
        QTest::mouseClick(view->viewport(), Qt::LeftButton, {}, view->visualRect(view->model()->index(1, 0)).center());
        QCOMPARE(d.document().bladeIndex(), 1);
        d.window().move(0, 0);
        d.window().resize(1024, 640);
        d.settle();
        QCOMPARE(d.window().screen(), small());
        QCOMPARE(d.window().grab().devicePixelRatio(), 1.0);
        QVERIFY2(cutsNow(d).isEmpty(), qPrintable(cutsNow(d).join('\n')));
        d.document().selectBlade(0);
        QCOMPARE(d.document().blade()->readings.back().value, read);
    }

    // What it asks is asked on the screen where the window is.
    void formsOpenBesideIt() {
        WindowDriver d;
        d.makeBatch();
        d.window().move(large()->geometry().topLeft() + QPoint(60, 60));
        d.window().resize(1400, 880);
        d.settle();
        d.press(Qt::Key_F1);
        QWidget* asked = QApplication::activeModalWidget();
        if (asked == nullptr) asked = QApplication::activePopupWidget();
        QVERIFY(asked != nullptr);
        QVERIFY2(large()->geometry().contains(asked->frameGeometry().center()), "the help opened on the other screen");
        d.press(Qt::Key_Escape);
    }

    // As it was left; where that was on a screen that is not there, on one that is, and no larger than it.
    void itIsNotLostWithAScreen() {
        const QRect left = large()->geometry().adjusted(100, 60, -200, -100);
        {
            WindowDriver d;
            d.window().setGeometry(left);
            d.settle();
            d.window().close();
        }
        {
            WindowDriver d;
            d.window().fitScreen();
            d.settle();
            QCOMPARE(d.window().geometry(), left);
        }
        {
            WindowDriver d; // as a third screen would have had it
            d.window().setGeometry(QRect(9000, 5000, 3000, 2000));
            QSettings().setValue("geometry", d.window().saveGeometry());
        }
        WindowDriver d;
        d.window().fitScreen();
        d.settle();
        const QRect now = d.window().geometry();
        QVERIFY2(
            small()->geometry().contains(now) || large()->geometry().contains(now),
            qPrintable(QStringLiteral("%1,%2 %3x%4").arg(now.x()).arg(now.y()).arg(now.width()).arg(now.height())));
    }
};

// The screens are told to the platform before there is an application.
int main(int argc, char** argv) {
    QTemporaryDir dir;
    const auto screen = [](const char* name, int x, int width, int height, double dpr) {
        return QJsonObject{{"name", name},         {"x", x},           {"y", 0},
                           {"width", width},       {"height", height}, {"logicalDpi", 96},
                           {"logicalBaseDpi", 96}, {"dpr", dpr}};
    };
    const QString path = dir.filePath("screens.json");
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly)) return 1;
    file.write(QJsonDocument(QJsonObject{{"screens", QJsonArray{screen("small", 0, 1024, 700, 1.0),
                                                                screen("large", 1024, 1920, 1200, 1.5)}}})
                   .toJson());
    file.close();
    qputenv("QT_QPA_PLATFORM", "offscreen:configfile=" + path.toLocal8Bit());
    QApplication application(argc, argv);
    tst_Screens test;
    return QTest::qExec(&test, argc, argv);
}
#include "tst_screens.moc"

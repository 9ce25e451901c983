// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/demo.h"
#include "tests/support/window_driver.h"

#include <array>
#include <QClipboard>
#include <QDirIterator>
#include <QMenu>
#include <QSettings>
#include <random>

using namespace rollcall;
using fixtures::WindowDriver;

namespace {

// Keys, clicks, files and sizes by chance, the same again from the same seed. Whoever works in a hurry, leans on the
// keyboard or lets a cat walk over it does no more.
class Monkey {
public:
    Monkey(WindowDriver& driver, const QString& folder, std::uint32_t seed)
        : m_d(driver), m_folder(folder), m_chance(seed) {}

    void step() {
        if (!m_d.window().isVisible()) m_d.restart(); // it was closed
        m_d.chooseFile(file());
        // Whoever stares at one form for ever sees nothing else.
        m_asked = QApplication::activeModalWidget() == nullptr ? 0 : m_asked + 1;
        const int what = m_asked > 25 && below(3) == 0 ? escape : below(100);
        if (what == escape)
            QTest::keyClick(top(), Qt::Key_Escape);
        else if (what < 45)
            key();
        else if (what < 82)
            pointer();
        else if (what < 90)
            button();
        else if (what < 92)
            m_d.window().resize(900 + below(1200), 560 + below(800));
        else if (what < 95)
            command();
        else if (what < 97)
            drop();
        else if (what < 98)
            m_d.passTime(std::int64_t{below(3 * 24 * 60)} * 60000);
        else if (what < 99)
            QGuiApplication::clipboard()->setText(QString::fromUtf8(text()));
        else if (below(4) == 0)
            m_d.restart();
        if (below(6) == 0)
            m_d.settle();
        else
            QCoreApplication::processEvents();
    }
    const QString& last() const { return m_last; }

private:
    int below(int n) { return static_cast<int>(m_chance() % static_cast<std::uint32_t>(n)); }
    template<class T>
    const T& oneOf(const T* list, std::size_t count) {
        return list[static_cast<std::size_t>(below(static_cast<int>(count)))];
    }
    QWidget* top() const {
        if (QWidget* popup = QApplication::activePopupWidget()) return popup;
        if (QWidget* modal = QApplication::activeModalWidget()) return modal;
        return &m_d.window();
    }

    void key() {
        static constexpr std::array others{Qt::Key_Return, Qt::Key_Escape, Qt::Key_Tab,      Qt::Key_Backtab,
                                           Qt::Key_Up,     Qt::Key_Down,   Qt::Key_Left,     Qt::Key_Right,
                                           Qt::Key_PageUp, Qt::Key_Home,   Qt::Key_PageDown, Qt::Key_End,
                                           Qt::Key_Delete, Qt::Key_Space,  Qt::Key_Backspace};
        Qt::KeyboardModifiers with;
        if (below(9) == 0) with |= Qt::ControlModifier;
        if (below(12) == 0) with |= Qt::ShiftModifier;
        if (below(40) == 0) with |= Qt::AltModifier;
        QWidget* to = top()->focusWidget() != nullptr ? top()->focusWidget() : top();
        Qt::Key pressed = Qt::Key_Return;
        switch (below(5)) {
        case 0:
            pressed = oneOf(others.data(), others.size());
            break;
        case 1:
            pressed = static_cast<Qt::Key>(Qt::Key_A + below(26));
            break;
        case 2:
            pressed = static_cast<Qt::Key>(Qt::Key_F1 + below(12));
            break;
        case 3: { // a number and Enter, as most of the work is
            m_last = QStringLiteral("a number");
            const QByteArray number = QByteArray::number(below(1200) / 10.0);
            for (const char digit : number) QTest::keyClick(to, digit);
            break;
        }
        default:
            pressed = static_cast<Qt::Key>(Qt::Key_Space + below(Qt::Key_9 - Qt::Key_Space + 1));
        }
        m_last = QStringLiteral("key %1 with %2").arg(pressed, 0, 16).arg(int(with), 0, 16);
        QTest::keyClick(to, pressed, with);
    }

    void pointer() {
        QWidget* where = top();
        const QPoint at(below(std::max(1, where->width())), below(std::max(1, where->height())));
        QWidget* under = where->childAt(at);
        QWidget* on = under != nullptr ? under : where;
        const QPoint there = on->mapFrom(where, at);
        m_last = QStringLiteral("pointer on %1 %2").arg(QLatin1String(on->metaObject()->className()), on->objectName());
        switch (below(12)) {
        case 0:
            return QTest::mouseDClick(on, Qt::LeftButton, {}, there);
        case 1:
            return QTest::mouseClick(on, Qt::RightButton, {}, there);
        case 2: {
            QWheelEvent wheel(QPointF(there), QPointF(on->mapToGlobal(there)), {}, {0, below(2) == 0 ? 120 : -120},
                              Qt::NoButton, below(5) == 0 ? Qt::ControlModifier : Qt::NoModifier, Qt::NoScrollPhase,
                              false);
            QCoreApplication::sendEvent(on, &wheel);
            return;
        }
        case 3: {
            QTest::mousePress(on, Qt::LeftButton, {}, there);
            const QPointer alive = on;
            for (int i = 0; i < 3 && alive; ++i) QTest::mouseMove(on, there + QPoint(below(160) - 80, below(120) - 60));
            if (alive) QTest::mouseRelease(on, Qt::LeftButton, {}, there + QPoint(below(160) - 80, below(120) - 60));
            return;
        }
        case 4:
            return QTest::mouseMove(on, there);
        default:
            QTest::mouseClick(on, Qt::LeftButton, below(10) == 0 ? Qt::ShiftModifier : Qt::NoModifier, there);
        }
    }

    void button() {
        QList<QAbstractButton*> ready;
        for (auto* one : top()->findChildren<QAbstractButton*>()) {
            if (one->isVisible() && one->isEnabled()) ready << one;
        }
        if (ready.isEmpty()) return;
        auto* chosen = ready[below(static_cast<int>(ready.size()))];
        m_last = QStringLiteral("button %1 %2").arg(chosen->objectName(), chosen->text());
        QTest::mouseClick(chosen, Qt::LeftButton);
    }

    void command() {
        if (top() != &m_d.window()) return;
        const Commands all = m_d.window().commands();
        if (all.empty()) return;
        const Command& one = oneOf(all.data(), all.size());
        m_last = QStringLiteral("command ") + one.id;
        m_d.window().run(one.id);
    }

    void drop() {
        const QString path = file();
        if (path.isEmpty() || top() != &m_d.window()) return;
        m_last = QStringLiteral("dropped ") + path;
        QMimeData mime;
        mime.setUrls({QUrl::fromLocalFile(path)});
        QDragEnterEvent enter({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(&m_d.window(), &enter);
        QDropEvent fall({600, 400}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(&m_d.window(), &fall);
    }

    QByteArray text() {
        static constexpr std::array<const char*, 8> texts{
            "batch,blade,gate,value\nHedge,1,temper,61.0\nHedge,2,temper,61.4\n",
            "Klinge;Charge;H\xC3\xA4rte\nK1;Hecke 7;62,1\nK2;Hecke 7;naß\n",
            "element;percent;error\nCr;13,6;0,12\nMo;<LOD;0,03\n",
            "time,temperature\n0,20\n60,805\n600,806\n660,400\n",
            "\"never closed\n1,2\n",
            "{\"line\":1}\n{",
            "HRC 62.1\r\n",
            ""};
        QByteArray some = oneOf(texts.data(), texts.size());
        for (int i = below(3); i > 0 && !some.isEmpty(); --i)
            some[below(static_cast<int>(some.size()))] = static_cast<char>(below(256));
        return some;
    }

    // A file that may be there, may be anything, or none.
    QString file() {
        static constexpr std::array<const char*, 9> names{"r.csv",      "t.txt",       "photo.png",
                                                          "a.rollcall", "pack.zip",    "new.rollcall",
                                                          "card.pdf",   "picture.svg", "folder"};
        const int which = below(static_cast<int>(names.size()) + 3);
        if (which >= static_cast<int>(names.size())) return {};
        const QString path = m_folder + QLatin1Char('/') + QLatin1String(names[static_cast<std::size_t>(which)]);
        if (which < 3 && below(2) == 0) {
            QFile out(path);
            if (out.open(QIODevice::WriteOnly)) out.write(text());
        }
        return path;
    }

    static constexpr int escape = 100;
    WindowDriver& m_d;
    int m_asked = 0; ///< steps since a form or a question came up
    QString m_folder;
    std::mt19937 m_chance;
    QString m_last;
};

QStringList& troubles() {
    static QStringList all;
    return all;
}

// What Qt complains of is a fault of ours: painting without a painter, connecting what is not there.
void told(QtMsgType type, const QMessageLogContext&, const QString& text) {
    static const QRegularExpression faults(
        QStringLiteral("QPainter::|QObject::|QPaintDevice|QLayout|QWidget::|Q[A-Z]\\w+Model"));
    if (type == QtFatalMsg || faults.match(text).hasMatch()) {
        std::fprintf(stderr, "%s\n", qPrintable(text));
        troubles() << text;
    }
}

} // namespace

// Nothing that is pressed, clicked, dropped or pulled brings the window down, hangs it or damages a logbook.
class tst_Monkey : public QObject {
    Q_OBJECT

private slots:
    void anything_data() {
        QTest::addColumn<int>("seed");
        const int first = qEnvironmentVariableIntValue("ROLLCALL_SEED");
        for (int i = 1; i <= 3; ++i) QTest::addRow("seed %d", first + i) << first + i;
    }
    // 400 steps from each seed; ROLLCALL_MONKEY_SECONDS=N goes on for so long from each, ROLLCALL_SEED=N begins at
    // others.
    void anything() {
        QFETCH(int, seed);
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // as WindowDriver does
        QSettings().clear();
        troubles().clear();
        const auto before = qInstallMessageHandler(told);
        QTemporaryDir dir;
        QFile stepsTaken(dir.filePath("steps"));
        QVERIFY(stepsTaken.open(QIODevice::WriteOnly));
        fixtures::putDemo(dir.filePath("demo.rollcall"));
        const int seconds = qEnvironmentVariableIntValue("ROLLCALL_MONKEY_SECONDS");
        int steps = 0;
        {
            // A menu of Qt's own (a calendar's months) waits within the click that opened it.
            QTimer impatient;
            connect(&impatient, &QTimer::timeout, &impatient, [] {
                if (auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget())) menu->close();
            });
            impatient.start(700);
            WindowDriver d(seed % 3 == 0 ? QString() : dir.filePath("demo.rollcall"));
            Monkey monkey(d, dir.path(), static_cast<std::uint32_t>(seed));
            QElapsedTimer clock;
            clock.start();
            QString at;
            for (; seconds > 0 ? clock.elapsed() < 1000LL * seconds : steps < 400; ++steps) {
                QElapsedTimer one;
                one.start();
                monkey.step();
                stepsTaken.write(QStringLiteral("%1 %2\n").arg(steps).arg(monkey.last()).toUtf8());
                if (one.elapsed() > 5000)
                    qWarning("step %d took %lld ms: %s", steps, one.elapsed(), qPrintable(monkey.last()));
            }
            d.settle();
        }
        std::printf("seed %d: %d steps\n", seed, steps);
        qInstallMessageHandler(before);
        QCOMPARE(troubles(), QStringList());
        QDirIterator books(dir.path(), {"*.rollcall"}, QDir::Files);
        int looked = 0;
        while (books.hasNext()) {
            const QString path = books.next();
            const auto book = Logbook::open(path, Logbook::Access::read);
            if (!book) continue; // the monkey's own scribbling
            const auto problems = (*book)->check();
            QVERIFY(problems.ok());
            dir.setAutoRemove(problems->empty()); // else for whoever looks for why
            QVERIFY2(problems->empty(),
                     problems->empty() ? "" : (path.toStdString() + ": " + problems->front()).c_str());
            ++looked;
        }
        QVERIFY(looked > 0);
    }
};

QTEST_MAIN(tst_Monkey)
#include "tst_monkey.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/ledger.h"

#include <QDBusArgument>
#include <QDBusConnection>
#include <QDBusInterface>
#include <QDBusReply>
#include <QThread>
#include <QtTest>

using namespace rollcall;
using fixtures::WindowDriver;

namespace {

// What a screen reader is told of one thing over the bus. Roles and states by the numbers of AT-SPI.
struct Heard {
    QString service;
    QString path;
    QString name;
    uint role = 0;
    quint64 states = 0;
    int actions = 0;

    bool is(int state) const { return (states >> state) & 1; }
};
constexpr int focusable = 11;
constexpr int showing = 25;
constexpr uint button = 43;
const std::map<uint, const char*> workedWith{{button, "push button"}, {7, "check box"}, {11, "combo box"},
                                             {32, "list item"},       {37, "page tab"}, {51, "slider"},
                                             {56, "table cell"},      {61, "text"},     {62, "toggle button"},
                                             {79, "entry"},           {35, "menu item"}};

// The bus as a screen reader sees it. It asks from a thread of its own: the answers come from the window's.
class Reader {
public:
    Reader() : m_bus(QDBusConnection::connectToBus(address(), QStringLiteral("screen-reader"))) {
        if (!m_bus.isConnected()) qFatal("no accessibility bus");
    }
    ~Reader() { QDBusConnection::disconnectFromBus(QStringLiteral("screen-reader")); }

    /// Everything of the program, from its root on.
    std::vector<Heard> all() {
        std::vector<Heard> told;
        for (const auto& [service, path] : children("org.a11y.atspi.Registry", "/org/a11y/atspi/accessible/root")) {
            if (service != m_bus.baseService()) walk(service, path, 0, told);
        }
        return told;
    }
    bool press(const Heard& what) {
        QDBusInterface action(what.service, what.path, QStringLiteral("org.a11y.atspi.Action"), m_bus);
        const QDBusReply<bool> done = action.call(QStringLiteral("DoAction"), 0);
        return done.isValid() && done.value();
    }

private:
    static QString address() {
        QDBusInterface bus(QStringLiteral("org.a11y.Bus"), QStringLiteral("/org/a11y/bus"),
                           QStringLiteral("org.a11y.Bus"), QDBusConnection::sessionBus());
        return QDBusReply<QString>(bus.call(QStringLiteral("GetAddress"))).value();
    }
    QDBusMessage ask(const QString& service, const QString& path, const char* interface, const char* method,
                     const QVariantList& with = {}) {
        QDBusMessage call =
            QDBusMessage::createMethodCall(service, path, QLatin1String(interface), QLatin1String(method));
        call.setArguments(with);
        return m_bus.call(call, QDBus::Block, 5000);
    }
    QVariant property(const QString& service, const QString& path, const char* interface, const char* name) {
        const QDBusMessage answer = ask(service, path, "org.freedesktop.DBus.Properties", "Get",
                                        {QLatin1String(interface), QLatin1String(name)});
        if (answer.type() != QDBusMessage::ReplyMessage || answer.arguments().isEmpty()) return {};
        return answer.arguments().front().value<QDBusVariant>().variant();
    }
    std::vector<std::pair<QString, QString>> children(const QString& service, const QString& path) {
        std::vector<std::pair<QString, QString>> found;
        const QDBusMessage answer = ask(service, path, "org.a11y.atspi.Accessible", "GetChildren");
        if (answer.type() != QDBusMessage::ReplyMessage || answer.arguments().isEmpty()) return found;
        const auto list = answer.arguments().front().value<QDBusArgument>();
        list.beginArray();
        while (!list.atEnd()) {
            QString owner;
            QDBusObjectPath place;
            list.beginStructure();
            list >> owner >> place;
            list.endStructure();
            found.emplace_back(owner, place.path());
        }
        list.endArray();
        return found;
    }
    void walk(const QString& service, const QString& path, int depth, std::vector<Heard>& told) {
        constexpr int deepest = 24;
        if (depth > deepest || path.endsWith(QLatin1String("/null"))) return;
        Heard one{service, path, property(service, path, "org.a11y.atspi.Accessible", "Name").toString(), 0, 0, 0};
        const QDBusMessage role = ask(service, path, "org.a11y.atspi.Accessible", "GetRole");
        if (!role.arguments().isEmpty()) one.role = role.arguments().front().toUInt();
        const QDBusMessage state = ask(service, path, "org.a11y.atspi.Accessible", "GetState");
        if (!state.arguments().isEmpty()) {
            const auto words = qdbus_cast<QList<uint>>(state.arguments().front());
            one.states = words.value(0) | (quint64(words.value(1)) << 32);
        }
        if (depth > 0 && !one.is(showing)) return; // another page
        if (one.role == button) one.actions = property(service, path, "org.a11y.atspi.Action", "NActions").toInt();
        told.push_back(one);
        for (const auto& [owner, child] : children(service, path)) walk(owner, child, depth + 1, told);
    }

    QDBusConnection m_bus;
};

} // namespace

// The window as a screen reader is told of it, over the accessibility bus of the desktop.
class tst_AccessibilityBus : public QObject {
    Q_OBJECT

    // Does this on the reader's thread while the window's goes on answering.
    template<class T>
    static T asReader(const std::function<T(Reader&)>& what) {
        T answer{};
        QThread* thread = QThread::create([&] {
            Reader reader;
            answer = what(reader);
        });
        QEventLoop answers;
        QObject::connect(thread, &QThread::finished, &answers, &QEventLoop::quit);
        QTimer::singleShot(60000, &answers, [] { qFatal("the bus does not answer"); });
        thread->start();
        answers.exec();
        thread->wait();
        delete thread;
        return answer;
    }
    static std::vector<Heard> told() {
        return asReader<std::vector<Heard>>([](Reader& reader) { return reader.all(); });
    }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    // No control of any page is nameless, each button can be pressed, and what the window shows is what is told.
    void everyPlace() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n653\n654\n");
        QTRY_VERIFY2(told().size() > 20, "the program is not on the bus"); // it takes a moment to get there
        int pages = 0;
        QStringList faults;
        for (const auto& [place, own] : d.window().everyCommand()) {
            if (place.isEmpty()) continue;
            for (int page = 0; page < 8; ++page) {
                if (page > 0 && place == "call-bench") break; // one page for two gates
                d.window().open(place, page > 0 ? page : -1);
                d.settle();
                fixtures::ledgerPage(d);
                const auto* bench = d.window().findChild<Bench*>(place);
                if (page > 0 && bench->pageIndex() != page) break;
                ++pages;
                const QString where = place + QLatin1Char('.') + bench->title();
                QStringList buttons;
                int reachable = 0;
                for (const Heard& one : told()) {
                    const auto worked = workedWith.find(one.role);
                    if (worked == workedWith.end()) continue;
                    if (one.name.trimmed().isEmpty()) faults << where + ": a nameless " + worked->second;
                    if (one.role != button) continue;
                    buttons << one.name;
                    reachable += one.is(focusable) ? 1 : 0;
                    if (one.actions < 1) faults << where + ": " + one.name + " cannot be pressed";
                }
                if (!buttons.contains(d.act())) faults << where + ": " + d.act() + " is not told";
                if (reachable < 5) faults << where + ": only " + QString::number(reachable) + " buttons can be gone to";
            }
        }
        faults.removeDuplicates();
        QVERIFY2(faults.isEmpty(), qPrintable(faults.join('\n')));
        QCOMPARE(pages, 29);
    }

    // What is pressed over the bus happens in the window.
    void aButtonIsPressed() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        QCOMPARE(d.document().gate(), Gate::quench);
        QTRY_VERIFY(told().size() > 20);
        const bool pressed = asReader<bool>([](Reader& reader) {
            for (const Heard& one : reader.all()) {
                if (one.role == button && one.name == "Temper") return reader.press(one);
            }
            return false;
        });
        QVERIFY(pressed);
        QTRY_COMPARE(d.document().gate(), Gate::temper);
    }
};

int main(int argc, char** argv) {
    qputenv("QT_LINUX_ACCESSIBILITY_ALWAYS_ON", "1"); // as where a screen reader runs
    QApplication app(argc, argv);
    tst_AccessibilityBus test;
    return QTest::qExec(&test, argc, argv);
}
#include "tst_accessibility_bus.moc"

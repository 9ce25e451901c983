// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_oven.h"
#include "sim/simulated_scale.h"
#include "sim/simulated_tester.h"
#include "sim/simulated_xrf.h"

#include <cmath>
#include <fcntl.h>
#include <QProcess>
#include <QtTest>
#include <unistd.h>

using namespace rollcall;

// The simulated instrument, looked at from its wire, and the program around it.
class tst_Simulator : public QObject {
    Q_OBJECT

    // Reads what stands on the line now, as a program with its own open end would.
    class Listener {
    public:
        explicit Listener(const QString& path)
            : m_end(::open(path.toLocal8Bit().constData(), O_RDWR | O_NOCTTY | O_NONBLOCK)) {}
        ~Listener() { ::close(m_end); }
        QByteArray hear(int lines) {
            QByteArray heard;
            (void)QTest::qWaitFor(
                [&] {
                    char buffer[4096];
                    const ssize_t got = ::read(m_end, buffer, sizeof buffer);
                    if (got > 0) heard.append(buffer, got);
                    return heard.count('\n') >= lines;
                },
                3000);
            return heard;
        }

    private:
        int m_end;
    };

private slots:
    // It nears its set point, falls when the door is opened, and comes back.
    void theOvenFallsAndRecovers() {
        SimulatedOven oven(1);
        QVERIFY(oven.plug().ok());
        Listener wire(oven.path());
        oven.step_s = 60;
        QVERIFY(oven.command("open").ok());
        QVERIFY(oven.now_c < 760);
        for (int i = 0; i < 20; ++i) QVERIFY(oven.command("tick").ok());
        QVERIFY(std::abs(oven.now_c - 800) < 1);
        QVERIFY(oven.command("set 820").ok());
        QVERIFY(!oven.command("set warm").ok());
        QVERIFY(!oven.command("set 5000").ok());
        QVERIFY(!oven.command("dance").ok());
        QVERIFY(oven.command("broken").ok());
        const QByteArrayList lines = wire.hear(21).split('\n');
        QVERIFY(lines[0].startsWith("T 1 "));
        QCOMPARE(lines[20], QByteArray("T 21 9999.0 C\r"));
    }
    // 90 N are 20.23 lbf, whatever the scale is set to show; let go it shows nothing.
    void theScaleShowsWhatIsPressed() {
        SimulatedScale scale(1);
        QVERIFY(scale.plug().ok());
        Listener wire(scale.path());
        QVERIFY(scale.command("press 90").ok());
        scale.unit = QStringLiteral("lbf");
        QVERIFY(scale.command("tick").ok());
        QVERIFY(!scale.command("press hard").ok());
        QVERIFY(!scale.command("press 5000").ok());
        QVERIFY(scale.command("let go").ok());
        const QByteArrayList lines = wire.hear(3).split('\n');
        QCOMPARE(lines[0], QByteArray("F 1 90.0 N\r"));
        const QByteArrayList words = lines[1].trimmed().split(' ');
        QVERIFY(std::abs(words[2].toDouble() - 20.23) < 0.4); // its noise is 0.3 N
        QCOMPARE(words[3], QByteArray("lbf"));
        QCOMPARE(lines[2], QByteArray("F 3 0.0 lbf\r"));
    }
    void theAnalyserWritesItsShots() {
        QTemporaryDir folder;
        SimulatedXrf xrf(folder.path(), typedShot("Cr 13.4; V 0.001").value(), 2);
        QVERIFY(xrf.command("shoot").ok() && xrf.command("coated").ok());
        QFile first(folder.filePath("shot-001.csv"));
        QVERIFY(first.open(QIODevice::ReadOnly));
        const auto shot = readShot(first.readAll().toStdString()).value();
        QVERIFY(std::abs(shot.elements[0].percent.value() - 13.4) < 0.5);
        QVERIFY(!shot.elements[1].percent); // below detection
        QFile second(folder.filePath("shot-002.csv"));
        QVERIFY(second.open(QIODevice::ReadOnly));
        QVERIFY(second.readAll().contains("Zn"));
        SimulatedXrf nowhere(folder.filePath("none"), typedShot("Cr 1").value(), 1);
        QVERIFY(!nowhere.command("shoot").ok());
    }

    void countsItsReadings() {
        SimulatedTester tester(0.2, 1);
        QVERIFY(tester.plug().ok());
        Listener wire(tester.path());
        QVERIFY(tester.command("read 62.1").ok());
        QVERIFY(tester.command("read 62.1").ok());
        QVERIFY(tester.command("again").ok());
        QCOMPARE(wire.hear(3), QByteArray("R 1 62.1 HRC\r\nR 2 62.1 HRC\r\nR 2 62.1 HRC\r\n"));
        QVERIFY(tester.command("partial 60.0").ok());
        QVERIFY(!wire.hear(1).contains('\n'));
        QVERIFY(tester.command("rest").ok());
        QVERIFY(wire.hear(1).endsWith("HRC\r\n"));
        QVERIFY(!tester.command("dance").ok());
    }

    // 400 readings: mean within 4 standard errors of the truth, scatter as ordered, drift as ordered.
    void scattersAndDriftsAsOrdered() {
        const auto readings = [](double noise, double drift) {
            SimulatedTester tester(noise, 7);
            tester.truth = 60;
            tester.drift = drift;
            if (!tester.plug()) qFatal("no pseudo terminal");
            Listener wire(tester.path());
            QList<double> values;
            for (int i = 0; i < 20; ++i) {
                if (!tester.command("flood 20")) qFatal("no flood");
                for (const QByteArray& line : wire.hear(20).split('\n')) {
                    const QByteArrayList words = line.split(' ');
                    if (words.size() == 4) values << words[2].toDouble();
                }
            }
            return values;
        };
        const QList<double> steady = readings(0.3, 0);
        QCOMPARE(steady.size(), 400);
        double sum = 0, squares = 0;
        for (const double v : steady) sum += v;
        const double mean = sum / 400;
        for (const double v : steady) squares += (v - mean) * (v - mean);
        QVERIFY(std::abs(mean - 60) < 4 * 0.3 / 20);
        QVERIFY(std::abs(std::sqrt(squares / 399) - 0.3) < 0.05);
        const QList<double> drifting = readings(0.05, 0.01);
        QVERIFY(std::abs(drifting.last() - drifting.first() - 3.99) < 0.4);
    }

    void faultsReadAsPromised() {
        SimulatedTester tester(0.0, 1);
        tester.truth = 62;
        QVERIFY(tester.plug().ok());
        Listener wire(tester.path());
        for (const char* fault : {"overshoot", "double"}) QVERIFY(tester.command(fault).ok());
        QCOMPARE(wire.hear(2), QByteArray("R 1 65.0 HRC\r\nR 2 66.0 HRC\r\n"));
        QVERIFY(tester.command("garbage").ok());
        QVERIFY(!wire.hear(1).startsWith("R "));
    }

    void theLinkFollowsThePlug() {
        QTemporaryDir dir;
        SimulatedTester tester(0.2, 1);
        tester.link = dir.filePath("tester");
        QVERIFY(tester.plug().ok());
        QCOMPARE(QFileInfo(tester.link).canonicalFilePath(), tester.path());
        QVERIFY(tester.command("unplug").ok());
        QVERIFY(!QFileInfo::exists(tester.link));
        QVERIFY(tester.command("read").ok()); // nobody is plugged in: nothing happens
        QVERIFY(tester.command("plug").ok());
        QCOMPARE(QFileInfo(tester.link).canonicalFilePath(), tester.path());
    }

    void theProgramTakesCommands() {
        QProcess program;
        program.start(QStringLiteral(ROLLCALL_SIM), {"rebound", "--truth", "55", "--seed", "3"});
        QVERIFY(program.waitForReadyRead(10000));
        const QString path = QString::fromLocal8Bit(program.readLine()).trimmed();
        QVERIFY(QFileInfo::exists(path));
        Listener wire(path);
        program.write("read 61.2\ndance\nread\n");
        const QByteArray heard = wire.hear(2);
        QVERIFY2(heard.startsWith("R 1 61.2 HRC"), heard.constData());
        QVERIFY(heard.contains("R 2 5")); // near 55
        QTRY_VERIFY((program.waitForReadyRead(100), program.bytesAvailable() > 0));
        QVERIFY(program.readAll().contains("ok"));
        program.write("quit\n");
        QVERIFY(program.waitForFinished(10000));
        QCOMPARE(program.exitCode(), 0);
        program.start(QStringLiteral(ROLLCALL_SIM), {"oboe"});
        QVERIFY(program.waitForFinished(10000));
        QCOMPARE(program.exitCode(), 2);
        QVERIFY(program.readAllStandardError().contains("tester, rebound, oven, scale or xrf"));
    }
};

QTEST_GUILESS_MAIN(tst_Simulator)
#include "tst_simulator.moc"

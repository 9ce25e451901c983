// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include <QProcess>
#include <QtTest>

// What the linker has made of the programs, read back from them: how they are loaded, and what they ask of the system.
class tst_Hardened : public QObject {
    Q_OBJECT

    static QString readelf(const QString& what, const QString& program) {
        QProcess process;
        process.start(QStringLiteral("readelf"), {QStringLiteral("-W"), what, program});
        if (!process.waitForFinished(30000) || process.exitCode() != 0) return {};
        return QString::fromUtf8(process.readAllStandardOutput());
    }

private slots:
    void programs_data() {
        QTest::addColumn<QString>("program");
        for (const char* name : {"rollcall", "rollcallctl", "rollcall-sim"})
            QTest::newRow(name) << QStringLiteral(PROGRAMS "/") + QLatin1String(name);
    }
    void programs() {
        QFETCH(QString, program);
        const QString header = readelf("-h", program);
        QVERIFY2(header.contains("DYN (Position-Independent Executable file)"), qPrintable(header));
        const QString segments = readelf("-l", program);
        QVERIFY(segments.contains("GNU_RELRO"));
        const QRegularExpressionMatch stack = QRegularExpression("GNU_STACK.* (R\\S*) +0x").match(segments);
        QCOMPARE(stack.captured(1), QStringLiteral("RW")); // nothing on the stack is run
        QVERIFY(!QRegularExpression("LOAD.* RWE ").match(segments).hasMatch());
        const QString dynamic = readelf("-d", program);
        QVERIFY2(dynamic.contains("BIND_NOW") || dynamic.contains(" NOW"), qPrintable(dynamic));
        const QString symbols = readelf("--dyn-syms", program);
        QVERIFY(symbols.contains("__stack_chk_fail"));
        // Nothing of ours opens a line to a network or runs another program.
        for (const char* call : {"socket", "connect", "bind", "listen", "getaddrinfo", "execve", "execv", "execvp",
                                 "system", "popen", "fork", "vfork", "posix_spawn", "posix_spawnp", "dlopen"})
            QVERIFY2(!QRegularExpression(QStringLiteral(" %1(@|$)").arg(QLatin1String(call)),
                                         QRegularExpression::MultilineOption)
                          .match(symbols)
                          .hasMatch(),
                     call);
        for (const char* library : {"Network", "curl", "ssl"})
            QVERIFY2(!dynamic.contains(QLatin1String(library)), library);
        QVERIFY(!symbols.contains("QProcess") && !symbols.contains("QNetwork") && !symbols.contains("QTcpSocket"));
    }
};

QTEST_GUILESS_MAIN(tst_Hardened)
#include "tst_hardened.moc"

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/imports.h"

#include <fcntl.h>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QProcess>
#include <QStandardPaths>
#include <QTextStream>
#include <stdexcept>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>
#include <vector>

namespace rollcall::bench {

namespace {

struct Cost {
    double seconds = 0;
    double memory_mb = 0;
};

// Runs a program to its end; what the system says of it alone.
Cost costOf(const QString& program, const QStringList& arguments, const QString& output = {}) {
    std::vector<QByteArray> words{program.toLocal8Bit()};
    for (const QString& one : arguments) words.push_back(one.toLocal8Bit());
    std::vector<char*> pointers;
    for (QByteArray& word : words) pointers.push_back(word.data());
    pointers.push_back(nullptr);
    const QByteArray to = output.isEmpty() ? QByteArray("/dev/null") : output.toLocal8Bit();
    QElapsedTimer clock;
    clock.start();
    const pid_t child = fork();
    if (child == 0) {
        const int out = open(to.constData(), O_WRONLY | O_CREAT | O_TRUNC, 0600);
        dup2(out, STDOUT_FILENO);
        execv(pointers[0], pointers.data());
        _exit(127);
    }
    int status = 0;
    rusage usage{};
    if (child < 0 || wait4(child, &status, 0, &usage) != child || !WIFEXITED(status) || WEXITSTATUS(status) != 0)
        throw std::runtime_error(program.toStdString() + " failed");
    return {static_cast<double>(clock.nsecsElapsed()) / 1e9, static_cast<double>(usage.ru_maxrss) / 1024};
}

// Ten blades of a batch, each read five times at Quench and five times after its second temper.
void writeTable(const QString& path, int lines) {
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly)) throw std::runtime_error("the table was not written");
    QTextStream out(&file);
    out << "batch,blade,gate,value,time,tester,x_mm,y_mm,cycle,temperature_c,hours,grade,window_low,window_high\n";
    const QDateTime begun = QDateTime::fromString(QStringLiteral("2024-01-02T08:00:00Z"), Qt::ISODate);
    for (int i = 0; i < lines; ++i) {
        const int batch = i / 100 + 1;
        const bool quench = i % 10 < 5;
        out << "Hedge " << batch << ",H" << batch << '-' << i / 10 % 10 + 1 << (quench ? ",quench," : ",temper,")
            << (quench ? 642 + i * 7 % 9 : 612 + i * 5 % 9) / 10.0 << ','
            << begun.addSecs(17LL * i).toString(Qt::ISODate) << ",Bench 1," << 10 + 7 * (i % 5)
            << (quench ? ",3,,,," : ",6,2,205,2,") << "115CrV3,61,63\n";
    }
}

} // namespace

Imported imported(const QString& folder, int lines) {
    const QString table = QStringLiteral("%1/%2.csv").arg(folder).arg(lines);
    const QString book = QStringLiteral("%1/%2.rollcall").arg(folder).arg(lines);
    const QString program = QStringLiteral(ROLLCALLCTL);
    writeTable(table, lines);
    QFile::remove(book);
    costOf(program, {QStringLiteral("new"), book});
    Imported cost;
    cost.lines = lines;
    const Cost taken = costOf(program, {QStringLiteral("import"), book, QStringLiteral("--csv"), table});
    cost.seconds = taken.seconds;
    cost.memory_mb = taken.memory_mb;
    cost.bytes = static_cast<double>(QFileInfo(book).size()) / lines;
    const Cost checked = costOf(program, {QStringLiteral("check"), book});
    cost.checked_s = checked.seconds;
    cost.checked_mb = checked.memory_mb;
    const QString shell = QStandardPaths::findExecutable(QStringLiteral("sqlite3"));
    if (shell.isEmpty()) return cost;
    // The same rows into the same tables and indexes. The shell puts an empty text where nothing stands, so that the
    // tables' own conditions cannot hold there.
    const QString plain = folder + QStringLiteral("/plain.db");
    const QString answer = folder + QStringLiteral("/answer.txt");
    const auto asked = [&](const QString& sql) {
        costOf(shell, {book, sql}, answer);
        QFile file(answer);
        if (!file.open(QIODevice::ReadOnly)) throw std::runtime_error("what the shell said cannot be read");
        return QString::fromUtf8(file.readAll());
    };
    QFile::remove(plain);
    costOf(shell, {plain, asked(QStringLiteral("SELECT sql || ';' FROM sqlite_schema WHERE type IN ('table', 'index') "
                                               "AND sql IS NOT NULL ORDER BY type DESC"))});
    QStringList imports{plain, QStringLiteral("PRAGMA ignore_check_constraints=ON")};
    QStringList made{table, book, plain, answer};
    // The entry of the change log and the file itself are one row each.
    for (const QString& name :
         asked(QStringLiteral("SELECT name FROM sqlite_schema WHERE type='table' AND name NOT IN ('change', "
                              "'attachment_blob')"))
             .split(QLatin1Char('\n'), Qt::SkipEmptyParts)) {
        const QString rows = QStringLiteral("%1/%2.rows").arg(folder, name);
        costOf(shell, {QStringLiteral("-csv"), book, QStringLiteral("SELECT * FROM ") + name}, rows);
        made << rows;
        if (QFileInfo(rows).size() > 0) imports << QStringLiteral(".import --csv %1 %2").arg(rows, name);
    }
    cost.shell_s = costOf(shell, imports).seconds;
    for (const QString& path : made) QFile::remove(path);
    return cost;
}

} // namespace rollcall::bench

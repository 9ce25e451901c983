// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"

#include "cli/commands.h"

#include <algorithm>
#include <array>
#include <QJsonArray>
#include <QJsonDocument>

namespace rollcall::cli {

namespace {

struct Command {
    const char* name;
    Result<QJsonObject> (*run)(const Options&, const Tables&);
    int plainWords;
    const char* options; ///< separated by blanks; those ending in '=' or '*' take a value
};

constexpr std::array<Command, 36> commands{{
    {"rockwell", rockwell, 0, "scale= depth="},
    {"convert", convert, 0, "from= value= to="},
    {"indent", indent, 0, "scale= value= thickness="},
    {"verify", verify, 0, "scale= block= block-uncertainty= readings= seating="},
    {"judge", judge, 0,
     "readings= window= min= rule= allowance= tester= resolution= pooled-sd= pooled-dof= block-uncertainty= bias= "
     "block-n= uncorrected"},
    {"spots", spots, 0, "length= height= thickness= n= value= scale= existing= edge-line="},
    {"files", files, 0, "skates= bites= touches="},
    {"compare", compare, 0, "a= b="},
    {"temper", temper, 0, "grade= cycle* next= target= hours= oven-step= branch= despite-embrittlement"},
    {"trace", trace, 1, "threshold= from= to= reference= ac1= thickness= surface="},
    {"colour", colour, 0, "temper= hours= grade="},
    {"warp", warp, 0, "blades="},
    {"steel", steel, 1, "claimed= method= sigmas="},
    {"edge", edge, 0, "hrc= angle-per-side= behind-edge= force= raise= contact="},
    {"bend", bend, 0, "thickness= free-length= angle= lever="},
    {"grain", grain, 0, "line* crossings*"},
    {"sample", sample, 0, "readings= window= untested= blade-u= common-u="},
    {"new", newLogbook, 1, ""},
    {"info", info, 1, ""},
    {"check", check, 1, "head="},
    {"backup", backup, 2, ""},
    {"keep", keepACopy, 2, ""},
    {"salvage", salvageLogbook, 2, ""},
    {"import", importCsv, 1, "csv= trace= batch= set= oven="},
    {"find", find, 2, "most="},
    {"ledger", ledger, 2,
     "grade= factor= response= series= summed by= low-by= high-by= error-by= temper-by= rule= study= csv= svg= pdf= "
     "letter shop="},
    {"list", list, 1, ""},
    {"show", show, 2, ""},
    {"ladder", ladder, 3, ""},
    {"log", log, 2, "each"},
    {"export", exportTo, 2, "without-names"},
    {"merge", merge, 2, "trial"},
    {"import-package", importPackageInto, 2, ""},
    {"report", report, 2, "pdf= csv= xlsx= svg= card= pile= pieces= letter shop= released-only"},
    {"rules", rules, 0, ""},
    {"demo", demo, 1, "seed= today= scale="},
}};

// What a command takes, from the table that reads it; of log also its acts and their fields.
QByteArray helpOf(const Command& command) {
    QJsonArray options;
    for (const QString& option : QString::fromLatin1(command.options).split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        const bool many = option.endsWith(QLatin1Char('*'));
        const bool value = many || option.endsWith(QLatin1Char('='));
        const QString name = value ? option.chopped(1) : option;
        options.append(QStringLiteral("--%1%2%3")
                           .arg(name, value ? QStringLiteral(" VALUE") : QString(),
                                many ? QStringLiteral(", many times") : QString()));
    }
    QJsonObject help{{"command", command.name}, {"words", command.plainWords}, {"options", options}};
    if (std::string_view(command.name) == "log") {
        const QJsonObject acts = logHelp();
        for (auto one = acts.begin(); one != acts.end(); ++one) help[one.key()] = one.value();
    }
    return QJsonDocument(help).toJson(QJsonDocument::Indented);
}

Answer failed(const Error& error) {
    const bool machine = error.kind == ErrorKind::exists || error.kind == ErrorKind::locked ||
                         error.kind == ErrorKind::disk || error.kind == ErrorKind::damaged ||
                         error.kind == ErrorKind::refused || error.kind == ErrorKind::table;
    QByteArray line = QByteArray("rollcallctl: ") + QByteArray::fromStdString(error.message());
    line.replace('\n', ' ');
    return {machine ? 1 : 2, {}, line + '\n'};
}

} // namespace

Answer run(const QStringList& arguments, const QString& tablesFolder) {
    const QString name = arguments.value(0);
    const auto command =
        std::find_if(commands.begin(), commands.end(), [&](const Command& c) { return name == QLatin1String(c.name); });
    if (command == commands.end()) {
        QStringList names;
        for (const Command& c : commands) names << QLatin1String(c.name);
        return failed({ErrorKind::argument, name.toStdString(),
                       "the commands are " + names.join(QStringLiteral(", ")).toStdString()});
    }
    if (arguments.contains(QStringLiteral("--help"))) return {0, helpOf(*command), {}};
    const QStringList known = QString::fromLatin1(command->options).split(QLatin1Char(' '), Qt::SkipEmptyParts)
                              << QStringLiteral("pretty") << QStringLiteral("explain");
    const Result<Options> options = Options::parse(arguments.mid(1), known, command->plainWords);
    if (!options) return failed(options.error());
    const Result<Tables> tables = Tables::load(tablesFolder.toStdString());
    if (!tables) return failed(tables.error());
    const Result<QJsonObject> answer = command->run(*options, *tables);
    if (!answer) return failed(answer.error());
    const auto format = options->has("pretty") ? QJsonDocument::Indented : QJsonDocument::Compact;
    return {0, QJsonDocument(*answer).toJson(format).trimmed() + '\n', {}};
}

} // namespace rollcall::cli

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/steel/composition.h"

#include <QFile>
#include <QJsonArray>

// What a composition says of a claimed grade.
namespace rollcall::cli {

namespace {

QString claimText(Claim claim) {
    return claim == Claim::consistent    ? QStringLiteral("consistent")
           : claim == Claim::undecidable ? QStringLiteral("undecidable")
                                         : QStringLiteral("not_consistent");
}

} // namespace

Result<QJsonObject> steel(const Options& options, const Tables& tables) {
    const std::string path = options.word(0).toStdString();
    QFile file(options.word(0));
    if (!file.open(QIODevice::ReadOnly)) return Error{ErrorKind::input, path, "this file cannot be read"};
    const std::string method = options.text("method", "xrf");
    if (method != "xrf" && method != "oes") return Error{ErrorKind::argument, "--method", "the method is xrf or oes"};
    const AnalysisMethod by = method == "xrf" ? AnalysisMethod::xrf : AnalysisMethod::oes;
    const Result<double> sigmas = options.number("sigmas", 1);
    if (!sigmas) return sigmas.error();
    const QByteArray bytes = file.readAll();
    const auto shot = readShot(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())), *sigmas);
    if (!shot)
        return Error{shot.error().kind, path + (shot.error().place.empty() ? "" : " " + shot.error().place),
                     shot.error().text};
    const auto means = averageShots({*shot}, tables, by);
    if (!means) return means.error();
    const auto ranked = rankGrades(*means, tables.grades(), tables, by);
    if (!ranked) return Error{ErrorKind::input, path, ranked.error().text};
    QJsonObject answer{{"claim", QJsonValue()}, {"worst_element", QJsonValue()}};
    QJsonArray unseen;
    if (options.has("claimed")) {
        const Grade* grade = tables.grade(options.text("claimed"));
        if (grade == nullptr)
            return Error{ErrorKind::argument, "--claimed",
                         "there is no grade '" + options.text("claimed") + "' in the library"};
        const auto match = matchGrade(*means, *grade, tables, by);
        if (!match) return match.error();
        answer["claim"] = claimText(match->claim);
        const ElementMatch& worst = match->elements.front();
        answer["worst_element"] =
            QJsonObject{{"element", q(worst.element)},
                        {"measured", worst.reading.percent ? QJsonValue(*worst.reading.percent) : QJsonValue()},
                        {"required_min", worst.low},
                        {"required_max", worst.high ? QJsonValue(*worst.high) : QJsonValue()},
                        {"z", worst.z}};
        for (const std::string& element : match->unseen) unseen.append(q(element));
    } else {
        for (const char* element : {"C", "N"}) {
            if (!tables.canSee(by, element)) unseen.append(QLatin1String(element));
        }
    }
    QJsonArray candidates;
    for (const GradeCandidate& candidate : *ranked)
        candidates.append(QJsonObject{{"grade", q(candidate.grade->name)},
                                      {"score", candidate.score},
                                      {"cannot_be_told_apart", candidate.cannot_be_told_apart},
                                      {"claim", claimText(candidate.claim)}});
    QJsonArray skipped;
    for (const auto& line : shot->skipped) skipped.append(QJsonObject{{"line", line.line}, {"reason", q(line.reason)}});
    answer["candidates"] = candidates;
    answer["unseen_elements"] = unseen;
    answer["skipped"] = skipped;
    explain(options, answer,
            {QStringLiteral(
                 "z = distance outside / sqrt(e^2 + (0.03 limit)^2); 3 is not consistent, 2 to 3 undecidable (M26)"),
             QStringLiteral("candidates by likelihood over the same elements; within a factor of 20 they cannot be "
                            "told apart (M26)")});
    return answer;
}

} // namespace rollcall::cli

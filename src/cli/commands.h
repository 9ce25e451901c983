// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/options.h"
#include "core/base/tables.h"
#include "core/judge/verdict.h"

#include <optional>
#include <QJsonObject>

namespace rollcall::cli {

// Each command turns its options into one JSON object; rollcallctl.md of the product names the keys.
Result<QJsonObject> rockwell(const Options& options, const Tables& tables);
Result<QJsonObject> convert(const Options& options, const Tables& tables);
Result<QJsonObject> indent(const Options& options, const Tables& tables);
Result<QJsonObject> verify(const Options& options, const Tables& tables);
Result<QJsonObject> judge(const Options& options, const Tables& tables);
Result<QJsonObject> spots(const Options& options, const Tables& tables);
Result<QJsonObject> files(const Options& options, const Tables& tables);
Result<QJsonObject> compare(const Options& options, const Tables& tables);
Result<QJsonObject> temper(const Options& options, const Tables& tables);
Result<QJsonObject> trace(const Options& options, const Tables& tables);
Result<QJsonObject> colour(const Options& options, const Tables& tables);
Result<QJsonObject> steel(const Options& options, const Tables& tables);
Result<QJsonObject> warp(const Options& options, const Tables& tables);
Result<QJsonObject> edge(const Options& options, const Tables& tables);
Result<QJsonObject> bend(const Options& options, const Tables& tables);
Result<QJsonObject> grain(const Options& options, const Tables& tables);
Result<QJsonObject> sample(const Options& options, const Tables& tables);
Result<QJsonObject> newLogbook(const Options& options, const Tables& tables);
Result<QJsonObject> info(const Options& options, const Tables& tables);
Result<QJsonObject> check(const Options& options, const Tables& tables);
Result<QJsonObject> backup(const Options& options, const Tables& tables);
Result<QJsonObject> keepACopy(const Options& options, const Tables& tables);
Result<QJsonObject> salvageLogbook(const Options& options, const Tables& tables);
Result<QJsonObject> importCsv(const Options& options, const Tables& tables);
Result<QJsonObject> find(const Options& options, const Tables& tables);
Result<QJsonObject> ledger(const Options& options, const Tables& tables);
Result<QJsonObject> list(const Options& options, const Tables& tables);
Result<QJsonObject> show(const Options& options, const Tables& tables);
Result<QJsonObject> exportTo(const Options& options, const Tables& tables);
Result<QJsonObject> merge(const Options& options, const Tables& tables);
Result<QJsonObject> importPackageInto(const Options& options, const Tables& tables);
Result<QJsonObject> report(const Options& options, const Tables& tables);
Result<QJsonObject> log(const Options& options, const Tables& tables);
Result<QJsonObject> ladder(const Options& options, const Tables& tables);
Result<QJsonObject> rules(const Options& options, const Tables& tables);
Result<QJsonObject> demo(const Options& options, const Tables& tables);

/// A reason as text with its rule, as it stands in answers: "Soft by 2.0: 59.0 ± 0.6 (M15)".
/// The acts and fields that `log` knows, from the table that reads them.
QJsonObject logHelp();

/// "good", "caution".
const char* toneName(Tone tone);

QString reasonText(const Reason& reason);

/// Adds the derivation to an answer when --explain was given.
void explain(const Options& options, QJsonObject& answer, const QStringList& derivation);

inline QJsonValue orNull(const std::optional<double>& value) {
    return value ? QJsonValue(*value) : QJsonValue();
}
inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}

} // namespace rollcall::cli

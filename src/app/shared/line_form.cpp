// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/line_form.h"

#include "app/shared/form_dialog.h"
#include "plot/translate.h"
#include "words/data_folder.h"

namespace rollcall {

namespace {} // namespace

Result<Done> askLine(const QString& title, const QString& presetsFile, const LineSetup& now, const Look& look,
                     QWidget* parent, std::function<void(const LineSetup&)> done) {
    const auto presets = readLinePresets(dataFolder() + QStringLiteral("/devices/") + presetsFile);
    if (!presets) return presets.error();
    const QString own = tr("as typed below");
    QStringList names;
    QString chosen = now.pattern.isEmpty() ? presets->front().name : own;
    for (const LinePreset& preset : *presets) {
        names << preset.name;
        if (preset.pattern == now.pattern) chosen = preset.name;
    }
    names << own;
    auto* form =
        new FormDialog(title, tr("Connect"),
                       {{"port", tr("Port"), tr("like /dev/ttyUSB0; blank: on no wire"), now.port, {}, false},
                        {"form", tr("Its lines"), tr("what a line looks like"), chosen, namedChoices(names), false},
                        {"pattern", tr("Pattern"), tr("with (?<value>...)"), now.pattern, {}, false},
                        {"baud", tr("Speed"), tr("baud"), QString::number(now.baud), {}, false}},
                       look, parent);
    const auto patternOf = [presets = *presets](const FormValues& v) {
        for (const LinePreset& preset : presets) {
            if (preset.name == v["form"]) return preset.pattern;
        }
        return v["pattern"];
    };
    form->ask(
        [patternOf](const FormValues& v) -> FormFault {
            if (v["port"].isEmpty()) return {};
            if (v["baud"].toInt() <= 0) return {QStringLiteral("baud"), tr("Type the speed, such as 9600.")};
            const auto pattern = LinePattern::fromText(patternOf(v));
            return pattern ? FormFault{}
                           : FormFault{QStringLiteral("pattern"), QString::fromStdString(pattern.error().text)};
        },
        [done = std::move(done), patternOf](const FormValues& v) {
            done(v["port"].isEmpty() ? LineSetup{} : LineSetup{v["port"], v["baud"].toInt(), patternOf(v)});
        });
    return Done{};
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_form.h"

#include "app/heat/soak_page.h"

namespace rollcall {

QString shown(const std::optional<double>& value) {
    return value ? fieldNumber(*value) : QString();
}

std::optional<double> typed(const FormValues& v, const char* field, Quantity quantity) {
    const auto value = words::typed(v[QLatin1String(field)], quantity);
    return value ? std::optional(*value) : std::nullopt;
}

FormFault faultIn(const FormValues& v, const char* field, double low, double high, const QString& sentence) {
    const QString text = v[QLatin1String(field)];
    if (text.isEmpty()) return {};
    const auto value = parseNumber(text.toStdString());
    return value && *value >= low && *value <= high ? FormFault{} : FormFault{QLatin1String(field), sentence};
}

HeatDraft usualHeat(const Batch& batch, const Grade* grade) {
    HeatDraft heat;
    heat.batch = batch.id;
    const RecipeStage* soak = batch.recipe ? batch.recipe->stage(StageKind::austenitise) : nullptr;
    const RecipeStage* quench = batch.recipe ? batch.recipe->stage(StageKind::quench) : nullptr;
    if (grade != nullptr) {
        heat.set_c = grade->austenitise_typical_c;
        heat.min_minutes = grade->soak_minutes.low;
        heat.max_minutes = grade->soak_minutes.high;
        heat.medium = grade->quench_class;
    }
    if (soak != nullptr) {
        heat.set_c = soak->temperature_c;
        heat.near_c = soak->tolerance_c;
        heat.min_minutes = soak->minutes;
        heat.max_minutes = soak->max_minutes;
    }
    if (quench != nullptr) {
        heat.medium = quench->cooling;
        heat.medium_c = quench->temperature_c;
        heat.medium_tolerance_c = quench->tolerance_c;
    }
    return heat;
}

std::vector<FormField> heatFields(const HeatDraft& usual, const Shop& shop) {
    QStringList ovens;
    for (const Oven& oven : shop.ovens) ovens << QString::fromStdString(oven.name);
    if (ovens.isEmpty()) ovens << SoakPage::tr("Oven 1");
    return {{"oven", SoakPage::tr("Oven"), SoakPage::tr("choose, or type a new one"), ovens.first(),
             namedChoices(ovens), true},
            {"set",
             SoakPage::tr("Set point"),
             words::degreesHint(800),
             usual.set_c > 0 ? words::field(usual.set_c, Quantity::temperature) : QString(),
             {},
             false},
            {"least",
             SoakPage::tr("Shortest soak"),
             SoakPage::tr("minutes at temperature; blank: no limit"),
             shown(usual.min_minutes),
             {},
             false},
            {"most",
             SoakPage::tr("Longest soak"),
             SoakPage::tr("minutes; blank: no limit"),
             shown(usual.max_minutes),
             {},
             false}};
}

FormFault heatFault(const FormValues& v) {
    if (v["oven"].isEmpty()) return {QStringLiteral("oven"), SoakPage::tr("Give the oven a name.")};
    const auto c = typed(v, "set", Quantity::temperature);
    if (!c || *c < 100 || *c > 1400)
        return {QStringLiteral("set"),
                SoakPage::tr("Type the set point, %1 to %2.").arg(words::degreesNumber(100), words::degrees(1400))};
    for (const char* field : {"least", "most"}) {
        const FormFault fault = faultIn(v, field, 0, 600, SoakPage::tr("Type minutes, or leave it blank."));
        if (!fault.field.isEmpty()) return fault;
    }
    const auto least = parseNumber(v["least"].toStdString());
    const auto most = parseNumber(v["most"].toStdString());
    if (least && most && *least > *most)
        return {QStringLiteral("most"), SoakPage::tr("The longest soak is shorter than the shortest.")};
    return {};
}

HeatDraft heatTyped(HeatDraft heat, const FormValues& v) {
    heat.set_c = *typed(v, "set", Quantity::temperature);
    heat.as_entered = words::asEntered(v["set"], Quantity::temperature);
    const auto least = parseNumber(v["least"].toStdString());
    const auto most = parseNumber(v["most"].toStdString());
    heat.min_minutes = least ? std::optional(*least) : std::nullopt;
    heat.max_minutes = most ? std::optional(*most) : std::nullopt;
    return heat;
}

} // namespace rollcall

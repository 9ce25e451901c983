// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/units.h"

#include <cmath>
#include <QCoreApplication>

namespace rollcall::words {

namespace {

Units shopUnits = Units::metric;

Units other() {
    return shopUnits == Units::metric ? Units::inch : Units::metric;
}

QString withMinus(QString text) {
    return text.replace(QLatin1Char('-'), QChar(0x2212));
}

} // namespace

Units units() {
    return shopUnits;
}

void setUnits(Units units) {
    shopUnits = units;
}

QString unit(Quantity quantity) {
    return QString::fromUtf8(symbolOf(quantity, shopUnits));
}

QString lengthNumber(double mm, int decimals) {
    return withMinus(QString::fromStdString(lengthText(mm, decimals, shopUnits)));
}

QString length(double mm, int decimals) {
    return lengthNumber(mm, decimals) + QChar(0xA0) + unit(Quantity::length);
}

QString degreesNumber(double celsius) {
    return withMinus(QString::number(std::lround(inUnits(celsius, Quantity::temperature, shopUnits))));
}

QString degrees(double celsius) {
    return degreesNumber(celsius) + QChar(0xA0) + unit(Quantity::temperature);
}

QString degreesApart(double celsius) {
    return QString::number(std::lround(differenceInUnits(celsius, Quantity::temperature, shopUnits))) + QChar(0xA0) +
           unit(Quantity::temperature);
}

QString field(const std::optional<double>& value, Quantity quantity) {
    if (!value) return {};
    if (shopUnits == Units::metric) return QString::number(*value, 'g', 6);
    const double shown = inUnits(*value, quantity, shopUnits);
    const double steps = quantity == Quantity::length ? 1e4 : 10;
    return QString::number(std::round(shown * steps) / steps, 'g', 6);
}

Result<double> typed(const QString& text, Quantity quantity) {
    return parseQuantity(text.toStdString(), quantity, shopUnits);
}

QString fieldApart(double celsius) {
    return QString::number(differenceInUnits(celsius, Quantity::temperature, shopUnits), 'g', 6);
}

Result<double> typedApart(const QString& text) {
    const Result<double> shown = parseNumber(text.toStdString());
    if (!shown) return shown;
    return *shown / differenceInUnits(1, Quantity::temperature, shopUnits);
}

std::string asEntered(const QString& text, Quantity quantity) {
    const QString named =
        text.trimmed() + (quantity == Quantity::length ? QStringLiteral(" in") : QStringLiteral(" F"));
    const bool bare = shopUnits == Units::inch && parseQuantity(named.toStdString(), quantity).ok();
    return (bare ? named : text).toStdString();
}

QString degreesHint(double usual_c) {
    return QCoreApplication::translate("words", "%1, or %2%3")
        .arg(unit(Quantity::temperature))
        .arg(std::lround(inUnits(usual_c, Quantity::temperature, other())))
        .arg(other() == Units::inch ? QLatin1Char('F') : QLatin1Char('C'));
}

QString lengthHint(double usual_mm) {
    return QCoreApplication::translate("words", "%1, or %2%3")
        .arg(length(usual_mm, 2))
        .arg(QString::number(inUnits(usual_mm, Quantity::length, other()), 'g', 2))
        .arg(QString::fromUtf8(symbolOf(Quantity::length, other())));
}

} // namespace rollcall::words

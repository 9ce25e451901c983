// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/ready_row.h"

#include "logbook/ranges.h"

#include <algorithm>
#include <QStringList>

namespace rollcall {

namespace {

bool mustNotBeStored(QChar c) {
    return c.unicode() >= 0xFFFE || c.isNull();
}

bool isStorable(const QVariant& value) {
    if (value.typeId() != QMetaType::QString) return true;
    const QString& text = *static_cast<const QString*>(value.constData());
    return std::none_of(text.begin(), text.end(), [](QChar c) { return c.isSurrogate() || mustNotBeStored(c); });
}

} // namespace

ReadyRow::Value readyOf(const QVariant& value) {
    if (value.isNull()) return std::monostate();
    switch (value.typeId()) {
    case QMetaType::Bool:
    case QMetaType::Int:
    case QMetaType::UInt:
    case QMetaType::Long:
    case QMetaType::LongLong:
        return value.toLongLong();
    case QMetaType::Double:
        return value.toDouble();
    case QMetaType::QByteArray:
        return value.toByteArray();
    case QMetaType::QString:
        return ReadyRow::Text{static_cast<const QString*>(value.constData())->toUtf8()};
    default:
        return ReadyRow::Text{value.toString().toUtf8()};
    }
}

// The change log is proved over JSON, which has no place for some of what a text can hold: half a pair of surrogates,
// what Unicode keeps from being a character, and a null, after which SQLite would end it.
QVariant storable(const QVariant& value) {
    if (isStorable(value)) return value;
    QString text = value.toString();
    for (qsizetype i = 0; i < text.size(); ++i) {
        const QChar c = text[i];
        if (c.isHighSurrogate() && i + 1 < text.size() && text[i + 1].isLowSurrogate()) {
            ++i;
        } else if (c.isSurrogate() || mustNotBeStored(c)) {
            text[i] = QChar::ReplacementCharacter;
        }
    }
    return text;
}

std::vector<const StoredRange*> rangesOf(const char* table, const Fields& fields) {
    std::vector<const StoredRange*> ranges;
    for (const auto& field : fields) ranges.push_back(rangeOf(table, field.first));
    return ranges;
}

Result<Done> within(const std::vector<const StoredRange*>& ranges, const Fields& fields) {
    for (std::size_t i = 0; i < fields.size(); ++i) {
        const auto& [column, value] = fields[i];
        const int type = value.typeId();
        if (type == QMetaType::QString) {
            const QString& text = *static_cast<const QString*>(value.constData());
            if (const auto error = tooLong(column, static_cast<std::size_t>(text.size()))) return *error;
            if (const StoredRange* range = ranges[i]; range != nullptr && range->list) {
                const std::string list = text.toStdString();
                if (!numbersIn(*range, list)) return outside(*range, list);
            }
        }
        if (type != QMetaType::Double && type != QMetaType::Int && type != QMetaType::LongLong) continue;
        const StoredRange* range = ranges[i];
        const double number = value.toDouble();
        if (range != nullptr && !(number >= range->least && number <= range->most)) return outside(*range, number);
    }
    return Done{};
}

bool RowShape::fits(const Fields& fields) const {
    const auto same = [](const auto& field, const std::string& column) { return field.first == column; };
    return std::equal(fields.begin(), fields.end(), columns.begin(), columns.end(), same);
}

std::shared_ptr<const RowShape> shapeOf(const char* table, const Fields& fields) {
    auto shape = std::make_shared<RowShape>();
    QStringList columns;
    for (const auto& field : fields) {
        shape->columns.push_back(field.first);
        columns << QLatin1String(field.first);
    }
    const QStringList places(columns.size(), QStringLiteral("?"));
    shape->table = table;
    shape->sql = QStringLiteral("INSERT INTO %1 (%2) VALUES (%3)")
                     .arg(QLatin1String(table), columns.join(QLatin1Char(',')), places.join(QLatin1Char(',')));
    shape->ranges = rangesOf(table, fields);
    return shape;
}

Result<ReadyRow> ReadyRow::of(std::shared_ptr<const RowShape> shape, const Fields& fields) {
    if (auto may = within(shape->ranges, fields); !may) return may.error();
    std::vector<Value> values;
    values.reserve(fields.size());
    for (const auto& field : fields) values.push_back(readyOf(storable(field.second)));
    return ReadyRow(std::move(shape), std::move(values));
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <memory>
#include <QByteArray>
#include <QString>
#include <QVariant>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace rollcall {

struct StoredRange;

using Fields = std::vector<std::pair<const char*, QVariant>>;

/// What all rows of the same fields share: the statement that inserts them, and what their values may be.
struct RowShape {
    std::string table;
    std::vector<std::string> columns;
    QString sql;
    std::vector<const StoredRange*> ranges; ///< of its columns; null where any number may stand

    bool fits(const Fields& fields) const;
};

std::shared_ptr<const RowShape> shapeOf(const char* table, const Fields& fields);

/// A row as it is inserted, looked through and in the form that is stored. Needs no logbook: made on any thread.
class ReadyRow {
public:
    /// A text in UTF-8; bytes.
    struct Text {
        QByteArray utf8;
    };
    using Value = std::variant<std::monostate, qint64, double, Text, QByteArray>;

    /// The fields are those of the shape, in its order. Errors (range): a number lies outside what its column takes, a
    /// text is too long.
    static Result<ReadyRow> of(std::shared_ptr<const RowShape> shape, const Fields& fields);

    const RowShape& shape() const { return *m_shape; }
    const std::vector<Value>& values() const { return m_values; }
    /// Its first field, which is the id where it has one.
    void setId(const QString& id) { m_values.front() = Text{id.toUtf8()}; }

private:
    ReadyRow(std::shared_ptr<const RowShape> shape, std::vector<Value> values)
        : m_shape(std::move(shape)), m_values(std::move(values)) {}

    std::shared_ptr<const RowShape> m_shape;
    std::vector<Value> m_values;
};

ReadyRow::Value readyOf(const QVariant& value);

/// What of new values for a row may not be. Errors: as ReadyRow::of().
Result<Done> within(const std::vector<const StoredRange*>& ranges, const Fields& fields);
std::vector<const StoredRange*> rangesOf(const char* table, const Fields& fields);

/// A value as it is stored: of a text, what cannot be proved (a null, half a surrogate pair, U+FFFE and U+FFFF) becomes
/// U+FFFD. Every text comes in through it.
QVariant storable(const QVariant& value);

} // namespace rollcall

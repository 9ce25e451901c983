// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/accessible.h"

#include "app/shared/paged_bench.h"

#include <QAccessibleWidget>

namespace rollcall {

namespace {

std::function<void(const QString&)> listening;

constexpr const char* roleProperty = "accessible-role";

// A table as it is read aloud: a line a row, each value behind its heading; what is not known is left out.
QString told(const ReportTable& table) {
    if (table.rows.empty()) return {};
    const auto value = [](const QVariant& cell) {
        constexpr int digits = 6;
        return cell.typeId() == QMetaType::Double ? QString::number(cell.toDouble(), 'g', digits) : cell.toString();
    };
    QStringList lines{table.title};
    for (const QVariantList& row : table.rows) {
        QStringList cells;
        for (qsizetype i = 0; i < row.size() && i < table.head.size(); ++i) {
            if (row[i].isValid() && !row[i].toString().isEmpty())
                cells << table.head[i] + QStringLiteral(": ") + value(row[i]);
        }
        lines << cells.join(QStringLiteral(", "));
    }
    return lines.join(QLatin1Char('\n'));
}

// A place: its title, what it says now, and what it shows as a table.
class AccessibleBench : public QAccessibleWidget {
public:
    explicit AccessibleBench(Bench* bench) : QAccessibleWidget(bench, QAccessible::Pane), m_bench(bench) {}

    QString text(QAccessible::Text which) const override {
        if (which == QAccessible::Name) return m_bench->title();
        const bool says = which == QAccessible::Value;
        if (!says && which != QAccessible::Description) return QAccessibleWidget::text(which);
        if (qobject_cast<PagedBench*>(m_bench) != nullptr) return {}; // its page tells
        if (says) return m_bench->accessibleName();
        const std::vector<ReportTable> tables = m_bench->tables();
        return tables.empty() ? QString() : told(tables.front());
    }

private:
    Bench* m_bench;
};

QAccessibleInterface* make(const QString&, QObject* object) {
    if (auto* bench = qobject_cast<Bench*>(object)) return new AccessibleBench(bench);
    auto* widget = qobject_cast<QWidget*>(object);
    if (widget == nullptr) return nullptr;
    const QVariant role = widget->property(roleProperty);
    return role.isValid() ? new QAccessibleWidget(widget, static_cast<QAccessible::Role>(role.toInt())) : nullptr;
}

} // namespace

void setRole(QWidget* widget, QAccessible::Role role) {
    widget->setProperty(roleProperty, static_cast<int>(role));
}

void installAccessibility() {
    static const bool once = [] {
        QAccessible::installFactory(make);
        return true;
    }();
    Q_UNUSED(once);
}

void announce(QWidget* widget, const QString& text) {
    widget->setAccessibleName(text);
    QAccessibleEvent event(widget, QAccessible::Alert);
    QAccessible::updateAccessibility(&event);
    if (listening) listening(text);
}

void listenTo(std::function<void(const QString&)> listener) {
    listening = std::move(listener);
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <QAccessible>
#include <QWidget>

namespace rollcall {

/// What a painted widget is to who cannot see it; without a role it would be a nameless surface.
void setRole(QWidget* widget, QAccessible::Role role);

/// Teaches the screen reader's side of Qt those roles, and that a place is told with its tables. Once, at the start.
void installAccessibility();

/// Says something at once, whatever is being read: what was logged, what the verdict became.
void announce(QWidget* widget, const QString& text);

/// Told of everything that is announced; for tests that listen, where the platform has no screen reader's side. Null in
/// the program.
void listenTo(std::function<void(const QString&)> listener);

} // namespace rollcall

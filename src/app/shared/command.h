// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <QString>
#include <Qt>
#include <vector>

class QKeyEvent;

namespace rollcall {

/// What a letter or sign means, everywhere in the window. A place gives it its own object, N makes a new batch and at
/// Steel a new shot, but never another meaning; what fits no meaning has no letter and is reached by its button.
enum class Verb {
    none,
    add,
    batches,
    compare,
    excuse,
    files,
    geometry,
    harden,
    inAndOut,
    sound,
    kit,
    limits,
    amend,
    makeNew,
    plan,
    series,
    testers,
    same,
    temper,
    undo,
    verify,
    why,
    out,
    ovens,
    zone,
    other,
    strike,
    next,
    previous,
    help
};

/// Where something stands in the menu: what a person has in mind who looks for it.
enum class Group { here, blade, batch, shop, inAndOut, look, help };
inline constexpr Group allGroups[] = {Group::here,     Group::blade, Group::batch, Group::shop,
                                      Group::inAndOut, Group::look,  Group::help};
/// "This blade"; what is done here is called by the place itself.
QString groupName(Group group);

/// The letter or sign of a meaning; null for none.
QChar keyOf(Verb verb);
/// "add something to what is there".
QString meaningOf(Verb verb);

/// One thing that can be done at a place of the window. Keys, menu, help, tooltips and the row of buttons are made from
/// these, and so are the tests.
struct Command {
    QString id; ///< "steel.lot"
    QString text;
    QString help;
    Verb verb = Verb::none;
    std::function<void()> run;
    /// Why it cannot be done now, in words; empty when it can. None: always.
    std::function<QString()> why_not = {};
    /// A function key or the like, in place of a verb's letter.
    Qt::Key key = Qt::Key_unknown;
    Qt::KeyboardModifiers modifiers = Qt::NoModifier;
    Group group = Group::here;
    bool in_row = true; ///< has a button in the row of a place, where there is room

    /// The key as shown: "N", "F3", "Ctrl+Z"; empty when it has none.
    QString keyText() const;
    bool takes(const QKeyEvent& event) const;
    QString whyNot() const { return why_not ? why_not() : QString(); }
};

using Commands = std::vector<Command>;

} // namespace rollcall

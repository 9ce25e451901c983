// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/command.h"

#include "plot/translate.h"

#include <QKeyEvent>
#include <QKeySequence>

namespace rollcall {

QChar keyOf(Verb verb) {
    constexpr char keys[] = {'\0', 'a', 'b', 'c', 'e', 'f', 'g', 'h', 'i', 'j', 'k', 'l', 'm', 'n', 'p',
                             'q',  'r', 's', 't', 'u', 'v', 'w', 'x', 'y', 'z', '*', '/', '+', '-', '?'};
    static_assert(std::size(keys) == static_cast<std::size_t>(Verb::help) + 1);
    return QLatin1Char(keys[static_cast<std::size_t>(verb)]);
}

QString meaningOf(Verb verb) {
    switch (verb) {
    case Verb::none:
        return {};
    case Verb::add:
        return tr("add to what is there");
    case Verb::batches:
        return tr("batches");
    case Verb::compare:
        return tr("compare");
    case Verb::excuse:
        return tr("excuse");
    case Verb::files:
        return tr("files");
    case Verb::geometry:
        return tr("geometry of the edge");
    case Verb::harden:
        return tr("harden");
    case Verb::inAndOut:
        return tr("in and out: files, tables, pictures");
    case Verb::sound:
        return tr("sound");
    case Verb::kit:
        return tr("the kit: scales, surfaces, ovens, blocks");
    case Verb::limits:
        return tr("limits");
    case Verb::amend:
        return tr("amend");
    case Verb::makeNew:
        return tr("new");
    case Verb::plan:
        return tr("plan");
    case Verb::series:
        return tr("series");
    case Verb::testers:
        return tr("testers");
    case Verb::same:
        return tr("same again");
    case Verb::temper:
        return tr("temper");
    case Verb::undo:
        return tr("undo a temper");
    case Verb::verify:
        return tr("verify");
    case Verb::why:
        return tr("why");
    case Verb::out:
        return tr("out with it");
    case Verb::ovens:
        return tr("the ovens today");
    case Verb::zone:
        return tr("zone");
    case Verb::other:
        return tr("one more, or another");
    case Verb::strike:
        return tr("strike out");
    case Verb::next:
        return tr("next blade");
    case Verb::previous:
        return tr("blade before");
    case Verb::help:
        return tr("help");
    }
    return {};
}

QString groupName(Group group) {
    switch (group) {
    case Group::here:
        return tr("Here");
    case Group::blade:
        return tr("This blade");
    case Group::batch:
        return tr("This batch");
    case Group::shop:
        return tr("The shop");
    case Group::inAndOut:
        return tr("In and out");
    case Group::look:
        return tr("Look and sound");
    case Group::help:
        return tr("Help");
    }
    return {};
}

QString Command::keyText() const {
    if (verb != Verb::none) return QString(keyOf(verb)).toUpper();
    if (key == Qt::Key_unknown) return {};
    return QKeySequence(QKeyCombination(modifiers, key)).toString(QKeySequence::NativeText);
}

bool Command::takes(const QKeyEvent& event) const {
    constexpr auto chords = Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier;
    if (verb != Verb::none)
        return !(event.modifiers() & chords) && event.text().size() == 1 && event.text().at(0).toLower() == keyOf(verb);
    return key != Qt::Key_unknown && event.key() == key && (event.modifiers() & chords) == modifiers;
}

} // namespace rollcall

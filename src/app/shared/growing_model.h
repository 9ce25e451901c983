// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAbstractItemModel>

namespace rollcall {

/// A model over values that are made anew with each snapshot: views are told of the rows that came or went at the end
/// and that the others may have changed, never that all is new, which would lose where they scrolled to and a click
/// that is half done.
template<class Model>
class GrowingModel : public Model {
public:
    using Model::Model;

protected:
    /// From so many rows to so many; change puts the new values in their place.
    template<class Change>
    void changeRows(int had, int has, Change change) {
        if (has > had) this->beginInsertRows({}, had, has - 1);
        if (has < had) this->beginRemoveRows({}, has, had - 1);
        change();
        if (has > had) this->endInsertRows();
        if (has < had) this->endRemoveRows();
        const int columns = static_cast<const QAbstractItemModel*>(this)->columnCount();
        if (has > 0 && columns > 0) emit this->dataChanged(this->index(0, 0), this->index(has - 1, columns - 1));
    }
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/column_content.h"
#include "app/shared/command.h"
#include "app/shared/help_text.h"
#include "app/store/document.h"
#include "plot/look.h"
#include "plot/told.h"
#include "report/batch_table.h"

#include <optional>
#include <QWidget>

class QKeyEvent;

namespace rollcall {

/// A place in the middle of the window: what it shows, what the column beside it says, and what can be done there. The
/// window knows its places only as this; a place is named by its object name.
class Bench : public QWidget {
    Q_OBJECT

public:
    Bench(Document& document, const Look& look, QWidget* parent = nullptr)
        : QWidget(parent), m_document(document), m_look(look) {}

    virtual QString title() const = 0;
    /// What it answers, how, by which rules, and what it does not see.
    virtual HelpText help() const = 0;
    /// The gate whose work is done here now; none outside the gates.
    virtual std::optional<Gate> gate() const { return std::nullopt; }
    /// Whether this is the place to open for a gate.
    virtual bool serves(Gate g) const { return gate() == g; }
    /// Why it cannot be opened for a gate now; empty when it can.
    virtual QString whyNotAt(Gate) const { return {}; }
    virtual bool needsBlade() const { return true; }
    /// Whether it shows the blades itself and takes the roll's room.
    virtual bool isRoll() const { return false; }
    /// What stands in the place of the roll; null for the roll itself.
    virtual QWidget* side() { return nullptr; }
    /// What has the keys when it comes to the front. Not a focus proxy: with one Tab would leave out the gates.
    virtual QWidget* focusTarget() { return this; }
    /// Whether what was begun here and is done elsewhere leads back here.
    virtual bool leadsBack() const { return false; }
    /// It came to the front, or is no longer there.
    virtual void setInFront(bool inFront) { m_inFront = inFront; }
    virtual int pageIndex() const { return 0; }
    virtual void openPageAt(int index) { Q_UNUSED(index); }

    virtual void refresh() { update(); }
    virtual ColumnContent content() const = 0;
    /// The primary act.
    virtual void act() = 0;
    virtual void leftAct() {}
    virtual void rightAct() {}
    /// What can be done here beside those three.
    virtual Commands commands() { return {}; }
    /// What can be done with what lies at a place of it, before all else.
    virtual Commands commandsAt(const QPoint& at) {
        Q_UNUSED(at);
        return {};
    }
    /// The same of all its pages.
    virtual Commands everyCommand() { return commands(); }
    /// What opens it from everywhere, beside the keys of the gates.
    virtual Commands doors() { return {}; }
    /// Of what can be done everywhere, by id, what has a button here.
    virtual QStringList offers() const { return {}; }
    /// What only moves or types; true when the key was taken.
    virtual bool key(QKeyEvent* event) {
        Q_UNUSED(event);
        return false;
    }
    /// What moves and types here, for the help: "Arrows   move the next spot".
    virtual QStringList movements() const { return {}; }
    /// Esc: true when there was something here to leave first.
    virtual bool escape() { return false; }
    /// What was typed or answered here and is not kept yet, as a sentence; empty when nothing would be lost.
    virtual QString unsaved() const { return {}; }
    /// A file dropped on the window; true when it was taken.
    virtual bool takeFile(const QString& path) {
        Q_UNUSED(path);
        return false;
    }
    /// What is shown, as tables.
    virtual std::vector<ReportTable> tables() const;
    /// True while it wants the whole window for itself, and every key.
    virtual bool wantsAll() const { return false; }

signals:
    void said(const QString& message, bool trouble);
    void changed(); ///< something on it that the column shows too
    void wanted();  ///< something came for it: it asks to be seen
    void backWanted();
    void gateWanted(rollcall::Gate gate);
    void placeWanted(const QString& place, int page);
    void commandWanted(const QString& id); ///< something that can be done everywhere

protected:
    /// Whether a file is named as a table is.
    static bool isTable(const QString& path) {
        return path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive) ||
               path.endsWith(QLatin1String(".txt"), Qt::CaseInsensitive);
    }
    const Palette& palette() const { return m_look.palette; }
    int px(double size) const { return m_look.px(size); }

    Document& m_document;
    const Look& m_look;
    bool m_inFront = false;
    Told m_told; ///< what lies under the pointer, noted down as it is painted
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/open_forms.h"

#include "app/acts/files_dialog.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"

#include <QChildEvent>
#include <QDialog>

namespace rollcall {

OpenForms::OpenForms(const Document& document, QWidget* window) : QObject(window), m_document(document) {
    window->installEventFilter(this);
    connect(&m_document, &Document::changed, this, &OpenForms::look);
}

OpenForms::Subject OpenForms::inHand() const {
    const Blade* blade = m_document.blade();
    return {m_document.path(), blade != nullptr ? blade->id : std::string()};
}

// In the moment in which it is made: when it is shown something else may be in hand already.
bool OpenForms::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::ChildAdded) {
        QObject* child = static_cast<QChildEvent*>(event)->child();
        if (child->isWidgetType()) m_forms.push_back({child, inHand()});
    }
    return QObject::eventFilter(watched, event);
}

void OpenForms::look() {
    const Subject now = inHand();
    std::erase_if(m_forms, [](const Form& form) { return form.dialog == nullptr; });
    for (const Form& form : std::vector<Form>(m_forms)) {
        // Made without a blade it is about none.
        const bool another =
            form.about.logbook != now.logbook || (!form.about.blade.empty() && form.about.blade != now.blade);
        if (!another) continue;
        auto* dialog = qobject_cast<QDialog*>(form.dialog);
        if (dialog == nullptr || !dialog->isVisible()) continue;
        const auto* choice = qobject_cast<ChoiceDialog*>(dialog);
        const bool asks = choice != nullptr && !choice->isNotice();
        if (!asks && qobject_cast<FormDialog*>(dialog) == nullptr && qobject_cast<FilesDialog*>(dialog) == nullptr)
            continue;
        dialog->done(QDialog::Rejected);
        emit left(tr("“%1” is left: something else came in hand. Nothing of it is logged.").arg(dialog->windowTitle()));
    }
}

} // namespace rollcall

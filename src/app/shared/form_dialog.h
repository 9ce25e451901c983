// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/moment_field.h"
#include "plot/look.h"

#include <functional>
#include <QDialog>
#include <QMap>
#include <QStringList>
#include <vector>

class QLabel;
class QLineEdit;
class QScrollArea;

namespace rollcall {

/// A number as a field begins with it: six digits, no zeros behind.
inline QString fieldNumber(double value) {
    return QString::number(value, 'g', 6);
}

/// One of the answers that a field offers. What is chosen is known by its key, whatever language it is shown in.
struct FormChoice {
    QString key;
    QString text;

    FormChoice(const char* word, const QString& shown) : key(QString::fromLatin1(word)), text(shown) {}
    /// A name that is the same in every language: a designation, a mark.
    FormChoice(const QString& name) : key(name), text(name) {}
};

/// "no" and "yes".
std::vector<FormChoice> yesOrNo();
/// Each under its place, "0" and so on.
std::vector<FormChoice> numberedChoices(const QStringList& texts);
/// Names that need no translation.
std::vector<FormChoice> namedChoices(const QStringList& names);

/// One field of a form.
struct FormField {
    QString id;
    QString label;
    QString hint;                    ///< what may be typed, shown muted behind the field
    QString value;                   ///< to begin with; of choices the key
    std::vector<FormChoice> choices; ///< empty for free text
    bool free_text = false;          ///< with choices: others may be typed too
    Picks picks = Picks::nothing;    ///< a day or a moment, which can be picked from a calendar
    QDateTime now = {};              ///< where that calendar opens
};

/// By the id of the field: what was typed, or the key of what was chosen.
using FormValues = QMap<QString, QString>;

/// What is wrong with a form: the field, and the sentence that says what to do; both empty when all is well.
struct FormFault {
    QString field;
    QString sentence;
};

/// A short form. Enter goes to the next field and, on the last one, accepts; Ctrl+Enter accepts at once.
class FormDialog : public QDialog {
    Q_OBJECT

public:
    FormDialog(const QString& title, const QString& act, std::vector<FormField> fields, const Look& look,
               QWidget* parent);
    /// Shows it without blocking. check looks at the values when they are to be accepted, done takes them.
    void ask(std::function<FormFault(const FormValues&)> check, std::function<void(const FormValues&)> done);
    FormValues values() const;
    /// A sentence under the fields that follows what is typed; empty: none now.
    void note(std::function<QString(const FormValues&)> sentence);
    /// What stands in a text field until somebody types there; it follows what is typed elsewhere.
    void propose(const QString& field, std::function<QString(const FormValues&)> value);

    /// Esc, or the frame's cross: what was typed is not lost at the first.
    void reject() override;

protected:
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void submit();
    void goOn(Qt::KeyboardModifiers modifiers);
    QStringList typed() const;
    void showWhole();
    void follow();

    std::vector<FormField> m_fields;
    std::vector<QWidget*> m_editors;
    QScrollArea* m_scroll = nullptr; ///< of the fields, where not all stand at once
    int m_rowHeight = 1;
    QStringList m_begun;           ///< what stood in the fields before anybody typed, or what was about to be given up
    std::vector<QLabel*> m_wholes; ///< one for each editor
    int m_roomForFields = 0;       ///< that they would have more than they need, beside keys on the screen
    QLabel* m_message;
    QLabel* m_note;
    std::function<QString(const FormValues&)> m_sentence;
    std::function<QString(const FormValues&)> m_proposal;
    QLineEdit* m_proposed = nullptr; ///< nobody has typed there yet
    QString m_lastProposed;
    std::function<FormFault(const FormValues&)> m_check;
    std::function<void(const FormValues&)> m_done;
};

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/form_dialog.h"

#include "app/shared/buttons.h"
#include "app/shared/drop_down.h"
#include "app/shared/key_row.h"
#include "app/shared/plain_text.h"

#include <QAbstractItemView>
#include <QApplication>
#include <QComboBox>
#include <QCompleter>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>
#include <utility>

namespace rollcall {

std::vector<FormChoice> yesOrNo() {
    return {{"no", FormDialog::tr("no")}, {"yes", FormDialog::tr("yes")}};
}

std::vector<FormChoice> numberedChoices(const QStringList& texts) {
    std::vector<FormChoice> choices;
    for (qsizetype i = 0; i < texts.size(); ++i) choices.emplace_back(QByteArray::number(i).constData(), texts[i]);
    return choices;
}

std::vector<FormChoice> namedChoices(const QStringList& names) {
    return {names.begin(), names.end()};
}

FormDialog::FormDialog(const QString& title, const QString& act, std::vector<FormField> fields, const Look& look,
                       QWidget* parent)
    : QDialog(parent), m_fields(std::move(fields)), m_message(new PlainLabel), m_note(new PlainLabel) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(title);
    setObjectName(QStringLiteral("form"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(12));
    auto* heading = new PlainLabel(title);
    heading->setFont(look.font(24, true));
    column->addWidget(heading);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(look.px(12));
    grid->setVerticalSpacing(look.px(8));
    for (std::size_t i = 0; i < m_fields.size(); ++i) {
        const FormField& field = m_fields[i];
        const int row = 2 * static_cast<int>(i); // under each its whole text, where it is longer than its field
        auto* label = new PlainLabel(field.label);
        label->setFont(look.font(16, true));
        QWidget* editor = nullptr;
        if (field.choices.empty()) {
            auto* line = field.picks == Picks::nothing ? new QLineEdit : new MomentField(field.picks, field.now, look);
            line->setText(field.value);
            line->selectAll();
            editor = line;
        } else {
            auto* box = new DropDown;
            box->setEditable(field.free_text);
            box->setInsertPolicy(QComboBox::NoInsert); // else Enter makes a choice of what was typed, without its key
            int chosen = field.free_text ? -1 : 0;
            for (const FormChoice& choice : field.choices) {
                if (choice.key == field.value) chosen = box->count();
                box->addItem(choice.text, choice.key);
            }
            if (field.free_text) {
                box->setCurrentText(chosen < 0 ? field.value : field.choices[static_cast<std::size_t>(chosen)].text);
                box->completer()->setFilterMode(Qt::MatchContains);
                box->completer()->setCompletionMode(QCompleter::PopupCompletion);
                box->completer()->popup()->installEventFilter(this);
            } else {
                box->setCurrentIndex(chosen);
            }
            editor = box;
        }
        editor->setObjectName(field.id);
        editor->setFont(look.font(18));
        editor->setMinimumHeight(look.px(36));
        editor->setAccessibleName(field.label);
        editor->setAccessibleDescription(field.hint);
        label->setBuddy(editor);
        auto* hint = new PlainLabel(field.hint);
        hint->setFont(look.font(14));
        hint->setObjectName(QStringLiteral("hint"));
        if (auto* line = qobject_cast<QLineEdit*>(editor))
            connect(line, &QLineEdit::textChanged, this, &FormDialog::follow);
        else if (auto* box = qobject_cast<QComboBox*>(editor))
            connect(box, &QComboBox::currentTextChanged, this, &FormDialog::follow);
        grid->addWidget(label, row, 0);
        grid->addWidget(editor, row, 1);
        grid->addWidget(hint, row, 2);
        auto* whole = new PlainLabel;
        whole->setObjectName(QStringLiteral("whole"));
        whole->setFont(look.font(14));
        whole->setWordWrap(true);
        whole->hide();
        grid->addWidget(whole, row + 1, 1, 1, 2);
        m_wholes.push_back(whole);
        m_editors.push_back(editor);
    }
    grid->setColumnMinimumWidth(1, look.px(250));
    constexpr std::size_t mostAtOnce = 12; // more of them scroll, and all where keys on the screen want room
    constexpr int fieldHeight = 44;
    const bool keys = KeyRow::wished();
    if (m_fields.size() > mostAtOnce || keys) {
        auto* inside = new QWidget;
        grid->setContentsMargins(0, 0, look.px(12), 0);
        inside->setLayout(grid);
        auto* scroll = new QScrollArea;
        scroll->setWidget(inside);
        scroll->setWidgetResizable(true);
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setFocusPolicy(Qt::NoFocus);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        const int rows = static_cast<int>(std::min(m_fields.size(), mostAtOnce));
        constexpr int leastWithKeys = 2;
        const int least = keys ? std::min(leastWithKeys, rows) : rows;
        scroll->setMinimumSize(inside->sizeHint().width() + look.px(16), look.px(fieldHeight * least));
        column->addWidget(scroll, 1);
        m_scroll = scroll;
        m_rowHeight = look.px(fieldHeight);
        if (keys) m_roomForFields = look.px(fieldHeight * (rows - least));
        connect(qApp, &QApplication::focusChanged, scroll, [scroll, inside](QWidget*, QWidget* now) {
            if (now != nullptr && inside->isAncestorOf(now)) scroll->ensureWidgetVisible(now, 0, now->height());
        });
    } else {
        column->addLayout(grid);
    }
    m_note->setObjectName(QStringLiteral("note"));
    m_note->setFont(look.font(16));
    m_note->setWordWrap(true);
    m_note->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    m_note->hide();
    column->addWidget(m_note);
    m_message->setObjectName(QStringLiteral("message"));
    m_message->setFont(look.font(16, true));
    m_message->setWordWrap(true);
    m_message->setMinimumHeight(look.px(26));
    column->addWidget(m_message);
    if (keys) column->addWidget(new KeyRow(look, KeyRow::Keys::letters));
    auto* accept = new PrimaryButton(look);
    accept->show(act, tr("or Ctrl+Enter from any field; Esc gives up"), QStringLiteral("Enter"));
    accept->setFocusPolicy(Qt::StrongFocus);
    connect(accept, &QAbstractButton::clicked, this, &FormDialog::submit);
    column->addWidget(accept);
}

void FormDialog::ask(std::function<FormFault(const FormValues&)> check, std::function<void(const FormValues&)> done) {
    m_check = std::move(check);
    m_done = std::move(done);
    if (m_roomForFields > 0) {
        const int most =
            parentWidget() != nullptr ? parentWidget()->height() - 40 : sizeHint().height() + m_roomForFields;
        resize(sizeHint().width(), std::min(most, sizeHint().height() + m_roomForFields));
    }
    open();
    m_begun = typed();
    showWhole();
    if (!m_editors.empty()) m_editors.front()->setFocus();
}

// Fields are seen whole or not at all.
void FormDialog::resizeEvent(QResizeEvent* event) {
    QDialog::resizeEvent(event);
    if (m_scroll == nullptr) return;
    m_scroll->setMaximumHeight(QWIDGETSIZE_MAX);
    layout()->activate();
    const int all = m_scroll->widget()->sizeHint().height();
    const int room = std::min(m_scroll->height(), all);
    if (room < all) m_scroll->setMaximumHeight(std::max(m_scroll->minimumHeight(), room / m_rowHeight * m_rowHeight));
}

void FormDialog::note(std::function<QString(const FormValues&)> sentence) {
    m_sentence = std::move(sentence);
    constexpr int lines = 3; // its room is kept, so that nothing moves under the hand while it changes
    m_note->setMinimumHeight(lines * m_note->fontMetrics().lineSpacing());
    m_note->show();
    follow();
}

void FormDialog::propose(const QString& field, std::function<QString(const FormValues&)> value) {
    for (std::size_t i = 0; i < m_fields.size(); ++i) {
        if (m_fields[i].id == field) m_proposed = qobject_cast<QLineEdit*>(m_editors[i]);
    }
    if (m_proposed == nullptr || !m_proposed->text().isEmpty()) {
        m_proposed = nullptr; // it stands there already
        return;
    }
    m_proposal = std::move(value);
    follow();
}

// What a field has no room for is read under it.
void FormDialog::showWhole() {
    for (std::size_t i = 0; i < m_editors.size(); ++i) {
        const auto* line = qobject_cast<const QLineEdit*>(m_editors[i]);
        if (const auto* box = qobject_cast<const QComboBox*>(m_editors[i])) line = box->lineEdit();
        constexpr int frame = 16; // and the cursor
        const bool longer =
            line != nullptr && line->fontMetrics().horizontalAdvance(line->text()) > line->width() - frame;
        m_wholes[i]->setText(longer ? line->text() : QString());
        m_wholes[i]->setVisible(longer);
    }
}

void FormDialog::follow() {
    if (isVisible()) showWhole();
    // What was found wrong goes as soon as it is mended.
    if (m_check && !m_message->text().isEmpty()) m_message->setText(m_check(values()).sentence);
    if (m_proposed != nullptr) {
        // Once somebody has put something else there it is theirs.
        if (m_proposed->text() != m_lastProposed) m_proposed = nullptr;
    }
    if (m_proposed != nullptr) {
        const QString proposed = m_proposal(values());
        if (m_lastProposed != proposed) {
            m_lastProposed = proposed;
            return m_proposed->setText(proposed); // which follows again
        }
    }
    if (m_sentence) m_note->setText(m_sentence(values()));
}

FormValues FormDialog::values() const {
    FormValues values;
    for (std::size_t i = 0; i < m_fields.size(); ++i) {
        const auto* line = qobject_cast<const QLineEdit*>(m_editors[i]);
        const auto* box = qobject_cast<const QComboBox*>(m_editors[i]);
        const QString text = (line != nullptr ? line->text() : box->currentText()).trimmed();
        const int known = box != nullptr ? box->findText(text) : -1;
        values[m_fields[i].id] = known >= 0 ? box->itemData(known).toString() : text;
    }
    return values;
}

// What a hand has typed; what was proposed or only chosen is soon there again.
QStringList FormDialog::typed() const {
    QStringList all;
    for (const QWidget* editor : m_editors) {
        const auto* line = qobject_cast<const QLineEdit*>(editor);
        if (const auto* box = qobject_cast<const QComboBox*>(editor)) line = box->lineEdit();
        all << (line != nullptr && line != m_proposed ? line->text() : QString());
    }
    return all;
}

void FormDialog::reject() {
    const QStringList now = typed();
    const bool lost = std::exchange(m_begun, now) != now;
    if (!lost) return QDialog::reject();
    m_message->setText(tr("What you typed is not kept yet. Esc once more leaves it."));
}

void FormDialog::submit() {
    const FormFault fault = m_check(values());
    m_message->setText(fault.sentence);
    if (fault.sentence.isEmpty()) {
        const FormValues accepted = values();
        const auto done = m_done;
        accept();
        return done(accepted);
    }
    for (std::size_t i = 0; i < m_fields.size(); ++i) {
        if (m_fields[i].id != fault.field) continue;
        m_editors[i]->setFocus();
        if (auto* line = qobject_cast<QLineEdit*>(m_editors[i])) line->selectAll();
    }
}

// Enter in the list of what a field may be completed to takes what is chosen there and goes on, as in the field itself.
bool FormDialog::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QDialog::eventFilter(watched, event);
    const auto* key = static_cast<QKeyEvent*>(event);
    auto* list = qobject_cast<QAbstractItemView*>(watched);
    if (list == nullptr || (key->key() != Qt::Key_Return && key->key() != Qt::Key_Enter)) return false;
    const QModelIndex chosen = list->currentIndex();
    list->hide();
    if (auto* box = qobject_cast<QComboBox*>(focusWidget()); box != nullptr && chosen.isValid())
        box->setEditText(chosen.data().toString());
    goOn(key->modifiers());
    return true;
}

void FormDialog::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (!enter) return QDialog::keyPressEvent(event);
    goOn(event->modifiers());
}

void FormDialog::goOn(Qt::KeyboardModifiers modifiers) {
    const bool last = !m_editors.empty() && m_editors.back()->hasFocus();
    if (last || (modifiers & Qt::ControlModifier)) return submit();
    if (qobject_cast<PrimaryButton*>(focusWidget()) != nullptr) return submit();
    focusNextChild();
}

} // namespace rollcall

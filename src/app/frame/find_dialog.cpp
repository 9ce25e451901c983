// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/find_dialog.h"

#include "app/shared/buttons.h"
#include "app/shared/key_row.h"
#include "app/shared/local_time.h"
#include "app/shared/plain_text.h"
#include "app/shared/whole_rows.h"
#include "logbook/actions/blades.h"
#include "words/words.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QLocale>
#include <QPainter>
#include <QRegularExpression>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int shown = 60;
constexpr auto keptSetting = "kept_sentences";

// "115CrV3; tempered 200 to 210 °C; since 1 Mar 2026; words: tip": what the sentence was taken for.
QString understood(const Wanted& wanted) {
    const auto day = [](std::int64_t ms) {
        return QLocale().toString(QDateTime::fromMSecsSinceEpoch(ms).date(), QStringLiteral("d MMM yyyy"));
    };
    QStringList parts;
    if (wanted.grade) parts << QString::fromStdString(*wanted.grade);
    if (wanted.tempered_c)
        parts << FindDialog::tr("tempered %1 to %2")
                     .arg(words::degreesNumber(wanted.tempered_c->first), words::degrees(wanted.tempered_c->second));
    if (wanted.since_ms) parts << FindDialog::tr("since %1").arg(day(*wanted.since_ms));
    if (wanted.before_ms) parts << FindDialog::tr("before %1").arg(day(*wanted.before_ms));
    if (wanted.state) parts << FindDialog::tr("verdict %1").arg(words::stateName(*wanted.state));
    if (!wanted.words.empty()) {
        QStringList texts;
        for (const std::string& word : wanted.words) texts << QString::fromStdString(word);
        parts << FindDialog::tr("words: %1").arg(texts.join(QLatin1Char(' ')));
    }
    return parts.join(QStringLiteral("; "));
}

QString titleOf(const Hit& hit) {
    const QString batch = QString::fromStdString(hit.batch);
    if (hit.mark.empty()) return batch;
    return QStringLiteral("%1, %2").arg(QString::fromStdString(hit.mark), batch);
}

// What is not said by the title already.
QString aroundIt(const Hit& hit) {
    QStringList parts = QString::fromStdString(hit.text).split(QStringLiteral(" \u00B7 "));
    for (const std::string& said : {hit.mark, hit.batch}) parts.removeAll(QString::fromStdString(said));
    parts.removeAll(QString());
    static const QRegularExpression list(QStringLiteral(",(?=\\S)"));
    return parts.join(QStringLiteral(" \u00B7 ")).replace(list, QStringLiteral(", ")).simplified();
}

enum Role { aroundRole = Qt::UserRole, madeRole };

// A hit in two lines: what and when, and what stands around the words.
class HitRow : public QStyledItemDelegate {
public:
    HitRow(const Look& look, QObject* parent) : QStyledItemDelegate(parent), m_look(look) {}
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {0, m_look.px(54)}; }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const auto px = [&](double v) { return m_look.px(v); };
        const QRect& row = option.rect;
        const bool current = option.state & QStyle::State_Selected;
        painter->fillRect(row, current ? p.window_on_panel : p.panel);
        painter->fillRect(row.left(), row.bottom(), row.width(), 1, p.hair);
        if (current) painter->fillRect(row.left(), row.top(), px(4), row.height(), p.primary);
        const QString made = index.data(madeRole).toString();
        drawEnds(*painter, row.left() + px(14), row.right() - px(8), row.top() + px(22),
                 {index.data().toString(), 18, true, p.ink}, {made, 14, false, p.muted}, m_look);
        const QFont font = m_look.font(14);
        drawText(*painter, row.left() + px(14), row.top() + px(43),
                 elided(index.data(aroundRole).toString(), font, row.width() - px(22)), font, p.muted);
    }

private:
    const Look& m_look;
};

} // namespace

FindDialog::FindDialog(Document& document, const Look& look, QWidget* parent)
    : QDialog(parent), m_document(document), m_sentence(new QLineEdit), m_understood(new PlainLabel),
      m_list(new WholeRows) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("find"));
    setWindowTitle(tr("Find"));
    resize(look.px(860), std::min(look.px(620), parent->height() - look.px(40)));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(10));
    auto* heading = new PlainLabel(tr("Find in all batches"));
    heading->setFont(look.font(24, true));
    column->addWidget(heading);
    m_sentence->setObjectName(QStringLiteral("sentence"));
    m_sentence->setAccessibleName(tr("What do you look for?"));
    m_sentence->setFont(look.font(20));
    m_sentence->setMinimumHeight(look.px(44));
    m_sentence->installEventFilter(this);
    m_keep = new SideButton(tr("Keep it"), QStringLiteral("Ctrl+S"), look);
    m_keep->setObjectName(QStringLiteral("keep"));
    m_keep->setFocusPolicy(Qt::NoFocus); // the field keeps the keys
    m_keep->setFixedWidth(look.px(200));
    connect(m_keep, &QAbstractButton::clicked, this, &FindDialog::keep);
    auto* top = new QHBoxLayout;
    top->setSpacing(look.px(12));
    top->addWidget(m_sentence, 1);
    top->addWidget(m_keep);
    column->addLayout(top);
    m_understood->setObjectName(QStringLiteral("understood"));
    m_understood->setFont(look.font(14));
    m_understood->setWordWrap(true);
    m_understood->setMinimumHeight(2 * m_understood->fontMetrics().lineSpacing());
    m_understood->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    column->addWidget(m_understood);
    m_list->setObjectName(QStringLiteral("hits"));
    m_list->setAccessibleName(tr("What was found"));
    m_list->setItemDelegate(new HitRow(look, m_list));
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->setFocusPolicy(Qt::NoFocus); // the field keeps the keys
    column->addWidget(m_list, 1);
    if (KeyRow::wished()) column->addWidget(new KeyRow(look, KeyRow::Keys::letters));
    connect(m_sentence, &QLineEdit::textChanged, this, &FindDialog::look);
    connect(m_list, &QListWidget::itemClicked, this, [this] { openRow(m_list->currentRow()); });
    m_again.setSingleShot(true);
    m_again.setInterval(200);
    connect(&m_again, &QTimer::timeout, this, &FindDialog::look);
    this->look();
    m_sentence->setFocus();
}

QStringList FindDialog::kept() const {
    const auto& settings = m_document.state().shop().settings;
    const auto at = settings.find(keptSetting);
    return at == settings.end() ? QStringList()
                                : QString::fromStdString(at->second).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
}

void FindDialog::showKeep() {
    const QString sentence = m_sentence->text().simplified();
    m_keep->setVisible(!sentence.isEmpty());
    m_keep->setText(kept().contains(sentence) ? tr("Forget it") : tr("Keep it"));
}

void FindDialog::keep() {
    const QString sentence = m_sentence->text().simplified();
    if (sentence.isEmpty()) return;
    QStringList all = kept();
    if (!all.removeOne(sentence)) all.prepend(sentence);
    constexpr int most = 40;
    if (all.size() > most) return m_understood->setText(tr("Forty sentences are kept already: forget one."));
    m_document.perform([value = all.join(QLatin1Char('\n')).toStdString()](
                           Logbook& logbook) { return changeSetting(logbook, keptSetting, value); },
                       [self = QPointer<FindDialog>(this)](const Result<Done>& done) {
                           if (self == nullptr) return;
                           if (!done) return self->m_understood->setText(words::errorText(done.error()));
                           self->showKeep();
                       });
}

void FindDialog::look() {
    showKeep();
    const Wanted wanted = wantedFrom(m_sentence->text().toStdString(), m_document.tables(), m_document.now());
    const int asked = ++m_asked;
    m_document.find(wanted, shown, [self = QPointer<FindDialog>(this), asked, wanted](const Result<Found>& found) {
        if (self == nullptr || asked != self->m_asked) return;
        QStringList says{wanted.everything() ? tr("Such as: 115CrV3, tempered 200 to 210, since spring, failed, tip")
                                             : understood(wanted)};
        if (!found) {
            says << words::errorText(found.error());
            self->m_hits.clear();
            self->m_list->clear();
        } else {
            self->show(*found);
            if (found->left > 0)
                says << tr("%1 of %2 batches still to be looked through").arg(found->left).arg(found->batches);
            else if (found->hits.empty())
                says << tr("Nothing fits.");
            else if (found->more)
                says << (wanted.state ? tr("The newest that fit; there may be more: narrow it.")
                                      : tr("The newest %1; there are more: narrow it.").arg(shown));
            if (found->left > 0) self->m_again.start();
        }
        self->m_understood->setText(says.join(QLatin1Char('\n')));
    });
}

void FindDialog::show(const Found& found) {
    const int row = m_list->currentRow();
    m_hits = found.hits;
    m_list->clear();
    m_offered = m_sentence->text().simplified().isEmpty() ? kept() : QStringList();
    for (const QString& sentence : m_offered) {
        auto* item = new QListWidgetItem(sentence, m_list);
        item->setData(aroundRole, tr("a sentence that is kept: look for it"));
        item->setData(Qt::AccessibleTextRole, tr("%1, a sentence that is kept").arg(sentence));
    }
    for (const Hit& hit : m_hits) {
        auto* item = new QListWidgetItem(titleOf(hit), m_list);
        const QString around = aroundIt(hit);
        const QString made = QLocale().toString(localTime(hit.made).date(), QStringLiteral("d MMM yyyy"));
        item->setData(aroundRole, around);
        item->setData(madeRole, made);
        item->setData(Qt::AccessibleTextRole, QStringList{titleOf(hit), made, around}.join(QStringLiteral(", ")));
        item->setToolTip(plainTip(around));
    }
    m_list->fit();
    m_list->setCurrentRow(std::clamp(row, 0, std::max(0, m_list->count() - 1)));
}

void FindDialog::openRow(int row) {
    if (row >= 0 && row < m_offered.size()) return m_sentence->setText(m_offered[row]);
    row -= static_cast<int>(m_offered.size());
    if (row >= 0 && row < static_cast<int>(m_hits.size())) openHit(m_hits[static_cast<std::size_t>(row)]);
}

void FindDialog::openHit(const Hit& found) {
    const Hit hit = found; // the list may be another by the time it is open
    m_document.selectBatch(hit.batch_id, [self = QPointer<FindDialog>(this), hit](const Result<Done>& done) {
        if (self == nullptr) return;
        if (!done) return self->m_understood->setText(words::errorText(done.error()));
        emit self->opened(QString::fromStdString(hit.mark));
        self->accept();
    });
}

// The field keeps the keys; up and down go through what was found.
bool FindDialog::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QDialog::eventFilter(watched, event);
    const auto* key = static_cast<QKeyEvent*>(event);
    switch (key->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down:
        m_list->setCurrentRow(std::clamp(m_list->currentRow() + (key->key() == Qt::Key_Down ? 1 : -1), 0,
                                         std::max(0, m_list->count() - 1)));
        return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        openRow(m_list->currentRow());
        return true;
    case Qt::Key_S:
        if (!(key->modifiers() & Qt::ControlModifier)) return false;
        keep();
        return true;
    default:
        return QDialog::eventFilter(watched, event);
    }
}

} // namespace rollcall

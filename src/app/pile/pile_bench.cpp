// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/pile/pile_bench.h"

#include "app/acts/shop_actions.h"
#include "app/shared/seams.h"
#include "plot/glyphs.h"
#include "report/export_picture.h"
#include "report/page.h"
#include "report/page_picture.h"
#include "words/words.h"

#include <algorithm>
#include <QFileInfo>
#include <QHeaderView>
#include <QSettings>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int headHeight = 60;
constexpr int rowHeight = 62;

// What stands under a cell in small letters: what decides, how many readings, what is asked, what was noted.
QString below(const PileRow& row, int column) {
    switch (column) {
    case PileModel::soldAs:
        return row.purpose;
    case PileModel::steel:
        return row.decided_by;
    case PileModel::hardness:
        return !row.hrc            ? QString()
               : row.readings == 1 ? PileBench::tr("one reading")
                                   : PileBench::tr("%1 readings").arg(row.readings);
    case PileModel::zone:
        return row.window.low || row.window.high ? PileBench::tr("asked %1").arg(words::windowText(row.window))
                                                 : QString();
    default:
        return {};
    }
}

class PileDelegate : public QStyledItemDelegate {
public:
    PileDelegate(const PileModel& model, const QSortFilterProxyModel& order, const Look& look, QObject* parent)
        : QStyledItemDelegate(parent), m_model(model), m_order(order), m_look(look) {}
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const auto px = [&](int v) { return m_look.px(v); };
        const QRect& r = option.rect;
        const PileRow& row = m_model.row(m_order.mapToSource(index).row());
        const bool current = option.state & QStyle::State_Selected;
        painter->fillRect(r, current ? p.paper : p.panel);
        painter->fillRect(r.left(), r.bottom(), r.width(), 1, p.hair);
        if (current && index.column() == 0) painter->fillRect(r.left(), r.top(), px(4), r.height(), p.primary);
        int left = r.left() + px(10);
        const bool strong = index.column() == PileModel::piece || index.column() == PileModel::hardness;
        if (index.column() == PileModel::note) { // in two lines
            painter->setFont(m_look.font(14));
            painter->setPen(p.muted);
            painter->drawText(r.adjusted(px(10), px(8), -px(4), -px(6)), Qt::AlignVCenter | Qt::TextWordWrap, row.note);
            return;
        }
        const QFont font = m_look.font(strong ? 20 : 18, strong);
        QColor ink = index.column() == PileModel::steel && row.steel == PileSteel::no ? p.fail : p.ink;
        if (index.column() == PileModel::zone && row.hrc) {
            drawVerdictGlyph(*painter, left, r.top() + px(12), px(20), row.state, m_look, p.panel);
            left += px(28);
            ink = p.number(row.state);
        }
        const int room = r.right() - left - px(4);
        drawText(*painter, left, r.top() + px(29), elided(index.data().toString(), font, room), font, ink);
        drawFitted(*painter, r.left() + px(10), r.top() + px(50), below(row, index.column()), r.width() - px(14),
                   m_look, 14, false, p.muted);
    }

private:
    const PileModel& m_model;
    const QSortFilterProxyModel& m_order;
    const Look& m_look;
};

} // namespace

void PileModel::show(std::vector<PileRow> rows) {
    changeRows(rowCount(), static_cast<int>(rows.size()), [&] { m_rows = std::move(rows); });
}

int PileModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_rows.size());
}
int PileModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : columns;
}

QVariant PileModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const PileRow& r = row(index.row());
    const bool order = role == sortRole;
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole)
        return tr("%1, %2: %3")
            .arg(r.mark, headerData(index.column(), Qt::Horizontal, Qt::DisplayRole).toString(),
                 data(index, Qt::DisplayRole).toString());
    if (role != Qt::DisplayRole && !order) return {};
    switch (index.column()) {
    case piece:
        return r.mark;
    case soldAs:
        return r.sold_as;
    case steel:
        return order ? QVariant(static_cast<int>(r.steel)) : QVariant(steelName(r.steel));
    case decidedBy:
        return r.decided_by;
    case hardness:
        if (order) return r.hrc.value_or(0);
        return r.hrc
                   ? QStringLiteral("%1 ± %2").arg(words::hardness(*r.hrc), words::uncertainty(r.expanded_uncertainty))
                   : tr("not read");
    case readings:
        return order ? QVariant(r.readings) : r.readings > 0 ? QVariant(QString::number(r.readings)) : QVariant();
    case asked:
        return order ? QVariant(r.window.low.value_or(0)) : QVariant(words::windowText(r.window));
    case zone:
        return order ? QVariant(static_cast<int>(r.zone)) : QVariant(r.hrc ? zoneName(r.zone) : QString());
    case note:
        return r.note;
    default:
        return {};
    }
}

QVariant PileModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal) return {};
    switch (section) {
    case piece:
        return tr("Piece");
    case soldAs:
        return tr("Sold as");
    case steel:
        return tr("Steel");
    case decidedBy:
        return tr("Decided by");
    case hardness:
        return tr("HRC ± U");
    case readings:
        return tr("n");
    case asked:
        return tr("Asked");
    case zone:
        return tr("Zone");
    case note:
        return tr("Note");
    default:
        return {};
    }
}

PileBench::PileBench(Document& document, ShopActions& actions, const Seams& seams, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_actions(actions), m_seams(seams), m_model(new PileModel(this)),
      m_order(new QSortFilterProxyModel(this)), m_table(new QTableView(this)) {
    setObjectName(QStringLiteral("pile-bench"));
    m_order->setSourceModel(m_model);
    m_order->setSortRole(PileModel::sortRole);
    m_table->setObjectName(QStringLiteral("pile"));
    m_table->setAccessibleName(tr("The pile, a knife a row"));
    m_table->setModel(m_order);
    m_table->setItemDelegate(new PileDelegate(*m_model, *m_order, look, this));
    m_table->setSortingEnabled(true);
    m_table->sortByColumn(-1, Qt::AscendingOrder); // as they lie in the pile
    m_table->setFrameShape(QFrame::NoFrame);
    m_table->setShowGrid(false);
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(look.px(rowHeight));
    QHeaderView* head = m_table->horizontalHeader();
    head->setFixedHeight(look.px(40)); // a finger wide
    head->setFont(look.font(16, true));
    head->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    head->setHighlightSections(false);
    head->setSectionResizeMode(QHeaderView::Stretch);
    for (const int said : {PileModel::decidedBy, PileModel::readings, PileModel::asked})
        m_table->setColumnHidden(said, true); // under the others, and in the table that leaves
    for (const auto& [column, width] : {std::pair<int, int>{PileModel::piece, 104},
                                        {PileModel::soldAs, 148},
                                        {PileModel::steel, 206},
                                        {PileModel::hardness, 128},
                                        {PileModel::zone, 150}}) {
        head->setSectionResizeMode(column, QHeaderView::Fixed);
        head->resizeSection(column, look.px(width));
    }
    m_table->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    m_table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::SingleSelection);
    m_table->setTabKeyNavigation(false);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(headHeight), look.px(24), look.px(16));
    column->addWidget(m_table);
    connect(m_table->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& current) {
        if (m_refreshing || !current.isValid()) return;
        const QString& mark = m_model->row(m_order->mapToSource(current).row()).mark;
        m_document.selectBlade(m_document.indexOfMark(mark.toStdString()));
    });
    connect(m_table, &QTableView::doubleClicked, this, &PileBench::open);
}

void PileBench::refresh() {
    m_refreshing = true;
    m_model->show(m_document.hasBatch() ? pileRows(m_document.batch(), m_document.verdicts()) : std::vector<PileRow>());
    const Blade* blade = m_document.blade();
    for (int i = 0; blade != nullptr && i < m_model->rowCount(); ++i) {
        if (m_model->row(i).mark == QString::fromStdString(blade->mark))
            m_table->setCurrentIndex(m_order->mapFromSource(m_model->index(i, 0)));
    }
    m_refreshing = false;
    m_table->setVisible(m_document.hasBatch());
    update();
}

// What decides the knife: its steel where that is in doubt, else its hardness.
void PileBench::open(const QModelIndex& index) {
    const bool steel = index.column() == PileModel::soldAs || index.column() == PileModel::steel ||
                       index.column() == PileModel::decidedBy;
    emit gateWanted(steel ? Gate::steel : Gate::temper);
}

std::vector<PileRow> PileBench::sorted() const {
    std::vector<PileRow> rows;
    for (int i = 0; i < m_order->rowCount(); ++i)
        rows.push_back(m_model->row(m_order->mapToSource(m_order->index(i, 0)).row()));
    return rows;
}

std::vector<ReportTable> PileBench::tables() const {
    if (!m_document.hasBatch()) return {};
    return {pileTable(sorted(), QString::fromStdString(m_document.batch().name))};
}

void PileBench::write(const QString& filter) {
    if (!m_document.hasBatch()) return;
    const QString title = QString::fromStdString(m_document.batch().name);
    const QString path = m_seams.chooseFile(window(), tr("The page of %1").arg(title), filter, true);
    if (path.isEmpty()) return;
    const QString shop = QSettings().value(QStringLiteral("shop/name")).toString();
    const bool letter = QSettings().value(QStringLiteral("shop/paper")).toString() == QLatin1String("Letter");
    const DrawPages draw = [rows = sorted(), title, shop, now = m_document.now()](Paper& paper) {
        return drawPile(paper, rows, title, shop, now);
    };
    const QString name = QFileInfo(path).fileName();
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("csv")) {
        const auto done = writeCsv(path, tables().front());
        return emit said(done ? tr("%1 written.").arg(name) : words::errorText(done.error()), !done);
    }
    if (ending == QLatin1String("png")) {
        constexpr int dpi = 150;
        const std::vector<QImage> pages = picturesOf(letter, dpi, draw);
        for (std::size_t i = 0; i < pages.size(); ++i) {
            const QString page = i == 0 ? path : path.chopped(4) + QStringLiteral("-%1.png").arg(i + 1);
            if (auto done = savePng(page, pages[i]); !done) return emit said(words::errorText(done.error()), true);
        }
        return emit said(pages.size() == 1 ? tr("%1 written.").arg(name)
                                           : tr("%1 written, %2 pages.").arg(name).arg(pages.size()),
                         false);
    }
    const auto written = writePdf(path, letter, title, draw);
    emit said(written ? tr("%1 written.").arg(name) : words::errorText(written.error()), !written);
}

ColumnContent PileBench::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    if (!m_document.hasBatch()) {
        content.caption = tr("No batch yet");
        content.act = tr("New batch");
        content.detail = tr("or a table of knives by I");
        return content;
    }
    const std::vector<PileRow>& rows = m_model->rows();
    const auto count = [&](auto&& so) { return static_cast<int>(std::count_if(rows.begin(), rows.end(), so)); };
    const int off = count([](const PileRow& r) { return r.state == State::fail; });
    const int wrong = count([](const PileRow& r) { return r.steel == PileSteel::no; });
    const int read = count([](const PileRow& r) { return r.hrc.has_value(); });
    const int passed = count([](const PileRow& r) { return r.state == State::pass; });
    content.caption = tr("%1, the whole pile").arg(QString::fromStdString(m_document.batch().name));
    content.state = off + wrong > 0 ? State::fail : read < static_cast<int>(rows.size()) ? State::notYet : State::pass;
    content.word = off + wrong > 0                           ? tr("Not as sold")
                   : content.state == State::notYet          ? tr("Not all read")
                   : passed == static_cast<int>(rows.size()) ? tr("As sold")
                                                             : tr("Read");
    content.sub = tr("%1 of %2 read").arg(read).arg(rows.size());
    content.numbers.push_back({tr("In window"), QString::number(passed), tr("of %1").arg(rows.size()), false});
    content.numbers.push_back({tr("Other steel"), QString::number(wrong), {}, false});
    for (std::size_t i = 0; i < m_document.batch().blades.size(); ++i) {
        for (const Gate gate : {Gate::steel, Gate::temper}) {
            const Verdict* verdict = m_document.verdict(static_cast<int>(i), gate);
            if (verdict == nullptr || verdict->state != State::fail) continue;
            content.lines.push_back(
                {Tone::bad,
                 tr("%1: %2").arg(QString::fromStdString(m_document.batch().blades[i].mark), words::headline(*verdict)),
                 {},
                 false});
        }
    }
    content.act = tr("Write the page");
    content.detail = tr("as PDF, picture or table");
    content.right = tr("This knife");
    return content;
}

void PileBench::act() {
    if (!m_document.hasBatch()) return m_actions.newBatch(false);
    write(tr("PDF (*.pdf);;Picture (*.png);;Table (*.csv)"));
}

void PileBench::rightAct() {
    emit commandWanted(QStringLiteral("claim"));
}

Commands PileBench::commands() {
    const auto batch = [this] { return m_document.hasBatch() ? QString() : tr("Make or open a batch first."); };
    return {{QStringLiteral("pile.pdf"), tr("As PDF"), tr("the page, in this order"), Verb::none,
             [this] { write(tr("PDF (*.pdf)")); }, batch},
            {QStringLiteral("pile.png"), tr("As a picture"), tr("to send on"), Verb::none,
             [this] { write(tr("Picture (*.png)")); }, batch},
            {QStringLiteral("pile.csv"), tr("As a table"), tr("for a spreadsheet"), Verb::none,
             [this] { write(tr("Table (*.csv)")); }, batch}};
}

Commands PileBench::doors() {
    return {{QStringLiteral("pile"),
             tr("The pile"),
             tr("finished knives on one page"),
             Verb::none,
             [this] { emit placeWanted(objectName(), 0); },
             {},
             Qt::Key_unknown,
             Qt::NoModifier,
             Group::batch}};
}

void PileBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), p.panel);
    if (!m_document.hasBatch()) return;
    drawText(painter, px(24), px(38), tr("One line a knife; a heading sorts"), m_look.font(18), p.muted);
}

QWidget* PileBench::focusTarget() {
    return m_table;
}

HelpText PileBench::help() const {
    return {
        tr("Of all these finished knives: which are as hard as they were sold, and of the steel they were sold as?"),
        {{Pictogram::blade, tr("Log each knife: its maker, its claim, where it may be marked.")},
         {Pictogram::peaks, tr("Take its steel and its hardness; two readings where no more may be made.")},
         {Pictogram::boxes, tr("One line a knife: the claim, what was found, the verdict. A heading sorts.")},
         {Pictogram::page, tr("Write the one page, as PDF, picture or table.")}},
        {QStringLiteral("M26"), QStringLiteral("M9"), QStringLiteral("E38")},
        tr("A knife is judged by what it was sold as, where that was said. It does not rank makers: one knife is one "
           "knife.")};
}

} // namespace rollcall

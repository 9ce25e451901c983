// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/import_wizard.h"

#include "app/shared/buttons.h"
#include "app/shared/drop_down.h"
#include "app/shared/plain_text.h"
#include "app/shared/waiting.h"
#include "logbook/transfer/column_map.h"
#include "logbook/transfer/import.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <QComboBox>
#include <QCryptographicHash>
#include <QFileInfo>
#include <QHeaderView>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPointer>
#include <QSettings>
#include <QTableWidget>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int shownRows = 200; // of a long file; all of it is tried
constexpr int aboveData = 2;   // rows for what a column is and its unit

// What a maker calls the columns of a readings file.
QString wordFor(const std::string& column) {
    static const std::array<std::pair<const char*, const char*>, 21> words{
        {{"batch", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "batch")},
         {"blade", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "blade")},
         {"gate", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "gate")},
         {"value", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "reading")},
         {"scale", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "scale")},
         {"date", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "date")},
         {"time", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "time")},
         {"tester", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "tester")},
         {"x_mm", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "from heel")},
         {"y_mm", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "from edge")},
         {"cycle", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "after temper no.")},
         {"temperature_c", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "temper at")},
         {"hours", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "temper for")},
         {"grade", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "grade")},
         {"window_low", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "window from")},
         {"window_high", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "window to")},
         {"minimum", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "quench minimum")},
         {"thickness_mm", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "thickness")},
         {"certified", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "block certified")},
         {"block_uncertainty", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "block U")},
         {"note", QT_TRANSLATE_NOOP("rollcall::ImportWizard", "note")}}};
    for (const auto& [name, word] : words) {
        if (column == name) return ImportWizard::tr(word);
    }
    return QString::fromStdString(column);
}

std::string textOf(const QWidget* widget) {
    const auto* line = qobject_cast<const QLineEdit*>(widget);
    return (line != nullptr ? line->text() : qobject_cast<const QComboBox*>(widget)->currentText())
        .trimmed()
        .toStdString();
}

void setText(QWidget* widget, const std::string& text) {
    if (auto* line = qobject_cast<QLineEdit*>(widget)) return line->setText(QString::fromStdString(text));
    auto* box = qobject_cast<QComboBox*>(widget);
    box->isEditable() ? box->setEditText(QString::fromStdString(text))
                      : box->setCurrentText(QString::fromStdString(text));
}

QByteArray written(const ColumnMap& map) {
    QJsonArray columns;
    for (const ColumnMap::Column& column : map.columns)
        columns.append(QJsonArray{QString::fromStdString(column.is), QString::fromStdString(column.unit)});
    QJsonObject fixed;
    for (const auto& [name, text] : map.fixed) {
        if (name != "batch") fixed[QString::fromStdString(name)] = QString::fromStdString(text); // another each time
    }
    return QJsonDocument(QJsonObject{{"columns", columns}, {"fixed", fixed}}).toJson(QJsonDocument::Compact);
}

std::optional<ColumnMap> mapIn(const QByteArray& text, std::size_t columns) {
    const QJsonObject object = QJsonDocument::fromJson(text).object();
    const QJsonArray list = object[QStringLiteral("columns")].toArray();
    if (list.isEmpty() || static_cast<std::size_t>(list.size()) != columns) return std::nullopt;
    ColumnMap map;
    for (const QJsonValue value : list)
        map.columns.push_back(
            {value.toArray().at(0).toString().toStdString(), value.toArray().at(1).toString().toStdString()});
    const QJsonObject fixed = object[QStringLiteral("fixed")].toObject();
    for (auto field = fixed.begin(); field != fixed.end(); ++field)
        map.fixed[field.key().toStdString()] = field.value().toString().toStdString();
    return map;
}

} // namespace

ImportWizard::ImportWizard(Document& document, const QString& name, const QByteArray& bytes, CsvText table,
                           const Look& look, QWidget* parent)
    : QDialog(parent), m_document(document), m_name(name), m_bytes(bytes), m_csv(std::move(table)), m_look(look),
      m_table(new QTableWidget), m_answer(new PlainLabel), m_problems(new PlainLabel),
      m_accept(new PrimaryButton(look)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Import of %1").arg(name));
    setObjectName(QStringLiteral("wizard"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(10));
    auto* heading = new PlainLabel(tr("Import of %1").arg(name));
    heading->setFont(look.font(24, true));
    column->addWidget(heading);
    auto* hint =
        new PlainLabel(tr("Say over each column what it is. Several may be readings. What is not said is kept as "
                          "a note."));
    hint->setFont(look.font(16));
    hint->setObjectName(QStringLiteral("hint"));
    column->addWidget(hint);
    buildTable();
    column->addWidget(m_table, 1);
    column->addLayout(buildFixed());
    m_answer->setFont(look.font(24, true));
    m_answer->setObjectName(QStringLiteral("answer"));
    column->addWidget(m_answer);
    m_problems->setFont(look.font(16));
    m_problems->setObjectName(QStringLiteral("problems"));
    m_problems->setWordWrap(true);
    m_problems->setMinimumHeight(look.px(66));
    m_problems->setAlignment(Qt::AlignTop);
    column->addWidget(m_problems);
    m_accept->setFocusPolicy(Qt::StrongFocus);
    connect(m_accept, &QAbstractButton::clicked, this, &ImportWizard::take);
    column->addWidget(m_accept);
    const QSize room = parent != nullptr ? parent->size() : QSize(1280, 800);
    resize(room.width() - look.px(80), room.height() - look.px(60));

    const auto remembered = mapIn(QSettings().value(rememberedUnder()).toByteArray(), m_csv.header.size());
    ColumnMap begin = guessColumns(m_csv, QFileInfo(name).completeBaseName().toStdString());
    if (remembered) {
        const std::string batch = begin.fixed.count("batch") ? begin.fixed["batch"] : std::string();
        begin = *remembered;
        begin.fixed["batch"] = batch;
        hint->setText(tr("The columns are taken as they were said the last time. What is not said is kept as a note."));
    }
    show(begin);
}

QString ImportWizard::rememberedUnder() const {
    QCryptographicHash hash(QCryptographicHash::Sha1);
    for (const std::string& header : m_csv.header) hash.addData(QByteArray::fromStdString(header) + '\n');
    return QStringLiteral("import/columns-") + QString::fromLatin1(hash.result().toHex());
}

void ImportWizard::buildTable() {
    const int columns = static_cast<int>(m_csv.header.size());
    const int rows = std::min(shownRows, static_cast<int>(m_csv.rows.size()));
    m_table->setObjectName(QStringLiteral("preview"));
    m_table->setFont(m_look.font(16));
    m_table->setColumnCount(columns);
    m_table->setRowCount(aboveData + rows);
    m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    m_table->setSelectionMode(QAbstractItemView::NoSelection);
    m_table->setTabKeyNavigation(false);
    m_table->setFocusPolicy(Qt::NoFocus);
    QStringList heads;
    for (const std::string& header : m_csv.header) heads << QString::fromStdString(header);
    m_table->setHorizontalHeaderLabels(heads);
    QStringList lines{tr("is"), tr("in")};
    for (int i = 0; i < rows; ++i) lines << QString::number(m_csv.rows[static_cast<std::size_t>(i)].line);
    m_table->setVerticalHeaderLabels(lines);
    for (int column = 0; column < columns; ++column) {
        auto* is = new DropDown;
        is->setObjectName(QStringLiteral("is-%1").arg(column));
        is->setAccessibleName(tr("What the column %1 is").arg(heads[column]));
        is->addItem(tr("a note"), QString());
        for (const ReadingsColumn& one : readingsColumns())
            is->addItem(wordFor(one.name), QString::fromLatin1(one.name));
        is->addItem(tr("left out"), QString::fromLatin1(leaveOut));
        auto* unit = new DropDown;
        unit->setObjectName(QStringLiteral("unit-%1").arg(column));
        unit->setAccessibleName(tr("Unit of the column %1").arg(heads[column]));
        m_table->setCellWidget(0, column, is);
        m_table->setCellWidget(1, column, unit);
        connect(is, &QComboBox::currentIndexChanged, this, [this, column] {
            auto* box = m_unit[static_cast<std::size_t>(column)];
            const std::string name = m_is[static_cast<std::size_t>(column)]->currentData().toString().toStdString();
            const QSignalBlocker quiet(box);
            box->clear();
            for (const ReadingsColumn& one : readingsColumns()) {
                if (name != one.name) continue;
                for (const char* choice : one.units)
                    box->addItem(*choice == '\0' ? tr("by gate") : QString::fromLatin1(choice),
                                 QString::fromLatin1(choice));
            }
            box->setEnabled(box->count() > 0);
            changed();
        });
        connect(unit, &QComboBox::currentIndexChanged, this, &ImportWizard::changed);
        m_is.push_back(is);
        m_unit.push_back(unit);
        for (int row = 0; row < rows; ++row) {
            const auto& fields = m_csv.rows[static_cast<std::size_t>(row)].fields;
            const auto at = static_cast<std::size_t>(column);
            m_table->setItem(aboveData + row, column,
                             new QTableWidgetItem(at < fields.size() ? QString::fromStdString(fields[at]) : QString()));
        }
        m_table->setColumnWidth(column,
                                std::max(m_look.px(138), m_look.width(heads[column], 16, true) + m_look.px(20)));
    }
    m_table->verticalHeader()->setDefaultSectionSize(m_look.px(30));
    for (int row = 0; row < aboveData; ++row) m_table->setRowHeight(row, m_look.px(38));
}

QLayout* ImportWizard::buildFixed() {
    auto* row = new QHBoxLayout;
    row->setSpacing(m_look.px(8));
    const auto add = [&](const char* name, QWidget* editor, const QString& word, int width) {
        auto* label = new PlainLabel(word);
        label->setFont(m_look.font(16, true));
        editor->setObjectName(QStringLiteral("fixed-%1").arg(QLatin1String(name)));
        editor->setAccessibleName(word);
        editor->setFont(m_look.font(16));
        editor->setMinimumHeight(m_look.px(34));
        editor->setFixedWidth(m_look.px(width));
        label->setBuddy(editor);
        row->addWidget(label);
        row->addWidget(editor);
        m_fixed[name] = editor;
        if (auto* line = qobject_cast<QLineEdit*>(editor))
            connect(line, &QLineEdit::textChanged, this, &ImportWizard::changed);
        else
            connect(qobject_cast<QComboBox*>(editor), &QComboBox::currentTextChanged, this, &ImportWizard::changed);
    };
    const auto box = [&](const QStringList& choices) {
        auto* made = new DropDown;
        made->setEditable(true);
        made->addItems(choices);
        return made;
    };
    QStringList batches;
    for (const BatchSummary& batch : m_document.state().batches()) batches.prepend(QString::fromStdString(batch.name));
    QStringList testers{QString()};
    for (const Tester& tester : m_document.state().shop().testers) testers << QString::fromStdString(tester.name);
    add("batch", box(batches), tr("Batch"), 200);
    auto* gate = new DropDown;
    gate->addItems({QString(), QStringLiteral("quench"), QStringLiteral("temper"), QStringLiteral("block")});
    add("gate", gate, tr("Gate"), 110);
    add("cycle", new QLineEdit, tr("After temper"), 50);
    add("scale", box({QString(), QStringLiteral("HRC"), QStringLiteral("HRA"), QStringLiteral("HR15N")}), tr("Scale"),
        100);
    add("tester", box(testers), tr("Tester"), 200);
    row->addStretch();
    return row;
}

void ImportWizard::show(const ColumnMap& map) {
    m_showing = true;
    for (std::size_t i = 0; i < m_is.size(); ++i) {
        const int is = m_is[i]->findData(QString::fromStdString(map.columns[i].is));
        m_is[i]->setCurrentIndex(std::max(0, is));
        if (is <= 0) emit m_is[i]->currentIndexChanged(0);
        const int unit = m_unit[i]->findData(QString::fromStdString(map.columns[i].unit));
        if (m_unit[i]->count() > 0) m_unit[i]->setCurrentIndex(std::max(0, unit));
    }
    for (const auto& [name, editor] : m_fixed)
        setText(editor, map.fixed.count(name) ? map.fixed.at(name) : std::string());
    m_showing = false;
    changed();
}

ColumnMap ImportWizard::map() const {
    ColumnMap map;
    for (std::size_t i = 0; i < m_is.size(); ++i)
        map.columns.push_back(
            {m_is[i]->currentData().toString().toStdString(), m_unit[i]->currentData().toString().toStdString()});
    for (const auto& [name, editor] : m_fixed) {
        if (const std::string text = textOf(editor); editor->isEnabled() && !text.empty()) map.fixed[name] = text;
    }
    return map;
}

ImportWizard::~ImportWizard() {
    if (m_trial) m_trial->giveUp(); // nobody wants to know any more
}

// What a column says is not asked for below.
void ImportWizard::changed() {
    if (m_showing) return;
    for (const auto& [name, editor] : m_fixed) {
        const bool said = std::any_of(m_is.begin(), m_is.end(), [name = name](const QComboBox* box) {
            return box->currentData().toString() == QLatin1String(name.c_str());
        });
        editor->setEnabled(!said);
    }
    tryIt();
}

void ImportWizard::tryIt() {
    if (m_trial) {
        m_again = true;
        m_trial->giveUp();
        return;
    }
    m_trial = std::make_shared<Progress>();
    const ColumnMap said = map();
    QStringList missing;
    for (const ReadingsColumn& column : readingsColumns()) {
        if (!column.required || column.name == std::string("gate")) continue;
        const bool known = said.fixed.count(column.name) != 0 ||
                           std::any_of(said.columns.begin(), said.columns.end(),
                                       [&](const ColumnMap::Column& c) { return c.is == column.name; });
        if (!known) missing << wordFor(column.name);
    }
    if (!missing.isEmpty()) {
        m_trial.reset();
        return tell(Error{ErrorKind::argument, "",
                          tr("Say which column is the %1.").arg(missing.join(tr(" and the "))).toStdString()});
    }
    m_document.query<ImportReport>(
        [tables = m_document.state().tables(), said, name = m_name, bytes = m_bytes, trial = m_trial](
            Logbook& logbook) { return importReadings(logbook, *tables, name, bytes, said, true, trial.get()); },
        [guard = QPointer<ImportWizard>(this)](const Result<ImportReport>& tried) {
            if (guard == nullptr) return;
            guard->m_trial.reset();
            if (std::exchange(guard->m_again, false)) return guard->tryIt();
            guard->tell(tried);
        });
}

void ImportWizard::tell(const Result<ImportReport>& tried) {
    for (int row = aboveData; row < m_table->rowCount(); ++row) {
        for (int column = 0; column < m_table->columnCount(); ++column) {
            m_table->item(row, column)->setBackground(QBrush());
            m_table->item(row, column)->setToolTip(QString());
        }
    }
    m_readings = tried ? tried->readings : 0;
    m_accept->setEnabled(m_readings > 0);
    if (!tried) {
        m_answer->setText(QString::fromStdString(tried.error().message()));
        m_problems->clear();
        m_accept->show(tr("Nothing to take yet"), tr("Esc gives up"), {});
        return;
    }
    const auto counted = [](std::size_t count, const QString& one, const QString& many) {
        return (count == 1 ? one : many).arg(count);
    };
    const auto number = [](int count) { return static_cast<std::size_t>(count); };
    QStringList answer{counted(number(tried->readings), tr("%1 reading"), tr("%1 readings"))};
    if (tried->blades > 0) answer << counted(number(tried->blades), tr("%1 new blade"), tr("%1 new blades"));
    if (tried->batches > 0) answer << counted(number(tried->batches), tr("%1 new batch"), tr("%1 new batches"));
    if (tried->already_there > 0) answer << tr("%1 there already").arg(tried->already_there);
    if (!tried->rejected.empty())
        answer << counted(tried->rejected.size(), tr("%1 line left out"), tr("%1 lines left out"));
    m_answer->setText(answer.join(QStringLiteral(", ")));
    QStringList problems;
    for (const auto& bad : tried->rejected) {
        const QString reason = QString::fromStdString(bad.reason);
        if (problems.size() < 3) problems << tr("Line %1: %2").arg(bad.line).arg(reason);
        for (int row = aboveData; row < m_table->rowCount(); ++row) {
            if (m_csv.rows[static_cast<std::size_t>(row - aboveData)].line != bad.line) continue;
            for (int column = 0; column < m_table->columnCount(); ++column) {
                m_table->item(row, column)->setBackground(m_look.palette.steel);
                m_table->item(row, column)->setToolTip(plainTip(reason));
            }
        }
    }
    if (tried->rejected.size() > 3)
        problems << tr("and %1 more; they are shaded above").arg(tried->rejected.size() - 3);
    m_problems->setText(problems.join(QLatin1Char('\n')));
    m_accept->show(m_readings > 0 ? tr("Take %1 readings").arg(m_readings) : tr("Nothing to take yet"),
                   m_readings > 0 ? tr("it can be taken back; Esc gives up") : tr("Esc gives up"),
                   m_readings > 0 ? tr("Enter") : QString());
}

void ImportWizard::take() {
    if (m_readings == 0 || m_trial) return;
    const ColumnMap said = map();
    QSettings().setValue(rememberedUnder(), written(said));
    auto report = std::make_shared<ImportReport>();
    m_accept->setEnabled(false);
    auto progress = std::make_shared<Progress>();
    const QPointer waiting = new Waiting(tr("Taking in %1").arg(m_name), progress, m_look, this);
    m_document.perform(
        [tables = m_document.state().tables(), report, said, name = m_name, bytes = m_bytes,
         progress](Logbook& logbook) -> Result<Done> {
            auto taken = importReadings(logbook, *tables, name, bytes, said, false, progress.get());
            if (!taken) return taken.error();
            *report = std::move(taken).value();
            return Done{};
        },
        [guard = QPointer<ImportWizard>(this), report, waiting](const Result<Done>& done) {
            if (waiting) waiting->finish();
            if (guard == nullptr) return;
            if (!done) return guard->tell(done.error());
            const auto then = guard->m_done;
            guard->accept();
            if (then) then(*report);
        });
}

void ImportWizard::ask(std::function<void(const ImportReport&)> done) {
    m_done = std::move(done);
    open();
    if (!m_is.empty()) m_is.front()->setFocus();
}

void ImportWizard::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return take();
    QDialog::keyPressEvent(event);
}

} // namespace rollcall

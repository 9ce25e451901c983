// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/protocol_page.h"

#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "files/disk.h"
#include "logbook/actions/proof.h"
#include "words/words.h"

#include <algorithm>
#include <QFile>
#include <QFileInfo>
#include <QKeyEvent>

namespace rollcall {

namespace {

QString kindName(StepKind kind) {
    switch (kind) {
    case StepKind::number:
        return ProtocolPage::tr("a number");
    case StepKind::count:
        return ProtocolPage::tr("strokes counted");
    case StepKind::yesNo:
        return ProtocolPage::tr("yes or no");
    case StepKind::cuts:
        return ProtocolPage::tr("cuts until dull");
    case StepKind::bend:
        return ProtocolPage::tr("a bend");
    }
    return {};
}

constexpr int stepHeight = 58;

QString text(const std::optional<double>& value) {
    return value ? QString::number(*value, 'g', 6) : QString();
}

} // namespace

ProtocolPage::ProtocolPage(Document& document, Seams seams, const Look& look)
    : Bench(document, look), m_seams(std::move(seams)), m_steps(new RowList(stepHeight, look, this)) {
    setObjectName(QStringLiteral("protocol-page"));
    tellUnder(this, m_told);
    m_steps->setObjectName(QStringLiteral("protocol-steps"));
    m_steps->setAccessibleName(tr("Steps of the protocol"));
    connect(m_steps, &RowList::chosen, this, [this](int step) {
        m_step = step;
        emit changed();
    });
}

void ProtocolPage::refresh() {
    m_protocols.clear();
    for (const Protocol& own : m_document.state().shop().own_protocols) m_protocols.push_back({own, true});
    for (const Protocol& shipped : m_document.tables().protocols()) m_protocols.push_back({shipped, false});
    m_index = std::clamp(m_index, 0, static_cast<int>(m_protocols.size()) - 1);
    m_step = std::clamp(m_step, 0, chosen() != nullptr ? static_cast<int>(chosen()->protocol.steps.size()) - 1 : 0);
    m_steps->show({chosen() != nullptr ? static_cast<int>(chosen()->protocol.steps.size()) : 0, m_step,
                   [this](QPainter& painter, const QRect& row, int i) { paintStep(painter, row, i); },
                   [this](int i) {
                       const ProtocolStep& step = chosen()->protocol.steps[static_cast<std::size_t>(i)];
                       QStringList says{
                           tr("%1. %2: %3").arg(i + 1).arg(QString::fromStdString(step.name), kindName(step.kind))};
                       for (const std::string& more : {step.on, step.note}) {
                           if (!more.empty()) says << QString::fromStdString(more);
                       }
                       return says.join(QStringLiteral(", "));
                   }});
    setAccessibleName(content().sub);
    update();
}

void ProtocolPage::resizeEvent(QResizeEvent*) {
    m_steps->setGeometry(0, px(44), width(), height() - px(48));
}

const ProtocolPage::Listed* ProtocolPage::chosen() const {
    return m_protocols.empty() ? nullptr : &m_protocols[static_cast<std::size_t>(m_index)];
}

void ProtocolPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    m_told.clear();
    painter.fillRect(rect(), p.panel);
    const Listed* one = chosen();
    if (one == nullptr) return;
    m_told.add(QRectF(0, 0, width(), px(44)), tr("The protocol in hand; left and right go to another"));
    drawFitted(painter, 0, px(28), QString::fromStdString(one->protocol.name), width() - px(170), m_look, 24, true,
               p.ink);
    drawText(painter, width(), px(28),
             tr("%1 of %2, %3").arg(m_index + 1).arg(m_protocols.size()).arg(one->own ? tr("own") : tr("shipped")),
             m_look.font(16), p.muted, Qt::AlignRight);
}

void ProtocolPage::paintStep(QPainter& painter, const QRect& row, int i) const {
    const Palette& p = palette();
    const ProtocolStep& step = chosen()->protocol.steps[static_cast<std::size_t>(i)];
    const bool current = i == m_step;
    painter.fillRect(row, current ? p.paper : p.panel);
    if (current) painter.fillRect(row.left(), row.top(), px(4), row.height(), p.primary);
    painter.fillRect(row.left(), row.bottom(), row.width(), 1, p.hair);
    const int first = row.top() + px(26);
    drawText(painter, px(30), first, QString::number(i + 1), m_look.font(16), p.muted, Qt::AlignRight);
    drawFitted(painter, px(44), first, QString::fromStdString(step.name), px(210), m_look, 18, true,
               current ? p.primary : p.ink);
    QStringList right{kindName(step.kind)};
    if (step.least) right << tr("≥ %1").arg(*step.least);
    if (step.most) right << tr("≤ %1").arg(*step.most);
    const QString asked = right.join(QLatin1Char(' '));
    drawText(painter, row.right() - px(4), first, asked, m_look.font(16), p.ink, Qt::AlignRight);
    // The form of a step tells these whole.
    const int between = row.right() - px(4 + 16) - m_look.width(asked, 16) - px(262);
    drawText(painter, px(262), first, shortened(QString::fromStdString(step.on), m_look.font(16), between),
             m_look.font(16), p.ink);
    QStringList notes;
    if (step.no_touch_up) notes << tr("no touch-up");
    if (!step.fail_ends) notes << tr("a failure goes on");
    if (step.destroys) notes << tr("destroys");
    if (step.photo) notes << tr("photo wanted");
    if (step.hold_s) notes << tr("%1 s timer").arg(*step.hold_s);
    if (!step.caution.empty()) notes << tr("caution: %1").arg(QString::fromStdString(step.caution));
    if (!step.note.empty()) notes << QString::fromStdString(step.note);
    drawText(painter, px(44), row.top() + px(48),
             shortened(notes.join(QStringLiteral(", ")), m_look.font(14), row.width() - px(50)), m_look.font(14),
             p.muted);
}

ColumnContent ProtocolPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    const Listed* one = chosen();
    if (one == nullptr) return content;
    content.caption = tr("Protocol");
    content.state = State::notYet;
    content.word = tr("%1 steps").arg(one->protocol.steps.size());
    content.sub = one->protocol.destroys() ? tr("It destroys the piece.") : tr("The piece may live on.");
    content.act = tr("Change step %1").arg(m_step + 1);
    content.detail = one->own ? tr("trials that ran keep the old one") : tr("as a protocol of the shop's own");
    content.left = tr("Add a step");
    content.left_key = QStringLiteral("A");
    content.right = tr("Remove it");
    content.right_key = QStringLiteral("X");
    content.lines.push_back({Tone::note, tr("Left and right: another protocol"), {}, false});
    content.lines.push_back({Tone::note, tr("Up and down: another step; with Shift it moves"), {}, false});
    return content;
}

void ProtocolPage::keep(Protocol protocol) {
    const Listed* one = chosen();
    const bool shipped = std::any_of(m_document.tables().protocols().begin(), m_document.tables().protocols().end(),
                                     [&](const Protocol& p) { return p.name == protocol.name; });
    if (one != nullptr && !one->own && shipped)
        protocol.name = tr("%1, own").arg(QString::fromStdString(protocol.name)).toStdString();
    m_document.perform([protocol](Logbook& logbook) { return keepProtocol(logbook, protocol); },
                       [this, name = protocol.name](const Result<Done>& done) {
                           if (!done) return;
                           refresh();
                           for (std::size_t i = 0; i < m_protocols.size(); ++i) {
                               if (m_protocols[i].own && m_protocols[i].protocol.name == name)
                                   m_index = static_cast<int>(i);
                           }
                           emit said(tr("%1 kept as the shop's own").arg(QString::fromStdString(name)), false);
                           emit changed();
                       });
}

void ProtocolPage::editStep(bool fresh) {
    const Listed* one = chosen();
    if (one == nullptr) return;
    const ProtocolStep now = fresh ? ProtocolStep{} : one->protocol.steps[static_cast<std::size_t>(m_step)];
    std::vector<FormChoice> kinds;
    for (std::size_t i = 0; i < namesOf<StepKind>.size(); ++i)
        kinds.emplace_back(namesOf<StepKind>[i], kindName(static_cast<StepKind>(i)));
    std::vector<FormChoice> cautions{QString()};
    for (const std::string& word : cautionWords()) cautions.emplace_back(QString::fromStdString(word));
    const auto yesNo = [](bool yes) { return yes ? QStringLiteral("yes") : QStringLiteral("no"); };
    const auto s = [](const std::string& t) { return QString::fromStdString(t); };
    auto* form = new FormDialog(fresh ? tr("A step more") : tr("Step %1").arg(m_step + 1), tr("Keep it"),
                                {{"name", tr("Name"), {}, s(now.name), {}, false},
                                 {"kind", tr("Answered by"), {}, QString::fromLatin1(nameOf(now.kind)), kinds, false},
                                 {"on", tr("Done on"), {}, s(now.on), {}, false},
                                 {"unit", tr("Unit"), {}, s(now.unit), {}, false},
                                 {"least", tr("At least"), tr("blank: no limit"), text(now.least), {}, false},
                                 {"most", tr("At most"), tr("blank: no limit"), text(now.most), {}, false},
                                 {"every", tr("Look every"), tr("cuts"), QString::number(now.every), {}, false},
                                 {"hold", tr("Timer"), tr("seconds; blank: none"), text(now.hold_s), {}, false},
                                 {"stone", tr("No touch-up"), {}, yesNo(now.no_touch_up), yesOrNo(), false},
                                 {"ends", tr("A failure ends it"), {}, yesNo(now.fail_ends), yesOrNo(), false},
                                 {"destroys", tr("Destroys the piece"), {}, yesNo(now.destroys), yesOrNo(), false},
                                 {"photo", tr("Photo wanted"), {}, yesNo(now.photo), yesOrNo(), false},
                                 {"caution", tr("Caution"), tr("read before it"), s(now.caution), cautions, false},
                                 {"note", tr("How"), {}, s(now.note), {}, false}},
                                m_look, window());
    const auto read = [](const FormValues& v) -> Result<ProtocolStep> {
        ProtocolStep step;
        step.name = v["name"].toStdString();
        step.kind = named<StepKind>(v["kind"].toStdString()).value_or(StepKind::number);
        step.on = v["on"].toStdString();
        step.unit = v["unit"].toStdString();
        for (const auto& [field, into] :
             {std::pair("least", &step.least), std::pair("most", &step.most), std::pair("hold", &step.hold_s)}) {
            if (v[QLatin1String(field)].isEmpty()) continue;
            const auto value = parseNumber(v[QLatin1String(field)].toStdString());
            if (!value) return Error{ErrorKind::argument, field, tr("Type a number, or leave it blank.").toStdString()};
            *into = *value;
        }
        step.every = v["every"].toInt();
        step.no_touch_up = v["stone"] == QLatin1String("yes");
        step.fail_ends = v["ends"] == QLatin1String("yes");
        step.destroys = v["destroys"] == QLatin1String("yes");
        step.photo = v["photo"] == QLatin1String("yes");
        step.caution = v["caution"].toStdString();
        step.note = v["note"].toStdString();
        if (const std::string fault = stepFault(step); !fault.empty()) return Error{ErrorKind::argument, "name", fault};
        return step;
    };
    form->ask(
        [read](const FormValues& v) -> FormFault {
            const auto step = read(v);
            return step ? FormFault{}
                        : FormFault{QString::fromStdString(step.error().place),
                                    QString::fromStdString(step.error().text)};
        },
        [this, read, fresh, protocol = one->protocol](const FormValues& v) mutable {
            const auto at = protocol.steps.begin() + m_step;
            if (fresh)
                protocol.steps.insert(at + 1, *read(v));
            else
                *at = *read(v);
            if (fresh) ++m_step;
            keep(std::move(protocol));
        });
}

void ProtocolPage::removeStep() {
    const Listed* one = chosen();
    if (one == nullptr) return;
    if (one->protocol.steps.size() == 1) return emit said(tr("A protocol needs a step."), true);
    Protocol protocol = one->protocol;
    protocol.steps.erase(protocol.steps.begin() + m_step);
    keep(std::move(protocol));
}

void ProtocolPage::moveStep(int by) {
    const Listed* one = chosen();
    const int to = m_step + by;
    if (one == nullptr || to < 0 || to >= static_cast<int>(one->protocol.steps.size())) return;
    Protocol protocol = one->protocol;
    std::swap(protocol.steps[static_cast<std::size_t>(m_step)], protocol.steps[static_cast<std::size_t>(to)]);
    m_step = to;
    keep(std::move(protocol));
}

void ProtocolPage::newProtocol() {
    auto* form = new FormDialog(
        tr("A protocol of the shop's own"), tr("Make it"),
        {{"name", tr("Name"), {}, {}, {}, false}, {"step", tr("First step"), {}, {}, {}, false}}, m_look, window());
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("A protocol needs a name.")};
            for (const Listed& listed : m_protocols) {
                if (listed.protocol.name == v["name"].toStdString())
                    return {QStringLiteral("name"), tr("There is one of this name.")};
            }
            return v["step"].isEmpty() ? FormFault{QStringLiteral("step"), tr("A protocol needs a step.")}
                                       : FormFault{};
        },
        [this](const FormValues& v) {
            ProtocolStep step;
            step.name = v["step"].toStdString();
            m_step = 0;
            keep({v["name"].toStdString(), {step}});
        });
}

void ProtocolPage::exportCsv() {
    const Listed* one = chosen();
    if (one == nullptr) return;
    const QString path = m_seams.chooseFile(window(), tr("Save the protocol"), tr("Tables (*.csv)"), true);
    if (path.isEmpty()) return;
    const QByteArray bytes = QByteArray::fromStdString(protocolText(one->protocol));
    const auto written = writeFile(path, bytes);
    emit said(written ? tr("%1 written").arg(path) : words::errorText(written.error()), !written);
}

void ProtocolPage::importCsv() {
    const QString path = m_seams.chooseFile(window(), tr("Take in a protocol"), tr("Tables (*.csv)"), false);
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(path), true);
    const auto read = readProtocols(file.readAll().toStdString());
    if (!read) return emit said(tr("%1: %2").arg(QFileInfo(path).fileName(), words::errorText(read.error())), true);
    for (const Protocol& protocol : *read) keep(protocol);
}

Commands ProtocolPage::commands() {
    const auto one = [this] { return chosen() == nullptr ? tr("No protocol is chosen.") : QString(); };
    return {{QStringLiteral("protocol.add"), tr("Add a step"), tr("behind the one in hand"), Verb::add,
             [this] { editStep(true); }, one},
            {QStringLiteral("protocol.remove"), tr("Step out"), tr("the one in hand"), Verb::out,
             [this] { removeStep(); }, one},
            {QStringLiteral("protocol.new"), tr("New protocol"), tr("empty"), Verb::makeNew, [this] { newProtocol(); }},
            {QStringLiteral("protocol.save"), tr("Save as CSV"), tr("to share it"), Verb::none, [this] { exportCsv(); },
             one},
            {QStringLiteral("protocol.import"), tr("Take one in"), tr("from a CSV file"), Verb::inAndOut,
             [this] { importCsv(); }}};
}

QStringList ProtocolPage::movements() const {
    return {tr("Left and right   the protocol"), tr("Up and down   the step; Shift: moves it")};
}

bool ProtocolPage::key(QKeyEvent* event) {
    const Listed* one = chosen();
    if (one == nullptr) return false;
    const bool shift = event->modifiers() & Qt::ShiftModifier;
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
        m_index = (m_index + (event->key() == Qt::Key_Right ? 1 : static_cast<int>(m_protocols.size()) - 1)) %
                  static_cast<int>(m_protocols.size());
        m_step = 0;
        emit changed();
        return true;
    case Qt::Key_Up:
    case Qt::Key_Down: {
        const int by = event->key() == Qt::Key_Down ? 1 : -1;
        if (shift) return moveStep(by), true;
        m_step = std::clamp(m_step + by, 0, static_cast<int>(one->protocol.steps.size()) - 1);
        emit changed();
        return true;
    }
    default:
        break;
    }
    return false;
}

HelpText ProtocolPage::help() const {
    return {
        tr("What exactly is done in a trial, and when has it passed?"),
        {{Pictogram::arrows, tr("Left and right choose a protocol, up and down a step.")},
         {Pictogram::pen,
          tr("Change a step: the protocol becomes one of the shop, and old trials keep the one they ran with.")},
         {Pictogram::boxes,
          tr("Add, move and remove steps; a step may ask for a count, a number, yes or no, a hold, a bend, a photo.")},
         {Pictogram::page, tr("Save it as CSV to share it, or take one in.")}},
        {QStringLiteral("E32")},
        tr("What is asked is the shop's judgement. No protocol replaces a standard that a buyer names.")};
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/shop_actions.h"

#include "app/batch/batch_form.h"
#include "app/shared/choice_dialog.h"
#include "core/base/number.h"
#include "words/words.h"

#include <algorithm>
#include <memory>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QStandardPaths>

namespace rollcall {

Seams Seams::real() {
    return {[](QWidget* parent, const QString& title, const QString& filter, bool making) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
        return making ? QFileDialog::getSaveFileName(parent, title, folder + QStringLiteral("/shop.rollcall"), filter)
                      : QFileDialog::getOpenFileName(parent, title, folder, filter);
    }};
}

ShopActions::ShopActions(Document& document, ReadingStation& station, const Look& look, Seams seams, QWidget* window)
    : QObject(window), m_document(document), m_station(station), m_look(look), m_seams(std::move(seams)),
      m_window(window) {
    connect(&m_station, &ReadingStation::testerNeeded, this, [this] { addTester(); });
}

void ShopActions::notice(const QString& title, const QStringList& lines) {
    (new ChoiceDialog(title, lines, {}, m_look, m_window))->ask({});
}

void ShopActions::afterWork(const QString& what, const Result<Done>& done) {
    if (done) emit said(what, false);
}

bool ShopActions::needsBlade(const Blade*& blade) {
    blade = m_document.blade();
    if (blade == nullptr) emit said(tr("No blade is chosen."), true);
    return blade != nullptr;
}

void ShopActions::newBatch(bool sameAgain) {
    if (!m_document.isOpen()) return;
    if (m_document.state().shop.testers.empty()) return addTester([this, sameAgain] { newBatch(sameAgain); });
    const Batch* like = sameAgain && m_document.hasBatch() ? &m_document.batch() : nullptr;
    auto* form = new FormDialog(like != nullptr ? tr("Same again") : tr("New batch"), tr("Make the batch"),
                                batchFields(m_document.tables(), like, m_document.state().batches), m_look, m_window);
    form->ask(
        [this](const FormValues& values) {
            return batchFromForm(values, m_document.tables(), m_document.state().batches).fault;
        },
        [this](const FormValues& values) {
            const BatchDraft draft = batchFromForm(values, m_document.tables(), m_document.state().batches).draft;
            auto id = std::make_shared<std::string>();
            m_document.perform(
                [draft, id](Logbook& logbook) -> Result<Done> {
                    const auto made = logbook.addBatch(draft);
                    if (!made) return made.error();
                    *id = *made;
                    return Done{};
                },
                [this, id, quench = draft.plan[indexOf(Gate::quench)].required](const Result<Done>& done) {
                    if (!done) return;
                    m_document.selectBatch(*id, [this, quench](const Result<Done>&) {
                        emit gateWanted(quench ? Gate::quench : Gate::temper);
                    });
                });
        });
}

void ShopActions::chooseBatch() {
    std::vector<Choice> choices;
    std::vector<std::string> ids;
    const auto& batches = m_document.state().batches;
    for (auto batch = batches.rbegin(); batch != batches.rend(); ++batch) {
        const QString key = choices.size() < 9 ? QString::number(choices.size() + 1) : QString();
        choices.push_back(
            {key, QString::fromStdString(batch->name),
             tr("%1 blades, %2")
                 .arg(batch->blades)
                 .arg(batch->grade.empty() ? tr("grade not known") : QString::fromStdString(batch->grade))});
        ids.push_back(batch->id);
    }
    if (choices.empty()) return emit said(tr("There is no batch yet. N makes one."), true);
    (new ChoiceDialog(tr("Batches, newest first"), {}, choices, m_look, m_window))->ask([this, ids](int i) {
        m_document.selectBatch(ids[static_cast<std::size_t>(i)]);
    });
}

void ShopActions::importFromFile() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Import readings"), tr("CSV files (*.csv *.txt);;All files (*)"), false);
    if (!path.isEmpty()) importFile(path);
}

void ShopActions::importFile(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return notice(tr("Nothing imported"), {tr("%1 cannot be read.").arg(path)});
    const QByteArray bytes = file.readAll();
    auto report = std::make_shared<ImportReport>();
    auto batch = std::make_shared<std::string>();
    m_document.perform(
        [this, bytes, report, batch, name = QFileInfo(path).fileName()](Logbook& logbook) -> Result<Done> {
            auto imported = logbook.importReadings(m_document.tables(), name, bytes);
            if (!imported) return imported.error();
            *report = std::move(imported).value();
            const auto batches = logbook.batches();
            if (report->batches > 0 && batches && !batches->empty()) *batch = batches->back().id;
            return Done{};
        },
        [this, report, batch](const Result<Done>& done) {
            if (!done) return notice(tr("Nothing imported"), {words::errorText(done.error())});
            QStringList lines{tr("Readings taken: %1. New blades: %2. New batches: %3.")
                                  .arg(report->readings)
                                  .arg(report->blades)
                                  .arg(report->batches)};
            if (report->already_there > 0)
                lines << tr("There already and not taken again: %1.").arg(report->already_there);
            for (const auto& bad : report->rejected)
                lines << tr("Line %1 left out: %2").arg(bad.line).arg(QString::fromStdString(bad.reason));
            if (!batch->empty()) m_document.selectBatch(*batch);
            notice(tr("Readings imported"), lines);
        });
}

void ShopActions::openPath(const QString& path, bool create) {
    m_document.open(path, create, [this, path](const Result<Done>& done) {
        if (!done)
            notice(tr("This logbook was not opened"), {words::errorText(done.error())});
        else if (!m_document.readOnlyReason().isEmpty())
            notice(tr("For reading only"),
                   {tr("%1: %2. Nothing can be logged in it here.").arg(path, m_document.readOnlyReason())});
    });
}

void ShopActions::openLogbook() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Open a logbook"), tr("Rollcall logbooks (*.rollcall);;All files (*)"), false);
    if (!path.isEmpty()) openPath(path, false);
}

void ShopActions::newLogbook() {
    const QString path = m_seams.chooseFile(m_window, tr("New logbook"), tr("Rollcall logbooks (*.rollcall)"), true);
    if (!path.isEmpty()) openPath(path, true);
}

void ShopActions::choosePerson() {
    std::vector<Choice> choices;
    std::vector<QString> initials;
    for (const Person& person : m_document.state().shop.people) {
        choices.push_back({QString::number(choices.size() + 1), QString::fromStdString(person.initials),
                           QString::fromStdString(person.name)});
        initials.push_back(QString::fromStdString(person.initials));
    }
    choices.push_back({QStringLiteral("n"), tr("Someone new"), {}});
    (new ChoiceDialog(tr("Who is at work?"), {tr("Written with every entry.")}, choices, m_look, m_window))
        ->ask([this, initials](int i) {
            if (i < static_cast<int>(initials.size()))
                return m_document.choosePerson(initials[static_cast<std::size_t>(i)]);
            auto* form = new FormDialog(tr("Someone new"), tr("Add"),
                                        {{"initials", tr("Initials"), tr("two or three letters"), {}, {}, false},
                                         {"name", tr("Note"), tr("may stay blank"), {}, {}, false}},
                                        m_look, m_window);
            form->ask(
                [](const FormValues& v) {
                    return v["initials"].isEmpty() ? FormFault{QStringLiteral("initials"), tr("Type the initials.")}
                                                   : FormFault{};
                },
                [this](const FormValues& v) {
                    m_document.perform(
                        [v](Logbook& logbook) -> Result<Done> {
                            const auto id = logbook.addPerson(v["initials"].toStdString(), v["name"].toStdString());
                            if (!id) return id.error();
                            return Done{};
                        },
                        [this, v](const Result<Done>& done) {
                            if (done) m_document.choosePerson(v["initials"]);
                        });
                });
        });
}

void ShopActions::addTester(std::function<void()> then) {
    std::vector<FormField> fields{
        {"initials", tr("Your initials"), tr("written with every entry"), m_document.person(), {}, false},
        {"name", tr("Tester"), tr("what you call it"), tr("Bench 1"), {}, false},
        {"display",
         tr("Display"),
         tr("how fine it reads"),
         tr("digital, 0.1"),
         {tr("digital, 0.1"), tr("dial, 0.5")},
         false},
        {"indenter", tr("Indenter"), tr("its number"), tr("cone"), {}, false},
        {"anvil", tr("Anvil"), tr("which one"), tr("flat"), {}, false},
        {"block", tr("Test block"), tr("certified HRC; blank if you have none"), {}, {}, false},
        {"uncertainty", tr("Block ±"), tr("U on its certificate"), QStringLiteral("0.3"), {}, false}};
    auto* form = new FormDialog(tr("Your tester and block"), tr("Use this tester"), fields, m_look, m_window);
    const auto number = [](const QString& text) { return parseNumber(text.toStdString()); };
    form->ask(
        [this, number](const FormValues& v) -> FormFault {
            if (v["initials"].isEmpty()) return {QStringLiteral("initials"), tr("Type your initials.")};
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give the tester a name.")};
            for (const Tester& t : m_document.state().shop.testers) {
                if (QString::fromStdString(t.name) == v["name"])
                    return {QStringLiteral("name"), tr("There is a tester of that name.")};
            }
            if (v["block"].isEmpty()) return {};
            const auto block = number(v["block"]);
            if (!block || *block < 20 || *block > 70)
                return {QStringLiteral("block"), tr("Type the certified value, 20 to 70 HRC.")};
            const auto u = number(v["uncertainty"]);
            if (!u || *u < 0 || *u > 3)
                return {QStringLiteral("uncertainty"), tr("Type the uncertainty on the certificate, such as 0.3.")};
            return {};
        },
        [this, number, then](const FormValues& v) {
            Tester tester;
            tester.name = v["name"].toStdString();
            tester.resolution = v["display"].startsWith(tr("dial")) ? 0.5 : 0.1;
            tester.indenter = v["indenter"].toStdString();
            tester.anvil = v["anvil"].toStdString();
            std::optional<Block> block;
            if (!v["block"].isEmpty()) {
                block.emplace();
                block->name = v["block"].toStdString();
                block->certified = number(v["block"]).value();
                block->uncertainty = number(v["uncertainty"]).value();
            }
            const auto& people = m_document.state().shop.people;
            const bool known = std::any_of(people.begin(), people.end(), [&](const Person& p) {
                return QString::fromStdString(p.initials) == v["initials"];
            });
            m_document.choosePerson(v["initials"]);
            auto id = std::make_shared<std::string>();
            m_document.perform(
                [tester, block, known, v, id](Logbook& logbook) -> Result<Done> {
                    return logbook.inOneTransaction([&]() -> Result<Done> {
                        if (!known) {
                            if (const auto person = logbook.addPerson(v["initials"].toStdString(), {}); !person)
                                return person.error();
                        }
                        const auto made = logbook.addTester(tester);
                        if (!made) return made.error();
                        *id = *made;
                        if (block) {
                            if (const auto b = logbook.addBlock(*block); !b) return b.error();
                        }
                        return Done{};
                    });
                },
                [this, id, then](const Result<Done>& done) {
                    if (!done) return;
                    m_document.chooseTester(*id);
                    if (then) then();
                });
        });
}

void ShopActions::verify() {
    if (!m_document.hasBatch()) return emit said(tr("Make or open a batch first."), true);
    if (m_document.tester() == nullptr) return addTester([this] { verify(); });
    std::vector<Block> blocks = m_document.state().shop.blocks;
    if (blocks.empty()) return emit said(tr("No test block yet. F10: a new tester and block."), true);
    const Window window = windowOf(m_document.batch(), m_document.gate(), m_document.tables());
    const double work = window.low && window.high ? (*window.low + *window.high) / 2 : window.low.value_or(60);
    std::stable_sort(blocks.begin(), blocks.end(), [&](const Block& a, const Block& b) {
        return std::abs(a.certified - work) < std::abs(b.certified - work);
    });
    const auto begin = [this](const Block& block) {
        if (m_document.gate() != Gate::quench && m_document.gate() != Gate::temper) m_document.selectGate(Gate::temper);
        m_station.beginVerification(block);
    };
    if (blocks.size() == 1) return begin(blocks.front());
    std::vector<Choice> choices;
    for (const Block& block : blocks) {
        const double off = std::abs(block.certified - work);
        choices.push_back({QString::number(choices.size() + 1), tr("Block %1").arg(QString::fromStdString(block.name)),
                           off <= 5 ? tr("%1 from the work").arg(off, 0, 'f', 1)
                                    : tr("%1 from the work: more than 5, says little").arg(off, 0, 'f', 1)});
    }
    (new ChoiceDialog(tr("On which block?"), {}, choices, m_look, m_window))->ask([blocks, begin](int i) {
        begin(blocks[static_cast<std::size_t>(i)]);
    });
}

void ShopActions::strikeLast() {
    const QString last = m_station.lastReading();
    if (last.isEmpty()) return emit said(tr("There is no reading to strike out."), true);
    std::vector<Choice> choices;
    for (int i = 0; i < 6; ++i)
        choices.push_back({QString::number(i + 1), words::strikeName(static_cast<StrikeReason>(i)), {}});
    (new ChoiceDialog(tr("Strike out %1. Why?").arg(last), {tr("It stays in the log, with the reason.")}, choices,
                      m_look, m_window))
        ->ask([this](int i) { m_station.strikeLast(static_cast<StrikeReason>(i)); });
}

void ShopActions::askReason(const QString& title, const QString& act, const QStringList& usual,
                            std::function<void(const std::string&)> then) {
    auto* form =
        new FormDialog(title, act, {{"reason", tr("Reason"), tr("choose or type"), {}, usual, true}}, m_look, m_window);
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("A reason is needed.")} : FormFault{};
        },
        [then](const FormValues& v) { then(v["reason"].toStdString()); });
}

void ShopActions::excuse() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const QString what = tr("%1 at %2").arg(QString::fromStdString(blade->mark), words::gateName(m_document.gate()));
    askReason(tr("Excuse %1").arg(what), tr("Excuse"),
              {QString(), tr("a sibling stands for it"), tr("goes to a destructive test"),
               tr("cannot be read: no flat left")},
              [this, what, id = blade->id, gate = m_document.gate()](const std::string& reason) {
                  m_document.perform(
                      [id, gate, reason](Logbook& logbook) { return logbook.excuse(id, gate, reason); },
                      [this, what](const Result<Done>& done) { afterWork(tr("%1 excused").arg(what), done); });
              });
}

void ShopActions::logTemper() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    // Offered: all blades that have had as many tempers as the one in hand, and are still in the batch.
    const Blade* current = m_document.blade();
    QStringList marks;
    for (const Blade& blade : batch.blades) {
        if (current != nullptr && !isOutBefore(blade, Gate::temper) && lastTemper(blade) == lastTemper(*current))
            marks << QString::fromStdString(blade.mark);
    }
    const Verdict* verdict = m_document.verdict(m_document.bladeIndex(), Gate::temper);
    const bool onlyThis = verdict != nullptr && verdict->next.act == Act::temperAgain && current != nullptr;
    QString temperature;
    QString hours = QStringLiteral("2");
    if (current != nullptr && !current->cycles.empty()) {
        if (current->cycles.back().temperature_c) temperature = QString::number(*current->cycles.back().temperature_c);
        if (current->cycles.back().hours) hours = QString::number(*current->cycles.back().hours);
    }
    auto* form = new FormDialog(tr("Log a temper cycle"), tr("Log it"),
                                {{"temperature", tr("Temperature"), tr("°C, or 405F"), temperature, {}, false},
                                 {"hours", tr("Time"), tr("hours, or 90min"), hours, {}, false},
                                 {"blades",
                                  tr("Blades"),
                                  tr("marks, separated by commas"),
                                  onlyThis ? QString::fromStdString(current->mark) : marks.join(QStringLiteral(", ")),
                                  {},
                                  false}},
                                m_look, m_window);
    const auto chosen = [this](const QString& text, QString* unknown) {
        std::vector<std::string> ids;
        for (const QString& mark : text.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
            const int index = m_document.indexOfMark(mark.trimmed().toStdString());
            if (index < 0)
                *unknown = mark.trimmed();
            else
                ids.push_back(m_document.batch().blades[static_cast<std::size_t>(index)].id);
        }
        return ids;
    };
    form->ask(
        [chosen](const FormValues& v) -> FormFault {
            const auto t = parseQuantity(v["temperature"].toStdString(), Quantity::temperature);
            if (!t) return {QStringLiteral("temperature"), tr("Type the temperature, such as 205 or 401F.")};
            if (*t < 80 || *t > 750)
                return {QStringLiteral("temperature"),
                        tr("A temper lies between 80 and 750 °C; this is %1 °C.").arg(*t, 0, 'f', 0)};
            const auto h = parseQuantity(v["hours"].toStdString(), Quantity::duration);
            if (!h || *h <= 0 || *h > 48)
                return {QStringLiteral("hours"), tr("Type the time in hours, up to 48, or like 90min.")};
            QString unknown;
            if (chosen(v["blades"], &unknown).empty() && unknown.isEmpty())
                return {QStringLiteral("blades"), tr("Type at least one mark.")};
            if (!unknown.isEmpty()) return {QStringLiteral("blades"), tr("No blade is marked %1.").arg(unknown)};
            return {};
        },
        [this, chosen](const FormValues& v) {
            QString unknown;
            CycleDraft cycle;
            cycle.batch = m_document.batch().id;
            cycle.blades = chosen(v["blades"], &unknown);
            cycle.temperature_c = parseQuantity(v["temperature"].toStdString(), Quantity::temperature).value();
            cycle.hours = parseQuantity(v["hours"].toStdString(), Quantity::duration).value();
            cycle.as_entered = (v["temperature"] + QLatin1Char(' ') + v["hours"]).toStdString();
            m_document.perform(
                [cycle](Logbook& logbook) mutable -> Result<Done> {
                    cycle.time = logbook.now();
                    const auto id = logbook.logCycle(cycle);
                    if (!id) return id.error();
                    return Done{};
                },
                [this](const Result<Done>& done) { afterWork(tr("temper logged: read the blades anew"), done); });
        });
}

void ShopActions::strikeTemper() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    if (blade->cycles.empty() || blade->cycles.back().round != blade->round)
        return emit said(tr("No temper is logged for this blade."), true);
    askReason(tr("Strike out temper %1, for all its blades").arg(blade->cycles.back().number), tr("Strike it out"),
              {QString(), tr("logged by mistake"), tr("wrong temperature typed"), tr("wrong blades")},
              [this, id = blade->cycles.back().id](const std::string& reason) {
                  m_document.perform([id, reason](Logbook& logbook) { return logbook.strikeCycle(id, reason); },
                                     [this](const Result<Done>& done) { afterWork(tr("temper struck out"), done); });
              });
}

void ShopActions::reharden() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const QString mark = QString::fromStdString(blade->mark);
    const int again = blade->round;
    askReason(
        again > m_document.batch().rehardening_limit
            ? tr("Re-harden %1: over the shop's limit of %2").arg(mark).arg(m_document.batch().rehardening_limit)
            : tr("Re-harden %1, time %2").arg(mark).arg(again + 1),
        tr("Begin a new round"),
        {QString(), tr("soft after temper"), tr("soft from the quench"), tr("warped"), tr("coarse grain")},
        [this, mark, id = blade->id](const std::string& reason) {
            m_document.perform(
                [id, reason](Logbook& logbook) -> Result<Done> {
                    const auto round = logbook.reharden(id, reason, logbook.now());
                    if (!round) return round.error();
                    return Done{};
                },
                [this, mark](const Result<Done>& done) { afterWork(tr("%1 begins anew at Quench").arg(mark), done); });
        });
}

void ShopActions::takeOut() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    if (blade->fate) return emit said(tr("This blade is out already."), true);
    const std::vector<Choice> choices{{QStringLiteral("1"), tr("Cracked"), {}},
                                      {QStringLiteral("2"), tr("Scrapped"), {}},
                                      {QStringLiteral("3"), tr("Used as a coupon"), {}},
                                      {QStringLiteral("4"), tr("Removed from the batch"), {}}};
    (new ChoiceDialog(tr("%1 is out. Why?").arg(QString::fromStdString(blade->mark)),
                      {tr("Later gates are excused; nothing is erased.")}, choices, m_look, m_window))
        ->ask([this, choices, id = blade->id, gate = m_document.gate()](int i) {
            const std::string reason = choices[static_cast<std::size_t>(i)].text.toLower().toStdString();
            m_document.perform(
                [id, gate, reason, i](Logbook& logbook) {
                    return logbook.takeOut(id, static_cast<Fate>(i), gate, reason);
                },
                [this](const Result<Done>& done) { afterWork(tr("taken out"), done); });
        });
}

void ShopActions::renameBlade() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    auto* form =
        new FormDialog(tr("Rename %1").arg(QString::fromStdString(blade->mark)), tr("Rename"),
                       {{"mark", tr("Mark"), {}, QString::fromStdString(blade->mark), {}, false}}, m_look, m_window);
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (v["mark"].isEmpty()) return {QStringLiteral("mark"), tr("A blade needs a mark.")};
            const int other = m_document.indexOfMark(v["mark"].toStdString());
            return other >= 0 && other != m_document.bladeIndex()
                       ? FormFault{QStringLiteral("mark"), tr("Another blade has that mark.")}
                       : FormFault{};
        },
        [this, id = blade->id](const FormValues& v) {
            m_document.perform(
                [id, mark = v["mark"].toStdString()](Logbook& logbook) { return logbook.renameBlade(id, mark); });
        });
}

void ShopActions::changeLimits() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    const QString window =
        batch.window.low ? (batch.window.high ? words::windowText(batch.window) : words::hardness(*batch.window.low))
                         : QString();
    auto* form = new FormDialog(tr("Limits of %1").arg(QString::fromStdString(batch.name)), tr("Judge anew"),
                                {{"window", tr("Window"), tr("HRC after temper, like 61 to 63"), window, {}, false},
                                 {"minimum",
                                  tr("Quench minimum"),
                                  tr("HRC; blank: the grade's own"),
                                  batch.quench_minimum ? words::hardness(*batch.quench_minimum) : QString(),
                                  {},
                                  false}},
                                m_look, m_window);
    form->ask(
        [](const FormValues& v) -> FormFault {
            const WindowAnswer answer = windowFromText(v["window"]);
            if (!answer.fault.isEmpty()) return {QStringLiteral("window"), answer.fault};
            const auto minimum = parseNumber(v["minimum"].toStdString());
            if (!v["minimum"].isEmpty() && (!minimum || *minimum < 20 || *minimum > 70))
                return {QStringLiteral("minimum"), tr("Type HRC 20 to 70, or leave it blank.")};
            return {};
        },
        [this, id = batch.id](const FormValues& v) {
            const std::optional<double> minimum =
                v["minimum"].isEmpty() ? std::nullopt
                                       : std::optional<double>(parseNumber(v["minimum"].toStdString()).value());
            m_document.perform(
                [id, v, minimum](Logbook& logbook) {
                    return logbook.changeLimits(id, windowFromText(v["window"]).window, v["window"].toStdString(),
                                                minimum);
                },
                [this](const Result<Done>& done) { afterWork(tr("limits changed, everything judged anew"), done); });
        });
}

void ShopActions::changePlanned() {
    if (!m_document.hasBatch()) return;
    const Gate gate = m_document.gate();
    const GatePlan plan = m_document.batch().planOf(gate);
    auto* form = new FormDialog(
        tr("Readings at %1").arg(words::gateName(gate)), tr("Judge anew"),
        {{"planned", tr("Readings"), tr("for each blade, 1 to 10"), QString::number(plan.planned_readings), {}, false}},
        m_look, m_window);
    form->ask(
        [](const FormValues& v) {
            return v["planned"].toInt() >= 1 && v["planned"].toInt() <= 10
                       ? FormFault{}
                       : FormFault{QStringLiteral("planned"), tr("Type 1 to 10.")};
        },
        [this, gate, plan, id = m_document.batch().id](const FormValues& v) {
            m_document.perform([id, gate, planned = GatePlan{plan.required, v["planned"].toInt()}](Logbook& logbook) {
                return logbook.changePlan(id, gate, planned);
            });
        });
}

void ShopActions::acceptLeftOut() {
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr || verdict->left_out.empty())
        return emit said(tr("No reading of this blade is left out."), true);
    askReason(tr("Count the reading that breaks a rule"), tr("Accept it"),
              {QString(), tr("distance measured, it is enough"), tr("place logged wrong")},
              [this, id = verdict->left_out.back()](const std::string& reason) {
                  m_document.perform([id, reason](Logbook& logbook) { return logbook.acceptReading(id, reason); },
                                     [this](const Result<Done>& done) { afterWork(tr("reading accepted"), done); });
              });
}

void ShopActions::why() {
    const Verdict* verdict = m_document.verdict();
    const Blade* blade = m_document.blade();
    if (verdict == nullptr || blade == nullptr) return emit said(tr("There is nothing judged here yet."), true);
    notice(
        tr("Why: %1 at %2, %3")
            .arg(QString::fromStdString(blade->mark), words::gateName(verdict->gate), words::stateName(verdict->state)),
        words::derivation(*verdict, windowOf(m_document.batch(), verdict->gate, m_document.tables())));
}

} // namespace rollcall

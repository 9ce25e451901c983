// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"

#include "app/batch/batch_form.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/local_time.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "words/words.h"

#include <algorithm>
#include <memory>

namespace rollcall {

ShopActions::ShopActions(Document& document, ReadingStation& station, const Look& look, Seams seams, QWidget* window)
    : QObject(window), m_document(document), m_station(station), m_look(look), m_seams(std::move(seams)),
      m_window(window) {
    connect(&m_station, &ReadingStation::testerNeeded, this, [this] { addTester(); });
    connect(&m_document, &Document::opened, this, [this](const Result<Done>& done) {
        if (!done)
            notice(tr("This logbook was not opened"), {words::errorText(done.error())});
        else if (!m_document.readOnlyReasons().isEmpty())
            tellForReadingOnly();
    });
    connect(&m_document, &Document::unsound, this, &ShopActions::tellForReadingOnly);
}

void ShopActions::tellForReadingOnly() {
    constexpr qsizetype most = 40; // a list that somebody reads
    const QStringList& why = m_document.readOnlyReasons();
    QStringList lines{tr("%1: %2. Nothing can be logged in it here.").arg(m_document.path(), why.front())};
    lines += why.mid(1, most);
    if (why.size() > most + 1) lines << tr("and %1 more: rollcallctl check names them all").arg(why.size() - most - 1);
    notice(tr("For reading only"), lines);
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
    if (m_document.state().shop().people.empty()) return setUp([this, sameAgain] { newBatch(sameAgain); });
    const Batch* like = sameAgain && m_document.hasBatch() ? &m_document.batch() : nullptr;
    auto* form = new FormDialog(
        like != nullptr ? tr("Same again") : tr("New batch"), tr("Make the batch"),
        batchFields(m_document.tables(), like, m_document.state().batches(), m_document.state().shop().testers), m_look,
        m_window);
    form->propose(QStringLiteral("window"),
                  [this](const FormValues& v) { return usualWindowOf(v, m_document.tables()); });
    form->note([this](const FormValues& v) {
        return windowNote(v, m_document.tables(), m_document.tester(), m_document.state().shop().testers);
    });
    form->ask(
        [this](const FormValues& values) {
            return batchFromForm(values, m_document.tables(), m_document.state().batches()).fault;
        },
        [this](const FormValues& values) {
            const BatchDraft draft = batchFromForm(values, m_document.tables(), m_document.state().batches()).draft;
            auto id = std::make_shared<std::string>();
            m_document.perform(
                [draft, id](Logbook& logbook) -> Result<Done> {
                    const auto made = addBatch(logbook, draft);
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
    const auto& batches = m_document.state().batches();
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

void ShopActions::openLogbook() {
    const QString path =
        m_seams.chooseFile(m_window, tr("Open a logbook"), tr("Rollcall logbooks (*.rollcall);;All files (*)"), false);
    if (!path.isEmpty()) m_document.open(path, false);
}

void ShopActions::newLogbook() {
    const QString path = m_seams.chooseFile(m_window, tr("New logbook"), tr("Rollcall logbooks (*.rollcall)"), true);
    if (!path.isEmpty()) m_document.open(path, true);
}

void ShopActions::choosePerson() {
    std::vector<Choice> choices;
    std::vector<QString> initials;
    for (const Person& person : m_document.state().shop().people) {
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
                            const auto id = addPerson(logbook, v["initials"].toStdString(), v["name"].toStdString());
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
         QStringLiteral("digital"),
         {{"digital", tr("digital, 0.1")}, {"dial", tr("dial, 0.5")}},
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
            for (const Tester& t : m_document.state().shop().testers) {
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
            tester.resolution = v["display"] == QLatin1String("dial") ? 0.5 : 0.1;
            tester.indenter = v["indenter"].toStdString();
            tester.anvil = v["anvil"].toStdString();
            std::optional<Block> block;
            if (!v["block"].isEmpty()) {
                block.emplace();
                block->name = v["block"].toStdString();
                block->certified = number(v["block"]).value();
                block->uncertainty = number(v["uncertainty"]).value();
            }
            const auto& people = m_document.state().shop().people;
            const bool known = std::any_of(people.begin(), people.end(), [&](const Person& p) {
                return QString::fromStdString(p.initials) == v["initials"];
            });
            m_document.choosePerson(v["initials"]);
            auto id = std::make_shared<std::string>();
            m_document.perform(
                [tester, block, known, v, id](Logbook& logbook) -> Result<Done> {
                    return logbook.inOneTransaction([&]() -> Result<Done> {
                        if (!known) {
                            if (const auto person = addPerson(logbook, v["initials"].toStdString(), {}); !person)
                                return person.error();
                        }
                        const auto made = rollcall::addTester(logbook, tester);
                        if (!made) return made.error();
                        *id = *made;
                        if (block) {
                            if (const auto b = addBlock(logbook, *block); !b) return b.error();
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
    std::vector<Block> blocks = m_document.state().shop().blocks;
    if (blocks.empty()) return emit said(tr("No test block yet. F10: a new tester and block."), true);
    const Window window = windowOf(m_document.batch(), *m_document.blade(), m_document.gate(), m_document.tables());
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
    const QString today = localTime(m_document.now()).date().toString(Qt::ISODate);
    for (const Block& block : blocks) {
        const double off = std::abs(block.certified - work);
        const QString until = QString::fromStdString(block.certificate.until);
        const QString over =
            !until.isEmpty() && until < today ? tr("; its certificate ran out on %1").arg(until) : QString();
        choices.push_back({QString::number(choices.size() + 1), tr("Block %1").arg(QString::fromStdString(block.name)),
                           (off <= 5 ? tr("%1 from the work").arg(off, 0, 'f', 1)
                                     : tr("%1 from the work: more than 5, says little").arg(off, 0, 'f', 1)) +
                               over});
    }
    (new ChoiceDialog(tr("On which block?"), {}, choices, m_look, m_window))->ask([blocks, begin](int i) {
        begin(blocks[static_cast<std::size_t>(i)]);
    });
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/local_time.h"
#include "core/judge/gate_case.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/notes.h"
#include "logbook/actions/proof.h"
#include "plot/translate.h"
#include "words/words.h"

#include <map>
#include <QLocale>

// What a maker can do from anywhere in the window, and the acts that need no more than a form.
namespace rollcall {

namespace {

constexpr int notesShown = 30; // of a search; more are found by one word more

// Plain notes, kept and found.
struct NoteForms {
    Document& document;
    const Look& look;
    QWidget* window;
    ShopActions& actions;

    // A plain sentence on the batch, the blade in hand or its last reading.
    void keep() const {
        if (!document.hasBatch()) return emit actions.said(tr("Make or open a batch first."), true);
        const Blade* blade = document.blade();
        std::vector<FormChoice> on{{"batch", tr("the batch")}};
        if (blade != nullptr) on.push_back({"blade", QString::fromStdString(blade->mark)});
        if (blade != nullptr && !blade->readings.empty())
            on.push_back({"reading", tr("%1, its reading %2")
                                         .arg(QString::fromStdString(blade->mark),
                                              words::hardness(blade->readings.back().value))});
        auto* form = new FormDialog(
            tr("Note"), tr("Keep it"),
            {{"text", tr("Note"), tr("dated, and found again by its words"), {}, {}, false},
             {"on", tr("On"), {}, blade != nullptr ? QStringLiteral("blade") : QStringLiteral("batch"), on, false},
             {"card", tr("On the batch card"), {}, QStringLiteral("no"), yesOrNo(), false}},
            look, window);
        form->ask(
            [](const FormValues& v) {
                return FormFault{QStringLiteral("text"), v["text"].isEmpty() ? tr("Type the note.") : QString()};
            },
            [*this, batch = document.batch().id, id = blade != nullptr ? blade->id : std::string(),
             reading = blade != nullptr && !blade->readings.empty() ? blade->readings.back().id
                                                                    : std::string()](const FormValues& v) {
                Note note;
                note.text = v["text"].toStdString();
                note.on_card = v["card"] == QLatin1String("yes");
                if (v["on"] != QLatin1String("batch")) note.blade = id;
                if (v["on"] == QLatin1String("reading")) note.reading = reading;
                document.perform(
                    [batch, note](Logbook& logbook) -> Result<Done> {
                        const auto kept = addNote(logbook, batch, note);
                        if (!kept) return kept.error();
                        return Done{};
                    },
                    [*this](const Result<Done>& done) {
                        if (done) emit actions.said(tr("The note is kept."), false);
                    });
            });
    }
};

} // namespace

void ShopActions::clearCrack() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const QString mark = QString::fromStdString(blade->mark);
    if (openCrack(*blade)) {
        askReason(
            tr("The crack on %1 no longer counts. Why?").arg(mark), tr("Clear it"),
            {QString(),
             {"ground out, etched, none left", tr("ground out, etched, none left")},
             {"inspected: a scratch", tr("inspected: a scratch")},
             {"inspected with penetrant: none", tr("inspected with penetrant: none")}},
            [this, cracked = *blade](const std::string& reason) {
                m_document.perform(
                    [cracked, reason](Logbook& logbook) { return rollcall::clearCrack(logbook, cracked, reason); },
                    [this](const Result<Done>& done) { afterWork(tr("The crack is cleared."), done); });
            });
        return;
    }
    const DamageMark* damage = openDamage(*blade);
    if (damage == nullptr) return;
    askReason(tr("The damage on %1 (%2) no longer holds it back. Why?").arg(mark, words::recorded(damage->kind)),
              tr("Clear it"),
              {QString(),
               {"repaired and looked at again", tr("repaired and looked at again")},
               {"ground away", tr("ground away")},
               {"accepted as it is", tr("accepted as it is")}},
              [this, id = damage->id](const std::string& reason) {
                  m_document.perform(
                      [id, reason](Logbook& logbook) { return clearDamage(logbook, id, reason); },
                      [this](const Result<Done>& done) { afterWork(tr("The damage is cleared."), done); });
              });
}

void ShopActions::lookInto() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    askReason(
        tr("%1 reads far from what was expected. What was it?").arg(QString::fromStdString(blade->mark)),
        tr("It was looked into"),
        {QString(),
         {"cycle run as logged, oven checked: it stands", tr("the temper ran as logged, oven checked: it stands")},
         {"read again by a verified tester: it stands", tr("read again by a verified tester: it stands")},
         {"the cycle was not run", tr("the temper was not run")},
         {"the oven was off", tr("the oven was off")},
         {"the steel is not as said", tr("the steel is not as said")}},
        [this, looked = *blade](const std::string& reason) {
            m_document.perform(
                [looked, reason](Logbook& logbook) {
                    return rollcall::lookInto(logbook, looked, lastTemper(looked), reason);
                },
                [this](const Result<Done>& done) { afterWork(tr("It is kept with the readings."), done); });
        });
}

// Readings of each tester that stand on a blade at a gate, by tester.
std::map<std::string, std::vector<std::string>> ShopActions::setsOn(const Blade& blade, Gate gate) const {
    std::map<std::string, std::vector<std::string>> sets;
    for (const Reading* reading : candidatesAt(blade, gate, gate == Gate::temper ? lastTemper(blade) : 0))
        sets[reading->tester].push_back(reading->id);
    return sets;
}

// E7. Who read what, and who stands apart, as a table; one row is taken, for this knife or for all that both have read.
void ShopActions::chooseSet() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const auto sets = setsOn(*blade, m_document.gate());
    if (sets.size() < 2) return emit said(tr("One tester has read this blade."), true);
    const Reason* told = nullptr;
    for (const Reason& reason : m_document.verdictAt(m_document.gate()).reasons) {
        if (reason.fact == Fact::mixedTesters || reason.fact == Fact::testersAgree) told = &reason;
    }
    const std::size_t all = told != nullptr ? told->texts.size() / 2 : 0;
    std::vector<Choice> choices;
    std::vector<std::string> testers;
    for (const auto& [tester, readings] : sets) {
        const Tester* known = m_document.batch().tester(tester);
        const QString name = known != nullptr ? QString::fromStdString(known->name) : tr("an unknown tester");
        QString detail = readings.size() == 1 ? tr("one reading") : tr("%1 readings").arg(readings.size());
        for (std::size_t i = 0; i < all; ++i) {
            if (QString::fromStdString(told->texts[i]) != name) continue;
            detail =
                tr("%1 ± %2, %3")
                    .arg(words::hardness(told->numbers[2 * i]), words::uncertainty(told->numbers[2 * i + 1]), detail);
            if (!told->texts[all + i].empty()) detail += tr("; not verified, its own error is unknown");
            const std::size_t apart = 2 * all + 2 + i;
            if (apart < told->numbers.size() && told->numbers[apart] > 1)
                detail += tr("; stands apart, E_n %1").arg(told->numbers[apart], 0, 'f', 1);
        }
        testers.push_back(tester);
        choices.push_back({QString::number(choices.size() + 1), name, detail});
    }
    QStringList lines;
    if (all > 2)
        lines << tr("Together %1 ± %2, by random effects.")
                     .arg(words::hardness(told->numbers[2 * all]), words::uncertainty(told->numbers[2 * all + 1]));
    lines << tr("The others stay visible and count no more.");
    (new ChoiceDialog(tr("Whose readings of %1 stand?").arg(QString::fromStdString(blade->mark)), lines, choices,
                      m_look, m_window))
        ->ask([this, testers](int i) { askHowFar(testers[static_cast<std::size_t>(i)]); });
}

// For the knife in hand alone, or for the whole pile where the chosen tester has read too.
void ShopActions::askHowFar(const std::string& tester) {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const Gate gate = m_document.gate();
    std::vector<std::string> here;
    std::vector<std::string> everywhere;
    int blades = 0;
    for (const Blade& one : m_document.batch().blades) {
        const auto sets = setsOn(one, gate);
        if (sets.size() < 2 || !sets.contains(tester)) continue;
        ++blades;
        for (const auto& [other, readings] : sets) {
            if (other == tester) continue;
            everywhere.insert(everywhere.end(), readings.begin(), readings.end());
            if (one.id == blade->id) here.insert(here.end(), readings.begin(), readings.end());
        }
    }
    const auto why = [this](const std::vector<std::string>& others) {
        askReason(tr("Why do these stand?"), tr("They stand"),
                  {QString(),
                   {"verified on a nearer block", tr("verified on a nearer block")},
                   {"read on ground, clean metal", tr("read on ground, clean metal")},
                   {"the other was found to be off", tr("the other was found to be off")}},
                  [this, others](const std::string& reason) {
                      m_document.perform(
                          [others, reason](Logbook& logbook) { return supersedeReadings(logbook, others, reason); },
                          [this](const Result<Done>& done) { afterWork(tr("The set stands."), done); });
                  });
    };
    if (blades < 2) return why(here);
    (new ChoiceDialog(tr("How far does it hold?"), {},
                      {{QStringLiteral("1"), tr("%1 alone").arg(QString::fromStdString(blade->mark)), {}},
                       {QStringLiteral("2"), tr("All %1 that both have read").arg(blades), tr("in one act")}},
                      m_look, m_window))
        ->ask([why, here, everywhere](int i) { why(i == 0 ? here : everywhere); });
}

Commands ShopActions::commands() {
    Commands all;
    Group group = Group::blade;
    const auto add = [&](const char* id, Verb verb, const QString& text, const QString& help, std::function<void()> run,
                         std::function<QString()> whyNot = {}, Qt::Key key = Qt::Key_unknown) {
        all.push_back({QString::fromLatin1(id), text, help, verb, std::move(run), std::move(whyNot), key,
                       key != Qt::Key_unknown ? Qt::ControlModifier : Qt::NoModifier, group});
    };
    const auto noBlade = [this] { return m_document.blade() != nullptr ? QString() : tr("No blade is in hand."); };
    const auto noBatch = [this] { return m_document.hasBatch() ? QString() : tr("Make or open a batch first."); };
    const NoteForms notes{m_document, m_look, m_window, *this};

    add("why", Verb::why, tr("Why"), tr("the numbers with their rules"), [this] { why(); });
    add(
        "claim", Verb::none, tr("This knife"), tr("what it was sold as, what it is asked for"),
        [this] { changeClaim(); }, noBlade);
    add("scale", Verb::kit, tr("Scale and surface"), tr("thin stock, convex blades"), [this] { chooseScale(); });
    add(
        "move-reading", Verb::none, tr("Move a reading"), tr("typed for another blade than it was made on"),
        [this] { moveReading(); }, noBlade);
    add("accept", Verb::add, tr("Count a reading left out"), tr("with a reason"), [this] { acceptLeftOut(); });
    add(
        "choose-set", Verb::none, tr("Whose readings stand"), tr("of several testers on one blade"),
        [this] { chooseSet(); }, noBlade);
    add(
        "ground-off", Verb::none, tr("The marks are ground off"), tr("they leave the blade's map"),
        [this] { grindOff(); }, {}, Qt::Key_G);
    add(
        "look-into", Verb::none, tr("Looked into a surprise"),
        tr("a hardness far from what was expected, and what it was"), [this] { lookInto(); },
        [this] {
            const Blade* blade = m_document.blade();
            return blade != nullptr && lastTemper(*blade) > 0 ? QString() : tr("This blade is not tempered.");
        });
    add(
        "clear-crack", Verb::none, tr("Clear damage"), tr("a crack inspected, a chip repaired, with the reason"),
        [this] { clearCrack(); },
        [this] {
            const Blade* blade = m_document.blade();
            const bool damaged = blade != nullptr && (openCrack(*blade) || openDamage(*blade) != nullptr);
            return damaged ? QString() : tr("No damage is marked on this blade.");
        });
    add("excuse", Verb::excuse, tr("Excuse"), tr("the blade at this gate, with a reason"), [this] { excuse(); });
    add("reharden", Verb::harden, tr("Re-harden the blade"), tr("begins a new round at Quench"),
        [this] { reharden(); });
    add("decide", Verb::none, tr("Decide on the blade"), tr("hold, another use, re-harden, scrap, send back"),
        [this] { decide(); });
    add("out", Verb::out, tr("The blade is out"), tr("cracked, scrapped, coupon, removed"), [this] { takeOut(); });
    add("rename", Verb::amend, tr("The blade itself"), tr("its mark, its thickness"), [this] { renameBlade(); });
    add(
        "note", Verb::none, tr("Note"), tr("a plain sentence on batch, blade or reading"), [notes] { notes.keep(); },
        {}, Qt::Key_M);

    group = Group::batch;
    add("temper", Verb::temper, tr("Log a temper"), tr("temperature, time, blades"), [this] { logTemper({}); });
    add("strike-temper", Verb::undo, tr("Strike out the last temper"), tr("logged by mistake"),
        [this] { strikeTemper(); });
    add(
        "cold", Verb::none, tr("Cold treatment"), tr("temperature, time, blades"), [this] { logCold(); }, noBatch);
    add("limits", Verb::limits, tr("Limits"), tr("window and minimum; everything is judged anew"),
        [this] { changeLimits(); });
    add("planned", Verb::plan, tr("The gate's plan"), tr("whether it is asked, how many readings"),
        [this] { changePlanned(); });
    add("second", Verb::compare, tr("Second opinions"), tr("two testers on the same blades"),
        [this] { secondOpinions(); });
    add(
        "add-blade", Verb::none, tr("A blade more"), tr("forgotten when the batch was made"),
        [this] { addForgotten(); }, noBatch);
    add(
        "rename-batch", Verb::none, tr("Rename the batch"), tr("its name in the list"), [this] { renameBatch(); },
        noBatch);
    add("batches", Verb::batches, tr("Batches"), tr("choose another"), [this] { chooseBatch(); });
    add("new-batch", Verb::makeNew, tr("New batch"), tr("marks, window, thickness"), [this] { newBatch(false); });
    add("same-again", Verb::same, tr("Same again"), tr("a new batch like this one"), [this] { newBatch(true); });

    group = Group::shop;
    add("verify", Verb::verify, tr("Verify tester"), tr("readings on a block"), [this] { verify(); });
    add(
        "rules", Verb::none, tr("Rules of the shop"),
        tr("decision rule, allowance, how often a tester is verified, re-hardenings"), [this] { changeRules(); },
        noBatch);
    add(
        "open", Verb::none, tr("Open a logbook"), {}, [this] { openLogbook(); }, {}, Qt::Key_O);
    add(
        "new-logbook", Verb::none, tr("New logbook"), {}, [this] { newLogbook(); }, {}, Qt::Key_N);
    return all;
}

} // namespace rollcall

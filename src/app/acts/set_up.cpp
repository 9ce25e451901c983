// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/choice_dialog.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"

#include <algorithm>

// The first questions of a new logbook: what is there to measure with. Nothing is invented that the shop does not have.
namespace rollcall {

void ShopActions::setUp(std::function<void()> then) {
    (new ChoiceDialog(
         tr("What is there to measure with?"), {tr("More can be added later, under Testers.")},
         {{QStringLiteral("1"), tr("A bench tester"), tr("numbers, verified on a block")},
          {QStringLiteral("2"), tr("A rebound tester"), tr("strikes; a file or a bench backs them up")},
          {QStringLiteral("3"), tr("A set of files"), tr("of known hardness: a bracket, no number")},
          {QStringLiteral("4"), tr("One file"), tr("of stated hardness: harder or softer than it")},
          {QStringLiteral("5"), tr("A rod, or nothing yet"), tr("edges on the rod, colours, what others read")}},
         m_look, m_window))
        ->ask([this, then](int i) {
            if (i == 0) return addTester(then);
            if (i == 2 || i == 3) return setUpFiles(i == 3, then);
            const bool rebound = i == 1;
            std::vector<FormField> fields{
                {"initials", tr("Your initials"), tr("written with every entry"), m_document.person(), {}, false}};
            if (rebound) fields.push_back({"name", tr("Tester"), tr("what you call it"), tr("Rebound"), {}, false});
            auto* form = new FormDialog(rebound ? tr("Your rebound tester") : tr("Who is at work?"), tr("Go on"),
                                        fields, m_look, m_window);
            form->ask(
                [](const FormValues& v) {
                    return v["initials"].isEmpty() ? FormFault{QStringLiteral("initials"), tr("Type your initials.")}
                                                   : FormFault{};
                },
                [this, rebound, then](const FormValues& v) {
                    std::optional<Tester> tester;
                    if (rebound) {
                        tester.emplace();
                        tester->name = v["name"].isEmpty() ? "Rebound" : v["name"].toStdString();
                        tester->kind = TesterKind::rebound;
                    }
                    keepKit(v["initials"], tester, then);
                });
        });
}

void ShopActions::setUpFiles(bool one, std::function<void()> then) {
    auto* form = new FormDialog(
        one ? tr("Your file") : tr("Your set of files"), tr("Use it"),
        {{"initials", tr("Your initials"), tr("written with every entry"), m_document.person(), {}, false},
         {"name", tr("Called"), {}, one ? tr("File") : tr("Files"), {}, false},
         {"files",
          tr("Hardness"),
          one ? tr("HRC, as its maker states it; a file of unknown hardness decides nothing")
              : tr("HRC of each, softest first or as they lie"),
          one ? QString() : QStringLiteral("40 45 50 55 60 65"),
          {},
          false}},
        m_look, m_window);
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (v["initials"].isEmpty()) return {QStringLiteral("initials"), tr("Type your initials.")};
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give it a name.")};
            const auto files = parseNumbers(v["files"].toStdString());
            const bool known = files && !files->empty() && std::all_of(files->begin(), files->end(), [](double hrc) {
                                   return hrc >= 20 && hrc <= 75;
                               });
            return known ? FormFault{} : FormFault{QStringLiteral("files"), tr("Type HRC 20 to 75, such as 40 50 60.")};
        },
        [this, then](const FormValues& v) {
            Tester tester;
            tester.name = v["name"].toStdString();
            tester.kind = TesterKind::files;
            tester.files = parseNumbers(v["files"].toStdString()).value();
            std::sort(tester.files.begin(), tester.files.end());
            keepKit(v["initials"], tester, then);
        });
}

// Who is at work, with the tester where there is one, in one transaction.
void ShopActions::keepKit(const QString& initials, std::optional<Tester> tester, std::function<void()> then) {
    m_document.choosePerson(initials);
    m_document.perform(
        [tester, who = initials.toStdString()](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                if (const auto person = addPerson(logbook, who, {}); !person) return person.error();
                if (!tester) return Done{};
                const auto made = rollcall::addTester(logbook, *tester);
                return made ? Result<Done>(Done{}) : Result<Done>(made.error());
            });
        },
        [then](const Result<Done>& done) {
            if (done && then) then();
        });
}

} // namespace rollcall

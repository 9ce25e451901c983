// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/choice_dialog.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/undo.h"
#include "words/words.h"

// The part of ShopActions that takes back.
namespace rollcall {

namespace {

// The reading of an entry as it is called: "61.2 of P-3"; empty where it is of another batch.
QString readingText(const Document& document, const std::string& id) {
    if (!document.hasBatch()) return {};
    for (const Blade& blade : document.batch().blades) {
        for (const Reading& reading : blade.readings) {
            if (reading.id == id)
                return ShopActions::tr("%1 of %2")
                    .arg(words::hardness(reading.value), QString::fromStdString(blade.mark));
        }
    }
    return {};
}

} // namespace

void ShopActions::undo(const std::function<void()>& takeBackImport) {
    if (!m_document.isOpen()) return;
    m_document.query<std::optional<LastAct>>(
        [](Logbook& logbook) { return lastAct(logbook); },
        [this, takeBackImport](const Result<std::optional<LastAct>>& last) {
            if (!last) return emit said(words::errorText(last.error()), true);
            if (!*last) return emit said(tr("Nothing was done yet."), true);
            const LastAct act = **last;
            switch (act.kind) {
            case LastAct::Kind::import:
                return takeBackImport();
            case LastAct::Kind::reading:
                return askStrike(act.reading, readingText(m_document, act.reading));
            case LastAct::Kind::merge:
                return emit said(tr("A logbook was taken in: I, K goes back to the copy from before it."), true);
            case LastAct::Kind::physical:
                return emit said(
                    tr("%1 cannot be undone: strike it out where it was entered.").arg(words::entryName(act.action)),
                    true);
            case LastAct::Kind::written:
                break;
            }
            // What is taken back is not held in hand.
            const bool batch = act.action == "batch added";
            const auto take = [this, act](const Result<Done>&) {
                m_document.perform(
                    [entry = act.entry](Logbook& logbook) { return rollcall::undo(logbook, entry); },
                    [this, act](const Result<Done>& done) {
                        if (done)
                            emit said(tr("Undone: %1. Ctrl+Y does it again.").arg(words::entryName(act.action)), false);
                    });
            };
            if (!batch || m_document.state().batches().size() < 2) return take(Done{});
            const auto& all = m_document.state().batches();
            const std::string& other = all[all.size() - 2].id;
            m_document.selectBatch(other, take);
        });
}

void ShopActions::redo() {
    if (!m_document.isOpen()) return;
    m_document.query<std::optional<LastAct>>(
        [](Logbook& logbook) { return lastUndone(logbook); },
        [this](const Result<std::optional<LastAct>>& last) {
            if (!last) return emit said(words::errorText(last.error()), true);
            if (!*last) return emit said(tr("Nothing is undone, or more was done since."), true);
            m_document.perform([entry = (*last)->entry](Logbook& logbook) { return rollcall::redo(logbook, entry); },
                               [this, action = (*last)->action](const Result<Done>& done) {
                                   if (done) emit said(tr("Done again: %1.").arg(words::entryName(action)), false);
                               });
        });
}

// Any reading, with its reason; a typing slip is the first that comes to mind.
void ShopActions::askStrike(const std::string& reading, const QString& text) {
    if (text.isEmpty()) return emit said(tr("The last reading is of another batch: open it to strike it out."), true);
    std::vector<Choice> choices;
    for (int i = 0; i < static_cast<int>(StrikeReason::superseded); ++i)
        choices.push_back({QString::number(i + 1), words::strikeName(static_cast<StrikeReason>(i)), {}});
    (new ChoiceDialog(tr("Strike out %1. Why?").arg(text),
                      {tr("It stays in the log, with the reason; Ctrl+Z brings it back.")}, choices, m_look, m_window))
        ->ask([this, reading](int i) {
            m_document.perform([reading, reason = static_cast<StrikeReason>(i)](Logbook& logbook) {
                return strikeReading(logbook, reading, reason, {});
            });
        });
}

} // namespace rollcall

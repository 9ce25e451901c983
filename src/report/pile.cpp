// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/pile.h"

#include "core/base/number.h"
#include "plot/glyphs.h"
#include "plot/translate.h"
#include "report/page.h"
#include "words/words.h"

#include <algorithm>
#include <array>

namespace rollcall {

namespace {

constexpr double halfPoint = 0.5; // HRC

PileZone zoneOf(const Batch& batch, const Window& window, double mean) {
    const double below = window.low ? *window.low - mean : 0.0;
    const double above = window.high ? mean - *window.high : 0.0;
    const double outside = std::max(below, above);
    if (outside <= limitTolerance) return PileZone::inside;
    return atMost(outside, batch.allowance.value_or(halfPoint)) ? PileZone::near : PileZone::off;
}

// The element that the verdict hangs on, as its sentence begins: "Mo 0.05, needs 0.50 to 0.80".
QString deciding(const Verdict& steel) {
    for (const Fact fact : {Fact::steelNotConsistent, Fact::elementDoubtful, Fact::steelUndecided}) {
        for (const Reason& reason : steel.reasons) {
            if (reason.fact != fact || reason.texts.empty() || reason.numbers.size() < 3) continue;
            const auto number = [&](std::size_t i) { return QString::number(reason.numbers[i], 'g', 3); };
            const QString read = QString::fromStdString(reason.texts[0]) + QLatin1Char(' ') +
                                 (reason.texts.size() > 1 && reason.texts[1] == "under" ? QStringLiteral("< ") : "") +
                                 number(0);
            return std::isinf(reason.numbers[2]) ? tr("%1, needs %2 or more").arg(read, number(1))
                                                 : tr("%1, needs %2 to %3").arg(read, number(1), number(2));
        }
    }
    return {};
}

PileSteel steelOf(const Verdict* steel) {
    if (steel == nullptr || steel->state == State::notYet) return PileSteel::notLooked;
    return steel->state == State::pass   ? PileSteel::yes
           : steel->state == State::fail ? PileSteel::no
                                         : PileSteel::undecided;
}

} // namespace

QString zoneName(PileZone zone) {
    switch (zone) {
    case PileZone::notRead:
        return tr("not read");
    case PileZone::inside:
        return tr("inside");
    case PileZone::near:
        return tr("near");
    case PileZone::off:
        return tr("off");
    }
    return {};
}

QString steelName(PileSteel steel) {
    switch (steel) {
    case PileSteel::notLooked:
        return tr("not looked at");
    case PileSteel::yes:
        return tr("yes");
    case PileSteel::no:
        return tr("no");
    case PileSteel::undecided:
        return tr("undecided");
    }
    return {};
}

std::vector<PileRow> pileRows(const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<PileRow> rows;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        if (blade.fate && blade.fate->fate == Fate::removed) continue;
        const BladeClaim claim = batch.claimOf(blade);
        PileRow row;
        row.mark = QString::fromStdString(blade.mark);
        row.sold_as = QString::fromStdString(claim.claimed.empty() ? claim.grade : claim.claimed);
        row.purpose = QString::fromStdString(claim.purpose);
        row.window = *claim.window;
        const std::optional<Verdict>& steel = verdicts.at(i, Gate::steel);
        row.steel = steelOf(steel ? &*steel : nullptr);
        if (steel) row.decided_by = deciding(*steel);
        const std::optional<Verdict>& temper = verdicts.at(i, Gate::temper);
        if (temper && temper->measurement) {
            const Measurement& m = *temper->measurement;
            row.hrc = m.decided_mean;
            row.expanded_uncertainty = m.decided_uncertainty;
            row.readings = m.n;
            row.zone = zoneOf(batch, row.window, m.decided_mean);
        }
        if (temper) row.state = temper->state;
        QStringList notes;
        // A second tester's number stands beside the first's: a tick alone would hide it.
        if (temper) {
            for (const Reason& reason : temper->reasons) {
                if (reason.fact == Fact::testersAgree || reason.fact == Fact::mixedTesters ||
                    reason.fact == Fact::secondOpinion)
                    notes << words::sentence(reason);
            }
        }
        for (const Note& note : batch.notes) {
            if (note.blade == blade.id) notes << QString::fromStdString(note.text);
        }
        row.note = notes.join(QStringLiteral("; "));
        rows.push_back(std::move(row));
    }
    return rows;
}

ReportTable pileTable(const std::vector<PileRow>& rows, const QString& title) {
    ReportTable table;
    table.title = title;
    table.head = {tr("piece"),    tr("sold as"),    tr("steel"),       tr("decided by"), tr("HRC"), tr("U (95 %)"),
                  tr("readings"), tr("window low"), tr("window high"), tr("zone"),       tr("note")};
    for (const PileRow& row : rows) {
        QVariantList line{row.mark, row.sold_as, steelName(row.steel), row.decided_by};
        if (row.hrc)
            line << QString::number(*row.hrc, 'f', 1).toDouble()
                 << QString::number(row.expanded_uncertainty, 'f', 2).toDouble() << row.readings;
        else
            line << QVariant() << QVariant() << 0;
        line << (row.window.low ? QVariant(*row.window.low) : QVariant())
             << (row.window.high ? QVariant(*row.window.high) : QVariant()) << zoneName(row.zone) << row.note;
        table.rows.push_back(std::move(line));
    }
    return table;
}

int drawPile(Paper& paper, const std::vector<PileRow>& rows, const QString& title, const QString& shop,
             const Instant& now) {
    Page page(paper, tr("%1, %2").arg(title, dayOf(now)));
    page.y = 12;
    if (!shop.isEmpty()) page.text(0, shop, 11);
    page.text(page.width(), dayOf(now), 11, false, Qt::black, Qt::AlignRight);
    page.y += 26;
    page.text(0, title, 22, true);
    page.y += 18;
    const auto off = std::count_if(rows.begin(), rows.end(), [](const PileRow& r) { return r.zone == PileZone::off; });
    page.text(0, tr("%1, %2 off").arg(rows.size() == 1 ? tr("One piece") : tr("%1 pieces").arg(rows.size())).arg(off),
              11);
    page.y += 10;
    page.rule(1.2);
    constexpr std::array<double, 8> columns{0, 56, 130, 204, 298, 370, 388, 456};
    const auto head = [&] {
        page.y += 14;
        const QStringList names{tr("piece"),         tr("sold as"), tr("steel"), tr("decided by"),
                                tr("hardness, HRC"), tr("n"),       tr("asked"), tr("zone")};
        for (qsizetype i = 0; i < names.size(); ++i) page.text(columns[static_cast<std::size_t>(i)], names[i], 9, true);
        page.y += 4;
        page.rule();
    };
    const auto cell = [&](std::size_t column, const QString& words, double size = 10, bool bold = false) {
        const double end = column + 1 < columns.size() ? columns[column + 1] : page.width();
        const QFont font = page.look().font(static_cast<int>(size), bold);
        page.text(columns[column], elided(words, font, static_cast<int>(end - columns[column] - 4)), size, bold);
    };
    head();
    for (const PileRow& row : rows) {
        page.need(row.note.isEmpty() ? 22 : 34);
        if (page.y == 0) head();
        page.y += 17;
        cell(0, row.mark, 10, true);
        cell(1, row.sold_as);
        cell(2, steelName(row.steel));
        cell(3, row.decided_by, 9);
        if (row.hrc) {
            cell(4,
                 QStringLiteral("%1 ± %2").arg(words::hardness(*row.hrc), words::uncertainty(row.expanded_uncertainty)),
                 10, true);
            cell(5, QString::number(row.readings));
        }
        cell(6, words::windowText(row.window), 9);
        if (row.hrc)
            drawVerdictGlyph(page.painter(), static_cast<int>(columns[7]), static_cast<int>(page.y) - 9, 10, row.state,
                             page.look(), Qt::white);
        page.text(columns[7] + (row.hrc ? 14 : 0), zoneName(row.zone), 10);
        if (!row.note.isEmpty()) {
            page.y += 12;
            page.text(columns[1], elided(row.note, page.look().font(9), static_cast<int>(page.width() - columns[1])), 9,
                      false, grey);
        }
        page.y += 5;
        page.rule(0.3);
    }
    page.y += 6;
    page.paragraph(
        tr("Hardness with its uncertainty at 95 % and the number of readings. Zone: inside its window, near "
           "it by at most what is allowed (half a point where nothing else is said), or off; the sign beside "
           "it weighs the uncertainty too: square pass, diamond borderline, cross fail. Steel is set "
           "against the grade the piece was sold as. A maker's own record; no accreditation is claimed."),
        8, false, grey);
    return page.pages();
}

} // namespace rollcall

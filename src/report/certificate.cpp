// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/certificate.h"

#include "core/judge/release_judge.h"
#include "core/measure/verification.h"
#include "plot/glyphs.h"
#include "plot/look.h"
#include "plot/rule.h"
#include "plot/translate.h"
#include "report/page.h"
#include "report/qr_code.h"
#include "words/words.h"

#include <algorithm>
#include <QDate>
#include <set>

namespace rollcall {

namespace {

const Verdict* at(const BladeVerdicts& verdicts, Gate gate) {
    const std::optional<Verdict>& verdict = verdicts[indexOf(gate)];
    return verdict ? &*verdict : nullptr;
}

// "; certified by the block's maker, until 31 May 2027"
QString blockCertificate(const Verification& run) {
    QString text;
    if (!run.certified_by.empty()) text += tr(", certified by %1").arg(QString::fromStdString(run.certified_by));
    if (run.valid_until)
        text += tr(", until %1").arg(QDate(1970, 1, 1).addDays(*run.valid_until).toString(Qt::ISODate));
    return text;
}

void drawHead(Page& page, const Batch& batch, const CertificateOptions& options) {
    page.y = 18;
    double x = 0;
    if (!options.mark.isNull()) {
        const QSizeF size = QSizeF(options.mark.size()).scaled(60, 34, Qt::KeepAspectRatio);
        page.painter().drawImage(QRectF(QPointF(0, 0), size), options.mark);
        x = size.width() + 12;
    }
    page.text(x, options.shop.isEmpty() ? tr("Hardness and tests") : options.shop, 16, true);
    page.text(page.width(), dayOf(options.now), 11, false, Qt::black, Qt::AlignRight);
    if (!options.head.isEmpty()) {
        constexpr double side = 54;
        drawCode(page.painter(), QRectF(page.width() - side, page.y + 4, side, side), options.head);
        drawText(page.painter(), page.width() - side - 4, page.y + side - 2, options.head, page.look().font(8), grey,
                 Qt::AlignRight);
    }
    page.y += 32;
    page.text(0, QString::fromStdString(batch.name), 24, true);
    page.y += 6;
    QStringList about;
    about << (batch.blades.size() == 1 ? tr("one piece") : tr("%1 pieces").arg(batch.blades.size()));
    if (batch.isPile()) about << tr("each its own claim");
    if (!batch.purpose.empty()) about << QString::fromStdString(batch.purpose);
    if (!batch.grade.empty()) about << QString::fromStdString(batch.grade);
    if (!batch.lot.empty()) about << QString::fromStdString(batch.lot);
    if (!batch.heat_number.empty()) about << tr("heat %1").arg(QString::fromStdString(batch.heat_number));
    page.paragraph(about.join(QStringLiteral(", ")), 11);
    page.y += 10;
    page.rule(1.2);
}

void drawMeans(Page& page, const Batch& batch, const BatchVerdicts& verdicts) {
    const RuleData rule = meansRule(batch, verdicts);
    if (rule.readings.empty()) return;
    page.need(120);
    page.y += 12;
    page.painter().save();
    // The rule is drawn for a screen: two thirds of it is right on paper.
    page.painter().translate(0, page.y);
    page.painter().scale(0.66, 0.66);
    drawRule(page.painter(), QRect(0, 0, static_cast<int>(page.width() / 0.66), 130), rule, page.look());
    page.painter().restore();
    page.y += 92;
}

void drawTable(Page& page, const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables) {
    constexpr std::array<double, 10> columns{0, 74, 146, 194, 240, 264, 288, 312, 336, 360};
    const auto head = [&] {
        page.y += 12;
        const QStringList names{tr("piece"), tr("HRC"), tr("readings"), tr("quench"), tr("S"),
                                tr("C"),     tr("Q"),   tr("T"),        tr("E"),      tr("P")};
        for (qsizetype i = 0; i < names.size(); ++i) page.text(columns[static_cast<std::size_t>(i)], names[i], 9, true);
        page.text(390, tr("decision"), 9, true);
        page.y += 4;
        page.rule();
    };
    page.heading(tr("What was read and found"));
    head();
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        if (page.y > 0) page.need(20);
        if (page.y == 0) head();
        page.y += 15;
        const BladeVerdicts& own = verdicts.blades[i];
        page.text(columns[0], elided(QString::fromStdString(batch.blades[i].mark), page.look().font(10, true), 70), 10,
                  true);
        if (const Verdict* temper = at(own, Gate::temper); temper != nullptr && temper->measurement) {
            const Measurement& m = *temper->measurement;
            page.text(columns[1],
                      tr("%1 ± %2").arg(words::hardness(m.decided_mean), words::uncertainty(m.decided_uncertainty)),
                      10);
            page.text(columns[2], QString::number(m.n), 10);
        } else {
            page.text(columns[1], tr("not read"), 10, false, QColor(0x55, 0x55, 0x55));
        }
        if (const Verdict* quench = at(own, Gate::quench); quench != nullptr && quench->measurement)
            page.text(columns[3], words::hardness(quench->measurement->decided_mean), 10);
        const std::array<Gate, 6> gates{Gate::steel, Gate::heat, Gate::quench, Gate::temper, Gate::edge, Gate::proof};
        for (std::size_t g = 0; g < gates.size(); ++g) {
            if (const Verdict* verdict = at(own, gates[g]))
                drawVerdictGlyph(page.painter(), columns[4 + g], page.y - 9, 10, verdict->state, page.look(),
                                 Qt::white);
        }
        const ReleaseAnswer release = releaseAnswer(batch, i, own, tables);
        const QString decision = release.out                    ? QString::fromStdString(batch.blades[i].fate->reason)
                                 : release.signature == nullptr ? tr("not signed")
                                 : release.changed.empty()      ? words::dispositionName(release.signature->disposition)
                                                                : tr("signature stale");
        page.text(390, elided(decision, page.look().font(10), static_cast<int>(page.width() - 390)), 10);
        page.y += 4;
        page.rule(0.3);
    }
    page.y += 4;
    page.paragraph(tr("S steel, C soak and cooling, Q as quenched, T temper, E edge, P proof: filled square pass, "
                      "diamond borderline, cross fail, "
                      "ring open, bar excused; blank: not asked."),
                   8, false, QColor(0x55, 0x55, 0x55));
}

void drawIndents(Page& page, const Batch& batch, const BatchVerdicts& verdicts) {
    bool begun = false;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Verdict* temper = at(verdicts.blades[i], Gate::temper);
        const Blade& blade = batch.blades[i];
        if (temper == nullptr || temper->standing.empty() || blade.shape.outline.size() < 3) continue;
        std::vector<Spot> spots;
        for (const Reading& reading : blade.readings) {
            const bool stands =
                std::find(temper->standing.begin(), temper->standing.end(), reading.id) != temper->standing.end();
            if (stands && reading.spot) spots.push_back(*reading.spot);
        }
        if (spots.empty()) continue;
        const double scale = std::min(360.0 / blade.shape.length(), 40.0 / blade.shape.height());
        if (!begun) {
            constexpr double headed = 80; // no heading stands alone at the foot of a page
            page.need(headed + blade.shape.height() * scale);
            page.heading(tr("Where it was read"));
        }
        begun = true;
        page.need(blade.shape.height() * scale + 16);
        page.y += blade.shape.height() * scale + 12;
        page.text(0, QString::fromStdString(blade.mark), 10, true);
        QPolygonF outline;
        for (const Spot& corner : blade.shape.outline)
            outline << QPointF(74 + corner.x_mm * scale, page.y - corner.y_mm * scale);
        page.painter().setRenderHint(QPainter::Antialiasing);
        page.painter().setPen(QPen(Qt::black, 0.8));
        page.painter().setBrush(QColor(0xEE, 0xEE, 0xEA));
        page.painter().drawPolygon(outline);
        page.painter().setBrush(Qt::black);
        page.painter().setPen(Qt::NoPen);
        for (const Spot& spot : spots)
            page.painter().drawEllipse(QPointF(74 + spot.x_mm * scale, page.y - spot.y_mm * scale), 1.8, 1.8);
    }
}

// "GK-1, GK-2" and how many more.
QString marksText(const QStringList& marks) {
    constexpr qsizetype shown = 12;
    if (marks.size() <= shown) return marks.join(QStringLiteral(", "));
    return tr("%1 and %2 more").arg(marks.mid(0, shown).join(QStringLiteral(", "))).arg(marks.size() - shown);
}

// What the shots say, those of one answer together: in a pile each piece has its own steel.
void drawComposition(Page& page, const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<std::pair<QString, QStringList>> alike;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Verdict* steel = at(verdicts.blades[i], Gate::steel);
        const bool shot = std::any_of(batch.shots.begin(), batch.shots.end(), [&](const SteelShot& one) {
            return !one.struck && (one.blade.empty() || one.blade == batch.blades[i].id);
        });
        if (steel == nullptr || !shot) continue;
        const QString text = words::headline(*steel);
        const auto same = std::find_if(alike.begin(), alike.end(), [&](const auto& one) { return one.first == text; });
        (same != alike.end() ? *same : alike.emplace_back(text, QStringList())).second
            << QString::fromStdString(batch.blades[i].mark);
    }
    for (const auto& [text, marks] : alike) {
        if (alike.size() == 1 && marks.size() == static_cast<qsizetype>(batch.blades.size()))
            page.paragraph(batch.shots.size() == 1 ? tr("Composition, one shot: %1").arg(text)
                                                   : tr("Composition, %1 shots: %2").arg(batch.shots.size()).arg(text),
                           10);
        else
            page.paragraph(tr("Composition of %1: %2").arg(marksText(marks), text), 10);
    }
}

void drawMethod(Page& page, const Batch& batch, const BatchVerdicts& verdicts) {
    page.heading(tr("How"));
    std::set<std::string> testers;
    std::set<std::string> runs;
    int superseded = 0;
    int struck = 0;
    int stands = 0;
    QStringList unverified; // pieces that no run of the tester stands behind
    int read = 0;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        for (const Reading& reading : batch.blades[i].readings) {
            if (!reading.struck) continue;
            (reading.struck->reason == StrikeReason::superseded ? superseded : struck) += 1;
        }
        const Verdict* temper = at(verdicts.blades[i], Gate::temper);
        if (temper == nullptr || !temper->measurement) continue;
        stands += static_cast<int>(temper->standing.size());
        read += 1;
        if (!temper->verification.empty()) runs.insert(temper->verification);
        const bool known = !temper->verification.empty() && !temper->has(Fact::testerNotVerified) &&
                           !temper->has(Fact::testerFailed) && !temper->has(Fact::testerStopped);
        if (!known) unverified << QString::fromStdString(batch.blades[i].mark);
        for (const Reading& reading : batch.blades[i].readings) {
            if (std::find(temper->standing.begin(), temper->standing.end(), reading.id) != temper->standing.end())
                testers.insert(reading.tester);
        }
    }
    // E18 asks for a verified tester: without one the paper does not speak of it.
    if (stands > 0 && unverified.isEmpty())
        page.paragraph(tr("Rockwell hardness by the method of ASTM E18; U is the expanded uncertainty of the mean, k "
                          "for 95 %, with "
                          "block, resolution and scatter in it. %1 readings stand.")
                           .arg(stands),
                       10);
    else if (stands > 0)
        page.paragraph(
            tr("Rockwell hardness; U is the expanded uncertainty of the mean, k for 95 %. %1 readings stand.")
                .arg(stands),
            10);
    if (!unverified.isEmpty())
        page.paragraph(unverified.size() == read
                           ? tr("The tester was not verified on a block: its error is not known.")
                           : tr("Read on a tester that was not verified: %1.").arg(marksText(unverified)),
                       10);
    for (const std::string& id : testers) {
        const Tester* tester = batch.tester(id);
        if (tester == nullptr) continue;
        QStringList parts{tr("Tester %1").arg(QString::fromStdString(tester->name))};
        if (!tester->indenter.empty()) parts << tr("indenter %1").arg(QString::fromStdString(tester->indenter));
        if (!tester->anvil.empty()) parts << tr("anvil %1").arg(QString::fromStdString(tester->anvil));
        page.paragraph(parts.join(QStringLiteral(", ")) + QLatin1Char('.'), 10);
    }
    for (const Verification& run : batch.verifications) {
        if (!runs.contains(run.id) || run.readings.empty()) continue;
        double mean = 0;
        for (const double value : run.readings) mean += value / static_cast<double>(run.readings.size());
        page.paragraph(
            tr("Verified %1 on block %2 (U %3%6): error %4 from %5 readings.")
                .arg(run.time ? timeOf(*run.time) : tr("at a time not known"), QString::fromStdString(run.block))
                .arg(run.block_uncertainty)
                .arg(std::round((mean - run.certified) * 100) / 100 + 0.0, 0, 'f', 2) // never -0.00
                .arg(run.readings.size())
                .arg(blockCertificate(run)),
            10);
    }
    if (testers.empty()) page.paragraph(tr("No hardness after tempering was read."), 10);
    if (batch.isPile()) {
        for (const Blade& blade : batch.blades) {
            const BladeClaim claim = batch.claimOf(blade);
            QStringList parts;
            if (!claim.purpose.empty()) parts << QString::fromStdString(claim.purpose);
            if (!claim.claimed.empty()) parts << tr("sold as %1").arg(QString::fromStdString(claim.claimed));
            if (!claim.grade.empty() && claim.grade != claim.claimed)
                parts << tr("taken for %1").arg(QString::fromStdString(claim.grade));
            parts << tr("window %1 HRC").arg(words::windowText(*claim.window));
            page.paragraph(
                QStringLiteral("%1: %2").arg(QString::fromStdString(blade.mark), parts.join(QStringLiteral(", "))), 10);
        }
    }
    const QString windows = batch.isPile() ? tr("Each piece has its own window.")
                                           : tr("Window %1 HRC.").arg(words::windowText(batch.window));
    page.paragraph(windows + QLatin1Char(' ') + words::passText(batch), 10);
    if (const QString rules = words::rulesText(batch); !rules.isEmpty()) page.paragraph(rules, 10);
    if (struck > 0)
        page.paragraph(struck == 1 ? tr("One reading was struck out, with its reason in the record.")
                                   : tr("%1 readings were struck out, each with its reason in the record.").arg(struck),
                       10);
    if (superseded > 0)
        page.paragraph(
            superseded == 1
                ? tr("One reading was superseded by another set, with its reason in the record.")
                : tr("%1 readings were superseded by other sets, with their reasons in the record.").arg(superseded),
            10);
    if (batch.sample_asked)
        page.paragraph(tr("Not every piece was read: the others are covered by a sample, at %1 asked; a single "
                          "accident is not excluded.")
                           .arg(words::percent(*batch.sample_asked)),
                       10);
    drawComposition(page, batch, verdicts);
}

// What was done to them by heat, those treated alike together; and what was read elsewhere than at the edge.
void drawTreatment(Page& page, const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<std::pair<QString, QStringList>> alike;
    for (const Blade& blade : batch.blades) {
        QStringList parts;
        if (blade.round > 1) parts << tr("hardened %1 times").arg(blade.round);
        for (const ColdTreatment& cold : blade.colds) {
            if (cold.round == blade.round)
                parts << tr("cold %1 for %2").arg(words::degrees(cold.temperature_c), words::hours(cold.hours));
        }
        for (const Temper& temper : blade.tempers) {
            if (temper.round != blade.round) continue;
            parts << tr("tempered at %1 for %2")
                         .arg(temper.temperature_c ? words::degrees(*temper.temperature_c)
                                                   : tr("a temperature not noted"),
                              temper.hours ? words::hours(*temper.hours) : tr("a time not noted"));
        }
        if (parts.isEmpty()) continue;
        const QString text = parts.join(QStringLiteral(", "));
        const auto same = std::find_if(alike.begin(), alike.end(), [&](const auto& one) { return one.first == text; });
        (same != alike.end() ? *same : alike.emplace_back(text, QStringList())).second
            << QString::fromStdString(blade.mark);
    }
    for (const auto& [text, marks] : alike) page.paragraph(QStringLiteral("%1: %2.").arg(marksText(marks), text), 10);
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Verdict* temper = at(verdicts.blades[i], Gate::temper);
        if (temper == nullptr) continue;
        for (const Reason& reason : temper->reasons) {
            if (reason.fact == Fact::zoneBeside || reason.fact == Fact::withAllowance ||
                reason.fact == Fact::testersAgree || reason.fact == Fact::mixedTesters ||
                reason.fact == Fact::secondOpinion)
                page.paragraph(QStringLiteral("%1: %2.").arg(QString::fromStdString(batch.blades[i].mark),
                                                             words::sentence(reason)),
                               10);
        }
    }
}

void drawTests(Page& page, const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables) {
    bool begun = false;
    const auto begin = [&] {
        if (!begun) page.heading(tr("Tests and decisions"));
        begun = true;
    };
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const QString mark = QString::fromStdString(batch.blades[i].mark);
        for (const Gate gate : {Gate::edge, Gate::proof}) {
            const Verdict* verdict = at(verdicts.blades[i], gate);
            if (verdict == nullptr || verdict->reasons.empty() || verdict->taken == 0) continue;
            begin();
            page.paragraph(tr("%1, %2: %3").arg(mark, words::gateName(gate), words::headline(*verdict)), 10);
        }
        const ReleaseAnswer release = releaseAnswer(batch, i, verdicts.blades[i], tables);
        if (release.signature == nullptr) continue;
        begin();
        const Signature& signature = *release.signature;
        page.paragraph(tr("%1: %2, signed by %3 on %4%5")
                           .arg(mark, words::dispositionName(signature.disposition),
                                QString::fromStdString(signature.by), timeOf(signature.at),
                                signature.reason.empty()
                                    ? QString()
                                    : QStringLiteral(": ") + QString::fromStdString(signature.reason)),
                       10);
        for (const BasisChange& change : release.changed)
            page.paragraph(tr("This signature is stale: %1 was %2 then and is %3 now.")
                               .arg(QString::fromStdString(change.gate),
                                    QString::fromStdString(change.was.empty() ? "not judged" : change.was),
                                    QString::fromStdString(change.is.empty() ? "not judged" : change.is)),
                           10, true, QColor(0x8A, 0x4B, 0x00), 14);
    }
}

void drawLimits(Page& page, const Batch& batch, const QString& head) {
    page.heading(tr("What this does not say"));
    const bool finished = std::any_of(batch.blades.begin(), batch.blades.end(),
                                      [&](const Blade& blade) { return batch.isFinished(blade); });
    QStringList lines{
        finished ? tr("Hardness was read where the piece is flat; the edge itself can be softer unseen.")
                 : tr("Hardness was read on flat metal; grinding afterwards can soften an edge unseen."),
        tr("Hardness is not toughness, nor how an edge cuts: grain, carbides and geometry decide those with it.")};
    if (batch.planOf(Gate::proof).required)
        lines << tr("A piece that was not broken is judged by those that were, as far as they were treated alike.");
    lines << tr("This is a maker's own record. No accreditation is claimed, and the tables behind it are recalled from "
                "the standards: the standards themselves govern.");
    for (const QString& line : lines) page.paragraph(line, 10);
    // What ties the paper to the record as it was then.
    if (!head.isEmpty())
        page.paragraph(tr("Record %1: rollcallctl check FILE --head %1 tells whether what was logged until then was "
                          "changed since.")
                           .arg(head),
                       10);
}

} // namespace

RuleData meansRule(const Batch& batch, const BatchVerdicts& verdicts) {
    RuleData rule;
    rule.compact = true;
    if (!batch.isPile()) rule.window = batch.window; // in a pile each has its own
    std::vector<double> values;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Verdict* temper = at(verdicts.blades[i], Gate::temper);
        if (temper == nullptr || !temper->measurement) continue;
        values.push_back(temper->measurement->decided_mean);
        const QString mark = QString::fromStdString(batch.blades[i].mark);
        rule.readings.push_back({values.back(), mark.section(QLatin1Char('-'), -1)});
    }
    rule.axis = Axis::around(rule.window, values, 6);
    return rule;
}

int drawCertificate(Paper& paper, const Batch& whole, const BatchVerdicts& all, const Tables& tables,
                    const CertificateOptions& options) {
    Batch released;
    BatchVerdicts theirs;
    if (options.released_only) {
        released = whole;
        released.blades.clear();
        for (std::size_t i = 0; i < whole.blades.size(); ++i) {
            if (!releaseAnswer(whole, i, all.blades[i], tables).released()) continue;
            released.blades.push_back(whole.blades[i]);
            theirs.blades.push_back(all.blades[i]);
        }
    }
    const Batch& batch = options.released_only ? released : whole;
    const BatchVerdicts& verdicts = options.released_only ? theirs : all;
    Page page(paper, tr("%1, written by Rollcall on %2").arg(QString::fromStdString(batch.name), timeOf(options.now)));
    drawHead(page, batch, options);
    drawMeans(page, batch, verdicts);
    drawTable(page, batch, verdicts, tables);
    drawMethod(page, batch, verdicts);
    drawTreatment(page, batch, verdicts);
    drawTests(page, batch, verdicts, tables);
    drawIndents(page, batch, verdicts);
    drawLimits(page, batch, options.head);
    return page.pages();
}

Result<int> writeCertificate(const QString& path, const Batch& batch, const BatchVerdicts& verdicts,
                             const Tables& tables, const CertificateOptions& options) {
    return writePdf(path, options.letter, QString::fromStdString(batch.name),
                    [&](Paper& paper) { return drawCertificate(paper, batch, verdicts, tables, options); });
}

} // namespace rollcall

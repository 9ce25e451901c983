// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/steel/steel_bench.h"

#include "core/base/number.h"
#include "plot/element_ruler.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>
#include <QCoreApplication>
#include <QKeyEvent>

namespace rollcall {

namespace {

constexpr int headHeight = 48;
constexpr int rowHeight = 62;
constexpr int lowerHeight = 196;

QString elementName(const std::string& symbol) {
    struct Named {
        const char* symbol;
        const char* name;
    };
    static constexpr Named names[] = {
        {"C", QT_TRANSLATE_NOOP("elements", "carbon")},      {"Si", QT_TRANSLATE_NOOP("elements", "silicon")},
        {"Mn", QT_TRANSLATE_NOOP("elements", "manganese")},  {"P", QT_TRANSLATE_NOOP("elements", "phosphorus")},
        {"S", QT_TRANSLATE_NOOP("elements", "sulphur")},     {"Cr", QT_TRANSLATE_NOOP("elements", "chromium")},
        {"Mo", QT_TRANSLATE_NOOP("elements", "molybdenum")}, {"W", QT_TRANSLATE_NOOP("elements", "tungsten")},
        {"V", QT_TRANSLATE_NOOP("elements", "vanadium")},    {"Co", QT_TRANSLATE_NOOP("elements", "cobalt")},
        {"Ni", QT_TRANSLATE_NOOP("elements", "nickel")},     {"N", QT_TRANSLATE_NOOP("elements", "nitrogen")},
        {"Nb", QT_TRANSLATE_NOOP("elements", "niobium")},    {"Cu", QT_TRANSLATE_NOOP("elements", "copper")},
        {"Ti", QT_TRANSLATE_NOOP("elements", "titanium")},   {"Al", QT_TRANSLATE_NOOP("elements", "aluminium")}};
    for (const Named& named : names) {
        if (symbol == named.symbol) return QCoreApplication::translate("elements", named.name);
    }
    return {};
}

ElementRuler rulerOf(const ElementMatch& match) {
    ElementRuler ruler;
    ruler.match = match;
    ruler.name = elementName(match.element);
    ruler.state = match.z >= 2     ? State::fail
                  : match.z > 0    ? State::borderline
                  : match.residual ? State::excused
                                   : State::pass;
    const QString number = words::percentText(match.reading.percent.value_or(match.reading.lod.value_or(0.0)));
    ruler.value = match.reading.percent ? number : SteelBench::tr("under %1").arg(number);
    ruler.need =
        match.residual ? SteelBench::tr("residual, to %1").arg(words::percentText(match.high.value_or(0.0)))
        : !match.high  ? SteelBench::tr("needs %1 or more").arg(words::percentText(match.low))
        : match.low <= 0
            ? SteelBench::tr("at most %1").arg(words::percentText(*match.high))
            : SteelBench::tr("needs %1 to %2").arg(words::percentText(match.low), words::percentText(*match.high));
    return ruler;
}

} // namespace

SteelBench::SteelBench(Document& document, WatchedFolder& folder, Seams seams, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_folder(folder), m_seams(std::move(seams)) {
    setObjectName(QStringLiteral("steel-bench"));
    setFocusPolicy(Qt::StrongFocus);
}

const SteelAnswer* SteelBench::answer() const {
    return m_document.blade() != nullptr ? &m_document.judged().steel(static_cast<std::size_t>(m_document.bladeIndex()))
                                         : nullptr;
}

void SteelBench::refresh() {
    const int elements =
        answer() != nullptr && answer()->match ? static_cast<int>(answer()->match->elements.size()) : 0;
    m_first = std::clamp(m_first, 0, std::max(0, elements - 1));
    setAccessibleName(content().sub);
    update();
}

// The grades to set beside the claim: those that cannot be told apart, best first.
std::vector<const Grade*> SteelBench::lookAlikes(int most) const {
    std::vector<const Grade*> grades;
    const SteelAnswer* a = answer();
    if (a == nullptr) return grades;
    for (const GradeCandidate& candidate : a->candidates) {
        if (candidate.cannot_be_told_apart && static_cast<int>(grades.size()) < most) grades.push_back(candidate.grade);
    }
    return grades;
}

void SteelBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](double v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    painter.fillRect(px(24), px(headHeight), width() - px(48), 1, p.hair);
    const SteelAnswer* a = answer();
    if (a == nullptr) return;
    const Batch& batch = m_document.batch();
    QString title = batch.lot.empty() ? tr("The bar") : QString::fromStdString(batch.lot);
    if (!batch.claimed.empty()) title += tr(", sold as %1").arg(QString::fromStdString(batch.claimed));
    const QString right =
        a->by_certificate ? tr("by certificate")
        : a->shots == 0   ? tr("no shot")
        : a->shots == 1
            ? tr("one shot, %1").arg(a->method == AnalysisMethod::xrf ? tr("XRF") : tr("spark OES"))
            : tr("%1 shots, %2").arg(a->shots).arg(a->method == AnalysisMethod::xrf ? tr("XRF") : tr("spark OES"));
    const int end = width() - px(36) - m_look.width(right, 16);
    drawText(painter, px(24), px(34), elided(title, m_look.font(24, true), end - px(24)), m_look.font(24, true), p.ink);
    drawText(painter, width() - px(24), px(32), right, m_look.font(16), p.muted, Qt::AlignRight);
    if (!a->match) {
        int y = px(104);
        const QString head = a->measured.empty()
                                 ? tr("Nobody has looked yet")
                                 : tr("%1 is not in the library").arg(QString::fromStdString(batch.grade));
        drawText(painter, px(24), y, head, m_look.font(28, true), p.ink);
        for (const QString& line :
             {tr("I  or drop: a shot as CSV (element, percent, error)"), tr("N  type it: Cr 13.6; Mo 0.05; V <0.05"),
              tr("S  a spark beside a known bar     K  a hardened coupon"),
              tr("W  the folder into which the analyser drops its shots")}) {
            y += px(38);
            drawText(painter, px(24), y, elided(line, m_look.font(18), width() - px(48)), m_look.font(18), p.ink);
        }
        return;
    }
    const int bottom = height() - px(lowerHeight);
    const auto& elements = a->match->elements;
    int y = px(headHeight + 6);
    for (std::size_t i = static_cast<std::size_t>(m_first); i < elements.size() && y + px(rowHeight) <= bottom; ++i) {
        drawElementRuler(painter, QRect(px(24), y, width() - px(48), px(rowHeight)), rulerOf(elements[i]), m_look);
        painter.fillRect(px(24), y + px(rowHeight), width() - px(48), 1, p.hair);
        y += px(rowHeight);
    }
    const int shown = (bottom - px(headHeight + 6)) / px(rowHeight);
    const int hidden = static_cast<int>(elements.size()) - m_first - shown;
    if (hidden > 0)
        drawText(painter, width() - px(24), bottom - px(4), tr("%1 more below: ↓").arg(hidden), m_look.font(14),
                 p.muted, Qt::AlignRight);

    painter.fillRect(0, bottom, width(), 1, p.hair);
    const int middle = width() / 2;
    painter.fillRect(middle, bottom, 1, height() - bottom, p.hair);
    drawText(painter, px(24), bottom + px(28), tr("Fits best"), m_look.font(18, true), p.ink);
    const bool none = !a->candidates.empty() && a->candidates.front().claim == Claim::notConsistent;
    const auto alike = lookAlikes(4);
    int row = bottom + px(58);
    if (none) {
        drawText(painter, px(24), row, tr("No grade in the library."), m_look.font(16), p.ink);
        row += px(26);
    }
    for (std::size_t i = 0; i < alike.size(); ++i) {
        const bool taken = sameName(alike[i]->name, batch.grade);
        drawText(painter, px(24), row, QString::number(i + 1), m_look.font(16), p.muted);
        drawText(painter, px(50), row, QString::fromStdString(alike[i]->name), m_look.font(18, true),
                 taken ? p.primary : p.ink);
        drawText(painter, middle - px(30), row,
                 taken ? tr("taken for") : QString::fromStdString(alike[i]->own ? "own" : ""), m_look.font(14), p.muted,
                 Qt::AlignRight);
        row += px(27);
    }
    if (alike.size() > 1) { // a bracket round those that cannot be told apart
        const int x = middle - px(22);
        painter.fillRect(x, bottom + px(44), 2, row - bottom - px(60), p.ink);
        painter.fillRect(x - px(6), bottom + px(44), px(8), 2, p.ink);
        painter.fillRect(x - px(6), row - px(18), px(8), 2, p.ink);
        drawText(painter, px(24), std::min(row + px(2), height() - px(8)),
                 elided(tr("Not told apart by this method."), m_look.font(16), middle - px(40)), m_look.font(16),
                 p.ink);
    }
    CouponRule coupon;
    coupon.grades = alike;
    const Grade* own = m_document.tables().grade(batch.grade);
    if (own != nullptr && std::find(alike.begin(), alike.end(), own) == alike.end())
        coupon.grades.insert(coupon.grades.begin(), own);
    for (const SteelNote& note : batch.steel_notes) {
        if (note.kind == SteelNoteKind::coupon && note.hrc) coupon.read = note.hrc;
    }
    drawText(painter, middle + px(20), bottom + px(28),
             coupon.read ? tr("A coupon read %1").arg(words::hardness(*coupon.read)) : tr("A coupon would read"),
             m_look.font(18, true), p.ink);
    drawCouponRule(painter,
                   QRect(middle + px(20), bottom + px(40), width() - middle - px(44), height() - bottom - px(50)),
                   coupon, m_look);
}

ColumnContent SteelBench::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    const SteelAnswer* a = answer();
    if (blade == nullptr || a == nullptr) return content;
    const Batch& batch = m_document.batch();
    const Verdict& verdict = m_document.verdictAt(Gate::steel);
    content.key = tr("Enter");
    content.caption = tr("%1 at Steel").arg(QString::fromStdString(blade->mark));
    content.state = verdict.state;
    content.word = words::stateName(verdict.state);
    content.sub = words::headline(verdict);
    if (a->match && !a->match->elements.empty() && a->match->elements.front().z > 0) {
        const ElementMatch& worst = a->match->elements.front();
        const bool below = worst.reading.percent.value_or(worst.reading.lod.value_or(0)) < worst.low;
        content.numbers.push_back({tr("%1, the worst").arg(QString::fromStdString(worst.element)),
                                   words::percentText(worst.reading.percent.value_or(worst.reading.lod.value_or(0))),
                                   QStringLiteral("%"), true});
        content.numbers.push_back({below ? tr("Needs") : tr("At most"),
                                   words::percentText(below ? worst.low : worst.high.value_or(0)), QStringLiteral("%"),
                                   false});
    }
    content.lines = reasonLines(verdict);
    const auto alike = lookAlikes(6);
    for (std::size_t i = 0; i + 1 < alike.size() && i < 2; ++i) {
        const TellApart how = howToTellApart(*alike[i], *alike[i + 1]);
        const QString pair =
            tr("%1 or %2").arg(QString::fromStdString(alike[i]->name), QString::fromStdString(alike[i + 1]->name));
        const auto span = [](double low, double high, int places) {
            return QStringLiteral("%1–%2").arg(low, 0, 'f', places).arg(high, 0, 'f', places);
        };
        if (how.test == TellApart::Test::carbon)
            content.lines.push_back({Tone::note,
                                     tr("%1: carbon by spark OES, %2 or %3 %")
                                         .arg(pair, span(how.a_low, how.a_high, 2), span(how.b_low, how.b_high, 2)),
                                     QStringLiteral("M26"), false});
        else if (how.test == TellApart::Test::coupon)
            content.lines.push_back({Tone::note,
                                     tr("%1: harden a coupon, %2 or %3 HRC")
                                         .arg(pair, span(how.a_low, how.a_high, 0), span(how.b_low, how.b_high, 0)),
                                     QStringLiteral("M26"), false});
        else if (how.test == TellApart::Test::spark)
            content.lines.push_back(
                {Tone::note, tr("%1: compare sparks, carbon differs").arg(pair), QStringLiteral("M26"), false});
    }
    const Grade* grade = m_document.tables().grade(batch.grade);
    if (grade != nullptr && grade->own)
        content.lines.push_back(
            {Tone::note,
             tr("%1 as the shop has it; the shipped values stay beside it").arg(QString::fromStdString(grade->name)),
             QStringLiteral("tables"), false});
    if (verdict.next.act == Act::reassign) {
        content.act = tr("Re-assign the grade");
        content.detail = alike.empty() ? tr("or return the bar")
                                       : tr("to %1, or another").arg(QString::fromStdString(alike.front()->name));
    } else if (verdict.next.act == Act::takeShot) {
        content.act = a->shots == 0 ? tr("Take in a shot") : tr("Shoot again");
        content.detail = tr("CSV, folder, or N to type it");
    } else {
        content.act = tr("On to the batch");
        content.detail = tr("the steel is answered");
    }
    content.left = tr("Re-assign");
    content.left_key = QStringLiteral("*");
    content.right = tr("Lot");
    content.right_key = QStringLiteral("L");
    content.below.push_back({Tone::note,
                             tr("N type, I import, / strike shot, S spark, K coupon, M changed pieces, C certificate, "
                                "G grades, W folder, T %1, B %2")
                                 .arg(m_method == AnalysisMethod::xrf ? tr("XRF") : tr("spark OES"),
                                      m_forBlade ? tr("for this blade") : tr("for the bar")),
                             {},
                             false});
    for (const Caution caution : verdict.cautions)
        content.below.push_back({Tone::note, words::cautionText(caution), {}, true});
    return content;
}

void SteelBench::act() {
    if (answer() == nullptr) return;
    const Verdict& verdict = m_document.verdictAt(Gate::steel);
    if (verdict.next.act == Act::reassign) return reassign();
    if (verdict.next.act == Act::takeShot) return askShotFile();
    emit said(tr("The steel is answered. F9: the batch"), false);
}

void SteelBench::leftAct() {
    if (answer() != nullptr) reassign();
}

void SteelBench::rightAct() {
    if (answer() != nullptr) lot();
}

bool SteelBench::key(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        m_first += event->key() == Qt::Key_Down ? 1 : -1;
        refresh();
        return true;
    }
    if (answer() == nullptr) return false;
    const QString letter = event->text().toLower();
    const auto is = [&](const char* one) { return letter == QLatin1String(one); };
    if (is("i")) return askShotFile(), true;
    if (is("n")) return typeShot(), true;
    if (is("/")) return strikeShot(), true;
    if (is("*")) return reassign(), true;
    if (is("l")) return lot(), true;
    if (is("c")) return certificate(), true;
    if (is("s")) return noteSpark(), true;
    if (is("k")) return noteCoupon(), true;
    if (is("m")) return noteChanged(), true;
    if (is("g")) return library(), true;
    if (is("w")) return watch(), true;
    if (is("t") || is("b")) {
        if (is("t"))
            m_method = m_method == AnalysisMethod::xrf ? AnalysisMethod::oes : AnalysisMethod::xrf;
        else
            m_forBlade = !m_forBlade;
        emit changed();
        return true;
    }
    return false;
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/steel/steel_bench.h"

#include "app/shared/pointing.h"
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
constexpr int rowHeight = 60;
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

// E48. Where the shots cannot be one steel: their element, lowest and highest; null where they can.
const Reason* shotsApartIn(const Verdict& verdict) {
    const auto found = std::find_if(verdict.reasons.begin(), verdict.reasons.end(), [](const Reason& reason) {
        return reason.fact == Fact::shotsDisagree && reason.tone != Tone::note;
    });
    return found == verdict.reasons.end() ? nullptr : &*found;
}

ElementRuler rulerOf(const ElementMatch& match, const Verdict& verdict) {
    ElementRuler ruler;
    ruler.match = match;
    ruler.name = elementName(match.element);
    ruler.state = match.z >= 2     ? State::fail
                  : match.z > 0    ? State::borderline
                  : match.residual ? State::excused
                                   : State::pass;
    const QString number = words::percentText(match.reading.percent.value_or(match.reading.lod.value_or(0.0)));
    ruler.value = match.reading.percent ? number : SteelBench::tr("under %1").arg(number);
    const Reason* apart = shotsApartIn(verdict);
    if (apart != nullptr && apart->texts.at(0) == match.element) // a mean of what cannot be one steel is no number
        ruler.value = SteelBench::tr("%1 to %2")
                          .arg(words::percentText(apart->numbers.at(0)), words::percentText(apart->numbers.at(1)));
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
    : Bench(document, look, parent), m_folder(folder), m_seams(std::move(seams)),
      m_elements(new RowList(rowHeight, look, this)) {
    setObjectName(QStringLiteral("steel-bench"));
    tellUnder(this, m_told);
    setFocusPolicy(Qt::StrongFocus);
    m_elements->setObjectName(QStringLiteral("elements"));
    m_elements->setAccessibleName(tr("Elements against the grade"));
    connect(m_elements, &RowList::chosen, this, [this](int element) { m_element = element; });
    connect(&folder, &WatchedFolder::arrived, this, [this](const QString& file) {
        if (!m_document.hasBatch()) return;
        if (!m_inFront) emit gateWanted(Gate::steel);
        takeFile(file);
    });
}

const SteelAnswer* SteelBench::answer() const {
    return m_document.blade() != nullptr ? &m_document.judged().steel(static_cast<std::size_t>(m_document.bladeIndex()))
                                         : nullptr;
}

void SteelBench::refresh() {
    const int elements =
        answer() != nullptr && answer()->match ? static_cast<int>(answer()->match->elements.size()) : 0;
    m_element = std::clamp(m_element, 0, std::max(0, elements - 1));
    m_elements->show({elements, m_element,
                      [this](QPainter& painter, const QRect& row, int i) {
                          painter.fillRect(row, palette().panel);
                          drawElementRuler(painter, row,
                                           rulerOf(answer()->match->elements[static_cast<std::size_t>(i)],
                                                   m_document.verdictAt(Gate::steel)),
                                           m_look);
                          painter.fillRect(row.left(), row.bottom(), row.width(), 1, palette().hair);
                      },
                      [this](int i) {
                          const ElementRuler ruler = rulerOf(answer()->match->elements[static_cast<std::size_t>(i)],
                                                             m_document.verdictAt(Gate::steel));
                          return tr("%1: %2 %, %3").arg(ruler.name, ruler.value, ruler.need);
                      }});
    m_elements->setVisible(elements > 0);
    setAccessibleName(content().sub);
    update();
}

void SteelBench::resizeEvent(QResizeEvent*) {
    const int top = px(headHeight + 6);
    // Whole rows only.
    const int rows = std::max(1, (height() - px(lowerHeight) - top) / px(rowHeight));
    m_elements->setGeometry(px(24), top, width() - px(36), rows * px(rowHeight));
}

namespace {

double shareOf(const SteelAnswer& answer, const Grade& grade) {
    for (const GradeCandidate& candidate : answer.candidates) {
        if (candidate.grade == &grade) return candidate.share;
    }
    return 0;
}

} // namespace

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
    m_told.clear();
    const Palette& p = m_look.palette;
    const auto px = [&](double v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    painter.fillRect(px(24), px(headHeight), width() - px(48), 1, p.hair);
    const SteelAnswer* a = answer();
    if (a == nullptr) return;
    const Batch& batch = m_document.batch();
    const Blade* blade = m_document.blade();
    const bool oneBar = blade == nullptr || batch.ofOneBar(*blade);
    const BladeClaim claim = m_document.claim();
    QString title = !oneBar             ? QString::fromStdString(blade->mark)
                    : batch.lot.empty() ? tr("The bar")
                                        : QString::fromStdString(batch.lot);
    if (!claim.claimed.empty()) title += tr(", sold as %1").arg(QString::fromStdString(claim.claimed));
    const QString right =
        a->by_certificate ? tr("by certificate")
        : a->shots == 0   ? tr("no shot")
        : a->shots == 1
            ? tr("one shot, %1").arg(a->method == AnalysisMethod::xrf ? tr("XRF") : tr("spark OES"))
            : tr("%1 shots, %2").arg(a->shots).arg(a->method == AnalysisMethod::xrf ? tr("XRF") : tr("spark OES"));
    m_told.add({0, 0, double(width()), double(px(headHeight))},
               tr("What the bar or blade was sold as, and how often and how it was analysed"));
    const int end = width() - px(36) - m_look.width(right, 16);
    drawFitted(painter, px(24), px(34), title, end - px(24), m_look, 24, true, p.ink);
    drawText(painter, width() - px(24), px(32), right, m_look.font(16), p.muted, Qt::AlignRight);
    if (!a->match) {
        const int y = px(104);
        const QString head = a->measured.empty()
                                 ? tr("Nobody has looked yet")
                                 : tr("%1 is not in the library").arg(QString::fromStdString(m_document.claim().grade));
        drawText(painter, px(24), y, head, m_look.font(28, true), p.ink);
        drawParagraphs(painter, px(24), y + px(38), width() - px(48),
                       {tr("A shot as a file: element, percent, error; or drop it here"),
                        tr("Or type it: Cr 13.6; Mo 0.05; V <0.05"),
                        tr("Without an analyser: a spark beside a known bar, or a hardened coupon")},
                       px(14), m_look, 18, p.ink);
        return;
    }
    const int bottom = height() - px(lowerHeight);
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
        m_told.add({0, double(row - px(20)), double(middle), double(px(27))},
                   tr("%1: %2, as the shots alone share it among the library's grades")
                       .arg(QString::fromStdString(alike[i]->name), words::percent(shareOf(*a, *alike[i]))));
        const bool taken = sameName(alike[i]->name, m_document.claim().grade);
        drawText(painter, px(24), row, QString::number(i + 1), m_look.font(16), p.muted);
        const QString name = QString::fromStdString(alike[i]->name);
        const QString share = words::percent(shareOf(*a, *alike[i]));
        const int whole = middle - px(34 + 50 + 8) - m_look.width(share, 18, true);
        // Where both have no room the name is read whole; what it is taken for is told by its colour and the column.
        QString beside = taken ? tr("taken for") : alike[i]->own ? tr("own") : QString();
        constexpr int smallest = 12;
        const int room = middle - px(90 + 50 + 8) - m_look.width(beside, 14);
        if (m_look.width(name, smallest, true) > room) beside.clear();
        const int nameSize = fittingSize(m_look, name, 18, 10, beside.isEmpty() ? whole : room, true);
        drawText(painter, px(50), row, name, m_look.font(nameSize, true), taken ? p.primary : p.ink);
        drawText(painter, middle - px(34), row, share, m_look.font(18, true), p.ink, Qt::AlignRight);
        drawText(painter, middle - px(90), row, beside, m_look.font(14), p.muted, Qt::AlignRight);
        row += px(27);
    }
    if (alike.size() > 1) { // a bracket round those that cannot be told apart
        const int x = middle - px(22);
        painter.fillRect(x, bottom + px(44), 2, row - bottom - px(60), p.ink);
        painter.fillRect(x - px(6), bottom + px(44), px(8), 2, p.ink);
        painter.fillRect(x - px(6), row - px(18), px(8), 2, p.ink);
        m_told.add({0, double(row - px(18)), double(middle), double(px(28))},
                   tr("These fit alike; the share is that of all other grades of the library together"));
        drawFitted(painter, px(24), std::min(row + px(2), height() - px(8)),
                   tr("Not told apart. Another: %1").arg(words::percent(a->otherShare())), middle - px(40), m_look, 16,
                   false, p.ink);
    }
    CouponRule coupon;
    coupon.grades = alike;
    const Grade* own = m_document.tables().grade(m_document.claim().grade);
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
                   coupon, m_look, &m_told);
}

ColumnContent SteelBench::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    const SteelAnswer* a = answer();
    if (blade == nullptr || a == nullptr) return content;
    const Verdict& verdict = m_document.verdictAt(Gate::steel);
    content.key = tr("Enter");
    content.caption = tr("%1 at Steel").arg(QString::fromStdString(blade->mark));
    content.state = verdict.state;
    content.word = words::stateName(verdict.state);
    content.sub = words::headline(verdict);
    if (const Reason* apart = shotsApartIn(verdict)) {
        const QString element = QString::fromStdString(apart->texts.at(0));
        content.numbers.push_back(
            {tr("%1, lowest").arg(element), words::percentText(apart->numbers.at(0)), QStringLiteral("%"), true});
        content.numbers.push_back({tr("Highest"), words::percentText(apart->numbers.at(1)), QStringLiteral("%"), true});
    } else if (a->match && !a->match->elements.empty() && a->match->elements.front().z > 0) {
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
    const Grade* grade = m_document.tables().grade(m_document.claim().grade);
    if (grade != nullptr && grade->own)
        content.lines.push_back(
            {Tone::note,
             tr("%1 as the shop has it; the shipped values stay beside it").arg(QString::fromStdString(grade->name)),
             QStringLiteral("tables"), false});
    switch (verdict.next.act) {
    case Act::reassign:
    case Act::tellApart:
    case Act::addGrade:
    case Act::returnBar:
    case Act::makerDecides: {
        const words::NextWords next = words::nextStep(verdict);
        content.act = next.act;
        content.detail = next.detail;
        break;
    }
    case Act::takeShot:
        content.act = a->shots == 0 ? tr("Take in a shot") : tr("Shoot again");
        content.detail = tr("CSV, folder, or N to type it");
        break;
    default:
        content.act = tr("On to the batch");
        content.detail = tr("the steel is answered");
    }
    content.left = tr("Re-assign");
    content.left_key = QStringLiteral("*");
    content.right = tr("Lot");

    for (const Caution caution : verdict.cautions)
        content.below.push_back({Tone::note, words::cautionText(caution), {}, true});
    return content;
}

void SteelBench::act() {
    if (answer() == nullptr) return;
    const Verdict& verdict = m_document.verdictAt(Gate::steel);
    if (verdict.next.act == Act::reassign) return reassign();
    if (const auto* apart = verdict.next.as<TellApartStep>()) {
        if (apart->how.test == TellApart::Test::coupon) return noteCoupon();
        return apart->how.test == TellApart::Test::spark ? noteSpark() : typeShot();
    }
    if (verdict.next.act == Act::takeShot) return askShotFile();
    if (verdict.next.act == Act::addGrade) return emit commandWanted(QStringLiteral("steel.own"));
    if (verdict.next.act == Act::returnBar || verdict.next.act == Act::makerDecides)
        return emit commandWanted(QStringLiteral("decide"));
    emit commandWanted(QStringLiteral("overview"));
}

void SteelBench::leftAct() {
    if (answer() != nullptr) reassign();
}

void SteelBench::rightAct() {
    if (answer() != nullptr) lot();
}

Commands SteelBench::commands() {
    const auto batch = [this] { return answer() == nullptr ? tr("Make a batch first.") : QString(); };
    const QString method = m_method == AnalysisMethod::xrf ? tr("XRF") : tr("spark emission");
    return {
        {QStringLiteral("steel.file"), tr("Shot from a file"), tr("as the analyser wrote it; or drop it here"),
         Verb::inAndOut, [this] { askShotFile(); }, batch},
        {QStringLiteral("steel.type"), tr("Type a shot"), tr("element by element"), Verb::makeNew,
         [this] { typeShot(); }, batch},
        {QStringLiteral("steel.strike"), tr("Strike out"), tr("the last shot"), Verb::strike, [this] { strikeShot(); },
         batch},
        {QStringLiteral("steel.reassign"), tr("Re-assign"), tr("take the batch for another grade"), Verb::other,
         [this] { reassign(); }, batch},
        {QStringLiteral("steel.coupon"), tr("Coupon"), tr("a hardened piece, read"), Verb::none,
         [this] { noteCoupon(); }, batch},
        {QStringLiteral("steel.spark"), tr("Spark"), tr("beside a known bar"), Verb::none, [this] { noteSpark(); },
         batch},
        {QStringLiteral("steel.certificate"), tr("Certificate"), tr("the mill's own values"), Verb::none,
         [this] { certificate(); }, batch},
        {QStringLiteral("steel.lot"), tr("Lot"), tr("maker, heat number, bar"), Verb::none, [this] { lot(); }, batch},
        {QStringLiteral("steel.method"), tr("By %1").arg(method), tr("how the next shot is taken"), Verb::none,
         [this] {
             m_method = m_method == AnalysisMethod::xrf ? AnalysisMethod::oes : AnalysisMethod::xrf;
             emit changed();
         },
         batch},
        {QStringLiteral("steel.for"), forBlade() ? tr("Of this blade") : tr("Of the bar"),
         tr("what the next shot is of"), Verb::none,
         [this] {
             m_forBlade = !forBlade();
             emit changed();
         },
         batch},
        {QStringLiteral("steel.changed"), tr("Changed pieces"), tr("carburised, decarburised, another heat"),
         Verb::none, [this] { noteChanged(); }, batch},
        {QStringLiteral("steel.other"), tr("Another steel"), tr("laminated, pattern-welded: its grade and place"),
         Verb::none, [this] { nameOther(); }, batch},
        {QStringLiteral("steel.own"), tr("Own grade"), tr("what the shot read, kept as a grade of the shop"),
         Verb::none, [this] { ownGradeOfShot(); },
         [this]() -> QString {
             return answer() == nullptr || answer()->shots == 0 ? tr("Take a shot first.") : QString();
         }},
        {QStringLiteral("steel.library"), tr("Library"), tr("the grades, and your own"), Verb::none,
         [this] { library(); }, batch},
        {QStringLiteral("steel.watch"), tr("Watched folder"), tr("where the analyser's program writes"), Verb::none,
         [this] { watch(); }, batch}};
}

QStringList SteelBench::movements() const {
    return {tr("Up and down   more elements")};
}

bool SteelBench::key(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        m_element += event->key() == Qt::Key_Down ? 1 : -1;
        refresh();
        return true;
    }
    return false;
}

HelpText SteelBench::help() const {
    return {
        tr("Is this bar the grade that it is said to be, and which others could it be?"),
        {{Pictogram::blade, tr("Grind a clean, flat place, larger than the analyser window.")},
         {Pictogram::peaks,
          tr("Take a shot: from a file, by wire, or typed element by element. Three shots are better than one.")},
         {Pictogram::window, tr("Each ruler shows what was found, how surely, and what the grade allows.")},
         {Pictogram::tank, tr("Without an analyser: harden a coupon and read it, or compare sparks with a known bar.")},
         {Pictogram::boxes, tr("The column names the look-alikes, and what would tell them apart.")}},
        {QStringLiteral("M26")},
        tr("X-ray analysis does not see carbon, nor much below silicon. One shot tells one place. Elements that the "
           "method cannot see are listed, not judged.")};
}

} // namespace rollcall

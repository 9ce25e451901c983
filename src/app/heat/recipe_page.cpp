// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/recipe_page.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>
#include <QKeyEvent>
#include <QMouseEvent>

namespace rollcall {

namespace {

std::vector<FormChoice> stageChoices() {
    std::vector<FormChoice> choices;
    for (int i = 0; i < stageKinds; ++i) {
        const auto kind = static_cast<StageKind>(i);
        choices.emplace_back(nameOf(kind), words::stageName(kind));
    }
    return choices;
}

QString holdText(const RecipeStage& stage) {
    QStringList parts;
    if (stage.max_minutes)
        parts << RecipePage::tr("%1 to %2 min").arg(stage.minutes).arg(*stage.max_minutes);
    else if (stage.minutes >= 60)
        parts << words::hours(stage.minutes / 60);
    else if (stage.minutes > 0)
        parts << RecipePage::tr("%1 min").arg(stage.minutes);
    if (!stage.cooling.empty()) parts << QString::fromStdString(stage.cooling);
    return parts.join(QStringLiteral(", "));
}

} // namespace

RecipePage::RecipePage(Document& document, const Look& look) : Bench(document, look) {
    setObjectName(QStringLiteral("recipe-page"));
    tellUnder(this, m_told);
}

const Recipe* RecipePage::recipe() const {
    return m_document.hasBatch() && m_document.batch().recipe ? &*m_document.batch().recipe : nullptr;
}

const Grade* RecipePage::grade() const {
    return m_document.hasBatch() ? m_document.tables().grade(m_document.claim().grade) : nullptr;
}

void RecipePage::refresh() {
    const Recipe* r = recipe();
    m_stage = r != nullptr ? std::clamp(m_stage, 0, std::max(0, static_cast<int>(r->stages.size()) - 1)) : 0;
    setAccessibleName(content().sub);
    update();
}

RecipeLine RecipePage::line() const {
    RecipeLine line;
    const Recipe& r = *recipe();
    line.stages = r.stages;
    line.chosen = m_stage;
    const auto findings = checkRecipe(r, grade());
    int done = 0; // tempers of the blade in hand
    if (const Blade* blade = m_document.blade()) {
        for (const Temper& temper : blade->tempers)
            done = temper.round == blade->round ? std::max(done, temper.number) : done;
    }
    const bool hardened =
        m_document.blade() != nullptr &&
        (done > 0 || m_document.blade()->quenched_at ||
         std::any_of(m_document.blade()->heats.begin(), m_document.blade()->heats.end(),
                     [&](const BladeHeat& h) { return h.round == m_document.blade()->round && h.out_s; }));
    int temper = 0;
    for (std::size_t i = 0; i < r.stages.size(); ++i) {
        line.names.push_back(words::stageName(r.stages[i].kind));
        line.holds.push_back(holdText(r.stages[i]));
        line.warned.push_back(std::any_of(findings.begin(), findings.end(), [&](const RecipeFinding& f) {
            return f.stage == i && f.warning != RecipeWarning::embrittlementUnknown;
        }));
        const bool isTemper = r.stages[i].kind == StageKind::temper;
        line.done.push_back(isTemper ? ++temper <= done : hardened);
        QStringList says{tr("%1 at %2 ± %3")
                             .arg(line.names.back(), words::degrees(r.stages[i].temperature_c),
                                  words::degreesApart(r.stages[i].tolerance_c))};
        if (!line.holds.back().isEmpty()) says << line.holds.back();
        if (line.done.back()) says << tr("done on the blade in hand");
        if (line.warned.back()) says << tr("something about it is odd: the column says what");
        line.says.push_back(says.join(QStringLiteral("; ")));
    }
    return line;
}

void RecipePage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    const Recipe* r = recipe();
    if (r == nullptr) {
        drawText(painter, 0, px(60), tr("No recipe chosen"), m_look.font(28, true), p.ink);
        const QStringList lines{tr("Enter  one from the library's middle values for this grade"),
                                tr("V  one that the shop has used")};
        int y = px(104);
        for (const QString& one : lines) {
            drawText(painter, 0, y, one, m_look.font(18), p.ink);
            y += px(34);
        }
        return;
    }
    drawFitted(painter, 0, px(22), tr("%1, version %2").arg(QString::fromStdString(r->name)).arg(r->version),
               width() * 6 / 10, m_look, 20, true, p.ink);
    drawText(painter, width(), px(22), QString::fromStdString(r->grade), m_look.font(16), p.muted, Qt::AlignRight);
    m_told.add({0, 0, double(width()), double(px(34))},
               tr("The recipe of the batch, its version, and the grade it is for"));
    drawRecipe(painter, lineArea(), line(), m_look, &m_told);
}

ColumnContent RecipePage::content() const {
    ColumnContent content;
    if (!m_document.hasBatch()) return content;
    content.key = tr("Enter");
    content.caption = tr("Recipe of %1").arg(QString::fromStdString(m_document.batch().name));
    content.right = tr("Other recipe");

    const Recipe* r = recipe();
    if (r == nullptr) {
        content.word = words::stateName(State::notYet);
        content.sub = tr("The batch runs no recipe.");
        content.act = tr("Recipe for %1")
                          .arg(m_document.claim().grade.empty() ? tr("this steel")
                                                                : QString::fromStdString(m_document.claim().grade));
        content.detail = tr("from the library, to change");
        return content;
    }
    const auto findings = checkRecipe(*r, grade());
    int serious = 0;
    for (const RecipeFinding& finding : findings) {
        const bool mere = finding.warning == RecipeWarning::embrittlementUnknown;
        if (!mere) ++serious;
        const RecipeStage& stage = r->stages[std::min(finding.stage, r->stages.size() - 1)];
        content.lines.push_back(
            {mere ? Tone::note : Tone::caution,
             QStringLiteral("%1: %2").arg(words::stageName(stage.kind), words::recipeWarning(finding)),
             QStringLiteral("tables"), false});
    }
    // E39. One heat for all steels in the blade: what it is to each of the others.
    for (const SteelPart& part : m_document.batch().other_steels) {
        const Grade* other = m_document.tables().grade(part.grade);
        if (other == nullptr) continue;
        const auto said = checkRecipe(*r, other);
        for (const RecipeFinding& finding : said) {
            const bool mere = finding.warning == RecipeWarning::embrittlementUnknown ||
                              finding.warning == RecipeWarning::tempersMissing;
            if (mere) continue;
            ++serious;
            const RecipeStage& stage = r->stages[std::min(finding.stage, r->stages.size() - 1)];
            content.lines.push_back({Tone::caution,
                                     tr("%1 (%2), %3: %4")
                                         .arg(QString::fromStdString(part.grade), QString::fromStdString(part.place),
                                              words::stageName(stage.kind), words::recipeWarning(finding)),
                                     QStringLiteral("E39"), false});
        }
    }
    content.state = serious > 0 ? State::borderline : State::pass;
    content.word = serious > 0 ? tr("Look again") : tr("Sound");
    content.sub = serious == 0   ? tr("Within what the library knows.")
                  : serious == 1 ? tr("One thing is odd.")
                                 : tr("%1 things are odd.").arg(serious);
    if (serious == 0)
        content.lines.push_back({Tone::good,
                                 tr("Checked against the windows of %1").arg(QString::fromStdString(r->grade)),
                                 QStringLiteral("tables"), false});
    if (grade() != nullptr && !grade()->note.empty())
        content.lines.push_back({Tone::note, QString::fromStdString(grade()->note), QStringLiteral("tables"), false});
    const RecipeStage& stage = r->stages[static_cast<std::size_t>(m_stage)];
    content.act = tr("Change %1").arg(words::stageName(stage.kind).toLower());
    content.detail = tr("makes version %1").arg(r->version + 1);
    content.left = tr("Add a stage");
    content.left_key = QStringLiteral("A");
    content.below.push_back({Tone::note, words::cautionText(Caution::hotWork), {}, true});
    return content;
}

void RecipePage::act() {
    if (!m_document.hasBatch()) return;
    if (recipe() == nullptr) return fromTemplate();
    editStage(false);
}

void RecipePage::leftAct() {
    if (recipe() != nullptr) editStage(true);
}

void RecipePage::rightAct() {
    choose();
}

void RecipePage::fromTemplate() {
    const Grade* g = grade();
    if (g == nullptr) {
        // An unknown grade gets the bare bones, to be filled in.
        Recipe bare;
        bare.name = m_document.claim().grade.empty() ? m_document.batch().name : m_document.claim().grade;
        bare.grade = m_document.claim().grade;
        bare.stages = {{StageKind::austenitise, 800, 5, 10, 10, "", ""},
                       {StageKind::quench, 55, 0, {}, 15, "oil", ""},
                       {StageKind::temper, 200, 120, {}, 5, "still air", ""}};
        return keep(bare);
    }
    const std::vector<Choice> choices{
        {QStringLiteral("1"), tr("Stock removal"), tr("straight to the soak")},
        {QStringLiteral("2"), tr("Forged"),
         g->may_normalise ? tr("normalise and refine first") : tr("this grade is not normalised: full anneal it")}};
    (new ChoiceDialog(tr("A recipe for %1").arg(QString::fromStdString(g->name)),
                      {tr("Middle values of the library, of %1 confidence. The mill's sheet comes first.")
                           .arg(g->confidence == Confidence::high     ? tr("high")
                                : g->confidence == Confidence::medium ? tr("medium")
                                                                      : tr("low"))},
                      choices, m_look, window()))
        ->ask([this, g](int i) {
            const Window window = *m_document.claim().window;
            std::optional<double> middle;
            if (window.low) middle = window.high ? (*window.low + *window.high) / 2 : *window.low + 0.5;
            keep(templateFor(*g, i == 1, middle));
        });
}

void RecipePage::keep(Recipe changed) {
    m_document.perform([changed, batch = m_document.batch().id](Logbook& logbook) {
        return logbook.inOneTransaction([&]() -> Result<Done> {
            const auto id = addRecipe(logbook, changed);
            if (!id) return id.error();
            return useRecipe(logbook, batch, *id);
        });
    });
}

void RecipePage::editStage(bool added) {
    const Recipe& r = *recipe();
    RecipeStage stage = r.stages[static_cast<std::size_t>(m_stage)];
    if (added) {
        stage.max_minutes.reset();
        stage.as_entered.clear();
    }
    const auto time = [](double minutes) { return QStringLiteral("%1 min").arg(minutes); };
    auto* form = new FormDialog(
        added ? tr("A stage after this one") : tr("Change this stage"), tr("Keep version %1").arg(r.version + 1),
        {{"kind", tr("Stage"), {}, QString::fromLatin1(nameOf(stage.kind)), stageChoices(), false},
         {"temperature",
          tr("Temperature"),
          tr("%1; of a quench its medium").arg(words::degreesHint(800)),
          words::field(stage.temperature_c, Quantity::temperature),
          {},
          false},
         {"hold", tr("Hold"), tr("like 8 min or 2 h; of a soak the shortest"), time(stage.minutes), {}, false},
         {"most",
          tr("Longest soak"),
          tr("minutes; blank: no limit"),
          stage.max_minutes ? QString::number(*stage.max_minutes) : QString(),
          {},
          false},
         {"tolerance",
          tr("Tolerance"),
          tr("%1 either way").arg(words::unit(Quantity::temperature)),
          words::fieldApart(stage.tolerance_c),
          {},
          false},
         {"cooling",
          tr("Cooling"),
          tr("or medium: still air, fast oil, plates"),
          QString::fromStdString(stage.cooling),
          {},
          false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto c = words::typed(v["temperature"], Quantity::temperature);
            if (!c || *c < -200 || *c > 1400)
                return {QStringLiteral("temperature"), tr("Type a temperature, such as 800 or 1475F.")};
            const auto h = parseQuantity(v["hold"].toStdString(), Quantity::duration);
            if (!h || *h > 48) return {QStringLiteral("hold"), tr("Type a time, such as 8 min or 2 h.")};
            if (!v["most"].isEmpty()) {
                const auto most = parseNumber(v["most"].toStdString());
                if (!most || *most < *h * 60 || *most > 600)
                    return {QStringLiteral("most"), tr("Type minutes, not below the hold, or leave it blank.")};
            }
            const auto t = words::typedApart(v["tolerance"]);
            return t && *t > 0 && *t <= 100 ? FormFault{}
                                            : FormFault{QStringLiteral("tolerance"),
                                                        tr("Type how far, such as %1.").arg(words::degreesApart(10))};
        },
        [this, added, r](const FormValues& v) {
            RecipeStage typed;
            typed.kind = named<StageKind>(v["kind"].toStdString()).value_or(StageKind::austenitise);
            typed.temperature_c = words::typed(v["temperature"], Quantity::temperature).value();
            typed.minutes = parseQuantity(v["hold"].toStdString(), Quantity::duration).value() * 60;
            if (!v["most"].isEmpty()) typed.max_minutes = parseNumber(v["most"].toStdString()).value();
            typed.tolerance_c = words::typedApart(v["tolerance"]).value();
            typed.cooling = v["cooling"].toStdString();
            typed.as_entered = (v["temperature"] + QLatin1Char(' ') + v["hold"]).toStdString();
            Recipe changed = r;
            if (added)
                changed.stages.insert(changed.stages.begin() + m_stage + 1, typed);
            else
                changed.stages[static_cast<std::size_t>(m_stage)] = typed;
            if (added) ++m_stage;
            keep(changed);
        });
}

// Recipes are the shop's: they are read when they are asked for.
void RecipePage::choose() {
    if (!m_document.hasBatch()) return;
    m_document.query<std::vector<Recipe>>(
        [](Logbook& logbook) { return logbook.recipes(); },
        [this](const Result<std::vector<Recipe>>& found) {
            if (!found) return emit said(words::errorText(found.error()), true);
            if (found->empty()) return emit said(tr("The shop has no recipe yet. Enter makes one."), true);
            std::vector<Choice> choices;
            for (std::size_t i = 0; i < found->size() && i < 30; ++i) {
                const Recipe& r = (*found)[i];
                QStringList stages;
                for (const RecipeStage& stage : r.stages)
                    stages << QStringLiteral("%1 %2").arg(words::stageName(stage.kind)).arg(stage.temperature_c);
                choices.push_back({i < 9 ? QString::number(i + 1) : QString(),
                                   tr("%1, version %2").arg(QString::fromStdString(r.name)).arg(r.version),
                                   stages.join(QStringLiteral(", "))});
            }
            (new ChoiceDialog(tr("Which recipe does the batch run?"), {}, choices, m_look, window()))
                ->ask([this, recipes = *found](int i) {
                    m_document.perform([batch = m_document.batch().id, id = recipes[static_cast<std::size_t>(i)].id](
                                           Logbook& logbook) { return useRecipe(logbook, batch, id); });
                });
        });
}

Commands RecipePage::commands() {
    const auto kept = [this] { return recipe() == nullptr ? tr("The batch has no recipe yet.") : QString(); };
    return {{QStringLiteral("recipe.add"), tr("Add a stage"), tr("behind the one in hand"), Verb::add,
             [this] { editStage(true); }, kept},
            {QStringLiteral("recipe.remove"), tr("Stage out"), tr("the one in hand"), Verb::out,
             [this] {
                 Recipe changed = *recipe();
                 changed.stages.erase(changed.stages.begin() + m_stage);
                 keep(changed);
             },
             [this, kept] {
                 const bool last = recipe() != nullptr && recipe()->stages.size() < 2;
                 return last ? tr("A recipe needs at least one stage.") : kept();
             }},
            {QStringLiteral("recipe.choose"), tr("Other recipe"), tr("of the shop"), Verb::none, [this] { choose(); }},
            {QStringLiteral("recipe.template"), tr("From the grade"), tr("the library's usual one"), Verb::none,
             [this] { fromTemplate(); },
             [this] { return m_document.hasBatch() ? QString() : tr("Make a batch first."); }}};
}

QStringList RecipePage::movements() const {
    return {tr("Left and right   the stage")};
}

bool RecipePage::key(QKeyEvent* event) {
    const Recipe* r = recipe();
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        if (r != nullptr && !r->stages.empty()) {
            const int count = static_cast<int>(r->stages.size());
            m_stage = std::clamp(m_stage + (event->key() == Qt::Key_Right ? 1 : -1), 0, count - 1);
            emit changed();
        }
        return true;
    }
    return false;
}

void RecipePage::mousePressEvent(QMouseEvent* event) {
    if (recipe() == nullptr) return;
    const int stage = recipeStageAt(lineArea(), line(), event->pos().x(), m_look);
    if (stage < 0) return;
    m_stage = stage;
    emit changed();
}

HelpText RecipePage::help() const {
    return {tr("How is this steel to be treated, and does the plan agree with what is known of it?"),
            {{Pictogram::page, tr("Take the usual recipe of the grade, or another of the shop.")},
             {Pictogram::arrows, tr("Left and right go through its stages.")},
             {Pictogram::pen, tr("Change a stage: what ran before keeps the version that it ran with.")},
             {Pictogram::window, tr("What lies outside the windows of the grade is said beside it.")}},
            {QStringLiteral("M22"), QStringLiteral("M23")},
            tr("The windows are from data of makers and of standards, of middling confidence. The maker's manual of "
               "your oven and quenchant goes first.")};
}

std::vector<ReportTable> RecipePage::tables() const {
    ReportTable table{tr("Recipe"),
                      {tr("Stage"), tr("Temperature, %1").arg(words::unit(Quantity::temperature)), tr("Shortest, min"),
                       tr("Longest, min"), tr("Medium")},
                      {}};
    const Recipe* r = recipe();
    if (r == nullptr) return {table};
    table.title = QString::fromStdString(r->name);
    for (const RecipeStage& stage : r->stages) {
        table.rows.push_back({words::stageName(stage.kind), words::degreesNumber(stage.temperature_c), stage.minutes,
                              stage.max_minutes ? QVariant(*stage.max_minutes) : QVariant(),
                              QString::fromStdString(stage.cooling)});
    }
    return {table};
}

} // namespace rollcall

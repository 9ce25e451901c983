// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/files_dialog.h"
#include "app/acts/shop_actions.h"
#include "app/batch/batch_form.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/local_time.h"
#include "app/shared/picture.h"
#include "app/shared/typed_reading.h"
#include "core/base/number.h"
#include "core/heat/next_temper.h"
#include "core/judge/second_opinion.h"
#include "core/measure/indent.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "plot/differences.h"
#include "words/typed_time.h"
#include "words/words.h"

// The part of ShopActions that speaks of the blade or the batch in hand.
namespace rollcall {

void ShopActions::strikeLast() {
    const QString last = m_station.lastReading();
    if (last.isEmpty()) return emit said(tr("There is no reading to strike out."), true);
    std::vector<Choice> choices;
    for (int i = 0; i < static_cast<int>(StrikeReason::superseded); ++i)
        choices.push_back({QString::number(i + 1), words::strikeName(static_cast<StrikeReason>(i)), {}});
    (new ChoiceDialog(tr("Strike out %1. Why?").arg(last), {tr("It stays in the log, with the reason.")}, choices,
                      m_look, m_window))
        ->ask([this](int i) { m_station.strikeLast(static_cast<StrikeReason>(i)); });
}

namespace {

// Marks of readings that are on the blade still and have a known place.
int marksOn(const Blade& blade) {
    return static_cast<int>(std::count_if(blade.readings.begin(), blade.readings.end(), [&](const Reading& reading) {
        return reading.spot && reading.surface == blade.surface;
    }));
}

} // namespace

void ShopActions::askReason(const QString& title, const QString& act, const std::vector<FormChoice>& usual,
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
              {QString(),
               {"a sibling stands for it", tr("a sibling stands for it")},
               {"goes to a destructive test", tr("goes to a destructive test")},
               {"cannot be read: no flat left", tr("cannot be read: no flat left")}},
              [this, what, id = blade->id, gate = m_document.gate()](const std::string& reason) {
                  m_document.perform(
                      [id, gate, reason](Logbook& logbook) { return rollcall::excuse(logbook, id, gate, reason); },
                      [this, what](const Result<Done>& done) { afterWork(tr("%1 excused").arg(what), done); });
              });
}

FormField ShopActions::whenField() const {
    return {"when",
            tr("When"),
            tr("blank: now; 14:30, or 2026-11-24 18:00"),
            {},
            {},
            false,
            Picks::moment,
            localTime(m_document.now())};
}

FormFault ShopActions::timeFault(const FormValues& v, const Instant& now) {
    const auto when = typedTime(v["when"], now);
    if (when) return {};
    return {QStringLiteral("when"), when.error().kind == ErrorKind::range
                                        ? tr("It cannot have happened yet.")
                                        : tr("Type a time like 14:30 or 2026-11-24 18:00, or leave it blank.")};
}

void ShopActions::reharden() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const QString mark = QString::fromStdString(blade->mark);
    const int again = blade->round;
    const QString gone = tr("ground off: they leave the map");
    std::vector<FormField> fields{{"reason",
                                   tr("Reason"),
                                   tr("choose or type"),
                                   {},
                                   {QString(),
                                    {"soft after temper", tr("soft after temper")},
                                    {"soft from the quench", tr("soft from the quench")},
                                    {"warped", tr("warped")},
                                    {"coarse grain", tr("coarse grain")}},
                                   true}};
    if (marksOn(*blade) > 0) fields.push_back({"marks", tr("Old marks"), {}, {}, {tr("still there"), gone}, false});
    auto* form = new FormDialog(
        again > m_document.batch().rehardening_limit
            ? tr("Re-harden %1: over the shop's limit of %2").arg(mark).arg(m_document.batch().rehardening_limit)
            : tr("Re-harden %1, time %2").arg(mark).arg(again + 1),
        tr("Begin a new round"), fields, m_look, m_window);
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("A reason is needed.")} : FormFault{};
        },
        [this, mark, gone, id = blade->id](const FormValues& v) {
            m_document.perform(
                [id, reason = v["reason"].toStdString(), off = v["marks"] == gone](Logbook& logbook) -> Result<Done> {
                    return logbook.inOneTransaction([&]() -> Result<Done> {
                        if (off) {
                            if (auto done = rollcall::grindOff(logbook, id); !done) return done;
                        }
                        const auto round = rollcall::reharden(logbook, id, reason, logbook.now());
                        if (!round) return round.error();
                        return Done{};
                    });
                },
                [this, mark](const Result<Done>& done) { afterWork(tr("%1 begins anew at Quench").arg(mark), done); });
        });
}

void ShopActions::grindOff() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const QString mark = QString::fromStdString(blade->mark);
    const auto read = std::count_if(blade->readings.begin(), blade->readings.end(),
                                    [&](const Reading& reading) { return reading.surface == blade->surface; });
    if (read == 0) return emit said(tr("Nothing was read on %1 as it is.").arg(mark), true);
    (new ChoiceDialog(
         tr("Is %1 ground to clean metal?").arg(mark),
         {tr("What was read on the metal that is gone stays in the record, and is not averaged with what is read now. "
             "Its marks leave the map.")},
         {{QStringLiteral("1"), tr("It is ground clean"), tr("0.1 to 0.2 mm, then read it again")},
          {QStringLiteral("2"), tr("Not yet"), {}}},
         m_look, m_window))
        ->ask([this, mark, id = blade->id](int i) {
            if (i != 0) return;
            m_document.perform([id](Logbook& logbook) { return rollcall::grindOff(logbook, id); },
                               [this, mark](const Result<Done>& done) {
                                   afterWork(tr("%1 is ground clean: read it again.").arg(mark), done);
                               });
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
        ->ask([this, id = blade->id, gate = m_document.gate()](int i) {
            // Stored in the record's own words, whatever language the question was asked in.
            constexpr std::array<const char*, 4> reasons{"cracked", "scrapped", "used as a coupon",
                                                         "removed from the batch"};
            const std::string reason = reasons[static_cast<std::size_t>(i)];
            m_document.perform(
                [id, gate, reason, i](Logbook& logbook) {
                    return rollcall::takeOut(logbook, id, static_cast<Fate>(i), gate, reason);
                },
                [this](const Result<Done>& done) { afterWork(tr("taken out"), done); });
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
    form->note([this, planned = batch.planOf(Gate::temper).planned_readings](FormValues v) {
        v[QStringLiteral("planned")] = QString::number(planned);
        return windowNote(v, m_document.tables(), m_document.tester(), {});
    });
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
                    return rollcall::changeLimits(logbook, id, windowFromText(v["window"]).window,
                                                  v["window"].toStdString(), minimum);
                },
                [this](const Result<Done>& done) { afterWork(tr("limits changed, everything judged anew"), done); });
        });
}

void ShopActions::changePlanned() {
    if (!m_document.hasBatch()) return;
    const Gate gate = m_document.gate();
    const GatePlan plan = m_document.batch().planOf(gate);
    auto* form = new FormDialog(
        tr("The plan of %1").arg(words::gateName(gate)), tr("Judge anew"),
        {{"asked", tr("Asked"), tr("whether this batch must pass it"),
          plan.required ? QStringLiteral("yes") : QStringLiteral("no"), yesOrNo(), false},
         {"planned", tr("Readings"), tr("for each blade, 1 to 10"), QString::number(plan.planned_readings), {}, false},
         {"means",
          tr("By"),
          tr("Quench and Temper only: files alone, without a tester"),
          plan.by_files ? QStringLiteral("files") : QStringLiteral("readings"),
          {{"readings", tr("readings")}, {"files", tr("files")}},
          false}},
        m_look, m_window);
    form->ask(
        [](const FormValues& v) {
            return v["planned"].toInt() >= 1 && v["planned"].toInt() <= 10
                       ? FormFault{}
                       : FormFault{QStringLiteral("planned"), tr("Type 1 to 10.")};
        },
        [this, gate, plan, id = m_document.batch().id](const FormValues& v) {
            const bool files = v["means"] == QLatin1String("files");
            const bool canFiles = gate == Gate::quench || gate == Gate::temper;
            m_document.perform([id, gate, plan, files, canFiles,
                                planned = GatePlan{v["asked"] == QLatin1String("yes"), v["planned"].toInt(), files}](
                                   Logbook& logbook) -> Result<Done> {
                return logbook.inOneTransaction([&]() -> Result<Done> {
                    auto done = changePlan(logbook, id, gate, planned);
                    if (done && files != plan.by_files && canFiles) done = changeMeans(logbook, id, gate, files);
                    return done;
                });
            });
        });
}

namespace {

QString millimetresOrBlank(double mm) {
    return mm > 0 ? words::field(mm, Quantity::length) : QString();
}

} // namespace

void ShopActions::changeRules() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    const BatchRules rules = rulesOf(batch);
    const auto word = [](bool yes) { return yes ? QStringLiteral("yes") : QStringLiteral("no"); };
    auto* form = new FormDialog(
        tr("The rules of %1").arg(QString::fromStdString(batch.name)), tr("Judge anew"),
        {{"rule",
          tr("Pass when"),
          tr("guarded is for a promise to others; plain lets one in two at the limit through"),
          QString::fromLatin1(nameOf(rules.rule)),
          {{"chance", tr("nine in ten that the blade is inside")},
           {"guarded", tr("mean and its U inside")},
           {"plain", tr("the mean is inside")},
           {"allowance", tr("outside by no more than the allowance")}},
          false},
         {"allowance",
          tr("Allowance"),
          tr("HRC, said on every paper; blank: the tester's allowed error"),
          rules.allowance ? words::hardness(*rules.allowance) : QString(),
          {},
          false},
         {"as_read", tr("Judge as read"), tr("not corrected for the tester's error, which widens U instead"),
          word(rules.uncorrected), yesOrNo(), false},
         {"verify",
          tr("Verify every"),
          tr("E18 asks for each day; later it is aged, and widens U"),
          QString::fromLatin1(nameOf(rules.verify_every)),
          {{"day", tr("day")}, {"week", tr("week")}, {"month", tr("month")}},
          false},
         {"limit",
          tr("Re-hardenings"),
          tr("at most, before it is said"),
          QString::number(rules.rehardening_limit),
          {},
          false},
         {"spacing",
          tr("Between indents"),
          tr("%1 at least; blank: as E18 asks").arg(words::unit(Quantity::length)),
          millimetresOrBlank(rules.spacing.min_spacing_mm),
          {},
          false},
         {"edge",
          tr("From edges"),
          tr("%1 at least; blank: as E18 asks").arg(words::unit(Quantity::length)),
          millimetresOrBlank(rules.spacing.min_edge_mm),
          {},
          false},
         {"later", tr("Batches to come"), tr("take these rules too"), word(false), yesOrNo(), false}},
        m_look, m_window);
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto allowance = parseNumber(v["allowance"].toStdString());
            if (!v["allowance"].isEmpty() && (!allowance || *allowance < 0 || *allowance > 3))
                return {QStringLiteral("allowance"), tr("Type HRC 0 to 3, or leave it blank.")};
            bool whole = false;
            const int limit = v["limit"].toInt(&whole);
            if (!whole || limit < 0 || limit > 20) return {QStringLiteral("limit"), tr("Type 0 to 20.")};
            for (const char* field : {"spacing", "edge"}) {
                const QString typed = v[QLatin1String(field)];
                const auto mm = words::typed(typed, Quantity::length);
                if (!typed.isEmpty() && (!mm || *mm < 0 || *mm > 50))
                    return {QString::fromLatin1(field),
                            tr("Type a distance, up to %1, or leave it blank.").arg(words::length(50, 0))};
            }
            return {};
        },
        [this, id = batch.id](const FormValues& v) {
            BatchRules typed;
            typed.rule = named<DecisionRule>(v["rule"].toStdString()).value_or(DecisionRule::guarded);
            if (!v["allowance"].isEmpty()) typed.allowance = *parseNumber(v["allowance"].toStdString());
            typed.uncorrected = v["as_read"] == QLatin1String("yes");
            typed.verify_every = named<VerifyEvery>(v["verify"].toStdString()).value_or(VerifyEvery::day);
            typed.rehardening_limit = v["limit"].toInt();
            if (const auto mm = words::typed(v["spacing"], Quantity::length)) typed.spacing.min_spacing_mm = *mm;
            if (const auto mm = words::typed(v["edge"], Quantity::length)) typed.spacing.min_edge_mm = *mm;
            m_document.perform(
                [id, typed, later = v["later"] == QLatin1String("yes")](Logbook& logbook) {
                    return rollcall::changeRules(logbook, id, typed, later);
                },
                [this](const Result<Done>& done) { afterWork(tr("rules changed, everything judged anew"), done); });
        });
}

void ShopActions::acceptLeftOut() {
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr || verdict->left_out.empty())
        return emit said(tr("No reading of this blade is left out."), true);
    askReason(tr("Count the reading that breaks a rule"), tr("Accept it"),
              {QString(),
               {"distance measured, it is enough", tr("distance measured, it is enough")},
               {"place logged wrong", tr("place logged wrong")}},
              [this, id = verdict->left_out.back()](const std::string& reason) {
                  m_document.perform([id, reason](Logbook& logbook) { return acceptReading(logbook, id, reason); },
                                     [this](const Result<Done>& done) { afterWork(tr("reading accepted"), done); });
              });
}

void ShopActions::tryFiles(const RuleData& rule) {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    std::vector<Tester> sets;
    for (const Tester& tester : m_document.state().shop().testers) {
        if (tester.kind == TesterKind::files && !tester.files.empty()) sets.push_back(tester);
    }
    if (sets.empty()) return emit said(tr("No set of files yet: R, then N adds one."), true);
    const auto with = [this, rule, id = blade->id](const Tester& set) {
        const Blade* now = m_document.blade();
        if (now == nullptr || now->id != id) return;
        const Gate gate = m_document.gate();
        FileTest test;
        test.gate = gate;
        test.round = now->round;
        test.after_temper = gate == Gate::temper ? lastTemper(*now) : 0;
        const QString mark = QString::fromStdString(now->mark);
        (new FilesDialog(tr("Files on %1, %2").arg(mark, QString::fromStdString(set.name)), set.files,
                         fileTestAt(*now, gate), rule, m_look, m_window))
            ->ask([this, test, id, mark, set = set.id](const std::vector<FileTrial>& trials, Surface surface) mutable {
                test.trials = trials;
                test.surface = surface;
                m_document.perform(
                    [id, set, test](Logbook& logbook) -> Result<Done> {
                        const auto logged = logFileTest(logbook, id, set, test);
                        if (!logged) return logged.error();
                        return Done{};
                    },
                    [this, mark](const Result<Done>& done) { afterWork(tr("files logged on %1").arg(mark), done); });
            });
    };
    if (sets.size() == 1) return with(sets.front());
    std::vector<Choice> choices;
    for (const Tester& set : sets)
        choices.push_back({QString::number(choices.size() + 1), QString::fromStdString(set.name),
                           tr("%1 to %2 HRC").arg(set.files.front()).arg(set.files.back())});
    (new ChoiceDialog(tr("Which files?"), {}, choices, m_look, m_window))->ask([sets, with](int i) {
        with(sets[static_cast<std::size_t>(i)]);
    });
}

void ShopActions::why() {
    const Verdict* verdict = m_document.verdict();
    const Blade* blade = m_document.blade();
    if (verdict == nullptr || blade == nullptr) return emit said(tr("There is nothing judged here yet."), true);
    QStringList lines = words::derivation(
        *verdict, windowOf(m_document.batch(), *m_document.blade(), verdict->gate, m_document.tables()));
    Picture* picture = nullptr;
    if (verdict->measurement) {
        const Budget& budget = verdict->measurement->budget;
        lines.prepend(words::budgetHint(budget));
        QStringList names;
        for (const BudgetPart& part : budget.parts) names << words::budgetPartName(part.source);
        picture = new Picture(
            m_look.px(30) * static_cast<int>(budget.parts.size()), tr("Where the uncertainty comes from"),
            [this, budget, names](QPainter& p, const QRect& r) { drawBudget(p, r, budget, names, m_look); });
    }
    auto* dialog = new ChoiceDialog(
        tr("Why: %1 at %2, %3")
            .arg(QString::fromStdString(blade->mark), words::gateName(verdict->gate), words::stateName(verdict->state)),
        lines, {}, m_look, m_window);
    if (picture != nullptr) dialog->showPicture(picture);
    dialog->ask({});
}

void ShopActions::chooseScale() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    // First what converts to HRC, for the windows are HRC; the lighter scales that this stock can bear are named first.
    const double work = m_station.expectedHrc().value_or(60.0);
    const double thickness = blade->shape.thickness_mm;
    const auto needed = minThickness(m_document.tables(), "HRC", work);
    const bool thin = needed && thickness > 0 && !thickEnough(*needed, thickness);
    std::vector<std::string> scales{"HRC"};
    if (thin) scales = lighterScales(m_document.tables(), "HRC", work, thickness);
    for (const char* scale : {"HRC", "HR45N", "HR30N", "HRA", "HR15N", "HRD"}) {
        if (std::find(scales.begin(), scales.end(), scale) == scales.end()) scales.push_back(scale);
    }
    for (const RockwellScale& scale : m_document.tables().scales()) { // the rest is kept, but cannot be judged in HRC
        if (std::find(scales.begin(), scales.end(), scale.symbol) == scales.end()) scales.push_back(scale.symbol);
    }
    QStringList names;
    for (const std::string& scale : scales) names << QString::fromStdString(scale);
    const QString hint = thin ? tr("%1 is too thin for HRC: %2").arg(words::length(thickness), names.front())
                              : tr("others are converted, marked so");
    auto* form =
        new FormDialog(tr("Scale and surface"), tr("Read like this"),
                       {{"scale", tr("Scale"), hint, thin ? names.front() : QString::fromStdString(m_station.scale()),
                         namedChoices(names), false},
                        {"radius",
                         tr("Radius"),
                         tr("of a convex surface; blank: flat"),
                         m_station.convexRadius() ? QString::number(*m_station.convexRadius()) : QString(),
                         {},
                         false}},
                       m_look, m_window);
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (v["radius"].isEmpty()) return {};
            const auto radius = words::typed(v["radius"], Quantity::length);
            return radius && *radius >= 3 && *radius <= 1000
                       ? FormFault{}
                       : FormFault{QStringLiteral("radius"),
                                   tr("Below %1 nothing can be read; a hollow surface neither. Blank: flat.")
                                       .arg(words::length(3, 0))};
        },
        [this](const FormValues& v) {
            const auto radius = words::typed(v["radius"], Quantity::length);
            m_station.setSurface(v["scale"].toStdString(), radius ? std::optional<double>(*radius) : std::nullopt);
            emit said(tr("readings to come: %1").arg(v["scale"]), false);
        });
}

} // namespace rollcall

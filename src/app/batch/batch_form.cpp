// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/batch/batch_form.h"

#include "core/base/number.h"
#include "core/judge/standing.h"
#include "core/judge/usual_window.h"
#include "core/measure/files.h"
#include "logbook/actions/blades.h"
#include "plot/translate.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QRegularExpression>

namespace rollcall {

namespace {

// What a batch is for decides which gates are asked.
struct Profile {
    const char* name;
    std::vector<Gate> gates;
    std::optional<int> minimumTempers;
    bool byFiles = false; ///< E37

    bool asks(Gate gate) const { return std::find(gates.begin(), gates.end(), gate) != gates.end(); }
};
const std::vector<Profile>& profiles() {
    using enum Gate;
    static const std::vector<Profile> all{
        {QT_TRANSLATE_NOOP("rollcall", "Quench and Temper"), {quench, temper}, std::nullopt},
        {QT_TRANSLATE_NOOP("rollcall", "Quench and Temper, by files"), {quench, temper}, std::nullopt, true},
        {QT_TRANSLATE_NOOP("rollcall", "Heat, Quench and Temper"), {heat, quench, temper}, std::nullopt},
        {QT_TRANSLATE_NOOP("rollcall", "Steel to Proof"), {steel, heat, quench, temper, edge, proof}, std::nullopt},
        {QT_TRANSLATE_NOOP("rollcall", "Steel to Release"),
         {steel, heat, quench, temper, edge, proof, release},
         std::nullopt},
        {QT_TRANSLATE_NOOP("rollcall", "Temper only"), {temper}, std::nullopt},
        {QT_TRANSLATE_NOOP("rollcall", "Quench only"), {quench}, std::nullopt},
        // Finished knives come from elsewhere: nobody can log their tempers.
        {QT_TRANSLATE_NOOP("rollcall", "Finished knives: hardness only"), {temper}, 0},
        {QT_TRANSLATE_NOOP("rollcall", "Finished knives: steel and hardness"), {steel, temper}, 0}};
    return all;
}

// E38. " Usual for Kitchen: 60 to 64 (hard and thin)", for the maker to take or not.
QString usualText(const Tables& tables, const std::string& purpose, const Grade* grade) {
    QStringList all;
    for (const UsualWindow& one : usualWindows(tables, purpose, grade)) {
        const QString school = QString::fromStdString(one.profile->school);
        all << (one.by_grade ? tr("%1 (%2, as far as the grade goes)") : tr("%1 (%2)"))
                   .arg(words::windowText(one.window), school);
    }
    return all.isEmpty() ? QString() : QLatin1Char(' ') + tr("Usual, by judgement: %1.").arg(all.join(tr(" or ")));
}

// "GK-#" with 3 gives GK-1, GK-2, GK-3; a pattern without # gets the number behind it.
std::string markOf(const QString& pattern, int number) {
    QString mark = pattern;
    if (!mark.contains(QLatin1Char('#'))) mark += QLatin1Char('#');
    return mark.replace(QLatin1Char('#'), QString::number(number)).toStdString();
}

QString patternOf(const std::string& mark) {
    return QString::fromStdString(mark).replace(QRegularExpression(QStringLiteral("\\d+$")), QStringLiteral("#"));
}

// "Orchard 12" -> "Orchard 13", skipping names that are in use.
QString nextName(const std::string& name, const std::vector<BatchSummary>& known) {
    const QRegularExpressionMatch match =
        QRegularExpression(QStringLiteral("^(.*?)(\\d+)$")).match(QString::fromStdString(name));
    const QString stem = match.hasMatch() ? match.captured(1) : QString::fromStdString(name) + QLatin1Char(' ');
    int number = match.hasMatch() ? match.captured(2).toInt() + 1 : 2;
    const auto taken = [&] {
        return std::any_of(known.begin(), known.end(),
                           [&](const auto& b) { return b.name == (stem + QString::number(number)).toStdString(); });
    };
    while (taken()) ++number;
    return stem + QString::number(number);
}

} // namespace

WindowAnswer windowFromText(const QString& text) {
    WindowAnswer answer;
    const QString plain = text.trimmed();
    if (plain.isEmpty()) return answer;
    static const QRegularExpression pair(QStringLiteral("^([0-9.,]+)\\s*(?:to|bis|:|-|–|\\s)\\s*([0-9.,]+)$"));
    const QRegularExpressionMatch match = pair.match(plain);
    const auto low = parseNumber((match.hasMatch() ? match.captured(1) : plain).toStdString());
    const auto high = match.hasMatch() ? parseNumber(match.captured(2).toStdString()) : low;
    const auto inHrc = [](double x) { return x >= 20 && x <= 70; };
    if (!low || !high || !inHrc(*low) || !inHrc(*high)) {
        answer.fault = tr("Type a window as 61 to 63, or one number for a minimum, 20 to 70 HRC.");
    } else if (*low > *high) {
        answer.fault = tr("The first limit is above the second. Softer limit first.");
    } else {
        answer.window.low = *low;
        if (match.hasMatch()) answer.window.high = *high;
    }
    return answer;
}

QString usualWindowOf(const FormValues& values, const Tables& tables) {
    const auto usual = usualWindows(tables, values[QStringLiteral("purpose")].toStdString(),
                                    tables.grade(values[QStringLiteral("grade")].toStdString()));
    return usual.empty() ? QString() : words::windowText(usual.front().window);
}

QString windowNote(const FormValues& values, const Tables& tables, const Tester* tester,
                   const std::vector<Tester>& testers) {
    QStringList lines;
    const QString usual = usualText(tables, values[QStringLiteral("purpose")].toStdString(),
                                    tables.grade(values[QStringLiteral("grade")].toStdString()))
                              .trimmed();
    if (!usual.isEmpty()) lines << usual;
    const Window window = windowFromText(values[QStringLiteral("window")]).window;
    const auto profile = std::find_if(profiles().begin(), profiles().end(), [&](const Profile& p) {
        return values[QStringLiteral("profile")] == QLatin1String(p.name);
    });
    const bool byFiles = profile != profiles().end() && profile->byFiles;
    if (!window.low && !window.high) return lines.join(QLatin1Char(' '));
    const auto minimum = parseNumber(values[QStringLiteral("minimum")].toStdString());
    if (minimum && window.low && *minimum < *window.low)
        lines << tr("A blade that just reaches %1 from the quench cannot be %2 after a temper.")
                     .arg(words::hardness(*minimum), words::hardness(*window.low));
    if (byFiles) {
        const std::vector<double> files = filesAtHand(testers);
        const FilesReach reach = filesReach(files);
        if (files.empty())
            lines << tr("No set of files is known yet: nothing can be confirmed by them.");
        else if (filesConfirm(files, window.low, window.high))
            lines << tr("This shop's files can confirm this window.");
        else if (files.size() == 1)
            lines
                << tr("One file confirms no window, and a minimum of %1 at most.").arg(words::hardness(reach.highest));
        else
            lines << tr("This shop's files cannot confirm it: they need %1 HRC of width, or a minimum of %2 at most.")
                         .arg(words::hardness(reach.narrowest), words::hardness(reach.highest));
        return lines.join(QLatin1Char(' '));
    }
    if (tester == nullptr || tester->kind == TesterKind::files) return lines.join(QLatin1Char(' '));
    bool isNumber = false;
    const int planned = values[QStringLiteral("planned")].toInt(&isNumber);
    const int readings = isNumber ? std::clamp(planned, 1, 10) : 3;
    const TesterModel model = modelOf(*tester);
    const auto band = [&](int n, int onBlock) {
        const Window means = meansThatPass(model, window, n, onBlock);
        return means.low && means.high && *means.low > *means.high ? tr("no mean")
               : !means.high                                       ? tr("from %1").arg(words::hardness(*means.low))
                                                                   : words::windowText(means);
    };
    constexpr int fewestOnBlock = 2;
    constexpr int advisedOnBlock = 5;
    QStringList wider{tr("with five on the block %1").arg(band(readings, advisedOnBlock))};
    if (readings < 5) wider << tr("and five on the blade %1").arg(band(5, advisedOnBlock));
    lines << tr("With %1 and %2 a blade %3 passes; %4.")
                 .arg(QString::fromStdString(tester->name),
                      readings == 1 ? tr("one reading") : tr("%1 readings").arg(readings),
                      band(readings, fewestOnBlock), wider.join(QLatin1Char(' ')));
    constexpr double dial = 0.5;
    if (tester->resolution >= dial) lines << tr("A digital display would widen it.");
    return lines.join(QLatin1Char(' '));
}

std::vector<FormField> batchFields(const Tables& tables, const Batch* like, const std::vector<BatchSummary>& known,
                                   const std::vector<Tester>& testers) {
    QStringList grades{QString()};
    for (const Grade& grade : tables.grades()) grades << QString::fromStdString(grade.name);
    std::vector<FormChoice> asked;
    for (const Profile& profile : profiles()) asked.emplace_back(profile.name, tr(profile.name));
    FormValues v{{"name", QString()},
                 {"profile", asked.front().key},
                 {"count", QStringLiteral("6")},
                 {"marks", QStringLiteral("A-#")},
                 {"planned", QStringLiteral("3")}};
    const bool files = !testers.empty() && std::all_of(testers.begin(), testers.end(),
                                                       [](const Tester& t) { return t.kind == TesterKind::files; });
    for (const Profile& profile : profiles()) {
        if (files && profile.byFiles) v["profile"] = QString::fromLatin1(profile.name);
    }
    if (like != nullptr) {
        const Blade* blade = like->blades.empty() ? nullptr : &like->blades.front();
        for (const Profile& profile : profiles()) {
            const bool same = std::all_of(allGates.begin(), allGates.end(),
                                          [&](Gate gate) { return profile.asks(gate) == like->planOf(gate).required; });
            if (same && profile.byFiles == like->planOf(Gate::temper).by_files &&
                (profile.minimumTempers == 0) == (like->minimum_tempers == 0))
                v["profile"] = QString::fromLatin1(profile.name);
        }
        v["name"] = nextName(like->name, known);
        v["count"] = QString::number(like->blades.size());
        v["grade"] = QString::fromStdString(like->grade);
        v["purpose"] = QString::fromStdString(like->purpose);
        if (like->window.low || like->window.high)
            v["window"] = like->window.high ? words::windowText(like->window) : words::hardness(*like->window.low);
        if (like->quench_minimum) v["minimum"] = words::hardness(*like->quench_minimum);
        v["planned"] = QString::number(
            like->planOf(like->planOf(Gate::temper).required ? Gate::temper : Gate::quench).planned_readings);
        if (blade != nullptr) {
            v["marks"] = patternOf(blade->mark);
            if (blade->shape.thickness_mm > 0)
                v["thickness"] = words::field(blade->shape.thickness_mm, Quantity::length);
            if (blade->shape.outline.size() >= 3)
                v["size"] = QStringLiteral("%1 x %2").arg(words::field(blade->shape.length(), Quantity::length),
                                                          words::field(blade->shape.height(), Quantity::length));
        }
    }
    return {{"name", tr("Name"), tr("as it is called in the shop"), v["name"], {}, false},
            {"profile", tr("Asked"), tr("which gates it must pass"), v["profile"], asked, false},
            {"count", tr("Blades"), tr("how many"), v["count"], {}, false},
            {"marks", tr("Marks"), tr("# stands for the number"), v["marks"], {}, false},
            {"grade", tr("Grade"), tr("AISI, EN or DIN; blank if not known"), v["grade"], namedChoices(grades), true},
            {"purpose",
             tr("Purpose"),
             tr("what it is for; kitchen, chopper and the like have usual windows"),
             v["purpose"],
             {},
             false},
            {"window", tr("Window"), tr("HRC after temper, like 61 to 63"), v["window"], {}, false},
            {"minimum", tr("Quench minimum"), tr("HRC; blank: the grade's own"), v["minimum"], {}, false},
            {"thickness", tr("Thickness"), words::lengthHint(2.4), v["thickness"], {}, false},
            {"size",
             tr("Length x height"),
             tr("%1 without tang; blank if not drawn").arg(words::unit(Quantity::length)),
             v["size"],
             {},
             false},
            {"planned", tr("Readings"), tr("for each blade and gate"), v["planned"], {}, false}};
}

BatchAnswer batchFromForm(const FormValues& values, const Tables& tables, const std::vector<BatchSummary>& known) {
    BatchAnswer answer;
    BatchDraft& draft = answer.draft;
    const auto fault = [&](const char* field, const QString& sentence) {
        answer.fault = {QString::fromLatin1(field), sentence};
        return answer;
    };
    const auto text = [&](const char* id) { return values.value(QString::fromLatin1(id)); };

    draft.name = text("name").toStdString();
    if (draft.name.empty()) return fault("name", tr("Give the batch a name."));
    if (std::any_of(known.begin(), known.end(), [&](const auto& b) { return b.name == draft.name; }))
        return fault("name", tr("There is a batch of that name. Choose another."));
    const auto profile = std::find_if(profiles().begin(), profiles().end(),
                                      [&](const Profile& p) { return text("profile") == QLatin1String(p.name); });
    if (profile == profiles().end()) return fault("profile", tr("Choose what is asked."));
    bool isNumber = false;
    const int count = text("count").toInt(&isNumber);
    if (!isNumber || count < 1 || count > 200) return fault("count", tr("Type how many blades, 1 to 200."));
    if (text("marks").isEmpty()) return fault("marks", tr("Type a mark, such as GK-#."));

    draft.grade = text("grade").toStdString();
    if (const Grade* grade = tables.grade(draft.grade)) draft.grade = grade->name;
    draft.purpose = text("purpose").toStdString();
    const WindowAnswer window = windowFromText(text("window"));
    if (!window.fault.isEmpty()) return fault("window", window.fault);
    draft.window = window.window;
    draft.window_text = text("window").toStdString();
    if (profile->asks(Gate::temper) && !draft.window.low)
        return fault("window", tr("The Temper gate needs a window, like 61 to 63.") +
                                   usualText(tables, draft.purpose, tables.grade(draft.grade)));
    if (!text("minimum").isEmpty()) {
        const auto minimum = parseNumber(text("minimum").toStdString());
        if (!minimum || *minimum < 20 || *minimum > 70)
            return fault("minimum", tr("Type the quench minimum as HRC 20 to 70, or leave it blank."));
        draft.quench_minimum = *minimum;
    }
    BladeShape shape;
    if (!text("thickness").isEmpty()) {
        const auto thickness = words::typed(text("thickness"), Quantity::length);
        if (!thickness || *thickness < 0.2 || *thickness > 50)
            return fault("thickness",
                         tr("Type the thickness, %1 to %2.").arg(words::lengthNumber(0.2), words::length(50, 0)));
        shape.thickness_mm = *thickness;
    }
    if (!text("size").isEmpty()) {
        static const QRegularExpression size(QStringLiteral("^([0-9.,]+)\\s*(?:x|×|\\*|by)\\s*([0-9.,]+)\\s*(mm|in)?$"),
                                             QRegularExpression::CaseInsensitiveOption);
        const QRegularExpressionMatch match = size.match(text("size"));
        const QString unit = match.captured(3); // said once, behind both
        const auto length = words::typed(match.captured(1) + unit, Quantity::length);
        const auto height = words::typed(match.captured(2) + unit, Quantity::length);
        if (!length || !height || *length < 10 || *length > 1500 || *height < 4 || *height > 400)
            return fault("size", tr("Type length x height in %1, like %2 x %3, or leave it blank.")
                                     .arg(words::unit(Quantity::length), words::lengthNumber(58, 0),
                                          words::lengthNumber(16, 0)));
        shape = BladeShape::knife(*length, *height, shape.thickness_mm);
        // Set in from the blank's edge by what E18 asks of soft indents, but never past the middle of the blade.
        shape.reading_line_mm = std::min(std::max(2.6, *height * 0.12), *height / 2);
    }
    const int planned = text("planned").toInt(&isNumber);
    if (!isNumber || planned < 1 || planned > 10)
        return fault("planned", tr("Type how many readings each blade gets, 1 to 10."));
    for (const Gate gate : allGates) {
        const bool read = gate == Gate::quench || gate == Gate::temper;
        draft.plan[indexOf(gate)] = {profile->asks(gate), read ? planned : 1, read && profile->byFiles};
    }
    draft.minimum_tempers = profile->minimumTempers;
    for (int i = 1; i <= count; ++i)
        draft.blades.push_back(
            {markOf(text("marks"), i), shape, words::asEntered(text("thickness"), Quantity::length)});
    return answer;
}

} // namespace rollcall

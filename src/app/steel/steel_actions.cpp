// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/choice_dialog.h"
#include "app/shared/folder_form.h"
#include "app/shared/form_dialog.h"
#include "app/steel/steel_bench.h"
#include "core/base/csv.h"
#include "core/base/number.h"
#include "files/disk.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/steel.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QRegularExpression>
#include <QSettings>

// The part of the Steel bench that asks.
namespace rollcall {

namespace {

// A sheet's field with each of its bare temperatures, in a range or before the colon of a curve's point, changed.
QString withTemperatures(const std::string& field, const QString& text,
                         const std::function<QString(const QString&)>& change) {
    const bool range = field == "austenitise" || field == "embrittle";
    if (!range && field != "curve") return text;
    static const QRegularExpression ofRange(QStringLiteral("[0-9.]+(?![0-9.]|\\s*[°CcFf])"));
    static const QRegularExpression ofCurve(QStringLiteral("[0-9.]+(?=:)"));
    QString changed;
    qsizetype done = 0;
    for (auto each = (range ? ofRange : ofCurve).globalMatch(text); each.hasNext();) {
        const QRegularExpressionMatch number = each.next();
        changed += text.mid(done, number.capturedStart() - done) + change(number.captured());
        done = number.capturedEnd();
    }
    return changed + text.mid(done);
}

QString shopTemperatures(const std::string& field, const std::string& text) {
    return withTemperatures(field, QString::fromStdString(text), [](const QString& celsius) {
        return QString::number(std::round(inUnits(celsius.toDouble(), Quantity::temperature, words::units())));
    });
}

// What was typed, each bare number with the shop's unit; a field that was left as it was shown is as it was kept.
std::string keptTemperatures(const std::string& field, const QString& text, const std::string& before) {
    if (words::units() == Units::metric) return text.toStdString();
    if (text == shopTemperatures(field, before)) return before;
    return withTemperatures(field, text, [](const QString& typed) { return typed + QLatin1Char('F'); }).toStdString();
}

QString fieldLabel(const std::string& field) {
    if (field == "name") return SteelBench::tr("Name");
    if (field == "based_on") return SteelBench::tr("Based on");
    if (field == "aliases") return SteelBench::tr("Also called");
    if (field == "composition") return SteelBench::tr("Composition");
    if (field == "austenitise") return SteelBench::tr("Austenitise");
    if (field == "soak") return SteelBench::tr("Soak");
    if (field == "as_quenched") return SteelBench::tr("As quenched");
    if (field == "quench") return SteelBench::tr("Quench");
    if (field == "embrittle") return SteelBench::tr("Brittle");
    if (field == "curve") return SteelBench::tr("Temper curve");
    if (field == "confidence") return SteelBench::tr("Confidence");
    return SteelBench::tr("Note");
}

QString fieldHint(const std::string& field) {
    if (field == "name") return SteelBench::tr("designation; a shipped one is kept beside it");
    if (field == "based_on") return SteelBench::tr("what is blank below is taken from it");
    if (field == "composition") return SteelBench::tr("C 0.95-1.05; Cr -0.30");
    if (field == "austenitise" || field == "embrittle")
        return QStringLiteral("%1, %2").arg(words::unit(Quantity::temperature), shopTemperatures(field, "790-820"));
    if (field == "soak") return SteelBench::tr("minutes, 5-10");
    if (field == "as_quenched") return SteelBench::tr("HRC: least, usual, most");
    if (field == "curve") return shopTemperatures(field, "150:2=64 200:2=61.5 ...");
    if (field == "confidence") return SteelBench::tr("high, medium, low");
    return {};
}

double sigmasOf(const FormValues& v) {
    return v["sigmas"].isEmpty() ? 1 : v["sigmas"].toDouble();
}

std::vector<FormChoice> sigmaChoices() {
    return {{"1", SteelBench::tr("1 sigma")}, {"2", SteelBench::tr("2 sigma")}, {"3", SteelBench::tr("3 sigma")}};
}

} // namespace

void SteelBench::typeShot() {
    auto* form = new FormDialog(
        forBlade() ? tr("A shot at %1").arg(QString::fromStdString(m_document.blade()->mark)) : tr("A shot at the bar"),
        tr("Take it in"),
        {{"values", tr("Elements"), tr("Cr 13.6 0.1; Mo 0.05; V <0.05"), {}, {}, false},
         {"sigmas", tr("Errors are"), tr("what the analyser prints"), QStringLiteral("1"), sigmaChoices(), false},
         {"piece", tr("Shot at"), tr("bar, blade, where"), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto shot = typedShot(v["values"].toStdString(), sigmasOf(v));
            return shot ? FormFault{} : FormFault{QStringLiteral("values"), words::errorText(shot.error())};
        },
        [this](const FormValues& v) {
            ShotDraft draft;
            draft.composition = typedShot(v["values"].toStdString(), sigmasOf(v)).value();
            draft.piece = v["piece"].toStdString();
            keepShot(std::move(draft), tr("shot taken in"));
        });
}

void SteelBench::strikeShot() {
    const std::string blade = forBlade() ? m_document.blade()->id : std::string();
    std::string id;
    for (const SteelShot& shot : m_document.batch().shots) {
        if (!shot.struck && (shot.blade == blade || shot.blade == m_document.blade()->id)) id = shot.id;
    }
    if (id.empty()) return emit said(tr("There is no shot to strike out."), true);
    static const std::array<const char*, 4> reasons{
        QT_TRANSLATE_NOOP("record", "scale or coating"), QT_TRANSLATE_NOOP("record", "wrong piece"),
        QT_TRANSLATE_NOOP("record", "moved while shooting"), QT_TRANSLATE_NOOP("record", "other")};
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < reasons.size(); ++i)
        choices.push_back({QString::number(i + 1), words::recorded(reasons[i]), {}});
    (new ChoiceDialog(tr("Strike out the last shot. Why?"), {tr("It stays in the log, with the reason.")}, choices,
                      m_look, window()))
        ->ask([this, id](int i) {
            m_document.perform([id, reason = reasons[static_cast<std::size_t>(i)]](Logbook& logbook) {
                return rollcall::strikeShot(logbook, id, reason);
            });
        });
}

void SteelBench::reassign() {
    std::vector<Choice> choices;
    auto grades = std::make_shared<QStringList>();
    for (const Grade* grade : lookAlikes(6)) {
        if (sameName(grade->name, m_document.claim().grade)) continue;
        *grades << QString::fromStdString(grade->name);
        choices.push_back({QString::number(grades->size()), QString::fromStdString(grade->name),
                           tr("as quenched %1 to %2").arg(grade->as_quenched_min).arg(grade->as_quenched_max)});
    }
    choices.push_back({QStringLiteral("O"), tr("Another grade"), tr("by its name")});
    (new ChoiceDialog(
         tr("What is it taken for?"),
         {tr("Windows, curves and minima follow; everything is judged anew. What it was sold as stays in the record.")},
         choices, m_look, window()))
        ->ask([this, grades](int i) {
            if (i < grades->size()) return assign((*grades)[i].toStdString());
            auto* form = new FormDialog(tr("Another grade"), tr("Go on"),
                                        {{"grade", tr("Grade"), tr("AISI, EN, W.-Nr., DIN or JIS"), {}, {}, false}},
                                        m_look, window());
            form->ask(
                [](const FormValues& v) {
                    return v["grade"].isEmpty() ? FormFault{QStringLiteral("grade"), tr("Type a designation.")}
                                                : FormFault{};
                },
                [this](const FormValues& v) {
                    // An alias finds its grade when it is clear which is meant.
                    const auto found = searchGrades(m_document.tables().grades(), v["grade"].toStdString());
                    const bool exact = m_document.tables().grade(v["grade"].toStdString()) != nullptr;
                    assign(!exact && found.size() == 1 ? found.front()->name : v["grade"].toStdString());
                });
        });
}

void SteelBench::assign(const std::string& grade) {
    auto* form = new FormDialog(tr("Taken for %1").arg(QString::fromStdString(grade)), tr("Judge anew"),
                                {{"reason",
                                  tr("Reason"),
                                  tr("choose or type"),
                                  QStringLiteral("composition"),
                                  {{"composition", tr("composition")},
                                   {"hardened coupon", tr("hardened coupon")},
                                   {"spark", tr("spark")},
                                   {"carbon by spark emission", tr("carbon by spark emission")},
                                   {"typed wrongly", tr("typed wrongly")}},
                                  true}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("A reason is needed.")} : FormFault{};
        },
        [this, grade](const FormValues& v) {
            const Blade& blade = *m_document.blade();
            const bool own = !m_document.batch().ofOneBar(blade);
            m_document.perform(
                [batch = m_document.batch(), blade, own, grade, reason = v["reason"].toStdString()](Logbook& logbook) {
                    return own ? takeFor(logbook, batch, blade, grade) : assignGrade(logbook, batch.id, grade, reason);
                },
                [this, grade, own, mark = QString::fromStdString(blade.mark)](const Result<Done>& done) {
                    const QString name = QString::fromStdString(grade);
                    if (done)
                        emit said(own ? tr("%1 taken for %2, judged anew").arg(mark, name)
                                      : tr("taken for %1: everything is judged anew").arg(name),
                                  false);
                });
        });
}

void SteelBench::lot() {
    const Batch& batch = m_document.batch();
    QStringList others;
    for (const BatchSummary& other : m_document.state().batches()) {
        if (!batch.lot.empty() && other.lot == batch.lot && other.id != batch.id && others.size() < 6)
            others << QString::fromStdString(other.name);
    }
    auto* form = new FormDialog(
        tr("The lot of %1").arg(QString::fromStdString(batch.name)), tr("Keep it"),
        {{"name",
          tr("Bar or lot"),
          others.isEmpty() ? tr("as you call it") : tr("also cut from it: %1").arg(others.join(QStringLiteral(", "))),
          QString::fromStdString(batch.lot),
          {},
          false},
         {"supplier", tr("Supplier"), {}, QString::fromStdString(batch.supplier), {}, false},
         {"heat", tr("Heat number"), tr("of the mill"), QString::fromStdString(batch.heat_number), {}, false}},
        m_look, window());
    form->ask([](const FormValues&) { return FormFault{}; },
              [this, id = batch.id](const FormValues& v) {
                  m_document.perform([id, v](Logbook& logbook) {
                      return changeLot(logbook, id, v["name"].toStdString(), v["supplier"].toStdString(),
                                       v["heat"].toStdString());
                  });
              });
}

// E39. Blades of two steels: both are held against heat and tempers.
void SteelBench::nameOther() {
    const Batch& batch = m_document.batch();
    QStringList grades{QString()};
    for (const Grade& grade : m_document.tables().grades()) grades << QString::fromStdString(grade.name);
    QStringList named;
    for (const SteelPart& part : batch.other_steels)
        named << tr("%1: %2").arg(QString::fromStdString(part.place), QString::fromStdString(part.grade));
    auto* form = new FormDialog(
        tr("Another steel in %1").arg(QString::fromStdString(batch.name)), tr("Keep it"),
        {{"grade",
          tr("Grade"),
          named.isEmpty() ? tr("beside the edge's; blank takes it back") : named.join(QStringLiteral("; ")),
          {},
          namedChoices(grades),
          true},
         {"place", tr("Where"), tr("cladding, core, second layer"), tr("cladding"), {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["place"].isEmpty() ? FormFault{QStringLiteral("place"), tr("Say where it lies.")} : FormFault{};
        },
        [this, id = batch.id](const FormValues& v) {
            const Grade* known = m_document.tables().grade(v["grade"].toStdString());
            const SteelPart part{known != nullptr ? known->name : v["grade"].toStdString(), v["place"].toStdString()};
            m_document.perform([id, part](Logbook& logbook) { return nameSteelPart(logbook, id, part); });
        });
}

void SteelBench::certificate() {
    QStringList known;
    for (const ElementReading& value : m_document.batch().certificate)
        known << QStringLiteral("%1 %2").arg(QString::fromStdString(value.element)).arg(*value.percent);
    auto* form = new FormDialog(
        tr("The mill's certificate"), tr("Keep it"),
        {{"values", tr("Elements"), tr("C 1.02; Cr 1.45; Mn 0.31"), known.join(QStringLiteral("; ")), {}, false},
         {"file", tr("As a file"), tr("path; blank: none"), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto values = typedShot(v["values"].toStdString());
            if (!values) return {QStringLiteral("values"), words::errorText(values.error())};
            if (!v["file"].isEmpty() && !QFileInfo(v["file"]).isFile())
                return {QStringLiteral("file"), tr("There is no such file.")};
            return {};
        },
        [this, id = m_document.batch().id](const FormValues& v) {
            QByteArray bytes;
            if (!v["file"].isEmpty()) {
                QFile file(v["file"]);
                if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(v["file"]), true);
                bytes = file.readAll();
            }
            m_document.perform([id, values = typedShot(v["values"].toStdString())->elements,
                                name = QFileInfo(v["file"]).fileName(),
                                bytes](Logbook& logbook) { return addCertificate(logbook, id, values, name, bytes); });
        });
}

void SteelBench::noteSpark() {
    auto* form = new FormDialog(tr("A spark beside a known bar"), tr("Note it"),
                                {{"agrees",
                                  tr("Sparks"),
                                  tr("against the bar it should be"),
                                  QStringLiteral("like"),
                                  {{"like", tr("like the known bar")}, {"unlike", tr("unlike the known bar")}},
                                  false},
                                 {"bursts",
                                  tr("Bursts"),
                                  tr("how many, how forked"),
                                  {},
                                  {QString(),
                                   {"many, fine, much forked", tr("many, fine, much forked")},
                                   {"some, forked", tr("some, forked")},
                                   {"few, simple", tr("few, simple")},
                                   {"none", tr("none")}},
                                  true},
                                 {"colour",
                                  tr("Colour, length"),
                                  {},
                                  {},
                                  {QString(),
                                   {"straw, long", tr("straw, long")},
                                   {"orange, medium", tr("orange, medium")},
                                   {"red, short", tr("red, short")}},
                                  true}},
                                m_look, window());
    form->ask([](const FormValues&) { return FormFault{}; },
              [this, id = m_document.batch().id](const FormValues& v) {
                  SteelNote note;
                  note.kind = SteelNoteKind::spark;
                  note.agrees = v["agrees"] == QLatin1String("like");
                  QStringList parts{v["bursts"], v["colour"]};
                  parts.removeAll(QString());
                  note.text = parts.join(QStringLiteral(", ")).toStdString();
                  m_document.perform([id, note](Logbook& logbook) { return addSteelNote(logbook, id, note); });
              });
}

void SteelBench::noteCoupon() {
    auto* form = new FormDialog(tr("A hardened coupon of this bar"), tr("Note it"),
                                {{"hrc", tr("Read"), tr("HRC as quenched, bare flat metal"), {}, {}, false},
                                 {"text", tr("Heat"), tr("temperature, soak, quench"), {}, {}, false}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto hrc = parseNumber(v["hrc"].toStdString());
            return hrc && *hrc >= 20 && *hrc <= 70 ? FormFault{}
                                                   : FormFault{QStringLiteral("hrc"), tr("Type HRC 20 to 70.")};
        },
        [this, id = m_document.batch().id](const FormValues& v) {
            SteelNote note;
            note.kind = SteelNoteKind::coupon;
            note.hrc = parseNumber(v["hrc"].toStdString()).value();
            note.text = v["text"].toStdString();
            m_document.perform([id, note](Logbook& logbook) { return addSteelNote(logbook, id, note); });
        });
}

void SteelBench::noteChanged() {
    QStringList known;
    for (const SteelNote& note : m_document.batch().steel_notes) {
        if (note.kind != SteelNoteKind::changed) continue;
        known.clear();
        for (const std::string& mark : note.marks) known << QString::fromStdString(mark);
    }
    auto* form = new FormDialog(tr("Changed pieces and control"), tr("Note it"),
                                {{"marks",
                                  tr("Changed"),
                                  tr("marks, separated by commas; the others are the control"),
                                  known.join(QStringLiteral(", ")),
                                  {},
                                  false},
                                 {"text", tr("How"), tr("carburised, another lot, ..."), {}, {}, false}},
                                m_look, window());
    form->ask(
        [this](const FormValues& v) -> FormFault {
            const QStringList marks = v["marks"].split(QLatin1Char(','), Qt::SkipEmptyParts);
            if (marks.isEmpty()) return {QStringLiteral("marks"), tr("Type at least one mark.")};
            for (const QString& mark : marks) {
                if (m_document.indexOfMark(mark.trimmed().toStdString()) < 0)
                    return {QStringLiteral("marks"), tr("No blade is marked %1.").arg(mark.trimmed())};
            }
            return v["text"].isEmpty() ? FormFault{QStringLiteral("text"), tr("Say what was changed.")} : FormFault{};
        },
        [this, id = m_document.batch().id](const FormValues& v) {
            SteelNote note;
            note.kind = SteelNoteKind::changed;
            for (const QString& mark : v["marks"].split(QLatin1Char(','), Qt::SkipEmptyParts))
                note.marks.push_back(mark.trimmed().toStdString());
            note.text = v["text"].toStdString();
            m_document.perform([id, note](Logbook& logbook) { return addSteelNote(logbook, id, note); });
        });
}

// The library: search by name or alias, look at a grade, make an own one of it, take grades in and out.
void SteelBench::library() {
    auto* form = new FormDialog(tr("The grade library"), tr("Search"),
                                {{"text", tr("Search"), tr("name or alias; blank: the batch's grade"), {}, {}, false}},
                                m_look, window());
    form->ask(
        [](const FormValues&) { return FormFault{}; },
        [this](const FormValues& v) {
            const QString text = v["text"].isEmpty() ? QString::fromStdString(m_document.claim().grade) : v["text"];
            const auto found = searchGrades(m_document.tables().grades(), text.toStdString());
            std::vector<Choice> choices;
            auto sheets = std::make_shared<std::vector<GradeSheet>>();
            for (std::size_t i = 0; i < found.size() && i < 9; ++i) {
                GradeSheet sheet = sheetOf(*found[i]);
                const QString aliases = QString::fromStdString(sheet["aliases"]);
                choices.push_back(
                    {QString::number(i + 1),
                     QString::fromStdString(found[i]->name) + (found[i]->own ? tr(" (own)") : QString()),
                     tr("%1; as quenched %2; %3; %6, confidence %4%5")
                         .arg(QString::fromStdString(found[i]->family), QString::fromStdString(sheet["as_quenched"]),
                              words::wearText(*found[i]), QString::fromStdString(sheet["confidence"]),
                              aliases.isEmpty() ? QString() : tr("; also %1").arg(aliases),
                              found[i]->own ? tr("the shop\'s own") : QString::fromStdString(found[i]->source))});
                sheet["based_on"] = found[i]->name;
                sheets->push_back(std::move(sheet));
            }
            choices.push_back({QStringLiteral("E"), tr("Export the shop's own grades"), tr("CSV or JSON")});
            choices.push_back({QStringLiteral("I"), tr("Import grades"), tr("CSV or JSON")});
            const auto count = static_cast<int>(sheets->size());
            (new ChoiceDialog(tr("%1 grades for %2").arg(found.size()).arg(text),
                              {tr("Choose one to look at it and to make an own version of it. Hardness is not the "
                                  "whole story: carbides and grain decide wear and toughness.")},
                              choices, m_look, window()))
                ->ask([this, sheets, count](int i) {
                    if (i < count) return editGrade((*sheets)[static_cast<std::size_t>(i)]);
                    i == count ? exportGrades() : importGrades();
                });
        });
}

// A steel that is not in the library, as it was shot; its heat is guessed from the nearest grade and said to be a
// guess.
void SteelBench::ownGradeOfShot() {
    const SteelAnswer* a = answer();
    if (a == nullptr || a->shots == 0) return;
    const BladeClaim claim = m_document.claim();
    const std::string name = claim.claimed.empty() ? claim.grade : claim.claimed;
    editGrade(sheetOfShot(a->measured, a->candidates.empty() ? nullptr : a->candidates.front().grade,
                          (name.empty() ? m_document.blade()->mark : name) + " as shot"));
}

void SteelBench::editGrade(const GradeSheet& sheet) {
    std::vector<FormField> fields;
    for (const std::string& field : gradeSheetFields()) {
        const auto value = sheet.find(field);
        fields.push_back({QString::fromStdString(field),
                          fieldLabel(field),
                          fieldHint(field),
                          value == sheet.end() ? QString() : shopTemperatures(field, value->second),
                          {},
                          false});
    }
    const auto typed = [sheet](const FormValues& v) {
        GradeSheet read;
        for (const std::string& field : gradeSheetFields()) {
            const auto before = sheet.find(field);
            read[field] = keptTemperatures(field, v[QString::fromStdString(field)],
                                           before == sheet.end() ? std::string() : before->second);
        }
        return read;
    };
    auto* form = new FormDialog(tr("A grade of the shop's own"), tr("Keep it"), fields, m_look, window());
    form->ask(
        [this, typed](const FormValues& v) -> FormFault {
            const auto grade = gradeFromSheet(typed(v), m_document.tables());
            return grade ? FormFault{}
                         : FormFault{QString::fromStdString(grade.error().place),
                                     QString::fromStdString(grade.error().text)};
        },
        [this, typed](const FormValues& v) {
            m_document.perform([sheet = typed(v)](Logbook& logbook) { return keepOwnGrade(logbook, sheet); },
                               [this, name = v["name"]](const Result<Done>& done) {
                                   if (done)
                                       emit said(tr("%1 kept as the shop's own; everything is judged anew").arg(name),
                                                 false);
                               });
        });
}

void SteelBench::exportGrades() {
    const std::vector<GradeSheet>& sheets = m_document.state().shop().own_grades;
    if (sheets.empty()) return emit said(tr("The shop has no grades of its own yet."), true);
    const QString path =
        m_seams.chooseFile(window(), tr("Export the shop's grades"), tr("Tables (*.csv *.json)"), true);
    if (path.isEmpty()) return;
    QByteArray bytes;
    if (path.endsWith(QLatin1String(".json"), Qt::CaseInsensitive)) {
        QJsonArray array;
        for (const GradeSheet& sheet : sheets) {
            QJsonObject object;
            for (const auto& [field, text] : sheet)
                object.insert(QString::fromStdString(field), QString::fromStdString(text));
            array.append(object);
        }
        bytes = QJsonDocument(array).toJson();
    } else {
        QStringList names;
        for (const std::string& field : gradeSheetFields()) names << QString::fromStdString(field);
        bytes = names.join(QLatin1Char(',')).toUtf8() + '\n';
        for (const GradeSheet& sheet : sheets) {
            QStringList cells;
            for (const std::string& field : gradeSheetFields()) {
                const auto value = sheet.find(field);
                QString text = value == sheet.end() ? QString() : QString::fromStdString(value->second);
                cells << QLatin1Char('"') + text.replace(QLatin1Char('"'), QStringLiteral("\"\"")) + QLatin1Char('"');
            }
            bytes += cells.join(QLatin1Char(',')).toUtf8() + '\n';
        }
    }
    const auto written = writeFile(path, bytes);
    emit said(written ? tr("%1 written").arg(path) : words::errorText(written.error()), !written);
}

void SteelBench::importGrades() {
    const QString path = m_seams.chooseFile(window(), tr("Import grades"), tr("Tables (*.csv *.json)"), false);
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(path), true);
    const QByteArray bytes = file.readAll();
    std::vector<GradeSheet> sheets;
    if (path.endsWith(QLatin1String(".json"), Qt::CaseInsensitive)) {
        for (const QJsonValue value : QJsonDocument::fromJson(bytes).array()) {
            GradeSheet sheet;
            const QJsonObject object = value.toObject();
            for (auto field = object.begin(); field != object.end(); ++field)
                sheet[field.key().toStdString()] = field.value().toString().toStdString();
            sheets.push_back(std::move(sheet));
        }
    } else {
        const auto csv = readCsv(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
        if (!csv) return emit said(tr("%1: %2").arg(path, words::errorText(csv.error())), true);
        for (const CsvRow& row : csv->rows) {
            GradeSheet sheet;
            for (std::size_t i = 0; i < row.fields.size() && i < csv->header.size(); ++i)
                sheet[std::string(trimmed(csv->header[i]))] = row.fields[i];
            sheets.push_back(std::move(sheet));
        }
    }
    if (sheets.empty()) return emit said(tr("%1 holds no grades.").arg(path), true);
    QStringList refused;
    std::vector<GradeSheet> good;
    Tables tables = m_document.tables();
    for (const GradeSheet& sheet : sheets) {
        const auto grade = gradeFromSheet(sheet, tables);
        if (grade) {
            good.push_back(sheet);
            tables = withSheets(tables, {sheet});
        } else {
            const auto name = sheet.find("name");
            refused << tr("%1, %2").arg(name == sheet.end() ? tr("a grade without a name")
                                                            : QString::fromStdString(name->second),
                                        words::errorText(grade.error()));
        }
    }
    m_document.perform(
        [good](Logbook& logbook) {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                for (const GradeSheet& sheet : good) {
                    if (auto done = keepOwnGrade(logbook, sheet); !done) return done;
                }
                return Done{};
            });
        },
        [this, count = good.size(), refused](const Result<Done>& done) {
            if (done)
                emit said(
                    refused.isEmpty()
                        ? tr("Grades taken in: %1").arg(count)
                        : tr("Grades taken in: %1; left out: %2").arg(count).arg(refused.join(QStringLiteral("; "))),
                    !refused.isEmpty());
        });
}

void SteelBench::watch() {
    auto* form = new FormDialog(
        tr("The analyser's folder"), tr("Watch it"),
        {{"folder", tr("Folder"), tr("each CSV dropped there is a shot; blank: none"), m_folder.path(), {}, false},
         {"sigmas", tr("Errors are"), tr("what the analyser prints"),
          QString::number(QSettings().value(QStringLiteral("xrf/sigmas"), 1).toInt()), sigmaChoices(), false}},
        m_look, window());
    form->ask(folderFault, [this](const FormValues& v) {
        QSettings().setValue(QStringLiteral("xrf/sigmas"), sigmasOf(v));
        m_folder.watch(v["folder"]);
        emit said(v["folder"].isEmpty() ? tr("No folder is watched.") : tr("%1 is watched for shots").arg(v["folder"]),
                  false);
    });
}

} // namespace rollcall

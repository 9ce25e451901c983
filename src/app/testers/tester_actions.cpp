// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/testers/tester_actions.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/line_form.h"
#include "app/shared/local_time.h"
#include "core/base/number.h"
#include "core/measure/verification.h"
#include "files/disk.h"
#include "logbook/actions/instruments.h"
#include "report/export_picture.h"
#include "words/typed_time.h"
#include "words/words.h"

#include <algorithm>
#include <memory>
#include <QDate>
#include <QFile>
#include <QFileInfo>

namespace rollcall {

namespace {

Result<double> numberIn(const QString& text) {
    return parseNumber(text.toStdString());
}

QString numberText(double value) {
    return QString::number(value, 'g', 8);
}

// Writes the chart: PNG, SVG or CSV by the file's ending. Errors: disk; argument for another ending.
Result<Done> writeChart(const ControlChart& chart, const QString& path, const Look& look) {
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("csv")) {
        QByteArray text("date,error,spread,allowed_error,allowed_spread\n");
        for (std::size_t i = 0; i < chart.errors.size(); ++i) {
            text += QDate(1970, 1, 1).addDays(qRound64(chart.errors[i].day)).toString(Qt::ISODate).toUtf8() + ',' +
                    QByteArray::number(chart.errors[i].value, 'g', 12) + ',' +
                    QByteArray::number(chart.spreads[i].value, 'g', 12) + ',' +
                    QByteArray::number(chart.allowed_error) + ',' + QByteArray::number(chart.allowed_spread) + '\n';
        }
        return writeFile(path, text);
    }
    if (ending != QLatin1String("png") && ending != QLatin1String("svg"))
        return Error{ErrorKind::argument, path.toStdString(), "the ending must be png, svg or csv"};
    return savePicture(
        path, QSize(look.px(1000), look.px(420)), QObject::tr("Error of a tester through time"), look.palette.panel,
        [&](QPainter& painter, const QRect& page) {
            drawControlChart(painter, page.adjusted(look.px(16), look.px(16), -look.px(16), -look.px(16)), chart, look);
        });
}

} // namespace

TesterActions::TesterActions(Document& document, DeviceLink& link, const Look& look, Seams seams, QWidget* bench)
    : QObject(bench), m_document(document), m_link(link), m_look(look), m_seams(std::move(seams)), m_bench(bench) {}

void TesterActions::edit(const Tester* tester) {
    const std::vector<FormChoice> kinds{{"bench", tr("bench, digital")},
                                        {"dial", tr("bench, dial")},
                                        {"rebound", tr("rebound")},
                                        {"files", tr("set of files")},
                                        {"other", tr("other")}};
    const Tester old = tester != nullptr ? *tester : Tester();
    const bool dial = old.kind == TesterKind::bench && old.resolution >= 0.5;
    const QString kind = dial ? QStringLiteral("dial") : QString::fromLatin1(nameOf(old.kind));
    QStringList files;
    for (const double file : old.files) files << numberText(file);
    auto* form = new FormDialog(
        tester != nullptr ? tr("Change %1").arg(QString::fromStdString(old.name)) : tr("New tester"), tr("Keep it"),
        {{"name", tr("Name"), tr("as it is called in the shop"), QString::fromStdString(old.name), {}, false},
         {"kind", tr("Kind"), tr("how it reads"), kind, kinds, false},
         {"indenter",
          tr("Indenter"),
          tr("a change ends its verification"),
          QString::fromStdString(old.indenter),
          {},
          false},
         {"anvil", tr("Anvil"), tr("likewise"), QString::fromStdString(old.anvil), {}, false},
         {"files", tr("Files"), tr("a set: their hardnesses, 40 50 60"), files.join(QLatin1Char(' ')), {}, false}},
        m_look, window());
    const auto filesIn = [](const QString& text) { return parseNumbers(text.toStdString()); };
    form->ask(
        [this, id = old.id, filesIn](const FormValues& v) -> FormFault {
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give the tester a name.")};
            for (const Tester& t : m_document.state().shop().testers) {
                if (t.id != id && QString::fromStdString(t.name) == v["name"])
                    return {QStringLiteral("name"), tr("There is a tester of that name.")};
            }
            if (v["kind"] != QLatin1String("files")) return {};
            const auto list = filesIn(v["files"]);
            if (!list || list->empty())
                return {QStringLiteral("files"), tr("Type the hardness of each file, such as 40 50 60.")};
            for (const double file : *list) {
                if (file < 20 || file > 75) return {QStringLiteral("files"), tr("A file's hardness is 20 to 75 HRC.")};
            }
            return {};
        },
        [this, old, filesIn, isNew = tester == nullptr](const FormValues& v) {
            Tester changed = old;
            changed.name = v["name"].toStdString();
            changed.kind = named<TesterKind>(v["kind"].toStdString()).value_or(TesterKind::bench); // a dial is a bench
            changed.resolution = v["kind"] == QLatin1String("dial") ? 0.5 : 0.1;
            changed.indenter = v["indenter"].toStdString();
            changed.anvil = v["anvil"].toStdString();
            changed.files = changed.kind == TesterKind::files ? filesIn(v["files"]).value() : std::vector<double>();
            std::sort(changed.files.begin(), changed.files.end());
            m_document.perform(
                [changed, isNew](Logbook& logbook) -> Result<Done> {
                    if (!isNew) return changeTester(logbook, changed);
                    const auto id = rollcall::addTester(logbook, changed);
                    if (!id) return id.error();
                    return Done{};
                },
                [this, changed](const Result<Done>& done) {
                    if (done) emit said(tr("%1 kept").arg(QString::fromStdString(changed.name)), false);
                });
        });
}

void TesterActions::chooseBlockToEdit() {
    const std::vector<Block> blocks = m_document.state().shop().blocks;
    std::vector<Choice> choices;
    for (const Block& block : blocks)
        choices.push_back({QString::number(choices.size() + 1), tr("Block %1").arg(QString::fromStdString(block.name)),
                           tr("%1 indents on it").arg(block.used + block.used_before)});
    choices.push_back({QStringLiteral("n"), tr("A new block"), tr("certified value, uncertainty, face")});
    (new ChoiceDialog(tr("Test blocks"), {}, choices, m_look, window()))->ask([this, blocks](int i) {
        const auto index = static_cast<std::size_t>(i);
        editBlock(index < blocks.size() ? &blocks[index] : nullptr);
    });
}

void TesterActions::editBlock(const Block* block) {
    const Block old = block != nullptr ? *block : Block();
    const bool isNew = block == nullptr;
    std::vector<FormChoice> faces{QString()};
    for (const Block& other : m_document.state().shop().blocks) {
        if (other.id == old.id) continue;
        faces.emplace_back(QString::fromStdString(other.name));
        faces.back().key = QString::fromStdString(other.id);
    }
    auto* form = new FormDialog(
        isNew ? tr("New block") : tr("Block %1").arg(QString::fromStdString(old.name)), tr("Keep it"),
        {{"name", tr("Name"), tr("its number or value"), QString::fromStdString(old.name), {}, false},
         {"scale", tr("Scale"), tr("as on its certificate"), QString::fromStdString(old.scale), {}, false},
         {"certified",
          tr("Certified value"),
          tr("on the certificate"),
          isNew ? QString() : numberText(old.certified),
          {},
          false},
         {"uncertainty", tr("Uncertainty"), tr("U of the certificate, k = 2"), numberText(old.uncertainty), {}, false},
         {"diameter",
          tr("Face"),
          tr("diameter, %1").arg(words::unit(Quantity::length)),
          words::field(old.diameter_mm, Quantity::length),
          {},
          false},
         {"spacing",
          tr("Spacing"),
          tr("%1 between indents").arg(words::unit(Quantity::length)),
          words::field(old.spacing_mm, Quantity::length),
          {},
          false},
         {"used", tr("Used before"), tr("indents not in this logbook"), QString::number(old.used_before), {}, false},
         {"by", tr("Certified by"), tr("on the certificate"), QString::fromStdString(old.certificate.by), {}, false},
         {"on",
          tr("On"),
          tr("2026-05-31, blank: not noted"),
          QString::fromStdString(old.certificate.on),
          {},
          false,
          Picks::day,
          localTime(m_document.now())},
         {"until",
          tr("Valid until"),
          tr("its last day"),
          QString::fromStdString(old.certificate.until),
          {},
          false,
          Picks::day,
          localTime(m_document.now())},
         {"face", tr("Other face of"), tr("a block that is certified on both"),
          QString::fromStdString(old.certificate.other_face), faces, false}},
        m_look, window());
    form->ask(
        [this, id = old.id](const FormValues& v) -> FormFault {
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give the block a name.")};
            for (const Block& b : m_document.state().shop().blocks) {
                if (b.id != id && QString::fromStdString(b.name) == v["name"])
                    return {QStringLiteral("name"), tr("There is a block of that name.")};
            }
            const auto scale = m_document.tables().scale(v["scale"].toStdString());
            if (!scale) return {QStringLiteral("scale"), tr("Type a Rockwell scale, such as HRC or HR15N.")};
            const auto certified = numberIn(v["certified"]);
            if (!certified || (scale->low && (*certified < *scale->low || *certified > *scale->high)))
                return {QStringLiteral("certified"), tr("Type the certified value, inside the scale's range.")};
            const auto u = numberIn(v["uncertainty"]);
            if (!u || *u < 0 || *u > 3)
                return {QStringLiteral("uncertainty"), tr("Type the uncertainty on the certificate, such as 0.3.")};
            for (const char* field : {"diameter", "spacing"}) {
                const auto length = words::typed(v[QLatin1String(field)], Quantity::length);
                if (!length || *length < 1 || *length > 200)
                    return {QLatin1String(field),
                            tr("Type a length, %1 to %2.").arg(words::lengthNumber(1, 0), words::length(200, 0))};
            }
            bool whole = false;
            const int used = v["used"].toInt(&whole);
            if (!whole || used < 0) return {QStringLiteral("used"), tr("Type how many indents it has already.")};
            for (const char* field : {"on", "until"}) {
                if (!typedDate(v[QLatin1String(field)]))
                    return {QLatin1String(field), tr("Type a day like 2027-05-31, or leave it blank.")};
            }
            const std::string on = *typedDate(v["on"]);
            const std::string until = *typedDate(v["until"]);
            return on.empty() || until.empty() || on <= until
                       ? FormFault{}
                       : FormFault{QStringLiteral("until"), tr("It ends before it begins.")};
        },
        [this, old, isNew](const FormValues& v) {
            Block changed = old;
            changed.name = v["name"].toStdString();
            changed.scale = m_document.tables().scale(v["scale"].toStdString())->symbol;
            changed.certified = numberIn(v["certified"]).value();
            changed.uncertainty = numberIn(v["uncertainty"]).value();
            changed.diameter_mm = words::typed(v["diameter"], Quantity::length).value();
            changed.spacing_mm = words::typed(v["spacing"], Quantity::length).value();
            changed.used_before = v["used"].toInt();
            changed.certificate = {v["by"].toStdString(), *typedDate(v["on"]), *typedDate(v["until"]),
                                   v["face"].toStdString()};
            m_document.perform(
                [changed, isNew](Logbook& logbook) -> Result<Done> {
                    if (!isNew) return changeBlock(logbook, changed);
                    const auto id = addBlock(logbook, changed);
                    if (!id) return id.error();
                    return Done{};
                },
                [this, changed](const Result<Done>& done) {
                    if (done) emit said(tr("block %1 kept").arg(QString::fromStdString(changed.name)), false);
                });
        });
}

void TesterActions::exportChart(const std::optional<ControlChart>& chart) {
    if (!chart) return emit said(tr("There is no chart yet."), true);
    const QString path =
        m_seams.chooseFile(window(), tr("Export the chart"), tr("Picture or table (*.png *.svg *.csv)"), true);
    if (path.isEmpty()) return;
    const Result<Done> done = writeChart(*chart, path, m_look);
    emit said(done ? tr("%1 written").arg(path) : words::errorText(done.error()), !done.ok());
}

void TesterActions::listSuspect(const Tester& tester) {
    std::optional<Instant> lastGood;
    int failed = 0;
    for (const Verification& run : m_document.state().runs()) {
        if (run.tester != tester.id || !run.time) continue;
        const auto answer = verifyTester(m_document.tables(), run.scale, run.certified, run.readings);
        if (!answer) continue;
        failed = answer->ok ? 0 : failed + 1;
        if (answer->ok) lastGood = run.time;
    }
    m_document.query<std::vector<PlacedReading>>(
        [id = tester.id, since = lastGood.value_or(Instant{})](Logbook& logbook) {
            return logbook.readingsSince(id, since);
        },
        [this, failed, lastGood,
         name = QString::fromStdString(tester.name)](const Result<std::vector<PlacedReading>>& found) {
            if (!found) return emit said(words::errorText(found.error()), true);
            QStringList lines{
                failed >= 2
                    ? tr("Failed %1 times in a row: these readings are suspect and Borderline at best.").arg(failed)
                : failed == 1 ? tr("The last run failed: repeat it before these readings count.")
                              : tr("The last run was good: none is suspect.")};
            if (!lastGood) lines << tr("There is no good run at all.");
            lines << tr("%1 readings since the last good run.").arg(found->size());
            for (const PlacedReading& r : *found)
                lines << tr("%1, %2 at %3: %4 %5")
                             .arg(QString::fromStdString(r.batch), QString::fromStdString(r.mark),
                                  words::gateName(r.gate), words::hardness(r.value), QString::fromStdString(r.scale));
            (new ChoiceDialog(tr("Readings of %1 since its last good run").arg(name), lines, {}, m_look, window()))
                ->ask({});
        });
}

void TesterActions::line(const Tester& tester) {
    const std::vector<Choice> choices{{QStringLiteral("1"), tr("Set up the line"), tr("port and form of its lines")},
                                      {QStringLiteral("2"), tr("Show the last lines"),
                                       m_link.line() != nullptr ? m_link.stateText() : tr("no line yet")},
                                      {QStringLiteral("3"), tr("Take the line away"), tr("readings are typed again")}};
    (new ChoiceDialog(tr("%1 on a wire").arg(QString::fromStdString(tester.name)), {}, choices, m_look, window()))
        ->ask([this, tester](int i) {
            if (i == 0) return setUpLine(tester);
            if (i == 1) return showLines();
            (void)m_link.setUp(tester.id, {}); // an empty set-up has no pattern that could be wrong
            emit said(tr("%1 is not on a wire any more").arg(QString::fromStdString(tester.name)), false);
        });
}

void TesterActions::setUpLine(const Tester& tester) {
    const auto asked =
        askLine(tr("Line of %1").arg(QString::fromStdString(tester.name)), QStringLiteral("lines.csv"),
                DeviceLink::setupOf(tester.id), m_look, window(), [this, id = tester.id](const LineSetup& setup) {
                    const auto done = m_link.setUp(id, setup);
                    emit said(done ? m_link.stateText() : words::errorText(done.error()), !done.ok());
                });
    if (!asked) emit said(words::errorText(asked.error()), true);
}

void TesterActions::showLines() {
    QStringList lines;
    if (m_link.line() != nullptr) {
        const auto& log = m_link.line()->log();
        for (auto entry = log.rbegin(); entry != log.rend() && lines.size() < 60; ++entry)
            lines << QStringLiteral("%1   %2").arg(entry->line, entry->fate);
    }
    if (lines.isEmpty()) lines << tr("Nothing has come yet.");
    (new ChoiceDialog(tr("Last lines, newest first"), lines, {}, m_look, window()))->ask({});
}

void TesterActions::whatIf(const Tester& tester, const TesterHealth& health) {
    if (!m_document.hasBatch()) return emit said(tr("Open a batch first."), true);
    if (!health.answer || !health.today)
        return emit said(tr("%1 is not verified today.").arg(QString::fromStdString(tester.name)), true);
    auto* form = new FormDialog(
        tr("What if the error of %1 were another?").arg(QString::fromStdString(tester.name)),
        tr("Show what would change"),
        {{"error", tr("Error"), tr("HRC; it is %1 now").arg(words::hardness(health.answer->error)), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto error = numberIn(v["error"]);
            return error && std::abs(*error) <= 5 ? FormFault{}
                                                  : FormFault{QStringLiteral("error"), tr("Type HRC from −5 to 5.")};
        },
        [this, id = tester.id, day = health.last->time->localDay()](const FormValues& v) {
            const Batch& batch = m_document.batch();
            // A what-if is judged where it is asked: nothing of it is stored, and nothing shown is judged from it.
            const Batch supposed = withError(batch, id, day, numberIn(v["error"]).value());
            const Judged other(supposed, m_document.tables(), m_document.now());
            QStringList lines;
            int unchanged = 0;
            for (std::size_t i = 0; i < batch.blades.size(); ++i) {
                for (const Gate gate : {Gate::quench, Gate::temper}) {
                    const Verdict* now = m_document.verdict(static_cast<int>(i), gate);
                    const auto& then = other.verdicts().at(i, gate);
                    if (now == nullptr || !then || !now->measurement || !then->measurement) continue;
                    if (now->state == then->state) {
                        ++unchanged;
                        continue;
                    }
                    lines << tr("%1 at %2: %3 becomes %4, %5 becomes %6")
                                 .arg(QString::fromStdString(batch.blades[i].mark), words::gateName(gate),
                                      words::stateName(now->state), words::stateName(then->state),
                                      words::hardness(now->measurement->decided_mean),
                                      words::hardness(then->measurement->decided_mean));
                }
            }
            if (lines.isEmpty()) lines << tr("No verdict would change.");
            lines << tr("%1 verdicts would stay. A preview: nothing is stored.").arg(unchanged);
            (new ChoiceDialog(tr("If the error were %1").arg(v["error"]), lines, {}, m_look, window()))->ask({});
        });
}

} // namespace rollcall

// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/study_page.h"

#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "core/proof/ranks.h"
#include "logbook/actions/proof.h"
#include "plot/glyphs.h"
#include "plot/translate.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <QKeyEvent>

namespace rollcall {

namespace {

constexpr std::array factors{Trait::changed,  Trait::grade, Trait::soak,   Trait::tempers,
                             Trait::hardness, Trait::heat,  Trait::recipe, Trait::lot,
                             Trait::spine,    Trait::edge,  Trait::angle,  Trait::thickness};

QString shown(const std::optional<double>& value, int places, const QString& unit) {
    return value ? QString::number(*value, 'f', places) + unit : QStringLiteral("–");
}

QString shown(const std::string& text) {
    return text.empty() ? QStringLiteral("–") : QString::fromStdString(text);
}

// The places that the pieces may have at a property; empty where all may have any.
QStringList placeCells(const std::vector<std::optional<Places>>& places) {
    const auto tried = std::count_if(places.begin(), places.end(), [](const auto& one) { return one.has_value(); });
    const bool anything = std::any_of(places.begin(), places.end(), [&](const auto& one) {
        return one && (one->best > 1 || one->worst < static_cast<int>(tried));
    });
    QStringList cells;
    for (const auto& place : places) {
        if (tried < 2 || !anything) break;
        cells << (!place                        ? QStringLiteral("–")
                  : place->best == place->worst ? QString::number(place->best)
                                                : tr("%1 to %2").arg(place->best).arg(place->worst));
    }
    return cells;
}

} // namespace

StudyPage::StudyPage(Document& document, const Look& look) : Bench(document, look) {
    setObjectName(QStringLiteral("study-page"));
    tellUnder(this, m_told);
}

const Study* StudyPage::study() const {
    const std::vector<Study>& all = m_document.state().shop().studies;
    return all.empty() ? nullptr
                       : &all[static_cast<std::size_t>(std::clamp<int>(m_index, 0, static_cast<int>(all.size()) - 1))];
}

void StudyPage::step(int by) {
    const int count = static_cast<int>(m_document.state().shop().studies.size());
    if (count == 0) return;
    m_index = (m_index + by + count) % count;
    refresh();
    emit changed();
}

void StudyPage::refresh() {
    load();
    setAccessibleName(content().sub);
    update();
}

// The pieces may be of other batches: they are read and judged on the storage thread, once for each state of the study.
void StudyPage::load() {
    const Study* one = study();
    if (one == nullptr) {
        m_pieces.clear();
        m_loaded.clear();
        return;
    }
    std::string key = one->id;
    if (m_document.hasBatch()) {
        // What was logged on the batch in hand since makes the pieces stale.
        for (const Blade& blade : m_document.batch().blades) {
            key += '/' + std::to_string(blade.rungs.size() + blade.readings.size() + blade.tempers.size() +
                                        blade.edges.size());
            for (const Trial& trial : blade.trials) key += ',' + std::to_string(trial.events.size());
        }
    }
    if (key == m_loaded) return;
    m_loaded = key;
    auto pieces = std::make_shared<std::vector<StudyPiece>>();
    const Tables* tables = &m_document.tables(); // stays as long as the document
    m_document.perform(
        [blades = one->blades, pieces, tables](Logbook& logbook) -> Result<Done> {
            std::map<std::string, Batch> read;
            for (const std::string& id : blades) {
                const auto of = logbook.batchOf(id);
                if (!of) return of.error();
                if (!read.contains(*of)) {
                    auto batch = logbook.batch(*of);
                    if (!batch) return batch.error();
                    read.emplace(*of, std::move(batch).value());
                }
                const Batch& batch = read.at(*of);
                for (std::size_t i = 0; i < batch.blades.size(); ++i) {
                    if (batch.blades[i].id == id) pieces->push_back(studyPiece(batch, i, *tables));
                }
            }
            return Done{};
        },
        [this, pieces](const Result<Done>& done) {
            if (done) m_pieces = std::move(*pieces);
            emit changed();
        });
}

std::vector<StudyPage::Row> StudyPage::rows() const {
    std::vector<Row> rows;
    const Study* one = study();
    if (one == nullptr || m_pieces.empty()) return rows;
    std::vector<PieceFacts> facts;
    for (const StudyPiece& piece : m_pieces) facts.push_back(piece.facts);
    const std::optional<Trait> factor = traitNamed(one->factor);
    const auto differences = differencesBeside(facts, factor);
    const auto differs = [&](Trait trait) {
        return std::any_of(differences.begin(), differences.end(),
                           [&](const Difference& d) { return d.trait == trait; });
    };
    const auto cellsOf = [&](Trait trait) {
        QStringList cells;
        QStringList heats; // numbered: the run of an oven has no name of its own
        for (const PieceFacts& f : facts) {
            switch (trait) {
            case Trait::grade:
                cells << shown(f.grade);
                break;
            case Trait::lot:
                cells << shown(f.lot);
                break;
            case Trait::changed:
                cells << (f.changed.empty() ? tr("as it came") : QString::fromStdString(f.changed));
                break;
            case Trait::recipe:
                cells << shown(f.recipe);
                break;
            case Trait::heat: {
                const QString id = QString::fromStdString(f.heat);
                if (!id.isEmpty() && !heats.contains(id)) heats << id;
                cells << (id.isEmpty() ? QStringLiteral("–") : tr("heat %1").arg(heats.indexOf(id) + 1));
                break;
            }
            case Trait::tempers:
                cells << shown(f.tempers);
                break;
            case Trait::spine:
                cells << (f.spine.empty() ? tr("as the rest") : QString::fromStdString(f.spine));
                break;
            case Trait::soak:
                cells << shown(f.equivalent_min, 1, tr(" min"));
                break;
            case Trait::hardness:
                cells << shown(f.hrc, 1, {});
                break;
            case Trait::thickness:
                cells << (f.thickness_mm ? words::length(*f.thickness_mm) : QStringLiteral("–"));
                break;
            case Trait::edge:
                cells << (f.edge_mm ? words::length(*f.edge_mm, 2) : QStringLiteral("–"));
                break;
            case Trait::angle:
                cells << shown(f.angle_deg, 0, QStringLiteral("°"));
                break;
            case Trait::finish:
                cells << shown(f.finish);
                break;
            }
        }
        return cells;
    };
    if (factor) rows.push_back({words::traitName(*factor), cellsOf(*factor), false});
    for (const Difference& difference : differences)
        rows.push_back({words::traitName(difference.trait), cellsOf(difference.trait), true});
    Row held{tr("rod, held"), {}, false};
    Row failed{tr("rod, failed"), {}, false};
    Row dull{tr("dull after, cuts"), {}, false};
    Row set{tr("set of a bend"), {}, false};
    QStringList protocols;
    std::vector<std::pair<std::string, std::string>> counted; // protocol and step
    for (const StudyPiece& piece : m_pieces) {
        for (const auto& count : piece.counts) {
            const std::pair step(count.protocol, count.step);
            if (std::find(counted.begin(), counted.end(), step) == counted.end()) counted.push_back(step);
        }
        held.cells << (piece.held ? words::rung(*piece.held) : QStringLiteral("–"));
        failed.cells << (piece.failed_as ? tr("%1 %2 N %3°")
                                               .arg(words::outcomeName(*piece.failed_as))
                                               .arg(piece.failed_at->force_n, 0, 'f', 0)
                                               .arg(piece.failed_at->raise_deg, 0, 'f', 0)
                                         : QStringLiteral("–"));
        dull.cells << (!piece.dull              ? QStringLiteral("–")
                       : piece.dull->first_fail ? tr("%1 to %2").arg(piece.dull->last_pass).arg(*piece.dull->first_fail)
                                                : tr("%1 or more").arg(piece.dull->last_pass));
        set.cells << shown(piece.set_deg, 0, QStringLiteral("°"));
        for (const auto& tried : piece.trials) {
            const QString name = QString::fromStdString(tried.protocol);
            if (!protocols.contains(name)) protocols << name;
        }
    }
    // E33. A place at each property, never one over all of them, and none by hardness.
    constexpr double endless = std::numeric_limits<double>::infinity();
    const auto performed = [&](auto&& by) {
        std::vector<std::optional<Performed>> all;
        for (const StudyPiece& piece : m_pieces) all.push_back(by(piece));
        return all;
    };
    const QStringList heldPlaces =
        placeCells(placesOf(performed([](const StudyPiece& piece) -> std::optional<Performed> {
                                if (!piece.held) return std::nullopt;
                                const double load = piece.held->force_n * piece.held->raise_deg;
                                return Performed{load, piece.failed_as ? load : endless};
                            }),
                            true));
    const QStringList dullPlaces =
        placeCells(placesOf(performed([](const StudyPiece& piece) -> std::optional<Performed> {
                                if (!piece.dull) return std::nullopt;
                                return Performed{double(piece.dull->last_pass),
                                                 piece.dull->first_fail ? double(*piece.dull->first_fail) : endless};
                            }),
                            true));
    const QStringList setPlaces =
        placeCells(placesOf(performed([](const StudyPiece& piece) -> std::optional<Performed> {
                                if (!piece.set_deg) return std::nullopt;
                                return Performed{*piece.set_deg, *piece.set_deg};
                            }),
                            false));
    const auto withPlaces = [&](Row row, const QStringList& places) {
        rows.push_back(std::move(row));
        if (!places.isEmpty()) rows.push_back({tr("· its place"), places, false});
    };
    withPlaces(std::move(held), heldPlaces);
    rows.push_back(std::move(failed));
    for (const QString& protocol : protocols) {
        Row row{protocol, {}, false};
        for (const StudyPiece& piece : m_pieces) {
            QString cell = QStringLiteral("–");
            for (const auto& tried : piece.trials) {
                if (QString::fromStdString(tried.protocol) != protocol) continue;
                const QString how = tr("failed: %1").arg(QString::fromStdString(tried.failed_step));
                cell = tried.runs > 1      ? tr("%1 of %2 passed").arg(tried.passed).arg(tried.runs)
                       : tried.passed == 1 ? tr("passed")
                                           : how;
            }
            row.cells << cell;
        }
        const QStringList places =
            placeCells(placesOf(performed([&](const StudyPiece& piece) -> std::optional<Performed> {
                                    for (const auto& tried : piece.trials) {
                                        if (QString::fromStdString(tried.protocol) == protocol)
                                            return knownShare(tried.passed, tried.runs);
                                    }
                                    return std::nullopt;
                                }),
                                true));
        withPlaces(std::move(row), places);
    }
    QString above;
    for (const auto& [protocol, step] : counted) {
        // Under the protocol's name, which is too long to stand before each of its steps.
        const QString name = QString::fromStdString(protocol);
        if (name != above) rows.push_back({name, {}, false});
        above = name;
        Row row{QString::fromStdString(step), {}, false};
        Row between{tr("· known to"), {}, false};
        std::vector<std::optional<Performed>> known;
        for (const StudyPiece& piece : m_pieces) {
            const auto count = std::find_if(piece.counts.begin(), piece.counts.end(), [&](const auto& its) {
                return its.protocol == protocol && its.step == step;
            });
            const bool seen = count != piece.counts.end();
            known.push_back(seen ? knownCount(count->count, count->runs) : std::nullopt);
            const auto whole = [](double value) { return QString::number(std::round(value), 'f', 0); };
            row.cells << (seen ? whole(count->count / count->runs) : QStringLiteral("–"));
            between.cells << (known.back() ? tr("%1 to %2").arg(whole(known.back()->low), whole(known.back()->high))
                                           : QStringLiteral("–"));
        }
        rows.push_back(std::move(row));
        withPlaces(std::move(between), placeCells(placesOf(known, true)));
    }
    withPlaces(std::move(dull), dullPlaces);
    withPlaces(std::move(set), setPlaces);
    for (const Trait same : {Trait::grade, Trait::lot, Trait::hardness, Trait::soak, Trait::tempers, Trait::thickness,
                             Trait::edge, Trait::angle}) {
        if (same != factor && !differs(same)) rows.push_back({words::traitName(same), cellsOf(same), false});
    }
    // A result that no piece has says nothing.
    std::erase_if(rows, [](const Row& row) {
        return !row.cells.isEmpty() && std::all_of(row.cells.begin(), row.cells.end(),
                                                   [](const QString& cell) { return cell == QStringLiteral("–"); });
    });
    return rows;
}

void StudyPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    m_told.clear();
    painter.fillRect(rect(), p.panel);
    const Study* one = study();
    if (one == nullptr) {
        drawText(painter, 0, px(60), tr("No study yet"), m_look.font(28, true), p.ink);
        int y = px(100);
        for (const QString& line : {tr("Pieces with one thing varied, side by side:"),
                                    tr("control against changed, three soaks, three steels."),
                                    tr("Enter  name it, its factor and its pieces")}) {
            drawText(painter, 0, y, line, m_look.font(18), p.ink);
            y += px(34);
        }
        return;
    }
    const int count = static_cast<int>(m_document.state().shop().studies.size());
    drawFitted(painter, 0, px(26), QString::fromStdString(one->name), width() - px(160), m_look, 24, true, p.ink);
    drawText(painter, width(), px(26), tr("study %1 of %2").arg(std::clamp(m_index, 0, count - 1) + 1).arg(count),
             m_look.font(16), p.muted, Qt::AlignRight);
    m_told.add({0, 0, double(width()), double(px(40))}, tr("The study in hand; left and right go to another"));
    const int pieces = static_cast<int>(m_pieces.size());
    if (pieces == 0) return;
    const int left = px(146);
    const int column = (width() - left) / pieces;
    for (int i = 0; i < pieces; ++i) {
        const PieceFacts& facts = m_pieces[static_cast<std::size_t>(i)].facts;
        m_told.add({double(left + column * i), double(px(40)), double(column), double(px(52))},
                   tr("%1 of %2").arg(QString::fromStdString(facts.mark), QString::fromStdString(facts.batch)));
        drawFitted(painter, left + column * i, px(60), QString::fromStdString(facts.mark), column - px(8), m_look, 20,
                   true, p.ink);
        drawFitted(painter, left + column * i, px(80), QString::fromStdString(facts.batch), column - px(8), m_look, 14,
                   false, p.muted);
    }
    int y = px(92);
    const std::vector<Row> all = rows();
    const int room = height() - y;
    const int row = std::clamp(room / std::max<int>(1, static_cast<int>(all.size())), px(24), px(34));
    bool first = true;
    bool differing = false;
    for (std::size_t at = 0; at < all.size(); ++at) {
        const Row& one_row = all[at];
        if (y + 2 * row > height() && at + 1 < all.size()) {
            drawText(painter, 0, y + row / 2 + px(6),
                     tr("%1 more lines, copied with the table (Ctrl+C)").arg(all.size() - at), m_look.font(16),
                     p.muted);
            break;
        }
        if (differing && !one_row.differs) painter.fillRect(0, y - 2, width(), 2, p.ink);
        differing = one_row.differs;
        const bool isFactor = first && traitNamed(one->factor);
        first = false;
        if (one_row.differs) drawToneGlyph(painter, 0, y + row / 2 - px(8), px(16), Tone::caution, m_look, p.panel);
        drawFitted(painter, one_row.differs ? px(22) : 0, y + row / 2 + px(6), one_row.name, left - px(28), m_look, 16,
                   isFactor,
                   isFactor          ? p.primary
                   : one_row.differs ? p.ink
                                     : p.muted);
        m_told.add({0, double(y), double(left), double(row)},
                   isFactor          ? tr("%1: what this study varies").arg(one_row.name)
                   : one_row.differs ? tr("%1 differs too, so that it may be the cause").arg(one_row.name)
                                     : one_row.name);
        for (int i = 0; i < pieces && i < one_row.cells.size(); ++i) {
            m_told.add({double(left + column * i), double(y), double(column), double(row)},
                       QStringLiteral("%1, %2: %3")
                           .arg(QString::fromStdString(m_pieces[static_cast<std::size_t>(i)].facts.mark), one_row.name,
                                one_row.cells[i]));
            drawFitted(painter, left + column * i, y + row / 2 + px(6), one_row.cells[i], column - px(10), m_look, 16,
                       isFactor, p.ink);
        }
        y += row;
        painter.fillRect(0, y - 1, width(), 1, p.hair);
    }
}

ColumnContent StudyPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    content.act = tr("New study");
    content.detail = tr("name, factor, pieces");
    content.left = tr("Next study");
    content.left_key = QStringLiteral("→");
    content.state = State::notYet;
    const Study* one = study();
    if (one == nullptr) {
        content.word = tr("No study");
        content.sub = tr("One thing varied, the rest equal.");
        return content;
    }
    content.caption = QString::fromStdString(one->name);
    std::vector<PieceFacts> facts;
    for (const StudyPiece& piece : m_pieces) facts.push_back(piece.facts);
    const auto factor = traitNamed(one->factor);
    const auto differences = differencesBeside(facts, factor);
    content.state = m_pieces.empty() ? State::notYet : differences.empty() ? State::pass : State::borderline;
    content.word = m_pieces.empty() ? tr("Not yet") : differences.empty() ? tr("Fair") : tr("Not fair");
    content.sub = m_pieces.empty()          ? tr("Its pieces are being read.")
                  : differences.empty()     ? tr("Nothing else differs.")
                  : differences.size() == 1 ? tr("One other thing differs.")
                                            : tr("%1 other things differ.").arg(differences.size());
    if (factor)
        content.lines.push_back(
            {Tone::note, tr("Varied: %1").arg(words::traitName(*factor)), QStringLiteral("study"), false});
    for (const Difference& difference : differences)
        content.lines.push_back({difference.known ? Tone::caution : Tone::unseen, words::differenceText(difference),
                                 QStringLiteral("M32"), false});
    const bool counts =
        std::any_of(m_pieces.begin(), m_pieces.end(), [](const StudyPiece& piece) { return !piece.counts.empty(); });
    if (counts)
        content.below.push_back({Tone::note,
                                 tr("What a count is known to (95 %): each stroke as likely as the next to do it. Wear "
                                    "scatters less."),
                                 QStringLiteral("E33"), false});
    content.below.push_back(
        {Tone::note, tr("One piece each proves little: repeat before it decides anything."), {}, false});
    return content;
}

void StudyPage::act() {
    QStringList names;
    for (const Trait trait : factors) names << words::traitName(trait);
    names << tr("something else");
    auto* form =
        new FormDialog(tr("A study"), tr("Begin it"),
                       {{"name", tr("Name"), {}, {}, {}, false},
                        {"factor", tr("What is varied"), {}, QStringLiteral("0"), numberedChoices(names), false},
                        {"pieces", tr("Pieces"), tr("marks; of another batch: Orchard 12/GK-1"), {}, {}, false}},
                       m_look, window());
    // Marks are looked up on the storage thread: pieces of other batches are not at hand here.
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("A study needs a name.")};
            return v["pieces"].split(QLatin1Char(','), Qt::SkipEmptyParts).size() >= 2
                       ? FormFault{}
                       : FormFault{QStringLiteral("pieces"), tr("Name two pieces at least, with commas between.")};
        },
        [this](const FormValues& v) {
            Study made;
            made.name = v["name"].toStdString();
            const qsizetype factor = v["factor"].toInt();
            if (factor >= 0 && factor < static_cast<qsizetype>(factors.size()))
                made.factor = nameOf(factors[static_cast<std::size_t>(factor)]);
            const QStringList pieces = v["pieces"].split(QLatin1Char(','), Qt::SkipEmptyParts);
            const std::string own = m_document.hasBatch() ? m_document.batch().name : std::string();
            m_document.perform(
                [made, pieces, own](Logbook& logbook) mutable -> Result<Done> {
                    const auto batches = logbook.batches();
                    if (!batches) return batches.error();
                    for (const QString& piece : pieces) {
                        const QString name = piece.trimmed();
                        const qsizetype slash = name.lastIndexOf(QLatin1Char('/'));
                        const std::string batchName = slash < 0 ? own : name.left(slash).trimmed().toStdString();
                        const std::string mark = name.mid(slash + 1).trimmed().toStdString();
                        std::string id;
                        for (const BatchSummary& summary : *batches) {
                            if (summary.name != batchName) continue;
                            const auto batch = logbook.batch(summary.id);
                            if (!batch) return batch.error();
                            for (const Blade& blade : batch->blades) {
                                if (blade.mark == mark) id = blade.id;
                            }
                        }
                        if (id.empty())
                            return Error{ErrorKind::refused, "", tr("There is no piece %1.").arg(name).toStdString()};
                        if (std::find(made.blades.begin(), made.blades.end(), id) == made.blades.end())
                            made.blades.push_back(id);
                    }
                    if (auto added = addStudy(logbook, made); !added) return added.error();
                    return Done{};
                },
                [this](const Result<Done>& done) {
                    if (!done) return;
                    m_index = static_cast<int>(m_document.state().shop().studies.size()) - 1;
                    refresh();
                    emit changed();
                });
        });
}

std::vector<ReportTable> StudyPage::tables() const {
    const Study* one = study();
    ReportTable table{one == nullptr ? tr("Study") : QString::fromStdString(one->name), {tr("Study")}, {}};
    if (one == nullptr) return {table};
    for (const StudyPiece& piece : m_pieces) table.head << QString::fromStdString(piece.facts.mark);
    for (const Row& row : rows()) {
        QVariantList line{row.name};
        for (const QString& cell : row.cells) line << cell;
        table.rows.push_back(std::move(line));
    }
    return {table};
}

QStringList StudyPage::movements() const {
    return {tr("Left and right   the study")};
}

bool StudyPage::key(QKeyEvent* event) {
    if (event->key() == Qt::Key_Right || event->key() == Qt::Key_Left) {
        step(event->key() == Qt::Key_Right ? 1 : -1);
        return true;
    }
    return false;
}

HelpText StudyPage::help() const {
    return {tr("Is this comparison fair: does one thing differ, and only one?"),
            {{Pictogram::boxes, tr("Name the pieces, and what is varied between them.")},
             {Pictogram::question, tr("Whatever else differs is listed; mend it or say it.")},
             {Pictogram::window, tr("The table sets their results side by side.")},
             {Pictogram::page, tr("Copy or save it.")}},
            {QStringLiteral("M31")},
            tr("One piece each proves little, whatever the table shows.")};
}

} // namespace rollcall

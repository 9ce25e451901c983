// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/column_map.h"

#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <optional>
#include <set>

namespace rollcall {

namespace {

using Words = std::vector<const char*>;

struct Called {
    const char* column;
    Words words; ///< as plain() gives them
};

// What makers write over their columns, as plain() gives it.
const std::vector<Called>& called() {
    static const std::vector<Called> list{
        {"batch", {"batch", "lot", "charge", "los", "partie", "order", "auftrag", "serie", "series"}},
        {"blade", {"blade",    "mark",     "piece",    "part",  "knife",   "id",       "klinge", "messer",
                   "stuck",    "teil",     "zeichen",  "marke", "lame",    "piece no", "no",     "nr",
                   "knife no", "blade no", "specimen", "probe", "couteau", "repere"}},
        {"gate", {"gate", "stage", "step", "state", "condition", "zustand", "stufe", "etat", "phase", "when"}},
        {"value",
         {"value", "hrc", "hra", "hardness", "rockwell", "reading", "messwert", "wert", "harte", "durete", "valeur",
          "hardness hrc", "harte hrc", "durete hrc", "r", "m", "messung", "mesure", "rc"}},
        {"scale", {"scale", "skala", "verfahren", "echelle"}},
        {"time", {"time", "uhrzeit", "zeit", "zeitpunkt", "heure", "timestamp", "date time", "datetime", "at"}},
        {"date", {"date", "datum", "day", "tag", "jour"}},
        {"tester", {"tester", "machine", "instrument", "gerat", "prufgerat", "prufer", "appareil", "durometre"}},
        {"x_mm", {"x", "x mm", "from heel", "abstand ferse"}},
        {"y_mm", {"y", "y mm", "from edge", "abstand schneide"}},
        {"cycle", {"cycle", "temper no", "tempers", "temper cycle", "anlassen nr", "zyklus", "revenu no"}},
        {"temperature_c",
         {"temperature", "temperature c", "temp", "temper temp", "temper temperature", "anlasstemperatur", "temperatur",
          "temper"}},
        {"hours", {"hours", "hold", "time at temperature", "dauer", "haltezeit", "stunden", "duree", "soak", "h"}},
        {"grade", {"grade", "steel", "stahl", "werkstoff", "material", "acier", "nuance"}},
        {"window_low", {"window low", "low", "min hrc", "from", "von", "untere grenze", "mini"}},
        {"window_high", {"window high", "high", "max hrc", "to", "bis", "obere grenze", "maxi"}},
        {"purpose", {"purpose", "use", "knife type", "verwendung", "zweck", "usage"}},
        {"finished", {"finished", "finished knife", "bought", "fertiges messer"}},
        {"minimum", {"minimum", "as quenched minimum", "quench minimum"}},
        {"thickness_mm", {"thickness", "thickness mm", "dicke", "starke", "epaisseur", "spine"}},
        {"certified", {"certified", "block value", "sollwert", "nominal"}},
        {"block_uncertainty", {"block uncertainty", "uncertainty", "unsicherheit", "incertitude", "u"}},
        {"note", {"note", "notes", "remark", "remarks", "bemerkung", "comment", "kommentar", "remarque"}}};
    return list;
}

const Words& quenchWords() {
    static const Words words{"quench", "quenched",     "as quenched",  "aq",     "hardened",        "gehartet",
                             "harten", "gehartet hrc", "abgeschreckt", "trempe", "nach dem harten", "after quench"};
    return words;
}

const Words& temperWords() {
    static const Words words{"temper", "tempered", "angelassen",        "anlassen",     "revenu",
                             "final",  "fertig",   "nach dem anlassen", "after temper", "finished"};
    return words;
}

const Words& blockWords() {
    static const Words words{"block",           "test block", "reference",
                             "reference block", "prufplatte", "hartevergleichsplatte",
                             "kontrollplatte",  "etalon"};
    return words;
}

bool among(const Words& words, const std::string& word) {
    return std::any_of(words.begin(), words.end(), [&](const char* one) { return word == one; });
}

// A name as it is compared: small letters without accents and marks, words one blank apart.
std::string plain(const std::string& text) {
    static const std::array<std::pair<const char*, const char*>, 24> letters{
        {{"ä", "a"}, {"ö", "o"}, {"ü", "u"}, {"Ä", "a"}, {"Ö", "o"},  {"Ü", "u"}, {"ß", "ss"}, {"é", "e"},
         {"è", "e"}, {"ê", "e"}, {"É", "e"}, {"à", "a"}, {"â", "a"},  {"î", "i"}, {"ï", "i"},  {"ô", "o"},
         {"û", "u"}, {"ù", "u"}, {"ç", "c"}, {"°", " "}, {"№", "no"}, {"º", " "}, {"á", "a"},  {"ó", "o"}}};
    std::string latin = text;
    for (const auto& [from, to] : letters) {
        for (std::size_t at = 0; (at = latin.find(from, at)) != std::string::npos;)
            latin.replace(at, std::string(from).size(), to);
    }
    std::string out;
    for (const char c : lowered(latin)) {
        const bool kept = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (kept)
            out += c;
        else if (!out.empty() && out.back() != ' ')
            out += ' ';
    }
    return std::string(trimmed(out));
}

std::string withoutNumber(const std::string& word) {
    std::size_t end = word.size();
    while (end > 0 && ((word[end - 1] >= '0' && word[end - 1] <= '9') || word[end - 1] == ' ')) --end;
    return word.substr(0, end);
}

// The unit that stands behind a name, in brackets or as its last word: "Dicke [mm]", "temp F".
std::string unitIn(const std::string& header, const Words& units) {
    const std::string text = plain(header);
    const std::string last = text.substr(text.rfind(' ') == std::string::npos ? 0 : text.rfind(' ') + 1);
    for (const char* unit : units) {
        if (last == lowered(unit)) return unit;
    }
    if (among(units, "in") && (last == "inch" || last == "zoll")) return "in";
    if (among(units, "min") && last == "minutes") return "min";
    return {};
}

std::string withoutUnit(const std::string& word) {
    static const Words units{"mm", "in", "inch", "zoll", "c", "f", "h", "min", "minutes"};
    const std::size_t blank = word.rfind(' ');
    return blank != std::string::npos && among(units, word.substr(blank + 1)) ? word.substr(0, blank) : word;
}

const ReadingsColumn* columnNamed(const std::string& name) {
    for (const ReadingsColumn& column : readingsColumns()) {
        if (name == column.name) return &column;
    }
    return nullptr;
}

// Which of a file's columns a header means; empty when it does not tell.
std::string meant(const std::string& header) {
    for (const ReadingsColumn& column : readingsColumns()) {
        if (sameName(header, column.name)) return column.name;
    }
    const std::string text = plain(header);
    for (const std::string& word : {text, withoutUnit(text)}) {
        for (const Called& one : called()) {
            if (!word.empty() && among(one.words, word)) return one.column;
        }
    }
    // Only readings are numbered: "HRC 1", "R2".
    for (const Called& one : called()) {
        if (one.column == std::string("value") && among(one.words, withoutNumber(text))) return one.column;
    }
    return {};
}

// "quenched", "HRC after quench", but not "quench time": nothing but the gate and what is read there.
bool isHardnessAt(const Words& gate, const std::string& words) {
    static const Words read{"hrc", "hra", "rc", "hardness", "rockwell", "reading", "harte", "durete", "value", "wert"};
    std::string rest;
    for (const std::string& word : split(words, ' ')) {
        if (!among(read, word)) rest += (rest.empty() ? "" : " ") + word;
    }
    return !rest.empty() && among(gate, rest);
}

std::vector<std::string> fieldsOf(const CsvText& table, std::size_t column) {
    std::vector<std::string> fields;
    for (const CsvRow& row : table.rows) {
        if (column < row.fields.size() && !row.fields[column].empty()) fields.push_back(row.fields[column]);
    }
    return fields;
}

bool allHardness(const std::vector<std::string>& fields) {
    return !fields.empty() && std::all_of(fields.begin(), fields.end(), [](const std::string& field) {
        const Result<double> value = parseNumber(field);
        return value && *value >= 20 && *value <= 72;
    });
}

// In which order day, month and year stand; only what a field rules out is ruled out.
std::string dateOrder(const std::vector<std::string>& fields) {
    for (const std::string& field : fields) {
        const std::size_t digits = field.find_first_not_of("0123456789");
        if (digits == 4) return "y-m-d";
        if (digits != std::string::npos && digits >= 1 && field[digits] == '.') return "d.m.y";
        if (digits != std::string::npos && digits >= 1 && digits <= 2) {
            const int first = std::stoi(field.substr(0, digits));
            const std::size_t next = digits + 1;
            const std::size_t end = field.find_first_not_of("0123456789", next);
            if (first > 12) return "d.m.y";
            if (end != std::string::npos && end > next && end - next <= 2 &&
                std::stoi(field.substr(next, end - next)) > 12)
                return "m/d/y";
        }
    }
    return "y-m-d";
}

std::string dateText(int year, int month, int day) {
    if (year < 100) year += 2000;
    return fmt::format("{:04}-{:02}-{:02}", year, month, day);
}

struct TimeText {
    std::string date; ///< empty: none
    std::string time; ///< "08:12:00"; empty: none
};

// A date, a time of day or both, in this order of the date; none when it is neither.
std::optional<TimeText> timeOf(const std::string& field, const std::string& order) {
    if (field.find('T') != std::string::npos) return std::nullopt; // understood as it stands, offset and all
    std::vector<int> numbers;
    std::string marks; // the sign behind each number
    for (std::size_t i = 0; i < field.size();) {
        const std::size_t end = std::min(field.find_first_not_of("0123456789", i), field.size());
        if (end == i || end - i > 4) return std::nullopt;
        numbers.push_back(std::stoi(field.substr(i, end - i)));
        i = end;
        if (i == field.size()) break;
        const char mark = field[i];
        const std::string rest = lowered(trimmed(std::string_view(field).substr(i)));
        if (rest == "am" || rest == "pm") {
            marks += rest == "am" ? 'a' : 'p';
            break;
        }
        marks += mark;
        while (i < field.size() && (field[i] < '0' || field[i] > '9')) ++i;
    }
    const bool dated = numbers.size() >= 3 && !marks.empty() && marks[0] != ':';
    const std::size_t first = dated ? 3 : 0;
    TimeText text;
    if (dated) {
        const bool yearFirst = field.find_first_not_of("0123456789") == 4;
        const int year = yearFirst ? numbers[0] : numbers[2];
        const int month = yearFirst ? numbers[1] : order == "m/d/y" ? numbers[0] : numbers[1];
        const int day = yearFirst ? numbers[2] : order == "m/d/y" ? numbers[1] : numbers[0];
        text.date = dateText(year, month, day);
    }
    const std::size_t left = numbers.size() - first;
    if (left == 0) return text;
    if (left < 2 || left > 3) return std::nullopt;
    int hour = numbers[first];
    if (!marks.empty() && (marks.back() == 'a' || marks.back() == 'p')) {
        if (hour < 1 || hour > 12) return std::nullopt;
        hour = hour % 12 + (marks.back() == 'p' ? 12 : 0);
    }
    text.time = fmt::format("{:02}:{:02}:{:02}", hour, numbers[first + 1], left == 3 ? numbers[first + 2] : 0);
    return text;
}

std::string gateText(const std::string& field) {
    const std::string word = plain(field);
    return among(quenchWords(), word)   ? "quench"
           : among(temperWords(), word) ? "temper"
           : among(blockWords(), word)  ? "block"
                                        : field;
}

class Arranger {
public:
    Arranger(const CsvText& table, const ColumnMap& map) : m_table(table), m_map(map) {}

    CsvText arrange() {
        m_out.torn = m_table.torn;
        std::vector<std::size_t> values;
        for (std::size_t i = 0; i < m_map.columns.size(); ++i) {
            const std::string& is = m_map.columns[i].is;
            if (is == "value") {
                values.push_back(i);
            } else if (is == "date" || is == "time") {
                (is == "date" ? m_date : m_time) = i;
            } else if (is != leaveOut && is != "gate") {
                m_kept.push_back(i);
                m_out.header.push_back(!is.empty() ? is : noteName(m_table.header[i]));
            }
            if (is == "gate") m_gate = i;
        }
        for (const char* added : {"value", "time", "gate"}) m_out.header.emplace_back(added);
        for (const auto& [name, text] : m_map.fixed) {
            if (name == "gate" || text.empty() || m_out.column(name)) continue;
            m_fixed.push_back(text);
            m_out.header.push_back(name);
        }
        for (const CsvRow& row : m_table.rows) {
            bool any = false;
            for (const std::size_t column : values) {
                if (at(row, column).empty()) continue;
                add(row, column);
                any = true;
            }
            if (!any) add(row, std::nullopt); // so that the line is not passed over in silence
        }
        return std::move(m_out);
    }

private:
    static std::string noteName(const std::string& header) {
        return columnNamed(header) != nullptr ? header + " (as given)" : header;
    }
    static std::string at(const CsvRow& row, std::optional<std::size_t> column) {
        return column && *column < row.fields.size() ? row.fields[*column] : std::string();
    }
    std::string unitOf(std::size_t column) const {
        const ReadingsColumn* known = columnNamed(m_map.columns[column].is);
        if (known == nullptr || known->units.empty() || m_map.columns[column].is == "value") return {};
        return m_map.columns[column].unit.empty() ? known->units.front() : m_map.columns[column].unit;
    }

    void add(const CsvRow& row, std::optional<std::size_t> value) {
        CsvRow out{row.line, {}};
        for (const std::size_t column : m_kept) {
            std::string field = at(row, column);
            if (const std::string unit = unitOf(column); !unit.empty() && parseNumber(field)) field += unit;
            out.fields.push_back(std::move(field));
        }
        out.fields.push_back(at(row, value));
        out.fields.push_back(time(row));
        std::string gate = value && !m_map.columns[*value].unit.empty() ? m_map.columns[*value].unit : at(row, m_gate);
        if (gate.empty() && m_map.fixed.count("gate")) gate = m_map.fixed.at("gate");
        out.fields.push_back(gateText(gate));
        out.fields.insert(out.fields.end(), m_fixed.begin(), m_fixed.end());
        // Fields beyond the header are told of by the reader, which counts them.
        if (row.fields.size() > m_table.header.size())
            out.fields.insert(out.fields.end(), row.fields.begin() + static_cast<std::ptrdiff_t>(m_table.header.size()),
                              row.fields.end());
        m_out.rows.push_back(std::move(out));
    }

    std::string time(const CsvRow& row) const {
        const std::string day = at(row, m_date);
        const std::string clock = at(row, m_time);
        const auto read = [&](const std::string& field, std::optional<std::size_t> column) {
            return column ? timeOf(field, unitOf(*column)) : std::optional<TimeText>();
        };
        const auto first = read(day, m_date);
        const auto second = read(clock, m_time);
        std::string date = first ? first->date : std::string();
        std::string hour = first ? first->time : std::string();
        if (second && !second->date.empty()) date = second->date;
        if (second && !second->time.empty()) hour = second->time;
        if (!date.empty()) return hour.empty() ? date : date + "T" + hour;
        return day.empty() ? clock : clock.empty() ? day : day + " " + clock; // refused there as it was written
    }

    const CsvText& m_table;
    const ColumnMap& m_map;
    CsvText m_out;
    std::vector<std::size_t> m_kept;
    std::vector<std::string> m_fixed;
    std::optional<std::size_t> m_date, m_time, m_gate;
};

} // namespace

const std::vector<ReadingsColumn>& readingsColumns() {
    static const std::vector<const char*> dates{"y-m-d", "d.m.y", "m/d/y"};
    static const std::vector<ReadingsColumn> columns{{"batch", true, {}},
                                                     {"blade", true, {}},
                                                     {"gate", true, {}},
                                                     {"value", true, {"", "quench", "temper"}},
                                                     {"scale", false, {}},
                                                     {"date", false, dates},
                                                     {"time", false, dates},
                                                     {"tester", false, {}},
                                                     {"x_mm", false, {"mm", "in"}},
                                                     {"y_mm", false, {"mm", "in"}},
                                                     {"cycle", false, {}},
                                                     {"temperature_c", false, {"C", "F"}},
                                                     {"hours", false, {"h", "min"}},
                                                     {"grade", false, {}},
                                                     {"window_low", false, {}},
                                                     {"window_high", false, {}},
                                                     {"minimum", false, {}},
                                                     {"purpose", false, {}},
                                                     {"finished", false, {}},
                                                     {"thickness_mm", false, {"mm", "in"}},
                                                     {"certified", false, {}},
                                                     {"block_uncertainty", false, {}},
                                                     {"note", false, {}}};
    return columns;
}

CsvText arranged(const CsvText& table, const ColumnMap& map) {
    return Arranger(table, map).arrange();
}

ColumnMap guessColumns(const CsvText& table, const std::string& batch) {
    ColumnMap map;
    std::set<std::string> taken;
    for (std::size_t i = 0; i < table.header.size(); ++i) {
        const std::string& header = table.header[i];
        const std::vector<std::string> fields = fieldsOf(table, i);
        ColumnMap::Column column;
        column.is = meant(header);
        const std::string text = plain(header);
        const std::string words = withoutNumber(text);
        // "quenched 2" over numbers is a reading at that gate; a bare number over numbers is one of several.
        const bool atQuench = isHardnessAt(quenchWords(), words);
        const bool atTemper = isHardnessAt(temperWords(), words);
        if ((column.is.empty() || column.is == "value" || column.is == "temperature_c") && allHardness(fields) &&
            (atQuench || atTemper))
            column = {"value", atQuench ? "quench" : "temper"};
        else if (column.is.empty() && words.empty() && allHardness(fields))
            column.is = "value";
        if (column.is != "value" && !column.is.empty() && !taken.insert(column.is).second) column.is.clear();
        if (column.is == "value" && text.find("hra") != std::string::npos) map.fixed["scale"] = "HRA";
        if (const ReadingsColumn* known = columnNamed(column.is); known != nullptr && column.unit.empty()) {
            if (column.is == "date" || column.is == "time")
                column.unit = dateOrder(fields);
            else if (column.is != "value" && !known->units.empty())
                column.unit = unitIn(header, known->units);
        }
        map.columns.push_back(column);
    }
    const auto said = [&](const char* name) {
        return std::any_of(map.columns.begin(), map.columns.end(), [&](const auto& c) { return c.is == name; });
    };
    for (std::size_t i = 0; i < map.columns.size() && !said("blade"); ++i) {
        const std::vector<std::string> fields = fieldsOf(table, i);
        if (map.columns[i].is.empty() && !fields.empty() && !allHardness(fields)) map.columns[i].is = "blade";
    }
    for (std::size_t i = 0; i < map.columns.size() && !said("value"); ++i) {
        if (map.columns[i].is.empty() && allHardness(fieldsOf(table, i))) map.columns[i].is = "value";
    }
    if (!said("batch")) map.fixed["batch"] = batch;
    const bool gated = std::all_of(map.columns.begin(), map.columns.end(),
                                   [](const auto& c) { return c.is != "value" || !c.unit.empty(); });
    if (!said("gate") && !gated) map.fixed["gate"] = "temper";
    return map;
}

} // namespace rollcall

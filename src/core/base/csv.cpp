// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/csv.h"

#include "core/base/number.h"

#include <algorithm>
#include <csv.h>
#include <fmt/format.h>
#include <limits>
#include <utility>

namespace rollcall {

namespace {

bool isUtf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        const auto byte = static_cast<unsigned char>(text[i]);
        const std::size_t length = byte < 0x80                   ? 1
                                   : byte >= 0xC2 && byte < 0xE0 ? 2
                                   : byte >= 0xE0 && byte < 0xF0 ? 3
                                   : byte >= 0xF0 && byte < 0xF5 ? 4
                                                                 : 0;
        if (length == 0 || i + length > text.size()) return false;
        for (std::size_t k = 1; k < length; ++k) {
            if ((static_cast<unsigned char>(text[i + k]) & 0xC0) != 0x80) return false;
        }
        i += length;
    }
    return true;
}

char separatorOf(std::string_view firstLine) {
    char best = ',';
    std::ptrdiff_t most = 0;
    for (const char candidate : {',', ';', '\t'}) {
        std::ptrdiff_t count = 0;
        bool quoted = false; // what stands between quotation marks parts nothing
        for (const char c : firstLine) {
            quoted = quoted != (c == '"');
            count += !quoted && c == candidate ? 1 : 0;
        }
        if (count > most) {
            most = count;
            best = candidate;
        }
    }
    return best;
}

struct Collector {
    int line = 0;
    bool rowEnded = false;
    std::vector<std::string> fields;
    std::vector<CsvRow> rows;
};

void onField(void* bytes, std::size_t length, void* context) {
    auto* collector = static_cast<Collector*>(context);
    collector->fields.emplace_back(trimmed({static_cast<const char*>(bytes), length}));
}

void onRow(int, void* context) {
    auto* collector = static_cast<Collector*>(context);
    collector->rowEnded = true;
    const bool empty =
        std::all_of(collector->fields.begin(), collector->fields.end(), [](const auto& f) { return f.empty(); });
    if (!empty) collector->rows.push_back({collector->line, std::move(collector->fields)});
    collector->fields.clear();
}

Error tornAt(int line) {
    return {ErrorKind::input, fmt::format("line {}", line), "a quotation mark is opened and never closed"};
}

// The parser tells of no line numbers, so it is fed one line at a time.
class Parser {
public:
    explicit Parser(char separator) {
        csv_init(&m_parser, CSV_APPEND_NULL);
        csv_set_delim(&m_parser, static_cast<unsigned char>(separator));
        if (separator == '\t') csv_set_space_func(&m_parser, [](unsigned char c) { return c == ' ' ? 1 : 0; });
    }
    ~Parser() { csv_free(&m_parser); }
    Parser(const Parser&) = delete;
    Parser& operator=(const Parser&) = delete;

    void feed(std::string_view line, Collector& into) {
        csv_parse(&m_parser, line.data(), line.size(), onField, onRow, &into);
    }
    void finish(Collector& into) { csv_fini(&m_parser, onField, onRow, &into); }

private:
    csv_parser m_parser{};
};

} // namespace

std::optional<std::size_t> CsvText::column(std::string_view name) const {
    const std::string wanted = lowered(trimmed(name));
    for (std::size_t i = 0; i < header.size(); ++i) {
        if (lowered(trimmed(header[i])) == wanted) return i;
    }
    return std::nullopt;
}

namespace {

constexpr int longestField = 20; // lines

std::size_t countOf(std::string_view text, char c) {
    return static_cast<std::size_t>(std::count(text.begin(), text.end(), c));
}

// Reads rows from a place on. Where a quotation mark is opened and not closed (in this many lines), says on which line
// and where the next one begins.
struct Tear {
    int line = 0;
    std::size_t next = 0;
};
std::optional<Tear> readRows(std::string_view text, std::size_t from, int line, char separator, int longest,
                             const std::function<bool(CsvRow&&)>& take) {
    const std::size_t separators = longest == longestField ? countOf(text.substr(0, text.find('\n')), separator) : 0;
    Parser parser(separator);
    Collector collector;
    bool insideQuotes = false;
    Tear tear;
    const auto give = [&] {
        bool more = true;
        for (CsvRow& row : collector.rows) {
            const bool whole = !insideQuotes || row.line != tear.line; // not what was torn
            if (whole && more) more = take(std::move(row));
        }
        collector.rows.clear();
        return more;
    };
    for (std::size_t start = from; start < text.size();) {
        const std::size_t end = std::min(text.find('\n', start), text.size());
        const std::string_view written = text.substr(start, end - start);
        ++line;
        if (!insideQuotes) {
            collector.line = line;
            tear = {line, end + 1};
        }
        collector.rowEnded = false;
        parser.feed(written, collector);
        parser.feed("\n", collector);
        // A line that ends no row has opened a quote; an inch mark inside a plain field has not.
        if (collector.rowEnded)
            insideQuotes = false;
        else if (!trimmed(written).empty())
            insideQuotes = true;
        if (insideQuotes && line - collector.line >= longest) break;
        // A row of its own was swallowed: it has all its separators, the first of them before any quotation mark.
        if (separators > 0 && line > collector.line && countOf(written, separator) >= separators &&
            written.find(separator) < written.find('"')) {
            insideQuotes = true;
            break;
        }
        if (!give()) return std::nullopt;
        start = end + 1;
    }
    if (!insideQuotes) parser.finish(collector);
    give();
    return insideQuotes ? std::optional(tear) : std::nullopt;
}

Result<std::vector<int>> read(std::string_view text, int longest, char& separator,
                              const std::function<bool(CsvRow&&)>& take) {
    if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
    if (trimmed(text).empty()) return Error{ErrorKind::input, "", "the file is empty"};
    if (!isUtf8(text)) return Error{ErrorKind::input, "", "the file is not UTF-8 text; save it as CSV in UTF-8"};
    separator = separatorOf(text.substr(0, text.find('\n')));
    std::vector<int> torn;
    int header = 0; // its line
    Tear at;
    const auto first = [&](CsvRow&& row) {
        if (header == 0) header = row.line;
        const bool under = torn.empty() || torn.front() > header;
        return !under || take(std::move(row));
    };
    while (const auto tear = readRows(text, at.next, at.line, separator, longest, first)) {
        torn.push_back(tear->line);
        at = *tear;
    }
    if (header == 0 || (!torn.empty() && torn.front() < header))
        return torn.empty() ? Error{ErrorKind::input, "", "the file is empty"} : tornAt(torn.front());
    return torn;
}

constexpr std::size_t allRows = std::numeric_limits<std::size_t>::max();

Result<CsvText> collected(std::string_view text, int longest, std::size_t most = allRows) {
    CsvText csv;
    bool header = true;
    const auto torn = read(text, longest, csv.separator, [&](CsvRow&& row) {
        if (std::exchange(header, false))
            csv.header = std::move(row.fields);
        else
            csv.rows.push_back(std::move(row));
        return csv.rows.size() < most;
    });
    if (!torn) return torn.error();
    csv.torn = *torn;
    return csv;
}

} // namespace

Result<CsvText> readCsv(std::string_view text) {
    Result<CsvText> csv = collected(text, std::numeric_limits<int>::max());
    if (csv && !csv->torn.empty()) return tornAt(csv->torn.front());
    return csv;
}

Result<CsvText> readCsvByLines(std::string_view text) {
    return collected(text, longestField);
}

Result<CsvText> readCsvHead(std::string_view text, std::size_t rows) {
    return collected(text, longestField, rows);
}

Result<std::vector<int>> eachCsvRow(std::string_view text, const std::function<bool(CsvRow&&)>& take) {
    char separator = 0;
    return read(text, longestField, separator, take);
}

std::string csvField(const std::string& field) {
    const bool padded = !field.empty() && (field.front() == ' ' || field.back() == ' ');
    if (!padded && field.find_first_of(",;\t\"\r\n") == std::string::npos) return field;
    std::string text = "\"";
    for (const char c : field) text += c == '"' ? std::string("\"\"") : std::string(1, c);
    return text + "\"";
}

} // namespace rollcall

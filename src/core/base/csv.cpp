// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/csv.h"

#include "core/base/number.h"

#include <algorithm>
#include <csv.h>
#include <fmt/format.h>

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
        const std::ptrdiff_t count = std::count(firstLine.begin(), firstLine.end(), candidate);
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
    if (!empty) collector->rows.push_back({collector->line, collector->fields});
    collector->fields.clear();
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

Result<CsvText> readCsv(std::string_view text) {
    if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
    if (trimmed(text).empty()) return Error{ErrorKind::input, "", "the file is empty"};
    if (!isUtf8(text)) return Error{ErrorKind::input, "", "the file is not UTF-8 text; save it as CSV in UTF-8"};

    CsvText csv;
    csv.separator = separatorOf(text.substr(0, text.find('\n')));
    Parser parser(csv.separator);
    Collector collector;
    int physicalLine = 0;
    bool insideQuotes = false;
    for (std::size_t start = 0; start < text.size();) {
        const std::size_t end = std::min(text.find('\n', start), text.size());
        const std::string_view line = text.substr(start, end - start);
        ++physicalLine;
        if (!insideQuotes) collector.line = physicalLine;
        collector.rowEnded = false;
        parser.feed(line, collector);
        parser.feed("\n", collector);
        // A line that ends no row has opened a quote; an inch mark inside a plain field has not.
        if (collector.rowEnded)
            insideQuotes = false;
        else if (!trimmed(line).empty())
            insideQuotes = true;
        start = end + 1;
    }
    if (insideQuotes) {
        return Error{ErrorKind::input, fmt::format("line {}", collector.line),
                     "a quotation mark is opened and never closed"};
    }
    parser.finish(collector);
    if (collector.rows.empty()) return Error{ErrorKind::input, "", "the file is empty"};
    csv.header = std::move(collector.rows.front().fields);
    collector.rows.erase(collector.rows.begin());
    csv.rows = std::move(collector.rows);
    return csv;
}

std::string csvField(const std::string& field) {
    const bool padded = !field.empty() && (field.front() == ' ' || field.back() == ' ');
    if (!padded && field.find_first_of(",;\t\"\r\n") == std::string::npos) return field;
    std::string text = "\"";
    for (const char c : field) text += c == '"' ? std::string("\"\"") : std::string(1, c);
    return text + "\"";
}

} // namespace rollcall

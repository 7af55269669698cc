#include "data/read_table.h"

#include "data/digest.h"
#include "data/table_cell.h"
#include "data/table_rows.h"
#include "data/text_encoding.h"
#include "formula/columns.h"
#include "formula/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <future>

namespace coulter {
namespace {

/// How much of a text is looked at for its shape, and read at a time.
constexpr std::size_t pieceSize = std::size_t{1} << 18;

/// A cell as it is shown in a sentence.
std::string shown(std::string_view cell) {
    constexpr std::size_t most = 30;
    std::u32string text = decodeUtf8(cell);
    if (text.size() > most) text = text.substr(0, most) + U"…";
    return "“" + encodeUtf8(text) + "”";
}

/// Takes the rows of numbers into columns.
class Collector {
public:
    explicit Collector(const FoundShape& found) : found_(found), decimal_(*found.shape.decimal) {
        for (std::size_t k = 0; k < found.isNumeric.size(); ++k) {
            if (found.isNumeric[k]) numeric_.push_back(k);
        }
        numbers_.resize(numeric_.size());
    }

    bool take(const TableRow& row) {
        if (row.line < *found_.shape.firstRow) return true;
        const std::string_view first = withoutSpaces(row.cells[0]);
        if (first.starts_with('#') || first.starts_with('%')) return true;
        const std::size_t width = found_.isNumeric.size();
        std::size_t cells = row.cells.size();
        while (cells > width && withoutSpaces(row.cells[cells - 1]).empty()) --cells; // delimiters at the end
        if (cells != width) {
            if (std::ranges::all_of(row.cells, [](std::string_view cell) { return withoutSpaces(cell).empty(); }))
                return true;
            problem_ =
                saying("Row " + std::to_string(row.line) + " has " + std::to_string(cells) +
                           (cells == 1 ? " cell" : " cells") + ", and the others have " + std::to_string(width) + ".",
                       "mend that row, or choose another delimiter");
            return false;
        }
        for (std::size_t c = 0; c < numeric_.size(); ++c) {
            const std::string_view text = row.cells[numeric_[c]];
            const TableCell cell = readCell(text, decimal_);
            if (cell.kind == CellKind::Words) {
                problem_ = saying("Row " + std::to_string(row.line) + ", column " + nameOf(numeric_[c]) + ": " +
                                      shown(text) + " is no number.",
                                  "correct it, or leave the cell empty where a value is missing");
                return false;
            }
            numbers_[c].push_back(cell.kind == CellKind::Number ? cell.number : std::nan(""));
        }
        count_ += static_cast<double>(numeric_.size());
        if (count_ > mostNumbersOfPage) {
            problem_ = saying("Up to row " + std::to_string(row.line) + " it has more than " +
                                  roundedNumber(mostNumbersOfPage, 3) + " numbers, which is all that a page holds.",
                              "take a part of it");
            return false;
        }
        return true;
    }

    const Problem& problem() const { return problem_; }

    DataTable table(const std::string& source) {
        DataTable table;
        table.source = source;
        for (std::size_t c = 0; c < numeric_.size(); ++c) {
            const Heading& heading = found_.headings[numeric_[c]];
            table.columns.push_back({heading.name, heading.unit, heading.meaning,
                                     std::make_shared<const std::vector<double>>(std::move(numbers_[c]))});
        }
        return table;
    }

private:
    std::string nameOf(std::size_t column) const {
        const std::string& name = found_.headings[column].name;
        return std::to_string(column + 1) + (name.empty() ? "" : " (" + name + ")");
    }

    const FoundShape& found_;
    char decimal_;
    std::vector<std::size_t> numeric_;
    std::vector<std::vector<double>> numbers_;
    double count_ = 0;
    Problem problem_;
};

} // namespace

TableRead readTable(const TextSource& next, const std::string& source, const TableShape& given,
                    const std::stop_token& stop) {
    TableRead read;
    TextDecoder decoder;
    std::string beginning;
    bool atEnd = false;
    while (!atEnd && beginning.size() < pieceSize / 2) {
        const std::string_view piece = next();
        atEnd = piece.empty();
        beginning += decoder.decode(piece);
        if (decoder.isBinary() || beginning.starts_with("PK\x03\x04")) {
            read.problem = saying("This is no text, so it is no table of separated values.",
                                  "save it as CSV in the program that wrote it");
            return read;
        }
    }
    read.encoding = decoder.encoding();
    if (withoutSpaces(beginning).empty()) {
        read.problem = saying("It is empty.");
        return read;
    }
    // A line of spreadsheets that says the delimiter.
    if (beginning.starts_with("sep=") && beginning.size() > 5) beginning.replace(0, 5, "#    ");
    auto found = findShape(beginning, given);
    if (!found) {
        read.problem = saying("No column of numbers is found in it.",
                              "a table has one row on each line, with a comma, semicolon or tab between its cells");
        return read;
    }
    read.found = std::move(*found);
    Collector collector(read.found);
    TableRows rows(*read.found.shape.delimiter, [&](const TableRow& row) { return collector.take(row); });
    rows.add(beginning);
    while (!atEnd && !rows.hasEnded() && !stop.stop_requested()) {
        const std::string_view piece = next();
        atEnd = piece.empty();
        rows.add(decoder.decode(piece));
    }
    if (stop.stop_requested()) {
        read.problem = saying("Reading it was stopped.");
        return read;
    }
    rows.finish();
    if (rows.openQuote() > 0) {
        read.problem =
            saying("A quotation mark that opens in row " + std::to_string(rows.openQuote()) + " is never closed.",
                   "close it, or take it out");
        return read;
    }
    if (!collector.problem().sentence.empty()) {
        read.problem = collector.problem();
        return read;
    }
    for (std::size_t k = 0; k < read.found.isNumeric.size(); ++k) {
        if (read.found.isNumeric[k]) continue;
        const std::string& name = read.found.headings[k].name;
        read.leftAside.push_back(name.empty() ? std::to_string(k + 1) : name);
    }
    read.table = collector.table(source);
    return read;
}

TableRead readTable(std::string_view text, const std::string& source, const TableShape& given) {
    return readTable(
        [text]() mutable {
            const std::string_view piece = text.substr(0, pieceSize);
            text.remove_prefix(piece.size());
            return piece;
        },
        source, given);
}

TableRead readTableFile(const std::filesystem::path& path, const TableShape& given, const std::stop_token& stop) {
    TableRead read;
    const std::unique_ptr<std::FILE, int (*)(std::FILE*)> file(std::fopen(path.c_str(), "rb"), std::fclose);
    std::error_code error;
    if (!file || !std::filesystem::is_regular_file(path, error)) {
        read.problem =
            saying(std::filesystem::exists(path, error) ? "The file cannot be read." : "There is no such file here.");
        return read;
    }
    // A piece is digested while it is read as a table; two of them take turns.
    std::array<std::vector<char>, 2> buffers{std::vector<char>(pieceSize), std::vector<char>(pieceSize)};
    std::size_t turn = 0;
    Digest digest;
    std::future<void> digesting;
    const auto piece = [&] {
        turn = 1 - turn;
        const std::size_t size = std::fread(buffers[turn].data(), 1, pieceSize, file.get());
        const std::string_view bytes(buffers[turn].data(), size);
        if (digesting.valid()) digesting.get();
        if (size > 0) digesting = std::async(std::launch::async, [&digest, bytes] { digest.add(bytes); });
        return bytes;
    };
    read = readTable(piece, path.filename().string(), given, stop);
    if (digesting.valid()) digesting.get();
    if (std::ferror(file.get())) {
        read.table.reset();
        read.problem = saying("The file cannot be read to its end.");
    }
    if (read.table) read.table->digest = digest.text();
    return read;
}

} // namespace coulter

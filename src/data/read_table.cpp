#include "data/read_table.h"

#include "data/digest.h"
#include "data/known_digests.h"
#include "data/table_cell.h"
#include "data/table_rows.h"
#include "data/text_encoding.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <deque>
#include <future>
#include <memory>
#include <thread>
#include <utility>

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

    /// So many rows may come.
    void expect(std::size_t rows) {
        for (std::vector<double>& column : numbers_) column.reserve(rows);
    }

    bool take(const TableRow& row) {
        if (row.line < *found_.shape.firstRow) return true;
        const bool isNumber = !row.cells[0].empty() && row.cells[0].front() >= '-' && row.cells[0].front() <= '9';
        const std::string_view first = isNumber ? row.cells[0] : withoutSpaces(row.cells[0]);
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

    /// Takes the numbers of further rows that another one has read; whether there is room for them.
    bool absorb(Collector& others) {
        if (count_ + others.count_ > mostNumbersOfPage) return false;
        count_ += others.count_;
        setAside();
        before_.push_back(std::move(others.numbers_));
        return true;
    }

    DataTable table(const std::string& source) {
        DataTable table;
        table.source = source;
        for (std::size_t c = 0; c < numeric_.size(); ++c) {
            const Heading& heading = found_.headings[numeric_[c]];
            table.columns.push_back(
                {heading.name, heading.unit, heading.meaning, std::make_shared<const std::vector<double>>(whole(c))});
        }
        return table;
    }

private:
    void setAside() { before_.push_back(std::exchange(numbers_, std::vector<std::vector<double>>(numeric_.size()))); }

    /// A column of all that was set aside, of which each part is given up as soon as it is there.
    std::vector<double> whole(std::size_t column) {
        if (before_.empty()) return std::move(numbers_[column]);
        std::size_t rows = numbers_[column].size();
        for (const auto& part : before_) rows += part[column].size();
        std::vector<double> all;
        all.reserve(rows);
        const auto append = [&](std::vector<double>& part) {
            all.insert(all.end(), part.begin(), part.end());
            std::vector<double>().swap(part);
        };
        for (auto& part : before_) append(part[column]);
        append(numbers_[column]);
        return all;
    }

    std::string nameOf(std::size_t column) const {
        const std::string& name = found_.headings[column].name;
        return std::to_string(column + 1) + (name.empty() ? "" : " (" + name + ")");
    }

    const FoundShape& found_;
    char decimal_;
    std::vector<std::size_t> numeric_;
    std::vector<std::vector<double>> numbers_;
    std::vector<std::vector<std::vector<double>>> before_; ///< columns of earlier parts: growing ones would be copied
    double count_ = 0;
    Problem problem_;
};

/// Reads rows on all cores as long as no quotation mark stands in the text: then a line's end is a row's end, and parts
/// of the text can be read by themselves. What cannot be read so is read again in order, by the reader that knows where
/// it is.
class RowsAtOnce {
public:
    RowsAtOnce(const FoundShape& found, Collector& collector, TableRows& rows)
        : found_(found), collector_(collector), rows_(rows), mayDivide_(rows.isBetweenRows()) {}
    ~RowsAtOnce() {
        for (Part& part : parts_) part.done.wait();
    }
    RowsAtOnce(const RowsAtOnce&) = delete;
    RowsAtOnce& operator=(const RowsAtOnce&) = delete;

    void add(std::string text) {
        if (mayDivide_ && (text.find('"') != std::string::npos || left_.size() > 2 * partSize)) {
            inOrder();
            mayDivide_ = false;
        }
        if (!mayDivide_) return rows_.add(text);
        left_ += text;
        if (left_.size() < partSize) return;
        const std::size_t whole = left_.rfind('\n') + 1;
        if (whole == 0) return;
        std::string after = left_.substr(whole);
        left_.resize(whole);
        begin(std::exchange(left_, std::move(after)));
        left_.reserve(2 * partSize);
    }

    void finish() { inOrder(); }

private:
    static constexpr std::size_t partSize = std::size_t{1} << 20;

    struct Part {
        std::string text;
        std::unique_ptr<Collector> collector;
        std::size_t lines = 0;
        bool isRead = false;
        std::future<void> done;
    };

    void begin(std::string text) {
        const std::size_t most = std::max(2u, std::thread::hardware_concurrency());
        while (parts_.size() >= most) take();
        Part& part = parts_.emplace_back();
        part.text = std::move(text);
        part.collector = std::make_unique<Collector>(found_);
        part.done = std::async(std::launch::async, [this, &part] {
            part.collector->expect(static_cast<std::size_t>(std::ranges::count(part.text, '\n')));
            const std::size_t first = *found_.shape.firstRow; // which is behind all such parts
            TableRows rows(*found_.shape.delimiter, [&](const TableRow& row) {
                return part.collector->take({row.line + first, row.cells});
            });
            rows.add(part.text);
            part.isRead = !rows.hasEnded() && rows.openQuote() == 0;
            part.lines = rows.line() - 1;
        });
    }

    /// Takes the first part that is being read.
    void take() {
        parts_.front().done.wait(); // until then it is written to
        const Part part = std::move(parts_.front());
        parts_.pop_front();
        if (rows_.hasEnded()) return;
        if (part.isRead && rows_.line() >= *found_.shape.firstRow && collector_.absorb(*part.collector))
            rows_.skip(part.lines);
        else
            rows_.add(part.text);
    }

    void inOrder() {
        while (!parts_.empty()) take();
        rows_.add(left_);
        left_.clear();
    }

    const FoundShape& found_;
    Collector& collector_;
    TableRows& rows_;
    bool mayDivide_;
    std::string left_;       ///< of which no part has been made
    std::deque<Part> parts_; ///< that are being read, in order
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
    const std::size_t whole = beginning.rfind('\n') + 1;
    rows.add(std::string_view(beginning).substr(0, whole));
    RowsAtOnce rest(read.found, collector, rows);
    rest.add(beginning.substr(whole));
    while (!atEnd && !rows.hasEnded() && !stop.stop_requested()) {
        const std::string_view piece = next();
        atEnd = piece.empty();
        rest.add(decoder.decode(piece));
    }
    rest.finish();
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
    if (rows.longCell() > 0) {
        read.problem =
            saying("Row " + std::to_string(rows.longCell()) + " has a cell of more than a million characters.",
                   "a table has one row on each line, with a comma, semicolon or tab between its cells");
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
    const auto state = stateOf(path);
    const bool isLarge = state && state->size >= leastKnownSize;
    // A piece is digested while it is read as a table; two of them take turns. A large file is shown first.
    std::array<std::vector<char>, 2> buffers{std::vector<char>(pieceSize), std::vector<char>(pieceSize)};
    std::size_t turn = 0;
    Digest digest;
    std::future<void> digesting;
    const auto piece = [&] {
        turn = 1 - turn;
        const std::size_t size = std::fread(buffers[turn].data(), 1, pieceSize, file.get());
        const std::string_view bytes(buffers[turn].data(), size);
        if (digesting.valid()) digesting.get();
        if (size > 0 && !isLarge) digesting = std::async(std::launch::async, [&digest, bytes] { digest.add(bytes); });
        return bytes;
    };
    read = readTable(piece, path.filename().string(), given, stop);
    if (digesting.valid()) digesting.get();
    if (std::ferror(file.get())) {
        read.table.reset();
        read.problem = saying("The file cannot be read to its end.");
    }
    if (!read.table) return read;
    read.table->digest = isLarge ? comingDigest(path) : digest.text();
    if (isLarge && stateOf(path) != state) {
        read.table.reset();
        read.problem = saying("It has changed while it was read.", "read it again");
    }
    return read;
}

} // namespace coulter

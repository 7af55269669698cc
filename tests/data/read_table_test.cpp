// Tables as people write them: read rightly, or refused with the place.
#include "data/attach_tables.h"
#include "data/read_table.h"

#include "data/digest.h"
#include "data/table_cell.h"
#include "formula/compile/columns.h"
#include "formula/lines/read_page.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <random>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

const double none = std::nan("");
using Numbers = std::vector<std::vector<double>>; // by column

/// A text and what it says: its columns of numbers, and their headings with their units.
struct Written {
    const char* about;
    std::string text;
    Numbers numbers;
    std::vector<std::string> headings = {}; ///< "s|m", or nothing
};

const Numbers plain{{1, 2, 3}, {4, 5, 6}};
const Numbers parts{{0.5, 1, 2.25}, {10, 20, -30}};

const std::vector<Written> written{
    {"commas", "1,4\n2,5\n3,6\n", plain},
    {"no line feed at the end", "1,4\n2,5\n3,6", plain},
    {"CR LF", "1,4\r\n2,5\r\n3,6\r\n", plain},
    {"CR alone", "1,4\r2,5\r3,6\r", plain},
    {"tabs", "1\t4\n2\t5\n3\t6\n", plain},
    {"semicolons", "1;4\n2;5\n3;6\n", plain},
    {"bars", "1|4\n2|5\n3|6\n", plain},
    {"spaces", "1 4\n2 5\n3 6\n", plain},
    {"columns set with spaces", "   1    4\n   2    5\n   3    6\n", plain},
    {"spaces round the numbers", " 1 , 4 \n 2 ,5\n3, 6\n", plain},
    {"blank lines", "\n1,4\n\n2,5\n\n\n3,6\n\n", plain},
    {"quotes", "\"1\",\"4\"\n\"2\",\"5\"\n\"3\",\"6\"\n", plain},
    {"a heading", "t,s\n1,4\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"a heading in quotes", "\"t\",\"s\"\n1,4\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"units behind a solidus", "t / s,s / m\n1,4\n2,5\n3,6\n", plain, {"t|s", "s|m"}},
    {"units in brackets", "t (min),s [m]\n1,4\n2,5\n3,6\n", plain, {"t|min", "s|m"}},
    {"words before a symbol", "time t / min,drawdown s / m\n1,4\n2,5\n3,6\n", plain, {"t|min", "s|m"}},
    {"words without a symbol", "time (min),drawdown (m)\n1,4\n2,5\n3,6\n", plain, {"time|min", "drawdown|m"}},
    {"a row of units", "t,s\nmin,m\n1,4\n2,5\n3,6\n", plain, {"t|min", "s|m"}},
    {"a row of units in brackets", "t,s\n(min),[m]\n1,4\n2,5\n3,6\n", plain, {"t|min", "s|m"}},
    {"brackets that are no unit", "t (raw),s (see below)\n1,4\n2,5\n3,6\n", plain, {"t (raw)|", "s (see below)|"}},
    {"°C and a slash", "T / °C,v / m s-1\n1,4\n2,5\n3,6\n", plain, {"T|°C", "v|m s-1"}},
    {"a comma in a heading", "\"t, in min\",\"s, in m\"\n1,4\n2,5\n3,6\n", plain, {}},
    {"a line feed in a heading", "\"time\nof day\",s\n1,4\n2,5\n3,6\n", plain, {}},
    {"comments before", "# made up\n# by a script\nt,s\n1,4\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"comments between", "t,s\n1,4\n# pump off\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"per cent comments", "% t s\n1 4\n2 5\n3 6\n", plain},
    {"a title before", "Readings of the trial\n\nt,s\n1,4\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"a block of words before", "Logger;7\nBegun;10:00\nt;s\n1;4\n2;5\n3;6\n", plain, {"t|", "s|"}},
    {"a line that says the delimiter", "sep=;\nt;s\n1;4\n2;5\n3;6\n", plain, {"t|", "s|"}},
    {"a delimiter at the end of each row", "t;s;\n1;4;\n2;5;\n3;6;\n", plain},
    {"decimal points", "0.5,10\n1,20\n2.25,-30\n", parts},
    {"decimal commas", "0,5;10\n1;20\n2,25;-30\n", parts},
    {"decimal commas and tabs", "0,5\t10\n1\t20\n2,25\t-30\n", parts},
    {"decimal commas in quotes", "\"0,5\",\"10\"\n\"1,0\",\"20\"\n\"2,25\",\"-30\"\n", parts},
    {"a printed minus", "0.5,10\n1,20\n2.25,−30\n", parts},
    {"signs", "+0.5,+10\n+1,+20\n+2.25,-30\n", parts},
    {"exponents", "5e-1,1E1\n1.0e+0,2e1\n225E-2,-3.0E+01\n", parts},
    {"no digit before the point", ".5,10\n1.,20\n2.25,-30.\n", parts},
    {"many digits", "0.1234567890123456789,1\n0.2,2\n", {{0.1234567890123456789, 0.2}, {1, 2}}},
    {"thousands by commas", "\"1,234.5\",1\n\"12,345,678\",2\n\"999\",3\n", {{1234.5, 12345678, 999}, {1, 2, 3}}},
    {"thousands by points", "1.234,5;1\n12.345.678;2\n999;3\n", {{1234.5, 12345678, 999}, {1, 2, 3}}},
    {"thousands by spaces", "1 234.5;1\n12 345 678;2\n999;3\n", {{1234.5, 12345678, 999}, {1, 2, 3}}},
    {"thousands by narrow spaces",
     "1\u202f234,5;1\n12\u202f345\u202f678;2\n999;3\n",
     {{1234.5, 12345678, 999}, {1, 2, 3}}},
    {"thousands by apostrophes", "1'234.5;1\n12'345'678;2\n999;3\n", {{1234.5, 12345678, 999}, {1, 2, 3}}},
    {"empty cells", "1,4\n,5\n3,\n", {{1, none, 3}, {4, 5, none}}},
    {"words for what is missing",
     "1,4\nNA,5\n3,n/a\n4,NaN\n5,-\n6,null\n",
     {{1, none, 3, 4, 5, 6}, {4, 5, none, none, none, none}}},
    {"a spreadsheet's errors", "1,4\n2,#N/A\n3,#DIV/0!\n", {{1, 2, 3}, {4, none, none}}},
    {"a column of words", "well,t,s\nA,1,4\nB,2,5\nC,3,6\n", plain, {"t|", "s|"}},
    {"words at the end", "t,s,remark\n1,4,\"rain, and wind\"\n2,5,\n3,6,dry\n", plain, {"t|", "s|"}},
    {"quotes within words", "t,s,remark\n1,4,\"called \"\"old\"\"\"\n2,5,5\" pipe\n3,6,\n", plain, {"t|", "s|"}},
    {"a line feed within words", "t,s,remark\n1,4,\"rain\nand wind\"\n2,5,\n3,6,\n", plain, {"t|", "s|"}},
    {"one column", "1\n2\n3\n", {{1, 2, 3}}},
    {"one column with a heading", "s / m\n1\n2\n3\n", {{1, 2, 3}}, {"s|m"}},
    {"one number", "7\n", {{7}}},
    {"UTF-8 with its mark", "\xef\xbb\xbft,s\n1,4\n2,5\n3,6\n", plain, {"t|", "s|"}},
    {"Latin-1",
     "T (\xb0"
     "C),s\n1,4\n2,5\n3,6\n",
     plain,
     {"T|°C", "s|"}},
    {"an index of a heading", "t_1,s_{max}\n1,4\n2,5\n3,6\n", plain, {"t_1|", "s_{max}|"}},
    {"very large and very small", "1e300,4e-320\n1e-400,5\n", {{1e300, 0}, {4e-320, 5}}},
    {"quotes that are empty", "1,\"\"\n2,5\n", {{1, 2}, {none, 5}}},
};

bool same(const Numbers& found, const DataTable& table) {
    if (found.size() != table.columns.size()) return false;
    for (std::size_t k = 0; k < found.size(); ++k) {
        const bool equal = std::ranges::equal(found[k], *table.columns[k].numbers, [](double a, double b) {
            return a == b || (std::isnan(a) && std::isnan(b));
        });
        if (!equal) return false;
    }
    return true;
}

std::string refused(const std::string& text) {
    const TableRead read = readTable(text, "x");
    CHECK(!read.table);
    return read.problem.sentence;
}

/// A folder of its own, gone at the end.
struct Folder {
    fs::path path = fs::temp_directory_path() / ("coulter-tables-" + std::to_string(std::random_device()()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
    void write(const std::string& name, const std::string& text) const {
        std::ofstream(path / name, std::ios::binary) << text;
    }
};

} // namespace

TEST_CASE("tables as people write them are read rightly") {
    for (const Written& each : written) {
        INFO(each.about);
        const TableRead read = readTable(each.text, "x");
        INFO(read.problem.sentence);
        REQUIRE(read.table);
        CHECK(same(each.numbers, *read.table));
        for (std::size_t k = 0; k < each.headings.size(); ++k)
            CHECK(read.table->columns[k].name + "|" + read.table->columns[k].unit == each.headings[k]);
    }
}

TEST_CASE("UTF-16 is read from either end") {
    const std::u16string text = u"T / °C;s\r\n1;4\r\n2;5\r\n3;6\r\n";
    std::string little = "\xff\xfe", big = "\xfe\xff";
    for (const char16_t c : text) {
        little += {static_cast<char>(c & 0xff), static_cast<char>(c >> 8)};
        big += {static_cast<char>(c >> 8), static_cast<char>(c & 0xff)};
    }
    for (const std::string& bytes : {little, big}) {
        const TableRead read = readTable(bytes, "x");
        REQUIRE(read.table);
        CHECK(read.encoding == "UTF-16");
        CHECK(same(plain, *read.table));
        CHECK(read.table->columns[0].unit == "°C");
    }
}

TEST_CASE("what cannot be read is refused with its row and column") {
    CHECK(refused("t,s\n1,4\n2,5\n3,x6\n4,7\n") == "Row 4, column 2 (s): “x6” is no number.");
    CHECK(refused("1,4\n2,5\n3\n4,7\n").starts_with("Row 3 has 1 cell, and the others have 2"));
    CHECK(refused("t,s\n1,4\n2,5,9\n3,6\n4,7\n").starts_with("Row 3 has 3 cells"));
    CHECK(refused("t,s\n1,4\n2,\"5\n3,6\n").starts_with("A quotation mark that opens in row 3"));
    CHECK(refused("1,4\n2,12,34\n3,6\n").starts_with("Row 2"));
    CHECK(refused("").starts_with("It is empty"));
    CHECK(refused("  \n\n ").starts_with("It is empty"));
    CHECK(refused("only words\nand more of them\n").starts_with("No column of numbers"));
    CHECK(refused(std::string("1,2\0,3\n", 7)).starts_with("This is no text"));
    CHECK(refused("PK\x03\x04 a workbook").starts_with("This is no text"));
    CHECK(refused("t;s\n1,5;4\n2.5;5\n3,5;6\n").starts_with("Row 3, column 1"));
    CHECK(refused("1,1e400\n2,2\n3,3\n").starts_with("Row 1, column 2")); // larger than any number
    const TableRead far = readTable("t,s\n1,4\n\"2\n\",5\n3,x\n4,4\n", "x");
    CHECK(far.problem.sentence.starts_with("Row 5")); // a cell with a line feed counts
    CHECK(refused("t,s\n1,4\n2,5\n3,6\n" + std::string(3'000'000, '7')) ==
          "Row 5 has a cell of more than a million characters.");
}

TEST_CASE("a long table is read in parts as it is read in one go, with its rows counted") {
    // Some megabytes, which the cores share as long as there is no quotation mark.
    std::string text = "# made up\r\n\"t / s\",s / m\r\n";
    constexpr int rows = 400'000;
    for (int i = 0; i < rows; ++i)
        text += fmt::format("{},{:.3f}{}", i, 0.25 * i, i % 3 == 0 ? "\r\n" : i % 1000 == 1 ? "\n\n" : "\n");
    const auto check = [&](const std::string& whole, int most) {
        const TableRead read = readTable(whole, "x");
        INFO(read.problem.sentence);
        REQUIRE(read.table);
        const std::vector<double>&t = *read.table->columns[0].numbers, &s = *read.table->columns[1].numbers;
        REQUIRE(t.size() == static_cast<std::size_t>(most));
        bool same = true;
        for (int i = 0; i < most; ++i)
            same = same && t[static_cast<std::size_t>(i)] == i && s[static_cast<std::size_t>(i)] == 0.25 * i;
        CHECK(same);
        CHECK(read.table->columns[1].unit == "m");
    };
    check(text, rows);
    check(text + "400000,\"100000\"\n400001,100000.25\n", rows + 2);
    // The line of a wrong cell is that of the file: a heading and a remark before, and a blank line after every
    // thousandth.
    const TableRead wrong = readTable(text + "1,2\n3,x\n", "x");
    const auto lines = std::ranges::count(text, '\n');
    CHECK(wrong.problem.sentence.starts_with("Row " + std::to_string(lines + 2) + ", column 2"));
    const TableRead ragged = readTable(text + "1,2\n3\n" + text.substr(text.find("1,")), "x");
    CHECK(ragged.problem.sentence.starts_with("Row " + std::to_string(lines + 2) + " has 1 cell"));
}

TEST_CASE("what is found can be corrected") {
    const std::string text = "1,5;2,5\n3,5;4,5\n";
    const TableRead found = readTable(text, "x");
    REQUIRE(found.table);
    CHECK(*found.found.shape.delimiter == ';');
    CHECK(*found.found.shape.decimal == ',');
    TableShape wish;
    wish.delimiter = ';';
    wish.decimal = '.';
    CHECK(!readTable("1.234;5\n2.345,5;6\n3;7\n", "x", wish).table);
    wish.decimal = ',';
    const TableRead corrected = readTable("1.234;5\n2.345,5;6\n3;7\n", "x", wish);
    REQUIRE(corrected.table);
    CHECK((*corrected.table->columns[0].numbers)[0] == 1234);
    TableShape later;
    later.firstRow = 3;
    const TableRead part = readTable("1,4\n2,5\n3,6\n", "x", later);
    REQUIRE(part.table);
    CHECK(*part.table->columns[0].numbers == std::vector<double>{3});
}

TEST_CASE("random tables written in any dialect are read as they were") {
    std::mt19937_64 random(7);
    for (int round = 0; round < 300; ++round) {
        const std::size_t columns = 1 + random() % 5, rows = 3 + random() % 20;
        const char delimiter = ",;\t|"[random() % 4];
        // One column with decimal commas could as well be two columns.
        const bool comma = delimiter != ',' && columns > 1 && random() % 2 == 0, heading = random() % 2 == 0,
                   quotes = random() % 3 == 0;
        const char* end = random() % 2 == 0 ? "\n" : "\r\n";
        Numbers numbers(columns);
        std::string text;
        for (std::size_t k = 0; heading && k < columns; ++k)
            text += (k > 0 ? std::string(1, delimiter) : "") + "c_" + std::to_string(k);
        if (heading) text += end;
        for (std::size_t i = 0; i < rows; ++i) {
            for (std::size_t k = 0; k < columns; ++k) {
                const double value = std::round((static_cast<double>(random() % 2000000) - 1e6)) / 1000;
                numbers[k].push_back(value);
                char digits[40];
                std::snprintf(digits, sizeof digits, "%.3f", value);
                std::string cell = digits;
                if (comma) std::ranges::replace(cell, '.', ',');
                if (quotes) cell = "\"" + cell + "\"";
                text += (k > 0 ? std::string(1, delimiter) : "") + cell;
            }
            text += end;
        }
        INFO(text);
        const TableRead read = readTable(text, "x");
        INFO(read.problem.sentence);
        REQUIRE(read.table);
        CHECK(same(numbers, *read.table));
    }
}

TEST_CASE("any bytes are read or refused, and nothing is lost in between") {
    std::mt19937_64 random(99);
    const std::string letters = "0123456789.,;\t\"\n\r -+eE#/()aNm\xc3\xa9\x80";
    for (int round = 0; round < 3000; ++round) {
        std::string text;
        for (std::size_t i = random() % 200; i > 0; --i) text += letters[random() % letters.size()];
        const TableRead read = readTable(text, "x");
        CHECK(read.table.has_value() == read.problem.sentence.empty());
        // The same whatever the pieces are that it comes in.
        std::string_view rest = text;
        const TableRead pieces = readTable(
            [&] {
                const std::string_view piece = rest.substr(0, 1 + random() % 5);
                rest.remove_prefix(piece.size());
                return piece;
            },
            "x");
        if (read.encoding == pieces.encoding) CHECK(read.table == pieces.table);
    }
}

TEST_CASE("headings that are no text are kept as far as they are some") {
    const TableRead read = readTable("\xef\xbb\xbf"
                                     "t\xf7\n\xab\n5\n",
                                     "x"); // UTF-8, it says
    REQUIRE(read.table);
    CHECK(read.table->columns[0].unit.empty());
    CHECK(read.table->columns[0].name == "\xef\xbf\xbd");
    CHECK(refused(std::string("\xef\xbb\xbf"
                              "1\0\n2\n",
                              8))
              .starts_with("This is no text"));
}

#ifndef COULTER_SANITIZE // seventy million characters take the sanitizers seven minutes
TEST_CASE("a large table is here before the digest of its file") {
    const auto path =
        std::filesystem::temp_directory_path() / ("coulter-large-table-" + std::to_string(::getpid()) + ".csv");
    {
        std::ofstream file(path);
        const std::string remark(1'000'000, 'x');
        file << "t,s,remark\n";
        for (int row = 0; row < 70; ++row) file << row << ',' << 2 * row << ',' << remark << '\n';
    }
    const TableRead read = readTableFile(path);
    REQUIRE(read.table);
    CHECK((*read.table->columns[1].numbers)[69] == 138);
    CHECK_FALSE(read.table->digest.empty());
    CHECK_FALSE(read.table->digest.isKnown());
    CHECK(read.table->digest.text() == *digestOfFile(path));
    std::filesystem::remove(path);
}
#endif

TEST_CASE("a digest is SHA-256") {
    Digest digest;
    digest.add("a");
    digest.add("bc");
    CHECK(digest.text() == "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}

TEST_CASE("a page's tables come from the recipe's folder, and from nowhere else") {
    const Folder folder;
    folder.write("readings.csv", "t / min,s / m\n1,4\n2,5\n3,6\n");
    fs::create_directories(folder.path / "inner");
    folder.write("inner/more.csv", "1,4\n2,5\n");
    Document document;
    document.page = {"(t, s)from \"readings.csv\"", "(a, b) from \"inner/more.csv\"", "f(x) = x"};
    CHECK(tablesOf(document) == std::vector<std::string>{"readings.csv", "inner/more.csv"});
    attachTables(document, folder.path);
    CHECK(readPage(document).problems().empty());
    CHECK(readPage(document).unitOf("s") == "m");
    CHECK(document.tables.find("readings.csv")->digest.text().size() == 64);

    Document outside;
    outside.page = {"(t, s) from \"../readings.csv\""};
    attachTables(outside, folder.path / "inner");
    CHECK(readPage(outside).problems()[0].sentence.find("outside the recipe's folder") != std::string::npos);
    const std::vector<fs::path> allowed{folder.path};
    attachTables(outside, folder.path / "inner", allowed);
    CHECK(readPage(outside).problems().empty());

    fs::create_symlink(folder.path / "readings.csv", folder.path / "inner/link.csv");
    Document linked;
    linked.page = {"(t, s) from \"link.csv\""};
    attachTables(linked, folder.path / "inner");
    CHECK(!readPage(linked).problems().empty()); // a link does not lead out

    Document missing;
    missing.page = {"(t, s) from \"none.csv\""};
    attachTables(missing, folder.path);
    CHECK(readPage(missing).problems()[0].sentence.find("no such file") != std::string::npos);
    folder.write("none.csv", "1,4\n2,5\n");
    attachTables(missing, folder.path); // it is there now
    CHECK(readPage(missing).problems().empty());
}

TEST_CASE("a file that has changed is said, and never used in silence") {
    const Folder folder;
    folder.write("readings.csv", "t,s\n1,4\n2,5\n3,6\n");
    Document document;
    document.page = {"(t, s) from \"readings.csv\""};
    attachTables(document, folder.path);
    CHECK(changedTables(document, folder.path).empty());
    folder.write("readings.csv", "t,s\n1,4\n2,5\n3,7\n");
    const std::vector<ChangedTable> changed = changedTables(document, folder.path);
    REQUIRE(changed.size() == 1);
    CHECK(changed[0].source == "readings.csv");
    CHECK(changed[0].note.sentence.find("has changed") != std::string::npos);
    CHECK(tableFiles(document, folder.path) == std::vector{folder.path / "readings.csv"});
    // Numbers that were changed by hand are another table by now.
    DataTable edited = *document.tables.find("readings.csv");
    edited.isEdited = true;
    Document byHand = document;
    byHand.tables.put(edited);
    CHECK(changedTables(byHand, folder.path).empty());
    attachTables(document, folder.path);
    CHECK((*readPage(document).columnOf("s"))[2] == 6); // what was taken in stays
    const Document again = withTableReadAgain(document, "readings.csv", folder.path);
    CHECK((*readPage(again).columnOf("s"))[2] == 7);
    CHECK(changedTables(again, folder.path).empty());
    // What is too large for a recipe is found by its digest, or not used at all.
    std::string large = "t,s\n";
    for (int i = 0; i < 120'000; ++i) large += std::to_string(i) + "," + std::to_string(i * 0.123456) + "\n";
    folder.write("large.csv", large);
    Document big;
    big.page = {"(t, s) from \"large.csv\""};
    attachTables(big, folder.path);
    CHECK(readPage(big).problems().empty());
    const DataTables::Entry table = big.tables.find("large.csv");
    CHECK(table->isBeside);
    DataTable kept; // what a recipe keeps of it
    kept.source = table->source;
    kept.digest = table->digest;
    kept.isBeside = true;
    big.tables.put(kept);
    attachTables(big, folder.path);
    CHECK(readPage(big).columnOf("t")->size() == 120'000);
    big.tables.put(kept);
    folder.write("large.csv", large + "9,9\n");
    attachTables(big, folder.path);
    CHECK(readPage(big).problems()[0].sentence.find("it has changed since") != std::string::npos);
}

TEST_CASE("cells hold numbers, nothing, or words") {
    const auto number = [](const char* text, char decimal) {
        const TableCell cell = readCell(text, decimal);
        return cell.kind == CellKind::Number ? cell.number : none;
    };
    CHECK(number("1,234", ',') == 1.234);
    CHECK(number("1,234", '.') == 1234);
    CHECK(number("−1 234,5", ',') == -1234.5);
    CHECK(readCell("1,23,456", '.').kind == CellKind::Words);
    CHECK(readCell("12,34", '.').kind == CellKind::Words);
    CHECK(readCell("0x10", '.').kind == CellKind::Words);
    CHECK(readCell("1.2.3", '.').kind == CellKind::Words);
    CHECK(readCell("2026-05-03", '.').kind == CellKind::Words);
    CHECK(readCell("—", '.').kind == CellKind::Missing);
    CHECK(readCell("inf", '.').kind == CellKind::Missing);
}

#include "command/sweep_index.h"

#include "data/digest.h"
#include "data/table_rows.h"
#include "files/file_access.h"

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <unistd.h>

namespace coulter {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t fixedBefore = 3, fixedAfter = 3; // columns before and after those of what was set

/// A cell of a table of separated values (RFC 4180).
std::string cellOf(const std::string& text) {
    if (text.find_first_of("\",\r\n#") == std::string::npos) return text;
    std::string quoted = "\"";
    for (const char c : text) quoted += c == '"' ? "\"\"" : std::string(1, c);
    return quoted + "\"";
}

std::string lineOf(const std::vector<std::string>& cells) {
    std::string line;
    for (std::size_t i = 0; i < cells.size(); ++i) line += (i == 0 ? "" : ",") + cellOf(cells[i]);
    return line + "\n";
}

std::string header(const std::vector<std::string>& names) {
    std::vector<std::string> cells{"figure", "file", "recipe"};
    cells.insert(cells.end(), names.begin(), names.end());
    cells.insert(cells.end(), {"SHA-256", "remarks", "first remark"});
    return lineOf(cells);
}

std::string firstLine(Part part, std::size_t figures) {
    return fmt::format("# part {} of {}, {} figures\n", part.number, part.of, figures);
}

std::optional<std::size_t> wholeNumber(std::string_view text) {
    std::size_t number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    return error == std::errc{} && end == text.data() + text.size() ? std::optional(number) : std::nullopt;
}

/// The rows of an index behind its two first lines, by figure; a later one counts.
std::map<std::size_t, std::vector<std::string>> rowsOf(std::string_view text) {
    std::map<std::size_t, std::vector<std::string>> rows;
    TableRows reader(',', [&](const TableRow& row) {
        if (row.cells.size() < fixedBefore + fixedAfter) return true;
        const auto figure = wholeNumber(row.cells[0]);
        if (figure && *figure > 0) rows[*figure - 1] = {row.cells.begin(), row.cells.end()};
        return true;
    });
    reader.add(text);
    reader.finish();
    return rows;
}

} // namespace

std::optional<Part> partOf(std::string_view text) {
    const std::size_t slash = text.find('/');
    if (slash == std::string_view::npos) return std::nullopt;
    const auto number = wholeNumber(text.substr(0, slash)), of = wholeNumber(text.substr(slash + 1));
    if (!number || !of || *number < 1 || *number > *of || *of > 1'000'000) return std::nullopt;
    return Part{*number, *of};
}

SweepIndex::SweepIndex(const fs::path& folder, Part part, std::vector<std::string> names, std::size_t figures)
    : path_(folder / fmt::format("index-{}-of-{}.csv", part.number, part.of)) {
    const std::string begins = firstLine(part, figures) + header(names), shown = path_.string();
    file_ = ::open(path_.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_APPEND, 0666);
    if (file_ < 0) {
        problem_ = saying(shown + " cannot be written: " + std::strerror(errno) + ".");
        return;
    }
    if (::flock(file_, LOCK_EX | LOCK_NB) != 0) {
        problem_ =
            saying("This part is being made by another process, which holds " + shown + ".", "wait for it, or stop it");
        return;
    }
    const FileRead before = readFile(path_);
    if (!before.bytes) {
        problem_ = before.problem;
        return;
    }
    std::string text = *before.bytes;
    text.resize(text.rfind('\n') == std::string::npos ? 0 : text.rfind('\n') + 1); // a row that was cut off
    if (!text.empty() && !text.starts_with(begins)) {
        problem_ =
            saying(shown + " belongs to another sweep.", "write this one into another folder, or remove the file");
        return;
    }
    for (const auto& [figure, cells] : rowsOf(text)) digests_[figure] = cells[cells.size() - fixedAfter];
    const bool isNew = text.empty();
    if (::ftruncate(file_, static_cast<off_t>(text.size())) != 0 ||
        (isNew && ::write(file_, begins.data(), begins.size()) != static_cast<ssize_t>(begins.size())))
        problem_ = saying(shown + " cannot be written: " + std::strerror(errno) + ".");
}

SweepIndex::~SweepIndex() {
    if (file_ >= 0) ::close(file_);
}

std::optional<std::string> SweepIndex::digestOf(std::size_t figure) const {
    const std::scoped_lock lock(mutex_);
    const auto at = digests_.find(figure);
    return at == digests_.end() ? std::nullopt : std::optional(at->second);
}

std::optional<Problem> SweepIndex::add(std::size_t figure, const SweepRow& row) {
    std::vector<std::string> cells{std::to_string(figure + 1), row.file, row.recipe};
    cells.insert(cells.end(), row.values.begin(), row.values.end());
    cells.insert(cells.end(), {row.digest, std::to_string(row.remarks.size()),
                               row.remarks.empty() ? std::string() : row.remarks.front()});
    const std::string line = lineOf(cells);
    const std::scoped_lock lock(mutex_);
    // One call: a row is there as a whole, or is taken off by the next start.
    if (::write(file_, line.data(), line.size()) != static_cast<ssize_t>(line.size()))
        return saying(path_.string() + " cannot be written: " + std::strerror(errno) + ".");
    digests_[figure] = row.digest;
    return std::nullopt;
}

MergedIndex mergedIndex(const fs::path& folder) {
    MergedIndex merged;
    std::error_code error;
    std::vector<fs::path> files;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error)) {
        const std::string name = entry.path().filename().string();
        if (name.starts_with("index-") && name.ends_with(".csv") && name.find("-of-") != std::string::npos)
            files.push_back(entry.path());
    }
    std::ranges::sort(files);
    if (error || files.empty()) {
        merged.problem = saying("There is no index of a sweep in " + folder.string() + ".",
                                "coulter render … --part 1/1 writes one");
        return merged;
    }
    std::map<std::size_t, std::vector<std::string>> rows;
    std::string named;
    std::size_t parts = 0;
    for (const fs::path& path : files) {
        const FileRead read = readFile(path);
        if (!read.bytes) {
            merged.problem = read.problem;
            return merged;
        }
        const std::string& text = *read.bytes;
        const std::size_t first = text.find('\n'),
                          second = first == std::string::npos ? first : text.find('\n', first + 1);
        std::size_t number = 0, of = 0, figures = 0;
        if (second == std::string::npos ||
            std::sscanf(text.c_str(), "# part %zu of %zu, %zu figures", &number, &of, &figures) != 3) {
            merged.problem = saying(path.string() + " is no index of a sweep.", "remove it");
            return merged;
        }
        const std::string names = text.substr(first + 1, second - first);
        if (!named.empty() && (names != named || of != parts || figures != merged.figures)) {
            merged.problem = saying(files.front().string() + " and " + path.string() + " belong to different sweeps.",
                                    "remove those that are old");
            return merged;
        }
        named = names;
        parts = of;
        merged.figures = figures;
        for (auto& [figure, cells] : rowsOf(std::string_view(text).substr(second + 1, text.rfind('\n') - second)))
            rows[figure] = std::move(cells);
    }
    merged.csv = named;
    for (std::size_t figure = 0; figure < merged.figures; ++figure) {
        const auto at = rows.find(figure);
        if (at == rows.end()) {
            merged.wrong.push_back(saying("Figure " + std::to_string(figure + 1) + " is missing, of part " +
                                          std::to_string(figure % parts + 1) + "/" + std::to_string(parts) + "."));
            continue;
        }
        const fs::path file = folder / at->second[1];
        const auto digest = digestOfFile(file);
        if (!digest)
            merged.wrong.push_back(saying(file.string() + " is gone."));
        else if (*digest != at->second[at->second.size() - fixedAfter])
            merged.wrong.push_back(saying(file.string() + " is not as it was written."));
        merged.csv += lineOf(at->second);
    }
    return merged;
}

} // namespace coulter

#include "data/table_rows.h"

#include <algorithm>
#include <csv.h>
#include <string>
#include <vector>

namespace coulter {
namespace {

/// A cell that is longer than this was not meant as one.
constexpr std::size_t longestCell = std::size_t{1} << 20;

} // namespace

struct TableRows::State {
    csv_parser parser{};
    char delimiter = ',';
    std::function<bool(const TableRow&)> take;
    std::string text; ///< of the row's cells, one after the other
    std::vector<std::size_t> ends;
    std::vector<std::string_view> cells;
    std::size_t line = 1, begin = 1; ///< where the reader is, and where the row began
    int lastEnd = 0;
    bool ended = false;
    bool hasQuotes = false; ///< so far; without them no line ends within a cell
    std::size_t openQuote = 0, longCell = 0;

    void cell(const char* bytes, std::size_t size) {
        const std::string_view added(bytes, size);
        if (hasQuotes) line += static_cast<std::size_t>(std::ranges::count(added, '\n'));
        if (delimiter == ' ' && added.empty()) return;
        text += added;
        ends.push_back(text.size());
    }

    /// @param by  the character that ended the row; −1 at the end of the text
    void row(int by) {
        const bool isRestOfEnd = by == '\n' && lastEnd == '\r' && ends.empty(); // CR LF
        lastEnd = by;
        if (isRestOfEnd) return;
        ++line;
        if (!text.empty() || ends.size() > 1) {
            cells.clear();
            std::size_t from = 0;
            for (const std::size_t end : ends) {
                cells.push_back(std::string_view(text).substr(from, end - from));
                from = end;
            }
            ended = ended || !take({begin, cells});
        }
        begin = line;
        text.clear();
        ends.clear();
    }

    static void onCell(void* bytes, std::size_t size, void* self) {
        static_cast<State*>(self)->cell(static_cast<const char*>(bytes), size);
    }
    static void onRow(int by, void* self) { static_cast<State*>(self)->row(by); }
};

TableRows::TableRows(char delimiter, std::function<bool(const TableRow&)> take) : state_(std::make_unique<State>()) {
    state_->delimiter = delimiter;
    state_->take = std::move(take);
    csv_init(&state_->parser, CSV_REPALL_NL);
    csv_set_delim(&state_->parser, static_cast<unsigned char>(delimiter));
}

TableRows::~TableRows() { csv_free(&state_->parser); }

void TableRows::add(std::string_view piece) {
    // In small steps, so that an ended reading does not go on for long.
    constexpr std::size_t step = 1 << 16;
    for (; !piece.empty() && !state_->ended; piece.remove_prefix(std::min(step, piece.size()))) {
        const std::string_view part = piece.substr(0, step);
        state_->hasQuotes = state_->hasQuotes || part.find('"') != std::string_view::npos;
        csv_parse(&state_->parser, part.data(), part.size(), State::onCell, State::onRow, state_.get());
        if (state_->parser.entry_pos > longestCell) {
            (state_->parser.quoted != 0 ? state_->openQuote : state_->longCell) = state_->begin;
            state_->ended = true;
        }
    }
}

void TableRows::finish() {
    if (state_->ended) return;
    constexpr int withinCell = 2; // FIELD_BEGUN of the parser
    if (state_->parser.quoted != 0 && state_->parser.pstate == withinCell) {
        state_->openQuote = state_->begin;
        state_->ended = true;
        return;
    }
    csv_fini(&state_->parser, State::onCell, State::onRow, state_.get());
}

void TableRows::skip(std::size_t lines) {
    state_->line += lines;
    state_->begin = state_->line;
}

bool TableRows::isBetweenRows() const {
    constexpr int rowNotBegun = 0; // a state of the parser
    return state_->parser.pstate == rowNotBegun && state_->ends.empty();
}

std::size_t TableRows::line() const { return state_->line; }

bool TableRows::hasEnded() const { return state_->ended; }
std::size_t TableRows::openQuote() const { return state_->openQuote; }
std::size_t TableRows::longCell() const { return state_->longCell; }

} // namespace coulter

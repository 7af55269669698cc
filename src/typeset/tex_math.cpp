#include "typeset/tex_math.h"

#include "formula/base/text.h"
#include "typeset/tex_symbols.h"

#include <algorithm>
#include <optional>

namespace coulter {
namespace {

/// Deepest nesting of groups that is read: everything that walks along it does so by recursion.
constexpr int deepest = 100;

struct Refused {
    std::size_t first, last; ///< characters, from 0; the last one belongs to it
    std::string sentence, suggestion;
};

class Reader {
public:
    explicit Reader(std::u32string text) : text_(std::move(text)) {}

    MathPtr whole() {
        return rowUntil([this] { return at_ >= text_.size(); });
    }

private:
    [[noreturn]] void refuse(std::size_t first, std::string sentence, std::string suggestion = "") const {
        const std::size_t end = std::min(at_, text_.size()), last = std::max(first, end > 0 ? end - 1 : 0);
        throw Refused{first, last, std::move(sentence), std::move(suggestion)};
    }

    void skipSpaces() {
        while (at_ < text_.size() && isSpace(text_[at_])) ++at_;
    }
    bool atEnd() {
        skipSpaces();
        return at_ >= text_.size();
    }
    char32_t peek() const { return at_ < text_.size() ? text_[at_] : U'\0'; }

    /// Behind a backslash: letters, or one other character.
    std::string commandName() {
        std::string name;
        while (at_ < text_.size() &&
               ((text_[at_] >= U'a' && text_[at_] <= U'z') || (text_[at_] >= U'A' && text_[at_] <= U'Z')))
            name += static_cast<char>(text_[at_++]);
        if (name.empty() && at_ < text_.size()) name = encodeUtf8(text_.substr(at_++, 1));
        return name;
    }
    /// The command that stands here, without taking it.
    std::string peekCommand() {
        if (peek() != U'\\') return "";
        const std::size_t before = at_++;
        std::string name = commandName();
        at_ = before;
        return name;
    }

    template <typename Until> MathPtr rowUntil(const Until& until) {
        if (++depth_ > deepest) refuse(at_, "This is nested too deeply.", "write it in several steps");
        std::vector<MathPtr> row;
        for (skipSpaces(); !until(); skipSpaces()) {
            if (at_ >= text_.size()) break;
            row.push_back(scripted());
        }
        --depth_;
        return mathRow(std::move(row));
    }

    /// What is in braces, or the one thing that stands here.
    MathPtr argument(const std::string& of, std::size_t from) {
        if (atEnd()) refuse(from, "“\\" + of + "” lacks what it acts on.", "write it in braces: \\" + of + "{…}");
        if (peek() == U'{') return group();
        if (peek() == U'}' || peek() == U'&')
            refuse(from, "“\\" + of + "” lacks what it acts on.", "write it in braces");
        return atom();
    }

    MathPtr group() {
        const std::size_t from = at_++;
        MathPtr inside = rowUntil([this] { return peek() == U'}'; });
        if (peek() != U'}') {
            at_ = from + 1;
            refuse(from, "This brace is not closed.", "add }");
        }
        ++at_;
        return inside;
    }

    /// Words in braces, taken as they are.
    std::string words(const std::string& of, std::size_t from) {
        skipSpaces();
        if (peek() != U'{') refuse(from, "“\\" + of + "” wants words in braces.", "write \\" + of + "{…}");
        const std::size_t start = ++at_;
        int open = 1;
        for (; at_ < text_.size(); ++at_) {
            if (text_[at_] == U'{') ++open;
            if (text_[at_] == U'}' && --open == 0) break;
        }
        if (at_ >= text_.size()) {
            at_ = start;
            refuse(start - 1, "This brace is not closed.", "add }");
        }
        return encodeUtf8(text_.substr(start, at_++ - start));
    }

    /// An atom with its indices and primes.
    MathPtr scripted() {
        MathPtr base = peek() == U'^' || peek() == U'_' ? mathRow({}) : atom();
        MathPtr below, above;
        std::vector<MathPtr> primes;
        for (skipSpaces();; skipSpaces()) {
            const char32_t c = peek();
            if (c == U'\'') {
                primes.push_back(mathSymbol("′"));
                ++at_;
            } else if (c == U'_' || c == U'^') {
                MathPtr& script = c == U'_' ? below : above;
                if (script) {
                    ++at_;
                    refuse(at_ - 1, c == U'_' ? "There are two subscripts." : "There are two superscripts.",
                           "put both in one pair of braces");
                }
                const std::size_t sign = at_++;
                if (atEnd() || peek() == U'}' || peek() == U'&') {
                    at_ = sign + 1;
                    refuse(sign, "This sign lacks what stands there.", "write it in braces");
                }
                script = peek() == U'{' ? group() : atom();
            } else {
                break;
            }
        }
        if (!primes.empty()) {
            if (above) primes.push_back(above);
            above = mathRow(std::move(primes));
        }
        if (!below && !above) return base;
        if (base->kind == MathKind::Large) return mathLarge(base->text, below, above);
        return mathScript(std::move(base), std::move(below), std::move(above));
    }

    MathPtr atom() {
        const char32_t c = peek();
        const std::size_t from = at_;
        if (c == U'{') return group();
        if (c == U'\\') return command();
        ++at_;
        if (c == U'}') refuse(from, "There is no brace that this one closes.", "take it away, or write \\}");
        if (c == U'&') refuse(from, "“&” separates columns, and here are none.", "write \\&");
        const std::string text = encodeUtf8(std::u32string(1, c));
        if ((c >= U'a' && c <= U'z') || (c >= U'A' && c <= U'Z') || (c >= U'α' && c <= U'ω')) return mathItalic(text);
        switch (c) {
        case U'+':
        case U'±':
        case U'×':
        case U'·': return mathSymbol(text, MathClass::Binary);
        case U'-': return mathSymbol("−", MathClass::Binary);
        case U'*': return mathSymbol("∗", MathClass::Binary);
        case U'=':
        case U'<':
        case U'>':
        case U'≤':
        case U'≥':
        case U'≈':
        case U'∈':
        case U':': return mathSymbol(text, MathClass::Relation);
        case U',':
        case U';': return mathSymbol(text, MathClass::Punctuation);
        case U'(':
        case U'[': return mathSymbol(text, MathClass::Open);
        case U')':
        case U']':
        case U'!': return mathSymbol(text, MathClass::Close);
        case U'~': return mathSpace(0.25);
        default: return mathSymbol(text);
        }
    }

    MathPtr command() {
        const std::size_t from = at_++;
        if (at_ >= text_.size()) refuse(from, "A backslash begins a command, and none follows.", "take it away");
        const std::string name = commandName();
        if (name == "frac" || name == "dfrac" || name == "tfrac") {
            MathPtr top = argument(name, from), bottom = argument(name, from);
            MathPtr fraction = mathFraction(std::move(top), std::move(bottom));
            return name == "dfrac" ? mathDisplayed(std::move(fraction)) : fraction;
        }
        if (name == "sqrt") {
            MathPtr degree;
            skipSpaces();
            if (peek() == U'[') {
                ++at_;
                degree = rowUntil([this] { return peek() == U']'; });
                if (peek() != U']') refuse(from, "The degree of the root is not closed.", "add ]");
                ++at_;
            }
            return mathRoot(argument(name, from), std::move(degree));
        }
        if (name == "left") return fenced(from);
        if (name == "displaystyle") { // up to the end of the group
            return mathDisplayed(rowUntil([this] {
                const std::string next = peekCommand();
                return peek() == U'}' || peek() == U'&' || next == "right" || next == "\\" || next == "end";
            }));
        }
        if (name == "begin") return environment(from);
        if (name == "text" || name == "mathrm" || name == "operatorname")
            return mathWord(words(name, from), name == "operatorname" ? MathClass::Operator : MathClass::Ordinary);
        if (name == "mathit") return italic(words(name, from));
        if (name == "mathbf") return bold(argument(name, from));
        if (name == "overline") return mathOverlined(argument(name, from));
        if (const char32_t mark = texAccent(name)) return mathAccent(argument(name, from), mark);
        if (const char32_t sign = texLarge(name))
            return mathLarge(encodeUtf8(std::u32string(1, sign)), nullptr, nullptr);
        if (isTexFunction(name)) return mathWord(name, MathClass::Operator);
        if (name == "limits" || name == "nolimits") return mathRow({});
        if (const auto space = spaceOf(name)) return mathSpace(*space);
        if (const TexSymbol* symbol = findTexSymbol(name)) {
            const std::string text = encodeUtf8(std::u32string(1, symbol->character));
            return symbol->italic ? mathItalic(text) : mathSymbol(text, symbol->mathClass);
        }
        const std::string_view near = nearTexName(name);
        refuse(from, "The command “\\" + name + "” is not known.",
               near.empty() ? "docs/words.md lists those that are" : "write \\" + std::string(near));
    }

    static std::optional<double> spaceOf(const std::string& name) {
        if (name == ",") return 3.0 / 18;
        if (name == ":") return 4.0 / 18;
        if (name == ";") return 5.0 / 18;
        if (name == "!") return -3.0 / 18;
        if (name == " ") return 0.25;
        if (name == "quad") return 1;
        if (name == "qquad") return 2;
        return std::nullopt;
    }

    static MathPtr italic(const std::string& words) {
        std::vector<MathPtr> letters;
        for (const char32_t c : decodeUtf8(words)) letters.push_back(mathItalic(encodeUtf8(std::u32string(1, c))));
        return mathRow(std::move(letters));
    }

    /// The same with every letter and digit in bold.
    static MathPtr bold(const MathPtr& math) {
        if (!math) return math;
        auto made = std::make_shared<Math>(*math);
        for (MathPtr& child : made->children) child = bold(child);
        const std::u32string letters = decodeUtf8(made->text);
        if (made->kind != MathKind::Symbol || letters.size() != 1) return made;
        const char32_t c = letters[0];
        const char32_t heavy = c >= U'A' && c <= U'Z'   ? U'\U0001D400' + (c - U'A')
                               : c >= U'a' && c <= U'z' ? U'\U0001D41A' + (c - U'a')
                               : c >= U'0' && c <= U'9' ? U'\U0001D7CE' + (c - U'0')
                               : c >= U'Α' && c <= U'Ω' ? U'\U0001D6A8' + (c - U'Α')
                               : c >= U'α' && c <= U'ω' ? U'\U0001D6C2' + (c - U'α')
                                                        : c;
        made->text = encodeUtf8(std::u32string(1, heavy));
        if (heavy != c) made->italic = false;
        return made;
    }

    /// The sign of a delimiter behind \left or \right; "." is none.
    std::string delimiter(const std::string& of, std::size_t from) {
        if (atEnd()) refuse(from, "“\\" + of + "” lacks its bracket.", "write \\" + of + "( or \\" + of + ".");
        std::u32string sign(1, text_[at_]);
        if (sign == U"\\") {
            ++at_;
            const std::string name = commandName();
            const TexSymbol* symbol = findTexSymbol(name);
            sign = symbol ? std::u32string(1, symbol->character) : U"\\";
        } else {
            ++at_;
        }
        if (sign == U".") return "";
        if (sign == U"<") sign = U"⟨";
        if (sign == U">") sign = U"⟩";
        static constexpr std::u32string_view known = U"()[]{}|‖⟨⟩⌊⌋⌈⌉/";
        if (known.find(sign[0]) == std::u32string_view::npos)
            refuse(from, "This is no bracket that grows.", "write one of ( ) [ ] \\{ \\} | or a point for none");
        return encodeUtf8(sign);
    }

    MathPtr fenced(std::size_t from) {
        const std::string open = delimiter("left", from);
        MathPtr inside = rowUntil([this] { return peekCommand() == "right"; });
        if (peekCommand() != "right") {
            at_ = from + 5;
            refuse(from, "There is no “\\right” for this “\\left”.", "add \\right) or \\right.");
        }
        const std::size_t end = at_++;
        commandName();
        return mathFenced(open, std::move(inside), delimiter("right", end));
    }

    MathPtr environment(std::size_t from) {
        const std::string name = words("begin", from);
        static constexpr struct {
            const char *name, *open, *close;
        } known[] = {{"matrix", "", ""},    {"pmatrix", "(", ")"}, {"bmatrix", "[", "]"},
                     {"vmatrix", "|", "|"}, {"Bmatrix", "{", "}"}, {"cases", "{", ""}};
        const auto* kind = std::ranges::find(known, name, [](const auto& each) { return std::string_view(each.name); });
        if (kind == std::end(known))
            refuse(from, "“" + name + "” is not known here.", "known are matrix, pmatrix, bmatrix, vmatrix and cases");
        std::vector<std::vector<MathPtr>> rows(1);
        for (;;) {
            rows.back().push_back(rowUntil([this] {
                const std::string next = peekCommand();
                return peek() == U'&' || next == "\\" || next == "end";
            }));
            if (peek() == U'&') {
                ++at_;
                continue;
            }
            const std::string next = peekCommand();
            if (next.empty()) {
                at_ = from + 6;
                refuse(from, "There is no \\end{" + name + "} for this.", "add it");
            }
            const std::size_t here = at_++;
            commandName();
            if (next == "\\") {
                rows.emplace_back();
                continue;
            }
            const std::string ended = words("end", here);
            if (ended != name)
                refuse(here, "This ends “" + ended + "”, and “" + name + "” was begun.", "write \\end{" + name + "}");
            break;
        }
        if (rows.size() > 1 && rows.back().size() == 1 && rows.back()[0]->children.empty()) rows.pop_back();
        const bool isCases = name == "cases";
        MathPtr grid = mathGrid(std::move(rows), isCases);
        return isCases || *kind->open ? mathFenced(kind->open, std::move(grid), kind->close) : grid;
    }

    std::u32string text_;
    std::size_t at_ = 0;
    int depth_ = 0;
};

} // namespace

TexRead readTex(const std::string& text) {
    try {
        return {Reader(decodeUtf8(text)).whole(), {}};
    } catch (const Refused& refused) {
        Problem problem;
        problem.first = static_cast<int>(refused.first) + 1;
        problem.last = static_cast<int>(refused.last) + 1;
        problem.sentence = refused.sentence;
        problem.suggestion = refused.suggestion;
        return {nullptr, problem};
    }
}

} // namespace coulter

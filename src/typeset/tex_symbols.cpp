#include "typeset/tex_symbols.h"

#include <algorithm>
#include <array>
#include <numeric>
#include <span>
#include <utility>
#include <vector>

namespace coulter {
namespace {

using enum MathClass;

constexpr TexSymbol symbols[] = {
    {"alpha", U'α', Ordinary, true},
    {"beta", U'β', Ordinary, true},
    {"gamma", U'γ', Ordinary, true},
    {"delta", U'δ', Ordinary, true},
    {"epsilon", U'ϵ', Ordinary, true},
    {"varepsilon", U'ε', Ordinary, true},
    {"zeta", U'ζ', Ordinary, true},
    {"eta", U'η', Ordinary, true},
    {"theta", U'θ', Ordinary, true},
    {"vartheta", U'ϑ', Ordinary, true},
    {"iota", U'ι', Ordinary, true},
    {"kappa", U'κ', Ordinary, true},
    {"lambda", U'λ', Ordinary, true},
    {"mu", U'μ', Ordinary, true},
    {"nu", U'ν', Ordinary, true},
    {"xi", U'ξ', Ordinary, true},
    {"omicron", U'ο', Ordinary, true},
    {"pi", U'π', Ordinary, true},
    {"varpi", U'ϖ', Ordinary, true},
    {"rho", U'ρ', Ordinary, true},
    {"varrho", U'ϱ', Ordinary, true},
    {"sigma", U'σ', Ordinary, true},
    {"varsigma", U'ς', Ordinary, true},
    {"tau", U'τ', Ordinary, true},
    {"upsilon", U'υ', Ordinary, true},
    {"phi", U'ϕ', Ordinary, true},
    {"varphi", U'φ', Ordinary, true},
    {"chi", U'χ', Ordinary, true},
    {"psi", U'ψ', Ordinary, true},
    {"omega", U'ω', Ordinary, true},
    {"Gamma", U'Γ'},
    {"Delta", U'Δ'},
    {"Theta", U'Θ'},
    {"Lambda", U'Λ'},
    {"Xi", U'Ξ'},
    {"Pi", U'Π'},
    {"Sigma", U'Σ'},
    {"Upsilon", U'Υ'},
    {"Phi", U'Φ'},
    {"Psi", U'Ψ'},
    {"Omega", U'Ω'},
    {"cdot", U'⋅', Binary},
    {"times", U'×', Binary},
    {"div", U'÷', Binary},
    {"pm", U'±', Binary},
    {"mp", U'∓', Binary},
    {"ast", U'∗', Binary},
    {"circ", U'∘', Binary},
    {"bullet", U'∙', Binary},
    {"cup", U'∪', Binary},
    {"cap", U'∩', Binary},
    {"wedge", U'∧', Binary},
    {"vee", U'∨', Binary},
    {"oplus", U'⊕', Binary},
    {"otimes", U'⊗', Binary},
    {"setminus", U'∖', Binary},
    {"leq", U'≤', Relation},
    {"le", U'≤', Relation},
    {"geq", U'≥', Relation},
    {"ge", U'≥', Relation},
    {"ll", U'≪', Relation},
    {"gg", U'≫', Relation},
    {"neq", U'≠', Relation},
    {"ne", U'≠', Relation},
    {"equiv", U'≡', Relation},
    {"approx", U'≈', Relation},
    {"sim", U'∼', Relation},
    {"simeq", U'≃', Relation},
    {"cong", U'≅', Relation},
    {"propto", U'∝', Relation},
    {"in", U'∈', Relation},
    {"notin", U'∉', Relation},
    {"ni", U'∋', Relation},
    {"subset", U'⊂', Relation},
    {"subseteq", U'⊆', Relation},
    {"supset", U'⊃', Relation},
    {"perp", U'⟂', Relation},
    {"parallel", U'∥', Relation},
    {"mid", U'∣', Relation},
    {"to", U'→', Relation},
    {"rightarrow", U'→', Relation},
    {"leftarrow", U'←', Relation},
    {"leftrightarrow", U'↔', Relation},
    {"Rightarrow", U'⇒', Relation},
    {"Leftarrow", U'⇐', Relation},
    {"Leftrightarrow", U'⇔', Relation},
    {"mapsto", U'↦', Relation},
    {"uparrow", U'↑', Relation},
    {"downarrow", U'↓', Relation},
    {"infty", U'∞'},
    {"partial", U'∂', Ordinary, true},
    {"nabla", U'∇'},
    {"ell", U'ℓ'},
    {"hbar", U'ℏ'},
    {"Re", U'ℜ'},
    {"Im", U'ℑ'},
    {"aleph", U'ℵ'},
    {"forall", U'∀'},
    {"exists", U'∃'},
    {"neg", U'¬'},
    {"emptyset", U'∅'},
    {"angle", U'∠'},
    {"prime", U'′'},
    {"degree", U'°'},
    {"dots", U'…', Inner},
    {"ldots", U'…', Inner},
    {"cdots", U'⋯', Inner},
    {"vdots", U'⋮'},
    {"ddots", U'⋱', Inner},
    {"colon", U':', Punctuation},
    {"langle", U'⟨', Open},
    {"rangle", U'⟩', Close},
    {"lfloor", U'⌊', Open},
    {"rfloor", U'⌋', Close},
    {"lceil", U'⌈', Open},
    {"rceil", U'⌉', Close},
    {"vert", U'|'},
    {"Vert", U'‖'},
    {"lbrace", U'{', Open},
    {"rbrace", U'}', Close},
    {"{", U'{', Open},
    {"}", U'}', Close},
    {"|", U'‖'},
    {"%", U'%'},
    {"&", U'&'},
    {"#", U'#'},
    {"_", U'_'},
};

constexpr std::string_view functions[] = {"sin",    "cos",  "tan",  "cot",  "sec",  "csc", "arcsin", "arccos",
                                          "arctan", "sinh", "cosh", "tanh", "coth", "exp", "ln",     "log",
                                          "lg",     "lim",  "max",  "min",  "sup",  "inf", "det",    "dim",
                                          "ker",    "arg",  "deg",  "gcd",  "hom",  "Pr"};

struct Named {
    std::string_view name;
    char32_t character;
};
constexpr Named large[] = {{"sum", U'∑'}, {"prod", U'∏'}, {"int", U'∫'}, {"iint", U'∬'}, {"oint", U'∮'}};
constexpr Named accents[] = {{"hat", U'\u0302'},   {"widehat", U'\u0302'}, {"bar", U'\u0304'},  {"tilde", U'\u0303'},
                             {"vec", U'\u20D7'},   {"dot", U'\u0307'},     {"ddot", U'\u0308'}, {"check", U'\u030C'},
                             {"acute", U'\u0301'}, {"grave", U'\u0300'}};
constexpr std::string_view others[] = {
    "frac",   "dfrac",  "tfrac",  "sqrt",         "left",     "right", "begin", "end",    "text",    "displaystyle",
    "mathrm", "mathbf", "mathit", "operatorname", "overline", "quad",  "qquad", "limits", "nolimits"};

char32_t characterOf(std::span<const Named> list, std::string_view name) {
    const auto at = std::ranges::find(list, name, &Named::name);
    return at == list.end() ? 0 : at->character;
}

/// Letters to change, add or take away until one is the other.
std::size_t distanceOf(std::string_view a, std::string_view b) {
    std::vector<std::size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), std::size_t{0});
    for (std::size_t i = 0; i < a.size(); ++i) {
        std::size_t before = std::exchange(row[0], i + 1);
        for (std::size_t k = 0; k < b.size(); ++k) {
            const std::size_t changed = before + (a[i] == b[k] ? 0 : 1);
            before = std::exchange(row[k + 1], std::min({changed, row[k] + 1, row[k + 1] + 1}));
        }
    }
    return row.back();
}

} // namespace

const TexSymbol* findTexSymbol(std::string_view name) {
    const auto* at = std::ranges::find(symbols, name, &TexSymbol::name);
    return at == std::end(symbols) ? nullptr : at;
}

bool isTexFunction(std::string_view name) { return std::ranges::find(functions, name) != std::end(functions); }
char32_t texLarge(std::string_view name) { return characterOf(large, name); }
char32_t texAccent(std::string_view name) { return characterOf(accents, name); }

std::string_view nearTexName(std::string_view name) {
    std::string_view nearest;
    std::size_t least = 2; // letters that may differ
    const auto consider = [&](std::string_view known) {
        const std::size_t away = distanceOf(name, known);
        if (known.size() < 2 || away > least || (away == least && !nearest.empty())) return;
        least = away;
        nearest = known;
    };
    for (const TexSymbol& each : symbols) consider(each.name);
    for (const std::string_view each : functions) consider(each);
    for (const Named& each : large) consider(each.name);
    for (const Named& each : accents) consider(each.name);
    for (const std::string_view each : others) consider(each);
    return nearest;
}

} // namespace coulter

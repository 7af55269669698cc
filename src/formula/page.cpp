#include "formula/page.h"

#include "formula/line_parser.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <set>

namespace coulter {
namespace {

void report(Line& line, Span span, std::string sentence, std::string suggestion = "",
            Problem::Severity severity = Problem::Severity::Error) {
    line.problems.push_back({-1, span.first, span.last, std::move(sentence), std::move(suggestion), severity});
}

Span spanOf(const Line& line) { return {1, std::max(1, static_cast<int>(decodeUtf8(line.source).size()))}; }

bool defines(const Line& line) {
    return !line.name.empty() &&
           (line.kind == LineKind::Quantity || line.kind == LineKind::Function || line.kind == LineKind::Variable);
}

/// Names a body refers to, without the parameters; each with its place.
void references(const Expr& e, const std::set<std::string>& bound, std::vector<std::pair<std::string, Span>>& out) {
    if ((e.kind == ExprKind::Name && !bound.contains(e.text)) || e.kind == ExprKind::Call) {
        out.emplace_back(e.text, e.span);
    }
    const bool runs = e.kind == ExprKind::Sum || e.kind == ExprKind::Product;
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if (runs && i == 2) inner.insert(e.text);
        references(*e.operands[i], inner, out);
    }
}

class Resolver {
public:
    explicit Resolver(Page& page) : page_(page), state_(page.lines.size(), State::New) {}

    void run() {
        // A function is computed with its period, so that must be known first.
        for (const auto& [name, line] : page_.periods) visit(line);
        for (std::size_t i = 0; i < page_.lines.size(); ++i) visit(i);
        for (Line& line : page_.lines) {
            if (line.good() && line.kind == LineKind::Question) answer(line);
        }
    }

private:
    enum class State { New, Open, Done };

    struct Visit {
        std::size_t line;
        std::vector<std::pair<std::string, Span>> needs;
        std::size_t next = 0;
    };

    /// Depth first over what a line needs (with a stack of its own, for long chains); computes a line after all that it
    /// needs. Finding an open line again closes a circle, which is named on every line of it.
    void visit(std::size_t first) {
        if (state_[first] != State::New) return;
        open(first);
        while (!path_.empty()) {
            Visit& top = path_.back();
            const std::size_t index = top.line;
            if (top.next == top.needs.size() || !page_.lines[index].good()) {
                path_.pop_back();
                state_[index] = State::Done;
                if (page_.lines[index].good()) computeLine(page_.lines[index]);
                continue;
            }
            const auto& [name, span] = top.needs[top.next];
            const auto defined = page_.defined.find(name);
            if (defined == page_.defined.end()) {
                ++top.next;
            } else if (state_[defined->second] == State::New) {
                open(defined->second);
            } else if (state_[defined->second] == State::Open) {
                ++top.next;
                nameCircle(defined->second);
            } else {
                ++top.next;
                if (page_.lines[defined->second].good()) continue;
                Line& line = page_.lines[index];
                report(line, span,
                       name + " cannot be computed: line " + std::to_string(defined->second + 1) + " has a problem.");
                line.problems.back().follows = true;
            }
        }
    }

    void open(std::size_t index) {
        state_[index] = State::Open;
        path_.push_back({index, needs(page_.lines[index]), 0});
    }

    void computeLine(Line& line) {
        if (line.kind == LineKind::Quantity) quantity(line);
        if (line.kind == LineKind::Period) period(line);
        if (line.kind == LineKind::Variable) variable(line);
        if (line.kind == LineKind::Function && line.body) function(line);
    }

    static std::vector<std::pair<std::string, Span>> needs(const Line& line) {
        std::vector<std::pair<std::string, Span>> out;
        const std::set<std::string> bound(line.parameters.begin(), line.parameters.end());
        for (const ExprPtr& part : {line.body, line.low, line.high, line.from, line.to, line.count, line.step}) {
            if (part) references(*part, bound, out);
        }
        return out;
    }

    void nameCircle(std::size_t start) {
        const auto begin = std::ranges::find(path_, start, &Visit::line);
        std::string circle;
        for (auto at = begin; at != path_.end(); ++at) circle += page_.lines[at->line].name + " → ";
        circle += page_.lines[start].name;
        for (auto at = begin; at != path_.end(); ++at) {
            Line& line = page_.lines[at->line];
            const std::string& next = page_.lines[at + 1 == path_.end() ? start : (at + 1)->line].name;
            Span span = spanOf(line);
            for (const auto& [name, place] : needs(line)) {
                if (name == next) span = place;
            }
            report(line, span, "This definition goes in a circle: " + circle + ".",
                   "give one of them a value of its own");
        }
    }

    std::optional<double> number(Line& line, const ExprPtr& expression) {
        if (!expression) return std::nullopt;
        const Compiled compiled = compile(page_, expression, {});
        if (!compiled.program) {
            line.problems.insert(line.problems.end(), compiled.problems.begin(), compiled.problems.end());
            return std::nullopt;
        }
        double result = 0;
        double* out = &result;
        Evaluator (*compiled.program)({}, std::span<double* const>(&out, 1), 1);
        return result;
    }

    void quantity(Line& line) {
        line.value = number(line, line.body);
        if (line.value && std::isnan(*line.value)) {
            report(line, line.body->span, line.name + " is undefined: the formula has no value here.");
            line.value.reset();
        }
        const auto from = number(line, line.from), to = number(line, line.to);
        if (from && to) {
            if (*from < *to && std::isfinite(*from) && std::isfinite(*to))
                line.range = Interval{*from, *to, true, true};
            else
                report(line, {line.from->span.first, line.to->span.last},
                       "The range of " + line.name + " has no extent: it starts at " + shortestNumber(*from) +
                           " and ends at " + shortestNumber(*to) + ".",
                       "write the smaller number first");
        }
    }

    void period(Line& line) {
        line.value = number(line, line.body);
        if (line.value && !(*line.value > 0 && std::isfinite(*line.value))) {
            report(line, line.body->span,
                   "A period is a positive number; this is " + shortestNumber(*line.value) + ".");
        }
    }

    void variable(Line& line) {
        const auto low = number(line, line.low), high = number(line, line.high);
        const auto count = number(line, line.count), step = number(line, line.step);
        if (!line.good() || !low || !high) return;
        const Span ends{line.low->span.first, line.high->span.last};
        line.interval.low = *low;
        line.interval.high = *high;
        line.grid.count = count;
        line.grid.step = step;
        if (!std::isfinite(*low) || !std::isfinite(*high))
            return report(line, ends, "An interval to draw over needs two finite ends.");
        if (*low > *high) {
            return report(line, ends,
                          "The interval is reversed: it starts at " + shortestNumber(*low) + " and ends at " +
                              shortestNumber(*high) + ".",
                          "write the smaller number first");
        }
        if (*low == *high)
            return report(line, ends, "The interval is empty: both ends are " + shortestNumber(*low) + ".");
    }

    void function(Line& line) {
        const Problems problems = checkBody(page_, line);
        line.problems.insert(line.problems.end(), problems.begin(), problems.end());
    }

    void answer(Line& line) {
        for (const std::string& name : freeVariables(page_, line.body)) {
            return report(line, line.body->span, name + " is a variable and has no single value here.",
                          "ask at a place, such as f(2) = ?");
        }
        line.value = number(line, line.body);
    }

    Page& page_;
    std::vector<State> state_;
    std::vector<Visit> path_;
};

void noteShadowed(Line& line) {
    if (!defines(line)) return;
    if (!std::isnan(constantValue(line.name))) {
        report(line, line.nameSpan,
               line.name + " now means this line, not the constant " + shortestNumber(constantValue(line.name)) + ".",
               "", Problem::Severity::Note);
    }
}

} // namespace

const Line* Page::find(const std::string& name, LineKind kind) const {
    const auto at = defined.find(name);
    if (at == defined.end()) return nullptr;
    const Line& line = lines[at->second];
    return line.kind == kind && line.good() ? &line : nullptr;
}

Problems Page::problems() const {
    Problems all;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        for (Problem problem : lines[i].problems) {
            problem.line = static_cast<int>(i);
            all.push_back(std::move(problem));
        }
    }
    return all;
}

Page readPage(std::span<const std::string> lines) {
    Page page;
    std::vector<LineOutline> outlines;
    for (const std::string& source : lines.first(std::min(lines.size(), longestPage)))
        outlines.push_back(outlineLine(source));
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        Line& line = outlines[i].line;
        if (!defines(line)) continue;
        const auto [known, isNew] = page.defined.try_emplace(line.name, i);
        if (!isNew) {
            report(line, line.nameSpan,
                   line.name + " is already defined in line " + std::to_string(known->second + 1) + ".",
                   "choose another name, or a subscript");
            continue;
        }
        if (line.kind == LineKind::Function)
            page.names.functions[line.name] = line.parameters.size();
        else
            page.names.values.insert(line.name);
    }
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        Line& line = outlines[i].line;
        if (line.kind != LineKind::Period) continue;
        const auto function = page.names.functions.find(line.name);
        if (function == page.names.functions.end() || function->second != 1) {
            report(line, line.nameSpan, line.name + " is no function of one variable on this page.",
                   "define it, such as " + line.name + "(t) = …");
        } else if (!page.periods.try_emplace(line.name, i).second) {
            report(line, line.nameSpan, line.name + " already has a period.");
        }
    }
    for (LineOutline& outline : outlines) page.lines.push_back(readLine(std::move(outline), page.names));
    for (Line& line : page.lines) noteShadowed(line);
    if (lines.size() > longestPage) {
        report(page.lines.back(), spanOf(page.lines.back()),
               "A page ends after " + std::to_string(longestPage) + " lines; the rest is not read.");
    }
    Resolver(page).run();
    return page;
}

Answer evaluate(const Page& page, std::string_view text) {
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), page.names);
    Answer answer{std::nan(""), {}};
    if (!parsed.expression) {
        answer.problems = parsed.problems;
        return answer;
    }
    const Compiled compiled = compile(page, parsed.expression, {});
    answer.problems = compiled.problems;
    if (!compiled.program) return answer;
    double* out = &answer.value;
    Evaluator (*compiled.program)({}, std::span<double* const>(&out, 1), 1);
    return answer;
}

} // namespace coulter

#pragma once
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/notation/parser.h"
#include "special/catalogue.h"

#include <catch2/catch.hpp>

/// A formula of these inputs as a program; null where it cannot be compiled, such as constants outside a domain.
inline std::shared_ptr<const coulter::Program> compiledFormula(const std::string& formula,
                                                               const std::vector<std::string>& inputs = {"x"}) {
    coulter::KnownNames names;
    names.values.insert(inputs.begin(), inputs.end());
    const coulter::ParsedExpression parsed = coulter::parseExpression(coulter::decodeUtf8(formula), names);
    INFO(formula << (parsed.expression ? "" : coulter::describe(parsed.problems.front())));
    REQUIRE(parsed.expression);
    return coulter::compile(coulter::Page{}, parsed.expression, inputs).program;
}

/// What the manual plots of a function, with the first case of its family: a formula of x.
inline std::string exampleOf(const coulter::FunctionEntry& entry) {
    std::string formula(entry.plotted);
    const auto family = formula.find(" for ");
    if (family == std::string::npos) return formula;
    const std::string name = formula.substr(family + 5, formula.find(" in ") - family - 5);
    const auto open = formula.find('{', family);
    const std::string value = formula.substr(open + 1, formula.find_first_of(",}", open) - open - 1);
    formula = formula.substr(0, family);
    for (std::size_t at = 0; (at = formula.find(name, at)) != std::string::npos; at += value.size()) {
        const auto letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); };
        const bool inWord = (at > 0 && letter(formula[at - 1])) || (at + 1 < formula.size() && letter(formula[at + 1]));
        if (!inWord) formula.replace(at, name.size(), value);
    }
    return formula;
}

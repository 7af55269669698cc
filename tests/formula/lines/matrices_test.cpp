#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/completion.h"
#include "formula/lines/matrices.h"
#include "formula/lines/read_page.h"
#include "formula/notation/matrix_functions.h"

#include <Eigen/LU>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <random>

using namespace coulter;

namespace {

const std::vector<std::string> lines{
    "A = ((2, 1), (1, 3))", "B = ((0, 1, 2), (3, 4, 5))", "u = (1, 2)", "v = (3, 4)", "c = 2",
    "S = ((1, 2), (2, 4))", "w = (1, 2, 3, 4, 5)"};

std::string asked(const char* expression, bool withError = false) {
    const Page page = readPage(lines);
    const Answer found = evaluate(page, expression);
    return found.problems.empty() ? answerText(found, withError) : "! " + found.problems.front().sentence;
}

} // namespace

TEST_CASE("matrices are computed, and each result is named for what it is") {
    CHECK(asked("((1, 2), (3, 4))") == "((1, 2), (3, 4))");
    CHECK(asked("A + A") == "((4, 2), (2, 6)) (matrix sum)");
    CHECK(asked("A - 2A") == "((-2, -1), (-1, -3)) (matrix difference)");
    CHECK(asked("A A") == "((5, 5), (5, 10)) (matrix product)");
    CHECK(asked("A B") == "((3, 6, 9), (9, 13, 17)) (matrix product)");
    CHECK(asked("A u") == "(4, 7) (matrix times vector)");
    CHECK(asked("c A") == "((4, 2), (2, 6)) (multiple)");
    CHECK(asked("A/c") == "((1, 0.5), (0.5, 1.5)) (multiple)");
    CHECK(asked("A^2") == "((5, 5), (5, 10)) (power of a matrix)");
    CHECK(asked("A^0") == "((1, 0), (0, 1)) (power of a matrix)");
    CHECK(asked("entrywise(A, A)") == "((4, 1), (1, 9)) (product by elements)");
    CHECK(asked("transpose(B)") == "((0, 3), (1, 4), (2, 5)) (transpose)");
    CHECK(asked("transpose(u) A") == "((4, 7)) (matrix product)");
    CHECK(asked("det(A)") == "5 (determinant)");
    CHECK(asked("det(S)") == "0 (determinant)");
    CHECK(asked("trace(A)") == "5 (trace)");
    CHECK(asked("dot(u, v)") == "11 (dot product)");
    CHECK(asked("cross((1, 0, 0), (0, 1, 0))") == "(0, 0, 1) (cross product)");
    CHECK(asked("solution(A, u)") == "(0.2, 0.6) (solution of the linear system)");
    CHECK(asked("A^(-1) u") == "(0.2, 0.6) (matrix times vector)");
    CHECK(asked("identity(2) + A") == "((3, 1), (1, 4)) (matrix sum)");
    CHECK(asked("w + w") == "(2, 4, 6, 8, 10) (vector sum)");
    CHECK(asked("|w|^2") == "55");
    CHECK(asked("sin(det(A) - 5)", true) == "0 ± 3.0e-323"); // the smallest numbers there are
    CHECK(asked("2 + dot(u, v)") == "13");
    CHECK(asked("u + v") == "(4, 6)" + std::string(" (vector sum)"));
    CHECK(asked("det(A)", true) == "5 ± 0.0e+00 (determinant)");
}

TEST_CASE("what is not defined for matrices is refused with the way out") {
    const auto contains = [](const std::string& text, const char* part) {
        return text.find(part) != std::string::npos;
    };
    CHECK(contains(asked("A + 1"), "needs two of one size"));
    CHECK(contains(asked("B B"), "does not exist"));
    CHECK(contains(asked("u v"), "several products"));
    CHECK(contains(asked("1/A"), "Nothing is divided"));
    CHECK(contains(asked("sin(A)"), "one of numbers"));
    CHECK(contains(asked("A^0.5"), "whole exponents"));
    CHECK(contains(asked("S^(-1)"), "singular"));
    CHECK(contains(asked("solution(S, u)"), "singular"));
    CHECK(contains(asked("det(B)"), "square"));
    CHECK(contains(asked("cross(u, v)"), "3 components"));
    CHECK(contains(asked("((1, 2), (3))"), "one length"));
    CHECK(contains(asked("identity(99)"), "whole number"));
    CHECK(contains(asked("(1,2,3,4,5,6,7,8,9,10,11,12,13)"), "at most 12"));
    CHECK(contains(asked("det(A, B)"), "takes 1 argument"));
    const Page page = readPage(std::vector<std::string>{"A = ((1, 2), (3, 4))", "f(x) = A x"});
    CHECK_FALSE(page.lines[1].good());
}

TEST_CASE("vectors and matrices stand on lines of their own and in formulas where they fit") {
    const Page page = readPage(std::vector<std::string>{"A = ((2, 1), (1, 3))", "b = A^(-1) (1, 2)", "d = det(A)",
                                                        "x in [0, 1]", "f(x) = |b| x + d", "f(1) = ?", "A b = ?"});
    for (const Line& line : page.lines) CHECK(line.problems.empty());
    CHECK(page.lines[1].kind == LineKind::Matrix);
    CHECK(page.valueOf("d") == 5.0);
    REQUIRE(page.lines[5].value);
    CHECK(*page.lines[5].value == Approx(std::hypot(0.2, 0.6) + 5));
    REQUIRE(page.lines[6].matrix);
    CHECK(page.lines[6].matrix->values[1] == Approx(2));
}

TEST_CASE("solutions and determinants agree with another elimination, within the bounds that are claimed") {
    std::mt19937 random(5);
    std::uniform_int_distribution<int> entry(-9, 9);
    int bounded = 0;
    for (int round = 0; round < 200; ++round) {
        const int size = 2 + round % 5;
        Eigen::Matrix<long double, Eigen::Dynamic, Eigen::Dynamic> a(size, size);
        std::string text = "(";
        for (int i = 0; i < size; ++i) {
            text += i > 0 ? ", (" : "(";
            for (int j = 0; j < size; ++j) {
                const int value = entry(random);
                a(i, j) = value;
                text += (j > 0 ? ", " : "") + std::to_string(value);
            }
            text += ")";
        }
        text += ")";
        CAPTURE(text);
        const Page page = readPage(std::vector<std::string>{});
        const auto lu = a.fullPivLu();
        const Answer det = evaluate(page, "det(" + text + ")");
        REQUIRE(det.matrix);
        CHECK(std::abs(det.matrix->values[0] - static_cast<double>(a.determinant())) <= det.matrix->errors[0] + 1e-9);
        const Answer inverse = evaluate(page, "inverse(" + text + ")");
        if (!lu.isInvertible()) {
            CHECK_FALSE(inverse.problems.empty());
            continue;
        }
        REQUIRE(inverse.matrix);
        const auto exact = lu.inverse().eval();
        for (int i = 0; i < size; ++i) {
            for (int j = 0; j < size; ++j) {
                const auto at = static_cast<std::size_t>(i * size + j);
                const double error = inverse.matrix->errors[at];
                CHECK(std::abs(static_cast<long double>(inverse.matrix->values[at]) - exact(i, j)) <=
                      error + 1e-16L * std::abs(exact(i, j)));
                if (error < 1e-9) ++bounded;
            }
        }
    }
    CHECK(bounded > 1000);
}

TEST_CASE("every function of matrices is offered while typing, and stands in the manual") {
    std::ifstream manual(std::string(std::getenv("COULTER_SOURCE")) + "/docs/notation.md");
    const std::string text((std::istreambuf_iterator<char>(manual)), {});
    for (const MatrixFunction& each : matrixFunctions()) {
        INFO(each.form);
        CHECK(findMatrixFunction(each.name) != nullptr);
        CHECK(text.find("`" + std::string(each.form) + "`") != std::string::npos);
        const auto offered = completions(readPage(std::vector<std::string>{}), each.name, 5);
        CHECK(std::ranges::count(offered, std::string(each.form), &Completion::form) == 1);
    }
}

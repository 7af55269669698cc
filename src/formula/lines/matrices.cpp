#include "formula/lines/matrices.h"

#include "formula/base/text.h"
#include "formula/bounds/interval_rules.h"
#include "formula/lines/answer.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/matrix_functions.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

/// Carries a problem out of the recursion; never leaves this file.
struct MatrixRefusal {
    Problem problem;
};

[[noreturn]] void refuse(const Expr& e, std::string sentence, std::string suggestion = "") {
    throw MatrixRefusal{{-1, e.span.first, e.span.last, std::move(sentence), std::move(suggestion)}};
}

/// A number as it is computed, and what it certainly lies between.
struct Entry {
    long double value = 0; ///< with digits to spare, so that 1/5 comes out as 0.2
    Enclosure bounds = Enclosure::point(0);
};

Entry exactly(double value) { return {value, Enclosure::point(value)}; }

Entry apply(Kernel kernel, long double value, const Entry& a, const Entry& b) {
    return {value, enclose(kernel, a.bounds, b.bounds, false)};
}
Entry operator+(const Entry& a, const Entry& b) { return apply(Kernel::Add, a.value + b.value, a, b); }
Entry operator-(const Entry& a, const Entry& b) { return apply(Kernel::Subtract, a.value - b.value, a, b); }
Entry operator*(const Entry& a, const Entry& b) { return apply(Kernel::Multiply, a.value * b.value, a, b); }
Entry operator/(const Entry& a, const Entry& b) { return apply(Kernel::Divide, a.value / b.value, a, b); }

struct Matrix {
    std::size_t rows = 1, columns = 1;
    bool isVector = false;
    std::vector<Entry> entries;
    std::string made;

    Matrix(std::size_t r, std::size_t c, bool vector = false)
        : rows(r), columns(c), isVector(vector), entries(r * c, exactly(0)) {}
    Entry& at(std::size_t row, std::size_t column) { return entries[row * columns + column]; }
    const Entry& at(std::size_t row, std::size_t column) const { return entries[row * columns + column]; }
    bool isNumber() const { return rows == 1 && columns == 1 && !isVector; }
    bool isSquare() const { return rows == columns && !isVector && !isNumber(); }
    Matrix named(std::string how) && {
        made = std::move(how);
        return std::move(*this);
    }
};

Matrix number(Entry entry) {
    Matrix one(1, 1);
    one.entries[0] = entry;
    return one;
}

/// "2 × 3 matrix", "vector of 2", "number".
std::string shape(const Matrix& m) {
    if (m.isNumber()) return "a number";
    if (m.isVector) return "a vector of " + std::to_string(m.rows);
    return "a " + std::to_string(m.rows) + " × " + std::to_string(m.columns) + " matrix";
}

std::string sumOf(const Matrix& m, const char* word) {
    if (m.isNumber()) return "";
    return (m.isVector ? "vector " : "matrix ") + std::string(word);
}

template <class Operation>
Matrix entrywise(const Expr& e, const Matrix& a, const Matrix& b, const char* does, const Operation& operation) {
    if (a.rows != b.rows || a.columns != b.columns || a.isVector != b.isVector)
        refuse(e, "Here " + shape(a) + " and " + shape(b) + " " + does + ", and that needs two of one size.",
               a.isNumber() != b.isNumber() ? "a multiple of the identity is 2 identity(3)" : "");
    Matrix result(a.rows, a.columns, a.isVector);
    for (std::size_t i = 0; i < a.entries.size(); ++i) result.entries[i] = operation(a.entries[i], b.entries[i]);
    return result;
}

template <class Operation> Matrix scaled(const Matrix& m, const Operation& operation) {
    Matrix result(m.rows, m.columns, m.isVector);
    for (std::size_t i = 0; i < m.entries.size(); ++i) result.entries[i] = operation(m.entries[i]);
    return result;
}

Matrix product(const Expr& e, const Matrix& a, const Matrix& b) {
    if (a.isNumber() && b.isNumber()) return number(a.entries[0] * b.entries[0]);
    if (a.isNumber()) return scaled(b, [&](const Entry& x) { return a.entries[0] * x; }).named("multiple");
    if (b.isNumber()) return scaled(a, [&](const Entry& x) { return x * b.entries[0]; }).named("multiple");
    if (a.isVector && b.isVector)
        refuse(e, "Two vectors have several products.", "write dot(a, b), cross(a, b) or entrywise(a, b)");
    if (a.columns != b.rows || a.isVector)
        refuse(e, "The matrix product of " + shape(a) + " and " + shape(b) + " does not exist.",
               a.rows == b.rows && a.columns == b.columns ? "the product by elements is entrywise(A, B)"
                                                          : "the first has as many columns as the second has rows");
    Matrix result(a.rows, b.columns, b.isVector);
    for (std::size_t i = 0; i < a.rows; ++i) {
        for (std::size_t j = 0; j < b.columns; ++j) {
            for (std::size_t k = 0; k < a.columns; ++k) result.at(i, j) = result.at(i, j) + a.at(i, k) * b.at(k, j);
        }
    }
    return std::move(result).named(b.isVector ? "matrix times vector" : "matrix product");
}

Matrix identity(std::size_t size) {
    Matrix result(size, size);
    for (std::size_t i = 0; i < size; ++i) result.at(i, i) = exactly(1);
    return result;
}

Matrix transposed(const Matrix& m) {
    Matrix result(m.columns, m.rows);
    for (std::size_t i = 0; i < m.rows; ++i) {
        for (std::size_t j = 0; j < m.columns; ++j) result.at(j, i) = m.at(i, j);
    }
    return result;
}

/// Eliminates below each pivot, and above it as well if there is a right-hand side; the determinant.
Entry eliminate(Matrix& a, Matrix* right) {
    Entry determinant = exactly(1);
    for (std::size_t k = 0; k < a.rows; ++k) {
        std::size_t pivot = k;
        for (std::size_t i = k + 1; i < a.rows; ++i) {
            if (std::abs(a.at(i, k).value) > std::abs(a.at(pivot, k).value)) pivot = i;
        }
        if (pivot != k) {
            for (std::size_t j = 0; j < a.columns; ++j) std::swap(a.at(k, j), a.at(pivot, j));
            for (std::size_t j = 0; right && j < right->columns; ++j) std::swap(right->at(k, j), right->at(pivot, j));
            determinant = exactly(0) - determinant;
        }
        const Entry top = a.at(k, k);
        determinant = determinant * top;
        if (top.value == 0) return determinant;
        for (std::size_t i = right ? 0 : k + 1; i < a.rows; ++i) {
            if (i == k) continue;
            const Entry factor = a.at(i, k) / top;
            for (std::size_t j = k; j < a.columns; ++j) a.at(i, j) = a.at(i, j) - factor * a.at(k, j);
            for (std::size_t j = 0; right && j < right->columns; ++j)
                right->at(i, j) = right->at(i, j) - factor * right->at(k, j);
            a.at(i, k) = exactly(0);
        }
    }
    return determinant;
}

/// x with A x = B. A matrix that may be singular within the bounds of its entries is refused.
Matrix solution(const Expr& e, Matrix a, Matrix b) {
    if (!a.isSquare()) refuse(e, "A system is solved for a square matrix; this is " + shape(a) + ".");
    if (a.rows != b.rows) refuse(e, "Here " + shape(a) + " and " + shape(b) + " do not go together.");
    const Entry determinant = eliminate(a, &b);
    const Enclosure& about = determinant.bounds;
    if (determinant.value == 0 || !about.known || (about.low <= 0 && about.high >= 0))
        refuse(e, "This matrix is singular, or too near to it to be told from one.",
               "its determinant is " + roundedNumber(static_cast<double>(determinant.value) + 0.0, 3));
    for (std::size_t i = 0; i < b.rows; ++i) {
        for (std::size_t j = 0; j < b.columns; ++j) b.at(i, j) = b.at(i, j) / a.at(i, i);
    }
    return b;
}

Matrix inverse(const Expr& e, const Matrix& m) {
    if (!m.isSquare()) refuse(e, "Only a square matrix has an inverse; this is " + shape(m) + ".");
    return solution(e, m, identity(m.rows)).named("inverse");
}

void requireVectors(const Expr& e, const std::vector<Matrix>& all, std::size_t size) {
    for (const Matrix& each : all) {
        if (!each.isVector || (size > 0 && each.rows != size) || each.rows != all[0].rows)
            refuse(e, "This needs two vectors of " + (size > 0 ? std::to_string(size) : "as many") +
                          " components; here are " + shape(all[0]) + " and " + shape(all[1]) + ".");
    }
}

using Arguments = std::vector<Matrix>;
struct Row {
    std::string_view name;
    Matrix (*apply)(const Expr&, const Arguments&);
};

const std::array<Row, 9>& rows() {
    static const std::array<Row, 9> table{{
        {"det",
         [](const Expr& e, const Arguments& a) {
             if (!a[0].isSquare()) refuse(e, "Only a square matrix has a determinant; this is " + shape(a[0]) + ".");
             Matrix m = a[0];
             return number(eliminate(m, nullptr)).named("determinant");
         }},
        {"inverse", [](const Expr& e, const Arguments& a) { return inverse(e, a[0]); }},
        {"transpose", [](const Expr&, const Arguments& a) { return transposed(a[0]).named("transpose"); }},
        {"trace",
         [](const Expr& e, const Arguments& a) {
             if (!a[0].isSquare()) refuse(e, "Only a square matrix has a trace; this is " + shape(a[0]) + ".");
             Entry sum = exactly(0);
             for (std::size_t i = 0; i < a[0].rows; ++i) sum = sum + a[0].at(i, i);
             return number(sum).named("trace");
         }},
        {"dot",
         [](const Expr& e, const Arguments& a) {
             requireVectors(e, a, 0);
             Entry sum = exactly(0);
             for (std::size_t i = 0; i < a[0].rows; ++i) sum = sum + a[0].at(i, 0) * a[1].at(i, 0);
             return number(sum).named("dot product");
         }},
        {"cross",
         [](const Expr& e, const Arguments& a) {
             requireVectors(e, a, 3);
             Matrix result(3, 1, true);
             for (std::size_t i = 0; i < 3; ++i) {
                 const std::size_t j = (i + 1) % 3, k = (i + 2) % 3;
                 result.at(i, 0) = a[0].at(j, 0) * a[1].at(k, 0) - a[0].at(k, 0) * a[1].at(j, 0);
             }
             return std::move(result).named("cross product");
         }},
        {"entrywise",
         [](const Expr& e, const Arguments& a) {
             return entrywise(e, a[0], a[1], "are multiplied by elements",
                              [](const Entry& x, const Entry& y) { return x * y; })
                 .named("product by elements");
         }},
        {"solution", [](const Expr& e,
                        const Arguments& a) { return solution(e, a[0], a[1]).named("solution of the linear system"); }},
        {"identity",
         [](const Expr& e, const Arguments& a) {
             const auto size = static_cast<double>(a[0].isNumber() ? a[0].entries[0].value : 0);
             if (!(size >= 1 && size <= static_cast<double>(largestMatrix) && size == std::floor(size)))
                 refuse(e, "The size of an identity matrix is a whole number from 1 to " +
                               std::to_string(largestMatrix) + ".");
             return identity(static_cast<std::size_t>(size)).named("identity");
         }},
    }};
    return table;
}

class MatrixReader {
public:
    explicit MatrixReader(const Page& page) : page_(page) {}

    Matrix of(const ExprPtr& pointer) const {
        const Expr& e = *pointer;
        if (e.kind == ExprKind::Group) return of(e.operands[0]);
        if (e.kind == ExprKind::Vector) return written(e);
        if (e.kind == ExprKind::Name) {
            if (const Line* line = page_.find(e.text, LineKind::Matrix)) return known(*line->matrix);
        }
        if (!usesMatrices(page_, e)) return plain(pointer);
        switch (e.kind) {
        case ExprKind::Negate: return scaled(of(e.operands[0]), [](const Entry& x) { return exactly(0) - x; });
        case ExprKind::Add: {
            const Matrix a = of(e.operands[0]), b = of(e.operands[1]);
            return entrywise(e, a, b, "are added", [](const Entry& x, const Entry& y) { return x + y; })
                .named(sumOf(a, "sum"));
        }
        case ExprKind::Subtract: {
            const Matrix a = of(e.operands[0]), b = of(e.operands[1]);
            return entrywise(e, a, b, "are subtracted", [](const Entry& x, const Entry& y) { return x - y; })
                .named(sumOf(a, "difference"));
        }
        case ExprKind::Multiply: return product(e, of(e.operands[0]), of(e.operands[1]));
        case ExprKind::Divide: {
            const Matrix a = of(e.operands[0]), b = of(e.operands[1]);
            if (!b.isNumber())
                refuse(e, "Nothing is divided by " + shape(b) + ".", "write A^(-1) b, or solution(A, b)");
            return scaled(a, [&](const Entry& x) { return x / b.entries[0]; }).named("multiple");
        }
        case ExprKind::Power: return power(e);
        case ExprKind::Absolute: {
            const Matrix m = of(e.operands[0]);
            if (!m.isVector) refuse(e, "Bars mean the length of a vector; this is " + shape(m) + ".", "write det(A)");
            Entry sum = exactly(0);
            for (const Entry& each : m.entries) sum = sum + each * each;
            return number({std::sqrt(sum.value), enclose(Kernel::Sqrt, sum.bounds, sum.bounds, false)}).named("length");
        }
        case ExprKind::Call:
            if (isMatrixCall(page_, e)) {
                const auto row = std::ranges::find(rows(), std::string_view(e.text), &Row::name);
                Arguments arguments;
                for (const ExprPtr& each : e.operands) arguments.push_back(of(each));
                return row->apply(e, arguments);
            }
            break;
        default: break;
        }
        std::vector<Matrix> operands;
        for (const ExprPtr& each : e.operands) operands.push_back(of(each));
        if (std::ranges::all_of(operands, &Matrix::isNumber) && !bindsName(e.kind)) return ofNumbers(e, operands);
        if (e.kind == ExprKind::Call)
            refuse(e, "The function " + e.text + " is one of numbers, and here it has a matrix or a vector.",
                   "apply it to each entry");
        refuse(e, "This is not done with matrices or vectors.", "write out its entries");
    }

private:
    static Matrix known(const MatrixValue& value) {
        Matrix m(value.rows, value.columns, value.isVector);
        for (std::size_t i = 0; i < value.values.size(); ++i) {
            const double error = value.errors[i];
            Entry& entry = m.entries[i];
            const double known = value.values[i];
            entry.value = known;
            entry.bounds = std::isfinite(error) ? Enclosure{std::nextafter(known - error, -HUGE_VAL),
                                                            std::nextafter(known + error, HUGE_VAL)}
                                                : Enclosure::unknown();
            if (error == 0) entry.bounds = Enclosure::point(known);
        }
        return m;
    }

    /// What takes numbers alone, where some come from matrices: those that are not exact leave no bound.
    Matrix ofNumbers(const Expr& e, const std::vector<Matrix>& operands) const {
        std::vector<ExprPtr> numbers;
        bool exact = true;
        for (const Matrix& each : operands) {
            const Entry& entry = each.entries[0];
            const auto value = static_cast<double>(entry.value);
            exact = exact && entry.bounds.known && entry.bounds.isPoint() && entry.bounds.low == value;
            numbers.push_back(numberExpr(value));
        }
        Matrix result = plain(withOperands(e, std::move(numbers)));
        if (!exact) {
            for (Entry& each : result.entries) each.bounds = Enclosure::unknown();
        }
        return result;
    }

    /// A number, computed as any answer is.
    Matrix plain(const ExprPtr& e) const {
        const Answer found = answer(page_, e);
        if (!found.problems.empty()) throw MatrixRefusal{found.problems.front()};
        if (found.values.empty()) refuse(*e, "A matrix has numbers as its entries.");
        MatrixValue value{found.values.size(), 1, found.values.size() > 1, found.values, found.errors, ""};
        if (found.isStandardError || value.errors.size() != value.values.size())
            value.errors.assign(value.values.size(), HUGE_VAL);
        return known(value);
    }

    Matrix written(const Expr& e) const {
        const bool isMatrix =
            std::ranges::any_of(e.operands, [](const ExprPtr& each) { return each->kind == ExprKind::Vector; });
        const std::size_t columns = isMatrix ? e.operands[0]->operands.size() : 1;
        Matrix m(e.operands.size(), columns, !isMatrix);
        for (std::size_t i = 0; i < m.rows; ++i) {
            const Expr& row = *e.operands[i];
            if (isMatrix && (row.kind != ExprKind::Vector || row.operands.size() != columns))
                refuse(row, "The rows of a matrix are of one length.",
                       "write ((1, 2), (3, 4)): each row in brackets of its own");
            for (std::size_t j = 0; j < columns; ++j) {
                const ExprPtr& entry = isMatrix ? row.operands[j] : e.operands[i];
                const Matrix one = of(entry);
                if (!one.isNumber()) refuse(*entry, "An entry of a matrix is a number.");
                m.at(i, j) = one.entries[0];
            }
        }
        return m;
    }

    Matrix power(const Expr& e) const {
        const Matrix m = of(e.operands[0]), by = of(e.operands[1]);
        if (m.isNumber() && by.isNumber()) return ofNumbers(e, {m, by});
        const auto exponent = static_cast<double>(by.isNumber() ? by.entries[0].value : std::nan(""));
        constexpr double most = 64;
        if (!m.isSquare() || exponent != std::floor(exponent) || std::abs(exponent) > most)
            refuse(e, "Powers of matrices are those of square ones with whole exponents up to 64.",
                   m.isVector ? "write dot(a, a), or |a|^2" : "");
        const int times = static_cast<int>(std::abs(exponent));
        const Matrix base = exponent < 0 ? inverse(e, m) : m;
        Matrix result = times == 0 ? identity(m.rows) : base;
        for (int i = 1; i < times; ++i) result = product(e, result, base);
        return std::move(result).named(exponent == -1 ? "inverse" : "power of a matrix");
    }

    const Page& page_;
};

MatrixValue valueOf(const Matrix& m) {
    MatrixValue value{m.rows, m.columns, m.isVector, {}, {}, m.made};
    for (const Entry& each : m.entries) {
        value.values.push_back(static_cast<double>(each.value) + 0.0); // no −0
        const Enclosure& bounds = each.bounds;
        const double shown = value.values.back();
        const bool bounded = bounds.known && std::isfinite(shown);
        value.errors.push_back(bounded ? std::max({0.0, bounds.high - shown, shown - bounds.low}) : HUGE_VAL);
    }
    return value;
}

} // namespace

MatrixAnswer matrixOf(const Page& page, const ExprPtr& expression) {
    try {
        return {std::make_shared<const MatrixValue>(valueOf(MatrixReader(page).of(expression))), {}};
    } catch (const MatrixRefusal& refusal) {
        return {nullptr, {refusal.problem}};
    }
}

std::string spelled(const MatrixValue& matrix) {
    if (matrix.isNumber()) return shortestNumber(matrix.values[0]);
    std::string text = "(";
    for (std::size_t i = 0; i < matrix.rows; ++i) {
        if (i > 0) text += ", ";
        if (!matrix.isVector) text += "(";
        for (std::size_t j = 0; j < matrix.columns; ++j) text += (j > 0 ? ", " : "") + shortestNumber(matrix.at(i, j));
        if (!matrix.isVector) text += ")";
    }
    return text + ")";
}

} // namespace coulter

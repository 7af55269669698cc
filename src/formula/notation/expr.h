#pragma once
#include <memory>
#include <string>
#include <vector>

namespace coulter {

/// Where something stands in its line: first and last character, from 1.
struct Span {
    int first = 1;
    int last = 1;
    friend bool operator==(const Span&, const Span&) = default;
};

enum class ExprKind {
    Number,     ///< `number`; `text` is its spelling
    Name,       ///< `text` is the canonical name of a quantity, variable, parameter or constant
    Call,       ///< `text` is the function's canonical name, operands its indices and arguments
    Group,      ///< one operand in brackets; kept because print shows them
    Absolute,   ///< |a|
    Negate,     ///< −a
    Add,        ///< a + b
    Subtract,   ///< a − b
    Multiply,   ///< a b; `juxtaposed` if no sign was written
    Divide,     ///< a / b
    Power,      ///< a ^ b; `onFunction` if written sin^2(x)
    Factorial,  ///< a!
    Compare,    ///< a < b <= c: operands and the `relations` between them; a condition
    And,        ///< a and b; a condition
    Or,         ///< a or b; a condition
    Not,        ///< not a; a condition
    Iverson,    ///< [a]: 1 where the condition holds, 0 elsewhere
    Pieces,     ///< value, condition, value, condition, …; a last value alone is “otherwise”
    Sum,        ///< sum over the name `text`: lower limit, upper limit, term
    Product,    ///< the same as a product
    Integral,   ///< over the name `text`: lower limit, upper limit, integrand
    Derivative, ///< d^n/dx^n: x is `text`, n is `number`, the operand what is differentiated
    Vector,     ///< (a, b) or (a, b, c); of vectors the rows of a matrix: ((a, b), (c, d))
    List,       ///< {a, b, c}; {a, b, ..., z} if `goesOn`: a column of numbers
};

struct Expr;
using ExprPtr = std::shared_ptr<const Expr>;

/// A node of the syntax tree, as spelled: it is both what is computed and what is typeset.
struct Expr {
    ExprKind kind = ExprKind::Number;
    Span span;
    double number = 0;
    std::string text;
    bool juxtaposed = false;
    bool onFunction = false;
    bool principal = false;        ///< of an integral: its principal value
    bool goesOn = false;           ///< of a list: by equal steps up to its last number
    bool choosesRows = false;      ///< of pieces: a column whose rows a clause chose; print shows the column alone
    std::vector<ExprPtr> operands; ///< of a call: indices below, indices above, arguments
    int below = 0;                 ///< how many operands of a call are indices below: log_{b}(x), J_{n}(x)
    int above = 0;                 ///< and above: P_{n}^{m}(x)
    std::vector<int> orders; ///< of a call: how often it is differentiated by each argument, as in f''(x); empty: not
    std::vector<std::string> relations; ///< of a comparison: "<", "<=", "=", "!=", ">", ">="
    int height = 1;                     ///< levels of the tree: 1 for a leaf
};

/// Tallest tree that is read, in levels: everything that walks along a tree does so by recursion, which this bounds.
inline constexpr int tallestExpr = 1000;

/// Gives a node its operands, and the height that follows from them.
void setOperands(Expr& node, std::vector<ExprPtr> operands);

/// Whether the last operand of this kind stands under a name that runs there: sum, product, integral.
bool bindsName(ExprKind kind);

/// Whether an expression is a condition, which is true or false and not a number.
bool isCondition(const Expr& expression);

/// A canonical name ("γ_0", "x_max") in the parts that print shows: letter and subscript.
struct NameParts {
    std::string letter;
    std::string subscript;
};
NameParts nameParts(const std::string& canonical);
/// A canonical name as it is spelled on a page: "x_{max}".
std::string spelledName(const std::string& canonical);

} // namespace coulter

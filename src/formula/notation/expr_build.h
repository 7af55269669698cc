#pragma once
#include "formula/notation/expr.h"

namespace coulter {

// Makers of syntax trees that nobody spelled: places are unset, brackets are added at the end by `withBrackets`.

ExprPtr numberExpr(double value);
ExprPtr nameExpr(std::string canonical);
ExprPtr callExpr(std::string name, std::vector<ExprPtr> arguments);
ExprPtr nodeExpr(ExprKind kind, std::vector<ExprPtr> operands);
/// The same node over other operands.
ExprPtr withOperands(const Expr& e, std::vector<ExprPtr> operands);

ExprPtr operator+(const ExprPtr& a, const ExprPtr& b);
ExprPtr operator-(const ExprPtr& a, const ExprPtr& b);
ExprPtr operator*(const ExprPtr& a, const ExprPtr& b);
ExprPtr operator/(const ExprPtr& a, const ExprPtr& b);
ExprPtr powerExpr(const ExprPtr& base, const ExprPtr& exponent);
ExprPtr negated(const ExprPtr& a);

/// Whether e is the number `value`, in brackets or not.
bool isNumber(const Expr& e, double value);

/// e with every free `name` replaced; names that sums and integrals bind within are spared.
ExprPtr substitute(const ExprPtr& e, const std::string& name, const ExprPtr& replacement);

/// Whether `name` occurs free in e.
bool mentions(const Expr& e, const std::string& name);

/// e with brackets exactly where its meaning needs them.
ExprPtr withBrackets(const ExprPtr& e);

/// e in the notation, so that reading it gives e again.
std::string spelled(const Expr& e);

} // namespace coulter

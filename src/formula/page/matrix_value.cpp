#include "formula/page/matrix_value.h"

#include "formula/notation/matrix_functions.h"

#include <algorithm>

namespace coulter {

bool isMatrixCall(const Page& page, const Expr& e) {
    return e.kind == ExprKind::Call && !page.defined.contains(e.text) && findMatrixFunction(e.text);
}

bool usesMatrices(const Page& page, const Expr& e) {
    if (e.kind == ExprKind::Name) return page.find(e.text, LineKind::Matrix) != nullptr;
    if (isMatrixCall(page, e)) return true;
    if (e.kind == ExprKind::Vector &&
        (e.operands.size() > 3 ||
         std::ranges::any_of(e.operands, [](const ExprPtr& each) { return each->kind == ExprKind::Vector; })))
        return true;
    return std::ranges::any_of(e.operands, [&](const ExprPtr& each) { return usesMatrices(page, *each); });
}

} // namespace coulter

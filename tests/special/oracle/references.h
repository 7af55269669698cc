#pragma once
#include <arb.h>
#include <functional>
#include <map>
#include <string_view>
#include <vector>

namespace oracle {

inline constexpr slong precision = 300; ///< bits

/// A real ball that frees itself.
struct Ball {
    arb_t v;
    Ball() { arb_init(v); }
    explicit Ball(double x) : Ball() { arb_set_d(v, x); }
    Ball(const Ball& other) : Ball() { arb_set(v, other.v); }
    Ball& operator=(const Ball& other) {
        arb_set(v, other.v);
        return *this;
    }
    ~Ball() { arb_clear(v); }
};

using Operands = std::vector<Ball>;
using Reference = std::function<void(Ball& out, const Operands& v)>;

/// The functions of the catalogue in high precision, by their forms.
const std::map<std::string_view, Reference>& references();

} // namespace oracle

#include "formula/compile/known_integrals.h"

#include <mutex>
#include <string>
#include <unordered_map>

namespace coulter {
namespace {

constexpr std::size_t mostKept = 16'000'000, longestKey = 100'000; ///< bytes

/// All that a value depends on, as bytes; whether it can be said so.
class Key {
public:
    template <typename T> void add(const T& value) {
        bytes.append(reinterpret_cast<const char*>(&value), sizeof value);
    }
    bool add(const Program& program) {
        if (!program.tables.empty() || !program.fields.empty()) return false;
        add(program.inputCount), add(program.temporaryCount), add(program.constants.size());
        for (const double constant : program.constants) add(constant);
        add(program.instructions.size());
        for (const Program::Instruction& step : program.instructions) {
            add(step.kernel), add(step.special), add(step.integral), add(step.result), add(step.operandCount);
            for (const std::uint32_t operand : step.operands) add(operand);
        }
        add(program.integrals.size());
        for (const Program::Integral& integral : program.integrals) {
            add(integral.over), add(integral.operands.size());
            for (const std::uint32_t operand : integral.operands) add(operand);
            if (!add(*integral.integrand)) return false;
        }
        for (const std::uint32_t output : program.outputs) add(output);
        return true;
    }
    std::string bytes;
};

} // namespace

std::optional<double> knownIntegral(const Program::Integral& integral, std::span<const double> operands,
                                    const std::function<std::optional<double>()>& compute) {
    Key key;
    key.add(integral.over);
    for (const double operand : operands) key.add(operand);
    if (!key.add(*integral.integrand) || key.bytes.size() > longestKey) return compute();
    static std::mutex mutex;
    static std::unordered_map<std::string, std::optional<double>> kept;
    static std::size_t size = 0; // of all keys
    {
        const std::scoped_lock lock(mutex);
        if (const auto at = kept.find(key.bytes); at != kept.end()) return at->second;
    }
    const std::optional<double> value = compute();
    const std::scoped_lock lock(mutex);
    if (size + key.bytes.size() > mostKept) { // what is in use comes back soon
        kept.clear();
        size = 0;
    }
    size += key.bytes.size();
    kept.emplace(std::move(key.bytes), value);
    return value;
}

} // namespace coulter

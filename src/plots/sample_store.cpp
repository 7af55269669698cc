#include "plots/sample_store.h"

#include "plots/field_source.h"

#include "sampling/grid.h"

#include <array>
#include <bit>
#include <type_traits>
#include <utility>

namespace coulter {
namespace {

/// All that samples depend on, as bytes.
class Key {
public:
    std::string bytes;

    template <typename T> void add(const T& plain) {
        static_assert(std::is_arithmetic_v<T> || std::is_enum_v<T> || std::is_pointer_v<T>);
        bytes.append(reinterpret_cast<const char*>(&plain), sizeof plain);
    }
    template <typename T> void add(const std::optional<T>& value) {
        add(value.has_value());
        if (value) add(*value);
    }
    void add(const Interval& i) { add(i.low), add(i.high), add(i.lowClosed), add(i.highClosed); }
    void add(const Grid& grid) {
        add(grid.count), add(grid.step), add(grid.logarithmic), add(grid.places ? grid.places->size() : 0);
    }
    /// Of many numbers their sum by FNV-1a, twice with another beginning: a grid may have millions.
    void add(const MeasuredField& field) {
        std::array<std::uint64_t, 2> sums{14695981039346656037ULL, 1099511628211ULL};
        field.eachPart([&](std::span<const double> part) {
            for (const double number : part) {
                for (std::uint64_t& sum : sums) sum = (sum ^ std::bit_cast<std::uint64_t>(number)) * 1099511628211ULL;
            }
        });
        for (const std::uint64_t sum : sums) add(sum);
    }
    void add(const AxisMap& map) { add(map.kind), add(map.low), add(map.high), add(map.length); }
    void add(const std::shared_ptr<const Program>& program) {
        add(program != nullptr);
        if (program) add(*program);
    }
    void add(const Program& p) {
        add(p.inputCount), add(p.temporaryCount), add(p.constants.size()), add(p.instructions.size());
        for (const double constant : p.constants) add(constant);
        for (const Program::Instruction& step : p.instructions) {
            add(step.kernel), add(step.special), add(step.integral), add(step.result), add(step.operandCount),
                add(step.table), add(step.field);
            for (const std::uint32_t operand : step.operands) add(operand);
        }
        add(p.integrals.size());
        for (const Program::Integral& integral : p.integrals) {
            add(integral.integrand);
            add(integral.over);
            add(integral.operands.size());
            for (const std::uint32_t operand : integral.operands) add(operand);
        }
        for (const auto& table : p.tables) {
            for (const double number : table->x) add(number);
            for (const double number : table->y) add(number);
        }
        for (const auto& field : p.fields) add(*field);
        add(p.outputs.size());
        for (const std::uint32_t output : p.outputs) add(output);
    }
    void add(const Curve& curve) {
        add(curve.program), add(curve.interval), add(curve.grid), add(curve.provesIntegrals);
    }
    /// By where the numbers are kept, for as long as the samples hold them.
    void add(const Columns& columns) {
        for (const Column& column : columns.numbers) add(column.get());
    }
    void add(const Field& field) {
        add(field.program);
        for (std::size_t k = 0; k < 2; ++k) add(field.intervals[k]), add(field.grids[k]);
        add(field.inSpace), add(field.isMargin), add(field.mesh != nullptr), add(field.hasCells), add(field.tint);
        add(field.looksForPeaks);
        add(field.knowsPieces);
        add(field.followsLevels);
        add(field.asDots);
    }
};

/// Whether a frame enters into the samples: those of a grid stand wherever they are shown.
bool dependsOnFrame(const Curve& curve) { return isAdaptive(curve.grid); }
bool dependsOnFrame(const Field&) { return true; }
bool dependsOnFrame(const Columns&) { return false; }

} // namespace

std::string sampleKey(const Source& source, const std::vector<FinerStretch>& finer, const Frame& frame,
                      const Effort& effort) {
    Key key;
    key.add(source.index());
    std::visit([&](const auto& each) { key.add(each); }, source);
    key.add(effort.mostPoints), key.add(effort.operations);
    if (!std::visit([](const auto& each) { return dependsOnFrame(each); }, source)) return key.bytes;
    for (const FinerStretch& each : finer) key.add(each.low), key.add(each.high), key.add(each.times);
    const Field* field = std::get_if<Field>(&source);
    const PanelMap map = field ? samplingMap(*field, frame) : frame.map;
    key.add(map.x), key.add(map.y), key.add(effort.tolerance), key.add(effort.proofs || !canBeProven(source));
    if (field && field->asDots) {
        key.add(effort.dotsPerMm), key.add(effort.coarse), key.add(frame.leftwards), key.add(frame.downwards);
        for (const double side : {frame.rect.x, frame.rect.y, frame.rect.width, frame.rect.height}) key.add(side);
    }
    if (field) {
        const Limits range = samplingRange(*field, frame);
        key.add(range.low), key.add(range.high);
        for (const double level : levelsBeyond(*field, range)) key.add(level);
    }
    return key.bytes;
}

std::shared_ptr<const Samples> SampleStore::find(const std::string& key) {
    const std::scoped_lock lock(mutex_);
    const auto at = entries_.find(key);
    if (at == entries_.end()) return nullptr;
    at->second.used = true;
    ++hits_;
    return at->second.samples;
}

bool SampleStore::has(const std::string& key) {
    const std::scoped_lock lock(mutex_);
    return entries_.contains(key);
}

void SampleStore::keep(const std::string& key, std::shared_ptr<const Samples> samples) {
    const std::scoped_lock lock(mutex_);
    entries_[key] = {std::move(samples), true};
}

void SampleStore::forgetUnused() {
    const std::scoped_lock lock(mutex_);
    for (auto entry = entries_.begin(); entry != entries_.end();)
        entry = std::exchange(entry->second.used, false) ? std::next(entry) : entries_.erase(entry);
}

} // namespace coulter

#include "desktop/quantity_run.h"

#include "figure/edits.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr int everyMs = 40;
constexpr double wholeWayMs = 10'000; // to the highest value and back
constexpr double mostSteps = 500;     // of the range: finer ones cannot be told apart

} // namespace

QuantityRun::QuantityRun(DocumentSession& session, QObject* parent) : QObject(parent), session_(session) {
    timer_.setInterval(everyMs);
    connect(&timer_, &QTimer::timeout, this, &QuantityRun::step);
    // Another change of the document ends it, and counts.
    connect(&session_, &DocumentSession::stateChanged, this, [this] {
        if (!isRunning() || isOwn_) return;
        timer_.stop();
        emit running(false);
    });
}

QString QuantityRun::valueAt(const Interval& range, double share) {
    const double up = 1 - std::abs(2 * (share - std::floor(share)) - 1), width = range.high - range.low;
    const int decimals = std::clamp(static_cast<int>(std::ceil(-std::log10(width / mostSteps))), 0, 300);
    return QString::number(std::clamp(range.low + up * width, range.low, range.high), 'f', decimals);
}

QString QuantityRun::begin(const Page& page, int line) {
    const bool isThere = line >= 0 && line < static_cast<int>(page.lines.size());
    const Line quantity = isThere ? page.lines[static_cast<std::size_t>(line)] : Line{};
    if (quantity.kind != LineKind::Quantity || !quantity.range ||
        !(quantity.range->low < quantity.range->high && std::isfinite(quantity.range->high - quantity.range->low)))
        return tr("A quantity with a range can be run: write “, from 0 to 5” behind its value.");
    const auto value = page.valueOf(quantity.name);
    name_ = quantity.name;
    range_ = *quantity.range;
    from_ = value ? std::clamp((*value - range_.low) / (range_.high - range_.low), 0.0, 1.0) / 2 : 0;
    value_.clear();
    wasShown_ = true;
    since_.start();
    timer_.start();
    emit running(true);
    return {};
}

void QuantityRun::step() {
    if (!wasShown_) return;
    const QString value = valueAt(range_, from_ + static_cast<double>(since_.elapsed()) / wholeWayMs);
    if (value == value_) return;
    auto changed = withQuantity(session_.document(), name_, value.toStdString());
    if (!changed) return end(false);
    value_ = value;
    wasShown_ = false;
    session_.preview(std::move(changed));
}

void QuantityRun::end(bool keep) {
    if (!isRunning()) return;
    timer_.stop();
    isOwn_ = true;
    const auto changed =
        keep && !value_.isEmpty() ? withQuantity(session_.document(), name_, value_.toStdString()) : std::nullopt;
    session_.preview(std::nullopt);
    if (changed) session_.edit(*changed, tr("run of %1").arg(QString::fromStdString(name_)));
    isOwn_ = false;
    emit running(false);
}

} // namespace coulter
